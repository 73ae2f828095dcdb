package ell.cli.prove;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.core.prove.PlanText;
import ell.core.prove.TestPlan;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.prove.PlanOrder;
import java.io.PrintWriter;
import java.util.Locale;
import tools.jackson.databind.node.ObjectNode;

/// A plan in the order that decides a board soonest.
final class OrderAnswer {
  private final PrintWriter out;
  private final boolean json;

  OrderAnswer(PrintWriter out, boolean json) {
    this.out = out;
    this.json = json;
  }

  int print(Workshop w, Plan p, TestPlan plan, boolean keep) throws Exception {
    PlanOrder o = PlanOrder.of(plan, w.proofs().everyBoard(p, plan));
    if (keep) {
      w.proofs().keep(p, PlanText.of(o.plan()));
    }
    if (json) {
      ObjectNode x =
          Json.object()
              .put("minutes", o.minutes())
              .put("asGiven", o.asGiven())
              .put("optimal", o.optimal());
      Json.strings(x, "told", o.told());
      x.put("text", PlanText.of(o.plan()));
      out.println(JsonText.of(x));
    } else {
      out.print(PlanText.of(o.plan()));
      out.printf(
          Locale.ROOT,
          "# %.2f min until a board is decided, %.2f as it was%s%n",
          o.minutes(),
          o.asGiven(),
          o.optimal() ? "" : "; whether another order is better is not proven");
      o.told().forEach(t -> out.println("# " + t));
    }
    out.flush();
    return Exit.DONE;
  }
}
