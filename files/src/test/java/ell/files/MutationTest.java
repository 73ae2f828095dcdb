package ell.files;

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
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Thousands of files that were cut, doubled, shuffled and overwritten: each is read whole or
/// refused with at least one problem; none crashes or hangs a reader.
public class MutationTest {
  private static final int ROUNDS = 1200;
  private static final String[] SPICE = {
    "",
    "\0",
    "\"",
    "\"\"",
    ",",
    ";",
    "\n",
    "\r\n",
    "-",
    "99999999999999999999",
    "NaN",
    "é",
    "\uFFFD",
    "R1-R99999",
    "=1+1",
    "1e308",
    "P  UNITS CUST 7\n",
    "327",
    "999\n",
    " ".repeat(300),
    "µ",
    "%AMX*4,1,9,0*%",
    "G36*",
    "%SRX9Y9I1J1*%",
    "T01C0",
    "\uFEFF",
    "0",
    "-1",
  };

  private interface Reader {
    Read<?> read(Source s) throws IOException;
  }

  private static final Path DEMO = Path.of("../fixtures/marram/mg-1-b");

  @DataProvider
  Object[][] readers() {
    return new Object[][] {
      {"bom", DEMO.resolve("bom.csv"), (Reader) BomReader::read},
      {"placement", DEMO.resolve("placement.csv"), (Reader) PlacementReader::read},
      {"netlist", DEMO.resolve("netlist.ipc"), (Reader) NetlistReader::read},
      {"outline", DEMO.resolve("outline.csv"), (Reader) OutlineReader::read},
      {"shelf", Path.of("../fixtures/marram/shelf.csv"), (Reader) ShelfReader::read},
      {"offers", Path.of("../fixtures/marram/offers.csv"), (Reader) OffersReader::read},
      {"parameters", Path.of("../fixtures/marram/parts.csv"), (Reader) ParametersReader::read},
      {"paste", DEMO.resolve("paste-first.gbr"), (Reader) GerberReader::read},
      {"drill", DEMO.resolve("drill.xnc"), (Reader) DrillReader::read},
      {"profile", Path.of("../fixtures/marram/plate-run-1.csv"), (Reader) ProfileReader::read},
    };
  }

  @Test(dataProvider = "readers", timeOut = 120_000)
  public void mutatedFilesAreReadOrRefused(String name, Path file, Object reader)
      throws IOException {
    byte[] seed = Files.readAllBytes(file);
    Random random = new Random(name.hashCode());
    int refused = 0;
    for (int i = 0; i < ROUNDS; i++) {
      byte[] mutated = mutate(seed, random);
      Read<?> read = ((Reader) reader).read(Source.of(name, mutated));
      if (read instanceof Read.Flawed<?>(List<Problem> problems)) {
        refused++;
        assertTrue(!problems.isEmpty() && problems.size() <= 201);
        problems.forEach(p -> assertTrue(p.message().length() < 600, p.message()));
      }
    }
    assertTrue(
        refused > ROUNDS / (name.equals("parameters") ? 400 : 50),
        "only " + refused + " of " + ROUNDS + " were refused: too mild");
  }

  private static byte[] mutate(byte[] seed, Random random) {
    byte[] b = seed.clone();
    for (int k = 0; k < 1 + random.nextInt(6); k++) {
      if (b.length < 4) {
        return b;
      }
      int at = random.nextInt(b.length);
      int to = Math.min(b.length, at + 1 + random.nextInt(80));
      b =
          switch (random.nextInt(6)) {
            case 0 -> cut(b, at, to);
            case 1 -> join(b, at, java.util.Arrays.copyOfRange(b, at, to));
            case 2 ->
                join(b, at, SPICE[random.nextInt(SPICE.length)].getBytes(StandardCharsets.UTF_8));
            case 3 -> {
              for (int i = at; i < to; i++) {
                b[i] = (byte) random.nextInt(256);
              }
              yield b;
            }
            case 4 -> java.util.Arrays.copyOf(b, at);
            default -> {
              b[at] = (byte) (b[at] ^ 1 << random.nextInt(8));
              yield b;
            }
          };
    }
    return b;
  }

  private static byte[] cut(byte[] b, int from, int to) {
    byte[] out = new byte[b.length - (to - from)];
    System.arraycopy(b, 0, out, 0, from);
    System.arraycopy(b, to, out, from, b.length - to);
    return out;
  }

  private static byte[] join(byte[] b, int at, byte[] more) {
    byte[] out = new byte[b.length + more.length];
    System.arraycopy(b, 0, out, 0, at);
    System.arraycopy(more, 0, out, at, more.length);
    System.arraycopy(b, at, out, at + more.length, b.length - at);
    return out;
  }

  /// The demo's own files are read without a problem: the mutations above begin from something
  /// good.
  @Test(dataProvider = "readers")
  public void theSeedsAreGood(String name, Path file, Object reader) throws IOException {
    assertTrue(((Reader) reader).read(Source.of(file)) instanceof Read.Whole<?>, name);
  }
}
