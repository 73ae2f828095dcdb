package ell.core.power;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.quantity.Unit;
import ell.core.sheet.Args;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.List;

/// The sheet `chain.supply`: volts along a chain of equal elements.
final class ChainSheet {
  private ChainSheet() {}

  static Sheet sheet() {
    return new Sheet(
        "chain.supply",
        "Volts along a chain of equal elements",
        List.of(
            Input.whole("elements").in(1, 100_000),
            Input.number("current", Unit.AMPERE).in(0, 1000),
            Input.number("resistancePerSegment", Unit.OHM).in(0, 1e6),
            Input.number("supply", Unit.VOLT).in(0, 1000),
            Input.number("least", Unit.VOLT).in(0, 1000).maybe()),
        List.of(),
        Sheet.results("lastVoltage V, totalCurrent A, loss W, feedAgainAfter"),
        List.of("Ohm's law and Kirchhoff's current law: segment j carries (n − j + 1)·I"),
        ChainSheet::work);
  }

  private static Worked work(Args a, Worked.Builder s) {
    Chain c =
        new Chain(
            (int) a.whole("elements"),
            a.number("current"),
            a.number("resistancePerSegment"),
            a.number("supply"));
    if (c.last() < 0) {
      throw new SheetProblem(
          "chain.supply: so many elements cannot be fed from one end: the line would drop "
              + print(c.supply() - c.last(), Unit.VOLT, 3)
              + " of "
              + print(c.supply(), Unit.VOLT, 3)
              + "; feed again after at most "
              + c.longest(0)
              + " elements");
    }
    s.line("Itotal", "n · I", c.total(), Unit.AMPERE)
        .line(
            "drop",
            "I · r · n·(n + 1)/2 = "
                + print(c.current(), Unit.AMPERE)
                + " · "
                + print(c.segmentOhms(), Unit.OHM)
                + " · "
                + c.elements()
                + "·"
                + (c.elements() + 1)
                + "/2",
            c.supply() - c.last(),
            Unit.VOLT)
        .line("Vlast", "supply − drop", c.last(), Unit.VOLT)
        .line("loss", "I² · r · n·(n + 1)·(2n + 1)/6", c.loss(), Unit.WATT)
        .result("lastVoltage", c.last())
        .result("totalCurrent", c.total())
        .result("loss", c.loss());
    if (a.has("least")) {
      int n = c.longest(a.number("least"));
      s.line(
              "feed again after",
              "the longest chain whose last one has the least volts",
              n,
              Unit.ONE)
          .result("feedAgainAfter", (double) n);
    }
    return s.assume("each element draws the same current at any volts")
        .assume("the resistance of a segment is that of the way there and back")
        .caution("Many small currents add up: look at the supply, its fuse and the first segment.")
        .done();
  }
}
