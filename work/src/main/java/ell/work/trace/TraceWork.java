package ell.work.trace;

import ell.core.rack.Stage;
import ell.work.act.StageWork;

/// Tracing as the workshop sees it.
public final class TraceWork implements StageWork {
  @Override
  public Stage stage() {
    return Stage.TRACE;
  }
}
