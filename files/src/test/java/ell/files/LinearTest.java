package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.files.csv.BomReader;
import ell.files.csv.OffersReader;
import ell.files.csv.OutlineReader;
import ell.files.csv.ParametersReader;
import ell.files.csv.PlacementReader;
import ell.files.csv.ShelfReader;
import ell.files.drill.DrillReader;
import ell.files.gerber.GerberReader;
import ell.files.netlist.NetlistReader;
import ell.files.series.ProfileReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// No input makes a reader slower than in proportion: megabytes of a single character and of each
/// pair, alone, and in every cell of a good file.
public final class LinearTest {
  private static final Path DEMO = Path.of("../fixtures/marram/mg-1-b");
  private static final Path SHELF = Path.of("../fixtures/marram");
  private static final int ALONE = 1 << 20;
  private static final int CELL = 10_000;

  /// A megabyte takes a fraction of a second; what goes with the square of it takes hours.
  private static final long MOST_MILLIS = 6000;

  private interface Reader {
    Read<?> read(Source s) throws IOException;
  }

  @DataProvider
  Object[][] readers() {
    return new Object[][] {
      {"bom", DEMO.resolve("bom.csv"), (Reader) BomReader::read},
      {"placement", DEMO.resolve("placement.csv"), (Reader) PlacementReader::read},
      {"netlist", DEMO.resolve("netlist.ipc"), (Reader) NetlistReader::read},
      {"outline", DEMO.resolve("outline.csv"), (Reader) OutlineReader::read},
      {"shelf", SHELF.resolve("shelf.csv"), (Reader) ShelfReader::read},
      {"offers", SHELF.resolve("offers.csv"), (Reader) OffersReader::read},
      {"parameters", SHELF.resolve("parts.csv"), (Reader) ParametersReader::read},
      {"paste", DEMO.resolve("paste-first.gbr"), (Reader) GerberReader::read},
      {"drill", DEMO.resolve("drill.xnc"), (Reader) DrillReader::read},
      {"profile", SHELF.resolve("plate-run-1.csv"), (Reader) ProfileReader::read},
    };
  }

  private static List<String> units() {
    List<String> all = new ArrayList<>();
    for (char c : " \t\n\r\"',;:.-+/\\*%#$@()[]{}015xXeERCGDMTAVk°µé\0\u00a0".toCharArray()) {
      all.add(String.valueOf(c));
    }
    all.addAll(
        List.of(
            "- ", "1 ", "R1", "R,", "1-", "\"\"", "\",", ", ", ",.", "1.", "1e", "x1", "%A", "*%",
            "1;", "  0", "N1", "0x", "k4", "A-A ", "R1-R2,", "(a", ")(", "[]", "1:1 "));
    return all;
  }

  @Test(dataProvider = "readers", timeOut = 300_000)
  public void megabytesOfAnything(String name, Path file, Object reader) throws IOException {
    for (String unit : units()) {
      takes((Reader) reader, name, unit, unit.repeat(ALONE / unit.length()));
    }
  }

  @Test(dataProvider = "readers", timeOut = 300_000)
  public void aCellOfAnything(String name, Path file, Object reader) throws IOException {
    String[] lines = Files.readString(file).split("\n");
    int middle = Math.min(3, lines.length - 1);
    String[] cells = lines[middle].split(",", -1);
    for (String unit : units()) {
      String many = "1" + unit.repeat(CELL / unit.length()) + "x";
      String quoted = "\"" + many.replace("\"", "\"\"") + "\"";
      for (int c = 0; c < Math.min(cells.length, 8); c++) {
        String[] own = cells.clone();
        own[c] = quoted;
        takes((Reader) reader, name, unit + " in cell " + c, with(lines, middle, join(own)));
      }
      takes((Reader) reader, name, unit + " behind", with(lines, middle, lines[middle] + many));
      takes((Reader) reader, name, unit + " in the heading", with(lines, 0, lines[0] + many));
    }
  }

  private static String join(String[] cells) {
    return String.join(",", cells);
  }

  private static String with(String[] lines, int at, String line) {
    String[] all = lines.clone();
    all[at] = line;
    return String.join("\n", all);
  }

  private static void takes(Reader reader, String name, String what, String text)
      throws IOException {
    long from = System.nanoTime();
    Read<?> read = reader.read(Source.of(name, text));
    long millis = (System.nanoTime() - from) / 1_000_000;
    assertTrue(millis < MOST_MILLIS, name + " of " + what + " took " + millis + " ms");
    if (read instanceof Read.Flawed<?>(var problems)) {
      assertTrue(problems.size() <= Findings.MOST + 1);
    }
  }

  /// Columns without number: the room that they would take is refused, not taken.
  @Test(timeOut = 60_000)
  public void aHeadingOfThousandsOfColumnsIsRefused() throws IOException {
    String heading = "Time," + "T,".repeat(30_000) + "\n0,1\n1,2\n";
    long before = used();
    Read<?> read = ProfileReader.read(Source.of("wide.csv", heading));
    assertTrue(read.toString().contains("columns; at most"), "it says how many");
    assertTrue(used() - before < 200 << 20, "and takes no room for them");
  }

  private static long used() {
    System.gc();
    return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
  }

  @Test
  public void cellsAreTidied() {
    assertEquals(Tidy.cell("  a \t\n b\u00a0\u00a0c "), "a b c");
    assertEquals(Tidy.cell(" \n"), "");
    assertEquals(Tidy.cell("R1"), "R1");
  }

  /// A cell that no person wrote is an error with its place, and the others are read.
  @Test
  public void aCellThatIsTooLongIsSaid() throws IOException {
    String bom = "Reference,Value,Package,Code\nR1," + "k".repeat(5000) + ",0402,A\nR2,1k,0402,B\n";
    Read.Flawed<?> f = (Read.Flawed<?>) BomReader.read(Source.of("bom.csv", bom));
    assertEquals(f.problems().getFirst().line(), 2);
    assertTrue(f.problems().getFirst().message().contains("a cell of 5000 characters"));
  }
}
