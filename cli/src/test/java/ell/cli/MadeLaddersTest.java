package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Power ladders made at random, set by `ladder --set` and answered by `power`, against the sums of
/// the handbooks done once more in a few lines: power in is power out and heat, a linear regulator
/// passes its current, Kirchhoff's first law at every rail.
public class MadeLaddersTest {
  private static final JsonMapper MAPPER = JsonMapper.builder().build();
  private static final List<String> STATES = List.of("boot", "idle", "active", "worst");
  private Path folder;
  private String ws;

  /// A rail of a chain and what feeds it.
  private record Link(
      String rail,
      String kind,
      double volts,
      double dropout,
      double efficiency,
      double own,
      double theta,
      double ohms) {}

  private final List<Link> chain = new ArrayList<>();
  private final Map<String, Map<String, Double>> loads = new LinkedHashMap<>();

  @BeforeMethod
  public void workspace() throws IOException {
    folder = Files.createTempDirectory("ladders");
    ws = folder.resolve("ws.ell").toString();
    chain.clear();
    loads.clear();
  }

  private static MainTest.Ran good(String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), 0, String.join(" ", args) + "\n" + r.err() + r.out());
    return r;
  }

  /// A chain of three to six rails on a board of its own; the files name what the ladder names.
  private void make(long seed) throws IOException {
    Random random = new Random(seed);
    double volts = 9 + random.nextInt(16);
    chain.add(new Link("RAIL0", "source", volts, 0, 0, 0, 0, 0));
    int steps = 2 + random.nextInt(4);
    for (int i = 1; i <= steps; i++) {
      String kind = List.of("switching", "linear", "pass", "diode").get(random.nextInt(4));
      double before = volts;
      double dropout = kind.equals("diode") ? 0.4 : 0.3;
      volts =
          switch (kind) {
            case "switching", "linear" -> Math.max(0.8, before * (0.5 + 0.3 * random.nextDouble()));
            case "diode" -> before - dropout;
            default -> before;
          };
      chain.add(
          new Link(
              "RAIL" + i,
              kind,
              volts,
              kind.equals("pass") ? 0 : dropout,
              kind.equals("switching") ? 0.8 + 0.15 * random.nextDouble() : 0,
              kind.equals("switching") || kind.equals("linear") ? 1e-3 * random.nextDouble() : 0,
              kind.equals("switching") || kind.equals("linear") ? 40 + 80 * random.nextDouble() : 0,
              kind.equals("pass") ? 0.1 : 0));
    }
    for (Link l : chain.subList(1, chain.size())) {
      double boot = 0.02 * random.nextDouble();
      loads.put(
          l.rail(),
          Map.of("boot", boot, "idle", boot * 1.5, "active", boot * 3, "worst", boot * 4));
    }
    write();
  }

  private void write() throws IOException {
    StringBuilder bom = new StringBuilder("References,Quantity,Value,Package,Code\n");
    StringBuilder place = new StringBuilder("Designator,Mid X (mm),Mid Y (mm),Rotation,Side\n");
    StringBuilder net = new StringBuilder("P  UNITS CUST 1\n");
    List<String> refs = new ArrayList<>(List.of("J1"));
    for (int i = 1; i < chain.size(); i++) {
      refs.add("U" + i);
      refs.add("X" + i);
    }
    for (int i = 0; i < refs.size(); i++) {
      String ref = refs.get(i);
      int n = ref.equals("J1") ? 0 : Integer.parseInt(ref.substring(1));
      List<String> nets =
          ref.equals("J1")
              ? List.of("RAIL0", "GND")
              : ref.startsWith("U")
                  ? List.of("RAIL" + (n - 1), "RAIL" + n, "GND")
                  : List.of("RAIL" + n, "GND");
      bom.append("%s,1,THING,0805,CODE%d%n".formatted(ref, i));
      place.append("%s,%d,5,0,T%n".formatted(ref, 5 + 10 * i));
      for (int p = 0; p < nets.size(); p++) {
        net.append(
            "327%-14s   %-6s-%-4d       A01X%+07dY%+07dX0900Y0700R000S0%n"
                .formatted(nets.get(p), ref, p + 1, 5000 + 10_000 * i + 1500 * p, 5000));
      }
    }
    Files.writeString(folder.resolve("bom.csv"), bom);
    Files.writeString(folder.resolve("placement.csv"), place);
    Files.writeString(folder.resolve("netlist.ipc"), net + "999\n");
    good("new", ws);
    good(
        "import",
        ws,
        "--design",
        "Chain",
        "--revision",
        "1",
        "--bom",
        folder.resolve("bom.csv").toString(),
        "--placement",
        folder.resolve("placement.csv").toString(),
        "--netlist",
        folder.resolve("netlist.ipc").toString());
    set(ladder());
  }

  private void set(ObjectNode ladder) throws IOException {
    Path f = folder.resolve("ladder.json");
    Files.writeString(f, ladder.toString());
    good("ladder", ws, "--set", f.toString());
  }

  private ObjectNode ladder() {
    ObjectNode o = MAPPER.createObjectNode();
    o.put("ground", "GND");
    ArrayNode rails = o.putArray("rails");
    for (Link l : chain) {
      rails
          .addObject()
          .put("net", l.rail())
          .put("volts", l.volts())
          .put("low", l.volts() * 0.95)
          .put("high", l.volts() * 1.05)
          .put("capacitance", 0.0);
    }
    o.putArray("sources")
        .addObject()
        .put("rail", "RAIL0")
        .put("volts", chain.getFirst().volts())
        .put("low", chain.getFirst().volts())
        .put("high", chain.getFirst().volts())
        .put("limit", 5.0);
    ArrayNode steps = o.putArray("steps");
    for (int i = 1; i < chain.size(); i++) {
      Link l = chain.get(i);
      steps
          .addObject()
          .put("part", "U" + i)
          .put("kind", l.kind())
          .put("from", "RAIL" + (i - 1))
          .put("to", l.rail())
          .put("volts", l.volts())
          .put("dropout", l.dropout())
          .put("efficiency", l.efficiency())
          .put("quiescent", l.own())
          .put("theta", l.theta())
          .put("limit", 2.0)
          .put("ohms", l.ohms());
    }
    ArrayNode all = o.putArray("loads");
    loads.forEach((rail, amps) -> {
      ObjectNode load = all.addObject().put("part", "X" + rail.substring(4)).put("rail", rail);
      ObjectNode by = load.putObject("amps");
      STATES.forEach(s -> by.put(s, amps.get(s)));
    });
    return o;
  }

  @DataProvider
  Object[][] seeds() {
    Object[][] out = new Object[12][];
    for (int i = 0; i < out.length; i++) {
      out[i] = new Object[] {100L + i};
    }
    return out;
  }

  @Test(dataProvider = "seeds")
  public void currentsAndHeatAsTheHandbooksHaveThem(long seed) throws IOException {
    make(seed);
    for (String state : STATES) {
      JsonNode p = good("power", ws, "--state", state, "--json").json();
      Map<String, JsonNode> regulators = new LinkedHashMap<>();
      p.get("regulators").forEach(r -> regulators.put(r.get("part").stringValue(), r));
      Map<String, Double> shown = new LinkedHashMap<>();
      p.get("rails")
          .forEach(r -> shown.put(r.get("rail").stringValue(), r.get("current").doubleValue()));
      double below = 0;
      for (int i = chain.size() - 1; i >= 0; i--) {
        Link l = chain.get(i);
        double out = below + (i == 0 ? 0 : loads.get(l.rail()).get(state));
        assertEquals(shown.get(l.rail()), out, 1e-9, l.rail() + " in " + state);
        if (i == 0) {
          break;
        }
        double vin = chain.get(i - 1).volts();
        double in =
            l.kind().equals("switching")
                ? l.volts() * out / (l.efficiency() * vin) + l.own()
                : out + l.own();
        JsonNode r = regulators.get("U" + i);
        boolean regulates = l.kind().equals("switching") || l.kind().equals("linear");
        assertEquals(r != null, regulates, "U" + i + " is a " + l.kind());
        if (regulates) {
          // what goes in and does not come out is heat
          double heat = vin * in - l.volts() * out;
          assertEquals(r.get("dissipation").doubleValue(), heat, 1e-9, "U" + i + " " + l.kind());
          assertEquals(r.get("junction").doubleValue(), 25 + l.theta() * heat, 1e-7);
        }
        below = in;
      }
      double expected = shown.get("RAIL0");
      double limit = p.get("limit").doubleValue();
      assertTrue(limit >= expected * 1.2 - 1e-9, "common practice, no source: at least 1.2 times");
      assertTrue(limit <= expected * 1.2 + 0.01 + 1e-9, "and no more than one step above");
    }
  }

  /// What was set is what is shown: nothing is lost or turned on the way.
  @Test(dataProvider = "seeds")
  public void theLadderComesBackAsItWasSet(long seed) throws IOException {
    make(seed);
    JsonNode back = good("ladder", ws).json();
    JsonNode set = ladder();
    assertEquals(back.get("rails").size(), set.get("rails").size());
    for (String list : List.of("rails", "sources", "steps")) {
      for (int i = 0; i < set.get(list).size(); i++) {
        JsonNode a = set.get(list).get(i);
        JsonNode b = back.get(list).get(i);
        for (String key : a.propertyNames()) {
          if (a.get(key).isNumber()) {
            assertEquals(b.get(key).doubleValue(), a.get(key).doubleValue(), 1e-15, list + key);
          } else {
            assertEquals(b.get(key), a.get(key));
          }
        }
      }
    }
  }

  @DataProvider
  Object[][] broken() {
    return new Object[][] {
      {"\"kind\":\"linear\"", "\"kind\":\"magic\"", "magic"},
      {"\"to\":\"RAIL1\"", "\"to\":\"RAIL9\"", "RAIL9"},
      {"\"ground\":\"GND\"", "\"ground\":\"EARTH\"", "EARTH"},
      {"\"part\":\"U1\"", "\"part\":\"U77\"", "U77"},
      {"\"rail\":\"RAIL0\"", "\"rail\":\"NOWHERE\"", "NOWHERE"},
      {"\"from\":\"RAIL0\"", "\"from\":\"RAIL2\"", "RAIL2"},
      {"\"volts\"", "\"bolts\"", "volts"},
      {"{\"ground\"", "[\"ground\"", ""},
      {"}]}", "}]", ""},
    };
  }

  /// A ladder that cannot be is told with the word that is wrong, and the one before stays.
  @Test(dataProvider = "broken")
  public void aLadderThatCannotBe(String was, String is, String said) throws IOException {
    chain.add(new Link("RAIL0", "source", 12, 0, 0, 0, 0, 0));
    chain.add(new Link("RAIL1", "linear", 5, 0.3, 0, 1e-3, 50, 0));
    chain.add(new Link("RAIL2", "linear", 3.3, 0.3, 0, 1e-3, 50, 0));
    loads.put("RAIL2", Map.of("boot", 0.01, "idle", 0.01, "active", 0.01, "worst", 0.01));
    write();
    String before = good("power", ws, "--json").out();
    String text = ladder().toString();
    assertTrue(text.contains(was), text);
    int at = was.equals("}]}") ? text.lastIndexOf(was) : text.indexOf(was);
    Path f = folder.resolve("broken.json");
    Files.writeString(f, text.substring(0, at) + is + text.substring(at + was.length()));
    MainTest.Ran r = MainTest.ell("ladder", ws, "--set", f.toString());
    assertEquals(r.code(), 2, r.out());
    assertTrue(r.err().contains(said), r.err());
    assertFalse(r.err().contains("Exception"), r.err());
    assertEquals(good("power", ws, "--json").out(), before, "the ladder before stays");
  }
}
