package ell.core.power;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.power.RailBand.Part;
import ell.core.quantity.Unit;
import ell.core.sheet.Args;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.List;

/// The sheet `power.band`: where a regulator's output lies by the tolerances of what sets it.
final class BandSheet {
  private BandSheet() {}

  static Sheet sheet() {
    return new Sheet(
        "power.band",
        "Where a rail lies by tolerances",
        List.of(
            Input.number("reference", Unit.VOLT).in(1e-3, 1000),
            Input.percent("tolerance").in(0, 50).or("2"),
            Input.number("upper", Unit.OHM).in(0, 1e9).maybe(),
            Input.number("lower", Unit.OHM).in(1e-3, 1e9).maybe(),
            Input.percent("resistorTolerance").in(0, 50).or("1"),
            Input.number("current", Unit.AMPERE).in(0, 1000).or("0"),
            Input.number("resistance", Unit.OHM).in(0, 1e6).or("0")),
        List.of(),
        Sheet.results("nominal V, low V, high V, likelyLow V, likelyHigh V"),
        List.of(
            "output of a regulator with a divider: Vref·(1 + upper/lower), less I·R on the way",
            "intervals: each part at the end that moves the output most (it moves one way with each)",
            "20,000 boards from a seed, each part evenly in its tolerance; 95 of 100 lie within"),
        BandSheet::work);
  }

  private static Worked work(Args a, Worked.Builder s) {
    if (a.has("upper") != a.has("lower")) {
      throw new SheetProblem("power.band: a divider has both, upper and lower, or none");
    }
    double t = a.number("tolerance") / 100;
    double drop = a.number("current") * a.number("resistance");
    Part reference = new Part(a.number("reference"), t);
    RailBand b;
    if (a.has("upper")) {
      double rt = a.number("resistorTolerance") / 100;
      b =
          RailBand.of(
              x -> x[0] * (1 + x[1] / x[2]) - drop,
              reference,
              new Part(a.number("upper"), rt),
              new Part(a.number("lower"), rt));
      s.line(
          "V",
          "Vref · (1 + upper/lower) − I·R = "
              + print(a.number("reference"), Unit.VOLT)
              + " · (1 + "
              + print(a.number("upper"), Unit.OHM)
              + "/"
              + print(a.number("lower"), Unit.OHM)
              + ") − "
              + print(drop, Unit.VOLT, 3),
          b.nominal(),
          Unit.VOLT);
    } else {
      b = RailBand.of(x -> x[0] - drop, reference);
      s.line("V", "Vref − I·R", b.nominal(), Unit.VOLT);
    }
    return s.line("low", "every part at its worse end", b.low(), Unit.VOLT)
        .line("high", "every part at its other end", b.high(), Unit.VOLT)
        .line("likely low", "2.5 of 100 boards lie below", b.likelyLow(), Unit.VOLT)
        .line("likely high", "2.5 of 100 boards lie above", b.likelyHigh(), Unit.VOLT)
        .result("nominal", b.nominal())
        .result("low", b.low())
        .result("high", b.high())
        .result("likelyLow", b.likelyLow())
        .result("likelyHigh", b.likelyHigh())
        .assume("tolerances are ends, not deviations; nothing of temperature and age")
        .done();
  }
}
