package ell.core.kit;

import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import java.util.List;

/// The stand-alone sheets of the kit, `kit.*`.
public final class KitSheets {
  private KitSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    return List.of(need(), landed());
  }

  private static Sheet need() {
    return new Sheet(
        "kit.need",
        "Parts to have for a build",
        List.of(
            Input.whole("boards").in(1, 1e6),
            Input.whole("perBoard").in(0, 1e6),
            Input.number("rate", Unit.ONE).in(0, 1).or("0"),
            Input.whole("minimum").in(0, 1e6).or("0")),
        List.of(),
        Sheet.results("need, attrition"),
        List.of("common practice, no source: attrition is the larger of a rate and a minimum"),
        (a, s) -> {
          Attrition rule = new Attrition(a.number("rate"), a.whole("minimum"));
          long quantity = a.whole("boards") * a.whole("perBoard");
          long extra = rule.extra(quantity);
          return s.line("quantity", "boards · perBoard", quantity, Unit.ONE)
              .line("attrition", "max(rate · quantity rounded up, minimum)", extra, Unit.ONE)
              .line("need", "quantity + attrition", quantity + extra, Unit.ONE)
              .result("need", (double) (quantity + extra))
              .result("attrition", (double) extra)
              .done();
        });
  }

  private static Sheet landed() {
    return new Sheet(
        "kit.landed",
        "What a good board costs, everything in it",
        List.of(
            Input.number("boardCost", Unit.ONE).in(0, 1e9),
            Input.number("stencilCost", Unit.ONE).in(0, 1e9).or("0"),
            Input.number("partsCost", Unit.ONE).in(0, 1e9),
            Input.number("shipping", Unit.ONE).in(0, 1e9).or("0"),
            Input.whole("boards").in(1, 1e6),
            Input.number("yield", Unit.ONE).in(0.001, 1).or("1")),
        List.of(),
        Sheet.results("perGoodBoard, total, goodBoards"),
        List.of(
            "common practice, no source: everything that was paid, over the boards that are good"),
        (a, s) -> {
          Landed l =
              Landed.of(
                  a.number("boardCost"),
                  a.number("stencilCost"),
                  a.number("partsCost"),
                  a.number("shipping"),
                  a.whole("boards"),
                  a.number("yield"));
          return l.on(s)
              .assume("boardCost and partsCost are of the whole build, losses counted")
              .done();
        });
  }
}
