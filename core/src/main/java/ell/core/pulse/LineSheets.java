package ell.core.pulse;

import ell.core.quantity.PreferredValue;
import ell.core.quantity.Unit;
import ell.core.sheet.Args;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.List;

/// Sheets of lines: what a strip is, how long it is for an edge, what a measured step says of it.
final class LineSheets {
  private static final int SERIES = 24;
  private static final double SIX = 6;

  private LineSheets() {}

  static List<Sheet> all() {
    return List.of(
        new Sheet(
            "line.microstrip",
            "A strip over a plane, as a line",
            strip(),
            List.of(),
            Sheet.results("z0 Ω, erEff, velocity m/s"),
            List.of(
                "Hammerstad, Jensen: Accurate models for microstrip computer-aided design, 1980, from"
                    + " memory"),
            (a, s) ->
                line(
                    s,
                    LineOnBoard.microstrip(
                        a.number("width"),
                        a.number("height"),
                        a.number("thickness"),
                        a.number("er")))),
        new Sheet(
            "line.stripline",
            "A strip between two planes, as a line",
            strip(),
            List.of(),
            Sheet.results("z0 Ω, erEff, velocity m/s"),
            List.of(
                "Cohn: Characteristic impedance of the shielded-strip transmission line, 1954, and for"
                    + " the thickness Wheeler, 1978, from memory; height is from plane to plane"),
            LineSheets::stripline),
        new Sheet(
            "line.delay",
            "How long a signal is on its way",
            List.of(
                Input.number("length", Unit.METRE).in(1e-6, 1e7),
                Input.number("erEff", Unit.ONE).in(1, 1000)),
            List.of(),
            Sheet.results("delay s, velocity m/s"),
            List.of("v = c / √εr"),
            LineSheets::delay),
        new Sheet(
            "line.long",
            "Is a line long for an edge",
            List.of(
                Input.number("length", Unit.METRE).in(1e-6, 1e7),
                Input.number("erEff", Unit.ONE).in(1, 1000),
                Input.number("riseTime", Unit.SECOND).in(1e-13, 1)),
            List.of(),
            Sheet.results(
                "delay s, roundTrip s, roundTripRule, sixthRule, longest m, longestSixth m"),
            List.of(
                "common practice, no source: the round trip against the edge; others: six delays"),
            LineSheets::isLong),
        new Sheet(
            "line.from-step",
            "A line from a step that was measured at its source",
            List.of(
                Input.number("seriesResistance", Unit.OHM).in(1e-3, 1e6),
                Input.number("plateau", Unit.VOLT).in(1e-6, 1e4),
                Input.number("final", Unit.VOLT).in(1e-6, 1e4),
                Input.number("roundTrip", Unit.SECOND).in(1e-13, 1).maybe(),
                Input.number("length", Unit.METRE).in(1e-6, 1e7).maybe(),
                Input.number("driverResistance", Unit.OHM).in(0, 1e6).or("0")),
            List.of(),
            Sheet.results("z0 Ω, delay s, velocity m/s, velocityFactor, erEff"),
            List.of("a step divides between resistor and line until it comes back"),
            LineSheets::fromStep),
        new Sheet(
            "line.series",
            "A resistor at the source",
            List.of(
                Input.number("z0", Unit.OHM).in(0.1, 1e4),
                Input.number("driverResistance", Unit.OHM).in(0, 1e4).or("0")),
            List.of(),
            Sheet.results("resistance Ω, nearest Ω"),
            List.of("driver and resistor together are the line", "IEC 60063 preferred numbers"),
            LineSheets::series));
  }

  private static List<Input> strip() {
    return List.of(
        Input.number("width", Unit.METRE).in(1e-7, 1),
        Input.number("height", Unit.METRE).in(1e-7, 1),
        Input.number("thickness", Unit.METRE).in(0, 0.01).or("35um"),
        Input.number("er", Unit.ONE).in(1, 100).or("4.3"));
  }

  private static Worked stripline(Args a, Worked.Builder s) {
    if (a.number("thickness") > 0.9 * a.number("height")) {
      throw new SheetProblem("line.stripline: thickness: the strip is thicker than its room");
    }
    return line(
        s,
        LineOnBoard.stripline(
            a.number("width"), a.number("height"), a.number("thickness"), a.number("er")));
  }

  private static Worked line(Worked.Builder s, LineOnBoard l) {
    return s.line("εr eff", "what the signal sees", l.erEff(), Unit.ONE)
        .line("Z0", "volts over amperes of a wave", l.z0(), Unit.OHM)
        .line("v", "c / √εr eff", l.velocity(), Unit.METRE_PER_SECOND)
        .result("z0", l.z0())
        .result("erEff", l.erEff())
        .result("velocity", l.velocity())
        .assume("no cover of mask, no copper near at the sides; a fabricator's stack decides")
        .done();
  }

  private static Worked delay(Args a, Worked.Builder s) {
    double v = LineOnBoard.LIGHT / Math.sqrt(a.number("erEff"));
    double t = a.number("length") / v;
    return s.line("v", "c / √εr eff", v, Unit.METRE_PER_SECOND)
        .line("delay", "length / v", t, Unit.SECOND)
        .result("delay", t)
        .result("velocity", v)
        .done();
  }

  private static Worked isLong(Args a, Worked.Builder s) {
    double v = LineOnBoard.LIGHT / Math.sqrt(a.number("erEff"));
    double delay = a.number("length") / v;
    double rise = a.number("riseTime");
    String round = 2 * delay > rise ? "long" : "short";
    String six = rise < SIX * delay ? "long" : "short";
    return s.line("delay", "length / v", delay, Unit.SECOND)
        .line("round trip", "2 · delay", 2 * delay, Unit.SECOND)
        .line("by the round trip", "longer than the edge", round)
        .line("by six delays", "longer than the edge", six)
        .line("longest", "v · rise / 2", v * rise / 2, Unit.METRE)
        .line("longest by six", "v · rise / 6", v * rise / SIX, Unit.METRE)
        .result("delay", delay)
        .result("roundTrip", 2 * delay)
        .result("roundTripRule", round)
        .result("sixthRule", six)
        .result("longest", v * rise / 2)
        .result("longestSixth", v * rise / SIX)
        .done();
  }

  private static Worked fromStep(Args a, Worked.Builder s) {
    double plateau = a.number("plateau");
    double last = a.number("final");
    if (!(plateau < last)) {
      throw new SheetProblem(
          "line.from-step: plateau: below the final volts, where the line is open at its end");
    }
    double r = a.number("seriesResistance") + a.number("driverResistance");
    double z0 = r * plateau / (last - plateau);
    s.line("Z0", "R · plateau / (final − plateau)", z0, Unit.OHM).result("z0", z0);
    if (a.has("roundTrip")) {
      double delay = a.number("roundTrip") / 2;
      s.line("delay", "round trip / 2", delay, Unit.SECOND).result("delay", delay);
      if (a.has("length")) {
        double v = a.number("length") / delay;
        double factor = v / LineOnBoard.LIGHT;
        if (factor > 1) {
          throw new SheetProblem(
              "line.from-step: length: nothing goes that far in the time, it would be "
                  + String.format(java.util.Locale.ROOT, "%.2f", factor)
                  + " times as fast as light");
        }
        s.line("v", "length / delay", v, Unit.METRE_PER_SECOND)
            .line("v/c", "share of the speed of light", factor, Unit.ONE)
            .line("εr eff", "(c / v)²", 1 / (factor * factor), Unit.ONE)
            .result("velocity", v)
            .result("velocityFactor", factor)
            .result("erEff", 1 / (factor * factor));
      }
    }
    if (a.number("driverResistance") == 0) {
      s.assume("the driver's own resistance is not in it: Z0 is larger by as much in proportion");
    }
    return s.assume("the far end is open").done();
  }

  private static Worked series(Args a, Worked.Builder s) {
    double r = Math.max(0, a.number("z0") - a.number("driverResistance"));
    double nearest = r == 0 ? 0 : PreferredValue.nearest(r, SERIES);
    s.line("R", "Z0 − driver", r, Unit.OHM)
        .line("nearest", "IEC 60063, E24", nearest, Unit.OHM)
        .result("resistance", r)
        .result("nearest", nearest);
    if (r == 0) {
      s.assume("the driver alone has as much as the line, or more");
    }
    return s.done();
  }
}
