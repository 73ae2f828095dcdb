package ell.work.prove;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.prove.Expected;
import ell.core.prove.PlanKnown;
import ell.core.prove.TestAct;
import ell.core.prove.TestStep;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.talk.LinkPlan;
import ell.core.talk.TalkFacts;
import ell.work.act.Outcome;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Supplier;

/// Steps of a test plan that a person makes: looks, numbers that are read off, links and plugs.
final class PersonActs {
  private final ProveRooms rooms;
  private final PlanKnown known;
  private final String board;
  private final ProveRun.Watcher watcher;
  private final Supplier<String> skipped;

  /// @param skipped why the step that waits is left out, empty when it is not; asked once
  PersonActs(
      ProveRooms rooms,
      PlanKnown known,
      String board,
      ProveRun.Watcher watcher,
      Supplier<String> skipped) {
    this.rooms = rooms;
    this.known = known;
    this.board = board;
    this.watcher = watcher;
    this.skipped = skipped;
  }

  private static boolean yes(String said) {
    return said.strip().toLowerCase(Locale.ROOT).matches("y|yes|j|ja|oui|si|1|true");
  }

  private static boolean no(String said) {
    return said.strip().toLowerCase(Locale.ROOT).matches("n|no|nein|non|0|false");
  }

  /// A number that is read off.
  Shown number(
      String place, String question, Unit unit, double u, TestStep step, Expected expected) {
    Optional<String> said = watcher.asks(step.name(), question, unit.symbol());
    if (said.isEmpty()) {
      return unanswered(step);
    }
    try {
      double v = EngineeringNumber.parse(said.get(), unit);
      return Shown.number(place, v, unit, expected.limits(), u, step.guard(), expected.why());
    } catch (NumberFormatException e) {
      return Shown.leftOut("the answer was no number: " + e.getMessage());
    }
  }

  /// Nobody answered, or it is left out.
  Shown unanswered(TestStep step) {
    return unanswered(step.name());
  }

  /// The same for what has another name.
  Shown unanswered(String name) {
    String why = skipped.get();
    return Shown.leftOut(
        why.isEmpty() ? "nobody answered: --answer \"" + name + "=ANSWER\"" : "by hand: " + why);
  }

  /// A look, or a number.
  Shown ask(TestAct.Ask a, TestStep step, Expected expected) {
    if (a.wants().isEmpty()) {
      return number("", a.question(), a.unit(), 0, step, expected);
    }
    Optional<String> said = watcher.asks(step.name(), a.question(), "yes");
    if (said.isEmpty()) {
      return unanswered(step);
    }
    boolean yes = yes(said.get());
    boolean no = no(said.get());
    if (!yes && !no) {
      return Shown.leftOut("the answer '" + said.get() + "' is neither yes nor no");
    }
    boolean good = yes == a.wants().equals("yes");
    return Shown.seen("", good ? Verdict.WITHIN : Verdict.OUT, yes ? "yes" : "no");
  }

  /// What the book has so already is not asked for.
  Shown stand(TestAct.Stand s, TestStep step) throws IOException, ActException {
    BoardState state = rooms.acts().state(board);
    if (stands(s, state)) {
      return Shown.seen("", Verdict.WITHIN, "so already");
    }
    Optional<String> said = watcher.asks(step.name(), s.words() + ": is it so?", "yes");
    if (said.isEmpty()) {
      return unanswered(step);
    }
    if (!yes(said.get())) {
      return Shown.leftOut("it was not made so");
    }
    Outcome o = rooms.acts().log(board, List.of(new Entry.Stands(s.place(), s.stand(), "")));
    if (o instanceof Outcome.Refused r) {
      return Shown.leftOut("refused: " + r.refusal().why());
    }
    o.orThrow().forEach(watcher::logged);
    return Shown.seen("", Verdict.WITHIN, "done");
  }

  private boolean stands(TestAct.Stand s, BoardState state) {
    TalkFacts f = TalkFacts.of(state);
    if (s.stand().equals("open") || s.stand().equals("closed")) {
      LinkPlan.Stand is = f.stand(known.talk());
      Boolean closed = is.links().get(s.place());
      return closed != null && closed == s.stand().equals("closed");
    }
    Boolean in = f.stands().get(s.place());
    return in != null && in == s.stand().equals("in");
  }
}
