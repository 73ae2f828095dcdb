package ell.work.power;

import ell.core.entry.Entry;
import ell.core.power.BeforePower;
import ell.core.rack.Plan;
import ell.work.act.Acts;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;

/// Somebody looked: what must be so before first power is so.
public final class BeforePowerSo {
  private BeforePowerSo() {}

  /// Logs what the book does not have yet.
  public static void log(Acts acts, Plan plan, String board) throws IOException, ActException {
    List<Entry.Stands> all = BeforePower.allSo(plan.revision(), plan.ladder(), acts.state(board));
    if (!all.isEmpty()) {
      acts.log(board, all).orThrow();
    }
  }
}
