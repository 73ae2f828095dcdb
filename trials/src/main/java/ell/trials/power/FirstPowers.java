package ell.trials.power;

import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.power.Ladder;
import ell.core.power.PowerPlan;
import ell.core.power.PowerPlan.Finding;
import ell.core.practice.MadeFaults;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/// Counts what becomes of many boards at first power.
public final class FirstPowers {
  private int tried;
  private int stopped;
  private int railsOut;
  private int quiet;
  private int unsettled;
  private final List<String> harmed = new ArrayList<>();
  private final List<String> accused = new ArrayList<>();

  /// Boards that were tried.
  public int tried() {
    return tried;
  }

  /// Stopped before any part passed a rating.
  public int stopped() {
    return stopped;
  }

  /// Went up, and a rail was out when it was read.
  public int railsOut() {
    return railsOut;
  }

  /// Went up with all rails within and nothing over its rating: power alone cannot tell.
  public int quiet() {
    return quiet;
  }

  /// Of which the model did not find the state.
  public int unsettled() {
    return unsettled;
  }

  /// On which a part passed its rating: what, in words.
  public List<String> harmed() {
    return List.copyOf(harmed);
  }

  /// Healthy boards that were stopped or had a rail out, in words.
  public List<String> accused() {
    return List.copyOf(accused);
  }

  /// Tries faults of a board.
  public void faults(Revision r, Ladder ladder, int count, long seed) {
    PowerPlan plan = PowerPlan.of(r, ladder, "boot").orElseThrow();
    Random random = new Random(seed);
    for (int i = 0; i < count; i++) {
      Fault f = MadeFaults.of(r, random);
      StagedTrial.Ended e =
          StagedTrial.of(r, ladder, plan, List.of(f), 0.85 + 0.3 * random.nextDouble());
      tried++;
      if (!e.settled()) {
        unsettled++;
      } else if (!e.passed().isEmpty()) {
        harmed.add(r.title() + " " + FaultWords.words(f) + ": " + e.passed() + ends(e));
      } else if (e.stopped()) {
        stopped++;
      } else if (!e.out().isEmpty()) {
        railsOut++;
      } else {
        quiet++;
      }
    }
  }

  private static String ends(StagedTrial.Ended e) {
    return e.stopped()
        ? "; off in stage " + e.stage() + ", " + e.finding()
        : e.out().isEmpty() ? "; not seen" : "; seen at " + e.out();
  }

  /// Tries healthy boards.
  public void healthy(Revision r, Ladder ladder, int count, long seed) {
    PowerPlan plan = PowerPlan.of(r, ladder, "boot").orElseThrow();
    Random random = new Random(seed);
    for (int i = 0; i < count; i++) {
      StagedTrial.Ended e =
          StagedTrial.of(
              r, ladder, plan, MadeFaults.healthy(r, random), 0.7 + 0.6 * random.nextDouble());
      tried++;
      if (!e.settled()) {
        unsettled++;
      } else if (e.stopped()
          || e.finding() != Finding.AS_PREDICTED
          || !e.out().isEmpty()
          || !e.passed().isEmpty()) {
        accused.add(r.title() + ": " + e);
      }
    }
  }
}
