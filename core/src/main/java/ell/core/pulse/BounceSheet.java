package ell.core.pulse;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Args;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The sheet `line.bounce`: a step on a line, at its source, its taps and its end.
final class BounceSheet {
  private static final int MOST_TAPS = 64;

  private BounceSheet() {}

  static Sheet sheet() {
    return new Sheet(
        "line.bounce",
        "A step on a line, and what arrives where",
        List.of(
            Input.number("swing", Unit.VOLT).in(1e-3, 1e4),
            Input.number("sourceResistance", Unit.OHM).in(0, 1e6),
            Input.number("seriesResistance", Unit.OHM).in(0, 1e6).or("0"),
            Input.number("z0", Unit.OHM).in(0.1, 1e4),
            Input.number("delay", Unit.SECOND).in(1e-13, 1),
            Input.words("taps", "0.33,0.66 or 1/3,2/3 (shares of the line)").or("none"),
            Input.number("lossPerPass", Unit.ONE).in(0, 0.99).or("0"),
            Input.number("riseTime", Unit.SECOND).in(0, 1).or("0"),
            Input.number("loadResistance", Unit.OHM).in(1e-3, 1e12).maybe(),
            Input.number("loadCapacitance", Unit.FARAD).in(0, 1e-3).or("0"),
            Input.number("clamp", Unit.VOLT).in(1e-3, 1e4).maybe(),
            Input.number("endResistance", Unit.OHM).in(0, 1e6).maybe(),
            Input.number("endCapacitance", Unit.FARAD).in(0, 1e-3).maybe(),
            Input.words("stubs", "0.5:200ps (share of the line, delay of the branch)").or("none"),
            Input.number("vil", Unit.VOLT).in(-1e4, 1e4).or("0.8"),
            Input.number("vih", Unit.VOLT).in(-1e4, 1e4).or("2.0"),
            Input.number("slowestEdge", Unit.SECOND_PER_VOLT).in(0, 1e3).or("10ns/V"),
            Input.number("vmax", Unit.VOLT).in(0, 1e5).maybe()),
        List.of(),
        Sheet.results("places, final V, window, verdict"),
        List.of(
            "reflections at both ends, added up (any text on transmission lines); in time by the"
                + " method of characteristics where the end is no resistor",
            "common practice, no source: thresholds 0.8 and 2.0 V, edges no slower than 10 ns/V"),
        BounceSheet::work);
  }

  private static Worked work(Args a, Worked.Builder s) {
    Bounce main =
        new Bounce(
            a.number("swing"),
            a.number("sourceResistance") + a.number("seriesResistance"),
            a.number("z0"),
            a.number("delay"),
            a.number("lossPerPass"),
            a.number("riseTime"),
            a.has("loadResistance") ? a.number("loadResistance") : Double.POSITIVE_INFINITY,
            a.number("loadCapacitance"),
            a.has("clamp") ? a.number("clamp") : Double.POSITIVE_INFINITY);
    Arrives.Input in;
    try {
      in =
          new Arrives.Input(
              a.number("vil"),
              a.number("vih"),
              a.number("slowestEdge"),
              a.has("vmax") ? a.number("vmax") : Double.POSITIVE_INFINITY);
    } catch (IllegalArgumentException e) {
      throw new SheetProblem("line.bounce: " + e.getMessage());
    }
    if (a.has("endResistance") != a.has("endCapacitance")) {
      throw new SheetProblem(
          "line.bounce: endResistance and endCapacitance stand in series at the end: say both; a"
              + " resistor alone is loadResistance");
    }
    OnLine b =
        BranchedLine.of(
            main,
            stubs(a.text("stubs"), main.z0()),
            a.has("endResistance") ? a.number("endResistance") : Double.POSITIVE_INFINITY,
            a.has("endCapacitance") ? a.number("endCapacitance") : 0);
    List<Double> at = places(a.text("taps"));
    if (!b.settles()) {
      throw new SheetProblem(
          "line.bounce: it does not settle within hundreds of passes of the line: say a source"
              + " resistance, a loss or a load that takes the wave up; or the edge or the load's"
              + " charge is so slow that the line does not count");
    }
    SeriesWindow reflected = SeriesWindow.of(b, a.number("sourceResistance"), at, in);
    List<Arrives> all = reflected.arrives();
    double z = b.z0();
    double last = b.at(List.of(1.0)).getFirst().last();
    s.line("first step", "swing · Z0 / (Z0 + R)", b.swing() * z / (z + main.source()), Unit.VOLT)
        .line(
            "from the source",
            "(R − Z0) / (R + Z0)",
            (main.source() - z) / (main.source() + z),
            Unit.ONE)
        .line("final", "where it settles", last, Unit.VOLT);
    List<Object> list = new ArrayList<>();
    boolean good = true;
    for (Arrives x : all) {
      good &= x.verdict() == Verdict.WITHIN;
      s.line(name(x.at()), says(x), x.verdict().words());
      Map<String, Object> one = new LinkedHashMap<>();
      one.put("at", x.at());
      one.put("peak", x.peak());
      one.put("dip", x.dip());
      if (Double.isFinite(x.dwell())) {
        one.put("dwell", x.dwell());
      }
      one.put("allowed", x.allowed());
      one.put("crossings", (double) x.crossings());
      one.put("settles", x.settles());
      one.put("verdict", x.verdict().key());
      list.add(one);
    }
    s.result("places", list).result("final", last);
    Optional<SeriesWindow.Range> window = reflected.range();
    if (window.isPresent()) {
      SeriesWindow.Range w = window.get();
      s.line(
          "series resistor",
          "every place is within from "
              + EngineeringNumber.print(w.low(), Unit.OHM, 3)
              + " to "
              + EngineeringNumber.print(w.high(), Unit.OHM, 3),
          w.nearest(),
          Unit.OHM);
      Map<String, Object> one = new LinkedHashMap<>();
      one.put("low", w.low());
      one.put("high", w.high());
      one.put("nearest", w.nearest());
      s.result("window", one);
    } else {
      s.line("series resistor", "tried from nothing to ten times Z0", "none is within everywhere");
    }
    if (!a.has("vmax")) {
      s.assume("nothing is said of what the inputs bear");
    }
    if (main.loss() > 0) {
      s.assume("the loss takes its share of what stays as well as of the edge");
    }
    s.assume("places are inputs that load the line with nothing");
    return s.verdict(good ? Verdict.WITHIN : Verdict.OUT).done();
  }

  private static List<Double> places(String taps) {
    List<Double> all = new ArrayList<>(List.of(0.0));
    if (!taps.isBlank() && !taps.equals("none")) {
      for (String one : taps.split(",")) {
        double at = share(one.strip());
        if (!(at >= 0 && at <= 1)) {
          throw new SheetProblem("line.bounce: taps: shares of the line in 0...1, found " + one);
        }
        if (!all.contains(at) && at != 1) {
          all.add(at);
        }
      }
    }
    if (all.size() > MOST_TAPS) {
      throw new SheetProblem("line.bounce: taps: at most " + MOST_TAPS);
    }
    all.add(1.0);
    return all;
  }

  private static List<BranchedLine.Stub> stubs(String text, double z0) {
    List<BranchedLine.Stub> all = new ArrayList<>();
    if (text.isBlank() || text.equals("none")) {
      return all;
    }
    for (String one : text.split(",")) {
      String[] two = one.strip().split(":");
      if (two.length != 2 || all.size() >= MOST_TAPS) {
        throw new SheetProblem(
            "line.bounce: stubs: expected such as 0.33:200ps, at most "
                + MOST_TAPS
                + ", found "
                + one);
      }
      try {
        all.add(
            new BranchedLine.Stub(
                share(two[0]), EngineeringNumber.parse(two[1], Unit.SECOND), z0, 0));
      } catch (IllegalArgumentException e) {
        throw new SheetProblem("line.bounce: stubs: " + e.getMessage());
      }
    }
    return all;
  }

  private static double share(String text) {
    try {
      int slash = text.indexOf('/');
      return slash < 0
          ? EngineeringNumber.parse(text, Unit.ONE)
          : EngineeringNumber.parse(text.substring(0, slash), Unit.ONE)
              / EngineeringNumber.parse(text.substring(slash + 1), Unit.ONE);
    } catch (NumberFormatException e) {
      throw new SheetProblem("line.bounce: taps: " + e.getMessage());
    }
  }

  private static String name(double at) {
    return at == 0
        ? "at the source"
        : at == 1 ? "at the end" : String.format(java.util.Locale.ROOT, "at %.3g", at);
  }

  private static String says(Arrives x) {
    return "peak "
        + EngineeringNumber.print(x.peak(), Unit.VOLT, 3)
        + ", falls back to "
        + EngineeringNumber.print(x.dip(), Unit.VOLT, 3)
        + (Double.isFinite(x.dwell())
            ? ", between the thresholds "
                + EngineeringNumber.print(x.dwell(), Unit.SECOND, 3)
                + " of "
                + EngineeringNumber.print(x.allowed(), Unit.SECOND, 3)
            : ", never high")
        + ", rises past the upper one "
        + x.crossings()
        + (x.crossings() == 1 ? " time" : " times");
  }
}
