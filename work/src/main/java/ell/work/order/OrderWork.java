package ell.work.order;

import ell.core.rack.Stage;
import ell.work.act.Rule;
import ell.work.act.Sharing;
import ell.work.act.StageWork;
import ell.work.space.Workspace;
import java.util.List;
import java.util.Map;

/// The order as the workshop sees it: what is done to a panel is done to each of its boards.
public final class OrderWork implements StageWork {
  private final Workspace space;
  private final Panels panels;

  /// The order over the panels of a workspace.
  public OrderWork(Workspace space, Panels panels) {
    this.space = space;
    this.panels = panels;
  }

  @Override
  public Stage stage() {
    return Stage.ORDER;
  }

  @Override
  public List<Rule> rules() {
    return List.of(new PanelRule(space, panels));
  }

  @Override
  public List<Sharing> sharings() {
    return List.of((next, s) -> panels.others(next, s.build(), s.board()));
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of("wishes", "txt");
  }
}
