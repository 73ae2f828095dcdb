package ell.core.beep;

import ell.core.power.Copper;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import java.util.List;

/// The stand-alone sheets of beeping, `beep.*`.
public final class BeepSheets {
  private BeepSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    return List.of(
        new Sheet(
            "beep.capacitor",
            "How long a charging capacitor beeps",
            List.of(
                Input.number("capacitance", Unit.FARAD).in(0, 1000),
                Input.words("threshold", "40ohm, where the beeper stops, or 40mV").or("40ohm"),
                Input.number("testCurrent", Unit.AMPERE).in(1e-9, 10).or("1mA")),
            List.of(),
            Sheet.results("time s"),
            List.of("definition of capacitance: t = C·V/I"),
            (a, s) -> {
              double i = a.number("testCurrent");
              Quantity q;
              try {
                q = EngineeringNumber.read(a.text("threshold"), Unit.OHM);
              } catch (NumberFormatException e) {
                throw new SheetProblem("threshold: " + e.getMessage());
              }
              if (q.unit() != Unit.OHM && q.unit() != Unit.VOLT || q.value() < 0) {
                throw new SheetProblem(
                    "threshold takes ohms or volts, not below 0, found '"
                        + a.text("threshold")
                        + "'");
              }
              double v = q.unit() == Unit.VOLT ? q.value() : q.value() * i;
              double t = a.number("capacitance") * v / i;
              return s.line(
                      "V", q.unit() == Unit.VOLT ? "as given" : "R beep · I test", v, Unit.VOLT)
                  .line("t", "C · V / I", t, Unit.SECOND)
                  .result("time", t)
                  .assume("the capacitor starts empty; the meter feeds a steady current")
                  .done();
            }),
        new Sheet(
            "beep.sheet",
            "Resistance of a strip of copper",
            List.of(
                Input.number("length", Unit.METRE).in(0, 100),
                Input.number("width", Unit.METRE).in(1e-6, 10),
                Input.number("thickness", Unit.METRE).in(1e-7, 0.01).or("35um")),
            List.of(),
            Sheet.results("resistance Ω, perSquare Ω"),
            List.of("International Annealed Copper Standard (IEC 60028): 1.7241e-8 Ω·m at 20 °C"),
            (a, s) -> {
              double square = Copper.RESISTIVITY / a.number("thickness");
              double r = square * a.number("length") / a.number("width");
              return s.line("per square", "ρ / thickness", square, Unit.OHM)
                  .line("R", "per square · length / width", r, Unit.OHM)
                  .result("resistance", r)
                  .result("perSquare", square)
                  .assume("current spreads evenly over the width")
                  .done();
            }));
  }
}
