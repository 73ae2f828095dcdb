package ell.work.power;

import ell.bench.Bench;
import ell.bench.instrument.Supply;
import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.work.act.Acts;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;

/// A supply that must be off: told so on the link that stands, then on a new one, until it says
/// that it is off and measures nothing, or the time is over.
public final class SupplyOff {
  /// What is said when the time is over.
  public static final String MAY_BE_ON =
      "THE OUTPUT MAY STILL BE ON: switch the supply off by hand";

  private static final long TRYING_MILLIS = 4000;

  /// Where answers come fast, that many of them are enough.
  private static final int TRIES = 8;

  private static final int AGAIN_MILLIS = 100;
  private static final int PATIENCE_MILLIS = 500;

  private SupplyOff() {}

  /// What came of it.
  ///
  /// @param supply the client that stands at the end
  /// @param problem empty when the supply confirmed that it is off
  record Ended(Supply supply, Optional<String> problem) {}

  /// Switches off.
  ///
  /// @param first the client that stands, null when it was closed
  /// @param outputs those that may be on
  static Ended tell(Supply first, Bench bench, List<Integer> outputs) {
    Supply supply = first;
    long end =
        System.nanoTime()
            + Math.min(TRYING_MILLIS, (long) TRIES * bench.timeoutMillis()) * 1_000_000;
    Optional<String> problem = Optional.of("it was not reached");
    for (int n = 1; problem.isPresent() && System.nanoTime() < end; n++) {
      if (supply == null || n % 3 == 0) {
        supply = again(supply, bench, outputs);
      }
      if (supply != null) {
        problem = supply.off();
      }
      if (problem.isPresent()) {
        pause();
      }
    }
    return new Ended(supply, problem);
  }

  private static Supply again(Supply before, Bench bench, List<Integer> outputs) {
    if (before != null) {
      before.close(); // a supply that takes one connection only takes no second one else
    }
    try {
      Supply s = bench.guard(Supply.KIND);
      s.patience(Math.min(bench.timeoutMillis(), PATIENCE_MILLIS));
      watch(s, outputs);
      return s;
    } catch (BenchException e) {
      return null;
    }
  }

  /// The link knows what must go off. A supply whose dialect knows one output has no other.
  private static void watch(Supply s, List<Integer> outputs) throws BenchException {
    try {
      s.outputs(outputs);
    } catch (BenchException e) {
      if (!e.refused()) {
        throw e;
      }
      s.outputs(List.of(1)); // whoever watches over the link learns the words for that one
    }
  }

  private static void pause() {
    try {
      Thread.sleep(AGAIN_MILLIS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /// Switches the supply of a bench off for a board whose output may be on, and logs what came of
  /// it.
  ///
  /// @param outputs those that may be on, as [ell.core.power.Ladder#outputs] says
  /// @throws BenchException when the bench has no supply that answers; nothing is logged then
  public static Logged now(Acts acts, String board, Bench bench, List<Integer> outputs)
      throws IOException, ActException {
    return now(acts, board, bench, outputs, "switched off", false);
  }

  /// The same for a reason of its own.
  ///
  /// @param surprise whether something was not as it should be, which is a finding then
  static Logged now(
      Acts acts, String board, Bench bench, List<Integer> outputs, String why, boolean surprise)
      throws IOException, ActException {
    Supply supply = bench.guard(Supply.KIND);
    watch(supply, outputs);
    Ended ended = tell(supply, bench, outputs);
    try {
      return acts.log(board, List.of(entry(ended.problem(), 0, 0, why, surprise)))
          .orThrow()
          .getLast();
    } finally {
      if (ended.supply() != null) {
        ended.supply().close();
      }
    }
  }

  /// The entry for an output that was told to go off.
  ///
  /// @param problem empty when it is off
  /// @param surprise whether something was not as it should be before
  static Entry.Supply entry(
      Optional<String> problem, double volts, double limit, String why, boolean surprise) {
    return new Entry.Supply(
        false,
        problem.isEmpty(),
        volts,
        limit,
        Optional.empty(),
        Optional.empty(),
        surprise || problem.isPresent()
            ? Optional.of(ell.core.quantity.Verdict.OUT)
            : Optional.empty(),
        problem.map(p -> why + "; " + MAY_BE_ON + " (" + p + ")").orElse(why));
  }
}
