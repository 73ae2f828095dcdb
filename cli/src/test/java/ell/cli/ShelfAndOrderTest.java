package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// The evening on which the boards arrive, on the command line: a made board, a shelf that lacks
/// things, offers, substitutes, an order with wishes; each number held against one counted here.
public class ShelfAndOrderTest {
  private static final int BOARDS = 6;
  private Path folder;
  private MadeBoard board;

  @BeforeClass
  public void make() throws IOException {
    folder = Files.createTempDirectory("shelf");
    board = new MadeBoard(5, 40);
    board.write(folder);
  }

  private static MainTest.Ran ell(int code, String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), code, String.join(" ", args) + "\n" + r.err() + r.out());
    return r;
  }

  private static JsonNode json(String... args) {
    return ell(0, args).json();
  }

  /// A new workspace with the board and a build of it.
  private String workspace(String name, String... more) {
    String ws = folder.resolve(name + ".ell").toString();
    ell(0, "new", ws);
    List<String> in =
        new ArrayList<>(
            List.of(
                "import",
                ws,
                "--design",
                "D",
                "--revision",
                "1",
                "--bom",
                folder.resolve("bom.csv").toString(),
                "--placement",
                folder.resolve("placement.csv").toString(),
                "--netlist",
                folder.resolve("netlist.ipc").toString(),
                "--shelf",
                folder.resolve("shelf.csv").toString()));
    in.addAll(List.of(more));
    ell(0, in.toArray(String[]::new));
    ell(0, "build", ws, "--design", "D", "--revision", "1", "--boards", "" + BOARDS);
    return ws;
  }

  private static JsonNode line(JsonNode kit, String code) {
    return kit.get("lines")
        .valueStream()
        .filter(l -> l.get("code").stringValue().equals(code))
        .findFirst()
        .orElseThrow();
  }

  private static long quantity(JsonNode shelf, String code) {
    return shelf
        .get("lines")
        .valueStream()
        .filter(l -> l.get("code").stringValue().equals(code))
        .mapToLong(l -> l.get("quantity").longValue())
        .sum();
  }

  private static JsonNode firstPlacing(JsonNode order) {
    return order
        .get("steps")
        .valueStream()
        .filter(s -> s.get("parts").size() > 0)
        .findFirst()
        .orElseThrow();
  }

  @Test
  public void stepsTakeFromTheShelfAndStrikesGiveBack() {
    String ws = workspace("steps");
    ell(0, "shelf", ws, "--count", "PLUG2=40", "--json");
    JsonNode step = firstPlacing(json("order", ws, "--json"));
    String part = step.get("parts").get(0).stringValue();
    String code =
        board.parts.stream().filter(p -> p.ref().equals(part)).findFirst().orElseThrow().code();
    ell(0, "shelf", ws, "--count", code + "=50");
    assertEquals(line(json("kit", ws, "--json"), code).get("onHand").intValue(), 50);
    JsonNode logged =
        json("log", ws, "--board", "01", "step " + step.get("number").intValue(), "--json");
    long entry = logged.get("entry").get("number").longValue();
    int placed = step.get("parts").size();
    JsonNode after = line(json("kit", ws, "--json"), code);
    assertEquals(after.get("onHand").intValue(), 50 - placed);
    assertEquals(after.get("placed").intValue(), placed);
    ell(0, "log", ws, "--board", "02", part + " lost 3 on the floor");
    assertEquals(quantity(json("shelf", ws, "--json"), code), 50 - placed - 3);
    ell(0, "log", ws, "--board", "01", part + " replaced");
    assertEquals(quantity(json("shelf", ws, "--json"), code), 50 - placed - 4);
    ell(0, "log", ws, "--board", "01", "strike " + entry + " not yet");
    assertEquals(quantity(json("shelf", ws, "--json"), code), 50 - 4);
    ell(0, "shelf", ws, "--received", code + "=10", "--ordered", code + "=5@2031-01-02");
    JsonNode kit = line(json("kit", ws, "--json"), code);
    assertEquals(kit.get("onHand").intValue(), 56);
    assertEquals(kit.get("onOrder").intValue(), 5);
    assertEquals(kit.get("expected").stringValue(), "2031-01-02");
    JsonNode then = line(json("kit", ws, "--date", "2031-01-02", "--json"), code);
    assertEquals(then.get("onHand").intValue(), 61);
    assertTrue(json("verify", ws, "--json").get("ok").booleanValue());
  }

  @Test
  public void whatWasFittedIsInTheBook() {
    String ws = workspace("fitted");
    String part = board.parts.getFirst().ref();
    String code = board.parts.getFirst().code();
    ell(0, "shelf", ws, "--count", code + "=20", "--count", "OTHER=9");
    ell(0, "log", ws, "--board", "03", part + " fitted with OTHER the first had run out");
    JsonNode order = json("order", ws, "--json");
    for (JsonNode s : order.get("steps")) {
      if (s.get("parts").valueStream().anyMatch(p -> p.stringValue().equals(part))) {
        ell(0, "log", ws, "--board", "03", "step " + s.get("number").intValue());
      }
    }
    assertEquals(
        json("show", ws, "--board", "03", "--json").get("fitted").get(part).stringValue(), "OTHER");
    assertEquals(quantity(json("shelf", ws, "--json"), "OTHER"), 8);
    assertEquals(ell(2, "log", ws, "--board", "03", "count NOSUCH 4").out(), "");
  }

  /// Offers for everything that is short, from three sellers, and each total counted again by
  /// trying every set of sellers; one price, no packs: the cheapest open seller of each line.
  @Test
  public void whatIsBoughtIsCheapest() throws IOException {
    String ws = workspace("buy");
    JsonNode kit = json("kit", ws, "--json");
    Map<String, Integer> shortBy = new HashMap<>();
    kit.get("lines")
        .forEach(l -> {
          if (l.get("short").intValue() > 0) {
            shortBy.put(l.get("code").stringValue(), l.get("short").intValue());
          }
        });
    assertTrue(shortBy.size() > 2, "the shelf lacks things");
    Random random = new Random(9);
    double[] shipping = {7, 4.5, 9};
    int[] days = {3, 8, 2};
    Map<String, double[]> prices = new HashMap<>();
    StringBuilder csv = new StringBuilder("Seller,Code,Price,Stock,Days,Shipping\n");
    for (String code : shortBy.keySet()) {
      double[] own = {1 + random.nextInt(9), 1 + random.nextInt(9), 4 + random.nextInt(9)};
      prices.put(code, own);
      for (int s = 0; s < 3; s++) {
        csv.append(
            "S"
                + s
                + ",\""
                + code
                + "\","
                + own[s] / 10
                + ",1000,"
                + days[s]
                + ","
                + shipping[s]
                + "\n");
      }
    }
    Path offers = folder.resolve("offers.csv");
    Files.writeString(offers, csv);
    for (int by : new int[] {2, 3, 8}) {
      double least = Double.POSITIVE_INFINITY;
      for (int set = 1; set < 8; set++) {
        double sum = 0;
        for (int s = 0; s < 3; s++) {
          sum += (set >> s & 1) == 1 ? shipping[s] : 0;
        }
        for (String code : shortBy.keySet()) {
          double cheapest = Double.POSITIVE_INFINITY;
          for (int s = 0; s < 3; s++) {
            if ((set >> s & 1) == 1 && days[s] <= by) {
              cheapest = Math.min(cheapest, prices.get(code)[s] / 10 * shortBy.get(code));
            }
          }
          sum += cheapest;
        }
        least = Math.min(least, sum);
      }
      JsonNode b =
          json(
              "buy",
              ws,
              "--offers",
              offers.toString(),
              "--by",
              LocalDate.now().plusDays(by).toString(),
              "--json");
      assertEquals(b.get("total").doubleValue(), least, 1e-6, "in " + by + " days");
      assertTrue(b.get("optimal").booleanValue());
      assertEquals(b.get("gap").doubleValue(), 0.0);
      double sum =
          b.get("offers").valueStream().mapToDouble(o -> o.get("price").doubleValue()).sum()
              + b.get("shipments")
                  .valueStream()
                  .mapToDouble(o -> o.get("cost").doubleValue())
                  .sum();
      assertEquals(sum, least, 1e-6);
    }
    JsonNode late =
        ell(
                1,
                "buy",
                ws,
                "--offers",
                offers.toString(),
                "--by",
                LocalDate.now().plusDays(1).toString(),
                "--json")
            .json();
    assertEquals(late.get("unmet").size(), shortBy.size());
    assertEquals(
        late.get("unmet").get(0).get("earliest").stringValue(),
        LocalDate.now().plusDays(2).toString());
    JsonNode costs = json("kit", ws, "--offers", offers.toString(), "--json").get("costs");
    double before = Double.POSITIVE_INFINITY;
    for (JsonNode c : costs) {
      assertTrue(c.get("total").doubleValue() < before, "later is cheaper: " + costs);
      before = c.get("total").doubleValue();
    }
    Path out = folder.resolve("orders");
    ell(
        0,
        "buy",
        ws,
        "--offers",
        offers.toString(),
        "--out",
        out.toString(),
        "--by",
        LocalDate.now().plusDays(8).toString());
    try (var files = Files.list(out)) {
      assertTrue(files.allMatch(f -> f.getFileName().toString().matches("order-S[012]\\.csv")));
    }
    ell(
        2,
        "buy",
        ws,
        "--offers",
        offers.toString(),
        "--out",
        out.toString(),
        "--by",
        LocalDate.now().plusDays(8).toString());
    ell(2, "buy", ws, "--offers", folder.resolve("none.csv").toString(), "--by", "2031-01-01");
    ell(2, "buy", ws, "--offers", offers.toString(), "--by", "soon");
  }

  @Test
  public void theRuleOfThePasteIsSetAsideInTheBook() {
    String ws = workspace("aside");
    JsonNode kit = json("kit", ws, "--json");
    assertEquals(kit.get("verdict").stringValue(), "wait");
    assertTrue(kit.get("reasons").toString().contains("do not open the paste"));
    ell(0, "log", ws, "--board", "01", "override paste the rest by iron next week");
    JsonNode aside = json("kit", ws, "--json");
    assertEquals(aside.get("setAside").stringValue(), "the rest by iron next week");
    assertFalse(aside.get("reasons").toString().contains("do not open the paste"));
  }

  @Test
  public void wishesAreFollowedKeptAndForgotten() {
    String ws = workspace("wishes");
    JsonNode plain = json("order", ws, "--method", "iron", "--json");
    List<String> sequence = sequence(plain);
    String last = sequence.getLast();
    JsonNode wished = json("order", ws, "--method", "iron", "--wish", last + " first", "--json");
    JsonNode step = plain.get("steps").get(plain.get("steps").size() - 1);
    assertFalse(step.get("reasons").isEmpty());
    assertEquals(wished.get("wishes").get(0).stringValue(), last + " first");
    assertTrue(
        sequence(wished).indexOf(last) < sequence.indexOf(last)
            || wished.get("dropped").size() > 0);
    keepsItsArrows(wished);
    ell(0, "order", ws, "--wish", last + " first", "--keep");
    assertEquals(json("order", ws, "--json").get("wishes").size(), 1);
    ell(0, "order", ws, "--forget");
    assertEquals(json("order", ws, "--json").get("wishes").size(), 0);
    ell(2, "order", ws, "--wish", "NOBODY first");
    ell(2, "order", ws, "--wish", last + " sideways");
  }

  private static List<String> sequence(JsonNode order) {
    List<String> all = new ArrayList<>();
    order.get("steps").forEach(s -> s.get("parts").forEach(p -> all.add(p.stringValue())));
    return all;
  }

  private static void keepsItsArrows(JsonNode order) {
    List<String> at = sequence(order);
    for (JsonNode a : order.get("arrows")) {
      assertTrue(
          at.indexOf(a.get("before").stringValue()) < at.indexOf(a.get("after").stringValue()),
          a.toString());
      assertFalse(a.get("reason").stringValue().isBlank());
    }
  }

  @Test
  public void ordersSayWhatTheyCostAndCompare() {
    String ws = workspace("compare");
    for (String method : new String[] {"stencil-plate", "hot-air", "iron"}) {
      JsonNode o = json("order", ws, "--method", method, "--json");
      keepsItsArrows(o);
      assertEquals(sequence(o).size(), board.parts.size());
      JsonNode e = o.get("effort");
      assertTrue(e.get("bound").doubleValue() <= e.get("seconds").doubleValue() + 1e-9);
      assertTrue(e.get("gap").doubleValue() < 0.05, "close to the bound: " + e);
      JsonNode s = o.get("schools");
      assertTrue(s.get("allAtOnce").doubleValue() > 0 && s.get("blockByBlock").doubleValue() > 0);
      assertEquals(
          s.get("pick").stringValue().equals("blockByBlock"),
          s.get("blockByBlock").doubleValue() < s.get("allAtOnce").doubleValue());
      assertTrue(
          o.get("several").get("stepAfterStep").doubleValue()
              < o.get("several").get("boardAfterBoard").doubleValue());
    }
  }

  @Test
  public void substitutesInWords() {
    String ws = workspace("substitute");
    String r =
        board.parts.stream().filter(p -> p.ref().startsWith("R")).findFirst().orElseThrow().ref();
    var made = board.parts.stream().filter(p -> p.ref().equals(r)).findFirst().orElseThrow();
    JsonNode s = ell(1, "substitute", ws, r, made.value() + " 2W " + made.shape(), "--json").json();
    JsonNode ohms =
        s.get("lines")
            .valueStream()
            .filter(l -> l.get("parameter").stringValue().equals("resistance"))
            .findFirst()
            .orElseThrow();
    assertEquals(ohms.get("verdict").stringValue(), "within");
    assertEquals(ohms.get("low").doubleValue(), made.ohms(), 1e-6);
    assertEquals(s.get("verdict").stringValue(), "close", "nobody said its tolerance");
    JsonNode wrong = ell(1, "substitute", ws, r, "3R3 2W " + made.shape(), "--json").json();
    assertEquals(wrong.get("verdict").stringValue(), "out");
    ell(2, "substitute", ws, "X99", "1k 0603");
    ell(2, "substitute", ws, r, "NOTHINGKNOWN");
    ell(2, "substitute", ws, r, "NOTHINGKNOWN", "voltage");
    JsonNode said =
        ell(1, "substitute", ws, r, "NEW1", "resistance=" + made.value(), "--json").json();
    assertEquals(said.get("candidate").stringValue(), "NEW1");
  }

  @Test
  public void labelsPackagesAndBadInput() throws IOException {
    String ws = workspace("labels");
    Path pdf = folder.resolve("labels.pdf");
    ell(0, "shelf", ws, "--labels", pdf.toString());
    assertTrue(Files.size(pdf) > 5_000);
    Path own = folder.resolve("packages.csv");
    Files.writeString(
        own,
        "Package,Family,Length (mm),Width (mm),Height (mm),Mass (g),Joints,Mark,Heat\n"
            + "TERM-2,connector,10,8,33,3,2,none,yes\n");
    ell(0, "packages", ws, "--set", own.toString());
    assertTrue(ell(0, "packages", ws).out().contains("TERM-2,connector,10.0,8.0,33.0"));
    assertTrue(ell(0, "packages").out().startsWith("Package,Family"));
    Files.writeString(own, "Package,Family,Length (mm),Width (mm),Height (mm)\nX,dual,0,1,1\n");
    assertTrue(ell(2, "packages", ws, "--set", own.toString()).err().contains("line 2"));
    for (String[] wrong :
        new String[][] {
          {"--count", "A"},
          {"--count", "A=-1"},
          {"--ordered", "A=5@soon"},
          {"--attrition", "giant=5%"},
          {"--replace", folder.resolve("none.csv").toString()},
          {"--replace", own.toString()}
        }) {
      List<String> args = new ArrayList<>(List.of("shelf", ws));
      args.addAll(List.of(wrong));
      ell(2, args.toArray(String[]::new));
    }
    JsonNode before = json("kit", ws, "--json");
    ell(0, "shelf", ws, "--attrition", "tiny=0/0, small=0/0");
    JsonNode after = json("kit", ws, "--json");
    for (JsonNode l : after.get("lines")) {
      assertEquals(l.get("need").intValue(), BOARDS * l.get("perBoard").intValue());
    }
    assertTrue(before.get("boardsNow").intValue() <= after.get("boardsNow").intValue());
  }
}
