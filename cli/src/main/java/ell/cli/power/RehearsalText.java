package ell.cli.power;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.core.power.PowerPlan;
import ell.core.quantity.Unit;
import ell.work.act.Refusal;
import ell.work.power.Rehearsal;
import java.io.PrintWriter;
import java.util.List;
import java.util.Optional;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// First power as it would be, in words or as JSON.
final class RehearsalText {
  private final PrintWriter out;
  private final boolean json;

  RehearsalText(PrintWriter out, boolean json) {
    this.out = out;
    this.json = json;
  }

  /// Prints it.
  ///
  /// @param before what must be so
  /// @param no what stands in the way
  int print(
      PowerPlan steps, List<String> before, Optional<Refusal> no, List<Rehearsal.Part> parts) {
    if (json) {
      ObjectNode o = Json.object().put("rail", steps.rail());
      no.ifPresent(r -> o.put("refused", r.text()));
      Json.strings(o, "left", steps.left());
      Json.strings(o, "before", before);
      ArrayNode all = o.putArray("parts");
      for (Rehearsal.Part p : parts) {
        ObjectNode one = all.addObject().put("what", p.what());
        p.step()
            .ifPresent(s ->
                one.put("rail", s.rail())
                    .put("output", s.output())
                    .put("volts", s.volts())
                    .put("limit", s.limit())
                    .put("low", s.band().low())
                    .put("high", s.band().high())
                    .put("charging", s.charging())
                    .put("known", s.known()));
        Json.strings(one, "lines", p.lines());
      }
      out.println(JsonText.of(o));
      return Exit.DONE;
    }
    no.ifPresent(r -> out.println("it would be refused now: " + r.text()));
    steps.left().forEach(l -> out.println(l));
    before.forEach(t -> out.println("must be so: " + t));
    for (Rehearsal.Part p : parts) {
      out.println(
          p.what()
              + p.step()
                  .map(s ->
                      ": "
                          + s.rail()
                          + " "
                          + Json.print(s.volts(), Unit.VOLT)
                          + ", limit "
                          + Json.print(s.limit(), Unit.AMPERE)
                          + ", expect "
                          + Json.limits(s.band(), Unit.AMPERE)
                          + ", at rest after "
                          + Json.print(s.charging(), Unit.SECOND)
                          + (s.known() ? "" : "; the model did not settle: only the limit is held"))
                  .orElse(""));
      p.lines().forEach(l -> out.println("  " + l));
    }
    return Exit.DONE;
  }
}
