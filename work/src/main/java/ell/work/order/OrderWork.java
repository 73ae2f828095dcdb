package ell.work.order;

import ell.core.rack.Stage;
import ell.work.act.StageWork;
import java.util.Map;

/// The order as the workshop sees it.
public final class OrderWork implements StageWork {
  @Override
  public Stage stage() {
    return Stage.ORDER;
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of("wishes", "txt");
  }
}
