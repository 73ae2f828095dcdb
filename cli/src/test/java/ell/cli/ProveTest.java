package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Proofs through the command line: shapes, sums against sums by hand, refusals.
public final class ProveTest {
  private Path folder;

  @BeforeClass
  public void demo() throws Exception {
    System.setProperty("ell.demo", "../fixtures/marram");
    folder = Files.createTempDirectory("prove");
  }

  private String workspace(String name) {
    Path ws = folder.resolve(name + ".ell");
    assertEquals(MainTest.ell("demo-workspace", ws.toString()).code(), 0);
    return ws.toString();
  }

  private static JsonNode json(String... args) {
    List<String> all = new ArrayList<>(Arrays.asList(args));
    all.add("--json");
    MainTest.Ran r = MainTest.ell(all.toArray(String[]::new));
    assertTrue(r.code() <= 1, r.err());
    return r.json();
  }

  private static JsonNode named(JsonNode list, String name) {
    for (JsonNode x : list) {
      if (x.get("name").stringValue().equals(name)) {
        return x;
      }
    }
    throw new AssertionError("no " + name + " in " + list);
  }

  /// Readings that were logged, and nothing else: mean, spread and capability by hand.
  @Test
  public void aBuildByItsReadings() throws Exception {
    String ws = folder.resolve("made.ell").toString();
    assertEquals(MainTest.ell("new", ws).code(), 0);
    Path odd = Path.of("../fixtures/odd/shield");
    MainTest.Ran in =
        MainTest.ell(
            "import",
            ws,
            "--design",
            "shield",
            "--revision",
            "1",
            "--bom",
            odd.resolve("bom.csv").toString(),
            "--placement",
            odd.resolve("placement.csv").toString(),
            "--netlist",
            odd.resolve("netlist.ipc").toString(),
            "--outline",
            odd.resolve("outline.csv").toString());
    assertEquals(in.code(), 0, in.err());
    assertEquals(
        MainTest.ell(
                "build",
                ws,
                "--design",
                "shield",
                "--revision",
                "1",
                "--boards",
                "9",
                "--method",
                "iron")
            .code(),
        0);
    double[] volts = {5.01, 5.02, 4.99, 5.0, 5.03, 4.98, 5.01, 5.6, 5.02};
    for (int i = 0; i < volts.length; i++) {
      assertEquals(
          MainTest.ell("log", ws, "--board", String.format("%02d", i + 1), "5V " + volts[i]).code()
              <= 1,
          true);
    }
    JsonNode o = json("prove", ws);
    assertEquals(o.get("boards").intValue(), 9);
    JsonNode t = named(o.get("tests"), "5V");
    double mean = Arrays.stream(volts).average().orElseThrow();
    double sd =
        Math.sqrt(
            Arrays.stream(volts).map(v -> (v - mean) * (v - mean)).sum() / (volts.length - 1));
    assertEquals(t.get("n").intValue(), 9);
    assertEquals(t.get("failed").intValue(), 1);
    assertEquals(t.get("mean").doubleValue(), mean, 1e-9);
    assertEquals(t.get("sd").doubleValue(), sd, 1e-9);
    assertEquals(t.get("cp").doubleValue(), 1.0 / (6 * sd), 1e-6);
    assertEquals(t.get("cpk").doubleValue(), (5.5 - mean) / (3 * sd), 1e-6);
    assertTrue(t.get("cpkLow").doubleValue() < t.get("cpk").doubleValue());
    assertEquals(t.get("outliers").get(0).stringValue(), "08");
    assertEquals(t.get("failedBoards").get(0).stringValue(), "08");
    assertEquals(o.get("firstPassYield").get("value").doubleValue(), 8.0 / 9, 1e-12);
    // Wilson by hand for 8 of 9
    double z = 1.959963984540054;
    double p = 8.0 / 9;
    double c = (p + z * z / 18) / (1 + z * z / 9);
    double h = z / (1 + z * z / 9) * Math.sqrt(p * (1 - p) / 9 + z * z / 324);
    assertEquals(o.get("firstPassYield").get("low").doubleValue(), c - h, 1e-9);
    assertEquals(o.get("firstPassYield").get("high").doubleValue(), c + h, 1e-9);
    assertEquals(o.get("rolledYield").doubleValue(), 8.0 / 9, 1e-12);
    assertEquals(o.get("ready").size(), 9);
    assertFalse(o.get("ready").get(0).get("ready").booleanValue());
    assertFalse(o.get("ready").get(0).get("missing").isEmpty());
    // struck, it never was
    MainTest.ell("log", ws, "--board", "08", "strike 8 the tip had slipped");
    assertEquals(json("prove", ws).get("firstPassYield").get("value").doubleValue(), 1.0);
    assertEquals(named(json("prove", ws).get("tests"), "5V").get("n").intValue(), 8);
  }

  @Test(timeOut = 180_000)
  public void aRunAndWhatComesOfIt() throws Exception {
    String ws = workspace("run");
    JsonNode shown = json("prove", ws, "--propose");
    assertTrue(shown.get("blocks").isEmpty(), shown.toString());
    JsonNode o = json("prove", ws, "--board", "07", "--go", "--sim");
    assertEquals(o.get("board").stringValue(), "07");
    assertEquals(o.get("verdict").stringValue(), "within", o.toString());
    JsonNode rail = named(o.get("steps"), "3V3");
    assertEquals(rail.get("unit").stringValue(), "V");
    assertTrue(rail.get("low").doubleValue() < rail.get("value").doubleValue());
    assertTrue(rail.get("value").doubleValue() < rail.get("high").doubleValue());
    assertTrue(rail.get("uncertainty").doubleValue() > 0);
    assertEquals(rail.get("verdict").stringValue(), "within");
    assertTrue(o.get("minutes").doubleValue() > 0);
    assertEquals(o.get("told").stringValue(), "PASS");
    for (JsonNode s : o.get("steps")) {
      for (String key : List.of("number", "name", "verdict", "seconds")) {
        assertTrue(s.has(key), s + " lacks " + key);
      }
    }
    MainTest.Ran bad = MainTest.ell("prove", ws, "--board", "04", "--go", "--sim", "--json");
    assertEquals(bad.code(), 1);
    assertEquals(bad.json().get("verdict").stringValue(), "out");
    assertTrue(bad.json().get("why").stringValue().startsWith("ended at"), bad.out());
    JsonNode b = json("prove", ws, "--board", "07");
    assertEquals(b.get("ready").size(), 1);

    Path plan =
        Files.writeString(
            folder.resolve("own.txt"),
            "plan own\npower\nvolts 3V3\nask \"Lit?\" yes name=lit\nask \"How bright?\" 1..5V name=bright\noff\n");
    MainTest.Ran none =
        MainTest.ell(
            "prove", ws, "--board", "07", "--go", "--sim", "--plan", plan.toString(), "--json");
    assertEquals(none.code(), 1);
    assertEquals(none.json().get("verdict").stringValue(), "close");
    assertTrue(named(none.json().get("steps"), "lit").get("left").booleanValue());
    JsonNode said =
        json(
            "prove",
            ws,
            "--board",
            "07",
            "--go",
            "--sim",
            "--plan",
            plan.toString(),
            "--answer",
            "lit=yes",
            "--answer",
            "bright=3.2");
    assertEquals(said.get("verdict").stringValue(), "within", said.toString());
    assertEquals(named(said.get("steps"), "bright").get("value").doubleValue(), 3.2);
    JsonNode skipped =
        json(
            "prove",
            ws,
            "--board",
            "07",
            "--go",
            "--sim",
            "--plan",
            plan.toString(),
            "--answer",
            "lit=no",
            "--skip",
            "bright=no lux meter here");
    assertEquals(skipped.get("verdict").stringValue(), "out");
    assertEquals(
        named(skipped.get("steps"), "bright").get("words").stringValue(),
        "by hand: no lux meter here");
  }

  @Test
  public void plansAndRules() throws Exception {
    String ws = workspace("plans");
    Path plan = folder.resolve("p.txt");
    Files.writeString(plan, "volt 3V3\npower\nvolts\n");
    MainTest.Ran r = MainTest.ell("prove", ws, "--plan", plan.toString(), "--show");
    assertEquals(r.code(), 2);
    assertTrue(r.err().contains("p.txt, line 1:") && r.err().contains("p.txt, line 3:"), r.err());
    Files.writeString(plan, "power\nvolts 3V3\nvolts NOWHERE\n");
    JsonNode o = json("prove", ws, "--plan", plan.toString(), "--show");
    assertTrue(o.get("blocks").get(0).stringValue().contains("NOWHERE"), o.toString());
    assertEquals(
        MainTest.ell("prove", ws, "--board", "07", "--go", "--sim", "--plan", plan.toString())
            .code(),
        2);
    // slow first, as somebody wrote it: the order by what fails soonest a minute
    Files.writeString(
        plan,
        "power\nvolts 3V3 minutes=5\nvolts 5V0 minutes=0.1\nvolts 3V3A needs=5V0 minutes=1\noff\n");
    assertEquals(MainTest.ell("prove", ws, "--plan", plan.toString(), "--keep").code(), 0);
    JsonNode order = json("prove", ws, "--order");
    assertTrue(order.get("minutes").doubleValue() < order.get("asGiven").doubleValue());
    assertTrue(order.get("optimal").booleanValue());
    List<String> lines = order.get("text").stringValue().lines().toList();
    assertEquals(lines.get(2), "volts 5V0 minutes=0.1");
    assertEquals(lines.get(4), "volts 3V3 minutes=5");
    assertEquals(
        json("prove", ws, "--say", "use=flies", "--say", "proofs=2").get("proofs").intValue(), 2);
    Path empty = Files.writeString(folder.resolve("empty.txt"), "");
    Path binary =
        Files.write(folder.resolve("binary.txt"), new byte[] {(byte) 0xff, (byte) 0xfe, 0, 1});
    Path huge = Files.writeString(folder.resolve("huge.txt"), "volts 3V3\n".repeat(200_000));
    for (String[] bad :
        new String[][] {
          {"--say", "use=sings"},
          {"--say", "heats=0"},
          {"--go"},
          {"--go", "--board", "nobody", "--sim"},
          {"--go", "--board", "07"},
          {"--keep"},
          {"--skip", "a=b"},
          {"--plan", "nowhere.txt", "--show"},
          {"--plan", empty.toString(), "--go", "--board", "07", "--sim"},
          {"--plan", binary.toString(), "--show"},
          {"--plan", huge.toString(), "--show"},
          {"--go", "--board", "07", "--sim", "--skip", "NOSUCH=why"},
          {"--go", "--board", "07", "--sim", "--jig", "J 1"},
          {"--go", "--board", "07", "--sim", "--line", "rubbish"},
          // nobody would put the second board on the bench
          {"--go", "--board", "06,07", "--meter", "127.0.0.1:1", "--json"},
        }) {
      List<String> args = new ArrayList<>(List.of("prove", ws));
      args.addAll(Arrays.asList(bad));
      MainTest.Ran x = MainTest.ell(args.toArray(String[]::new));
      assertEquals(x.code(), 2, args + ": " + x.out() + x.err());
      assertFalse(x.err().isBlank());
      assertFalse(x.err().contains("Exception"), x.err());
    }
    MainTest.Ran released = MainTest.ell("log", ws, "--board", "07", "released");
    assertEquals(released.code(), 2);
    assertTrue(released.err().contains("not ready"), released.err());
  }

  @Test
  public void recordsByTheirEnding() throws Exception {
    String ws = workspace("records");
    Path pdf = folder.resolve("b.pdf");
    assertEquals(
        json("report", ws, "--build", "--out", pdf.toString()).get("what").stringValue(),
        "build record");
    assertTrue(Files.size(pdf) > 1000);
    Path j = folder.resolve("07.json");
    assertEquals(MainTest.ell("report", ws, "--board", "07", "--out", j.toString()).code(), 0);
    assertTrue(Files.readString(j).contains("\"seal\""));
    Path labels = folder.resolve("labels.pdf");
    assertEquals(
        MainTest.ell("report", ws, "--build", "--labels", "--out", labels.toString()).code(), 0);
    for (String[] bad :
        new String[][] {
          {"--out", "x.pdf"},
          {"--board", "07", "--build", "--out", "x.pdf"},
          {"--board", "nobody", "--out", "x.pdf"},
          {"--board", "06,07", "--out", "x.pdf"},
          {"--board", "07", "--lot", "--out", "x.pdf"},
          {"--build", "--lot", "--out", "x.pdf"},
          {"--build", "99", "--out", "x.pdf"},
          {"--build", "--as-of", "9", "--labels", "--out", "x.pdf"},
          {"--build", "--as-of", "9", "--out", "x.csv"},
          {"--board", "07", "--as-of", "999999", "--out", "x.pdf"},
        }) {
      List<String> args = new ArrayList<>(List.of("report", ws));
      args.addAll(Arrays.asList(bad));
      MainTest.Ran x = MainTest.ell(args.toArray(String[]::new));
      assertEquals(x.code(), 2, args + ": " + x.out());
      assertFalse(Files.exists(Path.of("x.pdf")), args.toString());
    }
    assertEquals(MainTest.ell("verify", ws, "--label", "rubbish").code(), 2);
    JsonNode no =
        json("verify", ws, "--label", "ell board \"MG-1\" \"B\" 07 3:00000000000000000000");
    assertFalse(no.get("ok").booleanValue());
  }
}
