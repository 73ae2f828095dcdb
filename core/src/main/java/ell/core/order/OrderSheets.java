package ell.core.order;

import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import java.util.List;

/// The stand-alone sheets of the order, `order.*`.
public final class OrderSheets {
  private OrderSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    return List.of(fallOff(), Schools.sheet());
  }

  private static Sheet fallOff() {
    return new Sheet(
        "order.falloff",
        "Whether a part hangs on through the second reflow",
        List.of(
            Input.number("massGrams", Unit.ONE).in(0, 1e4),
            Input.number("padAreaMm2", Unit.ONE).in(1e-6, 1e6)),
        List.of(),
        Sheet.results("ratio g/mm², limit g/mm², verdict"),
        List.of("common practice, no source: at most 30 g for each square inch of pad"),
        (a, s) -> {
          FallOff f = new FallOff(a.number("massGrams"), a.number("padAreaMm2"));
          return s.line(
                  "ratio", "massGrams / padAreaMm2", f.ratio(), Unit.GRAM_PER_SQUARE_MILLIMETRE)
              .line("limit", "30 g / (25.4 mm)²", FallOff.LIMIT, Unit.GRAM_PER_SQUARE_MILLIMETRE)
              .result("ratio", f.ratio())
              .result("limit", FallOff.LIMIT)
              .verdict(f.holds() ? Verdict.WITHIN : Verdict.OUT)
              .assume(
                  f.holds() ? "it stays: the limit is met" : "it may fall: glue it, or fit it last")
              .done();
        });
  }
}
