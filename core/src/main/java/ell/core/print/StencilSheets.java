package ell.core.print;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import java.util.List;

/// The stand-alone sheets of paste and stencil, `stencil.*`.
public final class StencilSheets {
  private StencilSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    Input length = Input.number("length", Unit.METRE).in(1e-6, 1).maybe();
    return List.of(
        new Sheet(
            "stencil.area-ratio",
            "Will the paste release from this opening",
            List.of(
                length,
                Input.number("width", Unit.METRE).in(1e-6, 1).maybe(),
                Input.number("diameter", Unit.METRE).in(1e-6, 1).maybe(),
                Input.number("thickness", Unit.METRE).in(1e-6, 0.01)),
            List.of(List.of("length", "width"), List.of("diameter")),
            Sheet.results("areaRatio, aspectRatio, verdict"),
            List.of(
                "IPC-7525: area ratio from 0.66, aspect ratio from 1.5 when the length is above five widths"),
            (a, s) -> {
              Aperture o =
                  a.has("diameter")
                      ? Aperture.circle(a.number("diameter"))
                      : Aperture.rectangle(a.number("length"), a.number("width"));
              double t = a.number("thickness");
              String deciding =
                  o.aspectDecides() ? "aspect ratio, length above 5 widths" : "area ratio";
              double thickest =
                  o.aspectDecides()
                      ? o.narrowest() / Aperture.GOOD_ASPECT_RATIO
                      : o.area() / (o.perimeter() * Aperture.GOOD_AREA_RATIO);
              return s.line(
                      "area ratio",
                      a.has("diameter") ? "D / (4·T)" : "L·W / (2·T·(L + W))",
                      o.areaRatio(t),
                      Unit.ONE)
                  .line("aspect ratio", "narrowest / T", o.aspectRatio(t), Unit.ONE)
                  .line("decides", "L > 5·W?", deciding)
                  .line("thickest foil", "that still releases well", thickest, Unit.METRE)
                  .result("areaRatio", o.areaRatio(t))
                  .result("aspectRatio", o.aspectRatio(t))
                  .assume("smooth walls; foil thickness " + print(t, Unit.METRE))
                  .caution("Cut foil edges are razor sharp: gloves, and deburr before use.")
                  .verdict(o.releases(t) ? Verdict.WITHIN : Verdict.OUT)
                  .done();
            }));
  }
}
