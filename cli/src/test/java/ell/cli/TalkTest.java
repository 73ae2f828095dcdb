package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Lines, links, pins and chains through the command line: on the demo, on boards that have nothing
/// of the kind, and with bad input.
public final class TalkTest {
  private Path folder;
  private String ws;
  private String cell;

  private static MainTest.Ran good(String... args) {
    return ran(0, args);
  }

  private static MainTest.Ran ran(int code, String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), code, String.join(" ", args) + "\n" + r.err() + r.out());
    return r;
  }

  private static void bad(String says, String... args) {
    MainTest.Ran r = ran(2, args);
    assertTrue(r.err().contains(says), String.join(" ", args) + "\n" + r.err());
  }

  private String file(String name, String text) throws IOException {
    return Files.writeString(folder.resolve(name), text).toString();
  }

  @BeforeClass
  public void workspaces() throws Exception {
    folder = Files.createTempDirectory("talk");
    ws = folder.resolve("demo.ell").toString();
    try (Workshop w = ell.work.demo.DemoWorkspace.make(Path.of(ws), Path.of("../demo"), true)) {
      assertFalse(w.book().builds().isEmpty());
    }
    cell = folder.resolve("cell.ell").toString();
    good("new", cell);
    List<String> args =
        new ArrayList<>(List.of("import", cell, "--design", "cell", "--revision", "1"));
    try (var all = Files.list(Path.of("../fixtures/odd/cell"))) {
      all.filter(p -> !p.toString().endsWith(".json"))
          .sorted()
          .forEach(p -> args.add(p.toString()));
    }
    good(args.toArray(String[]::new));
    good("build", cell, "--design", "cell", "--revision", "1", "--boards", "2");
  }

  @Test
  public void linksAreListedAndOrdered() {
    JsonNode o = good("links", ws, "--board", "02", "--json").json();
    assertEquals(o.get("links").size(), 3);
    assertEquals(o.get("links").get(2).get("state").stringValue(), "closed");
    JsonNode program = good("links", ws, "--board", "02", "--for", "program", "--json").json();
    assertTrue(program.get("ready").booleanValue());
    assertEquals(program.get("heats").intValue(), 0);
    JsonNode run = ran(1, "links", ws, "--board", "02", "--for", "run", "--json").json();
    assertFalse(run.get("ready").booleanValue());
    assertEquals(run.get("plug").get(0).stringValue(), "M1");
    assertEquals(
        run.get("changes").size(), 2, "SJ3 stands as it must be now: " + run.get("changes"));
    JsonNode all = ran(0, "links", ws, "--board", "02", "--for", "all", "--json").json();
    assertEquals(all.get("sequence").size(), 4);
    assertEquals(all.get("sequence").get(3).get("operation").stringValue(), "run");
    assertEquals(all.get("heats").intValue(), 4);
    assertTrue(all.get("proven").booleanValue());
    int changes = 0;
    for (JsonNode s : all.get("sequence")) {
      changes += s.get("changes").size();
    }
    assertEquals(changes, 4);
  }

  @Test
  public void whatIsSaidIsKeptAndPutRight() {
    JsonNode guessed = good("links", cell, "--board", "01", "--json").json();
    assertEquals(guessed.get("links").size(), 0);
    assertTrue(guessed.get("told").toString().contains("line U3 tx=U3.8"), guessed.toString());
    bad("nobody said what operations", "links", cell, "--board", "01", "--for", "program");
    bad("is no link", "links", cell, "--say", "operation program open R1");
    bad("no part Q7", "links", cell, "--say", "link Q7 solder");
    bad("links nothing", "links", cell, "--say", "link TP1 solder");
    good(
        "links",
        cell,
        "--say",
        "link R3 jumper closed",
        "--say",
        "operation program open R3 in J1");
    JsonNode p = ran(1, "links", cell, "--board", "01", "--for", "program", "--json").json();
    assertEquals(p.get("changes").get(0).get("link").stringValue(), "R3");
    assertEquals(p.get("heats").intValue(), 0, "a jumper heats nothing");
    good("log", cell, "--board", "01", "R3 open");
    good("log", cell, "--board", "01", "J1 in");
    good("links", cell, "--board", "01", "--for", "program");
    bad("how do the links stand", "links", cell, "--for", "program");
    bad("there is no operation 'x'", "links", cell, "--board", "01", "--for", "x");
    good("links", cell, "--say", "operation charge closed R3");
    bad(
        "charge cannot begin",
        "charge",
        cell,
        "--board",
        "01",
        "--cell",
        "BT1",
        "--sim",
        "--capacity",
        "500mAh",
        "--every",
        "1s");
    good("links", cell, "--forget");
    assertEquals(good("links", cell, "--json").json().get("operations").size(), 0);
  }

  @Test
  public void pins() throws IOException {
    String needs =
        file("n.csv", "signal;needs;pin\nA;in analog-in;A0\nB;analog-in;A1\nLED;out;D1\n");
    String offers =
        file(
            "o.csv",
            "pin,offers,strap,shared,cost\nA0,in analog-in\nD1,in out,high\nD2,in out,,usb\n");
    MainTest.Ran r = ran(1, "pins", "--needs", needs, "--offers", offers, "--json");
    JsonNode o = r.json();
    assertTrue(r.err().contains("columns not used: cost"), r.err());
    assertEquals(o.get("assignments").size(), 2);
    assertEquals(o.get("kept").intValue(), 2);
    assertEquals(o.get("unmet").get(0).get("signal").stringValue(), "B");
    assertEquals(o.get("unmet").get(0).get("needs").get(0).stringValue(), "analog-in");
    assertEquals(o.get("straps").get(0).get("pin").stringValue(), "D1");
    assertTrue(o.get("ways").size() > 0);
    String was = file("w.csv", "signal,pin\nLED,D2\n");
    JsonNode kept =
        ran(1, "pins", "--needs", needs, "--offers", offers, "--was", was, "--json").json();
    assertEquals(kept.get("assignments").get(1).get("pin").stringValue(), "D2");
    assertFalse(kept.get("assignments").get(1).get("changed").booleanValue());
    good("pins", ws, "--offers", offers, "--keep", "TINY");
    JsonNode all = good("pins", ws, "--needs", "../demo/mg-1-b/needs.csv", "--json").json();
    assertEquals(all.get("module").stringValue(), "MCU48");
    assertEquals(all.get("modules").size(), 3);
    assertEquals(good("pins", ws, "--json").json(), all, "the demo keeps the same needs");
    String[] a = {"--design", "MG-1", "--revision", "A", "--offers", offers, "--json"};
    bad("what does the firmware need", args(a, "pins", ws));
    JsonNode said = ran(1, args(a, "pins", ws, "--needs", needs, "--keep-needs")).json();
    assertEquals(ran(1, args(a, "pins", ws)).json(), said);
    bad("say both", "pins", "--needs", needs, "--keep-needs", "--offers", offers);
    bad("the file is empty", "pins", "--needs", file("e.csv", ""), "--offers", offers);
    bad("no column 'needs'", "pins", "--needs", offers, "--offers", offers);
    bad("there is no file", "pins", "--needs", "nowhere.csv", "--offers", offers);
    bad("what does the firmware need", "pins", "--offers", offers);
    bad("which pins are there", "pins", "--needs", needs);
    bad(
        "high or low",
        "pins",
        "--needs",
        needs,
        "--offers",
        file("s.csv", "pin,offers,strap\nD1,out,maybe\n"));
    bad(
        "stands twice",
        "pins",
        "--needs",
        needs,
        "--offers",
        file("t.csv", "pin,offers\nD1,out\nD1,in\n"));
  }

  private static String[] args(String[] last, String... first) {
    return Stream.concat(Stream.of(first), Stream.of(last)).toArray(String[]::new);
  }

  /// 10 kohm to ground on RAD_EN against 45 kohm up: 3.3 V times 10 / 55 is 0.6 V.
  @Test
  public void strapsByTheBoardModel() throws IOException {
    String needs = file("sn.csv", "signal,needs,pin\nRAD_EN,out,41\n");
    String offers = file("so.csv", "pin,offers,strap,shared,pull\n27,in out,high,,45k high\n");
    JsonNode o =
        ran(1, "pins", ws, "--part", "U4", "--needs", needs, "--offers", offers, "--json").json();
    JsonNode s = o.get("straps").get(0);
    assertTrue(s.get("wrong").booleanValue());
    assertTrue(s.get("why").stringValue().contains("0.60 V of 3.30 V"), s.toString());
    bad("has no part U99", "pins", ws, "--part", "U99", "--needs", needs, "--offers", offers);
  }

  @Test
  public void aScriptOverTheSimulatedLine() throws IOException {
    JsonNode o =
        good(
                "talk",
                ws,
                "--board",
                "01",
                "--script",
                "../demo/mg-1-b/first-load.json",
                "--line",
                "sim",
                "--answer",
                "cable=yes",
                "--json")
            .json();
    assertEquals(o.get("verdict").stringValue(), "within");
    assertEquals(o.get("firmware").stringValue(), "1.4");
    assertEquals(o.get("restarts").intValue(), 0);
    JsonNode load = o.get("steps").get(1);
    assertEquals(load.get("number").intValue(), 2);
    assertTrue(load.get("got").stringValue().contains("check sum"));
    assertEquals(load.get("verdict").stringValue(), "within");
    JsonNode show = good("show", ws, "--board", "01", "--json").json();
    assertEquals(show.get("stage").stringValue(), "talk");
    MainTest.Ran strip = good("talk", ws, "--board", "01", "--strip", "0");
    assertTrue(strip.out().contains("Marram MG-1 B firmware 1.4"), strip.out());
    MainTest.Ran links = ran(2, "talk", ws, "--board", "01", "--script", "number", "--line", "sim");
    assertTrue(links.err().contains("SJ3 is closed"), links.err());
    assertTrue(good("verify", ws).out().contains("whole") || good("verify", ws).code() == 0);
  }

  /// At half of the rate what comes is no text, and the rate is told.
  @Test
  public void theWrongRate() throws IOException {
    String s = file("listen.json", "[{\"expect\": \"loader\", \"within\": 1}]");
    JsonNode o =
        ran(1, "talk", ws, "--board", "02", "--script", s, "--line", "sim@57600", "--json").json();
    assertTrue(o.get("told").toString().contains("no text"), o.toString());
  }

  /// The board hears nothing: it is told, and the true joint is among those that are named.
  @Test
  public void aFaultOfTheSimulatedBoard() {
    JsonNode o =
        ran(
                1,
                "talk",
                ws,
                "--board",
                "02",
                "--script",
                "first-load",
                "--line",
                "sim",
                "--answer",
                "cable=yes",
                "--fault",
                "open U4.40",
                "--json")
            .json();
    assertEquals(o.get("verdict").stringValue(), "out");
    assertTrue(o.get("told").toString().contains("open U4.40"), o.toString());
    bad(
        "--fault is for --line sim",
        "talk",
        ws,
        "--board",
        "02",
        "--script",
        "first-load",
        "--line",
        "tcp:127.0.0.1:1",
        "--fault",
        "open U4.40");
    bad(
        "has no part 'U99'",
        "talk",
        ws,
        "--board",
        "02",
        "--script",
        "first-load",
        "--line",
        "sim",
        "--fault",
        "dead U99");
  }

  /// A board that nobody may power says nothing, and accuses nothing.
  @Test
  public void aBoardWithoutPower() throws IOException {
    String s = file("l.json", "[{\"expect\": \"x\", \"within\": \"200ms\"}]");
    JsonNode o =
        ran(1, "talk", cell, "--board", "02", "--script", s, "--line", "sim", "--json").json();
    assertTrue(o.get("told").toString().contains("is not powered"), o.toString());
    assertFalse(o.get("told").toString().contains("single faults"), o.toString());
  }

  @Test
  public void anOwnServerOverASocket() throws Exception {
    try (Workshop w = Workshop.look(Path.of(cell));
        SimulatedBench sim = SimulatedBench.start(w, 1)) {
      assertTrue(sim.bench().addresses().containsKey("line"));
    }
    try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      Thread.ofVirtual()
          .start(() -> {
            try (Socket c = server.accept();
                OutputStream out = c.getOutputStream()) {
              for (int i = 0; i < 5; i++) {
                out.write("boots v2\r\n".getBytes());
                out.flush();
                Thread.sleep(100);
              }
              Thread.sleep(2000);
            } catch (IOException | InterruptedException e) {
              // the test is over
            }
          });
      String s =
          file(
              "own.json",
              "{\"banner\": \"boots\", \"steps\": [{\"expect\": \"boots (?<firmware>v\\\\d)\"}, {\"wait\": 0.6}]}");
      JsonNode o =
          ran(
                  1,
                  "talk",
                  cell,
                  "--board",
                  "01",
                  "--script",
                  s,
                  "--line",
                  "tcp:127.0.0.1:" + server.getLocalPort(),
                  "--json")
              .json();
      assertEquals(o.get("firmware").stringValue(), "v2");
      assertEquals(o.get("restarts").intValue(), 4);
      // a tenth of a second as it arrives, a little less or more
      assertTrue(
          Pattern.compile("every 0\\.(09|1)\\d* s").matcher(o.get("told").toString()).find(),
          o.toString());
      assertEquals(
          o.get("verdict").stringValue(), "out", "what begins anew again and again does not work");
    }
  }

  @DataProvider
  Object[][] refused() {
    return new Object[][] {
      {"there is no script", new String[] {"--script", "nowhere/x.json", "--line", "sim"}},
      {"neither a file nor kept", new String[] {"--script", "nowhere", "--line", "sim"}},
      {"a line is tcp:", new String[] {"--script", "SCRIPT", "--line", "telepathy"}},
      {"no line at", new String[] {"--script", "SCRIPT", "--line", "tcp:127.0.0.1:1"}},
      {"no serial port", new String[] {"--script", "SCRIPT", "--line", "serial:nope@9600"}},
      {"115200,8N1", new String[] {"--script", "SCRIPT", "--line", "serial:x@fast"}},
      {"which line", new String[] {"--script", "SCRIPT"}},
      {"are for a --script", new String[] {"--line", "sim", "--json"}},
      {"no board '99'", new String[] {"--board", "99", "--script", "SCRIPT", "--line", "sim"}},
      {"step 1", new String[] {"--script", "BAD", "--line", "sim"}},
    };
  }

  @Test(dataProvider = "refused")
  public void badInputChangesNothing(String says, String[] args) throws IOException {
    String s = file("fine.json", "[{\"wait\": 0}]");
    String b = file("bad.json", "[{\"sned\": \"x\"}]");
    List<String> all = new ArrayList<>(List.of("talk", cell));
    for (String a : args) {
      all.add(a.equals("SCRIPT") ? s : a.equals("BAD") ? b : a);
    }
    if (!all.contains("--board")) {
      all.addAll(List.of("--board", "01"));
    }
    int before = good("show", cell, "--board", "01", "--json").json().get("entries").intValue();
    bad(says, all.toArray(String[]::new));
    assertEquals(
        good("show", cell, "--board", "01", "--json").json().get("entries").intValue(), before);
    Path lines = Path.of(cell + ".lines");
    if (Files.isDirectory(lines)) {
      try (var left = Files.list(lines)) {
        assertEquals(left.count(), 0, "no recording of a line that was never open");
      }
    }
  }

  @Test
  public void chains() {
    JsonNode o = good("chain", ws, "--board", "S03", "--json").json();
    assertEquals(o.get("elements").size(), 4);
    assertEquals(o.get("seen").stringValue(), "lit up to 2");
    double sum = 0;
    for (JsonNode s : o.get("suspects")) {
      sum += s.get("probability").doubleValue();
    }
    assertEquals(sum, 1, 1e-9);
    assertEquals(o.get("next").get("place").stringValue(), "net of U2.9");
    JsonNode fed =
        good(
                "chain",
                ws,
                "--board",
                "S03",
                "--supply",
                "5V",
                "--current",
                "0.2A",
                "--segment",
                "0.5ohm",
                "--least",
                "4.4V",
                "--json")
            .json();
    // 5 V less 0.2 A times 0.5 ohm times 4, 7, 9, 10
    assertEquals(fed.get("volts").get(0).doubleValue(), 4.6, 1e-9);
    assertEquals(fed.get("volts").get(3).doubleValue(), 4.0, 1e-9);
    assertEquals(fed.get("feedAgain").stringValue(), "U3");
    bad("no chain of equal elements", "chain", cell, "--board", "01");
    bad("expected what is seen", "chain", ws, "--board", "S03", "--seen", "purple");
    bad(
        "cannot carry",
        "chain",
        ws,
        "--board",
        "S03",
        "--supply",
        "1V",
        "--current",
        "1A",
        "--segment",
        "1ohm");
  }

  /// Killed while it listens: what was heard is in the book after somebody looked again.
  @Test(timeOut = 60_000)
  public void aKilledTerminalLosesNothing() throws Exception {
    try (ServerSocket server = new ServerSocket(0, 2, InetAddress.getLoopbackAddress())) {
      Process p =
          new ProcessBuilder(
                  Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                  "--enable-native-access=ALL-UNNAMED",
                  "-XX:TieredStopAtLevel=1",
                  "-cp",
                  System.getProperty("java.class.path"),
                  Main.class.getName(),
                  "talk",
                  cell,
                  "--board",
                  "02",
                  "--line",
                  "tcp:127.0.0.1:" + server.getLocalPort(),
                  "--seconds",
                  "50")
              .redirectError(ProcessBuilder.Redirect.DISCARD)
              .redirectOutput(ProcessBuilder.Redirect.DISCARD)
              .start();
      try (Socket c = server.accept()) {
        c.getOutputStream().write("x".repeat(5000).getBytes());
        c.getOutputStream().flush();
        Thread.sleep(700);
        p.destroyForcibly().waitFor();
      }
    }
    String s = file("k.json", "[{\"wait\": 0}]");
    try (ServerSocket server = new ServerSocket(0, 2, InetAddress.getLoopbackAddress())) {
      MainTest.Ran r =
          good(
              "talk",
              cell,
              "--board",
              "01",
              "--script",
              s,
              "--line",
              "tcp:127.0.0.1:" + server.getLocalPort());
      assertTrue(r.err().contains("5000 bytes heard; it was cut off"), r.err());
    }
    assertTrue(good("talk", cell, "--board", "02", "--strip", "0").out().contains("xxx"));
    good("verify", cell);
  }
}
