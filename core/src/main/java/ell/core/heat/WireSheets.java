package ell.core.heat;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.power.Copper;
import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import java.util.List;
import java.util.Map;

/// The stand-alone sheets of wires and holes, `wire.*`.
public final class WireSheets {
  private WireSheets() {}

  /// Every sheet of this kind.
  public static List<Sheet> all() {
    Input gauge = Input.words("gauge", "22, or 2/0");
    return List.of(
        new Sheet(
            "wire.awg",
            "Diameter of a wire gauge",
            List.of(gauge),
            List.of(),
            Sheet.results("diameter m, area m²"),
            List.of("ASTM B258: 0.127 mm · 92^((36 − n)/39)"),
            (a, s) -> {
              double n = gaugeNumber(a.text("gauge"));
              double d = Copper.awgDiameter(n);
              double area = Copper.roundArea(d);
              return s.line(
                      "d", "0.127 mm · 92^((36 − " + print(n, Unit.ONE) + ")/39)", d, Unit.METRE)
                  .line("area", "π·d²/4", area * 1e6, "mm²")
                  .line(
                      "resistance",
                      "1.7241e-8 Ω·m / area, per metre at 20 °C",
                      Copper.resistance(1, area),
                      Unit.OHM)
                  .result("diameter", d)
                  .result("area", area)
                  .assume("solid round wire, bare")
                  .done();
            }),
        new Sheet(
            "wire.hole",
            "Will the wire go through the hole",
            List.of(
                Input.number("lead", Unit.METRE).in(1e-5, 0.1),
                Input.number("hole", Unit.METRE).in(1e-5, 0.1),
                Input.choice("strand", Map.of("tinned", "stranded"), "solid", "stranded")
                    .or("solid")),
            List.of(),
            Sheet.results("clearance m, verdict"),
            List.of(
                "IPC-2222: lead + 0.15...0.25 mm, not more than about 0.7 mm over, from memory",
                "common practice, no source: stranded and tinned wire is about 1.15 times as thick"),
            (a, s) -> {
              HoleFit f =
                  HoleFit.of(
                      a.number("lead"), a.number("hole"), a.text("strand").equals("stranded"));
              return s.line(
                      "clearance",
                      "hole − lead = "
                          + print(a.number("hole"), Unit.METRE)
                          + " − "
                          + print(f.lead(), Unit.METRE, 4),
                      f.clearance(),
                      Unit.METRE)
                  .line("fit", "0.15 mm tight, 0.25 mm easy, at most 0.7 mm", f.words())
                  .result("clearance", f.clearance())
                  .assume("finished hole, after plating")
                  .verdict(f.verdict())
                  .done();
            }));
  }

  private static double gaugeNumber(String text) {
    String t = text.strip().replaceFirst("(?i)^awg\\s*", "");
    if (t.matches("[1-4]/0")) {
      return 1 - (t.charAt(0) - '0');
    }
    if (t.matches("0{2,4}")) {
      return 1 - t.length();
    }
    if (!t.matches("-?\\d{1,2}(\\.0+)?")) {
      throw new IllegalArgumentException(
          "gauge takes a number from 0 to 56 or 1/0 to 4/0, found '" + text + "'");
    }
    double n = Double.parseDouble(t);
    if (n < -3 || n > 56) {
      throw new IllegalArgumentException(
          "gauge takes a number from 0 to 56 or 1/0 to 4/0, out of range: '" + text + "'");
    }
    return n;
  }
}
