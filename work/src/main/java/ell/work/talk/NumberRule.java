package ell.work.talk;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.talk.TalkFacts;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.util.Optional;

/// A number is one board's only.
final class NumberRule implements Rule {
  static final String KEY = "number";

  private final Workspace space;

  NumberRule(Workspace space) {
    this.space = space;
  }

  @Override
  public String key() {
    return KEY;
  }

  @Override
  public String guards() {
    return "no second board with a number that another one holds";
  }

  @Override
  public Optional<Refusal> refusal(Entry next, Situation s) throws IOException, ActException {
    if (!(next instanceof Entry.Knows k)) {
      return Optional.empty();
    }
    for (Build b : space.book().builds()) {
      for (String other : b.boards()) {
        if (other.equals(s.board())) {
          continue;
        }
        if (other.equals(k.serial())) {
          return no(k, "number " + k.serial() + " is that of another board of this workspace");
        }
        BoardState state = space.state(other);
        if (TalkFacts.of(state).knows().filter(x -> x.serial().equals(k.serial())).isPresent()) {
          return no(k, "board " + other + " holds number " + k.serial() + " already");
        }
      }
    }
    return Optional.empty();
  }

  private static Optional<Refusal> no(Entry.Knows k, String why) {
    return Optional.of(
        new Refusal(
            KEY,
            why,
            "Is it the right board? Give it its own number, or write why: override "
                + KEY
                + " WHY"));
  }
}
