package ell.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.entry.Entry;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.MessageDigest;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// A workspace that somebody changed, cut, damaged, linked or laid a backup over: it is found out,
/// said in a sentence, and what can be read is read.
public final class DamageTest {
  private static final Clock CLOCK =
      Clock.fixed(Instant.parse("2026-11-25T10:00:00Z"), ZoneOffset.UTC);
  private static final byte[] PICTURE = "not really a picture".getBytes(StandardCharsets.UTF_8);

  private Path dir;
  private Path file;
  private Head head;

  @BeforeMethod
  public void make() throws Exception {
    dir = Files.createTempDirectory("damage");
    file = dir.resolve("ws.ell");
    try (Book b = Book.create(file, CLOCK)) {
      b.importAll(BookTest.revision("MG-1", "B"), Optional.of(List.of()), Map.of("ladder", "{}"));
      b.makeBuild("MG-1", "B", 3, "iron", "sac305", "", "");
      b.putKeepsake("offers", "A,B\n1,2\n");
      b.putParameters(Map.of("R4K7", Map.of("power", "0.1W")));
      for (int i = 0; i < 60; i++) {
        b.append("0" + (1 + i % 3), new Entry.Note("note " + i + " " + "x".repeat(60)));
      }
      b.keepPhotograph("01", new Entry.Photo("U1", "a.jpg", sha256(PICTURE)), PICTURE);
      assertTrue(b.verify().ok(), b.verify().message());
      assertTrue(b.verify().message().contains("1 photographs"), b.verify().message());
      head = b.head();
    }
  }

  private static String sha256(byte[] body) throws Exception {
    return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(body));
  }

  /// Changes the file behind Ell's back, past its triggers, and puts those back.
  private void tamper(String... statements) throws Exception {
    try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + file);
        Statement s = c.createStatement()) {
      List<String> triggers = new java.util.ArrayList<>();
      try (var r = s.executeQuery("SELECT sql FROM sqlite_master WHERE type = 'trigger'")) {
        while (r.next()) {
          triggers.add(r.getString(1));
        }
      }
      List<String> names = new java.util.ArrayList<>();
      try (var r = s.executeQuery("SELECT name FROM sqlite_master WHERE type = 'trigger'")) {
        while (r.next()) {
          names.add(r.getString(1));
        }
      }
      for (String n : names) {
        s.execute("DROP TRIGGER " + n);
      }
      for (String t : statements) {
        s.execute(t);
      }
      for (String t : triggers) {
        s.execute(t);
      }
    }
  }

  @DataProvider
  Object[][] changes() {
    return new Object[][] {
      {"UPDATE part SET value = '47k' WHERE reference = 'R1'", "parts and joints of MG-1 rev B"},
      {"DELETE FROM joint WHERE pin = '2'", "parts and joints of MG-1 rev B"},
      {"UPDATE corner SET x = 10 WHERE position = 1", "parts and joints of MG-1 rev B"},
      {"UPDATE document SET body = '{\"ground\":\"VIN\"}'", "kept with MG-1 rev B"},
      {"UPDATE build SET method = 'stencil-plate'", "builds"},
      {"DELETE FROM board WHERE serial = '02'", "builds"},
      {"UPDATE keepsake SET body = 'A,B'", "keepsakes"},
      {"DELETE FROM parameter", "parameters"},
      {"INSERT INTO parameter VALUES ('X', 'y', 'z')", "parameters"},
      {"UPDATE photograph SET body = x'00'", "photograph 'a.jpg' is not as it was kept"},
      {"DELETE FROM photograph", "a photograph that the book names is missing"},
      {"UPDATE entry SET board = '03' WHERE number = 7", "entry 7 is not as it was written"},
      {"DELETE FROM entry WHERE number = 9", "entry 9 is not as it was written"},
      {"DELETE FROM seal WHERE number = 2", "seal 2 is not as it was written"},
      {"UPDATE seal SET body = x'00' WHERE number = 1", "seal 1 is not as it was written"},
    };
  }

  @Test(dataProvider = "changes")
  public void everyChangeShows(String change, String words) throws Exception {
    tamper(change);
    try (Book b = Book.openReadOnly(file)) {
      Verification v = b.verify();
      assertFalse(v.ok(), change);
      assertTrue(v.message().contains(words), v.message());
    }
  }

  /// A chain that lost its last entries is a shorter chain, and whole; a head that was kept
  /// elsewhere knows better, also when others were written in their place.
  @Test
  public void aTailThatIsCutOffShows() throws Exception {
    tamper("DELETE FROM entry WHERE number > 40", "DELETE FROM photograph");
    try (Book b = Book.openReadOnly(file)) {
      assertTrue(b.verify().ok(), "a chain alone cannot know how long it was");
      assertEquals(
          head.against(b).orElseThrow(), "the book was cut: it holds 40 entries, and held 61");
    }
    try (Book b = Book.open(file, CLOCK)) {
      for (int i = 0; i < 30; i++) {
        b.append("01", new Entry.Note("made up"));
      }
      assertEquals(
          head.against(b).orElseThrow(), "the book was written anew: entry 61 is another one");
    }
  }

  /// Where tables were sealed after the entries that are gone, the seals know of them.
  @Test
  public void sealsKnowOfEntriesThatAreGone() throws Exception {
    try (Book b = Book.open(file, CLOCK)) {
      b.putKeepsake("offers", "again");
    }
    tamper("DELETE FROM entry WHERE number > 40", "DELETE FROM photograph");
    try (Book b = Book.openReadOnly(file)) {
      assertTrue(b.verify().message().contains("it held 61 entries when"), b.verify().message());
    }
  }

  @Test
  public void aHeadIsReadAsItIsPrinted() throws Exception {
    try (Book b = Book.openReadOnly(file)) {
      assertEquals(Head.of(head.toString()).against(b), Optional.empty());
      assertEquals(Head.of(file.toString()).against(b), Optional.empty());
      assertTrue(Head.of("61:00000000").against(b).isPresent());
      assertEquals(Head.of("0:00000000").against(b), Optional.empty());
    }
    for (String wrong : List.of("61", "61:abc", "nonsense", "61:zzzzzzzz")) {
      assertTrue(
          expectThrows(BookException.class, () -> Head.of(wrong))
              .getMessage()
              .contains("expected a head"));
    }
  }

  @DataProvider
  Object[][] planted() {
    return new Object[][] {
      {
        "CREATE TRIGGER quiet AFTER INSERT ON entry BEGIN DELETE FROM shelf; END",
        "a trigger 'quiet'"
      },
      {"CREATE VIEW seen AS SELECT * FROM entry", "a view 'seen'"},
      {
        "CREATE TRIGGER swallow BEFORE INSERT ON entry BEGIN SELECT RAISE(IGNORE); END",
        "a trigger 'swallow'"
      },
    };
  }

  @Test(dataProvider = "planted")
  public void whatWasPlantedIsRefusedAtTheDoor(String sql, String words) throws Exception {
    try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + file);
        Statement s = c.createStatement()) {
      s.execute(sql);
    }
    for (BookException e :
        List.of(
            expectThrows(BookException.class, () -> Book.open(file, CLOCK)),
            expectThrows(BookException.class, () -> Book.openReadOnly(file)))) {
      assertTrue(e.getMessage().contains(words), e.getMessage());
    }
    Rescue r = Rescue.read(file);
    assertEquals(r.contents().entries().size(), 61, "it can still be rescued");
  }

  /// An insert that does nothing is not taken for one that did.
  @Test
  public void anAppendThatWroteNothingIsNotAcknowledged() throws Exception {
    try (Book b = Book.open(file, CLOCK)) {
      try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + file);
          Statement s = c.createStatement()) {
        s.execute("CREATE TRIGGER swallow BEFORE INSERT ON entry BEGIN SELECT RAISE(IGNORE); END");
      }
      long before = b.size();
      assertTrue(
          expectThrows(BookException.class, () -> b.append("01", new Entry.Note("lost")))
              .getMessage()
              .contains("was not written"));
      assertEquals(b.size(), before);
      try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + file);
          Statement s = c.createStatement()) {
        s.execute("DROP TRIGGER swallow");
      }
      assertEquals(b.append("01", new Entry.Note("kept")).number(), before + 1);
    }
  }

  @Test
  public void aSecondNameIsRefusedAndALinkIsFollowed() throws Exception {
    Path link = dir.resolve("link.ell");
    Files.createSymbolicLink(link, file);
    try (Book b = Book.open(file, CLOCK)) {
      BookException e = expectThrows(BookException.class, () -> Book.open(link, CLOCK));
      assertTrue(e.getMessage().contains("open for writing elsewhere"), e.getMessage());
      assertEquals(b.append("01", new Entry.Note("not frozen")).number(), 62);
    }
    try (Book b = Book.open(link, CLOCK)) {
      assertEquals(b.append("01", new Entry.Note("by its link")).number(), 63);
      assertFalse(Files.exists(dir.resolve("link.ell-wal")));
    }
    Path second = dir.resolve("second.ell");
    Files.createLink(second, file);
    for (Path p : List.of(file, second)) {
      assertTrue(
          expectThrows(BookException.class, () -> Book.open(p, CLOCK))
              .getMessage()
              .contains("a second name"));
    }
    Files.delete(second);
    Book.open(file, CLOCK).close();
  }

  /// Asking a second time in one program must not let go of the lock for another.
  @Test(timeOut = 60_000)
  public void theLockHoldsAgainstOtherPrograms() throws Exception {
    try (Book b = Book.open(file, CLOCK)) {
      expectThrows(BookException.class, () -> Book.open(file, CLOCK));
      Book.openReadOnly(file).close();
      Process p =
          new ProcessBuilder(
                  Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                  "--enable-native-access=ALL-UNNAMED",
                  "-cp",
                  System.getProperty("java.class.path"),
                  KillTest.Writer.class.getName(),
                  file.toString())
              .redirectErrorStream(true)
              .start();
      String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      assertTrue(p.waitFor() != 0 && said.contains("open for writing elsewhere"), said);
      assertEquals(b.append("01", new Entry.Note("mine")).number(), 62);
    }
  }

  /// A disk that was full once: the same open book goes on when there is room.
  @Test
  public void aFullDiskIsOverWhenThereIsRoom() throws Exception {
    try (Book b = Book.open(file, CLOCK)) {
      for (int round = 0; round < 3; round++) {
        long before = b.size();
        b.noMorePages();
        BookException full =
            expectThrows(
                BookException.class,
                () -> {
                  for (int i = 0; i < 5000; i++) {
                    b.appendAll(
                        "01",
                        List.of(new Entry.Note("a".repeat(900)), new Entry.Note("b".repeat(900))));
                  }
                });
        assertTrue(full.getMessage().contains("the disk is full"), full.getMessage());
        assertTrue(b.size() >= before && (b.size() - before) % 2 == 0, "both or none");
        assertTrue(b.verify().ok(), b.verify().message());
        long next = b.size() + 1;
        assertEquals(b.append("01", new Entry.Note("room again")).number(), next);
        b.putKeepsake("offers", "round " + round);
      }
      assertTrue(b.verify().ok(), b.verify().message());
    }
  }

  /// Bytes of the file are overwritten at random places: it opens or says why, never with a stack
  /// trace, and what can be read comes over.
  @Test(timeOut = 120_000)
  public void damagedPagesAreSaidAndTheRestIsRescued() throws Exception {
    Random random = new Random(4);
    byte[] good = Files.readAllBytes(file);
    int rescued = 0;
    int bad = 0;
    for (int round = 0; round < 60; round++) {
      Path hurt = dir.resolve("hurt-" + round + ".ell");
      Files.write(hurt, good);
      try (RandomAccessFile f = new RandomAccessFile(hurt.toFile(), "rw")) {
        for (int k = 0; k < 1 + random.nextInt(3); k++) {
          byte[] noise = new byte[1 + random.nextInt(400)];
          random.nextBytes(noise);
          f.seek(100 + random.nextInt(good.length - 600));
          f.write(noise);
        }
      }
      try (Book b = Book.openReadOnly(hurt)) {
        bad += b.verify().ok() ? 0 : 1;
        b.entries("01");
      } catch (BookException e) {
        assertTrue(e.getMessage().contains(hurt.toString()), e.getMessage());
        bad++;
      }
      try {
        Rescue r = Rescue.read(hurt);
        Path out = dir.resolve("out-" + round + ".ell");
        try (Book b = Book.create(out, CLOCK)) {
          b.restore(r.contents());
          assertTrue(b.verify().ok(), b.verify().message());
          assertEquals(b.size(), r.contents().entries().size());
          rescued += (int) b.size();
        }
      } catch (BookException e) {
        assertTrue(e.getMessage().contains("damaged"), e.getMessage());
      }
    }
    assertTrue(bad >= 20, "found in " + bad);
    assertTrue(rescued > 60 * 61 / 3, "entries that came over: " + rescued);
  }

  /// After a crash entries wait beside the file. A backup that is laid over it by hand is not
  /// spoilt by them, and what is there is kept when it is put back rightly.
  @Test
  public void aBackupIsNotSpoiltByWhatACrashLeft() throws Exception {
    Path backup = dir.resolve("backup.ell");
    Path crashed = dir.resolve("crashed.ell");
    try (Book b = Book.open(file, CLOCK)) {
      b.backup(backup);
      for (int i = 0; i < 40; i++) {
        b.append("02", new Entry.Note("after the backup " + i + "y".repeat(200)));
      }
      // as a crash leaves it: the file, and beside it what waits
      for (String end : List.of("", "-wal")) {
        Files.copy(dir.resolve("ws.ell" + end), dir.resolve("crashed.ell" + end));
      }
    }
    try (Book b = Book.openReadOnly(crashed)) {
      assertEquals(b.size(), 101, "what waits belongs to it");
    }
    byte[] good = Files.readAllBytes(backup);
    Files.copy(backup, crashed, StandardCopyOption.REPLACE_EXISTING);
    Files.copy(file, dir.resolve("x"));
    for (BookException e :
        List.of(
            expectThrows(BookException.class, () -> Book.open(crashed, CLOCK)),
            expectThrows(BookException.class, () -> Book.openReadOnly(crashed)))) {
      assertTrue(e.getMessage().contains("restore BACKUP"), e.getMessage());
    }
    assertEquals(Files.readAllBytes(crashed), good, "it was not touched");
    Path kept = Book.putBack(backup, crashed).orElseThrow();
    try (Book b = Book.open(crashed, CLOCK)) {
      assertEquals(b.size(), 61);
      assertTrue(b.verify().ok());
      assertEquals(head.against(b), Optional.empty());
    }
    assertTrue(
        Files.exists(kept) && Files.exists(kept.resolveSibling(kept.getFileName() + "-wal")));
    assertEquals(Book.putBack(backup, dir.resolve("new.ell")), Optional.empty());
  }

  @Test
  public void aBackupThatDoesNotHoldIsNotPutBack() throws Exception {
    Path backup = dir.resolve("backup.ell");
    try (Book b = Book.openReadOnly(file)) {
      b.backup(backup);
    }
    Path real = file;
    file = backup;
    tamper("UPDATE entry SET body = '{}' WHERE number = 3");
    file = real;
    byte[] before = Files.readAllBytes(real);
    BookException e = expectThrows(BookException.class, () -> Book.putBack(backup, real));
    assertTrue(e.getMessage().contains("does not hold"), e.getMessage());
    assertEquals(Files.readAllBytes(real), before);
    try (Book b = Book.open(real, CLOCK)) {
      assertTrue(b.size() > 0);
      assertTrue(
          expectThrows(BookException.class, () -> Book.putBack(real, real))
              .getMessage()
              .contains("elsewhere"));
    }
  }

  /// The user's own files beside are nobody's business.
  @Test
  public void filesOfOthersBesideAreLeftAlone() throws IOException {
    Path theirs = dir.resolve("copy.ell.new");
    Files.writeString(theirs, "mine");
    try (Book b = Book.openReadOnly(file)) {
      b.backup(dir.resolve("copy.ell"));
    }
    Path other = dir.resolve("made.ell.new");
    Files.writeString(other, "mine too");
    Book.create(dir.resolve("made.ell"), CLOCK).close();
    assertEquals(Files.readString(theirs), "mine");
    assertEquals(Files.readString(other), "mine too");
    try (var all = Files.list(dir)) {
      assertTrue(all.noneMatch(p -> p.getFileName().toString().endsWith(".part")));
    }
  }

  /// A file of an older Ell is sealed as it is found, once.
  @Test
  public void anOlderFileIsSealedWhenItIsOpened() throws Exception {
    tamper("DELETE FROM seal");
    try (Book b = Book.openReadOnly(file)) {
      assertFalse(b.verify().ok(), "nothing is sealed");
    }
    try (Book b = Book.open(file, CLOCK)) {
      assertTrue(b.verify().ok(), b.verify().message());
    }
  }
}
