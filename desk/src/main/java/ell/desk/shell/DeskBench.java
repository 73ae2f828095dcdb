package ell.desk.shell;

import ell.bench.Bench;
import ell.bench.dialect.Dialect;
import ell.bench.instrument.Hands;
import ell.bench.instrument.Meter;
import ell.bench.instrument.Plate;
import ell.bench.instrument.Scope;
import ell.bench.instrument.Supply;
import ell.bench.sim.SimBench;
import ell.work.Workshop;
import ell.work.bench.DialectFiles;
import ell.work.bench.SimulatedBench;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/// The instruments of the desk. Everything but the property runs on the worker.
public final class DeskBench {
  /// What stands for the bench that ships with Ell.
  public static final String SIMULATED = "simulated";

  /// Kinds in the order in which addresses without a word are taken.
  private static final List<String> ORDER =
      List.of(
          Supply.KIND.word(),
          Meter.KIND.word(),
          Plate.KIND.word(),
          Hands.KIND.word(),
          Scope.KIND.word(),
          "line");

  private static final int TIMEOUT_MILLIS = 1500;

  private final ObjectProperty<String> bench = new SimpleObjectProperty<>(this, "bench", SIMULATED);
  private SimulatedBench simulated;
  private volatile double plateSpeed = SimBench.PLATE_SPEED;

  /// The bench: `simulated`, or addresses such as `supply=host:port meter=host:port`; without words
  /// they are those of supply, meter and plate.
  public ObjectProperty<String> benchProperty() {
    return bench;
  }

  /// Where the instruments are, by the word of a kind; empty for the simulated bench.
  public Map<String, String> addresses() {
    return bench.get().strip().equals(SIMULATED) ? Map.of() : Bench.addresses(bench.get(), ORDER);
  }

  /// The bench that is set, started if it is the simulated one.
  public Bench open(Workshop w) throws IOException, ActException {
    if (!bench.get().strip().equals(SIMULATED)) {
      return own();
    }
    if (simulated == null) {
      simulated = SimulatedBench.start(w, 1, Map.of(), plateSpeed);
    }
    return simulated.bench();
  }

  /// A bench of one's own; a word that ends in `dialect`, as `supply-dialect=FILE`, is a file that
  /// says how an instrument wants to be told.
  private Bench own() throws IOException, ActException {
    Map<String, String> at = new LinkedHashMap<>(addresses());
    List<Dialect> dialects = new ArrayList<>();
    for (String word : List.copyOf(at.keySet())) {
      if (word.endsWith("dialect")) {
        dialects.add(DialectFiles.read(Path.of(at.remove(word))));
      }
    }
    return new Bench("bench", at, TIMEOUT_MILLIS).speaking(dialects);
  }

  /// Seconds that the simulated plate lets go by in one; for a bench that is not started yet.
  public void plateSpeed(double speed) {
    plateSpeed = speed;
  }

  /// Drops the simulated bench, so that the next use starts it anew with changed boards.
  public void renew() {
    if (simulated != null) {
      simulated.close();
      simulated = null;
    }
  }
}
