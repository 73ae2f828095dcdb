package ell.core.revise;

import ell.core.power.Copper;
import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import java.util.List;
import java.util.Locale;

/// The stand-alone sheets of mending and of new revisions, `revise.*`.
public final class ReviseSheets {
  private static final double MOST_MONEY = 1e9;

  private ReviseSheets() {}

  /// Every sheet of this kind.
  public static List<Sheet> all() {
    return List.of(decide(), wire());
  }

  private static Sheet decide() {
    return new Sheet(
        "revise.decide",
        "Mend the boards, order new ones, or wait",
        List.of(
            Input.number("successChance", Unit.ONE).in(0, 1),
            Input.whole("boards").in(1, 1e6),
            Input.number("boardCost", Unit.MONEY).in(0, MOST_MONEY),
            Input.number("partsCost", Unit.MONEY).in(0, MOST_MONEY),
            Input.number("reworkHours", Unit.ONE).in(0, 10_000),
            Input.number("hourRate", Unit.MONEY).in(0, MOST_MONEY),
            Input.number("leadDays", Unit.ONE).in(0, 10_000),
            Input.number("delayPerDay", Unit.MONEY).in(0, MOST_MONEY).or("0"),
            Input.number("escapeChance", Unit.ONE).in(0, 1).or("0"),
            Input.number("escapeCost", Unit.MONEY).in(0, MOST_MONEY).or("0"),
            Input.number("nextDays", Unit.ONE).in(0, 20_000).maybe(),
            Input.whole("spent").in(0, 1e6).or("0"),
            Input.whole("succeeded").in(0, 1e6).maybe(),
            Input.whole("tried").in(1, 1e6).maybe()),
        List.of(),
        Sheet.results(
            "reworkCost, reworkDays, respinCost, respinDays, waitCost, waitDays, choice, turnsAt,"
                + " sure"),
        List.of(
            "expected values: each board comes out right with the chance of success, by itself",
            "Jeffreys' interval for a chance: Brown, Cai, DasGupta, Statistical Science 16 (2001)"),
        (a, s) -> {
          double next = a.has("nextDays") ? a.number("nextDays") : 2 * a.number("leadDays");
          WayOut w;
          try {
            w =
                WayOut.of(
                    new WayOut.Asked(
                        a.number("successChance"),
                        (int) a.whole("boards"),
                        a.number("boardCost"),
                        a.number("partsCost"),
                        a.number("reworkHours"),
                        a.number("hourRate"),
                        a.number("leadDays"),
                        a.number("delayPerDay"),
                        a.number("escapeChance"),
                        a.number("escapeCost"),
                        next,
                        (int) a.whole("spent")));
          } catch (IllegalArgumentException e) {
            throw new SheetProblem(e.getMessage());
          }
          s.line(
                  "made anew",
                  "spent + (boards \u2212 spent)\u00b7(1 \u2212 p)",
                  w.asked().spent()
                      + (w.asked().boards() - w.asked().spent()) * (1 - w.asked().successChance()),
                  "boards")
              .line(
                  "rework, days",
                  "(boards \u2212 spent)\u00b7hours / 8 + share made anew\u00b7leadDays",
                  w.rework().days(),
                  "d")
              .line(
                  "rework, cost",
                  "hours\u00b7hourRate + made anew\u00b7(board + parts) + mended\u00b7p\u00b7escapes"
                      + " + days\u00b7delay",
                  w.rework().cost(),
                  Unit.MONEY)
              .line(
                  "respin, cost",
                  "boards\u00b7(board + parts) + leadDays\u00b7delay",
                  w.respin().cost(),
                  Unit.MONEY)
              .line("wait, cost", "nextDays\u00b7delay", w.pause().cost(), Unit.MONEY)
              .line("choice", "the least", w.choice().name())
              .line("turns", "where rework costs what " + w.other().name() + " costs", w.turns())
              .result("reworkCost", w.rework().cost())
              .result("reworkDays", w.rework().days())
              .result("respinCost", w.respin().cost())
              .result("respinDays", w.respin().days())
              .result("waitCost", w.pause().cost())
              .result("waitDays", w.pause().days())
              .result("choice", w.choice().name());
          if (w.turnsAt().isPresent()) {
            s.result("turnsAt", w.turnsAt().get());
          } else {
            s.result("turnsAt", "never");
          }
          if (a.has("tried")) {
            long k = a.has("succeeded") ? a.whole("succeeded") : 0;
            if (k > a.whole("tried")) {
              throw new SheetProblem(
                  "succeeded is no more than tried, found " + k + " of " + a.whole("tried"));
            }
            double sure = w.sure((int) k, (int) a.whole("tried"));
            s.line(
                    "sure",
                    String.format(
                        Locale.ROOT,
                        "share of beta(%d + \u00bd, %d + \u00bd) on this side of the turn",
                        k,
                        a.whole("tried") - k),
                    100 * sure,
                    "%")
                .result("sure", sure);
          }
          return s.assume("a working day has 8 hours, and one pair of hands mends")
              .assume(
                  a.has("nextDays")
                      ? "waiting costs nothing but the delay: the next revision is paid anyway"
                      : "the next revision comes in twice leadDays: once to be drawn, once to be made;"
                          + " say nextDays. Waiting costs nothing but the delay")
              .assume("new boards have no mistake of their own, and none of them fails later")
              .assume("those that do not come out right are made anew while the others are used")
              .done();
        });
  }

  private static Sheet wire() {
    return new Sheet(
        "revise.wire",
        "The wire of a bodge",
        List.of(
            Input.number("current", Unit.AMPERE).in(0, 100),
            Input.number("length", Unit.METRE).in(1e-3, 10)),
        List.of(),
        Sheet.results("gauge, diameter m, drop V, resistance \u03a9"),
        List.of(
            "ASTM B258: 0.127 mm \u00b7 92^((36 \u2212 n)/39)",
            "common practice, no source: 6 A/mm\u00b2 for a short wire in free air"),
        (a, s) -> {
          int gauge = Ends.gauge(a.number("current"));
          double d = Copper.awgDiameter(gauge);
          double r = Copper.resistance(a.number("length"), Copper.roundArea(d));
          return s.line("gauge", "thinnest of 30 to 16 below 6 A/mm\u00b2", gauge, "AWG")
              .line("d", "0.127 mm \u00b7 92^((36 \u2212 gauge)/39)", d, Unit.METRE)
              .line("R", "\u03c1\u00b7length / area", r, Unit.OHM)
              .line("drop", "current\u00b7R", a.number("current") * r, Unit.VOLT)
              .result("gauge", (double) gauge)
              .result("diameter", d)
              .result("drop", a.number("current") * r)
              .result("resistance", r)
              .assume("solid copper at 20 \u00b0C")
              .caution(
                  a.number("current") > 20
                      ? "the thickest wire of the list is too thin for that: a bodge is no way to"
                          + " carry it"
                      : "insulation has to stand the heat of the iron and of what lies beneath")
              .done();
        });
  }
}
