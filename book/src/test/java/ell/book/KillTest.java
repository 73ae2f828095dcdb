package ell.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.testng.annotations.Test;

/// The program is killed (SIGKILL) in the middle of appending, again and again: every entry that it
/// said was written is there, and the chain is whole.
public class KillTest {
  /// Appends entries as fast as it can and says each number once it is on disk.
  static final class Writer {
    private Writer() {}

    public static void main(String[] args) throws IOException {
      try (Book b = Book.open(Path.of(args[0]), Clock.systemUTC())) {
        for (int i = 0; i < 1_000_000; i++) {
          long last;
          if (i % 5 == 4) {
            List<Entry> pair = List.of(new Entry.Note("a" + i), new Entry.Note("b" + i));
            List<Logged> both = b.appendAll("01", pair);
            last = both.getLast().number();
          } else {
            last = b.append("01", new Entry.Note("entry " + i)).number();
          }
          System.out.println(last);
          System.out.flush();
        }
      }
    }
  }

  @Test(timeOut = 120_000)
  public void nothingAcknowledgedIsLost() throws Exception {
    Path file = Files.createTempDirectory("kill").resolve("ws.ell");
    Book.create(file, Clock.systemUTC()).close();
    Random random = new Random(99);
    for (int round = 0; round < 6; round++) {
      Process p =
          new ProcessBuilder(
                  Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                  "--enable-native-access=ALL-UNNAMED",
                  "-cp",
                  System.getProperty("java.class.path"),
                  Writer.class.getName(),
                  file.toString())
              .redirectError(ProcessBuilder.Redirect.DISCARD)
              .start();
      long acknowledged = 0;
      int enough = 20 + random.nextInt(150);
      try (BufferedReader said = p.inputReader()) {
        String line = "";
        for (int i = 0; i < enough && line != null; i++) {
          line = said.readLine();
          acknowledged = line == null ? acknowledged : Long.parseLong(line);
        }
        assertEquals(
            new ProcessBuilder("kill", "-9", String.valueOf(p.pid())).start().waitFor(), 0);
        // what was still said before it died counts as well
        while ((line = said.readLine()) != null) {
          if (line.matches("\\d+")) {
            acknowledged = Long.parseLong(line);
          }
        }
      }
      assertTrue(p.waitFor(20, TimeUnit.SECONDS));
      assertTrue(acknowledged > 0, "the writer wrote");
      try (Book b = Book.open(file, Clock.systemUTC())) {
        assertTrue(b.size() >= acknowledged, b.size() + " of " + acknowledged);
        Verification v = b.verify();
        assertTrue(v.ok(), v.message());
        pairsAreWhole(b);
      }
    }
  }

  /// Two entries of one transaction are both there or both not.
  private static void pairsAreWhole(Book b) throws IOException {
    String open = "";
    for (Logged l : b.entries("01")) {
      String text = ((Entry.Note) l.entry()).text();
      if (!open.isEmpty()) {
        assertEquals(text, "b" + open);
        open = "";
      } else if (text.startsWith("a")) {
        open = text.substring(1);
      }
    }
    assertEquals(open, "", "the last pair is whole");
  }

  /// An import that is killed leaves nothing of itself.
  @Test
  public void anImportThatFailsLeavesNothing() throws IOException {
    Path file = Files.createTempDirectory("half").resolve("ws.ell");
    try (Book b = Book.create(file, Clock.systemUTC())) {
      b.importRevision(BookTest.revision("A", "1"));
      try {
        // the same names: refused inside the transaction or before it, in either case whole
        b.importAll(
            BookTest.revision("A", "1"),
            java.util.Optional.of(List.of()),
            java.util.Map.of("ladder", "{}"));
        throw new AssertionError("it should have been refused");
      } catch (BookException e) {
        assertEquals(b.revisions().size(), 1);
        assertEquals(b.document("A", "1", "ladder"), java.util.Optional.empty());
      }
    }
  }
}
