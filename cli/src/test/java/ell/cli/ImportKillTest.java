package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.book.Book;
import ell.core.board.Part;
import ell.core.board.Revision;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import org.testng.annotations.Test;

/// A process that is killed while it takes corrected files in place of a revision leaves the old
/// one or the new one, whole, and a book that verifies.
public final class ImportKillTest {
  private static final Path PANEL = Path.of("../fixtures/odd/panel");

  private static List<String> bring(String ws, Path bom) {
    return List.of(
        "import",
        ws,
        "--design",
        "P",
        "--revision",
        "1",
        "--bom",
        bom.toString(),
        "--placement",
        PANEL.resolve("placement.csv").toString(),
        "--netlist",
        PANEL.resolve("netlist.ipc").toString());
  }

  private static Process started(List<String> arguments) throws IOException {
    List<String> line =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "--enable-native-access=ALL-UNNAMED",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                "ell.cli.Main"));
    line.addAll(arguments);
    return new ProcessBuilder(line)
        .redirectErrorStream(true)
        .redirectOutput(ProcessBuilder.Redirect.DISCARD)
        .start();
  }

  private static String value(Path ws) throws Exception {
    try (Book b = Book.openReadOnly(ws)) {
      assertTrue(b.verify().ok(), b.verify().message());
      Revision r = b.revision("P", "1").orElseThrow();
      assertEquals(r.parts().size(), 298);
      assertEquals(r.joints().size(), 674);
      Set<String> values = new TreeSet<>();
      r.parts().stream()
          .filter(p -> p.value().matches("1[25]0R"))
          .map(Part::value)
          .forEach(values::add);
      assertEquals(values.size(), 1, "half of each: " + values);
      return values.iterator().next();
    }
  }

  @Test(timeOut = 120_000)
  public void theOldOneOrTheNewOne() throws Exception {
    Path dir = Files.createTempDirectory("kill");
    Path fresh = dir.resolve("fresh.ell");
    assertEquals(MainTest.ell("new", fresh.toString()).code(), 0);
    assertEquals(
        MainTest.ell(bring(fresh.toString(), PANEL.resolve("bom.csv")).toArray(String[]::new))
            .code(),
        0);
    Path corrected = dir.resolve("bom.csv");
    Files.writeString(
        corrected, Files.readString(PANEL.resolve("bom.csv")).replace(",150R,", ",120R,"));
    long whole = 0;
    Set<String> seen = new TreeSet<>();
    for (int round = 0; round < 10; round++) {
      Path ws = dir.resolve("ws" + round + ".ell");
      Files.copy(fresh, ws);
      long began = System.nanoTime();
      Process p = started(bring(ws.toString(), corrected));
      if (round == 0) {
        assertTrue(p.waitFor(60, TimeUnit.SECONDS));
        assertEquals(p.exitValue(), 0);
        whole = System.nanoTime() - began;
        assertEquals(value(ws), "120R", "what was acknowledged is there");
        continue;
      }
      // most of the time goes into starting; what is written is written at the end
      p.waitFor(whole * (60 + 5L * round) / 100, TimeUnit.NANOSECONDS);
      p.destroyForcibly().waitFor();
      String now = value(ws);
      seen.add(now);
      if (p.exitValue() == 0) {
        assertEquals(now, "120R");
      }
    }
    assertTrue(Set.of("120R", "150R").containsAll(seen), seen.toString());
  }
}
