package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.artwork.Drilling;
import ell.core.artwork.Drilling.Hole;
import ell.files.drill.DrillReader;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Drill files as writers leave them. What each means is common practice, no source.
public class DrillInTheWildTest {
  private static Read.Whole<Drilling> read(String name, String text) throws IOException {
    return switch (DrillReader.read(Source.of(name, text))) {
      case Read.Whole<Drilling> w -> w;
      case Read.Flawed<Drilling>(var p) -> throw new AssertionError(p + " in\n" + text);
    };
  }

  private static List<Hole> holes(String text) throws IOException {
    return read("d.drl", text).value().holes();
  }

  /// Text, then x, y and diameter of its last hole.
  @DataProvider
  Object[][] places() {
    return new Object[][] {
      {"M48\nT1C0.8\nMETRIC,TZ\n%\nT1\nX12500Y1000\nM30\n", 12.5, 1.0, 0.8},
      {"M48\nMETRIC,LZ,000.000\nT1C0.8\n%\nT1\nX0125Y001\nM30\n", 12.5, 1.0, 0.8},
      {"M48\nINCH,LZ\nT1C0.0315\n%\nT1\nX0125Y001\nM30\n", 31.75, 2.54, 0.8},
      {"M48\nINCH,TZ\nT1C0.0315\n%\nT1\nX12500Y1000\nM30\n", 31.75, 2.54, 0.8},
      // no word on zeros: those in front are kept, or those at the end
      {"M48\nINCH\nT1C0.0315\n%\nT1\nX0125Y001\nX012Y0345\nM30\n", 30.48, 87.63, 0.8},
      {"M48\nINCH\nT1C0.0315\n%\nT1\nX500Y10000\nX12500Y1000\nM30\n", 31.75, 2.54, 0.8},
      // one number with a point: all are plain
      {"M48\nMETRIC\nT1C0.8\n%\nT1\nX1.5Y2\nX12Y3\nM30\n", 12.0, 3.0, 0.8},
      {"M48\nMETRIC\nT1C0.8\n%\nT1\nX1000.5Y2\nX1200Y3\nM30\n", 1200.0, 3.0, 0.8},
      // tool and place in one line, speeds, tools without a header, comments behind
      {"METRIC\nT1C0.8\nT1X2.5Y1.5\nM30\n", 2.5, 1.5, 0.8},
      {"M48\nM71\nT01F200S65C0.8\n%\nT01\nX2.5Y1.5 ; the first\nM30\n", 2.5, 1.5, 0.8},
      {"%\nM72\nT1C0.0315F200\nT1\nX1.0Y0.5\nM30\n", 25.4, 12.7, 0.8},
      // sizes in comments only
      {"M48\n; T1 0.8mm\nMETRIC\n%\nT1\nX2.5Y1.5\nM30\n", 2.5, 1.5, 0.8},
      {";TOOL 1 DIAMETER = 31.5 MILS\nM48\nINCH\n%\nT1\nX1.0Y0.5\nM30\n", 25.4, 12.7, 0.8},
      // no unit at all: by the sizes of the tools
      {"M48\nT1C0.8\n%\nT1\nX2.5Y1.5\nM30\n", 2.5, 1.5, 0.8},
      {"M48\nT1C0.0315\n%\nT1\nX1.0Y0.5\nM30\n", 25.4, 12.7, 0.8},
      // a stop is no end
      {"M48\nMETRIC\nT1C0.8\n%\nT1\nX1.5Y2.5\nM00\nX2.5Y1.5\nM30\n", 2.5, 1.5, 0.8},
      {"M48\nMETRIC\nT1C0.8\n%\nT1\nX2.5Y1.5\nM00\n", 2.5, 1.5, 0.8},
    };
  }

  @Test(dataProvider = "places")
  public void placesAndSizes(String text, double x, double y, double d) throws IOException {
    Hole h = holes(text).getLast();
    assertEquals(h.x(), x, 1e-6, text);
    assertEquals(h.y(), y, 1e-6, text);
    assertEquals(h.diameter(), d, 0.001, text);
  }

  @DataProvider
  Object[][] slots() {
    String head = "M48\nMETRIC\nT1C1.0\n%\n";
    return new Object[][] {
      {head + "T1\nX1.0Y2.0G85X4.0Y2.0\nM30\n", 1},
      {head + "T1\nX1.0Y2.0\nG85X4.0Y2.0\nM30\n", 1},
      {head + "T1\nX1.0Y2.0\nG85\nX4.0Y2.0\nM30\n", 1},
      {head + "G05\nT1\nG00X1.0Y2.0\nM15\nG01X4.0Y2.0\nM16\nG05\nM30\n", 1},
      {head + "T1\nG00X1.0Y2.0\nG01X4.0Y2.0\nG05\nM30\n", 1},
      {head + "G01\nT1\nX1.0Y2.0\nX4.0Y2.0\nM30\n", 0},
    };
  }

  @Test(dataProvider = "slots")
  public void slotsInAllTheirForms(String text, int slots) throws IOException {
    List<Hole> all = holes(text);
    assertEquals(all.stream().filter(Hole::slot).count(), slots, all.toString());
    if (slots == 1) {
      assertEquals(all.size(), 1, all.toString());
      assertEquals(all.getFirst().x(), 1.0, 1e-9);
      assertEquals(all.getFirst().toX(), 4.0, 1e-9);
    }
  }

  @Test
  public void aPatternIsLaidDownAgain() throws IOException {
    List<Hole> all =
        holes(
            "M48\nMETRIC\nT1C1.0\n%\nT1\nM25\nX1.0Y2.0\nX3.0Y2.0\nM01\nM02X50.0\nM02Y40.0\nM08\nM30\n");
    assertEquals(all.size(), 6);
    assertEquals(all.get(2).x(), 51.0, 1e-9);
    assertEquals(all.get(5).x(), 53.0, 1e-9);
    assertEquals(all.get(5).y(), 42.0, 1e-9);
  }

  @Test
  public void anEmptyFileIsNoError() throws IOException {
    Read.Whole<Drilling> r = read("board-NPTH.drl", "M48\nMETRIC\n%\nG90\nG05\nM30\n");
    assertTrue(r.value().holes().isEmpty());
    assertTrue(r.account().found().contains("no holes"), r.account().toString());
    r = read("board-NPTH.drl", "M48\nMETRIC\nT1C3.2\n%\nT1\nX1.0Y1.0\nM30\n");
    assertEquals(r.value().holes().getFirst().plated(), Optional.of(false));
    assertEquals(r.account().guesses().size(), 1, "by its name alone");
  }

  /// What no line states is told as a guess; what is stated is not.
  @Test
  public void guessesAreTold() throws IOException {
    assertEquals(
        read("d.drl", "M48\nT1C0.8\n%\nT1\nX2.5Y1.5\nM30\n").account().guesses().size(), 1);
    assertEquals(
        read("d.drl", "M48\nINCH\nT1C0.03\n%\nT1\nX0125Y001\nM30\n").account().guesses().size(), 1);
    assertEquals(
        read("d.drl", "M48\nINCH,LZ\nT1C0.03\n%\nT1\nX0125Y001\nM30\n").account().guesses().size(),
        0);
  }

  @Test
  public void oneCauseIsOneProblem() throws IOException {
    StringBuilder b = new StringBuilder("M48\n%\nT1\n");
    for (int i = 0; i < 400; i++) {
      b.append("X").append(i).append("Y1\n");
    }
    Read<Drilling> r = DrillReader.read(Source.of("d.drl", b + "M30\n"));
    assertTrue(r instanceof Read.Flawed<Drilling>(var p) && p.size() == 1, r.toString());
  }
}
