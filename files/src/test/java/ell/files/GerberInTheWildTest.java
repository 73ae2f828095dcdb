package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.artwork.Artwork;
import ell.core.artwork.EdgeLoops;
import ell.core.artwork.Islands;
import ell.files.gerber.GerberReader;
import java.io.IOException;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Layers as writers leave them: each is read as it is meant, and what was put up with is told.
/// Areas by the formulas of the shapes; the faults are common practice, no source.
public class GerberInTheWildTest {
  private static final String HEAD = "%FSLAX36Y36*%\n%MOMM*%\n";

  private static Read.Whole<Artwork> read(String text) throws IOException {
    return switch (GerberReader.read(Source.of("layer.gbr", text))) {
      case Read.Whole<Artwork> w -> w;
      case Read.Flawed<Artwork>(var p) -> throw new AssertionError(p + " in\n" + text);
    };
  }

  private static double area(Artwork art) {
    return Islands.of(art).stream().mapToDouble(i -> i.template().area()).sum();
  }

  /// Text, the area that is meant, and a word of what is told; empty when nothing is to be told.
  @DataProvider
  Object[][] layers() {
    double disc = Math.PI / 4;
    return new Object[][] {
      // units behind the first aperture, in inches: a disc of 0.04 inch
      {"%FSLAX24Y24*%\n%ADD10C,0.04*%\n%MOIN*%\nD10*\nX0Y0D03*\nM02*", disc * 1.016 * 1.016, ""},
      {"%FSLAX33Y33*%\n%ADD10C,1*%\nG71*\nD10*\nX0Y0D03*\nM02*", disc, ""},
      // an aperture that is chosen and never used
      {HEAD + "%ADD10C,1*%\nD99*\nD10*\nX0Y0D03*\nM02*", disc, ""},
      // apertures of no size leave nothing; holes round and with corners
      {HEAD + "%ADD10R,0X0*%\n%ADD11C,1*%\nD10*\nX0Y0D03*\nD11*\nX0Y0D03*\nM02*", disc, ""},
      {HEAD + "%ADD10R,2X1X0.5*%\nD10*\nX0Y0D03*\nM02*", 2 - disc * 0.25, ""},
      {HEAD + "%ADD10R,2X1X0.5X0.25*%\nD10*\nX0Y0D03*\nM02*", 2 - 0.125, ""},
      {HEAD + "%ADD10C,1X0.5X0.25*%\nD10*\nX0Y0D03*\nM02*", disc - 0.125, ""},
      // blanks in the name of a macro, and behind its last number
      {
        HEAD + "%AMRound box 1*21,1,$1,$2,0,0,0,*%\n%ADD10Round box 1,2X1*%\nD10*\nX0Y0D03*\nM02*",
        2.0,
        ""
      },
      // stars that are missing: at the end, in a line, before a %
      {HEAD + "%ADD10C,1%\nD10*\nX0Y0D03*\nM02", disc, "without its star"},
      {HEAD + "%ADD10C,1*%\nD10*\nX0Y0D03\nX5000000Y0D03*\nM02*", 2 * disc, "without its star"},
      {HEAD + "%ADD10C,1*%\nD10\nX0Y0D03*\nM02*", disc, "without its star"},
      {HEAD + "G04 a remark\n%ADD10C,1*%\nD10*\nX0Y0D03*\nM02*", disc, "without its star"},
      // a second % that is missing, a command without any
      {HEAD + "%ADD10C,1*\nD10*\nX0Y0D03*\nM02*", disc, "without its second %"},
      {HEAD + "%ADD10C,1*\nX0Y0D02*\nD10*\nX0Y0D03*\n%LPD*%\nX3000000D03*\nM02*", 2 * disc, "%"},
      {"FSLAX36Y36*\nMOMM*\nADD10C,1*\nD10*\nX0Y0D03*\nM02*", disc, "outside of %"},
      // a comment with a %, characters of value zero, a line of its own for each number
      {HEAD + "G04 filled by 100% of it*\n%ADD10C,1*%\nD10*\nX0Y0D03*\nM02*", disc, ""},
      {HEAD + "%ADD10C,1*%\n\0\0D10*\nX0\0Y0D03*\nM02*", disc, "value zero"},
      {HEAD + "%ADD10C,1*%\nD10*\nX0\nY0\nD03*\nM02*", disc, ""},
      // arcs: of no length, without a centre, without G74 and G75 of both kinds
      {HEAD + "%ADD10C,1*%\nD10*\nG75*\nX0Y0D02*\nG02X0Y0I0J0D01*\nM02*", disc, ""},
      {
        HEAD + "%ADD10C,1*%\nD10*\nG75*\nX0Y0D02*\nG02X2000000Y0D01*\nM02*",
        2 + disc,
        "without its centre"
      },
      {
        HEAD + "%ADD10C,0.1*%\nD10*\nX1000000Y0D02*\nG03X-1000000Y0I-1000000J0D01*\nM02*",
        Math.PI * 0.1 + disc * 0.01,
        "neither G74 nor G75"
      },
      {
        HEAD + "%ADD10C,0.1*%\nD10*\nX1000000Y0D02*\nG03X0Y1000000I1000000J0D01*\nM02*",
        Math.PI / 2 * 0.1 + disc * 0.01,
        "neither G74 nor G75"
      },
    };
  }

  @Test(dataProvider = "layers")
  public void isReadAsItIsMeant(String text, double area, String told) throws IOException {
    Read.Whole<Artwork> r = read(text);
    assertEquals(area(r.value()), area, 0.002 * area, text);
    String all = r.warnings().toString();
    assertEquals(r.warnings().isEmpty(), told.isEmpty(), all);
    assertTrue(all.contains(told), all);
  }

  /// One cause is one problem, whatever number of lines it breaks.
  @Test
  public void oneCauseIsOneProblem() throws IOException {
    StringBuilder b = new StringBuilder("%FSLAX36Y36*%\n%ADD10C,1*%\nD10*\n");
    for (int i = 0; i < 500; i++) {
      b.append("X").append(i).append("Y0D03*\n");
    }
    Read.Flawed<?> f = (Read.Flawed<?>) GerberReader.read(Source.of("layer.gbr", b + "M02*"));
    assertEquals(f.problems().size(), 1, f.problems().toString());
    String unknown = (HEAD + b.substring(b.indexOf("D10*"))) + "M02*";
    f = (Read.Flawed<?>) GerberReader.read(Source.of("layer.gbr", unknown));
    assertEquals(f.problems().size(), 1, f.problems().toString());
  }

  private static String line(double x0, double y0, double x1, double y1) {
    return "X%dY%dD02*\nX%dY%dD01*\n"
        .formatted(
            Math.round(x0 * 1e6), Math.round(y0 * 1e6), Math.round(x1 * 1e6), Math.round(y1 * 1e6));
  }

  /// Ends that miss each other by up to 0.3 mm are closed and counted; wider ones are not, and a
  /// hole within is then never taken for the board.
  @Test
  public void gapsOfAnEdgeAreClosedAndTold() throws IOException {
    String hole = "G75*\nX6000000Y5000000D02*\nG02X6000000Y5000000I-1000000J0D01*\nG01*\n";
    for (double gap : new double[] {0.01, 0.1, 0.28, 0.6}) {
      String text =
          HEAD
              + "%ADD10C,0.1*%\nD10*\n"
              + line(0, 0, 30, 0)
              + line(30, gap, 30, 20)
              + line(0, 20, 30 - gap, 20)
              + line(0, 20, 0, gap)
              + hole
              + "M02*";
      EdgeLoops.Edge e = EdgeLoops.of(read(text).value());
      if (gap > 0.3) {
        assertTrue(e.outline().isEmpty(), "a mounting hole is no board");
        assertTrue(e.open() > 0);
        continue;
      }
      assertEquals(e.outline().orElseThrow().loops().size(), 2);
      assertEquals(e.gaps(), gap > 0.02 ? 3 : 0);
      assertEquals(e.open(), 0);
    }
  }

  @Test
  public void anEdgeDrawnTwiceIsOneEdge() throws IOException {
    String once = line(0, 0, 30, 0) + line(30, 0, 30, 20) + line(30, 20, 0, 20) + line(0, 20, 0, 0);
    EdgeLoops.Edge e =
        EdgeLoops.of(
            read(HEAD + "%ADD10C,0.1*%\nD10*\n" + once + "D10*\n" + once + "M02*").value());
    assertEquals(e.outline().orElseThrow().loops().size(), 1);
    assertEquals(e.twice(), 1);
  }

  @DataProvider
  Object[][] strangers() {
    return new Object[][] {
      {"PK\u0003\u0004rest of it", "a zip archive"},
      {"%PDF-1.7 and so on", "a PDF document"},
      {"M48\nMETRIC\nT1C0.8\n%\nT1\nX1Y1\nM30\n", "a drill file"},
      {
        "P  UNITS CUST 0\n327GND              R1    -1          A01X+012345Y+012345\n999\n",
        "an IPC-D-356 netlist"
      },
      {"{\"rails\": []}", "JSON"},
      {"<html><body>no</body></html>", "a web page"},
    };
  }

  /// A file of another kind is told in one sentence.
  @Test(dataProvider = "strangers")
  public void aFileOfAnotherKindIsOneSentence(String text, String words) throws IOException {
    byte[] raw = text.getBytes(java.nio.charset.StandardCharsets.ISO_8859_1);
    Read.Flawed<?> f = (Read.Flawed<?>) GerberReader.read(Source.of("layer.gbr", raw));
    assertEquals(f.problems().size(), 1);
    String said = f.problems().getFirst().message();
    assertTrue(said.startsWith("this is " + words) && said.contains("Gerber"), said);
  }

  /// Looking at a file takes no longer for what it is full of: a hundred looks are nothing.
  @Test(timeOut = 20_000)
  public void lookingIsQuickWhateverStandsThere() throws IOException {
    for (String full :
        List.of(
            "\n", " ", "\t\n", "0", "T0", "T1\n", "%", "% \n", "G04 ", "317 ", "X1Y", "T1F1S1",
            "\r")) {
      Source s = Source.of("any", full.repeat(8000 / full.length() + 1));
      for (int i = 0; i < 100; i++) {
        Looks.of(s);
      }
      // the readers too
      GerberReader.read(Source.of("any", full.repeat(100_000)));
      ell.files.drill.DrillReader.read(Source.of("any", full.repeat(100_000)));
    }
  }

  @Test
  public void everyReaderTellsAPicture() throws IOException {
    byte[] png =
        "\u0089PNG\r\n\u001a\n and more".getBytes(java.nio.charset.StandardCharsets.ISO_8859_1);
    Source s = Source.of("bom.csv", png);
    for (Read<?> r :
        List.<Read<?>>of(
            GerberReader.read(s),
            ell.files.drill.DrillReader.read(s),
            ell.files.netlist.NetlistReader.read(s),
            ell.files.csv.BomReader.read(s),
            ell.files.csv.PlacementReader.read(s),
            ell.files.csv.ShelfReader.read(s),
            ell.files.csv.OutlineReader.read(s),
            ell.files.series.ProfileReader.read(s))) {
      assertTrue(r instanceof Read.Flawed<?>(var p) && p.size() == 1, r.toString());
      assertTrue(
          ((Read.Flawed<?>) r).problems().getFirst().message().startsWith("this is a picture"),
          r.toString());
    }
  }

  /// Openings that are painted with a fine pen: each is one area, and they are all alike.
  @Test
  public void paintedOpeningsAreWholeAreas() throws IOException {
    StringBuilder b = new StringBuilder(HEAD + "%ADD10C,0.1*%\nD10*\n");
    for (int i = 0; i < 40; i++) {
      for (int k = 0; k < 9; k++) {
        b.append(line(i * 2, k * 0.08, i * 2 + 1, k * 0.08));
      }
    }
    var islands = Islands.of(read(b + "M02*").value());
    assertEquals(islands.size(), 40);
    // nine half rounds at each side; between two of them 0.08 mm high the pen leaves a small notch
    double notch = 0;
    int n = 20_000;
    for (int i = 0; i < n; i++) {
      double y = 0.04 * (i + 0.5) / n;
      notch += Math.sqrt(0.05 * 0.05 - y * y) * 0.04 / n;
    }
    double caps = 2 * (8 * 2 * notch + Math.PI * 0.05 * 0.05 / 2);
    for (int i = 0; i < 40; i++) {
      assertEquals(islands.get(i).template().area(), 0.64 + 0.1 + caps, 1e-3);
      assertEquals(islands.get(i).middle()[0], i * 2 + 0.5, 1e-6);
      assertEquals(islands.get(i).middle()[1], 0.32, 1e-6);
    }
  }

  /// Thousands of strokes in one area are copper; that is said and not worked out.
  @Test
  public void copperIsToldAndNotWorkedOut() throws IOException {
    StringBuilder b = new StringBuilder(HEAD + "%ADD10C,0.1*%\nD10*\n");
    for (int i = 0; i < 4000; i++) {
      b.append(line(i * 0.05, 0, i * 0.05 + 1, 1));
    }
    Artwork art = read(b + "M02*").value();
    IllegalArgumentException e =
        org.testng.Assert.expectThrows(IllegalArgumentException.class, () -> Islands.of(art));
    assertTrue(e.getMessage().contains("copper"), e.getMessage());
  }
}
