package ell.work.power;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.BeforePower;
import ell.core.power.Ladder;
import ell.core.power.PowerFacts;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.util.List;
import java.util.Optional;

/// A helper at the bench: who goes through what the maker has shown to work, and calls the maker
/// for all else. A helper switches on no board that has a finding, none of a build of which the
/// maker has not brought one through first power, sets no rule aside and strikes no entry.
public final class Helping implements Rule {
  static final String KEY = "helper";

  private final Workspace space;

  Helping(Workspace space) {
    this.space = space;
  }

  /// Who helps with a board, empty when the maker is there.
  public static Optional<String> at(BoardState state) {
    Entry.Operator last = null;
    for (Logged l : state.standing()) {
      if (l.entry() instanceof Entry.Operator o) {
        last = o;
      }
    }
    return last != null && last.helper() ? Optional.of(last.who()) : Optional.empty();
  }

  @Override
  public String key() {
    return KEY;
  }

  @Override
  public String guards() {
    return "a helper switches on what the maker has shown to work, and nothing else";
  }

  @Override
  public Optional<Refusal> refusal(Entry next, Situation s) throws IOException, ActException {
    Optional<String> who = at(s.state());
    if (who.isEmpty() || s.shared()) {
      return Optional.empty();
    }
    return switch (next) {
      case Entry.Override _ -> no(who.get() + " helps, and sets no rule aside");
      case Entry.Strike _ -> no(who.get() + " helps, and takes no entry back");
      case Entry.Supply on when on.on() -> power(who.get(), s);
      default -> Optional.empty();
    };
  }

  private Optional<Refusal> power(String who, Situation s) throws IOException {
    List<BoardState.Finding> open = s.state().findings();
    if (!open.isEmpty()) {
      BoardState.Finding f = open.getFirst();
      return no(
          who
              + " helps, and board "
              + s.board()
              + " has a finding: "
              + f.place()
              + " "
              + f.what()
              + " (entry "
              + f.number()
              + ")");
    }
    Ladder ladder = s.plan().ladder();
    return shown(s.build(), s.board(), ladder)
        ? Optional.empty()
        : no(
            who
                + " helps, and the maker has not brought another board of this build through first"
                + " power yet");
  }

  /// Whether the maker has brought another board of the build through first power.
  private boolean shown(Build build, String but, Ladder ladder) throws IOException {
    for (String board : build.boards()) {
      if (!board.equals(but)) {
        BoardState state = space.state(board);
        if (BeforePower.over(ladder, state) && !PowerFacts.of(state).mayBeOn() && byMaker(state)) {
          return true;
        }
      }
    }
    return false;
  }

  private static boolean byMaker(BoardState state) {
    boolean helper = false;
    for (Logged l : state.standing()) {
      switch (l.entry()) {
        case Entry.Operator o -> helper = o.helper();
        case Entry.Supply on -> {
          if (on.on() && !helper) {
            return true;
          }
        }
        default -> {} // says nothing of who switched on
      }
    }
    return false;
  }

  private static Optional<Refusal> no(String why) {
    return Optional.of(new Refusal(KEY, why, "Call the maker, who types: hands NAME"));
  }
}
