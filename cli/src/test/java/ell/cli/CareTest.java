package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Commands that could take something away, or half do what they were asked: they refuse, exit 2,
/// and everything is as it was, byte for byte.
public final class CareTest {
  private Path original;
  private Path dir;
  private String ws;

  @BeforeClass
  public void demo() throws IOException {
    System.setProperty("ell.demo", "../fixtures/marram");
    original = Files.createTempDirectory("care").resolve("demo.ell");
    good("demo-workspace", original.toString());
  }

  @BeforeMethod
  public void copy() throws IOException {
    dir = Files.createTempDirectory("care");
    Path file = dir.resolve("ws.ell");
    Files.copy(original, file, StandardCopyOption.REPLACE_EXISTING);
    ws = file.toString();
  }

  private static MainTest.Ran good(String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), 0, String.join(" ", args) + "\n" + r.err() + r.out());
    return r;
  }

  private String path(String name) {
    return dir.resolve(name).toString();
  }

  private Map<String, byte[]> everything() throws IOException {
    Map<String, byte[]> all = new TreeMap<>();
    try (Stream<Path> files = Files.walk(dir)) {
      for (Path p : files.filter(Files::isRegularFile).toList()) {
        // what a reader leaves beside an open workspace comes and goes
        if (!p.toString().matches(".*-(shm|wal|lock)")) {
          all.put(p.toString(), Files.readAllBytes(p));
        }
      }
    }
    return all;
  }

  private void refused(String words, String... args) throws IOException {
    Map<String, byte[]> before = everything();
    String head = good("verify", ws, "--json").json().get("head").stringValue();
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), 2, String.join(" ", args) + "\n" + r.out() + r.err());
    assertTrue(r.err().contains(words), r.err());
    assertFalse(r.err().contains("\tat "), r.err());
    assertFalse(r.err().contains("Unknown option"), r.err());
    Map<String, byte[]> after = everything();
    assertEquals(after.keySet(), before.keySet());
    before.forEach((k, v) -> assertEquals(after.get(k), v, k));
    assertEquals(good("verify", ws, "--json").json().get("head").stringValue(), head);
  }

  @Test
  public void outputsDoNotEatWhatIsThere() throws IOException {
    Path run = dir.resolve("run.csv");
    Files.copy(Path.of("../fixtures/marram/plate-run-1.csv"), run);
    Path mine = dir.resolve("mine.txt");
    Files.writeString(mine, "mine");
    String profile = run.toString();
    refused("is read by this command", "report", ws, "--board", "07", "--out", ws);
    refused("was not made by Ell", "report", ws, "--board", "07", "--out", mine.toString());
    refused("is read by this command", "profile", profile, "--pdf", profile);
    refused("is read by this command", "profile", profile, "--pdf", profile, "--force");
    refused("is a workspace", "profile", profile, "--pdf", ws, "--force");
    refused("belongs to the workspace", "profile", profile, "--pdf", ws + "-wal", "--force");
    refused("was not made by Ell", "shelf", ws, "--labels", mine.toString());
    refused("already there", "backup", ws, "--out", mine.toString());
    refused("is a folder", "report", ws, "--board", "07", "--out", dir.toString());
    good("report", ws, "--board", "07", "--out", mine.toString(), "--force");
    good("report", ws, "--board", "07", "--out", mine.toString());
    good("profile", profile, "--pdf", path("new.pdf"));
  }

  @DataProvider
  Object[][] halves() {
    String offers = "../fixtures/marram/offers.csv";
    return new Object[][] {
      {List.of("--count", "R4K7=5", "--received", "NOTHING THERE")},
      {List.of("--count", "R4K7=5", "--ordered", "R4K7=5@2026-99-99")},
      {List.of("--count", "R4K7=5", "--ordered", "R4K7=5@9999-01-01")},
      {List.of("--count", "R4K7=5", "--attrition", "nonsense")},
      {List.of("--attrition", "small=5%/2", "--count", "R4K7=minus")},
      {List.of("--attrition", "small=5%/2", "--replace", "/nowhere/shelf.csv")},
      // the offers are good and are kept first; the losses are not
      {List.of("--keep-offers", offers, "--attrition", "nonsense")},
      {List.of("--keep-offers", offers, "--parameters", offers)},
    };
  }

  @Test(dataProvider = "halves")
  public void aCommandThatFailsDidNothing(List<String> options) throws IOException {
    List<String> args = new ArrayList<>(List.of("shelf", ws));
    args.addAll(options);
    refused("", args.toArray(String[]::new));
  }

  @DataProvider
  Object[][] impossible() {
    return new Object[][] {
      {"3V3 1e308V", "no bench measures that"},
      {"3V3 -999999V", "no bench measures that"},
      {"U1 -300 °C", "no bench measures that"},
      {"C5 lost 999999", "say 1 to 9999"},
    };
  }

  @Test(dataProvider = "impossible")
  public void whatCannotBeIsRefusedWhereItIsTyped(String line, String words) throws IOException {
    refused(words, "log", ws, "--board", "07", line);
  }

  @Test
  public void portsAreThoseThatThereAre() throws IOException {
    refused(
        "a port is 0 (any free one) to 65535, found 99999", "bench-sim", ws, "--ports", "99999");
    refused("found -1", "bench-sim", ws, "--ports", "0,0,-1");
    refused("six, found 7", "bench-sim", ws, "--ports", "0,0,0,0,0,0,0");
    refused("'burnt U3' is no fault", "bench-sim", ws, "--fault", "burnt U3");
    refused("has no part 'U99'", "bench-sim", ws, "--board", "07", "--fault", "dead U99");
    refused("this bench has no scope", "bench-sim", ws, "--fault", "setting scope dc");
    for (String address : List.of("127.0.0.1:99999", "127.0.0.1:-4", "nowhere")) {
      refused("", "power", ws, "--board", "07", "--off", "--supply", address);
    }
  }

  @Test
  public void namesHaveBounds() throws IOException {
    String[] files = {
      "--bom",
      "../fixtures/odd/shield/bom.csv",
      "--placement",
      "../fixtures/odd/shield/placement.csv",
      "--netlist",
      "../fixtures/odd/shield/netlist.ipc"
    };
    for (String name : List.of("x".repeat(81), "a\u001b[2Jb", "a\nb", "a\u202eb")) {
      List<String> args = new ArrayList<>(List.of("import", ws, "--design", name));
      args.addAll(List.of("--revision", "1"));
      args.addAll(List.of(files));
      refused("the name of a design", args.toArray(String[]::new));
    }
    refused("1 to 1000 boards", build("1000000000", ""));
    refused("a prefix has up to 12", build("3", "a\tb"));
    refused("there is a board 101 already", takenByAnother());
  }

  private String[] build(String boards, String prefix) {
    return new String[] {
      "build", ws, "--design", "MG-1", "--revision", "B", "--boards", boards, "--prefix", prefix
    };
  }

  /// Boards 101 and 102 of one build, and then a build whose count would come to them.
  private String[] takenByAnother() {
    good(build("2", "1"));
    return build("100", "");
  }

  @Test
  public void controlCharactersAreShownNotSent() {
    good("log", ws, "--board", "07", "note a\u001b]0;title\u0007b\u009b31m\u202ec");
    MainTest.Ran r = good("show", ws, "--board", "07", "--log");
    assertFalse(r.out().contains("\u001b"), "no escape reaches the terminal");
    assertFalse(r.out().contains("\u009b") || r.out().contains("\u202e"));
    assertTrue(r.out().contains("a\u241b]0;title"), "it is shown");
  }

  /// A pipe or a device is no file; a pack of more than a milliard is no pack.
  @Test
  public void oddInputsAreSaid() throws IOException {
    if (Files.exists(Path.of("/dev/null"))) {
      refused("expected a plain file", "shelf", ws, "--keep-offers", "/dev/null");
    }
    Path offers = dir.resolve("offers.csv");
    Files.writeString(
        offers, "Seller,Code,Pack,Price,Days\nA,R4K7,4000000000,0.1,2\nB,R4K7,1,0.1,2\n");
    refused("expected at most 1000000000", "shelf", ws, "--keep-offers", offers.toString());
  }

  /// Photographs of one name, and one whose name would lead out of the folder.
  @Test
  public void photographsAreAllKeptAndStayInTheirFolder() throws IOException {
    byte[] png = {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10, 1};
    for (int i = 0; i < 3; i++) {
      Path in = Files.createDirectories(dir.resolve("in" + i)).resolve("joint.png");
      png[8] = (byte) i;
      Files.write(in, png);
      good("photo", ws, "--board", "07", "--place", "U1", in.toString());
    }
    for (int again = 0; again < 2; again++) {
      MainTest.Ran r =
          good("photo", ws, "--board", "07", "--place", "U1", "--out", path("out"), "--json");
      assertEquals(r.json().get("files").size(), 3);
      try (Stream<Path> out = Files.list(dir.resolve("out"))) {
        assertEquals(out.count(), 3, "all of them, and not twice");
      }
    }
  }

  /// A workspace that was received: the name of its photograph leads elsewhere.
  @Test
  public void aPhotographsNameLeadsNowhere() throws Exception {
    Path in = dir.resolve("joint.png");
    Files.write(in, new byte[] {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10, 7});
    good("photo", ws, "--board", "07", "--place", "U1", in.toString());
    try (ell.book.Book b = ell.book.Book.open(Path.of(ws), java.time.Clock.systemUTC())) {
      String sha = b.photographs().keySet().iterator().next();
      b.append("07", new ell.core.entry.Entry.Photo("U1", "../../escaped.png", sha));
    }
    good("photo", ws, "--board", "07", "--place", "U1", "--out", path("deep/er/out"));
    assertTrue(Files.exists(dir.resolve("deep/er/out/escaped.png")));
    try (Stream<Path> all = Files.walk(dir)) {
      assertTrue(
          all.filter(p -> p.toString().contains("escaped"))
              .allMatch(p -> p.startsWith(dir.resolve("deep/er/out"))));
    }
  }

  @Test
  public void aBackupGoesBackAndTheHeadHolds() throws IOException {
    String backup = path("backup.ell");
    good("backup", ws, "--out", backup);
    String head = good("verify", backup, "--json").json().get("head").stringValue();
    good("log", ws, "--board", "07", "note later");
    good("verify", ws, "--against", head);
    good("verify", ws, "--against", backup);
    good("export", ws, "--out", path("export"));
    good("verify", ws, "--against", path("export"));
    MainTest.Ran older = MainTest.ell("verify", backup, "--against", path("export"));
    assertEquals(older.code(), 1, older.out());
    MainTest.Ran cut = MainTest.ell("verify", backup, "--against", ws);
    assertEquals(cut.code(), 1);
    assertTrue(cut.out().contains("the book was cut"), cut.out());
    MainTest.Ran back = good("restore", backup, ws, "--json");
    assertTrue(Files.exists(Path.of(back.json().get("kept").stringValue())));
    assertEquals(good("verify", ws, "--json").json().get("head").stringValue(), head);
    refused("say: restore BACKUP WS", "restore", ws);
    refused("expected a head", "verify", ws, "--against", "nonsense");
    good("rescue", ws, path("rescued.ell"));
    assertEquals(
        good("verify", path("rescued.ell"), "--json").json().get("head").stringValue(), head);
  }
}
