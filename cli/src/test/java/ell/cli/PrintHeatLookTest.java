package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Paste, profiles and inspection through the command line, on boards and files that nobody has
/// seen.
public class PrintHeatLookTest {
  private Path folder;
  private String demo;

  @BeforeClass
  public void begin() throws IOException {
    folder = Files.createTempDirectory("print");
    System.setProperty("ell.demo", "../fixtures/marram");
    demo = folder.resolve("demo.ell").toString();
    ell(0, "demo-workspace", demo);
  }

  private static MainTest.Ran ell(int code, String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), code, String.join(" ", args) + "\n" + r.err() + r.out());
    return r;
  }

  private String imported(MadeBoard board, String name, String... more) throws IOException {
    Path own = folder.resolve(name);
    board.write(own);
    String ws = own.resolve("ws.ell").toString();
    ell(0, "new", ws);
    java.util.List<String> args =
        new java.util.ArrayList<>(
            java.util.List.of(
                "import",
                ws,
                "--design",
                "D",
                "--revision",
                "1",
                "--bom",
                own.resolve("bom.csv").toString(),
                "--placement",
                own.resolve("placement.csv").toString(),
                "--netlist",
                own.resolve("netlist.ipc").toString()));
    args.addAll(java.util.List.of(more));
    ell(0, args.toArray(String[]::new));
    return ws;
  }

  @DataProvider
  Object[][] seeds() {
    return new Object[][] {{11L, true}, {12L, false}, {13L, true}, {14L, false}};
  }

  /// A paste layer made at random, with and without names: what belongs to what, and every number
  /// worked again from the sizes that went in.
  @Test(dataProvider = "seeds")
  public void openingsOfUnseenBoards(long seed, boolean named) throws IOException {
    MadeBoard board = new MadeBoard(seed, 20 + (int) seed % 5 * 6);
    Random r = new Random(seed);
    StringBuilder g = new StringBuilder("%FSLAX46Y46*%\n%MOMM*%\n");
    StringBuilder body = new StringBuilder();
    Map<String, double[]> sizes = new HashMap<>();
    int code = 10;
    for (int i = 0; i < board.pins.size(); i++) {
      if (board.pins.get(i).hole() || board.second(i)) {
        continue;
      }
      double w = Math.round(100 * (0.2 + r.nextDouble() * 0.6)) / 100.0;
      double h = Math.round(100 * (0.15 + r.nextDouble() * 0.5)) / 100.0;
      boolean round = r.nextInt(4) == 0;
      g.append(
          round
              ? String.format(Locale.ROOT, "%%ADD%dC,%.2f*%%\n", code, w)
              : String.format(Locale.ROOT, "%%ADD%dR,%.2fX%.2f*%%\n", code, w, h));
      double[] at = board.padMm(i);
      if (named) {
        body.append("%TO.P,").append(board.pins.get(i).part());
        body.append(",").append(board.pins.get(i).pin()).append("*%\n");
      }
      body.append(
          String.format(
              Locale.ROOT,
              "D%d*\nX%dY%dD03*\n",
              code++,
              Math.round(at[0] * 1e6),
              Math.round(at[1] * 1e6)));
      sizes.put(board.pins.get(i).name(), round ? new double[] {w} : new double[] {w, h});
    }
    Path paste = folder.resolve("p" + seed + ".gbr");
    Files.writeString(paste, g.append(body).append("M02*\n"));
    String ws = imported(board, "made" + seed);
    assertTrue(ell(2, "stencil", ws, "--json").err().contains("has no paste layer"));
    JsonNode added =
        ell(
                0,
                "import",
                ws,
                "--design",
                "D",
                "--revision",
                "1",
                "--paste",
                paste.toString(),
                "--json")
            .json();
    assertEquals(added.get("parts").intValue(), board.parts.size());
    MainTest.Ran ran = MainTest.ell("stencil", ws, "--foil", "0.12mm", "--json");
    JsonNode s = ran.json();
    assertEquals(s.get("openings").size(), sizes.size());
    boolean anyOut = false;
    double thick = Double.POSITIVE_INFINITY;
    for (JsonNode o : s.get("openings")) {
      double[] size = sizes.remove(o.get("part").stringValue() + "." + o.get("pin").stringValue());
      double w = size[0] * 1e-3;
      double h = (size.length > 1 ? size[1] : size[0]) * 1e-3;
      double area = size.length > 1 ? w * h : Math.PI * w * w / 4;
      double edge = size.length > 1 ? 2 * (w + h) : Math.PI * w;
      double t = 0.12e-3;
      assertEquals(o.get("area").doubleValue(), area, area * 1e-6);
      assertEquals(o.get("perimeter").doubleValue(), edge, edge * 1e-6);
      double ratio = area / (edge * t);
      double aspect = Math.min(w, h) / t;
      assertEquals(o.get("areaRatio").doubleValue(), ratio, 1e-6);
      assertEquals(o.get("aspectRatio").doubleValue(), aspect, 1e-6);
      boolean byAspect = Math.max(w, h) > 5 * Math.min(w, h);
      boolean ok = byAspect ? aspect >= 1.5 - 1e-9 : ratio >= 0.66 - 1e-9;
      assertEquals(o.get("verdict").stringValue(), ok ? "within" : "out");
      double transfer = Math.clamp(0.5 + (ratio - 0.5) * 1.6, 0, 0.9);
      assertEquals(o.get("volume").doubleValue(), area * t * transfer, area * t * 1e-6);
      anyOut |= !ok;
      thick = Math.min(thick, byAspect ? Math.min(w, h) / 1.5 : area / edge / 0.66);
    }
    assertTrue(sizes.isEmpty());
    assertEquals(ran.code(), anyOut ? 1 : 0);
    double most = -1;
    for (double f : new double[] {0.08e-3, 0.10e-3, 0.12e-3, 0.13e-3, 0.15e-3}) {
      most = f <= thick * (1 + 1e-9) ? f : most;
    }
    assertEquals(s.get("thickest").isNull(), most < 0);
    if (most > 0) {
      assertEquals(s.get("thickest").doubleValue(), most);
    }
  }

  @Test
  public void aBadLayerLeavesTheWorkspaceAsItWas() throws IOException {
    String ws = imported(new MadeBoard(3, 20), "bad");
    byte[] before = Files.readAllBytes(Path.of(ws));
    Path bad = folder.resolve("bad.gbr");
    Files.writeString(bad, "%FSLAX46Y46*%\n%MOMM*%\nD10*\nX0Y0D03*\nM02*\n");
    MainTest.Ran r =
        ell(2, "import", ws, "--design", "D", "--revision", "1", "--paste", bad.toString());
    assertTrue(
        r.err().contains("bad.gbr, line 4: aperture D10 is drawn with and not defined"), r.err());
    assertEquals(Files.readAllBytes(Path.of(ws)), before);
    assertTrue(
        ell(2, "import", ws, "--design", "D", "--revision", "9", "--paste", bad.toString())
            .err()
            .contains("there is no revision D rev 9"));
    assertTrue(
        ell(2, "import", ws, "--design", "D", "--revision", "2", "--bom", bad.toString())
            .err()
            .contains("also needs --placement, --netlist"));
    Path odd = Files.writeString(folder.resolve("odd.txt"), "what the maker wrote down\n");
    Path bill = Files.writeString(folder.resolve("list.csv"), "Ref,Value\nR1,10k\n");
    String told =
        ell(2, "import", ws, "--design", "D", "--revision", "2", bill.toString(), odd.toString())
            .err();
    assertTrue(told.contains("list.csv: taken as bill of materials"), told);
    assertTrue(told.contains("odd.txt: not a bill of materials"), told);
    assertTrue(ell(2, "stencil", demo, "--foil", "12m").err().contains("--foil"));
  }

  /// Nothing is lost: a file with nothing in it does not take the place of a layer.
  @Test
  public void anEmptyFileReplacesNothing() throws IOException {
    Path empty = folder.resolve("empty.gbr");
    Files.writeString(empty, "\n");
    String[] to = {"import", demo, "--design", "MG-1", "--revision", "A"};
    for (String layer :
        new String[] {"--paste", "--paste-second", "--legend", "--drill", "--outline"}) {
      MainTest.Ran r = ell(2, to[0], to[1], to[2], to[3], to[4], to[5], layer, empty.toString());
      assertTrue(r.err().contains("empty.gbr"), layer + r.err());
    }
    JsonNode s = MainTest.ell("stencil", demo, "--revision", "A", "--json").json();
    assertTrue(s.get("openings").size() > 200);
  }

  /// Holes are held against the netlist: moved away, of another size, at another scale.
  @Test
  public void holesThatDoNotFitTheNetlistAreSaid() throws IOException {
    MadeBoard board = new MadeBoard(6, 30);
    String ws = imported(board, "drilled");
    StringBuilder right = new StringBuilder("M48\nMETRIC\nT1C0.900\nT2C1.300\n%\nT1\n");
    StringBuilder wrong = new StringBuilder(right);
    StringBuilder large = new StringBuilder(right);
    String odd = "";
    int holes = 0;
    for (int i = 0; i < board.pins.size(); i++) {
      if (board.pins.get(i).hole()) {
        double[] at = board.padMm(i);
        right.append(String.format(Locale.ROOT, "X%.3fY%.3f%n", at[0], at[1]));
        large.append(String.format(Locale.ROOT, "X%.3fY%.3f%n", at[0] * 10, at[1] * 10));
        if (++holes == 1) {
          odd = board.pins.get(i).name();
          wrong.append(String.format(Locale.ROOT, "T2%nX%.3fY%.3f%nT1%n", at[0], at[1]));
        } else if (holes > 2) {
          wrong.append(String.format(Locale.ROOT, "X%.3fY%.3f%n", at[0], at[1]));
        }
      }
    }
    assertTrue(holes > 2, "a board with leads");
    assertEquals(minds(ws, right), "");
    String said = minds(ws, wrong);
    assertTrue(said.contains("1 holes are of another size than in the netlist: " + odd), said);
    assertTrue(said.contains("1 leads of the netlist find no hole"), said);
    assertTrue(minds(ws, large).contains("another unit or number format?"));
  }

  private String minds(String ws, StringBuilder drill) throws IOException {
    Path f = folder.resolve("holes.xnc");
    Files.writeString(f, drill + "M30\n");
    StringBuilder all = new StringBuilder();
    ell(0, "import", ws, "--design", "D", "--revision", "1", "--drill", f.toString(), "--json")
        .json()
        .get("warnings")
        .forEach(w -> all.append(w.get("message").stringValue()).append('\n'));
    return all.toString();
  }

  /// The sheet that is written reads back as so many boards of the same openings.
  @Test
  public void aStencilSheetReadsBack() throws IOException {
    Path out = folder.resolve("sheet.gbr");
    JsonNode s =
        MainTest.ell(
                "stencil",
                demo,
                "--side",
                "second",
                "--sheet",
                "300x400mm",
                "--out",
                out.toString(),
                "--price",
                "40",
                "--single",
                "15",
                "--json")
            .json();
    int boards = s.get("sheet").get("boards").intValue();
    // by hand: a column of 3 upright, and 2 turned beside it
    assertEquals(boards, 5);
    assertEquals(s.get("sheet").get("saved").doubleValue(), 5 * 15 - 40.0);
    String text = Files.readString(out);
    assertEquals(text.split("G36", -1).length - 1, boards * s.get("openings").size());
    for (String kind : new String[] {"svg", "dxf"}) {
      Path other = folder.resolve("sheet." + kind);
      ell(
          0,
          "stencil",
          demo,
          "--side",
          "second",
          "--sheet",
          "300x400mm",
          "--out",
          other.toString());
      assertTrue(Files.size(other) > 5000);
    }
    assertTrue(
        ell(
                2,
                "stencil",
                demo,
                "--side",
                "second",
                "--sheet",
                "300x400mm",
                "--out",
                folder.resolve("sheet.doc").toString())
            .err()
            .contains("written as .svg, .dxf or .gbr"));
  }

  /// A profile of straight lines: 1.2 °C/s, soak 80 s, and so on; each number by hand.
  @Test
  public void aProfileByHand() throws IOException {
    StringBuilder csv = new StringBuilder("Time (s);Board (°C);Corner (°C)\n");
    double[][] corners = {
      {0, 25},
      {125 / 1.2, 150},
      {125 / 1.2 + 80, 200},
      {125 / 1.2 + 125, 242},
      {125 / 1.2 + 165, 242},
      {125 / 1.2 + 165 + 96, 50}
    };
    for (int t = 0; t <= 365; t++) {
      double y = 50;
      for (int i = 1; i < corners.length; i++) {
        if (t <= corners[i][0]) {
          double f = (t - corners[i - 1][0]) / (corners[i][0] - corners[i - 1][0]);
          y = corners[i - 1][1] + f * (corners[i][1] - corners[i - 1][1]);
          break;
        }
      }
      csv.append(String.format(Locale.GERMANY, "%d;%.2f;%.2f%n", t, y, y - 3));
    }
    Path log = folder.resolve("hand.csv");
    Files.writeString(log, csv);
    JsonNode p = ell(0, "profile", log.toString(), "--window", "sac305", "--json").json();
    Map<String, Double> board = new HashMap<>();
    double worst = 0;
    for (JsonNode c : p.get("channels")) {
      double own = 0;
      for (JsonNode s : c.get("statistics")) {
        double v = s.get("value").doubleValue();
        double low = s.get("low").doubleValue();
        double high = s.get("high").doubleValue();
        own = Math.max(own, 100 * Math.abs(v - (low + high) / 2) / ((high - low) / 2));
        assertEquals(s.get("verdict").stringValue(), "within");
        if (c.get("name").stringValue().equals("Board")) {
          board.put(s.get("name").stringValue(), v);
        }
      }
      assertEquals(c.get("pwi").doubleValue(), own, 1e-9);
      worst = Math.max(worst, own);
    }
    assertEquals(p.get("pwi").doubleValue(), worst, 1e-9);
    assertEquals(p.get("verdict").stringValue(), "within");
    assertEquals(board.get("rampUp"), 1.2, 0.01);
    assertEquals(board.get("soakTime"), 80, 0.5);
    assertEquals(board.get("peak"), 242, 0.01);
    assertEquals(board.get("rampDown"), 2.0, 0.01);
    // 45 s for 42 °C on the way up, 17 of them below 217; 40 s there; 25/2 s down
    assertEquals(board.get("timeAboveLiquidus"), 45 * 25 / 42.0 + 40 + 12.5, 1);
    assertEquals(p.get("spread").doubleValue(), 3, 0.02);
    // the same by a sheet of the catalogue, which shows the worst channel
    JsonNode sheet =
        ell(0, "calc", "heat.profile", "file=" + log, "window=sac305", "--json").json();
    assertEquals(sheet.get("results").get("pwi").doubleValue(), worst, 1e-9);
    assertEquals(sheet.get("verdict").stringValue(), "within");
    // too cold for the leaded window's peak, and exit 1
    assertEquals(
        ell(1, "profile", log.toString(), "--window", "snpb", "--json")
            .json()
            .get("verdict")
            .stringValue(),
        "out");
    Path pdf = folder.resolve("runs.pdf");
    ell(1, "profile", log.toString(), Demo.run(2), "--pdf", pdf.toString());
    assertTrue(Files.size(pdf) > 5000);
    assertTrue(ell(2, "profile", log.toString(), "--window", "gold").err().contains("a window is"));
    assertTrue(
        ell(2, "profile", folder.resolve("none.csv").toString()).err().contains("no such file"));
  }

  private static final class Demo {
    static String run(int n) {
      return Path.of("../fixtures/marram/plate-run-" + n + ".csv").toString();
    }
  }

  @Test
  public void aWindowOfOnesOwn() throws IOException {
    String w = ell(0, "profile", Demo.run(1), "--window", "sac305", "--write-window").out();
    Path own = folder.resolve("own.json");
    Files.writeString(own, w.replace("250.0", "241.0").replace("\"sac305\"", "\"mine\""));
    JsonNode p = ell(1, "profile", Demo.run(1), "--window", own.toString(), "--json").json();
    assertEquals(p.get("window").stringValue(), "mine");
    Files.writeString(own, "{\"name\":\"x\",\"limits\":{\"peak\":{\"high\":250}}}");
    assertTrue(
        ell(2, "profile", Demo.run(1), "--window", own.toString())
            .err()
            .contains("soakFrom: expected"));
  }

  /// The demo's pattern: one fine-pitch part bridges when the wipe is late.
  @Test
  public void ratesOfTheDemo() {
    JsonNode l = ell(0, "look", demo, "--board", "07", "--json").json();
    assertEquals(l.get("defects").intValue(), 2);
    assertEquals(l.get("dpmo").doubleValue(), 2e6 / l.get("opportunities").intValue(), 1e-6);
    JsonNode build = l.get("build");
    assertEquals(build.get("by").get("part").get(0).get("name").stringValue(), "U4");
    assertEquals(build.get("by").get("pitch").get(0).get("name").stringValue(), "up to 0.5 mm");
    long sum = 0;
    for (JsonNode b : build.get("boards")) {
      sum += b.get("defects").intValue();
    }
    assertEquals(sum, build.get("defects").intValue());
    JsonNode walk = l.get("walk");
    assertEquals(walk.get("joints").intValue(), walk.get("of").intValue());
    // fine pitch and what has a history comes first
    String first = walk.get("stops").get(0).get("part").stringValue();
    assertTrue(java.util.List.of("U4", "U7", "J2", "C16").contains(first), first);
    JsonNode brief =
        ell(0, "look", demo, "--board", "07", "--share", "0.5", "--json").json().get("walk");
    assertTrue(brief.get("coverage").doubleValue() >= 0.5);
    assertTrue(brief.get("joints").intValue() < walk.get("joints").intValue() / 2);
    assertTrue(ell(2, "look", demo, "--board", "99").err().contains("there is no board '99'"));
  }

  @Test
  public void jarsAndHeatOfTheDemo() throws IOException {
    JsonNode j = ell(0, "jar", demo, "--json").json().get("jars").get(0);
    assertEquals(j.get("jar").stringValue(), "PASTE-SAC3");
    assertEquals(j.get("state").stringValue(), "cold");
    Path rules = folder.resolve("rules.json");
    Files.writeString(rules, "{\"outHours\":20}");
    JsonNode strict =
        ell(1, "jar", demo, "PASTE-SAC3", "--rules", rules.toString(), "--json").json();
    assertEquals(strict.get("jars").get(0).get("says").stringValue(), "test on one board");
    ell(0, "jar", demo, "PASTE-SAC3", "tested", "--json");
    assertTrue(ell(2, "jar", demo, "PASTE-SAC3", "eaten").err().contains("a jar is cold"));
    JsonNode h = ell(0, "heat", demo, "--board", "07", "--part", "J1", "--json").json();
    assertEquals(h.get("plate").get("runs").intValue(), 2);
    assertTrue(h.get("plate").get("rms").doubleValue() < 1);
    assertTrue(h.get("schedule").get("pwi").doubleValue() < 100);
    assertEquals(h.get("pins").size(), 2);
    assertEquals(h.get("bags").get(0).get("code").stringValue(), "MCU48");
    assertEquals(h.get("heatCycles").get(0).get("part").stringValue(), "U4");
  }

  /// A part that was heated as often as it may is not heated again without a word why.
  @Test
  public void heatIsCounted() {
    String[] log = {"log", demo, "--board", "07"};
    MainTest.Ran r = ell(2, log[0], log[1], log[2], log[3], "U4 replaced");
    assertTrue(r.err().contains("U4 was heated 3 times and takes 3"), r.err());
    ell(0, log[0], log[1], log[2], log[3], "U4 replaced the last of its kind");
    ell(0, log[0], log[1], log[2], log[3], "printed first wiped jar paste-sac3");
    ell(0, log[0], log[1], log[2], log[3], "U4.2 paste thin");
    assertTrue(
        ell(2, log[0], log[1], log[2], log[3], "U4.2 paste gone")
            .err()
            .contains("how the paste lies"));
    assertTrue(
        ell(2, log[0], log[1], log[2], log[3], "bag MCU48 opened level 9").err().contains("level"));
    assertTrue(
        ell(2, log[0], log[1], log[2], log[3], "printed third").err().contains("first or second"));
  }

  @Test
  public void photographsAreKeptAsTheyAre() throws IOException {
    Path png = folder.resolve("joint.png");
    Files.write(
        png,
        Base64.getDecoder()
            .decode(
                "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="));
    ell(0, "photo", demo, png.toString(), "--board", "03", "--place", "u4.13", "--json");
    Path out = Files.createDirectories(folder.resolve("out"));
    ell(0, "photo", demo, "--board", "03", "--place", "U4.13", "--out", out.toString());
    assertEquals(Files.readAllBytes(out.resolve("joint.png")), Files.readAllBytes(png));
    Path text = folder.resolve("joint.txt");
    Files.writeString(text, "no picture");
    assertTrue(
        ell(2, "photo", demo, text.toString(), "--board", "03", "--place", "U4.13")
            .err()
            .contains("expected a JPEG or a PNG"));
    ell(0, "verify", demo);
    assertFalse(ell(0, "show", demo, "--board", "03").out().isEmpty());
  }

  @DataProvider
  Object[][] sheets() {
    return new Object[][] {
      {"look.dpmo", "defects=3 joints=1400 parts=100", "dpmo", 2000.0},
      {"look.chart", "counts=16,14,28,6 sizes=1", "centre", 16.0},
      {"look.sampling", "lot=10 rate=0", "size", 10.0},
      {"heat.thermocouple", "type=K voltage=4.096mV reference=0C", "temperature", 100.0},
      {"stencil.topup", "volume=5e-11 needleBore=0.41mm", "domeDiameter", 5.759e-4},
    };
  }

  @Test(dataProvider = "sheets")
  public void sheetsOfTheStages(String name, String in, String key, double value) {
    String[] words = in.split(" ");
    String[] args = new String[words.length + 3];
    args[0] = "calc";
    args[1] = name;
    System.arraycopy(words, 0, args, 2, words.length);
    args[args.length - 1] = "--json";
    assertEquals(
        ell(0, args).json().get("results").get(key).doubleValue(), value, Math.abs(value) * 1e-3);
  }
}
