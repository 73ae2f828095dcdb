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

  /// Constructs that the demo has none of.
  private static final String LAYER =
      "G04 100% of it*\n%ADD10C,0.5*%\n%MOMM*%\n%FSLAX36Y36*%\n%AMA box*21,1,$1,$2,0,0,0,*%\n"
          + "%ADD11A box,1X0.5*%\n%ADD12R,0X0*%\n%ADD13C,1X0.4X0.2*%\nD10*\nX0Y0D02*\n"
          + "G03X1000000Y1000000I1000000J0D01*\nG01X0Y0D01\nX500000Y0D01*\nD11*\nX3000000Y0D03*\n"
          + "D13\nX5000000Y0D03*\n%LPC*\nD12*\nX0Y0D03*\nM02";

  private static final String HOLES =
      "M48\n; T2 1.0mm\nT1C0.8F200\nINCH\n%\nT1X0125Y001\nM25\nX012Y0345\nM01\nM02X05\nM08\n"
          + "T2\nX05Y05\nG85X06Y05\nG00X1Y1\nM15\nG01X2Y1\nM16\nG05\nR3X01\nM00\n";

  private static final String LOG =
      "Date,Time,Phase,T1\n,,,F\n11/26/2026,11:59:59 AM,preheat,77\n11/26/2026,11:59:59 AM,soak,78\n"
          + "11/26/2026,12:00:01 PM,soak,300\nMax,,,300\n";

  private static Path written(String name, String text) {
    try {
      Path file = Files.createTempDirectory("seed").resolve(name);
      return Files.writeString(file, text);
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

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
      {"layer in the wild", written("layer.gbr", LAYER), (Reader) GerberReader::read},
      {"holes in the wild", written("holes.drl", HOLES), (Reader) DrillReader::read},
      {"log in the wild", written("log.csv", LOG), (Reader) ProfileReader::read},
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
