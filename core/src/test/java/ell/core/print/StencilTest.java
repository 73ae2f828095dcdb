package ell.core.print;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.artwork.Artwork;
import ell.core.artwork.Figure;
import ell.core.artwork.Tag;
import ell.core.artwork.Template;
import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.heat.Alloy;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Openings told, judged and counted. Source of the lines: IPC-7525.
public class StencilTest {
  private static Figure flash(Template t, double x, double y, String part, String pin) {
    return new Figure.Flash(t, x, y, true, part.isEmpty() ? Tag.NONE : new Tag(part, pin, ""));
  }

  private static Revision board() {
    Boards b = new Boards();
    b.part("R1").at(10, 10).pads("A", "B");
    b.part("U1").shape("SOIC-8").at(30, 10).pads("A", "B", "C", "D");
    b.part("R2").off().at(50, 10).pads("A", "B");
    return b.revision();
  }

  private static List<Joint> joints(String part) {
    return board().jointsOf(part);
  }

  private static PasteLayer layer(List<Figure> figures) {
    return PasteLayer.of(new Artwork(figures, ""), board(), Side.FIRST);
  }

  @Test
  public void openingsBelongToTheJointThatTheyAreNamedForOrLieOn() {
    List<Figure> f = new ArrayList<>();
    Template t = Template.rectangle(0.4, 0.4);
    Joint r1 = joints("R1").getFirst();
    Joint u = joints("U1").get(2);
    f.add(flash(t, r1.xMm() + 0.1, r1.yMm(), "", ""));
    f.add(flash(t, u.xMm(), u.yMm(), "u1", u.pin()));
    f.add(flash(t, 90, 90, "", ""));
    PasteLayer l = layer(f);
    Opening byPlace =
        l.openings().stream().filter(o -> o.part().equals("R1")).findFirst().orElseThrow();
    assertEquals(byPlace.pin(), r1.pin());
    assertTrue(!byPlace.told());
    Opening named =
        l.openings().stream().filter(o -> o.part().equals("U1")).findFirst().orElseThrow();
    assertEquals(named.joint().orElseThrow(), u);
    assertTrue(named.told());
    assertEquals(l.strangers(), 1);
    // R1.2 and three pins of U1 get nothing; R2 is not fitted and wants nothing
    assertEquals(l.without().size(), 4, l.without().toString());
    assertTrue(l.without().stream().noneMatch(w -> w.startsWith("R2")));
  }

  /// A pin with two pads is pasted when one of them is, however the layer writes its name; of two
  /// joints that are equally near the first in the netlist is meant.
  @Test
  public void aPinWithTwoPadsAndTwoThatAreEquallyNear() {
    Boards b = new Boards();
    b.part("Q1").at(10, 10).pads("A", "B", "B");
    Revision r = b.revision();
    List<Joint> twice =
        r.joints().stream().map(j -> j.pin().equals("1") ? j : renamed(j, "b")).toList();
    Revision board = new Revision("T", "1", r.parts(), twice, r.outline());
    Template t = Template.rectangle(0.4, 0.4);
    List<Figure> named = List.of(flash(t, 12, 10, "q1", "B"));
    PasteLayer l = PasteLayer.of(new Artwork(named, ""), board, Side.FIRST);
    assertEquals(l.openings().getFirst().joint().orElseThrow(), twice.get(2), "the nearer pad");
    assertEquals(l.without(), List.of("Q1.1"));
    List<Figure> between = List.of(flash(t, 10.5, 10, "", ""));
    PasteLayer m = PasteLayer.of(new Artwork(between, ""), board, Side.FIRST);
    assertEquals(m.openings().getFirst().joint().orElseThrow(), twice.getFirst());
    assertEquals(m.without(), List.of("Q1.b", "Q1.b"));
  }

  private static Joint renamed(Joint j, String pin) {
    return new Joint(
        j.part(), pin, j.net(), j.xMm(), j.yMm(), j.reach(), false, 0, true, 1, 1, 0, false, 0);
  }

  @DataProvider
  Object[][] foils() {
    return new Object[][] {
      // the published values of the arithmetic, and the thickest usual foil of each
      {Template.rectangle(1.5, 0.3), 0.15e-3, 0.8333, 2.0, Verdict.WITHIN, 0.15e-3},
      {Template.circle(0.30), 0.10e-3, 0.75, 3.0, Verdict.WITHIN, 0.10e-3},
      {Template.circle(0.25), 0.12e-3, 0.5208, 2.083, Verdict.OUT, 0.08e-3},
      {Template.rectangle(2, 0.2), 0.15e-3, 0.6061, 1.333, Verdict.OUT, 0.13e-3},
      {Template.circle(0.15), 0.12e-3, 0.3125, 1.25, Verdict.OUT, Double.NaN},
    };
  }

  @Test(dataProvider = "foils")
  public void openingsAgainstFoils(
      Template t, double foil, double area, double aspect, Verdict v, double thickest) {
    StencilCheck c =
        StencilCheck.of(
            layer(List.of(flash(t, 10, 10, "R1", "1"))), board(), foil, Paste.of(Alloy.SAC305));
    StencilCheck.Line l = c.lines().getFirst();
    assertEquals(l.areaRatio(), area, 1e-4);
    assertEquals(l.aspectRatio(), aspect, 1e-3);
    assertEquals(l.verdict(), v);
    if (Double.isNaN(thickest)) {
      assertTrue(c.thickest().isEmpty());
    } else {
      assertEquals(c.thickest().orElseThrow(), thickest);
    }
    assertEquals(l.advice().isEmpty(), v == Verdict.WITHIN);
    double transfer = Math.clamp(0.5 + (area - 0.5) * 1.6, 0, 0.9);
    assertEquals(
        l.volume(), t.area() * 1e-6 * foil * transfer, l.volume() * 1e-3, "area · T · transfer");
    assertEquals(c.sheet(l).verdict().orElseThrow(), v);
  }

  /// Enlarged as it is advised, an opening releases.
  @Test
  public void theAdviceHolds() {
    for (Template t :
        List.of(
            Template.circle(0.25), Template.rectangle(2, 0.15), Template.rectangle(0.3, 0.25))) {
      double foil = 0.12e-3;
      Aperture a =
          new Aperture(
              t.area() * 1e-6, t.perimeter() * 1e-3, t.narrowest() * 1e-3, t.longest() * 1e-3);
      double factor = foil / StencilCheck.limit(a);
      assertTrue(factor > 1 && !a.releases(foil));
      Aperture grown =
          a.aspectDecides()
              ? Aperture.rectangle(a.longest(), a.narrowest() * factor)
              : new Aperture(
                  a.area() * factor * factor,
                  a.perimeter() * factor,
                  a.narrowest() * factor,
                  a.longest() * factor);
      assertTrue(grown.releases(foil));
    }
  }

  /// By hand: 0.885 of SAC305 at 7.4 g/cm³ in flux of 1.0 g/cm³. About half of the volume stays:
  /// common practice, no source.
  @Test
  public void solderInPaste() {
    double metal = 0.885 / 7.4;
    double f = metal / (metal + 0.115);
    Paste p = Paste.of(Alloy.SAC305);
    assertEquals(p.metalVolumeFraction(), f, 1e-12);
    assertEquals(f, 0.51, 0.005);
    assertEquals(p.density(), 1000 / (metal + 0.115), 1e-6);
    assertEquals(Paste.transfer(0.75), 0.9);
    assertEquals(Paste.transfer(2), 0.9);
    assertEquals(Paste.transfer(0.5), 0.5, 1e-12);
    assertEquals(Paste.transfer(0.625), 0.7, 1e-12);
    assertEquals(Paste.transfer(0), 0.0);
  }

  @Test
  public void aTopUpHasTheVolumeThatIsMissing() {
    TopUp t = TopUp.of(0.05e-9, 0.41e-3);
    assertEquals(Math.PI * Math.pow(t.domeDiameter(), 3) / 12, 0.05e-9, 1e-18);
    assertEquals(Math.PI / 4 * 0.41e-3 * 0.41e-3 * t.threadLength(), 0.05e-9, 1e-18);
  }

  /// Fields lie apart and within the margin, whatever the sizes; a whole number by hand first.
  @Test
  public void fieldsOnASheet() {
    // 3 x 3 of 100 x 120 upright on 340 x 400, 10 margin, 5 gap
    assertEquals(SheetFit.of(0.34, 0.40, 0.10, 0.12, 0.01, 0.005).boards(), 9);
    // 2 x 4 upright, 3 x 2 turned, or a row of 2 and under it 3 x 2 turned
    assertEquals(SheetFit.of(0.30, 0.40, 0.14, 0.09, 0, 0).boards(), 8);
    // neither alone: 2 upright below, 1 turned beside them
    assertEquals(SheetFit.of(0.31, 0.20, 0.20, 0.10, 0, 0).boards(), 3);
    Random r = new Random(5);
    for (int i = 0; i < 200; i++) {
      double gap = r.nextInt(6) * 1e-3;
      double margin = r.nextInt(20) * 1e-3;
      SheetFit f =
          SheetFit.of(
              0.2 + r.nextDouble() * 0.4,
              0.2 + r.nextDouble() * 0.4,
              0.02 + r.nextDouble() * 0.2,
              0.02 + r.nextDouble() * 0.2,
              margin,
              gap);
      for (int a = 0; a < f.fields().size(); a++) {
        SheetFit.Field x = f.fields().get(a);
        assertTrue(x.x() >= margin - 1e-9 && x.x() + x.width() <= f.sheetWidth() - margin + 1e-9);
        assertTrue(x.y() >= margin - 1e-9 && x.y() + x.height() <= f.sheetHeight() - margin + 1e-9);
        for (int b = 0; b < a; b++) {
          SheetFit.Field y = f.fields().get(b);
          boolean apart =
              x.x() >= y.x() + y.width() + gap - 1e-9
                  || y.x() >= x.x() + x.width() + gap - 1e-9
                  || x.y() >= y.y() + y.height() + gap - 1e-9
                  || y.y() >= x.y() + x.height() + gap - 1e-9;
          assertTrue(apart, x + " and " + y);
        }
      }
    }
  }

  @Test
  public void theNeedleGoesToEveryPadOnceAndAStencilPaysFromSomewhere() {
    SyringePlan p = SyringePlan.of(board(), Side.FIRST, Paste.of(Alloy.SAC305));
    assertEquals(p.dots().size(), 6);
    assertEquals(p.dots().stream().map(d -> d.joint().place()).distinct().count(), 6);
    SyringePlan slow = new SyringePlan(List.of(), 1200, 0);
    // 16 min saved a board at 20 an hour: 5.33, so 25 pays from 4.69 boards
    assertEquals(slow.breakEven(25, 240, 20).orElseThrow(), 25 / (960 / 3600.0 * 20), 1e-9);
    assertTrue(new SyringePlan(List.of(), 100, 0).breakEven(25, 240, 20).isEmpty());
  }
}
