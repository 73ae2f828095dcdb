package ell.work.beep;

import ell.core.rack.Stage;
import ell.work.act.StageWork;

/// The beeping as the workshop sees it: it holds no rule of its own; that power waits for it is
/// power's rule.
public final class BeepWork implements StageWork {
  @Override
  public Stage stage() {
    return Stage.BEEP;
  }
}
