package ell.cli.power;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.core.power.BatteryLife;
import ell.core.power.Ladder;
import ell.core.power.LadderBands;
import ell.core.power.RailBand;
import ell.core.power.RailSpread;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.io.PrintWriter;
import java.util.List;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Answers to questions about rails and cells, in words or as JSON.
final class PowerAnswers {
  private final PrintWriter out;
  private final boolean json;

  PowerAnswers(PrintWriter out, boolean json) {
    this.out = out;
    this.json = json;
  }

  /// Where each rail lies by tolerances.
  int banded(Ladder ladder, String state, LadderBands bands) {
    if (json) {
      ObjectNode o = Json.object().put("state", state);
      ArrayNode rails = o.putArray("rails");
      for (LadderBands.Rail r : bands.rails()) {
        ObjectNode one = rails.addObject().put("net", r.rail().net());
        band(one.putObject("volts"), r.volts());
        band(one.putObject("current"), r.amps());
      }
      Json.strings(o, "assumptions", bands.assumptions());
      out.println(JsonText.of(o));
      return Exit.DONE;
    }
    for (LadderBands.Rail r : bands.rails()) {
      boolean source = ladder.sources().stream().anyMatch(s -> s.rail().equals(r.rail().net()));
      out.printf(
          "%-10s %s (%s)   %s (%s)%s%n",
          r.rail().net(),
          range(r.volts().likelyLow(), r.volts().likelyHigh(), Unit.VOLT),
          range(r.volts().low(), r.volts().high(), Unit.VOLT),
          range(r.amps().likelyLow(), r.amps().likelyHigh(), Unit.AMPERE),
          range(r.amps().low(), r.amps().high(), Unit.AMPERE),
          source ? "  from the supply" : r.rail().guessed() ? "  its volts are guessed" : "");
    }
    out.println("in 95 of 100 boards (at the very most)");
    bands.assumptions().forEach(a -> out.println("taken: " + a));
    return Exit.DONE;
  }

  private static String range(double low, double high, Unit unit) {
    return EngineeringNumber.print(low, unit, 4) + "…" + EngineeringNumber.print(high, unit, 4);
  }

  private static void band(ObjectNode o, RailBand b) {
    o.put("nominal", b.nominal())
        .put("low", b.low())
        .put("high", b.high())
        .put("likelyLow", b.likelyLow())
        .put("likelyHigh", b.likelyHigh());
  }

  /// Each rail over all boards of a build.
  int compared(int boards, List<RailSpread> all) {
    if (json) {
      ObjectNode o = Json.object().put("boards", boards);
      ArrayNode rails = o.putArray("rails");
      for (RailSpread r : all) {
        ObjectNode one =
            rails.addObject().put("rail", r.rail().net()).put("read", r.boards().size());
        Json.number(one, "median", r.median());
        Json.number(one, "spread", r.spread());
        Json.strings(one, "odd", r.odd().stream().map(RailSpread.Read::board).toList());
      }
      out.println(JsonText.of(o));
      return Exit.DONE;
    }
    for (RailSpread r : all) {
      out.printf(
          "%-10s %3d of %3d read%s%s%n",
          r.rail().net(),
          r.boards().size(),
          r.of(),
          r.boards().isEmpty() ? "" : ", middle " + Json.print(r.median(), Unit.VOLT),
          r.odd().isEmpty()
              ? ""
              : "; "
                  + String.join(
                      ", ",
                      r.odd().stream()
                          .map(b ->
                              b.board()
                                  + " "
                                  + Json.print(b.volts(), Unit.VOLT)
                                  + (b.verdict().filter(v -> v == Verdict.OUT).isPresent()
                                      ? " out"
                                      : " apart"))
                          .toList()));
    }
    return Exit.DONE;
  }

  /// How long a cell lasts.
  int lasts(BatteryLife life) {
    if (json) {
      ObjectNode o =
          Json.object()
              .put("from", life.source())
              .put("current", life.mean())
              .put("capacity", life.coulombs());
      Json.number(o, "hours", life.hours());
      ArrayNode states = o.putArray("states");
      life.shares()
          .forEach(x ->
              states
                  .addObject()
                  .put("state", x.state())
                  .put("share", x.share())
                  .put("current", x.amps())
                  .put("takes", x.takes()));
      ArrayNode asks = o.putArray("guessed");
      life.guessed().forEach(l -> asks.add(l.part()));
      out.println(JsonText.of(o));
      return Exit.DONE;
    }
    for (BatteryLife.Share x : life.shares()) {
      out.printf(
          java.util.Locale.ROOT,
          "%-8s %5.1f %%  %9s  takes %s on the average%n",
          x.state(),
          100 * x.share(),
          Json.print(x.amps(), Unit.AMPERE),
          Json.print(x.takes(), Unit.AMPERE));
    }
    if (life.mean() == 0) {
      out.println("nothing is drawn from " + life.source() + " in these states");
      return Exit.DONE;
    }
    out.printf(
        java.util.Locale.ROOT,
        "%.1f h (%.1f days) at %s on the average; %s takes most of it%n",
        life.hours(),
        life.hours() / 24,
        Json.print(life.mean(), Unit.AMPERE),
        life.greatest().state());
    if (!life.guessed().isEmpty()) {
      out.println(
          "this rests on currents that nobody said: "
              + String.join(", ", life.guessed().stream().map(Ladder.Load::name).toList())
              + "; say them: ladder WS --load PART=AMPS");
    }
    return Exit.DONE;
  }
}
