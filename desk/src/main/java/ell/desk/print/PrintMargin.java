package ell.desk.print;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.entry.PasteLook;
import ell.core.heat.Alloy;
import ell.core.print.JarClock;
import ell.core.print.Paste;
import ell.core.print.PrintFacts;
import ell.core.print.SheetFit;
import ell.core.print.StencilCheck;
import ell.core.print.SyringePlan;
import ell.core.print.TopUp;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/// What the margin says at the print: the opening, the jar, the needle or the sheet of foil, what
/// to take care of, and how a pad that lacks paste is topped up.
final class PrintMargin {
  private static final double BORE = 0.41e-3;

  private final PrintModel.Shown s;
  private final Function<JarClock, Worked> jars;

  /// @param jars makes the sheet of a jar
  PrintMargin(PrintModel.Shown s, Function<JarClock, Worked> jars) {
    this.s = s;
    this.jars = jars;
  }

  /// Says it.
  ///
  /// @param sheet 0 the opening, 1 the jar, 2 the needle, 3 the sheet of foil
  Margin say(int sheet) {
    Optional<Worked> working =
        switch (sheet) {
          case 1 -> s.jar().map(j -> jars.apply(j));
          case 2 -> Optional.of(needle());
          case 3 -> Optional.of(onSheet());
          default ->
              s.check()
                  .flatMap(c -> s.line().map(c::sheet))
                  .or(() -> s.needle().map(_ -> needle()));
        };
    List<Margin.Note> notes = new ArrayList<>();
    if (sheet == 0) {
      s.line().ifPresent(l -> topUp(l).ifPresent(t -> notes.add(t)));
    }
    notes.add(
        Margin.Note.plain(
            "One pass",
            List.of(
                "Board between scraps of its own thickness, foil taped on one edge.",
                "Card at 45°, one pass, lift straight up.",
                "An empty pad gets a dot by needle; a smear is wiped off whole and printed again.")));
    notes.add(
        Margin.Note.care(
            List.of(
                "Cut foil edges are razor sharp: gloves.",
                "Paste holds flux and metal, some of it lead: no food here, wash hands; its data sheet decides.",
                "Solvent burns: not near the hot plate.")));
    notes.add(
        Margin.Note.wrong(
            List.of(
                "bridged at fine pins: wipe the foil from both sides, print again",
                "thin or missing: look through the holes, they clog; press harder on the card",
                "smeared: the board moved or the foil was not lifted straight")));
    return new Margin(working, notes);
  }

  private Optional<Margin.Note> topUp(StencilCheck.Line l) {
    PasteLook look = PrintFacts.of(s.work().state()).paste().get(l.opening().name());
    if (look != PasteLook.MISSING && look != PasteLook.THIN) {
      return Optional.empty();
    }
    // a thin pad is taken to lack half of what a good print leaves
    double volume = look == PasteLook.THIN ? l.volume() / 2 : l.volume();
    if (volume <= 0) {
      return Optional.empty();
    }
    TopUp t = TopUp.of(volume, BORE);
    return Optional.of(
        Margin.Note.plain(
            "Top up " + l.opening().name(),
            List.of(
                "a dot " + print(t.domeDiameter(), Unit.METRE, 2) + " across, or",
                print(t.threadLength(), Unit.METRE, 2)
                    + " of thread from a "
                    + print(BORE, Unit.METRE, 2)
                    + " needle")));
  }

  private Worked needle() {
    SyringePlan p =
        SyringePlan.of(
            s.work().plan().revision(), s.side(), Paste.of(Alloy.of(s.work().build().alloy())));
    double stencil = 25;
    double hour = 20;
    var n = p.breakEven(stencil, 240, hour);
    Worked.Builder b =
        Worked.of("stencil.break-even", "By needle instead of by stencil")
            .line(
                "dots",
                "surface joints of the " + s.side().key() + " side",
                p.dots().size(),
                Unit.ONE)
            .line("way", "from pad to pad, shortened", p.wayMm() * 1e-3, Unit.METRE)
            .line("time", "2.5 s a dot, 0.03 s a millimetre", p.seconds() / 60, "min a board")
            .line(
                "stencil pays",
                "price 25 / (time saved · 20 an hour)",
                n.isPresent()
                    ? "from " + (int) Math.ceil(n.getAsDouble()) + " boards on"
                    : "never");
    p.dots().stream()
        .limit(6)
        .forEach(d -> b.line(d.joint().place(), "paste of this dot", d.paste() * 1e9, "mm³"));
    return b.source("common practice, no source: times and prices typical")
        .assume("a print takes 4 min, wiping and looking through included; first six dots shown")
        .done();
  }

  private Worked onSheet() {
    double[] b = s.work().plan().revision().boxMm();
    double w = (b[2] - b[0] + 40) * 1e-3;
    double h = (b[3] - b[1] + 40) * 1e-3;
    SheetFit f = SheetFit.of(0.30, 0.40, w, h, 0.01, 0.004);
    return Worked.of("stencil.sheet", "Boards on one stencil sheet")
        .line(
            "field",
            "board and 20 mm for hands all round",
            print(w, Unit.METRE, 3) + " × " + print(h, Unit.METRE, 3))
        .line("sheet", "typical", "300 × 400 mm")
        .line("boards", "in one or two blocks, turned where it helps", f.boards(), Unit.ONE)
        .line(
            "turned",
            "by a quarter",
            f.fields().stream().filter(SheetFit.Field::turned).count(),
            Unit.ONE)
        .line("left", "sheet − boards", f.left() * 1e4, "cm²")
        .source("geometry; margins typical, no source")
        .assume(
            "both sides of a board, or other boards, may share the sheet: stencil --sheet writes it")
        .caution("Cutting leaves edges that are razor sharp: gloves, tape the edges, deburr.")
        .done();
  }
}
