package ell.core.power;

import ell.core.circuit.Circuit;
import ell.core.circuit.Run;

/// How a healthy board comes up, stage by stage, worked out in time: a supply that gives only what
/// the board draws at rest would never let a converter start or a large capacitor fill.
final class Ascent {
  /// Seconds in which a board should be up, and so long a slice of it.
  private static final double MOST_SECONDS = 2;

  private static final double SLICE = 5e-3;

  /// So many slices without a change are rest.
  private static final int QUIET = 3;

  /// What starts and stops more often does not come up.
  private static final int RESTLESS = 8;

  private static final double MORE = 1.5;
  private static final double EXACT = 1e-2;
  private static final double NEAR = 0.02;
  private static final double NEAR_AMPS = 1e-3;

  private final Circuit circuit;
  private final Run run;

  /// Tries times elements that a whole ascent may take, and the least tries.
  private static final long EFFORT = 150_000;

  private static final long LEAST_TRIES = 400;

  /// What a stage needs.
  ///
  /// @param limit of the supply, A
  /// @param seconds until the board draws what it does at rest
  record Stage(double limit, double seconds) {}

  Ascent(BoardCircuit healthy, String state, double loadScale) {
    circuit = healthy.powered(state, loadScale);
    run = circuit.run().exact(EXACT).tries(Math.max(LEAST_TRIES, EFFORT / (1 + circuit.size())));
  }

  /// The next stage.
  ///
  /// @param supply that is raised; the others stay as they are
  /// @param limit the least that is tried, A
  /// @param most no more is tried, A
  /// @param rest what the board draws at rest, A
  Stage next(String supply, double volts, double limit, double most, double rest) {
    Run.Mark before = run.mark();
    for (double l = limit; l < most && run.triesLeft() > 0; l = Math.min(most, l * MORE)) {
      double took = up(supply, volts, l, rest);
      if (took < MOST_SECONDS) {
        return new Stage(l, took);
      }
      run.back(before);
    }
    // where nobody knows how it comes up it is given time, and no more current than at rest
    return run.triesLeft() == 0
        ? new Stage(limit, MOST_SECONDS / 2)
        : new Stage(most, up(supply, volts, most, rest));
  }

  private double up(String supply, double volts, double limit, double rest) {
    circuit.set(supply, volts, limit, true);
    run.changed();
    double began = run.time();
    long turns = run.turns();
    int quiet = 0;
    while (run.time() - began < MOST_SECONDS && run.turns() - turns < RESTLESS) {
      run.on(SLICE);
      if (!run.settled()) {
        break;
      }
      double amps = run.through(supply);
      boolean there =
          amps < PowerPlan.AT_LIMIT * limit && Math.abs(amps - rest) < NEAR * rest + NEAR_AMPS;
      quiet = there ? quiet + 1 : 0;
      if (quiet == QUIET) {
        return run.time() - began;
      }
    }
    return MOST_SECONDS;
  }
}
