package ell.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.kit.ShelfLine;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.concurrent.CountDownLatch;
import org.flywaydb.core.Flyway;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class BookTest {
  static final Clock CLOCK = Clock.fixed(Instant.parse("2026-11-25T09:00:00.123Z"), ZoneOffset.UTC);
  private Path folder;
  private Path file;

  @BeforeMethod
  public void folder() throws IOException {
    folder = Files.createTempDirectory("book");
    file = folder.resolve("ws.ell");
  }

  static Revision revision(String design, String name) {
    Part r1 =
        new Part(
            "R1",
            "4k7",
            "0603",
            "R4K7",
            "a µ \"resistor\"",
            true,
            true,
            List.of("ALT1", "ALT2"),
            "supply",
            Optional.of(new Part.Spot(1.5, -2.25, 270, Side.SECOND)),
            0.004,
            0.01);
    Part off =
        new Part(
            "C9",
            "",
            "",
            "C",
            "",
            false,
            false,
            List.of(),
            "",
            Optional.empty(),
            Double.NaN,
            Double.NaN);
    Joint j =
        new Joint(
            "R1", "1", "3V3", 1, 2, Joint.Reach.SECOND, false, 0, true, 0.8, 0.9, 45, true, 1);
    Joint k =
        new Joint("R1", "2", "", 3, 2, Joint.Reach.BOTH, true, 1.1, false, 1.8, 1.8, 0, false, 0);
    Outline o =
        new Outline(
            List.of(
                List.of(
                    new Outline.Point(0, 0), new Outline.Point(9, 0), new Outline.Point(9, 9))));
    return new Revision(design, name, List.of(r1, off), List.of(j, k), o);
  }

  private static Entry note(String text) {
    return new Entry.Note(text);
  }

  @Test
  public void whatIsWrittenIsThereAfterReopening() throws IOException {
    Revision r = revision("MG-1", "B");
    List<ShelfLine> shelf =
        List.of(
            new ShelfLine(
                2, "R4K7", 10, "A1", 5, Optional.of(LocalDate.of(2026, 12, 3)), Optional.empty()),
            new ShelfLine(
                3, "R4K7", 4, "", 0, Optional.empty(), Optional.of(LocalDate.of(2027, 1, 1))));
    Logged first;
    String seal;
    try (Book b = Book.create(file, CLOCK)) {
      b.importAll(r, Optional.of(shelf), Map.of("ladder", "{\"ground\":\"GND\"}"));
      Build made = b.makeBuild("MG-1", "B", 3, "iron", "sac305", "", "");
      assertEquals(made.boards(), List.of("01", "02", "03"));
      first = b.append("02", note("first"));
      b.appendAll("02", List.of(note("second"), new Entry.Strike(1, "typo")));
      seal = b.seal();
    }
    try (Book b = Book.open(file, CLOCK)) {
      Revision back = b.revision("MG-1", "B").orElseThrow();
      assertEquals(back.parts(), r.parts());
      assertEquals(back.joints(), r.joints());
      assertEquals(back.outline(), r.outline());
      assertEquals(b.shelf(), shelf);
      assertEquals(b.document("MG-1", "B", "ladder"), Optional.of("{\"ground\":\"GND\"}"));
      assertEquals(b.entries("02").getFirst(), first);
      assertEquals(b.entries("02").size(), 3);
      assertTrue(b.entries("01").isEmpty());
      assertEquals(b.entry(2).orElseThrow().entry(), note("second"));
      assertEquals(b.size(), 3);
      assertEquals(b.seal(), seal);
      assertTrue(b.verify().ok());
      assertEquals(b.buildOf("03").orElseThrow().id(), 1);
      assertEquals(b.append("01", note("fourth")).number(), 4, "numbers go on");
    }
  }

  @Test
  public void aRevisionIsImportedOnceAndWhole() throws IOException {
    try (Book b = Book.create(file, CLOCK)) {
      b.importRevision(revision("MG-1", "B"));
      BookException twice =
          expectThrows(BookException.class, () -> b.importRevision(revision("MG-1", "B")));
      assertTrue(twice.getMessage().contains("already in"), twice.getMessage());
      b.importRevision(revision("MG-1", "C"));
      assertEquals(b.revisions().size(), 2);
      assertEquals(b.revision("MG-1", "Z"), Optional.empty());
    }
  }

  @Test
  public void serialsOfLaterBuildsGoOn() throws IOException {
    try (Book b = Book.create(file, CLOCK)) {
      b.importRevision(revision("MG-1", "B"));
      b.makeBuild("MG-1", "B", 3, "iron", "sac305", "", "");
      assertEquals(
          b.makeBuild("MG-1", "B", 2, "iron", "sac305", "", "").boards(), List.of("04", "05"));
      assertEquals(
          b.makeBuild("MG-1", "B", 2, "iron", "sac305", "A", "").boards(), List.of("A01", "A02"));
      assertEquals(
          b.makeBuild("MG-1", "B", 120, "iron", "sac305", "X", "").boards().getLast(), "X120");
      assertEquals(b.builds().size(), 4);
    }
  }

  @Test
  public void aBackupWhileOpenIsTheSameBook() throws IOException {
    Path copy = folder.resolve("copy.ell");
    try (Book b = Book.create(file, CLOCK)) {
      for (int i = 0; i < 50; i++) {
        b.append("01", note("n" + i));
      }
      b.backup(copy);
      b.append("01", note("later"));
      BookException there = expectThrows(BookException.class, () -> b.backup(copy));
      assertTrue(there.getMessage().contains("already there"));
      expectThrows(BookException.class, () -> b.backup(folder.resolve("none/copy.ell")));
    }
    try (Book c = Book.open(copy, CLOCK)) {
      assertEquals(c.size(), 50);
      assertTrue(c.verify().ok());
    }
    try (var left = Files.list(folder)) {
      assertTrue(left.noneMatch(p -> p.toString().endsWith(".new")), "no half copies");
    }
  }

  @Test
  public void oneWriterAtATimeAndReadersComeAlong() throws IOException {
    try (Book writer = Book.create(file, CLOCK)) {
      BookException second = expectThrows(BookException.class, () -> Book.open(file, CLOCK));
      assertTrue(second.getMessage().contains("open for writing elsewhere"), second.getMessage());
      writer.append("01", note("a"));
      try (Book reader = Book.openReadOnly(file)) {
        assertEquals(reader.size(), 1);
        assertTrue(reader.readOnly());
        writer.append("01", note("b"));
        assertEquals(reader.entries("01").size(), 2, "a reader sees what is written meanwhile");
        BookException e = expectThrows(BookException.class, () -> reader.append("01", note("c")));
        assertTrue(e.getMessage().contains("looked at only"));
      }
    }
    Book.open(file, CLOCK).close();
  }

  @DataProvider
  Object[][] notWorkspaces() {
    return new Object[][] {
      {"text", "hello", "is not a workspace"},
      {"nothing", "", "is not a workspace"},
      {"head only", "SQLite format 3\0", "damaged"},
    };
  }

  @Test(dataProvider = "notWorkspaces")
  public void otherFilesAreTold(String name, String content, String says) throws IOException {
    Files.writeString(file, content);
    BookException e = expectThrows(BookException.class, () -> Book.open(file, CLOCK));
    assertTrue(
        e.getMessage().contains(says) || e.getMessage().contains("not a workspace"),
        e.getMessage());
    assertEquals(Files.readString(file), content, "it is left as it was");
    expectThrows(BookException.class, () -> Book.openReadOnly(file));
  }

  @Test
  public void missingFoldersNewerAndForeignFiles() throws IOException, SQLException {
    assertTrue(
        expectThrows(BookException.class, () -> Book.open(file, CLOCK))
            .getMessage()
            .contains("there is no workspace"));
    assertTrue(
        expectThrows(BookException.class, () -> Book.open(folder, CLOCK))
            .getMessage()
            .contains("is a folder"));
    assertTrue(
        expectThrows(BookException.class, () -> Book.create(folder.resolve("a/b.ell"), CLOCK))
            .getMessage()
            .contains("no folder"));
    Book.create(file, CLOCK).close();
    assertTrue(
        expectThrows(BookException.class, () -> Book.create(file, CLOCK))
            .getMessage()
            .contains("already there"));
    sql(file, "PRAGMA user_version = 99");
    assertTrue(
        expectThrows(BookException.class, () -> Book.open(file, CLOCK))
            .getMessage()
            .contains("newer Ell"));
    Path foreign = folder.resolve("other.db");
    sql(foreign, "CREATE TABLE t (x)");
    assertTrue(
        expectThrows(BookException.class, () -> Book.open(foreign, CLOCK))
            .getMessage()
            .contains("a database, but not a workspace"));
  }

  /// One of the version before errata is looked at as it is, and knows its boards all the same.
  @Test
  public void aVersionThatOnlyFindsThingsLaterIsLookedAt() throws Exception {
    Flyway.configure(Book.class.getClassLoader())
        .dataSource("jdbc:sqlite:" + file, null, null)
        .locations("classpath:ell/book/migration")
        .target("4")
        .load()
        .migrate();
    try (Book b = Book.openReadOnly(file)) {
      assertEquals(b.boardsWithErrata(), List.of());
    }
    try (Book b = Book.open(file, CLOCK)) {
      b.append("07", new Entry.Note("kind: erratum"));
      b.append("09", new Entry.ErratumSaid("E1", "closed", "why"));
      assertEquals(b.boardsWithErrata(), List.of("09"));
    }
    try (Book b = Book.openReadOnly(file)) {
      assertEquals(b.boardsWithErrata(), List.of("09"));
      assertTrue(b.verify().ok());
    }
  }

  /// A workspace of the first version, as its tables were, is brought up to date when it is opened
  /// for writing: nothing is lost, and its shelf counts as of the last entry that it had.
  @Test
  public void theFirstVersionIsBroughtUpToDate() throws Exception {
    Flyway.configure(Book.class.getClassLoader())
        .dataSource("jdbc:sqlite:" + file, null, null)
        .locations("classpath:ell/book/migration")
        .target("1")
        .load()
        .migrate();
    sql(
        file,
        "INSERT INTO revision VALUES (1, 'MG-1', 'B', '2026-11-01T00:00Z')",
        "INSERT INTO part VALUES (1,0,'R1','10k','0603','R10K','',1,0,'ALT','supply',1,2,0,0,NULL,NULL)",
        "INSERT INTO build (id, revision, method, alloy, made) VALUES (1,1,'iron','sac305','x')",
        "INSERT INTO board VALUES ('01',1,0)",
        "INSERT INTO shelf VALUES (1,2,'R10K',25,'A1',5,'2026-12-03',NULL)");
    assertTrue(
        expectThrows(BookException.class, () -> Book.openReadOnly(file))
            .getMessage()
            .contains("older version"));
    try (Book b = Book.open(file, CLOCK)) {
      assertEquals(b.builds().getFirst().variant(), "");
      ShelfLine l = b.shelf().getFirst();
      assertEquals(l.quantity(), 25);
      assertEquals(l.kind(), ShelfLine.Kind.PART);
      assertEquals(l.since(), 0);
      assertEquals(
          b.revision("MG-1", "B").orElseThrow().parts().getFirst().alternates(), List.of("ALT"));
      b.append("01", new Entry.Note("goes on"));
      assertTrue(b.verify().ok());
    }
    try (Book b = Book.openReadOnly(file)) {
      assertEquals(b.size(), 1);
    }
  }

  /// What is known of parts and what is kept is replaced whole, and is there again after a restart.
  @Test
  public void parametersAndKeepsakes() throws Exception {
    try (Book b = Book.create(file, CLOCK)) {
      b.putParameters(
          Map.of(
              "A", Map.of("voltage", "5 V", "outline", "0603"),
              "B", Map.of("voltage", "9 V")));
      b.putParameters(Map.of("A", Map.of("voltage", "6 V")));
      b.putKeepsake("offers", "one");
      b.putKeepsake("offers", "two");
      b.append("", new Entry.Note("a count makes the shelf newer"));
      b.replaceShelf(List.of(new ShelfLine(1, "A", 4, "", 0, Optional.empty(), Optional.empty())));
    }
    try (Book b = Book.openReadOnly(file)) {
      assertEquals(b.parameters("A"), Map.of("voltage", "6 V"));
      assertEquals(b.codesWithParameters(), List.of("A", "B"));
      assertEquals(b.keepsake("offers"), Optional.of("two"));
      assertEquals(b.keepsake("none"), Optional.empty());
      assertEquals(b.shelf().getFirst().since(), 1);
    }
  }

  private static void sql(Path file, String... statements) throws SQLException {
    try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + file);
        Statement s = c.createStatement()) {
      for (String one : statements) {
        s.execute(one);
      }
    }
  }

  @Test
  public void aDamagedFileIsTold() throws IOException {
    try (Book b = Book.create(file, CLOCK)) {
      for (int i = 0; i < 300; i++) {
        b.append("01", note("entry with some words in it, number " + i));
      }
    }
    byte[] bytes = Files.readAllBytes(file);
    Arrays.fill(bytes, 4096 * 3, bytes.length - 100, (byte) 0x5a);
    Files.write(file, bytes, StandardOpenOption.TRUNCATE_EXISTING);
    IOException e =
        expectThrows(
            IOException.class,
            () -> {
              try (Book b = Book.openReadOnly(file)) {
                if (b.verify().ok()) {
                  throw new AssertionError("a damaged book was found good");
                }
                throw new IOException("found by verify");
              }
            });
    assertTrue(
        e.getMessage().contains("damaged") || e.getMessage().contains("verify"), e.getMessage());
  }

  @Test
  public void aFullDiskLosesNothingThatWasAcknowledged() throws IOException, SQLException {
    List<Long> acknowledged = new ArrayList<>();
    try (Book b = Book.create(file, CLOCK)) {
      acknowledged.add(b.append("01", note("before")).number());
      b.noMorePages();
      BookException full = null;
      for (int i = 0; i < 10_000 && full == null; i++) {
        try {
          acknowledged.add(b.append("01", note("x".repeat(500))).number());
        } catch (BookException e) {
          full = e;
        }
      }
      assertTrue(
          full != null && full.getMessage().contains("the disk is full"), String.valueOf(full));
      assertEquals(b.size(), acknowledged.size(), "what failed is not counted");
      assertTrue(b.verify().ok());
    }
    try (Book b = Book.open(file, CLOCK)) {
      assertEquals(b.entries("01").size(), acknowledged.size());
      assertTrue(b.verify().ok());
      assertEquals(b.append("01", note("after")).number(), acknowledged.size() + 1);
    }
  }

  /// The tables refuse to change what is written, and a file that was changed behind their back
  /// shows.
  @Test
  public void changedEntriesShow() throws IOException, SQLException {
    try (Book b = Book.create(file, CLOCK)) {
      for (int i = 0; i < 20; i++) {
        b.append("0" + i % 3, note("n" + i));
      }
    }
    for (String refused :
        List.of(
            "UPDATE entry SET body = 'x' WHERE number = 5",
            "DELETE FROM entry WHERE number = 5",
            "INSERT OR REPLACE INTO entry VALUES (5, '2026', '01', 'x', x'00')")) {
      SQLException e = expectThrows(SQLException.class, () -> sql(file, refused));
      assertTrue(e.getMessage().contains("append-only"), e.getMessage());
    }
    Path copy = folder.resolve("copy.ell");
    for (String change :
        List.of(
            "UPDATE entry SET body = replace(body, 'n6', 'n7') WHERE number = 7",
            "UPDATE entry SET at = '2020-01-01T00:00:00Z' WHERE number = 7",
            "UPDATE entry SET board = '99' WHERE number = 7",
            "DELETE FROM entry WHERE number = 7",
            "UPDATE entry SET number = number + 100 WHERE number >= 7")) {
      Files.deleteIfExists(copy);
      try (Book b = Book.openReadOnly(file)) {
        b.backup(copy);
      }
      sql(copy, "DROP TRIGGER entry_no_update", "DROP TRIGGER entry_no_delete", change);
      try (Book b = Book.openReadOnly(copy)) {
        Verification v = b.verify();
        assertFalse(v.ok(), change);
        assertEquals(v.firstBad(), OptionalLong.of(7), change);
      }
    }
  }

  @Test
  public void manyThreadsWriteOneChain() throws Exception {
    try (Book b = Book.create(file, CLOCK)) {
      CountDownLatch go = new CountDownLatch(1);
      List<Thread> threads = new ArrayList<>();
      for (int t = 0; t < 4; t++) {
        String board = "0" + t;
        threads.add(
            Thread.ofPlatform()
                .start(() -> {
                  try {
                    go.await();
                    for (int i = 0; i < 40; i++) {
                      b.append(board, note("n" + i));
                    }
                  } catch (Exception e) {
                    throw new IllegalStateException(e);
                  }
                }));
      }
      go.countDown();
      for (Thread t : threads) {
        t.join();
      }
      assertEquals(b.size(), 160);
      assertTrue(b.verify().ok());
    }
  }

  @Test
  public void documentsReplaceTheOneBefore() throws IOException {
    try (Book b = Book.create(file, CLOCK)) {
      b.importRevision(revision("MG-1", "B"));
      assertEquals(b.document("MG-1", "B", "ladder"), Optional.empty());
      b.putDocument("MG-1", "B", "ladder", "{1}");
      b.putDocument("MG-1", "B", "ladder", "{2}");
      assertEquals(b.document("MG-1", "B", "ladder"), Optional.of("{2}"));
      b.replaceShelf(List.of());
      assertTrue(b.shelf().isEmpty());
    }
  }
}
