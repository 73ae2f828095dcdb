package ell.work.jig;

import ell.core.rack.Stage;
import ell.work.act.StageWork;

/// Jigs as the workshop sees them.
public final class JigWork implements StageWork {
  @Override
  public Stage stage() {
    return Stage.JIG;
  }
}
