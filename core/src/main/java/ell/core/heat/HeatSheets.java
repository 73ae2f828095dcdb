package ell.core.heat;

import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// The stand-alone sheets of heat, `heat.*`.
public final class HeatSheets {
  private HeatSheets() {}

  /// Every sheet of this stage that needs no file.
  public static List<Sheet> all() {
    return List.of(thermocouple(), joint(), floorLife());
  }

  private static Sheet thermocouple() {
    return new Sheet(
        "heat.thermocouple",
        "Temperature of a thermocouple from its voltage",
        List.of(
            Input.choice("type", Map.of("k", "K"), "K").or("K"),
            Input.number("voltage", Unit.VOLT),
            Input.number("reference", Unit.CELSIUS).in(-270, 1372).or("0")),
        List.of(),
        Sheet.results("temperature °C"),
        List.of(
            "NIST Monograph 175, ITS-90 reference function of type K, coefficients from memory"),
        (a, s) -> {
          double t = Thermocouple.celsius(a.number("voltage"), a.number("reference"));
          double cold = Thermocouple.volts(a.number("reference"));
          return s.line("cold", "E(reference)", cold, Unit.VOLT)
              .line("E", "voltage + cold", a.number("voltage") + cold, Unit.VOLT)
              .line("T", "reference function inverted", t, Unit.CELSIUS)
              .result("temperature", t)
              .assume("a bare wire of standard composition; its own tolerance comes on top")
              .done();
        });
  }

  private static Sheet joint() {
    return new Sheet(
        "heat.joint",
        "Heat that a joint wants from the iron",
        List.of(
            Input.number("pad", Unit.METRE).in(1e-4, 0.05),
            Input.number("hole", Unit.METRE).in(0, 0.02).or("0"),
            Input.number("lead", Unit.METRE).in(0, 0.02).or("0.15mm"),
            Input.number("board", Unit.METRE).in(2e-4, 0.01).or("1.6mm"),
            Input.choice(
                    "tie",
                    Map.of("thermal", "spokes", "ground", "plane"),
                    "trace",
                    "spokes",
                    "plane")
                .or("trace"),
            Input.choice(
                    "tip", Map.of("chisel", "bevel", "cone", "needle"), "needle", "bevel", "blade")
                .or("bevel"),
            Input.choice(
                    "alloy",
                    Map.of("snpb", "sn63pb37", "sac", "sac305", "snbi", "sn42bi58"),
                    Alloy.keys().toArray(String[]::new))
                .or("sac305"),
            Input.number("dial", Unit.CELSIUS).in(100, 500).maybe(),
            Input.number("start", Unit.CELSIUS).in(-20, 200).or("25")),
        List.of(),
        Sheet.results(
            "capacity J/K, latent J, loss W/K, settles °C, time s, class, dial °C, verdict"),
        List.of(JointDemand.SOURCE),
        (a, s) -> {
          Alloy alloy = Alloy.of(a.text("alloy"));
          double dial = a.has("dial") ? a.number("dial") : JointDemand.dial(alloy, 0);
          JointDemand.Tip tip = JointDemand.Tip.valueOf(a.text("tip").toUpperCase(Locale.ROOT));
          JointDemand d =
              JointDemand.of(
                  new JointDemand.Body(
                      a.number("pad"),
                      a.number("hole"),
                      a.number("lead"),
                      a.number("board"),
                      JointDemand.Tie.valueOf(a.text("tie").toUpperCase(Locale.ROOT))),
                  alloy,
                  tip,
                  dial,
                  a.number("start"));
          return d.on(s, tip, dial, alloy)
              .result("capacity", d.capacity())
              .result("latent", d.latent())
              .result("loss", d.loss())
              .result("settles", d.settles())
              .result("time", Double.isInfinite(d.seconds()) ? "never" : d.seconds())
              .result("class", d.need().key())
              .result("dial", dial)
              .verdict(
                  switch (d.need()) {
                    case LIGHT, NORMAL -> Verdict.WITHIN;
                    case HEAVY -> Verdict.CLOSE;
                    case PREHEAT -> Verdict.OUT;
                  })
              .done();
        });
  }

  private static Sheet floorLife() {
    return new Sheet(
        "heat.floor-life",
        "How long parts may lie open before they are reflowed",
        List.of(
            Input.choice("level", Map.of(), FloorLife.levels().toArray(String[]::new)),
            Input.number("open", Unit.SECOND).in(0, 1e9)),
        List.of(),
        Sheet.results("left s, verdict"),
        List.of("J-STD-033 floor life at 30 °C, 60 % humidity, from memory"),
        (a, s) -> {
          FloorLife f = FloorLife.of(a.text("level"), a.number("open"));
          return f.on(s)
              .result("left", Double.isInfinite(f.left()) ? "unlimited" : f.left())
              .verdict(f.verdict())
              .done();
        });
  }
}
