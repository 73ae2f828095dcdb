package ell.desk.shell;

import ell.bench.instrument.Plate;
import ell.bench.sim.SimPlate;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import ell.work.bench.SocketBench;
import ell.work.power.PowerRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/// The instruments of the desk. Everything but the property runs on the worker.
public final class DeskBench {
  private final ObjectProperty<String> bench =
      new SimpleObjectProperty<>(this, "bench", "simulated");
  private SimulatedBench simulated;
  private SimPlate simulatedPlate;
  private volatile double plateSpeed = 20;

  /// The bench: `simulated`, or `SUPPLY`, `SUPPLY METER` or `SUPPLY METER PLATE`, each `host:port`.
  public ObjectProperty<String> benchProperty() {
    return bench;
  }

  /// The bench that is set, started if it is the simulated one.
  public PowerRun.Bench bench(Workshop w) throws IOException, ActException {
    String[] at = bench.get().strip().split("[\\s,]+");
    if (!at[0].equals("simulated")) {
      return new SocketBench(
          at[0],
          at.length > 1 ? Optional.of(at[1]) : Optional.empty(),
          Optional.empty(),
          "bench",
          1500);
    }
    if (simulated == null) {
      simulated = SimulatedBench.start(w, 1);
    }
    return simulated.sockets();
  }

  /// Seconds that the simulated plate lets go by in one.
  public void plateSpeed(double speed) {
    plateSpeed = speed;
  }

  /// The plate that is set, started if it is the simulated one.
  ///
  /// @throws ActException when this bench has none
  public Plate plate() throws IOException, ActException {
    String[] at = bench.get().strip().split("[\\s,]+");
    if (!at[0].equals("simulated")) {
      if (at.length < 3) {
        throw new ActException(
            "no plate on this bench: its address is the third, after supply and meter");
      }
      return SocketBench.plate(at[2], 1500);
    }
    if (simulatedPlate == null) {
      simulatedPlate = SimPlate.start(SimPlate.SMALL, 1, plateSpeed, 0);
    }
    return SocketBench.plate("127.0.0.1:" + simulatedPlate.port(), 1500);
  }

  /// Drops the simulated bench, so that the next use starts it anew with changed boards.
  public void renew() {
    if (simulated != null) {
      simulated.close();
      simulated = null;
    }
  }

  void close() {
    renew();
    if (simulatedPlate != null) {
      simulatedPlate.close();
      simulatedPlate = null;
    }
  }
}
