package ell.work.talk;

import ell.core.rack.Stage;
import ell.work.act.Companion;
import ell.work.act.Rule;
import ell.work.act.StageWork;
import ell.work.space.Workspace;
import java.util.List;
import java.util.Map;

/// Links, lines and numbers as the workshop sees them.
public final class TalkWork implements StageWork {
  private final Workspace space;

  /// Over a workspace.
  public TalkWork(Workspace space) {
    this.space = space;
  }

  @Override
  public Stage stage() {
    return Stage.TALK;
  }

  @Override
  public List<Rule> rules() {
    return List.of(new LinksRule(), new NumberRule(space));
  }

  @Override
  public List<Companion> companions() {
    return List.of(new LinkHeats());
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of(Modules.KEPT, "csv");
  }
}
