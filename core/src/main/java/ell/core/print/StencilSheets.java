package ell.core.print;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.heat.Alloy;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import java.util.List;
import java.util.Map;

/// The stand-alone sheets of paste and stencil, `stencil.*`.
public final class StencilSheets {
  private static final Map<String, String> ALLOYS =
      Map.of("snpb", "sn63pb37", "leaded", "sn63pb37", "sac", "sac305", "snbi", "sn42bi58");

  private StencilSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    Input length = Input.number("length", Unit.METRE).in(1e-6, 1).maybe();
    return List.of(
        paste(),
        topUp(),
        sheet(),
        breakEven(),
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

  private static Sheet paste() {
    return new Sheet(
        "stencil.paste",
        "Paste and solder that an opening leaves",
        List.of(
            Input.number("length", Unit.METRE).in(1e-6, 1),
            Input.number("width", Unit.METRE).in(1e-6, 1),
            Input.number("thickness", Unit.METRE).in(1e-6, 0.01),
            Input.choice("alloy", ALLOYS, Alloy.keys().toArray(String[]::new)).or("sac305"),
            Input.number("metalMassFraction", Unit.ONE).in(0.01, 0.99).or("0.885"),
            Input.number("transfer", Unit.ONE).in(0, 1).maybe()),
        List.of(),
        Sheet.results("pasteVolume m³, solderVolume m³, pasteMass kg, transfer"),
        List.of(
            "geometry; densities of the alloys from memory of handbook tables; flux 1.0 g/cm³ and transfer typical, no source"),
        (a, s) -> {
          Aperture o = Aperture.rectangle(a.number("length"), a.number("width"));
          double t = a.number("thickness");
          Paste p = new Paste(Alloy.of(a.text("alloy")), a.number("metalMassFraction"), Paste.FLUX);
          double ratio = o.areaRatio(t);
          double transfer = a.has("transfer") ? a.number("transfer") : Paste.transfer(ratio);
          double volume = o.area() * t * transfer;
          return s.line("area ratio", "L·W / (2·T·(L + W))", ratio, Unit.ONE)
              .line(
                  "transfer",
                  a.has("transfer") ? "as given" : "0.9 from 0.75, straight through 0.5 at 0.5",
                  transfer,
                  Unit.ONE)
              .line("paste", "L·W·T · transfer", volume * 1e9, "mm³")
              .line(
                  "metal",
                  "(w/ρM) / (w/ρM + (1 − w)/ρF), ρM "
                      + print(p.alloy().density(), Unit.ONE)
                      + " kg/m³",
                  p.metalVolumeFraction(),
                  Unit.ONE)
              .line("solder", "paste · metal", volume * p.metalVolumeFraction() * 1e9, "mm³")
              .line(
                  "mass",
                  "paste · " + print(p.density(), Unit.ONE, 4) + " kg/m³",
                  volume * p.density() * 1e6,
                  "mg")
              .result("pasteVolume", volume)
              .result("solderVolume", volume * p.metalVolumeFraction())
              .result("pasteMass", volume * p.density())
              .result("transfer", transfer)
              .assume("flux " + print(Paste.FLUX, Unit.ONE) + " kg/m³; all flux leaves")
              .done();
        });
  }

  private static Sheet topUp() {
    return new Sheet(
        "stencil.topup",
        "A dot of paste by needle",
        List.of(
            Input.number("volume", Unit.CUBIC_METRE).in(1e-15, 1e-6),
            Input.number("needleBore", Unit.METRE).in(1e-5, 0.01)),
        List.of(),
        Sheet.results("domeDiameter m, threadLength m"),
        List.of("geometry: half ball π·d³/12, thread π·b²/4·l"),
        (a, s) -> {
          TopUp t = TopUp.of(a.number("volume"), a.number("needleBore"));
          return s.line("dome", "(12·V/π)^(1/3)", t.domeDiameter(), Unit.METRE)
              .line("thread", "V / (π·b²/4)", t.threadLength(), Unit.METRE)
              .result("domeDiameter", t.domeDiameter())
              .result("threadLength", t.threadLength())
              .assume("the dot stands as a half ball; the thread is as thick as the bore")
              .done();
        });
  }

  private static Sheet sheet() {
    return new Sheet(
        "stencil.sheet",
        "How many boards one stencil sheet serves",
        List.of(
            Input.number("sheetWidth", Unit.METRE).in(1e-3, 10),
            Input.number("sheetHeight", Unit.METRE).in(1e-3, 10),
            Input.number("boardWidth", Unit.METRE).in(1e-3, 10),
            Input.number("boardHeight", Unit.METRE).in(1e-3, 10),
            Input.number("margin", Unit.METRE).in(0, 1).or("20mm"),
            Input.number("gap", Unit.METRE).in(0, 1).or("5mm"),
            Input.number("price", Unit.ONE).in(0, 1e6).maybe(),
            Input.number("single", Unit.ONE).in(0, 1e6).maybe()),
        List.of(),
        Sheet.results("boards, turned, left m², perBoard, saved"),
        List.of("geometry; margin for hands and gap for the cut typical, no source"),
        (a, s) -> {
          SheetFit f =
              SheetFit.of(
                  a.number("sheetWidth"),
                  a.number("sheetHeight"),
                  a.number("boardWidth"),
                  a.number("boardHeight"),
                  a.number("margin"),
                  a.number("gap"));
          long turned = f.fields().stream().filter(SheetFit.Field::turned).count();
          s.line("boards", "fields that go on", f.boards(), Unit.ONE)
              .line("turned", "of them by a quarter", turned, Unit.ONE)
              .line("left", "sheet − fields", f.left() * 1e4, "cm²")
              .result("boards", (double) f.boards())
              .result("turned", (double) turned)
              .result("left", f.left());
          if (a.has("price") && f.boards() > 0) {
            s.line("per board", "price / boards", a.number("price") / f.boards(), Unit.ONE)
                .result("perBoard", a.number("price") / f.boards());
            if (a.has("single")) {
              s.line(
                      "saved",
                      "boards · single − price",
                      f.boards() * a.number("single") - a.number("price"),
                      Unit.ONE)
                  .result("saved", f.boards() * a.number("single") - a.number("price"));
            }
          }
          return s.assume("fields in one or two blocks, upright or turned by a quarter")
              .caution("Cutting leaves edges that are razor sharp: gloves, tape the edges, deburr.")
              .done();
        });
  }

  private static Sheet breakEven() {
    return new Sheet(
        "stencil.break-even",
        "From how many boards on a stencil pays",
        List.of(
            Input.number("stencilCost", Unit.ONE).in(0, 1e6),
            Input.number("dotSeconds", Unit.SECOND).in(0, 1e6),
            Input.number("printSeconds", Unit.SECOND).in(0, 1e6).or("240s"),
            Input.number("hour", Unit.ONE).in(0.01, 1e6)),
        List.of(),
        Sheet.results("boards"),
        List.of("common practice, no source: time saved on each board against the price"),
        (a, s) -> {
          SyringePlan p = new SyringePlan(List.of(), a.number("dotSeconds"), 0);
          var n = p.breakEven(a.number("stencilCost"), a.number("printSeconds"), a.number("hour"));
          s.line(
              "saved",
              "(by needle − by print) · hour",
              (a.number("dotSeconds") - a.number("printSeconds")) / 3600 * a.number("hour"),
              Unit.ONE);
          if (n.isEmpty()) {
            return s.line("boards", "price / saved", "never: the needle is as quick")
                .result("boards", "never")
                .done();
          }
          return s.line("boards", "price / saved", n.getAsDouble(), Unit.ONE)
              .result("boards", n.getAsDouble())
              .assume("an hour at the bench is worth " + print(a.number("hour"), Unit.ONE))
              .done();
        });
  }
}
