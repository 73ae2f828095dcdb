package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.cli.shell.JsonText;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/// What was made quick must say the same: a sum without the parser, one command without the others,
/// JSON without the mapper. And the ways that were only in the window: plate, words, restore.
public class StartTest {
  private static final JsonMapper MAPPER = JsonMapper.builder().build();
  private Path folder;
  private String ws;

  private static MainTest.Ran ell(String... args) {
    return MainTest.ell(args);
  }

  private static MainTest.Ran good(String... args) {
    MainTest.Ran r = ell(args);
    assertEquals(r.code(), 0, String.join(" ", args) + "\n" + r.err());
    return r;
  }

  private static MainTest.Ran bad(String... args) {
    MainTest.Ran r = ell(args);
    assertEquals(r.code(), 2, String.join(" ", args) + "\n" + r.out());
    assertFalse(r.err().isBlank());
    return r;
  }

  @BeforeClass
  public void demo() throws IOException {
    folder = Files.createTempDirectory("start");
    ws = folder.resolve("demo.ell").toString();
    System.setProperty("ell.demo", "../fixtures/marram");
    good("demo-workspace", ws);
  }

  @DataProvider
  Object[][] sums() {
    return new Object[][] {
      {"calc"},
      {"calc power.trace-width current=1A rise=10"},
      {"calc power.linear vin=5 vout=3.3 current=0.2"},
      {"calc nothing.such x=1"},
      {"calc power.trace-width current=lots rise=10"},
      {"calc power.trace-width current=1A rise=10 colour=green"},
      {"calc power.trace-width current=1A current=2A rise=10"},
      {"calc power.trace-width current"},
    };
  }

  /// With a blank word before it the line goes through the parser; both ways must say the same.
  @Test(dataProvider = "sums")
  public void theQuickDoorSaysWhatTheParserSays(String line) {
    for (String json : List.of("", " --json")) {
      String[] quick = (line + json).split(" ");
      List<String> long1 = new ArrayList<>(List.of(quick));
      long1.add(1, "--");
      if (!json.isEmpty()) {
        long1.remove("--json");
        long1.add(1, "--json");
      }
      MainTest.Ran a = ell(quick);
      MainTest.Ran b = ell(long1.toArray(String[]::new));
      assertEquals(a.code(), b.code(), line);
      assertEquals(a.out(), b.out(), line);
      assertEquals(a.err().lines().findFirst(), b.err().lines().findFirst(), line);
    }
  }

  @Test
  public void oneCommandAloneHelpsLikeAmongAll() {
    String all = good("--help").out();
    int n = 0;
    for (String line : all.lines().toList()) {
      if (line.matches("  [a-z][a-z-]+ +\\S.*")) {
        String name = line.strip().split(" +")[0];
        String help = good(name, "--help").out();
        assertTrue(help.startsWith("Usage: ell " + name), help.lines().findFirst().orElse(""));
        n++;
      }
    }
    assertTrue(n >= 28, n + " commands are listed");
    assertTrue(bad("nonsense").err().contains("commands are: calc, new"));
    assertTrue(bad("show").err().contains("see: ell show --help"));
    assertTrue(bad("kit", ws, "--wrong").err().contains("see: ell kit --help"));
  }

  private static JsonNode random(Random r, int depth) {
    JsonNodeFactory f = JsonNodeFactory.instance;
    int kind = r.nextInt(depth > 4 ? 9 : 12);
    return switch (kind) {
      case 0 -> f.numberNode(r.nextInt());
      case 1 -> f.numberNode(r.nextLong());
      case 2 -> f.numberNode(r.nextGaussian() * Math.pow(10, r.nextInt(40) - 20));
      case 3 -> f.numberNode((float) r.nextGaussian());
      case 4 -> f.numberNode(new BigDecimal("123456789.000000000000000000123"));
      case 5 -> f.numberNode(new BigInteger("123456789012345678901234567890"));
      case 6 -> f.booleanNode(r.nextBoolean());
      case 7 -> f.nullNode();
      case 8 -> f.stringNode("Ω \"" + (char) r.nextInt(1, 0xD000) + "\\\n\t" + r.nextInt());
      case 9 -> {
        ArrayNode a = f.arrayNode();
        for (int i = r.nextInt(5); i > 0; i--) {
          a.add(random(r, depth + 1));
        }
        yield a;
      }
      default -> {
        ObjectNode o = f.objectNode();
        for (int i = r.nextInt(6); i > 0; i--) {
          o.set("k" + r.nextInt(100), random(r, depth + 1));
        }
        yield o;
      }
    };
  }

  /// Against the mapper of the library, character by character, and read back.
  @Test
  public void jsonIsWrittenAsTheMapperWritesIt() {
    Random r = new Random(11);
    for (int i = 0; i < 3000; i++) {
      JsonNode tree = random(r, 0);
      assertEquals(JsonText.of(tree), tree.toPrettyString());
      if (!tree.isNumber()) {
        MAPPER.readTree(JsonText.of(tree));
      }
    }
  }

  @Test
  public void wordsAreThoseOfTheTape() {
    String out = good("words").out();
    JsonNode json = good("words", "--json").json();
    String table = good("words", "--table").out();
    assertTrue(json.size() > 0);
    for (String form : List.of("note TEXT", "strike N [WHY]", "override RULE WHY")) {
      assertTrue(out.contains(form), form);
      assertTrue(table.contains("`" + form + "`"), form);
    }
  }

  private String copy(String name) {
    Path to = folder.resolve(name);
    good("backup", ws, "--out", to.toString());
    return to.toString();
  }

  @Test
  public void aPlateIsRunWithoutTheWindow() {
    String w = copy("plate.ell");
    JsonNode ran =
        good("heat", w, "--board", "09", "--go", "--sim", "--speed", "400", "--json").json();
    assertEquals(ran.get("board").asString(), "09");
    assertTrue(ran.get("whole").asBoolean());
    JsonNode profile = ran.get("entries").get(0);
    assertEquals(profile.get("kind").asString(), "profile");
    assertEquals(profile.get("verdict").asString(), "within");
    assertEquals(ran.get("entries").get(1).get("action").asString(), "reflow");
    JsonNode board = good("show", w, "--board", "09", "--json").json();
    assertTrue(
        board.get("heatCycles").properties().stream().anyMatch(p -> p.getValue().asInt() == 1),
        "what was on the board was heated once");
  }

  @Test
  public void aPlateThatCanNotBeRunChangesNothing() {
    String w = copy("refused.ell");
    String before = good("verify", w).out();
    bad("heat", w, "--go", "--sim");
    bad("heat", w, "--board", "99", "--go", "--sim");
    bad("heat", w, "--board", "09", "--go");
    bad("heat", w, "--board", "09", "--go", "--plate", "127.0.0.1:1");
    bad("heat", w, "--board", "09", "--go", "--plate", "no address");
    assertEquals(good("verify", w).out(), before);
  }

  /// Out and in and out again: the same bytes in every file.
  @Test
  public void anExportIsRestoredByteForByte() throws IOException {
    Path first = folder.resolve("first");
    Path second = folder.resolve("second");
    String again = folder.resolve("again.ell").toString();
    good("export", ws, "--out", first.toString());
    good("restore", again, "--from", first.toString());
    good("verify", again);
    good("export", again, "--out", second.toString());
    TreeMap<String, Long> a = files(first);
    assertEquals(files(second).keySet(), a.keySet());
    assertTrue(a.size() > 10);
    for (String name : a.keySet()) {
      if (!name.equals("workspace.json")) {
        assertEquals(
            Files.mismatch(first.resolve(name), second.resolve(name)), -1, name + " differs");
      }
    }
    assertEquals(good("show", again).out(), good("show", ws).out());
  }

  private static TreeMap<String, Long> files(Path folder) throws IOException {
    TreeMap<String, Long> out = new TreeMap<>();
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path p : all.filter(Files::isRegularFile).toList()) {
        out.put(folder.relativize(p).toString(), Files.size(p));
      }
    }
    return out;
  }

  @Test
  public void whatCanNotBeRestoredLeavesNothing() throws IOException {
    Path empty = Files.createTempDirectory("empty");
    String to = folder.resolve("never.ell").toString();
    bad("restore", to, "--from", empty.toString());
    assertFalse(Files.exists(Path.of(to)));
    bad("restore", ws, "--from", empty.toString());
    good("verify", ws);
    Path torn = folder.resolve("torn");
    good("export", ws, "--out", torn.toString());
    Path chain = torn.resolve("chain.csv");
    List<String> lines = Files.readAllLines(chain);
    Files.write(chain, lines.subList(0, lines.size() - 1));
    bad("restore", to, "--from", torn.toString());
    assertFalse(Files.exists(Path.of(to)), "whole or not at all");
  }
}
