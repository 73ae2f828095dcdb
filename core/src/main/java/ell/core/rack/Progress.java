package ell.core.rack;

import ell.core.beep.BeepFacts;
import ell.core.board.Joint;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.jig.JigFacts;
import ell.core.look.LookFacts;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.PowerFacts;
import ell.core.prove.ProveFacts;
import ell.core.pulse.PulseFacts;
import ell.core.quantity.Verdict;
import ell.core.rack.Standing.Mark;
import ell.core.revise.ReviseFacts;
import ell.core.talk.TalkFacts;
import ell.core.trace.TraceFacts;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.BiPredicate;

/// How a stage sees a board: whether it is there now, and how far.
///
/// @param stage whose view it is
/// @param counts whether its share counts to the progress of the whole board
/// @param here whether the board is at this stage; the stages are asked from the last one back, and
///   the first that says yes has it
/// @param far how far the board is in this stage
public record Progress(
    Stage stage,
    boolean counts,
    BiPredicate<Plan, BoardState> here,
    BiFunction<Plan, BoardState, Far> far) {

  /// How far a board is in a stage.
  ///
  /// @param done things that are done there
  /// @param of things that are to be done there, 0 when there are none
  /// @param phrase of the board's state while it is at this stage
  /// @param mark beside the phrase
  public record Far(int done, int of, String phrase, Mark mark) {
    /// The share that is done, 0...1; 0 when there is nothing to do.
    public double share() {
      return of == 0 ? 0 : (double) done / of;
    }
  }

  /// The stages that are built, in the order of the work.
  public static final List<Progress> ALL =
      List.of(
          new Progress(Stage.KIT, false, (_, _) -> true, Progress::kit),
          new Progress(Stage.ORDER, true, Progress::begun, Progress::order),
          new Progress(
              Stage.PRINT,
              false,
              (p, s) -> soldering(p, s, Step.Action.PASTE),
              (p, s) -> acts(p, s, Step.Action.PASTE, "paste next")),
          new Progress(
              Stage.HEAT,
              false,
              (p, s) -> soldering(p, s, Step.Action.REFLOW),
              (p, s) -> acts(p, s, Step.Action.REFLOW, "reflow next")),
          new Progress(Stage.LOOK, false, Progress::looking, Progress::look),
          new Progress(Stage.BEEP, true, Progress::beeping, Progress::beep),
          new Progress(Stage.POWER, true, Progress::powered, Progress::power),
          new Progress(Stage.PULSE, false, Progress::pulsing, Progress::pulse),
          new Progress(Stage.TALK, false, Progress::talking, Progress::talk),
          new Progress(Stage.TRACE, false, Progress::tracing, Progress::trace),
          new Progress(
              Stage.JIG,
              false,
              (_, s) -> !JigFacts.of(s).closings().isEmpty() && s.findings().isEmpty(),
              Progress::jig),
          new Progress(
              Stage.PROVE,
              false,
              (_, s) -> ProveFacts.of(s).at(),
              (_, s) -> prove(ProveFacts.of(s))),
          new Progress(Stage.REVISE, false, Progress::revising, Progress::revise));

  private static Far kit(Plan p, BoardState s) {
    return new Far(0, p.blocks().size(), "waiting", Mark.NOT_YET);
  }

  /// Whether anything was built.
  private static boolean begun(Plan p, BoardState s) {
    OrderFacts f = OrderFacts.of(s);
    return !f.placed().isEmpty() || f.done(p.order()) > 0;
  }

  private static boolean built(Plan p, BoardState s) {
    return begun(p, s) && OrderFacts.of(s).done(p.order()) >= p.order().steps().size();
  }

  private static Far order(Plan p, BoardState s) {
    int steps = p.order().steps().size();
    int done = OrderFacts.of(s).done(p.order());
    return new Far(done, steps, "step " + done + " of " + steps, Mark.WITHIN);
  }

  /// Before a print a board is at the print, before a reflow at the heat.
  private static boolean soldering(Plan p, BoardState s, Step.Action next) {
    return begun(p, s)
        && OrderFacts.of(s).next(p.order()).filter(x -> x.action() == next).isPresent();
  }

  private static Far acts(Plan p, BoardState s, Step.Action action, String phrase) {
    List<Step> all = p.order().steps().stream().filter(x -> x.action() == action).toList();
    int done = (int) all.stream().filter(OrderFacts.of(s)::done).count();
    return new Far(done, all.size(), phrase, Mark.WITHIN);
  }

  /// A walk that was begun is finished, unless paste or heat comes first.
  private static boolean looking(Plan p, BoardState s) {
    if (LookFacts.of(s).seen().isEmpty()
        || !begun(p, s)
        || soldering(p, s, Step.Action.PASTE)
        || soldering(p, s, Step.Action.REFLOW)) {
      return false;
    }
    Far f = look(p, s);
    return f.done() < f.of();
  }

  private static Far look(Plan p, BoardState s) {
    LookFacts f = LookFacts.of(s);
    int good = 0;
    int all = 0;
    for (String part : OrderFacts.of(s).placed()) {
      for (Joint j : p.revision().jointsOf(part)) {
        all++;
        good += f.sawGood(j.place()) ? 1 : 0;
      }
    }
    return new Far(good, all, good + " of " + all + " joints seen", Mark.WITHIN);
  }

  private static boolean beeping(Plan p, BoardState s) {
    if (BeepFacts.of(s).guardsMade(p.beep()) > 0) {
      return true;
    }
    boolean something = !p.beep().guarding().isEmpty() || !p.ladder().supplied().isEmpty();
    return something && built(p, s) && !looking(p, s);
  }

  private static Far beep(Plan p, BoardState s) {
    int guards = p.beep().guarding().size();
    int made = BeepFacts.of(s).guardsMade(p.beep());
    return new Far(
        made,
        guards,
        made == 0 ? "beep next" : made + " of " + guards + " rails beeped",
        Mark.WITHIN);
  }

  private static boolean powered(Plan p, BoardState s) {
    PowerFacts f = PowerFacts.of(s);
    if (f.supply().isPresent() || f.read(p.ladder().supplied()) > 0) {
      return true;
    }
    int made = BeepFacts.of(s).guardsMade(p.beep());
    return made > 0 && made >= p.beep().guarding().size();
  }

  private static Far power(Plan p, BoardState s) {
    PowerFacts f = PowerFacts.of(s);
    List<RailSpec> rails = p.ladder().supplied();
    int read = f.read(rails);
    Optional<RailSpec> doubtful =
        rails.stream()
            .filter(r -> f.verdict(r).filter(v -> v == Verdict.CLOSE).isPresent())
            .findFirst();
    if (doubtful.isPresent()) {
      return new Far(read, rails.size(), doubtful.get().net() + " too close to call", Mark.CLOSE);
    }
    String phrase =
        read == 0
            ? "first power next"
            : read < rails.size() ? read + " of " + rails.size() + " rails read" : "rails within";
    return new Far(read, rails.size(), phrase, Mark.WITHIN);
  }

  /// A board is at the lines once it was captured at one of them, and its rails are read.
  private static boolean pulsing(Plan p, BoardState s) {
    return !PulseFacts.of(s).all().isEmpty() && power(p, s).share() >= 1;
  }

  private static Far pulse(Plan p, BoardState s) {
    PulseFacts f = PulseFacts.of(s);
    int places = Math.max(p.pulse().places().size(), f.latest().size());
    int seen = f.latest().size();
    Optional<Entry.Capture> doubtful =
        f.latest().values().stream()
            .map(l -> (Entry.Capture) l.entry())
            .filter(c -> c.verdict().filter(v -> v == Verdict.CLOSE).isPresent())
            .findFirst();
    if (doubtful.isPresent()) {
      return new Far(seen, places, doubtful.get().place() + " too close to call", Mark.CLOSE);
    }
    return new Far(
        seen, places, seen + (seen == 1 ? " line captured" : " lines captured"), Mark.WITHIN);
  }

  /// A board is spoken to once somebody did, and its rails are read.
  private static boolean talking(Plan p, BoardState s) {
    return !TalkFacts.of(s).talks().isEmpty() && power(p, s).share() >= 1;
  }

  private static Far talk(Plan p, BoardState s) {
    TalkFacts f = TalkFacts.of(s);
    int all = p.talk().operations().size();
    int done =
        (int) p.talk().operations().stream().filter(o -> f.done().contains(o.name())).count();
    String phrase =
        f.firmware().map(v -> "runs firmware " + v).orElse("spoken to")
            + (all == 0 ? "" : ", " + done + " of " + all + " done");
    return new Far(done, all, phrase, Mark.WITHIN);
  }

  /// A fault is searched for once somebody said how the board behaves, until it is found and
  /// nothing is open any more.
  private static boolean tracing(Plan p, BoardState s) {
    TraceFacts f = TraceFacts.of(s);
    return !(f.symptoms().isEmpty() && f.found().isEmpty()) && !s.findings().isEmpty();
  }

  private static Far trace(Plan p, BoardState s) {
    TraceFacts f = TraceFacts.of(s);
    int found = f.found().size();
    return new Far(
        Math.min(found, 1),
        1,
        found == 0 ? "searched" : "found: " + f.last().orElseThrow().fault(),
        Mark.WITHIN);
  }

  /// A board is at the bench to be mended as long as a bodge is the last thing that was done to it.
  private static boolean revising(Plan p, BoardState s) {
    return s.findings().isEmpty()
        && !ReviseFacts.of(s).bodges().isEmpty()
        && s.last()
            .filter(l ->
                l.entry() instanceof Entry.Bodge b && !b.what().equals("not-needed")
                    || bodged(l.entry()))
            .isPresent();
  }

  private static boolean bodged(Entry e) {
    return e instanceof Entry.Action a && a.action().equals("bodged");
  }

  private static Far revise(Plan p, BoardState s) {
    List<Entry.Bodge> latest = ReviseFacts.of(s).latest();
    int proved = (int) latest.stream().filter(b -> !b.what().equals("done")).count();
    return new Far(
        proved,
        latest.size(),
        latest.isEmpty()
            ? "no bodge"
            : "bodge " + latest.getLast().id() + " " + latest.getLast().what().replace('-', ' '),
        Mark.WITHIN);
  }

  private static Far prove(ProveFacts f) {
    if (f.released().isPresent()) {
      return new Far(1, 1, "in use", Mark.WITHIN);
    }
    Optional<ProveFacts.Run> open = f.open();
    if (open.isPresent()) {
      int of = open.get().begun().steps();
      int made = open.get().steps().size();
      return new Far(made, of, "proof at step " + Math.min(of, made + 1) + " of " + of, Mark.NEXT);
    }
    if (f.lastEnded().isEmpty()) {
      return new Far(0, 1, "not proved", Mark.NOT_YET);
    }
    return switch (f.lastEnded().get().verdict().orElseThrow()) {
      case WITHIN ->
          f.proved()
              ? new Far(1, 1, "proved", Mark.WITHIN)
              : new Far(0, 1, "changed since its proof", Mark.NEXT);
      case CLOSE -> new Far(0, 1, "proof not settled", Mark.CLOSE);
      case OUT -> new Far(0, 1, "proof failed", Mark.OUT);
    };
  }

  /// A board is in the jig once one was closed over it, as long as nothing is found.
  private static Far jig(Plan p, BoardState s) {
    JigFacts f = JigFacts.of(s);
    int n = f.closings().values().stream().mapToInt(i -> i).sum();
    return new Far(
        Math.min(n, 1),
        1,
        n == 0 ? "no jig yet" : "in jig " + String.join(" ", f.closings().keySet()),
        Mark.WITHIN);
  }
}
