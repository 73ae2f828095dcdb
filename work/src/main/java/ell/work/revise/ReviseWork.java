package ell.work.revise;

import ell.core.entry.Entry;
import ell.core.rack.Stage;
import ell.work.act.Companion;
import ell.work.act.Rule;
import ell.work.act.Sharing;
import ell.work.act.StageWork;
import ell.work.bring.Revisions;
import ell.work.errata.KeptErrata;
import ell.work.space.Workspace;
import java.util.List;
import java.util.Map;

/// Errata as the workshop sees them: gates wait for bodges, a bodge heats what it heats, and boards
/// that were tried together have it in their books alike.
public final class ReviseWork implements StageWork {
  private final Workspace space;
  private final KeptErrata errata;
  private final Revisions revisions;
  private final Revising revising;

  /// The work on a workspace.
  public ReviseWork(Workspace space, KeptErrata errata, Revisions revisions, Revising revising) {
    this.space = space;
    this.errata = errata;
    this.revisions = revisions;
    this.revising = revising;
  }

  @Override
  public Stage stage() {
    return Stage.REVISE;
  }

  @Override
  public List<Rule> rules() {
    return List.of(new MendedRule(errata));
  }

  @Override
  public List<Companion> companions() {
    return List.of(
        new ErratumEntry(space, errata, revisions),
        new BodgeEntry(errata),
        new DecisionEntry(revising, errata));
  }

  @Override
  public List<Sharing> sharings() {
    return List.of((next, s) -> {
      if (!(next instanceof Entry.Stack x)) {
        return List.of();
      }
      List<String> boards =
          space.book().builds().stream().flatMap(b -> b.boards().stream()).toList();
      return x.members().stream().filter(m -> boards.contains(m) && !m.equals(s.board())).toList();
    });
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of(Revising.SAID, "txt");
  }
}
