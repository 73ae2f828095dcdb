package ell.work.look;

import ell.core.rack.Stage;
import ell.work.act.StageWork;

/// The inspection as the workshop sees it: it holds no rule yet.
public final class LookWork implements StageWork {
  @Override
  public Stage stage() {
    return Stage.LOOK;
  }
}
