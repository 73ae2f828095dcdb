package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import ell.cli.MadeBoard.Made;
import ell.cli.MadeBoard.Pin;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Boards that nobody drew go through the commands, and what comes out is held against what is true
/// of them by counting, trying and relaxing: metric and imperial files, both sides, leads and pads.
public class UnseenBoardsTest {
  private static final int BOARDS = 3;
  private final Map<Long, MadeBoard> made = new HashMap<>();
  private final Map<Long, String> workspace = new HashMap<>();

  @BeforeClass
  public void importThem() throws IOException {
    for (long seed = 1; seed <= 8; seed++) {
      MadeBoard board = new MadeBoard(seed, (int) (6 + 9 * seed));
      Path folder = Files.createTempDirectory("unseen");
      board.write(folder);
      String ws = folder.resolve("ws.ell").toString();
      good("new", ws);
      JsonNode in =
          good(
              "import",
              ws,
              "--design",
              "Unseen",
              "--revision",
              "1",
              "--bom",
              folder.resolve("bom.csv").toString(),
              "--placement",
              folder.resolve("placement.csv").toString(),
              "--netlist",
              folder.resolve("netlist.ipc").toString(),
              "--shelf",
              folder.resolve("shelf.csv").toString(),
              "--json");
      assertEquals(in.get("parts").intValue(), board.parts.size());
      assertEquals(in.get("joints").intValue(), board.pins.size());
      assertEquals(in.get("nets").intValue(), board.byNet().size());
      assertEquals(in.get("passedOver").size(), 0);
      good("build", ws, "--design", "Unseen", "--revision", "1", "--boards", "" + BOARDS, "--json");
      made.put(seed, board);
      workspace.put(seed, ws);
    }
  }

  private static JsonNode good(String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), 0, String.join(" ", args) + "\n" + r.err() + r.out());
    return r.out().startsWith("{") ? r.json() : null;
  }

  @DataProvider
  Object[][] seeds() {
    return made.keySet().stream().sorted().map(s -> new Object[] {s}).toArray(Object[][]::new);
  }

  /// The losses as the page on kits states them; common practice, no source.
  private static int need(String shape, int boards, int perBoard) {
    int all = boards * perBoard;
    int rate =
        switch (shape) {
          case "0402" -> 10;
          case "0603", "0805", "1206" -> 5;
          default -> 0;
        };
    int least = rate == 10 ? 5 : rate == 5 ? 2 : 0;
    return all + Math.max((all * rate + 99) / 100, least);
  }

  @Test(dataProvider = "seeds")
  public void theKitIsCounted(long seed) {
    MadeBoard b = made.get(seed);
    JsonNode kit = good("kit", workspace.get(seed), "--json");
    Map<String, Integer> per = b.perBoard();
    assertEquals(kit.get("lines").size(), per.size());
    boolean enough = true;
    for (JsonNode l : kit.get("lines")) {
      String code = l.get("code").stringValue();
      int need = need(b.shapeOf(code), BOARDS, per.get(code));
      assertEquals(l.get("perBoard").intValue(), per.get(code).intValue(), code);
      assertEquals(l.get("need").intValue(), need, code);
      assertEquals(l.get("onHand").intValue(), b.stock.get(code).intValue(), code);
      assertEquals(l.get("short").intValue(), Math.max(0, need - b.stock.get(code)), code);
      enough &= need <= b.stock.get(code);
      Set<String> refs = new TreeSet<>();
      l.get("references").forEach(r -> refs.add(r.stringValue()));
      Set<String> wanted = new TreeSet<>();
      b.parts.stream().filter(p -> p.code().equals(code)).forEach(p -> wanted.add(p.ref()));
      assertEquals(refs, wanted);
    }
    int most = 0;
    while (holds(b, most + 1)) {
      most++;
    }
    assertEquals(kit.get("boardsNow").intValue(), most);
    assertEquals(kit.get("verdict").stringValue().equals("start"), enough);
  }

  private static boolean holds(MadeBoard b, int boards) {
    return b.perBoard().entrySet().stream()
        .allMatch(
            e -> need(b.shapeOf(e.getKey()), boards, e.getValue()) <= b.stock.get(e.getKey()));
  }

  @Test(dataProvider = "seeds")
  public void everyPartIsPlacedOnceOnItsSide(long seed) {
    MadeBoard b = made.get(seed);
    for (String method : List.of("stencil-plate", "hot-air", "iron")) {
      JsonNode order = good("order", workspace.get(seed), "--method", method, "--json");
      Map<String, Integer> at = new HashMap<>();
      Map<String, String> side = new HashMap<>();
      double minutes = 0;
      int number = 0;
      for (JsonNode s : order.get("steps")) {
        number++;
        minutes += s.get("minutes").doubleValue();
        for (JsonNode p : s.get("parts")) {
          assertEquals(at.put(p.stringValue(), number), null, "placed twice: " + p);
          side.put(p.stringValue(), s.get("side").stringValue());
        }
      }
      assertEquals(at.size(), b.parts.size(), method);
      assertEquals(order.get("minutes").doubleValue(), minutes, 1e-6);
      for (Made m : b.parts) {
        assertTrue(at.containsKey(m.ref()), m.ref());
        if (!m.hole()) {
          assertEquals(side.get(m.ref()), m.second() ? "second" : "first", m.ref());
        }
      }
      if (method.equals("stencil-plate")) {
        // what is melted stands before what is soldered by hand (common practice, no source)
        int lastMelted =
            b.parts.stream().filter(m -> !m.hole()).mapToInt(m -> at.get(m.ref())).max().orElse(0);
        int firstLead =
            b.parts.stream().filter(Made::hole).mapToInt(m -> at.get(m.ref())).min().orElse(99_999);
        assertTrue(lastMelted < firstLead, lastMelted + " before " + firstLead);
      }
    }
  }

  @Test(dataProvider = "seeds")
  public void theBeepListIsTrueOfTheBoard(long seed) {
    MadeBoard b = made.get(seed);
    JsonNode beep = good("beep", workspace.get(seed), "--json");
    Map<String, String> root = new HashMap<>();
    b.pins.forEach(p -> root.put(p.name(), p.name()));
    Map<String, Integer> continuity = new HashMap<>();
    Set<Set<String>> pairs = new HashSet<>();
    int number = 0;
    for (JsonNode c : beep.get("checks")) {
      assertEquals(c.get("number").intValue(), ++number);
      Pin a = end(b, c.get("a"));
      Pin z = end(b, c.get("b"));
      assertEquals(a.net(), c.get("netA").stringValue());
      assertEquals(z.net(), c.get("netB").stringValue());
      double low = c.get("expectedLow").doubleValue();
      double high = c.has("expectedHigh") ? c.get("expectedHigh").doubleValue() : 1e99;
      assertTrue(low <= high);
      if (c.get("kind").stringValue().equals("continuity")) {
        assertEquals(a.net(), z.net());
        continuity.merge(a.net(), 1, Integer::sum);
        String from = find(root, a.name());
        String to = find(root, z.name());
        assertNotEquals(from, to, "a check that says nothing new: " + a + " " + z);
        root.put(from, to);
        assertTrue(high < 10, "copper is a few ohms at most");
      } else {
        assertNotEquals(a.net(), z.net());
        pairs.add(Set.of(a.net(), z.net()));
        double ohms = b.ohms(a.net(), z.net());
        if (pairs.size() % 9 == 1) {
          asked(workspace.get(seed), c, ohms);
        }
        if (Double.isInfinite(ohms)) {
          assertTrue(low >= 50, a + " " + z + " " + low);
        } else {
          assertTrue(
              low <= ohms * 1.0001 && ohms * 0.9999 <= high,
              a.net() + " to " + z.net() + ": " + ohms + " in " + low + "..." + high);
        }
      }
    }
    b.byNet()
        .forEach((net, pins) ->
            assertEquals(
                continuity.getOrDefault(net, 0).intValue(),
                pins.size() - 1,
                "n - 1 checks for n joints of " + net));
    assertTrue(pairs.contains(Set.of("VIN", "GND")), "power is never given before this one");
    JsonNode cover = beep.get("coverage");
    assertTrue(cover.get("opens").intValue() <= cover.get("opensTotal").intValue());
    assertTrue(cover.get("bridges").intValue() <= cover.get("bridgesTotal").intValue());
    assertTrue(cover.get("opensTotal").intValue() <= b.pins.size());
  }

  private static Pin end(MadeBoard b, JsonNode end) {
    return b.pin(end.get("part").stringValue(), end.get("pin").stringValue());
  }

  /// Asked for by hand, two nets show what the list says of them, and what relaxing them gives.
  private static void asked(String ws, JsonNode check, double ohms) {
    String a = check.get("netA").stringValue();
    String b = check.get("netB").stringValue();
    JsonNode o = good("ohms", ws, a, b, "--json");
    assertEquals(o.get("netA").stringValue(), a);
    assertEquals(o.get("netB").stringValue(), b);
    assertEquals(o.get("low").doubleValue(), check.get("expectedLow").doubleValue(), 1e-9);
    assertEquals(o.get("high").isNull(), !check.has("expectedHigh"));
    assertEquals(o.get("nominal").isNull(), Double.isInfinite(ohms));
    if (!Double.isInfinite(ohms)) {
      assertEquals(o.get("nominal").doubleValue(), ohms, 1e-4 * ohms, a + " to " + b);
    }
    assertEquals(o.get("beeps").booleanValue(), ohms < 40, a + " to " + b);
    assertTrue(o.get("why").size() > 0);
  }

  private static String find(Map<String, String> root, String name) {
    String at = name;
    while (!root.get(at).equals(at)) {
      at = root.get(at);
    }
    return at;
  }

  @Test(dataProvider = "seeds")
  public void thePowerOfABoardThatSaysLittle(long seed) {
    String ws = workspace.get(seed);
    Map<String, Double> boot = new HashMap<>();
    for (String state : List.of("boot", "idle", "active", "worst")) {
      JsonNode p = good("power", ws, "--state", state, "--json");
      double limit = p.get("limit").doubleValue();
      assertEquals(limit / 0.01, Math.rint(limit / 0.01), 1e-6, "in steps of 10 mA");
      assertFalse(p.get("rails").isEmpty(), "VIN is named as a rail");
      for (JsonNode r : p.get("rails")) {
        double current = r.get("current").doubleValue();
        assertTrue(r.get("low").doubleValue() <= r.get("voltage").doubleValue());
        assertTrue(r.get("voltage").doubleValue() <= r.get("high").doubleValue());
        assertTrue(current >= boot.computeIfAbsent(r.get("rail").stringValue(), _ -> current));
      }
    }
    MainTest.Ran refused = MainTest.ell("power", ws, "--board", "01", "--go", "--sim");
    assertEquals(refused.code(), 2, "no power before the beeper");
  }

  /// Readings in the ways that people write them; the book keeps every one, in order, in volts.
  @Test(dataProvider = "seeds")
  public void whatIsLoggedStands(long seed) {
    String ws = workspace.get(seed);
    Random random = new Random(seed);
    String net = "3V3";
    if (!made.get(seed).byNet().containsKey(net)) {
      net = "VIN";
    }
    int before = good("verify", ws, "--json").get("entries").intValue();
    double last = 0;
    for (int i = 1; i <= 6; i++) {
      last = Math.round((0.2 + 3 * random.nextDouble()) * 1000) / 1000.0;
      String written =
          switch (random.nextInt(4)) {
            case 0 -> last + " V";
            case 1 -> Math.round(last * 1000) + "mV";
            case 2 -> (last + "").replace(".", "V");
            default -> last + "";
          };
      JsonNode logged = good("log", ws, "--board", "02", net + " " + written, "--json");
      assertEquals(logged.get("entry").get("value").doubleValue(), last, 1e-9, written);
      assertEquals(logged.get("entry").get("unit").stringValue(), "V");
    }
    JsonNode show = good("show", ws, "--board", "02", "--json");
    JsonNode reading = show.get("readings").get(0);
    assertEquals(reading.get("place").stringValue(), net);
    assertEquals(reading.get("value").doubleValue(), last, 1e-9, "the last one stands");
    JsonNode v = good("verify", ws, "--json");
    assertTrue(v.get("ok").booleanValue());
    assertEquals(v.get("entries").intValue(), before + 6);
    assertFalse(v.has("firstBad"));
  }

  /// The same files once more under another revision give the same answers, to the letter.
  @Test(dataProvider = "seeds")
  public void theSameBoardGivesTheSameAnswers(long seed) {
    String ws = workspace.get(seed);
    for (String command : List.of("kit", "order", "beep", "power")) {
      assertEquals(
          MainTest.ell(command, ws, "--json").out(),
          MainTest.ell(command, ws, "--json").out(),
          command);
    }
  }

  /// A jig for any of them: each probe at a joint of its net, or a reason; nothing outside physics.
  @Test(dataProvider = "seeds")
  public void aJigForEach(long seed) {
    MadeBoard board = made.get(seed);
    JsonNode o = good("jig", workspace.get(seed), "--reach", "all", "--top-ok", "--json");
    Set<String> reached = new TreeSet<>();
    for (JsonNode p : o.get("probes")) {
      String place = p.get("place").stringValue();
      String net = p.get("net").stringValue();
      assertTrue(
          board.pins.stream().anyMatch(x -> x.name().equals(place) && x.net().equals(net)),
          p.toString());
      assertTrue(p.get("miss").doubleValue() <= 0.02, p.toString());
      reached.add(net);
    }
    for (JsonNode u : o.get("unreachable")) {
      assertFalse(u.get("why").stringValue().isBlank(), u.toString());
      reached.add(u.get("net").stringValue());
    }
    assertEquals(reached, new TreeSet<>(board.byNet().keySet()), "each net is reached or told");
    if (o.get("deflection") != null) {
      assertTrue(o.get("deflection").doubleValue() < 1.6e-3, "no more than the board is thick");
      assertTrue(o.get("strain").doubleValue() < 0.02);
    } else {
      assertFalse(o.get("advice").isEmpty(), "why there is none");
    }
  }
}
