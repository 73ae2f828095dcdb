package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import ell.book.LocalServer;
import ell.book.Place;
import ell.core.entry.Entry;
import ell.work.Workshop;
import ell.work.page.PageServer;
import java.net.http.HttpClient;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.SkipException;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// A workspace on a server through the command line: every command takes an address where it takes
/// a file and answers the same; moving there and back, hands, outbox, people, bad input.
public final class BenchesTest {
  private static final Path ODD = Path.of("../fixtures/odd");
  private Path folder;
  private LocalServer server;

  @BeforeClass
  public void start() throws Exception {
    if (LocalServer.programs().isEmpty()) {
      throw new SkipException("this system has no PostgreSQL server: not tried against one");
    }
    folder = Files.createTempDirectory("benches");
    System.setProperty("ell.state", folder.resolve("state").toString());
    System.setProperty("ell.demo", "../demo");
    server = LocalServer.start(Files.createTempDirectory("benches-server"), 0, false);
  }

  @AfterClass(alwaysRun = true)
  public void end() throws Exception {
    if (server != null && server.runs()) {
      server.close();
    }
  }

  private String demo(String database) throws Exception {
    Path file = folder.resolve(database + ".ell");
    TestRun.good("demo-workspace", file.toString());
    TestRun.good("move", file.toString(), server.address(database));
    return server.address(database);
  }

  @Test
  public void everyQuestionIsAnsweredAsByTheFile() throws Exception {
    String address = demo("same");
    String file = folder.resolve("same.ell").toString();
    for (String[] q :
        new String[][] {
          {"show"},
          {"show", "--board", "07"},
          {"kit"},
          {"order"},
          {"beep"},
          {"power"},
          {"heat", "--board", "07"},
          {"look", "--board", "07"},
          {"pulse"},
          {"trace", "--board", "07"},
          {"prove"},
          {"revise"},
          {"jig"},
          {"links", "--board", "07", "--for", "program"},
        }) {
      assertEquals(ask(q, address).replace(address, "WS"), ask(q, file).replace(file, "WS"), q[0]);
    }
  }

  private static String ask(String[] q, String where) throws Exception {
    String[] line = new String[q.length + 2];
    line[0] = q[0];
    line[1] = where;
    System.arraycopy(q, 1, line, 2, q.length - 1);
    line[line.length - 1] = "--json";
    // bags dry while one asks
    return MainTest.ell(line).out().replaceAll("\"(open|left)\" : [\\d.]+", "");
  }

  /// A phone over a workspace on a server: what a bench writes is there at the next look.
  @Test
  public void aPhoneOverAServer() throws Exception {
    String address = demo("phone");
    try (HttpClient c = HttpClient.newHttpClient();
        PageServer s =
            PageServer.begin(Place.of(address), "127.0.0.1:0", java.util.Optional.empty())) {
      String cookie = ShareTest.in(c, s);
      String before = ShareTest.get(c, s.where().resolve("/now"), cookie).body();
      String page = ShareTest.get(c, s.where().resolve("/board/07/record"), cookie).body();
      assertFalse(page.contains("from the other room"));
      TestRun.good("log", address, "--board", "07", "note from the other room");
      assertNotEquals(ShareTest.get(c, s.where().resolve("/now"), cookie).body(), before);
      page = ShareTest.get(c, s.where().resolve("/board/07/record"), cookie).body();
      assertTrue(page.contains("from the other room"), page);
    }
  }

  @Test
  public void aBoardThatNobodySawIsBroughtUpOnAServer() throws Exception {
    String address = server.address("fresh");
    TestRun.good("new", address);
    TestRun.bad("already there", "new", address);
    Path shield = ODD.resolve("shield");
    TestRun.good(
        "import",
        address,
        "--design",
        "SH",
        "--revision",
        "A",
        "--bom",
        shield.resolve("bom.csv").toString(),
        "--placement",
        shield.resolve("placement.csv").toString(),
        "--netlist",
        shield.resolve("netlist.ipc").toString());
    TestRun.good(
        "build", address, "--design", "SH", "--revision", "A", "--boards", "2", "--method", "iron");
    TestRun.good("log", address, "--board", "01", "note on a server");
    JsonNode v = TestRun.good("verify", address, "--json").json();
    assertTrue(v.path("ok").asBoolean());
    String home = folder.resolve("fresh.ell").toString();
    JsonNode moved = TestRun.good("move", address, home, "--json").json();
    assertEquals(
        moved.path("seal").asString(),
        TestRun.good("verify", home, "--json").json().path("seal").asString());
    // an export of it comes back, letter for letter
    TestRun.good("export", address, "--out", folder.resolve("ex").toString());
    String again = folder.resolve("again.ell").toString();
    TestRun.good("restore", again, "--from", folder.resolve("ex").toString());
    assertEquals(
        TestRun.good("verify", again, "--json").json().path("seal").asString(),
        moved.path("seal").asString());
    TestRun.good("restore", server.address("again"), "--from", folder.resolve("ex").toString());
    assertEquals(
        TestRun.good("verify", server.address("again"), "--json").json().path("seal").asString(),
        moved.path("seal").asString());
  }

  @Test
  public void handsPeopleAndOutbox() throws Exception {
    String north = demo("hands") + "?bench=NORTH";
    String south = server.address("hands") + "?bench=SOUTH";
    TestRun.good("log", north, "--board", "07", "note mine");
    TestRun.bad("in hand at bench NORTH", "log", south, "--board", "07", "note mine too");
    TestRun.bad("with words", "hand", south, "--board", "07", "--take");
    TestRun.bad("there is no board", "hand", south, "--board", "99", "--take");
    TestRun.bad("say --board", "hand", south, "--take");
    JsonNode taken =
        TestRun.good("hand", south, "--board", "07", "--take", "--why", "at lunch", "--json")
            .json();
    assertEquals(taken.path("boards").get(0).path("bench").asString(), "SOUTH");
    assertEquals(taken.path("boards").get(0).path("words").asString(), "at lunch");
    TestRun.good("hand", south, "--board", "07", "--to", "NORTH", "--why", "back again");
    TestRun.good("log", north, "--board", "07", "note once more");
    TestRun.good("hand", north, "--board", "07", "--lay-down");
    assertEquals(
        TestRun.good("hand", north, "--json").json().path("boards").size(), 0, "nothing in hand");
    assertTrue(noted(north).contains("in hand at bench SOUTH now, before at NORTH"), noted(north));
    String who = "anna_" + ProcessHandle.current().pid();
    assertTrue(
        TestRun.good("people", north, "--add", who, "--as", "reader")
            .out()
            .contains(who + "  reader"));
    String anna = "postgresql://" + who + "@127.0.0.1:" + server.port() + "/hands";
    TestRun.good("show", anna);
    TestRun.bad("may not do that", "log", anna, "--board", "07", "note x");
    TestRun.good("people", north, "--remove", who);
    TestRun.bad("may not come to", "show", anna);
    // alone, and back
    server.stop("immediate");
    MainTest.Ran alone = MainTest.ell("log", north, "--board", "07", "note alone");
    assertEquals(alone.code(), 0, alone.err());
    assertTrue(alone.err().contains("does not answer"), alone.err());
    TestRun.bad(
        "wait until it is back",
        "build",
        north,
        "--design",
        "MG-1",
        "--revision",
        "B",
        "--boards",
        "2",
        "--method",
        "iron");
    JsonNode waits = MainTest.ell("outbox", north, "--json").json();
    assertTrue(waits.path("away").asBoolean());
    assertEquals(waits.path("waiting").get(0).path("words").asString(), "alone");
    server.again();
    TestRun.good("log", south, "--board", "07", "note south was quicker");
    TestRun.good("hand", south, "--board", "07", "--lay-down");
    MainTest.Ran out = MainTest.ell("outbox", north);
    assertEquals(out.code(), 1);
    assertTrue(out.out().contains("others wrote on board 07"), out.out());
    TestRun.bad("say why", "outbox", north, "--keep", "07");
    TestRun.good("outbox", north, "--keep", "07", "--why", "both are so");
    assertEquals(TestRun.good("outbox", north, "--json").json().path("waiting").size(), 0);
    String said = noted(north);
    assertTrue(said.indexOf("south was quicker") < said.indexOf("alone"), said);
    assertTrue(said.indexOf("alone") < said.indexOf("both are so"), said);
    assertTrue(TestRun.good("verify", north, "--json").json().path("ok").asBoolean());
  }

  /// What is noted on board 07, in order.
  private static String noted(String address) throws Exception {
    try (Workshop w = Workshop.look(Place.of(address))) {
      return w.entries("07").stream()
          .filter(l -> l.entry() instanceof Entry.Note)
          .map(l -> ((Entry.Note) l.entry()).text())
          .toList()
          .toString();
    }
  }

  @Test
  public void badAddressesAndFiles() throws Exception {
    TestRun.bad("no password", "show", "postgresql://a:b@host/db");
    TestRun.bad("is not whole", "show", "postgresql://host");
    TestRun.bad("does not answer", "show", "postgresql://127.0.0.1:1/db");
    TestRun.bad("there is no workspace", "show", server.address("nothing"));
    String file = folder.resolve("plain.ell").toString();
    TestRun.good("new", file);
    TestRun.bad("is a file, and has one bench", "hand", file);
    TestRun.good("new", file.replace("plain", "other"));
    TestRun.bad("already there", "move", file, file.replace("plain", "other"));
    TestRun.bad("is where the workspace is", "move", file, file);
    TestRun.bad("done with a workspace file", "rescue", server.address("x"), file + "2");
    assertFalse(Files.exists(Path.of(file + "2")));
  }
}
