package ell.core.power;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.quantity.Accuracy;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.PreferredValue;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Args;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.List;
import java.util.Map;

/// The stand-alone sheets of first power and rails, `power.*` and `chain.supply`.
public final class PowerSheets {
  private static final String CONSERVATION = "conservation of energy (any circuits textbook)";
  private static final String HOT = "A part this warm burns skin: do not touch it to check.";

  private PowerSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    return List.of(
        BandSheet.sheet(),
        ChainSheet.sheet(),
        ChargeSheet.sheet(),
        RippleSheet.sheet(),
        new Sheet(
            "power.linear",
            "Heat and headroom of a linear regulator",
            List.of(
                Input.number("vin", Unit.VOLT).in(0, 1000),
                Input.number("vout", Unit.VOLT).in(0, 1000),
                Input.number("current", Unit.AMPERE).in(0, 1000),
                Input.number("theta", Unit.KELVIN_PER_WATT).in(0, 1000),
                Input.number("ambient", Unit.CELSIUS).in(-60, 200).or("25")),
            List.of(),
            Sheet.results("dissipation W, junction °C, headroom V"),
            List.of(CONSERVATION, "Ohm's law of heat: Tj = Ta + θ·P (JEDEC JESD51)"),
            PowerSheets::linear),
        new Sheet(
            "power.switching",
            "Input current and heat of a switching regulator",
            List.of(
                Input.number("vin", Unit.VOLT).in(1e-3, 1000),
                Input.number("vout", Unit.VOLT).in(0, 1000),
                Input.number("current", Unit.AMPERE).in(0, 1000),
                Input.number("efficiency", Unit.ONE).in(0.01, 1).or("0.88")),
            List.of(),
            Sheet.results("inputCurrent A, dissipation W"),
            List.of(CONSERVATION),
            PowerSheets::switching),
        new Sheet(
            "power.inrush",
            "Charging current of the capacitors on a rail",
            List.of(
                Input.number("capacitance", Unit.FARAD).in(0, 1000),
                Input.number("voltage", Unit.VOLT).in(0, 1000),
                Input.number("riseTime", Unit.SECOND).in(1e-9, 3600)),
            List.of(),
            Sheet.results("current A, energy J"),
            List.of("definition of capacitance: I = C·dV/dt, W = C·V²/2"),
            PowerSheets::inrush),
        new Sheet(
            "power.limit",
            "Current limit for first power",
            List.of(
                Input.number("current", Unit.AMPERE).in(0, 1000),
                Input.number("capacitance", Unit.FARAD).in(0, 1000).or("0"),
                Input.number("voltage", Unit.VOLT).in(0, 1000).or("0"),
                Input.number("riseTime", Unit.SECOND).in(1e-9, 3600).or("5ms"),
                Input.number("factor", Unit.ONE).in(1, 10).or("1.2"),
                Input.number("step", Unit.AMPERE).in(1e-6, 10).or("10mA"),
                Input.number("weakest", Unit.AMPERE).in(0, 1000).maybe()),
            List.of(),
            Sheet.results("charging A, limit A"),
            List.of("common practice, no source: expected plus charging current, times 1.2"),
            PowerSheets::limit),
        new Sheet(
            "power.battery",
            "Hours from a cell",
            List.of(
                Input.number("capacity", Unit.COULOMB).in(0, 1e9),
                Input.number("usable", Unit.ONE).in(0, 1).or("1"),
                Input.words("states", "40mA:0.02,1.38mA:0.98 (current:share of the time)")),
            List.of(),
            Sheet.results("hours h, current A"),
            List.of("charge over mean current"),
            PowerSheets::battery),
        new Sheet(
            "power.led",
            "Resistor for an indicator lamp",
            List.of(
                Input.number("supply", Unit.VOLT).in(0, 1000),
                Input.number("forward", Unit.VOLT).in(0, 1000),
                Input.number("current", Unit.AMPERE).in(1e-9, 100),
                Input.choice(
                        "series",
                        Map.of(
                            "e3", "3", "e6", "6", "e12", "12", "e24", "24", "e48", "48", "e96",
                            "96", "e192", "192"),
                        "3",
                        "6",
                        "12",
                        "24",
                        "48",
                        "96",
                        "192")
                    .or("24")),
            List.of(),
            Sheet.results("resistance Ω, nearest Ω, power W, actualCurrent A"),
            List.of("Ohm's law", "IEC 60063 preferred numbers"),
            PowerSheets::led),
        new Sheet(
            "power.trace-width",
            "Width of a trace for a current",
            List.of(
                Input.number("current", Unit.AMPERE).in(1e-6, 100),
                Input.number("rise", Unit.KELVIN).in(0.1, 200).or("10"),
                Input.number("thickness", Unit.METRE).in(1e-6, 1e-3).or("35um"),
                Input.choice(
                        "layer",
                        Map.of(
                            "external",
                            "outside",
                            "outer",
                            "outside",
                            "internal",
                            "inside",
                            "inner",
                            "inside"),
                        "outside",
                        "inside")
                    .or("outside")),
            List.of(),
            Sheet.results("width m, area m²"),
            List.of("IPC-2221, 6.2: I = k·ΔT^0.44·A^0.725, k 0.048 outside, 0.024 inside"),
            PowerSheets::traceWidth),
        new Sheet(
            "power.wire-drop",
            "Voltage lost in a wire",
            List.of(
                Input.number("gauge", Unit.ONE).in(-3, 56).maybe(),
                Input.number("area", Unit.SQUARE_METRE).in(1e-12, 1).maybe(),
                Input.number("length", Unit.METRE).in(0, 1e5),
                Input.number("current", Unit.AMPERE).in(0, 1e4)),
            List.of(List.of("gauge"), List.of("area")),
            Sheet.results("drop V, loss W, resistance Ω"),
            List.of("ASTM B258 wire sizes", "International Annealed Copper Standard (IEC 60028)"),
            PowerSheets::wireDrop),
        new Sheet(
            "power.verdict",
            "Verdict on a reading with its meter",
            List.of(
                Input.number("reading", Unit.VOLT),
                Input.number("low", Unit.VOLT),
                Input.number("high", Unit.VOLT),
                Input.percent("percent").in(0, 100).or("0.5"),
                Input.number("digits", Unit.ONE).in(0, 1e4).or("2"),
                Input.number("resolution", Unit.VOLT).in(0, 1000).or("1mV")),
            List.of(),
            Sheet.results("uncertainty V, verdict"),
            List.of("JCGM 106:2012, 8.3: guarded acceptance and rejection, guard band w = U"),
            PowerSheets::verdict));
  }

  private static Worked linear(Args a, Worked.Builder s) {
    double vin = a.number("vin");
    double vout = a.number("vout");
    if (vin < vout) {
      throw new SheetProblem(
          "power.linear: vin must not be below vout; a linear regulator only steps down, got vin "
              + print(vin, Unit.VOLT)
              + " and vout "
              + print(vout, Unit.VOLT));
    }
    double i = a.number("current");
    var r = Supplies.linear(vin, vout, i, 0);
    double tj = Supplies.junction(a.number("ambient"), a.number("theta"), r.dissipation());
    return s.line(
            "headroom",
            "vin − vout = " + print(vin, Unit.VOLT) + " − " + print(vout, Unit.VOLT),
            vin - vout,
            Unit.VOLT)
        .line(
            "P",
            "headroom · current = "
                + print(vin - vout, Unit.VOLT, 4)
                + " · "
                + print(i, Unit.AMPERE),
            r.dissipation(),
            Unit.WATT)
        .line(
            "Tj",
            "ambient + theta · P = "
                + print(a.number("ambient"), Unit.CELSIUS)
                + " + "
                + print(a.number("theta"), Unit.KELVIN_PER_WATT)
                + " · "
                + print(r.dissipation(), Unit.WATT, 4),
            tj,
            Unit.CELSIUS)
        .result("dissipation", r.dissipation())
        .result("junction", tj)
        .result("headroom", vin - vout)
        .assume(
            "the regulator's own current is left out; theta holds for the copper that the data sheet names")
        .caution(HOT)
        .done();
  }

  private static Worked switching(Args a, Worked.Builder s) {
    double vin = a.number("vin");
    double out = a.number("vout") * a.number("current");
    var r = Supplies.switching(vin, a.number("vout"), a.number("current"), a.number("efficiency"));
    return s.line("Pout", "vout · current", out, Unit.WATT)
        .line("Iin", "Pout / (efficiency · vin)", r.inputCurrent(), Unit.AMPERE)
        .line("P", "Pout / efficiency − Pout", r.dissipation(), Unit.WATT)
        .result("inputCurrent", r.inputCurrent())
        .result("dissipation", r.dissipation())
        .assume("efficiency holds at this load; light loads are worse")
        .done();
  }

  private static Worked inrush(Args a, Worked.Builder s) {
    double c = a.number("capacitance");
    double v = a.number("voltage");
    double i = Supplies.chargingCurrent(c, v, a.number("riseTime"));
    double w = Supplies.energy(c, v);
    return s.line(
            "I",
            "C · V / t = "
                + print(c, Unit.FARAD)
                + " · "
                + print(v, Unit.VOLT)
                + " / "
                + print(a.number("riseTime"), Unit.SECOND),
            i,
            Unit.AMPERE)
        .line("W", "C · V² / 2", w, Unit.JOULE)
        .result("current", i)
        .result("energy", w)
        .assume("the voltage rises evenly")
        .caution(
            "Charged capacitors hold this energy after the supply is off: discharge through a resistor.")
        .done();
  }

  private static Worked limit(Args a, Worked.Builder s) {
    double weakest = a.has("weakest") ? a.number("weakest") : Double.POSITIVE_INFINITY;
    SupplyLimit l =
        SupplyLimit.of(
            a.number("current"),
            Supplies.chargingCurrent(
                a.number("capacitance"), a.number("voltage"), a.number("riseTime")),
            a.number("factor"),
            a.number("step"),
            weakest);
    l.lines(s);
    return s.result("charging", l.charging())
        .result("limit", l.limit())
        .assume("the weakest part in the path decides when it bears less")
        .done();
  }

  private static Worked battery(Args a, Worked.Builder s) {
    double mean = 0;
    double shares = 0;
    for (String state : a.text("states").split("[,;]")) {
      String[] parts = state.strip().split("\\s*[:@*]\\s*");
      Double current = null;
      Double share = null;
      for (String part : parts) {
        try {
          Quantity q = EngineeringNumber.read(part, Unit.ONE);
          if (q.unit() == Unit.AMPERE || q.unit() == Unit.ONE && current == null) {
            current = q.value();
          } else if (q.unit() == Unit.ONE) {
            share = q.value();
          }
        } catch (NumberFormatException e) {
          if (part.equals(parts[0]) && parts.length > 1) {
            continue; // a state may be named first, as in asleep:1.38mA:0.98
          }
          throw statesProblem(state);
        }
      }
      if (current == null || current < 0 || share != null && (share < 0 || share > 1)) {
        throw statesProblem(state);
      }
      double w = share == null ? 1 : share;
      mean += current * w;
      shares += w;
      s.line("I·share", state.strip(), current * w, Unit.AMPERE);
    }
    if (Math.abs(shares - 1) > 0.001) {
      throw new SheetProblem(
          "power.battery: states: the shares of the time add up to "
              + print(shares, Unit.ONE, 4)
              + ", expected 1");
    }
    if (!(mean > 0)) {
      throw new SheetProblem("power.battery: states: the mean current must be above 0");
    }
    double hours = a.number("capacity") * a.number("usable") / mean / 3600;
    return s.line("Imean", "sum of current · share", mean, Unit.AMPERE)
        .line("t", "capacity · usable / Imean", hours, "h")
        .line("to double it", "Imean / 2", mean / 2, Unit.AMPERE)
        .result("hours", hours)
        .result("current", mean)
        .assume("capacity as its data sheet says for this load and temperature")
        .caution(
            "Lithium cells: never unattended on charge, never as the source of first power; the cell's data sheet decides.")
        .done();
  }

  private static SheetProblem statesProblem(String state) {
    return new SheetProblem(
        "power.battery: states: expected current:share such as 1.38mA:0.98, found '"
            + state.strip()
            + "'");
  }

  private static Worked led(Args a, Worked.Builder s) {
    double over = a.number("supply") - a.number("forward");
    if (!(over > 0)) {
      throw new SheetProblem(
          "power.led: supply must be above forward, got "
              + print(a.number("supply"), Unit.VOLT)
              + " and "
              + print(a.number("forward"), Unit.VOLT));
    }
    double r = over / a.number("current");
    double nearest = PreferredValue.nearest(r, Integer.parseInt(a.text("series")));
    double actual = over / nearest;
    return s.line("R", "(supply − forward) / current", r, Unit.OHM)
        .line("nearest", "E" + a.text("series") + " value nearest to R", nearest, Unit.OHM)
        .line("I", "(supply − forward) / nearest", actual, Unit.AMPERE)
        .line("P", "I² · nearest", actual * actual * nearest, Unit.WATT)
        .result("resistance", r)
        .result("nearest", nearest)
        .result("power", actual * actual * nearest)
        .result("actualCurrent", actual)
        .assume("forward voltage as the data sheet says at this current")
        .done();
  }

  private static Worked traceWidth(Args a, Worked.Builder s) {
    double area =
        Copper.traceArea(a.number("current"), a.number("rise"), a.text("layer").equals("outside"));
    double width = area / a.number("thickness");
    return s.line(
            "A",
            "(I / (k · ΔT^0.44))^(1/0.725), k "
                + (a.text("layer").equals("outside") ? "0.048" : "0.024"),
            area / 645.16e-12,
            "mil²")
        .line("width", "A / thickness", width, Unit.METRE)
        .line("width", "in mil", width / 25.4e-6, "mil")
        .result("width", width)
        .result("area", area)
        .assume("a long single trace in still air, no plane near it")
        .done();
  }

  private static Worked wireDrop(Args a, Worked.Builder s) {
    double area =
        a.has("area") ? a.number("area") : Copper.roundArea(Copper.awgDiameter(a.number("gauge")));
    double r = Copper.resistance(a.number("length"), area);
    double i = a.number("current");
    return s.line(
            "area",
            a.has("area") ? "as given" : "π/4 · (0.127 mm · 92^((36 − n)/39))²",
            area * 1e6,
            "mm²")
        .line("R", "1.7241e-8 Ω·m · length / area", r, Unit.OHM)
        .line("drop", "I · R", i * r, Unit.VOLT)
        .line("loss", "I² · R", i * i * r, Unit.WATT)
        .result("drop", i * r)
        .result("loss", i * i * r)
        .result("resistance", r)
        .assume(
            "length is that of the copper: count the way there and back; annealed copper at 20 °C")
        .done();
  }

  private static Worked verdict(Args a, Worked.Builder s) {
    double low = a.number("low");
    double high = a.number("high");
    if (low > high) {
      throw new SheetProblem(
          "power.verdict: low must not be above high, got "
              + print(low, Unit.VOLT)
              + " and "
              + print(high, Unit.VOLT));
    }
    double reading = a.number("reading");
    Accuracy meter =
        new Accuracy(a.number("percent") / 100, a.number("digits"), a.number("resolution"));
    double u = meter.uncertainty(reading);
    Limits limits = new Limits(low, high);
    Verdict v = limits.judge(reading, u);
    s.line(
            "U",
            meter
                + " = "
                + print(a.number("percent"), Unit.ONE)
                + " % · |reading| + digits · resolution",
            u,
            Unit.VOLT)
        .line(
            "accept",
            "low + U ... high − U",
            new Limits(Math.min(low + u, high - u), Math.max(low + u, high - u)).text(Unit.VOLT, 4))
        .line("verdict", "reading ± U against low...high", v.words())
        .result("uncertainty", u);
    if (v == Verdict.CLOSE) {
      double room = Math.min(Math.abs(reading - low), Math.abs(high - reading));
      s.line("settled by", "a range or meter with U below", room, Unit.VOLT);
    }
    return s.verdict(v)
        .assume("the data sheet's largest error is taken as the expanded uncertainty")
        .done();
  }
}
