package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.artwork.Artwork;
import ell.core.artwork.EdgeLoops;
import ell.core.artwork.Figure;
import ell.core.artwork.Island;
import ell.core.artwork.Islands;
import ell.core.board.Outline;
import ell.files.gerber.GerberReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Layers against areas worked by hand, and against a geometry library. The format: Gerber layer
/// format specification, from memory.
public class GerberReaderTest {
  private static final String HEAD = "%FSLAX36Y36*%\n%MOMM*%\n";
  private static final String TAIL = "M02*\n";

  /// A full circle of 180 corners has 0.0203 % less area than the circle.
  private static final double ROUND = 2.5e-4;

  private static Artwork art(String text) throws IOException {
    return switch (GerberReader.read(Source.of("layer.gbr", text))) {
      case Read.Whole<Artwork>(Artwork a, var _) -> a;
      case Read.Flawed<Artwork>(var problems) -> throw new AssertionError(problems.toString());
    };
  }

  private static List<Island> islands(String body) throws IOException {
    return Islands.of(art(HEAD + body + TAIL));
  }

  private static double area(String body) throws IOException {
    return islands(body).stream().mapToDouble(i -> i.template().area()).sum();
  }

  private static double edge(String body) throws IOException {
    return islands(body).stream().mapToDouble(i -> i.template().perimeter()).sum();
  }

  private static final double PI = Math.PI;

  /// What is laid down, and the area and the length of all edges that a pencil gives.
  @DataProvider
  Object[][] constructs() {
    String flash = "X0Y0D03*";
    return new Object[][] {
      {"disc", "%ADD10C,0.5*%D10*" + flash, PI / 16, PI / 2},
      {"disc with a hole", "%ADD10C,1X0.4*%D10*" + flash, PI / 4 * (1 - 0.16), PI * 1.4},
      {"rectangle", "%ADD10R,1.5X0.3*%D10*" + flash, 0.45, 3.6},
      {"rectangle with a hole", "%ADD10R,2X1X0.5*%D10*" + flash, 2 - PI / 16, 6 + PI / 2},
      {"obround", "%ADD10O,2X0.5*%D10*" + flash, 1.5 * 0.5 + PI / 16, 3 + PI / 2},
      {"hexagon", "%ADD10P,2X6*%D10*" + flash, 3 * Math.sqrt(3) / 2, 6},
      {"square turned", "%ADD10P,2X4X45*%D10*" + flash, 2, 4 * Math.sqrt(2)},
      {
        "one straight stroke", "%ADD10C,0.2*%D10*X0Y0D02*X1000000Y0D01*", 0.2 + PI / 100, 2 + PI / 5
      },
      {"stroke of a square pen", "%ADD10R,0.2X0.2*%D10*X0Y0D02*X1000000Y0D01*", 0.24, 2.8},
      {
        "stroke of a square pen aslant",
        "%ADD10R,0.2X0.2*%D10*X0Y0D02*X1000000Y1000000D01*",
        // the pen and what its diagonal, 0.2·√2 across, sweeps over √2
        0.04 + 0.4,
        2 * Math.sqrt(2) + 0.8
      },
      {"region", "G36*X0Y0D02*X2000000D01*Y1000000D01*X0D01*Y0D01*G37*", 2.0, 6.0},
      {
        "quarter of a disc by one quadrant",
        "G36*G74*X0Y0D02*G01*X1000000D01*G03*X0Y1000000I1000000J0D01*G01*Y0D01*G37*",
        PI / 4,
        2 + PI / 2
      },
      {
        "three quarters by many quadrants",
        "G36*G75*X0Y0D02*G01*X1000000D01*G03*X0Y-1000000I-1000000J0D01*G01*Y0D01*G37*",
        3 * PI / 4,
        2 + 3 * PI / 2
      },
      {
        "whole circle by many quadrants",
        "G36*G75*X1000000Y0D02*G02*X1000000Y0I-1000000J0D01*G37*",
        PI,
        2 * PI
      },
      {
        "hole cut in",
        "G36*X0Y0D02*G01*X3000000D01*Y3000000D01*X0D01*Y1000000D01*X1000000D01*Y2000000D01*"
            + "X2000000D01*Y1000000D01*X1000000D01*X0D01*Y0D01*G37*",
        8.0,
        16.0
      },
      {
        "clear disc from a square",
        "%ADD10R,2X2*%%ADD11C,1*%D10*" + flash + "%LPC*%D11*" + flash + "%LPD*%",
        4 - PI / 4,
        8 + PI
      },
      {
        "dark again on what was cleared",
        "%ADD10R,2X2*%%ADD11C,1*%%ADD12R,0.2X0.2*%D10*"
            + flash
            + "%LPC*%D11*"
            + flash
            + "%LPD*%D12*"
            + flash,
        4 - PI / 4 + 0.04,
        8 + PI + 0.8
      },
      {
        "clear cuts in two",
        "%ADD10R,3X1*%%ADD11R,1X3*%D10*" + flash + "%LPC*%D11*" + flash,
        2.0,
        8.0
      },
      {
        "macro: rectangle with round corners",
        "%AMRND*0 w, h, r*21,1,$1,$2-2x$3,0,0,0*21,1,$1-2x$3,$2,0,0,0*1,1,2x$3,$1/2-$3,$2/2-$3*"
            + "1,1,2x$3,$3-$1/2,$2/2-$3*1,1,2x$3,$1/2-$3,$3-$2/2*1,1,2x$3,$3-$1/2,$3-$2/2*%"
            + "%ADD10RND,1.6X0.8X0.1*%D10*"
            + flash,
        1.28 - (4 - PI) * 0.01,
        2 * (1.4 + 0.6) + PI * 0.2
      },
      {
        "macro: outline, variable set",
        "%AMTRI*$2=$1x2*4,1,3,0,0,$2,0,0,$1,0,0,0*%%ADD10TRI,0.5*%D10*" + flash,
        0.25,
        1 + 0.5 + Math.sqrt(1.25)
      },
      {
        "macro: line of a width, turned",
        "%AMLIN*20,1,0.2,0,0,1,0,30*%%ADD10LIN*%D10*" + flash,
        0.2,
        2.4
      },
      {
        "macro: polygon off centre, hole switched off",
        "%AMPOL*5,1,4,1,1,2,0*1,0,0.5,1,1*%%ADD10POL*%D10*" + flash,
        2 - PI / 16,
        4 * Math.sqrt(2) + PI / 2
      },
      {"macro: lower left rectangle", "%AMLL*22,1,1,0.5,0,0,0*%%ADD10LL*%D10*" + flash, 0.5, 3.0},
      {"repeated", "%ADD10R,0.5X0.5*%D10*%SRX3Y2I1.0J1.0*%" + flash + "%SR*%", 6 * 0.25, 6 * 2.0},
      {
        "repeats that touch are one", "%ADD10R,1X1*%D10*%SRX3Y1I1.0J0*%" + flash + "%SR*%", 3.0, 8.0
      },
      {
        "block, mirrored and doubled",
        "%ADD10R,0.2X0.4*%%ABD20*%D10*"
            + flash
            + "X1000000Y0D03*%AB*%D20*X0Y0D03*"
            + "%LMX*%%LS2*%X5000000Y0D03*%LMN*%%LS1*%",
        2 * 0.08 + 2 * 0.32,
        2 * 1.2 + 2 * 2.4
      },
      {"turned flash", "%ADD10R,1X0.2*%D10*%LR90*%" + flash, 0.2, 2.4},
      {"two that overlap", "%ADD10R,1X1*%D10*" + flash + "X500000Y0D03*", 1.5, 5.0},
      {
        "old words: G54, G70, increments, no act",
        "%ADD10R,1X1*%G54D10*G91*X0Y0D03*X2000000Y0*G90*",
        2.0,
        8.0
      },
    };
  }

  @Test(dataProvider = "constructs")
  public void areasAndEdgesAreThoseOfAPencil(String what, String body, double area, double edge)
      throws IOException {
    assertEquals(area(body), area, area * ROUND + 1e-9, what);
    assertEquals(edge(body), edge, edge * ROUND + 1e-9, what);
  }

  @Test
  public void narrowestAndLongestDecideTheAspectRatio() throws IOException {
    Island bar = islands("%ADD10R,1.5X0.3*%D10*%LR30*%X0Y0D03*").getFirst();
    assertEquals(bar.template().narrowest(), 0.3, 1e-9);
    assertEquals(bar.template().longest(), 1.5, 1e-9);
    Island region = islands("G36*X0Y0D02*X1500000D01*Y300000D01*X0D01*Y0D01*G37*").getFirst();
    assertEquals(region.template().narrowest(), 0.3, 1e-6);
    assertEquals(region.template().longest(), 1.5, 1e-6);
    // an L of two arms 0.2 wide: what is narrow is the arm, not the box
    Island corner =
        islands("G36*X0Y0D02*X2000000D01*Y200000D01*X200000D01*Y2000000D01*X0D01*Y0D01*G37*")
            .getFirst();
    assertEquals(corner.template().narrowest(), 0.2, 0.04);
  }

  /// Random discs and bars, dark and clear, one after the other: the same by JTS, step by step.
  @Test
  public void manyFiguresComeOutAsAGeometryLibraryHasThem() throws IOException {
    Random r = new Random(7);
    GeometryFactory f = new GeometryFactory();
    for (int round = 0; round < 12; round++) {
      StringBuilder body = new StringBuilder();
      Geometry all = f.createPolygon();
      for (int i = 0; i < 40; i++) {
        double x = r.nextInt(400) / 100.0;
        double y = r.nextInt(400) / 100.0;
        boolean dark = r.nextInt(4) > 0;
        double w = 0.2 + r.nextInt(10) / 10.0;
        double h = 0.2 + r.nextInt(10) / 10.0;
        body.append("%ADD").append(10 + i).append("R,").append(w).append("X").append(h);
        body.append("*%%LP").append(dark ? "D" : "C").append("*%D").append(10 + i);
        body.append("*X").append(Math.round(x * 1e6)).append("Y").append(Math.round(y * 1e6));
        body.append("D03*\n");
        Geometry one =
            f.createPolygon(
                new Coordinate[] {
                  new Coordinate(x - w / 2, y - h / 2),
                  new Coordinate(x + w / 2, y - h / 2),
                  new Coordinate(x + w / 2, y + h / 2),
                  new Coordinate(x - w / 2, y + h / 2),
                  new Coordinate(x - w / 2, y - h / 2)
                });
        all = dark ? all.union(one) : all.difference(one);
      }
      List<Island> islands = islands(body.toString());
      assertEquals(
          islands.stream().mapToDouble(i -> i.template().area()).sum(), all.getArea(), 1e-6);
      assertEquals(
          islands.stream().mapToDouble(i -> i.template().perimeter()).sum(), all.getLength(), 1e-5);
    }
  }

  @Test
  public void attributesNameThePartAndThePin() throws IOException {
    String body =
        "%ADD10R,1X0.3*%D10*%TO.P,U4,13*%%TO.N,CLK*%X0Y0D03*%TO.P,U4,14,D\\u002C1*%X0Y500000D03*%TD*%"
            + "X0Y1000000D03*G04 #@! TO.C,R7*X0Y1500000D03*";
    List<Island> all = new ArrayList<>(islands(body));
    all.sort(Comparator.comparingDouble(Island::y));
    assertEquals(all.get(0).tag().part() + "." + all.get(0).tag().pin(), "U4.13");
    assertEquals(all.get(0).tag().net(), "CLK");
    assertEquals(all.get(1).tag().pin(), "14");
    assertEquals(all.get(2).tag().part(), "");
    assertEquals(all.get(3).tag().part(), "R7");
    assertEquals(art("%TF.FileFunction,Paste,Top*%" + HEAD + TAIL).function(), "Paste,Top");
  }

  @DataProvider
  Object[][] formats() {
    String flash = "%ADD10C,0.1*%D10*";
    return new Object[][] {
      {"%FSLAX24Y24*%%MOIN*%" + flash + "X10000Y-5000D03*M02*", 25.4, -12.7},
      {"%FSTAX24Y24*%%MOIN*%" + flash + "X01Y-005D03*M02*", 25.4, -12.7},
      {"%FSLAX33Y33*%%MOMM*%" + flash + "X1500Y250D03*M02*", 1.5, 0.25},
      {"%FSLAX46Y46*%%MOMM*%" + flash + "X1500000D03*M02*", 1.5, 0.0},
      {"G71*%FSLAX33Y33*%" + flash + "X1500Y250D03*M02*", 1.5, 0.25},
      {"%FSLAX33Y33*%\r\n%MOMM*%\r\n" + flash + "X1.5Y0.25D03*\r\nM02*", 1.5, 0.25},
      {"%FSLAX46Y46*%%MOMM*%%LN top*%" + flash + "G01X2000000Y1000000D02*D03*M02*", 2.0, 1.0},
    };
  }

  @Test(dataProvider = "formats")
  public void unitsAndZeros(String text, double x, double y) throws IOException {
    Island i = Islands.of(art(text)).getFirst();
    assertEquals(i.x(), x, 1e-9);
    assertEquals(i.y(), y, 1e-9);
  }

  @DataProvider
  Object[][] wrongs() {
    return new Object[][] {
      {HEAD + "D10*\nX0Y0D03*\n" + TAIL, 4, "aperture D10 is drawn with and not defined"},
      {"%MOMM*%\n%ADD10C,1*%\nD10*\nX5Y5D03*\n" + TAIL, 4, "no number format is stated"},
      {"%FSLAX24Y24*%\n%ADD10C,1*%\n" + TAIL, 2, "no unit is stated"},
      {HEAD + "%ADD10C,abc*%\n" + TAIL, 3, "number that cannot be read"},
      {HEAD + "%ADD10MISSING,1*%\n" + TAIL, 3, "there is no aperture macro"},
      {HEAD + "%ADD10R,1*%\n" + TAIL, 3, "expected R,widthXheight"},
      {HEAD + "G36*\nX0Y0D02*\nX1D01*\nX1Y1D01*\n" + TAIL, 0, "within a region"},
      {
        HEAD + "%AMX*4,1,2,0,0,1,1,0,0,0*%\n%ADD10X*%\n" + TAIL,
        4,
        "corners of an outline as a whole number in 3...10000, found 2"
      },
      {HEAD + "%ADD10C,-1*%\n" + TAIL, 3, "diameter must be above 0"},
      {HEAD + "%IPNEG*%\n" + TAIL, 3, "negative image"},
      {HEAD + "%ADD10C,1*%\nD10*\nX0Y0D03", 5, "the file ends within"},
    };
  }

  @Test(dataProvider = "wrongs")
  public void badFilesAreRefusedWithTheLine(String text, int line, String words)
      throws IOException {
    switch (GerberReader.read(Source.of("bad.gbr", text))) {
      case Read.Whole<Artwork> w -> throw new AssertionError("it was read: " + w.value());
      case Read.Flawed<Artwork>(var problems) -> {
        Problem p = problems.getFirst();
        assertTrue(p.toString().contains(words), p.toString());
        assertEquals(p.file(), "bad.gbr");
        if (line > 0) {
          assertEquals(p.line(), line, p.toString());
        }
      }
    }
  }

  @Test
  public void allProblemsOfAFileComeAtOnce() throws IOException {
    String text = HEAD + "%ADD10C,x*%\n%ADD11C,y*%\nD12*\nX1Y1D03*\nX2Y2D03*\n" + TAIL;
    Read.Flawed<?> f = (Read.Flawed<?>) GerberReader.read(Source.of("bad.gbr", text));
    assertEquals(f.problems().size(), 3, f.problems().toString());
  }

  /// An edge drawn as lines and arcs in any order closes to one loop; a cut-out is a second.
  @Test
  public void theEdgeOfABoardIsChained() throws IOException {
    String body =
        "%ADD10C,0.1*%D10*G75*X0Y0D02*X10000000D01*X10000000Y5000000D02*X0D01*"
            + "X10000000Y0D02*X10000000Y5000000D01*X0Y5000000D02*X0Y0D01*"
            + "X5000000Y2500000D02*G03*X5000000Y2500000I-1000000J0D01*";
    Outline o = EdgeLoops.of(art(HEAD + body + TAIL)).outline().orElseThrow();
    assertEquals(o.loops().size(), 2);
    assertEquals(o.loops().getFirst().size(), 4);
    assertEquals(o.loops().get(1).size(), 180);
    EdgeLoops.Edge none = EdgeLoops.of(art(HEAD + "%ADD10C,0.1*%D10*X0Y0D02*X1000000D01*" + TAIL));
    assertTrue(none.outline().isEmpty());
    assertEquals(none.apartMm(), 1.0, 1e-9);
  }

  @Test
  public void strokesKeepTheirPathForTheLegend() throws IOException {
    Artwork a = art(HEAD + "%ADD10C,0.15*%D10*X0Y0D02*X1000000D01*Y1000000D01*" + TAIL);
    assertEquals(a.figures().size(), 1);
    assertEquals(((Figure.Stroke) a.figures().getFirst()).path().size(), 3);
  }
}
