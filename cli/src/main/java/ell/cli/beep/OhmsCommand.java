package ell.cli.beep;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.beep.ExpectedOhms;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.space.ActException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What a meter should show between two places of a healthy board.
@Command(
    name = "ohms",
    description = "what a meter should show between two nets or joints without power, and why")
public final class OhmsCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Parameters(index = "1", paramLabel = "A", description = "a net as 3V3, or a joint as U3.4")
  String a;

  @Parameters(index = "2", paramLabel = "B", description = "the other")
  String b;

  @Override
  public Integer call() throws Exception {
    try (Workshop w = look()) {
      Plan plan = which.plan(w);
      ExpectedOhms o;
      try {
        o = ExpectedOhms.between(plan.revision(), plan.ladder(), a, b);
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage());
      }
      if (json) {
        print(tree(o));
      } else {
        out().println(words(o));
        o.why().forEach(s -> out().println("  " + s));
      }
      return Exit.DONE;
    }
  }

  private static String words(ExpectedOhms o) {
    return o.netA()
        + " to "
        + o.netB()
        + ": "
        + o.limits().text(Unit.OHM, 3)
        + (Double.isInfinite(o.nominal())
            ? "; no resistor leads between them"
            : "; " + EngineeringNumber.print(o.nominal(), Unit.OHM, 3) + " by the values")
        + (o.beeps() ? "; a beeper sounds" : "; no beep");
  }

  /// An end that is open, and what no resistor makes, is null.
  private static ObjectNode tree(ExpectedOhms o) {
    ObjectNode t = Json.object().put("netA", o.netA()).put("netB", o.netB());
    number(t, "low", o.limits().low());
    number(t, "nominal", o.nominal());
    number(t, "high", o.limits().high());
    t.put("beeps", o.beeps()).put("beepsFor", o.beepsFor());
    ArrayNode why = t.putArray("why");
    o.why().forEach(why::add);
    return t;
  }

  private static void number(ObjectNode t, String key, double value) {
    if (Double.isFinite(value)) {
      t.put(key, value);
    } else {
      t.putNull(key);
    }
  }
}
