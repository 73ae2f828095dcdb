package ell.trials.power;

import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Run;
import ell.core.circuit.Warmth;
import ell.core.power.BoardCircuit;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.PowerPlan;
import ell.core.power.PowerPlan.Finding;
import ell.core.power.PowerStep;
import ell.core.power.Rating;
import ell.core.power.Ratings;
import ell.core.quantity.Limits;
import java.util.ArrayList;
import java.util.List;

/// First power of one board in the model's own time, by the rules that hold on a bench: the stages
/// of the plan, eight looks at each, the output off at the first surprise.
public final class StagedTrial {
  private static final int LOOKS = 8;
  private static final double LOOK = 0.04;
  private static final double SLICE = 5e-3;
  private static final double CHARGES = 1.5;
  private static final long TRIES = 20_000;
  private static final double METER = 0.006;

  private StagedTrial() {}

  /// How it ended.
  ///
  /// @param finding of the last stage that was judged
  /// @param stage in which it ended, counted from 1
  /// @param passed the first rating that a part passed, in words; empty for none
  /// @param stopped whether the output went off before the last stage was good
  /// @param out rails that were read outside of their limits at the end
  /// @param settled whether the model found its way all along
  public record Ended(
      Finding finding,
      int stage,
      String passed,
      boolean stopped,
      List<String> out,
      boolean settled) {}

  /// Tries a board.
  public static Ended of(
      Revision revision, Ladder ladder, PowerPlan plan, List<Fault> faults, double load) {
    BoardCircuit board = new BoardCircuit(revision, ladder, faults);
    Circuit c = board.powered("boot", load);
    Run run = c.run().exact(1e-2);
    Ratings ratings = Ratings.of(revision, ladder, board);
    Warmth warmth = new Warmth(run, ratings.bodies());
    String passed = "";
    Finding last = Finding.AS_PREDICTED;
    for (int i = 0; i < plan.steps().size(); i++) {
      PowerStep s = plan.steps().get(i);
      String supply = supply(ladder, s);
      c.set(supply, s.volts(), s.limit(), true);
      run.changed();
      List<Double> amps = new ArrayList<>();
      double charges = Math.max(CHARGES * s.charging(), 0);
      double began = run.time();
      double until = began + LOOK;
      double sum = 0;
      double gone = 0;
      while (amps.size() < LOOKS) {
        if (!run.tries(TRIES).on(SLICE).settled()) {
          return new Ended(last, i + 1, passed, false, List.of(), false);
        }
        warmth.follow();
        List<Rating.Passed> over = ratings.passed(run::at, run::through, warmth::of);
        if (passed.isEmpty() && !over.isEmpty()) {
          passed =
              over.getFirst().words()
                  + String.format(" at %.3g V of %s, stage %d", s.volts(), s.rail(), i + 1);
        }
        sum += SLICE * run.through(supply);
        gone += SLICE;
        if (run.time() >= until) {
          if (run.time() - began > charges) {
            amps.add(sum / gone);
          }
          until = run.time() + LOOK;
          sum = 0;
          gone = 0;
          boolean settled = PowerPlan.settled(amps.size(), LOOKS);
          if (settled && amps.getLast() >= PowerPlan.AT_LIMIT * s.limit()) {
            break;
          }
        }
      }
      last = PowerPlan.judge(s, amps);
      boolean goOn =
          last == Finding.AS_PREDICTED || last == Finding.TOO_LITTLE && amps.getLast() > 1e-3;
      if (!goOn) {
        return new Ended(last, i + 1, passed, true, List.of(), true);
      }
    }
    List<String> out = new ArrayList<>();
    for (Ladder.RailSpec r : ladder.raised()) {
      double v = run.at(board.node(r.net()));
      double u = METER * Math.abs(v) + 2e-3;
      Limits l = new Limits(r.low(), r.high());
      if (v + u < l.low() || v - u > l.high()) {
        out.add(r.net());
      }
    }
    return new Ended(last, plan.steps().size(), passed, false, out, true);
  }

  private static String supply(Ladder ladder, PowerStep s) {
    for (int i = 0; i < ladder.sources().size(); i++) {
      if (ladder.sources().get(i).rail().equals(s.rail())) {
        return BoardCircuit.supply(i);
      }
    }
    throw new IllegalArgumentException("the ladder has no source " + s.rail());
  }
}
