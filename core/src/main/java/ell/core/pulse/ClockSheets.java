package ell.core.pulse;

import ell.core.quantity.PreferredValue;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Args;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.List;
import java.util.Map;

/// Sheets of crystals, clocks, serial lines, two-wire buses and probes.
final class ClockSheets {
  private static final int SERIES = 12;
  private static final double DAY = 86_400;
  private static final String PIERCE = "Pierce oscillator (any text on crystal oscillators)";
  private static final String NXP = "NXP UM10204, 7.1, from memory";
  private static final Map<String, double[]> MODES =
      Map.of(
          "standard", new double[] {1e-6, 400e-12, 3e-3},
          "fast", new double[] {300e-9, 400e-12, 3e-3},
          "fast-plus", new double[] {120e-9, 550e-12, 20e-3});

  private ClockSheets() {}

  static List<Sheet> all() {
    return List.of(
        new Sheet(
            "clock.load-caps",
            "Capacitors beside a crystal",
            List.of(
                Input.number("loadCapacitance", Unit.FARAD).in(1e-13, 1e-9),
                Input.number("stray", Unit.FARAD).in(0, 1e-10).or("5pF"),
                Input.number("fitted", Unit.FARAD).in(1e-13, 1e-9).maybe(),
                Input.number("motional", Unit.FARAD).in(1e-18, 1e-10).maybe(),
                Input.number("shunt", Unit.FARAD).in(0, 1e-10).or("5pF")),
            List.of(),
            Sheet.results("capacitor F, nearest F, actualLoad F, pull"),
            List.of(PIERCE, "IEC 60063 preferred numbers"),
            ClockSheets::loadCaps),
        new Sheet(
            "clock.gain-margin",
            "Does a crystal start",
            List.of(
                Input.number("frequency", Unit.HERTZ).in(1, 1e9),
                Input.number("esr", Unit.OHM).in(1e-3, 1e6),
                Input.number("shunt", Unit.FARAD).in(0, 1e-10),
                Input.number("load", Unit.FARAD).in(1e-13, 1e-9),
                Input.number("gm", Unit.SIEMENS).in(1e-9, 10)),
            List.of(),
            Sheet.results("gmCritical S, margin, verdict"),
            List.of(PIERCE, "common practice, no source: five times what is critical"),
            ClockSheets::gainMargin),
        new Sheet(
            "clock.ppm",
            "How far off a clock is",
            List.of(
                Input.number("measured", Unit.HERTZ).in(1e-9, 1e12),
                Input.number("nominal", Unit.HERTZ).in(1e-9, 1e12),
                Input.number("gate", Unit.SECOND).in(1e-9, 1e6).maybe(),
                Input.number("reference", Unit.ONE).in(0, 1).or("0")),
            List.of(),
            Sheet.results("ppm, secondsPerDay s, uncertaintyPpm"),
            List.of("definition; a counter counts one more or one less in its gate"),
            ClockSheets::ppm),
        new Sheet(
            "uart.baud",
            "A serial line's clock from a controller's",
            List.of(
                Input.number("clock", Unit.HERTZ).in(1, 1e11),
                Input.number("baud", Unit.ONE).in(1, 1e10),
                Input.whole("oversampling").in(1, 64).or("16"),
                Input.number("other", Unit.ONE).in(-0.5, 0.5).or("0")),
            List.of(),
            Sheet.results("divider, actual, error, budget, verdict"),
            List.of(
                "half a bit at the last sample of ten bits",
                "common practice, no source: 2 % for either end is safe"),
            ClockSheets::baud),
        new Sheet(
            "uart.line",
            "How fast a line of resistance and capacitance carries bits",
            List.of(
                Input.number("resistance", Unit.OHM).in(1e-3, 1e9),
                Input.number("capacitance", Unit.FARAD).in(1e-15, 1),
                Input.number("share", Unit.ONE).in(0.01, 1).or("0.3333333333333333")),
            List.of(),
            Sheet.results("rise s, maxBaud"),
            List.of("10 to 90 % of a charge: ln 9 · R·C", "typical, no source: a third of a bit"),
            ClockSheets::line),
        new Sheet(
            "uart.lamp",
            "A lamp on a serial line",
            List.of(
                Input.number("supply", Unit.VOLT).in(0.5, 60),
                Input.number("outputResistance", Unit.OHM).in(0.1, 1e6),
                Input.number("lampResistance", Unit.OHM).in(0, 1e6),
                Input.number("lampVolts", Unit.VOLT).in(0.1, 20).or("2V"),
                Input.choice("to", Map.of(), "ground", "supply").or("ground"),
                Input.number("vih", Unit.VOLT).in(0, 60).or("2.0"),
                Input.number("vil", Unit.VOLT).in(0, 60).or("0.8")),
            List.of(),
            Sheet.results("level V, current A, verdict"),
            List.of(
                "a divider of the output and the lamp's resistor about the lamp's volts",
                "typical, no source: 2 V of a lamp, thresholds 0.8 and 2.0 V"),
            ClockSheets::lamp),
        new Sheet(
            "bus.pullup",
            "Pull-up resistors of a two-wire bus",
            List.of(
                Input.number("vdd", Unit.VOLT).in(0.5, 60),
                Input.number("capacitance", Unit.FARAD).in(1e-13, 1e-6),
                Input.choice("mode", Map.of("fast-mode", "fast"), "standard", "fast", "fast-plus")
                    .or("fast"),
                Input.number("riseTime", Unit.SECOND).in(1e-10, 1e-3).maybe(),
                Input.number("vol", Unit.VOLT).in(0, 10).or("0.4"),
                Input.number("iol", Unit.AMPERE).in(1e-6, 1).maybe(),
                Input.number("resistance", Unit.OHM).in(1, 1e7).maybe(),
                Input.number("cable", Unit.FARAD).in(1e-13, 1e-8).or("75pF")),
            List.of(),
            Sheet.results("min Ω, max Ω, nearest Ω, longestCable m, slowestClock Hz, verdict"),
            List.of(NXP, "typical, no source: 50 to 100 pF for a metre of cable"),
            ClockSheets::bus),
        new Sheet(
            "probe.rise",
            "What an edge is behind what the instrument shows",
            List.of(
                Input.number("measured", Unit.SECOND).in(1e-13, 1),
                Input.number("bandwidth", Unit.HERTZ).in(1, 1e13),
                Input.number("probeBandwidth", Unit.HERTZ).in(1, 1e13).maybe()),
            List.of(),
            Sheet.results("true s, instrument s"),
            List.of("rise times add as squares; 0.35 / bandwidth for one pole"),
            ClockSheets::rise),
        new Sheet(
            "probe.load",
            "What a probe does to what it touches",
            List.of(
                Input.number("resistance", Unit.OHM).in(1, 1e12),
                Input.number("capacitance", Unit.FARAD).in(1e-15, 1e-6),
                Input.number("source", Unit.OHM).in(0, 1e9)),
            List.of(),
            Sheet.results("bandwidth Hz, attenuation, rise s"),
            List.of("a divider, and one pole of its resistance and the probe's capacitance"),
            ClockSheets::load));
  }

  private static Worked loadCaps(Args a, Worked.Builder s) {
    double wanted = a.number("loadCapacitance");
    double stray = a.number("stray");
    double each;
    try {
      each = Crystal.capacitor(wanted, stray);
    } catch (IllegalArgumentException e) {
      throw new SheetProblem("clock.load-caps: " + e.getMessage());
    }
    double nearest = PreferredValue.nearest(each, SERIES);
    double fitted = a.has("fitted") ? a.number("fitted") : nearest;
    double actual = Crystal.load(fitted, stray);
    s.line("C1 = C2", "2 · (CL − Cstray)", each, Unit.FARAD)
        .line("nearest", "IEC 60063, E12", nearest, Unit.FARAD)
        .line(
            "CL",
            "C/2 + Cstray with " + (a.has("fitted") ? "the fitted" : "the nearest"),
            actual,
            Unit.FARAD)
        .result("capacitor", each)
        .result("nearest", nearest)
        .result("actualLoad", actual);
    if (a.has("motional")) {
      double pull = Crystal.pull(a.number("motional"), a.number("shunt"), actual, wanted);
      s.line("Δf/f", "Cm/2 · (1/(C0 + CL) − 1/(C0 + CLwanted))", pull * 1e6, "ppm")
          .result("pull", pull);
    }
    return s.assume("the stray capacitance is that of pins and traces, both sides together").done();
  }

  private static Worked gainMargin(Args a, Worked.Builder s) {
    double critical =
        Crystal.criticalGain(
            a.number("frequency"), a.number("esr"), a.number("shunt"), a.number("load"));
    double margin = a.number("gm") / critical;
    return s.line("gm critical", "4·ESR·(2πf)²·(C0 + CL)²", critical, Unit.SIEMENS)
        .line("margin", "gm / gm critical, wanted at least 5", margin, Unit.ONE)
        .result("gmCritical", critical)
        .result("margin", margin)
        .verdict(margin >= Crystal.MARGIN ? Verdict.WITHIN : Verdict.OUT)
        .assume("ESR is the greatest that the data sheet allows")
        .done();
  }

  private static Worked ppm(Args a, Worked.Builder s) {
    double off = a.number("measured") / a.number("nominal") - 1;
    s.line("error", "measured / nominal − 1", off * 1e6, "ppm")
        .line("a day", "error · 86 400 s", off * DAY, Unit.SECOND)
        .result("ppm", off * 1e6)
        .result("secondsPerDay", off * DAY);
    if (a.has("gate")) {
      double u = 1 / (a.number("gate") * a.number("measured")) + a.number("reference");
      s.line("known to", "1 / (gate · f) + reference", u * 1e6, "ppm")
          .result("uncertaintyPpm", u * 1e6);
    } else {
      s.assume("the counter's own error is not in it: say gate and reference");
    }
    return s.done();
  }

  private static Worked baud(Args a, Worked.Builder s) {
    long over = a.whole("oversampling");
    Baud b = Baud.of(a.number("clock"), a.number("baud"), over);
    double apart = Math.abs(b.error()) + Math.abs(a.number("other"));
    double budget = Baud.budget(Math.max(over, 3));
    s.line("divider", "clock / (oversampling · baud), to the nearest whole", b.divider(), Unit.ONE)
        .line("baud", "clock / (oversampling · divider)", b.actual(), "baud")
        .line("error", "actual / wanted − 1", b.error() * 100, "%")
        .line("both ends", "this one and the other", apart * 100, "%")
        .line("budget", "(½ − 1/oversampling) / 9.5 bits", budget * 100, "%")
        .result("divider", (double) b.divider())
        .result("actual", b.actual())
        .result("error", b.error())
        .result("budget", budget);
    if (!a.has("other") || a.number("other") == 0) {
      s.assume("the other end is right; 2 % for either is safe");
      return s.verdict(Math.abs(b.error()) <= Baud.SAFE ? Verdict.WITHIN : Verdict.OUT).done();
    }
    return s.verdict(apart <= budget ? Verdict.WITHIN : Verdict.OUT).done();
  }

  private static Worked line(Args a, Worked.Builder s) {
    double rise = Math.log(9) * a.number("resistance") * a.number("capacitance");
    double most = a.number("share") / rise;
    return s.line("t rise", "ln 9 · R · C", rise, Unit.SECOND)
        .line("baud", "share / t rise", most, "baud")
        .result("rise", rise)
        .result("maxBaud", most)
        .done();
  }

  private static Worked lamp(Args a, Worked.Builder s) {
    boolean ground = a.text("to").equals("ground");
    double supply = a.number("supply");
    double out = a.number("outputResistance");
    double through =
        Math.max(0, (supply - a.number("lampVolts")) / (out + a.number("lampResistance")));
    double level = ground ? supply - through * out : through * out;
    double limit = ground ? a.number("vih") : a.number("vil");
    boolean good = ground ? level >= limit : level <= limit;
    s.line("I lamp", "(supply − lamp) / (output + resistor), or none", through, Unit.AMPERE)
        .line(
            ground ? "high" : "low",
            ground ? "supply − I · output" : "I · output",
            level,
            Unit.VOLT)
        .result("level", level)
        .result("current", through)
        .assume("the output is a resistor; its data sheet says how much it can give");
    if (!good) {
      s.assume("ways out: a larger resistor, a lamp on a pin of its own, a buffer");
    }
    return s.verdict(good ? Verdict.WITHIN : Verdict.OUT).done();
  }

  private static Worked bus(Args a, Worked.Builder s) {
    double[] mode = MODES.get(a.text("mode"));
    double rise = a.has("riseTime") ? a.number("riseTime") : mode[0];
    double sinks = a.has("iol") ? a.number("iol") : mode[2];
    double bus = a.number("capacitance");
    TwoWireBus b;
    try {
      b = TwoWireBus.of(a.number("vdd"), a.number("vol"), sinks, bus, rise);
    } catch (IllegalArgumentException e) {
      throw new SheetProblem("bus.pullup: " + e.getMessage());
    }
    boolean fits = b.least() <= b.most();
    double r =
        a.has("resistance")
            ? a.number("resistance")
            : PreferredValue.nearest(fits ? Math.sqrt(b.least() * b.most()) : b.least(), SERIES);
    if (!a.has("resistance") && fits && (r < b.least() || r > b.most())) {
      r = Math.sqrt(b.least() * b.most());
    }
    double bears = Math.min(TwoWireBus.bears(r, rise), mode[1]);
    double longest = Math.max(0, (bears - bus) / a.number("cable"));
    // a slower clock has as much longer for an edge as its period is longer
    double edge = TwoWireBus.RISES * r * bus;
    boolean loaded = bus <= mode[1];
    double clock = clock(edge);
    s.line("Rp least", "(VDD − VOL) / IOL", b.least(), Unit.OHM)
        .line("Rp most", "t rise / (0.8473 · Cb)", b.most(), Unit.OHM)
        .line("Rp", a.has("resistance") ? "as fitted" : "between them", r, Unit.OHM)
        .line("cable", "(what Rp brings up in time − Cb) / C of a metre", longest, Unit.METRE)
        .line("edge", "0.8473 · Rp · Cb", edge, Unit.SECOND)
        .result("min", b.least())
        .result("max", b.most())
        .result("nearest", r)
        .result("longestCable", longest);
    if (clock > 0) {
      s.line("clock", "the fastest mode whose edge it keeps", clock, Unit.HERTZ)
          .result("slowestClock", clock);
    }
    if (!loaded) {
      s.line("load", "more than the mode allows", bus, Unit.FARAD);
    }
    boolean good = fits && loaded && r >= b.least() * (1 - 1e-9) && r <= b.most() * (1 + 1e-9);
    if (!good) {
      s.assume("ways out: a slower mode, a shorter cable, a buffer between two halves");
    }
    return s.verdict(good ? Verdict.WITHIN : Verdict.OUT).done();
  }

  private static double clock(double edge) {
    return edge <= 120e-9 ? 1e6 : edge <= 300e-9 ? 400e3 : edge <= 1e-6 ? 100e3 : 0;
  }

  private static Worked rise(Args a, Worked.Builder s) {
    double scope = 0.35 / a.number("bandwidth");
    double probe = a.has("probeBandwidth") ? 0.35 / a.number("probeBandwidth") : 0;
    double own = Math.hypot(scope, probe);
    double measured = a.number("measured");
    if (measured < own) {
      throw new SheetProblem(
          String.format(
              java.util.Locale.ROOT,
              "probe.rise: measured: the instrument alone shows %.3g s, and no edge is faster than"
                  + " that on it",
              own));
    }
    double real = Math.sqrt(measured * measured - own * own);
    s.line("instrument", "0.35 / bandwidth, squares added", own, Unit.SECOND)
        .line("t", "√(measured² − instrument²)", real, Unit.SECOND)
        .result("true", real)
        .result("instrument", own);
    if (measured < 1.4 * own) {
      s.assume("most of it is the instrument: the edge is known to be fast, and not how fast");
    }
    return s.done();
  }

  private static Worked load(Args a, Worked.Builder s) {
    double r = a.number("resistance");
    double source = a.number("source");
    double both = r * source / (r + source);
    double attenuation = r / (r + source);
    double band =
        both > 0 ? 1 / (2 * Math.PI * both * a.number("capacitance")) : Double.POSITIVE_INFINITY;
    s.line("divided", "R / (R + source)", attenuation, Unit.ONE).result("attenuation", attenuation);
    if (Double.isFinite(band)) {
      s.line("bandwidth", "1 / (2π · (R ∥ source) · C)", band, Unit.HERTZ)
          .line("its edge", "0.35 / bandwidth", 0.35 / band, Unit.SECOND)
          .result("bandwidth", band)
          .result("rise", 0.35 / band);
    }
    return s.assume("the ground lead is short; a long one rings").done();
  }
}
