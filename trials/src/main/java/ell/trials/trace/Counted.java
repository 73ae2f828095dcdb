package ell.trials.trace;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.trace.BenchKnowledge;
import ell.core.trace.Tally;
import ell.trials.power.MadeBoards;
import java.util.Random;

/// What a bench has counted that built many boards with the faults of the trials: its own numbers
/// in place of first guesses, which are of other faults than these.
final class Counted {
  /// Boards of which one has a fault.
  private static final int BOARDS_A_FAULT = 20;

  /// A defect of a joint is one that does not lead, so often.
  private static final double OPEN_SHARE = 0.5;

  private static final int FIRST_SEED = 50_000;

  private final Tally tally = new Tally();
  private long joints;
  private long open;

  /// @param boards of how many kinds it has built
  /// @param each faults of each
  Counted(int boards, int each) {
    for (int b = 0; b < boards; b++) {
      MadeBoards.Made m = MadeBoards.of(FIRST_SEED + b);
      Random random = new Random(FIRST_SEED + b);
      Revision r = m.revision();
      long built = (long) each * BOARDS_A_FAULT;
      long parts = r.parts().stream().filter(Part::fitted).count();
      long active = r.parts().stream().filter(p -> p.fitted() && active(p.kind())).count();
      joints += built * r.joints().stream().filter(Joint::connected).count();
      tally.add("missing", 0, built * parts);
      tally.add("wrong", 0, built * count(r, PartKind.RESISTOR));
      tally.add("turned", 0, built * parts);
      tally.add("short", 0, built * parts);
      tally.add("dead", 0, built * active);
      tally.add("dead simple", 0, built * (parts - active));
      tally.add("bridge", 0, built * (r.joints().size() - parts));
      tally.add("design", 0, built * 4 * count(r, PartKind.CHIP));
      tally.add("jack", 0, built);
      for (int i = 0; i < each; i++) {
        Trouble.of(r, m.ladder(), random).steady().forEach(f -> count(f, r));
      }
    }
  }

  private static long count(Revision r, PartKind k) {
    return r.parts().stream().filter(p -> p.fitted() && p.kind() == k).count();
  }

  private static boolean active(PartKind k) {
    return switch (k) {
      case CHIP, MODULE, TRANSISTOR, LED, CRYSTAL, FUSE, SWITCH, DIODE -> true;
      default -> false;
    };
  }

  private void count(Fault f, Revision r) {
    switch (f) {
      case Fault.Open _ -> open++;
      case Fault.Missing _ -> tally.add("missing", 1, 0);
      case Fault.WrongValue _ -> tally.add("wrong", 1, 0);
      case Fault.Turned _ -> tally.add("turned", 1, 0);
      case Fault.Short _ -> tally.add("short", 1, 0);
      case Fault.Bridge _ -> tally.add("bridge", 1, 0);
      case Fault.Dead d ->
          tally.add(active(r.part(d.part()).orElseThrow().kind()) ? "dead" : "dead simple", 1, 0);
      case Fault.Tied _, Fault.Loose _ -> tally.add("design", 1, 0);
      case Fault.Setting _ -> tally.add("jack", 1, 0);
      default -> {} // has no count of its own
    }
  }

  BenchKnowledge knowledge() {
    double defect = open / OPEN_SHARE / joints;
    BenchKnowledge none = BenchKnowledge.none((_, _) -> defect);
    return new BenchKnowledge(
        none.joint(),
        tally,
        none.thin(),
        none.bridged(),
        none.badHeat(),
        none.reworked(),
        none.substituted(),
        none.absent(),
        none.sisters(),
        none.said(),
        none.closed(),
        none.jig(),
        none.errata());
  }
}
