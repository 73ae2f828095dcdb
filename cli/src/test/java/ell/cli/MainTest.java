package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/// The command line as a contract: shapes, exit codes, one object on standard output, problems on
/// standard error, the workspace untouched by bad input.
public class MainTest {
  private static final JsonMapper MAPPER = JsonMapper.builder().build();
  private static final String DEMO = "../fixtures/marram/mg-1-b/";
  private Path folder;
  private String ws;

  record Ran(int code, String out, String err) {
    JsonNode json() {
      return MAPPER.readTree(out);
    }
  }

  static Ran ell(String... args) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ByteArrayOutputStream err = new ByteArrayOutputStream();
    int code =
        Main.run(
            new PrintStream(out, true, StandardCharsets.UTF_8),
            new PrintStream(err, true, StandardCharsets.UTF_8),
            args);
    return new Ran(
        code, out.toString(StandardCharsets.UTF_8), err.toString(StandardCharsets.UTF_8));
  }

  private static Ran good(String... args) {
    Ran r = ell(args);
    assertEquals(r.code(), 0, String.join(" ", args) + "\n" + r.err() + r.out());
    assertEquals(r.err(), "");
    return r;
  }

  private static Ran bad(String... args) {
    Ran r = ell(args);
    assertEquals(r.code(), 2, String.join(" ", args) + "\n" + r.err() + r.out());
    assertEquals(r.out(), "", "nothing on standard output");
    assertFalse(r.err().isBlank());
    assertFalse(r.err().contains("\tat "), r.err());
    return r;
  }

  @BeforeClass
  public void demo() throws IOException {
    folder = Files.createTempDirectory("cli");
    ws = folder.resolve("demo.ell").toString();
    System.setProperty("ell.demo", "../fixtures/marram");
    good("demo-workspace", ws);
  }

  private String fresh(String name) {
    return folder.resolve(name).toString();
  }

  private static String[] importB(String ws, String... more) {
    List<String> args =
        new ArrayList<>(
            List.of(
                "import",
                ws,
                "--design",
                "MG-1",
                "--revision",
                "B",
                "--bom",
                DEMO + "bom.csv",
                "--placement",
                DEMO + "placement.csv",
                "--netlist",
                DEMO + "netlist.ipc"));
    args.addAll(List.of(more));
    return args.toArray(String[]::new);
  }

  private static Set<String> keys(JsonNode o) {
    return new HashSet<>(o.propertyNames());
  }

  @Test
  public void theWholePathFromAnEmptyFile() throws IOException {
    String w = fresh("path.ell");
    good("new", w);
    JsonNode in =
        good(importB(
                w,
                "--outline",
                DEMO + "outline.csv",
                "--shelf",
                "../fixtures/marram/shelf.csv",
                "--json"))
            .json();
    assertTrue(
        keys(in)
            .containsAll(
                Set.of("design", "revision", "parts", "nets", "joints", "passedOver", "warnings")));
    assertEquals(in.get("parts").intValue(), 74);
    assertEquals(keys(in.get("warnings").get(0)), Set.of("file", "line", "message"));
    JsonNode b =
        good("build", w, "--design", "MG-1", "--revision", "B", "--boards", "12", "--json").json();
    assertEquals(b.get("boards").size(), 12);
    assertEquals(b.get("boards").get(0).stringValue(), "01");
    assertEquals(good("kit", w, "--json").json().get("boards").intValue(), 12);
    JsonNode logged = good("log", w, "--board", "07", "3V3 3.287", "--json").json();
    assertEquals(logged.get("verdict").stringValue(), "within");
    assertTrue(
        keys(logged.get("entry"))
            .containsAll(
                Set.of(
                    "number",
                    "at",
                    "board",
                    "kind",
                    "place",
                    "value",
                    "unit",
                    "low",
                    "high",
                    "uncertainty")));
    good("log", w, "--board", "07", "note", "words", "without", "quotes");
    JsonNode show = good("show", w, "--board", "07", "--json").json();
    assertTrue(
        keys(show)
            .containsAll(
                Set.of(
                    "board",
                    "stage",
                    "state",
                    "openFindings",
                    "readings",
                    "heatCycles",
                    "entries")));
    assertEquals(show.get("entries").intValue(), 2);
    assertEquals(show.get("readings").get(0).get("value").doubleValue(), 3.287);
    JsonNode v = good("verify", w, "--json").json();
    assertTrue(v.get("ok").booleanValue());
    assertEquals(v.get("entries").intValue(), 2);
    Path pdf = folder.resolve("07.pdf");
    good("report", w, "--board", "07", "--out", pdf.toString());
    assertTrue(Files.size(pdf) > 20_000);
    good("export", w, "--out", fresh("export"), "--json");
    good("backup", w, "--out", fresh("copy.ell"));
    assertEquals(good("verify", fresh("copy.ell"), "--json").json().get("entries").intValue(), 2);
  }

  @Test
  public void kitShape() {
    JsonNode k = good("kit", ws, "--json").json();
    assertTrue(
        keys(k)
            .containsAll(
                Set.of(
                    "boards",
                    "lines",
                    "boardsNow",
                    "limiting",
                    "gates",
                    "verdict",
                    "staircase",
                    "reasons")));
    JsonNode line = k.get("lines").get(0);
    assertTrue(
        keys(line)
            .containsAll(
                Set.of("code", "references", "perBoard", "need", "onHand", "onOrder", "short")));
    assertEquals(k.get("verdict").stringValue(), "wait");
    assertTrue(k.get("date") == null, "what is short is not all on order");
    JsonNode then = good("kit", ws, "--date", "2026-12-11", "--json").json();
    assertEquals(then.get("boardsNow").intValue(), 10, "what is due by then has come");
    assertEquals(then.get("limiting").stringValue(), "SOCK8");
    assertEquals(k.get("staircase").get(0).get("boards").intValue(), 5);
    assertEquals(k.get("boardsNow").intValue(), 5);
    assertEquals(k.get("limiting").stringValue(), "RADIO24");
    assertTrue(keys(k.get("gates").get(0)).containsAll(Set.of("gate", "reachable", "blockedBy")));
    assertEquals(
        good("kit", ws, "--boards", "1", "--json").json().get("verdict").stringValue(), "start");
  }

  @DataProvider
  Object[][] methods() {
    return new Object[][] {{"stencil-plate"}, {"hot-air"}, {"iron"}};
  }

  @Test(dataProvider = "methods")
  public void orderShape(String method) {
    JsonNode o = good("order", ws, "--method", method, "--json").json();
    assertEquals(o.get("method").stringValue(), method);
    Set<String> placed = new HashSet<>();
    int number = 0;
    double minutes = 0;
    for (JsonNode s : o.get("steps")) {
      assertEquals(s.get("number").intValue(), ++number);
      assertTrue(Set.of("first", "second").contains(s.get("side").stringValue()));
      assertTrue(s.get("reasons").size() > 0);
      minutes += s.get("minutes").doubleValue();
      if (s.has("gate")) {
        assertEquals(s.get("parts").size(), 0);
      }
      s.get("parts").forEach(p -> assertTrue(placed.add(p.stringValue())));
    }
    assertEquals(placed.size(), 74);
    assertEquals(o.get("minutes").doubleValue(), minutes, 1e-6);
  }

  @Test
  public void beepAndPowerShapes() {
    JsonNode b = good("beep", ws, "--json").json();
    JsonNode first = b.get("checks").get(0);
    assertTrue(
        keys(first)
            .containsAll(Set.of("number", "kind", "a", "b", "netA", "netB", "expectedLow", "why")));
    assertEquals(keys(first.get("a")), Set.of("part", "pin"));
    assertFalse(first.has("expectedHigh"), "no upper end is left out");
    assertTrue(
        keys(b.get("coverage"))
            .containsAll(Set.of("opens", "opensTotal", "bridges", "bridgesTotal", "hidden")));
    JsonNode p = good("power", ws, "--json").json();
    assertTrue(keys(p).containsAll(Set.of("state", "rails", "regulators", "limit", "sheet")));
    assertEquals(p.get("limit").doubleValue(), 0.18, 1e-12);
    assertTrue(
        keys(p.get("rails").get(0))
            .containsAll(Set.of("rail", "voltage", "low", "high", "current", "margins")));
    assertTrue(
        keys(p.get("regulators").get(0))
            .containsAll(Set.of("part", "dissipation", "junction", "headroom")));
    double boot = p.get("rails").get(0).get("current").doubleValue();
    double worst =
        good("power", ws, "--state", "worst", "--json")
            .json()
            .get("rails")
            .get(0)
            .get("current")
            .doubleValue();
    assertTrue(worst > boot);
  }

  @Test
  public void firstPowerFromTheCommandLine() {
    String w = fresh("power.ell");
    good("demo-workspace", w);
    Ran refused = bad("power", w, "--board", "04", "--go", "--sim");
    assertTrue(refused.err().contains("no power for board 04"), refused.err());
    JsonNode p = good("power", w, "--board", "07", "--go", "--sim", "--json").json();
    assertTrue(p.get("within").booleanValue());
    assertFalse(p.get("surprise").booleanValue());
    assertEquals(p.get("railsRead").intValue(), 8);
    JsonNode dry = good("power", w, "--board", "04", "--dry", "--json").json();
    assertTrue(dry.get("refused").stringValue().contains("3V3"), "what stands in the way is said");
    assertEquals(dry.get("parts").size(), 3 * 5 + 2, "five stages each of three sources");
    assertTrue(dry.get("parts").get(1).get("lines").toString().contains("OUTP ON"));
    assertTrue(
        good("power", w, "--board", "07", "--dry")
            .out()
            .contains("stage 5: VIN_RAW 12.00 V, limit "));
    Ran faulty = ell("power", w, "--board", "06", "--go", "--sim");
    assertEquals(faulty.code(), 1, "a check did not hold");
    assertTrue(faulty.out().contains("3V3A 0 V · out"), faulty.out());
    Ran beeped = ell("beep", w, "--board", "04", "--go", "--sim", "--json");
    assertEquals(beeped.code(), 1);
    assertFalse(beeped.json().get("held").booleanValue());
    bad("power", w, "--board", "07", "--go");
    bad("power", w, "--go", "--sim");
  }

  /// Words about parts from the command line and from a file: kept, shown, refused with every line.
  @Test
  public void partsAreSaid() throws Exception {
    String w = fresh("parts.ell");
    good("demo-workspace", w);
    JsonNode l = good("ladder", w, "--part", "U1=foldback=0.3,rises=2ms", "--json").json();
    assertEquals(l.get("parts").get(0).get("part").stringValue(), "U1");
    Path file = Path.of(w).resolveSibling("parts.csv");
    java.nio.file.Files.writeString(file, "part,words\n# ours\nQ9,npn\nD1,diode,forward=0.5V,,\n");
    assertTrue(bad("ladder", w, "--parts", file.toString()).err().contains("no part 'Q9'"));
    java.nio.file.Files.writeString(file, "D1,diode,forward=0.5V,,\nD2,lamb\nD5\n");
    String said = bad("ladder", w, "--parts", file.toString()).err();
    assertTrue(
        said.contains("line 2: 'lamb' is no kind") && said.contains("line 3: expected"), said);
    java.nio.file.Files.writeString(file, "D1,diode,forward=0.5V,,\n");
    assertEquals(
        good("ladder", w, "--parts", file.toString(), "--json").json().get("parts").size(), 2);
    assertEquals(good("ladder", w, "--as-proposed", "--json").json().get("parts"), null);
  }

  /// A dialect file is read, shown and asked; what is wrong in it is said.
  @Test
  public void benchCheckReadsAndAsks() throws Exception {
    JsonNode generic = good("bench-check", "supply", "--json").json();
    assertEquals(generic.get("lines").get("setVolts").stringValue(), "VOLT 3.30000");
    Path file = Path.of(fresh("own.json"));
    java.nio.file.Files.writeString(file, "{\"kind\":\"meter\",\"volts\":\"V?\",\"ohm\":\"R?\"}");
    String said = bad("bench-check", file.toString()).err();
    assertTrue(said.contains("'ohm' is no line") && said.contains("'ohms' is missing"), said);
    assertTrue(bad("bench-check", "supply", "--at", "127.0.0.1:1").err().contains("no instrument"));
    assertTrue(bad("bench-check", "/nowhere.json").err().contains("no such file"));
    String w = fresh("dialect.ell");
    good("demo-workspace", w);
    java.nio.file.Files.writeString(
        file,
        "{\"kind\":\"supply\",\"setVolts\":\"SET {volts}\",\"setAmps\":\"LIM {amps}\",\"askVolts\":\"SET?\","
            + "\"askAmps\":\"LIM?\",\"on\":\"GO\",\"off\":\"HALT\",\"askOn\":\"GO?\",\"volts\":\"V?\","
            + "\"amps\":\"I?\",\"select\":\"CH {output}\"}");
    String dry = good("power", w, "--board", "07", "--dry", "--dialect", file.toString()).out();
    assertTrue(dry.contains("SET 1.20000") && dry.contains("CH 2") && dry.contains("HALT"), dry);
    assertFalse(dry.contains("VOLT") || dry.contains("SYST:ERR"), dry);
    bad("power", w, "--board", "07", "--go", "--sim", "--dialect", file.toString());
    java.nio.file.Files.writeString(file, "");
    assertTrue(bad("bench-check", file.toString()).err().contains("JSON object"));
    bad("beep", w, "--against", file.toString());
  }

  /// How long a cell lasts, what lies beside what, rails of every board: each by its own door.
  @Test
  public void otherQuestionsOfBeepAndPower() {
    String w = fresh("asked.ell");
    good("demo-workspace", w);
    JsonNode life =
        good("power", w, "--battery", "100mAh", "--duty", "active=0.02,idle=0.98", "--json").json();
    assertEquals(
        life.get("hours").doubleValue(),
        0.1 / life.get("current").doubleValue(),
        1e-9,
        "100 mAh over the mean");
    assertTrue(
        bad("power", w, "--battery", "1Ah", "--duty", "idle=0.5").err().contains("expected 1"));
    JsonNode rails = good("power", w, "--boards", "--json").json();
    assertEquals(rails.get("rails").size(), 8);
    assertEquals(rails.get("boards").intValue(), 12);
    JsonNode places = good("beep", w, "--short", "3V3", "GND", "--json").json();
    double sum = places.get("elsewhere").doubleValue();
    for (JsonNode p : places.get("places")) {
      sum += p.get("probability").doubleValue();
    }
    assertEquals(sum, 1, 1e-9);
    assertEquals(bad("beep", w, "--short", "3V3", "3V3").code(), 2);
    assertTrue(good("ohms", w, "3V3", "GND").out().contains("no beep"));
    assertTrue(bad("ohms", w, "3V3", "nowhere").err().contains("'nowhere' is no net"));
    assertEquals(bad("ohms", w, "3V3", "3V3").code(), 2);
    assertEquals(bad("ohms", w, "3V3").code(), 2);
    JsonNode t = good("beep", w, "--board", "07", "--transfer", "--json").json();
    assertTrue(t.get("pins").intValue() > 200);
    assertEquals(
        good("beep", w, "--transfer", "--part", "U3", "--json").json().get("parts").size(), 1);
    bad("beep", w, "--transfer", "--go");
    bad("beep", w, "--at", "TP4=1ohm");
    bad("beep", w, "--part", "U3");
    bad("power", w, "--boards", "--dry");
    bad("power", w, "--duty", "idle=1");
    JsonNode p = good("power", w, "--json").json();
    assertTrue(p.get("rails").get(0).has("at"));
    assertTrue(p.get("regulators").get(0).has("headroomLow"));
    assertTrue(p.has("findings"));
  }

  @Test
  public void calcAsTextAndJson() {
    JsonNode list = good("calc", "--json").json();
    for (JsonNode s : list.get("sheets")) {
      assertEquals(keys(s), Set.of("name", "title", "inputs", "results", "sources"));
      s.get("inputs").forEach(i -> assertTrue(keys(i).containsAll(Set.of("name", "unit"))));
    }
    JsonNode w = good("calc", "wire.awg", "gauge=22", "--json").json();
    assertTrue(
        keys(w)
            .containsAll(
                Set.of(
                    "sheet", "inputs", "results", "lines", "assumptions", "sources", "cautions")));
    assertEquals(w.get("results").get("diameter").doubleValue(), 0.644e-3, 5e-7);
    assertTrue(
        keys(w.get("lines").get(0)).containsAll(Set.of("symbol", "formula", "value", "unit")));
    assertEquals(
        good("calc", "power.verdict", "reading=3.3", "low=3.2", "high=3.4", "--json")
            .json()
            .get("verdict")
            .stringValue(),
        "within");
    assertTrue(good("calc").out().contains("power.linear"));
    assertTrue(good("calc", "wire.awg", "gauge=22").out().contains("643.8 µm"));
    assertTrue(bad("calc", "nothing").err().contains("wire.awg"));
    assertTrue(bad("calc", "wire.awg").err().contains("gauge"));
    assertTrue(bad("calc", "wire.awg", "gauge").err().contains("key=value"));
    assertTrue(bad("calc", "wire.awg", "gauge=1", "gauge=2").err().contains("twice"));
    assertTrue(bad("calc", "wire.awg", "gauge=22", "colour=red").err().contains("colour"));
  }

  @Test
  public void badInputLeavesTheWorkspaceAsItWas() throws IOException {
    String w = fresh("bad.ell");
    good("new", w);
    good(importB(w));
    good("build", w, "--design", "MG-1", "--revision", "B", "--boards", "2");
    byte[] before = Files.readAllBytes(Path.of(w));
    Path broken = folder.resolve("broken.csv");
    Files.writeString(
        broken, Files.readString(Path.of(DEMO + "bom.csv")).replace("1,J1,", "2,J1,"));
    Ran r =
        bad(
            "import",
            w,
            "--design",
            "MG-1",
            "--revision",
            "C",
            "--bom",
            broken.toString(),
            "--placement",
            DEMO + "placement.csv",
            "--netlist",
            DEMO + "netlist.ipc");
    assertTrue(r.err().contains("broken.csv, line 2, column 1"), r.err());
    assertTrue(r.err().contains("nothing was imported"));
    bad("build", w, "--design", "MG-1", "--revision", "Z", "--boards", "2");
    bad("build", w, "--design", "MG-1", "--revision", "B", "--boards", "0");
    bad("build", w, "--design", "MG-1", "--revision", "B", "--boards", "2", "--method", "toaster");
    bad("build", w, "--design", "MG-1", "--revision", "B", "--boards", "2", "--alloy", "tin");
    bad("build", w, "--design", "MG-1", "--revision", "B", "--boards", "many");
    bad("log", w, "--board", "09", "3V3 3.3");
    bad("log", w, "--board", "01", "NOWHERE 3.3");
    bad("log", w, "--board", "01", "3V3");
    bad("log", w, "--board", "01");
    bad("show", w, "--board", "99");
    bad("kit", w, "--build", "7");
    bad("order", w, "--method", "toaster");
    bad("power", w, "--state", "asleep");
    bad("ladder", w, "--set", broken.toString());
    bad("report", w, "--board", "01", "--out", fresh("no/such/folder.pdf"));
    assertEquals(Files.readAllBytes(Path.of(w)), before);
    assertEquals(good("verify", w, "--json").json().get("entries").intValue(), 0);
  }

  @Test
  public void filesThatAreNoWorkspace() throws IOException {
    Path text = folder.resolve("text.ell");
    Files.writeString(text, "hello");
    assertTrue(bad("kit", text.toString()).err().contains("not a workspace"));
    assertTrue(bad("kit", fresh("none.ell")).err().contains("there is no workspace"));
    assertTrue(bad("kit", folder.toString()).err().contains("is a folder"));
    assertTrue(bad("new", ws).err().contains("already there"));
    assertTrue(bad("frobnicate").err().contains("commands are:"));
    assertTrue(bad("kit").err().contains("WS"));
    assertTrue(bad("kit", ws, "--frob").err().contains("--frob"));
  }

  @Test
  public void theLadderIsReadAndCorrected() throws IOException {
    String w = fresh("ladder.ell");
    good("new", w);
    good(importB(w));
    Ran proposed = good("ladder", w);
    assertTrue(proposed.json().get("assumptions").size() > 5, "what was guessed is said");
    Path f = folder.resolve("ladder.json");
    Files.writeString(f, proposed.out().replace("\"low\" : 3.135", "\"low\" : 3.25"));
    good("ladder", w, "--set", f.toString());
    good("build", w, "--design", "MG-1", "--revision", "B", "--boards", "1", "--method", "iron");
    assertEquals(
        good("log", w, "--board", "01", "3V3 3.2", "--json").json().get("verdict").stringValue(),
        "out");
  }

  @Test
  public void strikesFromTheCommandLine() {
    String w = fresh("strike.ell");
    good("demo-workspace", w);
    int number =
        good("log", w, "--board", "12", "3V3 3.0", "--json")
            .json()
            .get("entry")
            .get("number")
            .intValue();
    assertEquals(good("show", w, "--board", "12", "--json").json().get("openFindings").size(), 1);
    good("log", w, "--board", "12", "strike " + number + " wrong board");
    assertEquals(good("show", w, "--board", "12", "--json").json().get("openFindings").size(), 0);
    assertTrue(good("show", w, "--board", "12", "--log").out().contains("struck: 3V3"));
    assertTrue(bad("log", w, "--board", "12", "strike " + number).err().contains("struck already"));
    assertTrue(good("log", w, "--board", "12", "3V3 3.36").out().contains("would settle it"));
  }

  @Test
  public void helpOnEveryCommand() {
    assertTrue(good("--help").out().contains("import"));
    for (String c :
        List.of(
            "calc", "new", "import", "build", "kit", "order", "beep", "power", "log", "show",
            "verify", "report", "export")) {
      assertTrue(
          good(c, "--help").out().toLowerCase(java.util.Locale.ROOT).contains("usage: ell " + c),
          c);
    }
    assertTrue(good("show", ws).out().contains("MG-1 rev B"));
    assertTrue(good("beep", ws).out().contains("power waits"));
    assertTrue(good("order", ws).out().contains("GATE rails"));
    assertTrue(good("kit", ws).out().contains("RADIO24 limits"));
    assertTrue(good("power", ws).out().contains("Why this limit"));
  }
}
