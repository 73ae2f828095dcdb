package ell.core.talk;

import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import java.util.Arrays;
import java.util.List;
import java.util.Map;

/// The stand-alone sheets of chains and straps: `chain.search`, `pins.strap`.
public final class TalkSheets {
  private TalkSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    return List.of(
        new Sheet(
            "chain.search",
            "Looks until the break in a chain is found",
            List.of(
                Input.whole("elements").in(2, 1000),
                Input.number("minutes", Unit.ONE).in(1e-3, 1e3).or("1")),
            List.of(),
            Sheet.results("looks, oneByOne, minutes, first"),
            List.of("optimal alphabetic trees by dynamic programming: Knuth 1971, from memory"),
            (a, s) -> {
              int n = (int) a.whole("elements");
              double[] chance = new double[n];
              double[] cost = new double[n - 1];
              Arrays.fill(chance, 1);
              Arrays.fill(cost, 1);
              ChainSearch.Next next = ChainSearch.of(chance, cost);
              // the last stretch needs no look of its own
              double walk = (n * (n + 1.0) / 2 - 1) / n;
              double minutes = a.number("minutes");
              return s.line("looks", "halving, expected", next.expected(), Unit.ONE)
                  .line("one by one", "(n·(n + 1)/2 − 1)/n", walk, Unit.ONE)
                  .line("minutes", "looks · minutes of one", next.expected() * minutes, Unit.ONE)
                  .line("first", "look behind this element", next.look() + 1.0, Unit.ONE)
                  .result("looks", next.expected())
                  .result("oneByOne", walk)
                  .result("minutes", next.expected() * minutes)
                  .result("first", next.look() + 1.0)
                  .assume("the break is as likely at one element as at another")
                  .assume("every look costs the same")
                  .done();
            }),
        new Sheet(
            "pins.strap",
            "A load on a strap at reset",
            List.of(
                Input.number("pull", Unit.OHM).in(1, 1e9).or("45k"),
                Input.number("load", Unit.OHM).in(0.001, 1e9),
                Input.choice("pulls", Map.of(), "up", "down").or("up"),
                Input.choice("loads", Map.of(), "up", "down").or("down"),
                Input.number("supply", Unit.VOLT).in(0.5, 50).or("3.3")),
            List.of(),
            Sheet.results("level V, share, reads"),
            List.of(
                "voltage divider; low below 0.3 and high above 0.7 of the supply, common practice"),
            (a, s) -> {
              double p = a.number("pull");
              double l = a.number("load");
              double up =
                  (a.text("pulls").equals("up") ? 1 / p : 0)
                      + (a.text("loads").equals("up") ? 1 / l : 0);
              double share = up / (1 / p + 1 / l);
              String reads =
                  share <= StrapPull.LOW ? "low" : share >= StrapPull.HIGH ? "high" : "neither";
              return s.line("share", "conductance up / (up + down)", share, Unit.ONE)
                  .line("level", "share · supply", share * a.number("supply"), Unit.VOLT)
                  .result("level", share * a.number("supply"))
                  .result("share", share)
                  .result("reads", reads)
                  .assume("the load is a resistor; a lamp in series with one pulls less")
                  .done();
            }));
  }
}
