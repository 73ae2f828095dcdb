package ell.core.rack;

import ell.core.beep.BeepCheck;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.order.Step;
import ell.core.power.Ladder.RailSpec;
import ell.core.quantity.Verdict;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;


/// Where a board stands.
///
/// @param stage where it is now
/// @param phrase one phrase of state
/// @param mark what to show beside it
/// @param progress 0...1 over the stages that are built
/// @param stageProgress 0...1 within its stage
public record Standing(
    Stage stage, String phrase, Mark mark, double progress, double stageProgress) {
  /// Marks beside a board, a step, a reading.
  public enum Mark {
    /// Nothing is known yet.
    NOT_YET,
    /// This is what comes next.
    NEXT,
    /// As it should be.
    WITHIN,
    /// Too close to call.
    CLOSE,
    /// Out, or held by a finding.
    OUT
  }

  /// Works out where a board stands.
  public static Standing of(BoardState s, Plan plan) {
    int steps = plan.order().steps().size();
    long done = plan.order().steps().stream().filter(x -> stepDone(s, x)).count();
    List<BeepCheck> guards = plan.beep().guarding();
    long beeped = guards.stream().filter(c -> s.check(c.key()).isPresent()).count();
    List<RailSpec> rails = plan.ladder().fromBench();
    long read = rails.stream().filter(r -> railVerdict(s, r).isPresent()).count();
    double progress =
        (fraction(done, steps) + fraction(beeped, guards.size()) + fraction(read, rails.size()))
            / 3;
    Stage stage = stage(s, done, steps, beeped, guards, read, rails);
    if (stage == Stage.ORDER || stage == Stage.BEEP && beeped == 0) {
      stage = soldering(s, plan, stage);
    }
    long[] seen = stage == Stage.LOOK ? seen(s, plan) : new long[2];
    double within =
        switch (stage) {
          case LOOK -> fraction(seen[0], (int) seen[1]);
          case ORDER, PRINT, HEAT -> fraction(done, steps);
          case BEEP -> fraction(beeped, guards.size());
          case POWER -> fraction(read, rails.size());
          default -> 0;
        };
    if (!s.findings().isEmpty()) {
      BoardState.Finding f = s.findings().getFirst();
      return new Standing(
          stage, "held · " + f.place() + " " + f.what(), Mark.OUT, progress, within);
    }
    return switch (stage) {
      case PRINT -> new Standing(stage, "paste next", Mark.WITHIN, progress, within);
      case HEAT -> new Standing(stage, "reflow next", Mark.WITHIN, progress, within);
      case LOOK ->
          new Standing(
              stage, seen[0] + " of " + seen[1] + " joints seen", Mark.WITHIN, progress, within);
      case ORDER ->
          new Standing(stage, "step " + done + " of " + steps, Mark.WITHIN, progress, within);
      case BEEP ->
          new Standing(
              stage,
              beeped == 0 ? "beep next" : beeped + " of " + guards.size() + " rails beeped",
              Mark.WITHIN,
              progress,
              within);
      case POWER -> power(s, rails, read, progress, within);
      default -> new Standing(stage, "waiting", Mark.NOT_YET, progress, within);
    };
  }

  /// Within the order: before a print it is at the print, before a reflow at the heat; a walk that
  /// was begun is finished.
  private static Stage soldering(BoardState s, Plan plan, Stage otherwise) {
    Optional<Step> next = nextStep(s, plan);
    if (next.isPresent() && next.get().action() == Step.Action.PASTE) {
      return Stage.PRINT;
    }
    if (next.isPresent() && next.get().action() == Step.Action.REFLOW) {
      return Stage.HEAT;
    }
    if (s.seen().isEmpty()) {
      return otherwise;
    }
    long[] seen = seen(s, plan);
    return seen[0] < seen[1] ? Stage.LOOK : otherwise;
  }

  /// Joints of placed parts that were seen good, and all of them.
  private static long[] seen(BoardState s, Plan plan) {
    long good = 0;
    long all = 0;
    for (String part : s.placed()) {
      for (Joint j : plan.revision().jointsOf(part)) {
        all++;
        good += s.sawGood(j.place()) ? 1 : 0;
      }
    }
    return new long[] {good, all};
  }

  private static Standing power(
      BoardState s, List<RailSpec> rails, long read, double progress, double within) {
    Optional<RailSpec> doubtful =
        rails.stream()
            .filter(r -> railVerdict(s, r).filter(v -> v == Verdict.CLOSE).isPresent())
            .findFirst();
    if (doubtful.isPresent()) {
      return new Standing(
          Stage.POWER, doubtful.get().net() + " too close to call", Mark.CLOSE, progress, within);
    }
    String phrase =
        read == 0
            ? "first power next"
            : read < rails.size() ? read + " of " + rails.size() + " rails read" : "rails within";
    return new Standing(Stage.POWER, phrase, Mark.WITHIN, progress, within);
  }

  private static Stage stage(
      BoardState s,
      long done,
      int steps,
      long beeped,
      List<BeepCheck> guards,
      long read,
      List<RailSpec> rails) {
    boolean electrical = read > 0 || s.supply().isPresent();
    if (electrical) {
      return Stage.POWER;
    }
    if (beeped > 0) {
      return beeped < guards.size() ? Stage.BEEP : Stage.POWER;
    }
    if (done == 0 && s.placed().isEmpty()) {
      return Stage.KIT;
    }
    return done < steps && !supplyReady(done, steps)
        ? Stage.ORDER
        : guards.isEmpty() && rails.isEmpty() ? Stage.ORDER : Stage.BEEP;
  }

  private static boolean supplyReady(long done, int steps) {
    return done >= steps;
  }

  private static double fraction(long part, int whole) {
    return whole == 0 ? 0 : (double) part / whole;
  }

  /// Whether a step is done: all of its parts placed, its gate held, or itself logged.
  public static boolean stepDone(BoardState s, Step step) {
    if (step.gate().isPresent()) {
      return s.gates().getOrDefault(step.gate().get(), false);
    }
    return step.parts().isEmpty()
        ? s.actsDone().contains(step.action().words() + " " + step.side().key())
            || s.stepsDone().contains(step.number())
        : s.placed().containsAll(step.parts());
  }

  /// The first step that is not done.
  public static Optional<Step> nextStep(BoardState s, Plan plan) {
    Set<String> placed = new HashSet<>(s.placed());
    return plan.order().steps().stream()
        .filter(x ->
            x.parts().isEmpty() || x.gate().isPresent()
                ? !stepDone(s, x)
                : !placed.containsAll(x.parts()))
        .findFirst();
  }

  /// The first check that was not made yet.
  public static Optional<BeepCheck> nextCheck(BoardState s, Plan plan) {
    return plan.beep().checks().stream().filter(c -> s.check(c.key()).isEmpty()).findFirst();
  }

  /// The latest verdict on a rail, read under its own name or at its test point.
  public static Optional<Verdict> railVerdict(BoardState s, RailSpec rail) {
    return railReading(s, rail).flatMap(Entry.Reading::verdict);
  }

  /// The latest reading of a rail, under its own name or at its test point.
  public static Optional<Entry.Reading> railReading(BoardState s, RailSpec rail) {
    return s.reading(rail.net()).or(() -> s.reading(rail.readAt()));
  }

  /// Checks that stand between this board and power: not made, or not within.
  public static List<BeepCheck> guardsOpen(BoardState s, Plan plan) {
    return plan.beep().guarding().stream()
        .filter(c -> s.check(c.key()).filter(v -> v == Verdict.WITHIN).isEmpty())
        .toList();
  }

  /// Fitted parts that are not placed yet.
  public static List<String> missing(BoardState s, Plan plan) {
    Set<String> placed = new HashSet<>(s.placed());
    return plan.revision().parts().stream()
        .filter(Part::fitted)
        .map(Part::reference)
        .filter(r -> !placed.contains(r))
        .toList();
  }
}
