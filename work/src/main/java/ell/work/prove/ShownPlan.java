package ell.work.prove;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.prove.ProveFacts;
import ell.core.quantity.Verdict;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.power.Helping;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.util.Optional;

/// A helper proves by a plan that the maker has gone through with another board, and no board that
/// has a finding.
final class ShownPlan implements Rule {
  static final String KEY = "proof";

  private final Workspace space;

  ShownPlan(Workspace space) {
    this.space = space;
  }

  @Override
  public String key() {
    return KEY;
  }

  @Override
  public String guards() {
    return "a helper proves by plans that the maker has shown to work, and no board with a finding";
  }

  @Override
  public Optional<Refusal> refusal(Entry next, Situation s) throws IOException, ActException {
    Optional<String> who = Helping.at(s.state());
    if (who.isEmpty()) {
      return Optional.empty();
    }
    return switch (next) {
      case Entry.ProofBegun p -> begins(who.get(), p, s);
      case Entry.Released _ -> no(who.get() + " helps, and lets no board leave the bench");
      default -> Optional.empty();
    };
  }

  private Optional<Refusal> begins(String who, Entry.ProofBegun p, Situation s) throws IOException {
    if (!s.state().findings().isEmpty()) {
      BoardState.Finding f = s.state().findings().getFirst();
      return no(
          who + " helps, and board " + s.board() + " has a finding: " + f.place() + " " + f.what());
    }
    for (String board : s.build().boards()) {
      if (!board.equals(s.board()) && shown(space.state(board), p.sha256())) {
        return Optional.empty();
      }
    }
    return no(
        who + " helps, and the maker has not passed another board of this build by this plan yet");
  }

  /// Whether the maker has passed a board by a plan.
  private static boolean shown(BoardState state, String sha) {
    for (ProveFacts.Run r : ProveFacts.of(state).runs()) {
      if (r.begun().sha256().equals(sha)
          && r.verdict().filter(v -> v == Verdict.WITHIN).isPresent()
          && !helped(state, r.number())) {
        return true;
      }
    }
    return false;
  }

  private static boolean helped(BoardState state, long at) {
    boolean helper = false;
    for (Logged l : state.standing()) {
      if (l.number() > at) {
        break;
      }
      if (l.entry() instanceof Entry.Operator o) {
        helper = o.helper();
      }
    }
    return helper;
  }

  private static Optional<Refusal> no(String why) {
    return Optional.of(new Refusal(KEY, why, "Call the maker, who types: hands NAME"));
  }
}
