package ell.work.pulse;

import ell.core.rack.Stage;
import ell.work.act.StageWork;
import java.util.Map;

/// The captures as the workshop sees them: they hold no rule of their own, power's rules keep the
/// board safe.
public final class PulseWork implements StageWork {
  @Override
  public Stage stage() {
    return Stage.PULSE;
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of(Pulses.FAMILIES, "csv", "copper-first", "gbr", "copper-second", "gbr");
  }
}
