package ell.bench.sim;

import ell.core.circuit.Circuit;
import ell.core.circuit.Run;
import ell.core.circuit.Warmth;
import ell.core.power.BoardCircuit;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.Rating.Passed;
import ell.core.power.Ratings;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.ToDoubleFunction;

/// A board on the bench with the supply's wires on its sources. Its time goes on as the clock does:
/// capacitors charge, regulators come up, parts get warm. A reading takes its own time, and is the
/// average over it.
final class LiveBoard {
  /// Seconds that a reading takes.
  private static final double APERTURE = 0.02;

  /// The shortest stretch of it that is solved at once, second.
  private static final double FINE = 1e-5;

  /// How exact its time is: far better than any instrument reads.
  private static final double EXACT = 1e-2;

  /// Steps that are tried for a stretch.
  private static final long TRIES = 2000;

  /// How long it is worked on at most before an instrument answers, and how long a stretch may take
  /// for the next one to be longer.
  private static final long BUSY_NANOS = 20_000_000;

  private static final long BRISK_NANOS = 1_000_000;

  /// After so many seconds without a change a board is at rest.
  private static final double RESTS = 1;

  private final Ladder ladder;
  private final BoardCircuit circuit;
  private final Circuit powered;
  private final Run run;
  private final Ratings ratings;
  private final Warmth warmth;
  private final Consumer<String> passed;
  private final Set<String> told = new HashSet<>();
  private long lastMoment = System.nanoTime();
  private double stretch = FINE;

  /// A board before power.
  ///
  /// @param faults those that are there at this try
  /// @param load the share of its loads that it draws
  /// @param more what else hangs on it
  /// @param passed is told of each rating that is passed, once for each part and thing
  LiveBoard(
      SimBoard board,
      Ladder ladder,
      List<Fault> faults,
      double load,
      Consumer<Circuit> more,
      Consumer<String> passed) {
    this.ladder = ladder;
    this.passed = passed;
    circuit = new BoardCircuit(board.revision(), ladder, faults);
    powered = circuit.powered("boot", load);
    more.accept(powered);
    run = powered.run().exact(EXACT);
    ratings = Ratings.of(board.revision(), ladder, circuit);
    warmth = new Warmth(run, ratings.bodies());
  }

  BoardCircuit circuit() {
    return circuit;
  }

  /// The place of the source that hangs on an output, among the ladder's sources.
  ///
  /// @param output counted from 1
  OptionalInt source(int output) {
    for (int i = 0; i < ladder.sources().size(); i++) {
      if (ladder.channel(ladder.sources().get(i)) == output) {
        return OptionalInt.of(i);
      }
    }
    return OptionalInt.empty();
  }

  /// The node of a source.
  String node(int source) {
    return circuit.node(ladder.sources().get(source).rail());
  }

  /// A knob of an output is turned. It turns whatever the board does.
  void turned(int output, double volts, double limit, boolean on) {
    source(output)
        .ifPresent(i -> {
          toNow();
          powered.set(BoardCircuit.supply(i), volts, Math.max(limit, 1e-6), on);
          run.changed();
          stretch = FINE;
        });
  }

  /// Lets the time go by that has gone by.
  void toNow() {
    long now = System.nanoTime();
    double since = Math.clamp((now - lastMoment) * 1e-9, 0, RESTS);
    lastMoment = now;
    goOn(since, _ -> 0);
  }

  /// Lets some time go by, and takes the average of something over it. An instrument answers in its
  /// time whatever lies before it: where much happens on a board, less time goes by.
  ///
  /// @return NaN when the board did not settle
  private double goOn(double seconds, ToDoubleFunction<Run> what) {
    long began = System.nanoTime();
    long at = began;
    double gone = 0;
    double sum = 0;
    while (gone < seconds && at - began < BUSY_NANOS) {
      double slice = Math.min(stretch, seconds - gone);
      if (!run.tries(TRIES).on(slice).settled()) {
        return Double.NaN;
      }
      sum += slice * what.applyAsDouble(run);
      gone += slice;
      strain();
      long now = System.nanoTime();
      stretch = Math.clamp(now - at < BRISK_NANOS ? 2 * stretch : stretch / 2, FINE, APERTURE / 4);
      at = now;
    }
    return gone > 0 ? sum / gone : what.applyAsDouble(run);
  }

  private void strain() {
    warmth.follow();
    for (Passed p : ratings.passed(run::at, run::through, warmth::of)) {
      if (told.add(p.rating().part() + " " + p.rating().what())) {
        passed.accept(p.words());
      }
    }
  }

  /// The average of something over the time of a reading.
  ///
  /// @throws ScpiStatus.Refused when the board did not settle
  double read(ToDoubleFunction<Run> what) {
    toNow();
    double average = goOn(APERTURE, what);
    if (Double.isNaN(average)) {
      throw unsettled();
    }
    return average;
  }

  static ScpiStatus.Refused unsettled() {
    return new ScpiStatus.Refused(-230, "Data corrupt or stale: the board did not settle");
  }

  /// Whether a supply holds its current instead of its volts.
  boolean limited(int output) {
    toNow();
    return source(output).stream().anyMatch(i -> run.limited(BoardCircuit.supply(i)));
  }

  /// How warm a part is, °C; as warm as the room when nothing heats it.
  double celsius(String part) {
    toNow();
    warmth.follow();
    return Ratings.AMBIENT + warmth.of(part);
  }
}
