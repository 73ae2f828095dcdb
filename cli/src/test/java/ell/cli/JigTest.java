package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.artwork.Drilling;
import ell.core.board.Joint;
import ell.files.Read;
import ell.files.Source;
import ell.files.drill.DrillReader;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import javax.xml.parsers.DocumentBuilderFactory;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.xml.sax.InputSource;
import tools.jackson.databind.JsonNode;

/// Jigs through the command line, on boards unlike the demo: what is chosen, and that what is
/// written lies where the netlist has its copper.
public final class JigTest {
  private Path folder;
  private final Map<String, JigBoard> boards = new TreeMap<>();
  private final Map<String, String> workspaces = new TreeMap<>();

  @BeforeClass
  public void make() throws Exception {
    folder = Files.createTempDirectory("jig");
    boards.put("shield", JigBoard.shield());
    boards.put("cell", JigBoard.cell());
    boards.put("panel", JigBoard.panel());
    for (Map.Entry<String, JigBoard> b : boards.entrySet()) {
      workspaces.put(b.getKey(), b.getValue().into(folder, b.getKey()));
    }
  }

  private JsonNode jig(String board, String... more) {
    List<String> args = new ArrayList<>(List.of("jig", workspaces.get(board), "--json"));
    args.addAll(List.of(more));
    return TestRun.good(args.toArray(String[]::new)).json();
  }

  @DataProvider
  Object[][] asked() {
    return new Object[][] {
      {"shield", "all", false}, {"shield", "power", false}, {"cell", "all", false},
      {"cell", "all", true}, {"cell", "tests", true}, {"panel", "power", false},
      {"panel", "all", false},
    };
  }

  /// Each probe lies on copper of its net that is free on its side, no two too near; what is not
  /// reached says why and what would reach it.
  @Test(dataProvider = "asked")
  public void probesLieOnTheirNets(String board, String reach, boolean top) {
    List<String> more = new ArrayList<>(List.of("--reach", reach));
    if (top) {
      more.add("--top-ok");
    }
    JsonNode o = jig(board, more.toArray(String[]::new));
    JigBoard b = boards.get(board);
    List<JsonNode> probes = new ArrayList<>();
    o.get("probes").forEach(probes::add);
    assertFalse(probes.isEmpty());
    int above = 0;
    double least = Double.POSITIVE_INFINITY;
    double force = 0;
    for (JsonNode p : probes) {
      boolean first = p.get("side").stringValue().equals("first");
      above += first ? 1 : 0;
      force += p.get("force").doubleValue();
      List<Joint> all = new ArrayList<>(b.joints);
      all.addAll(b.vias);
      assertTrue(
          all.stream()
              .anyMatch(j ->
                  j.net().equals(p.get("net").stringValue())
                      && j.reach() != (first ? Joint.Reach.SECOND : Joint.Reach.FIRST)
                      && (j.mask() & (first ? 1 : 2)) == 0
                      && Math.abs(j.xMm() - 1e3 * p.get("x").doubleValue()) <= j.widthMm() / 2
                      && Math.abs(j.yMm() - 1e3 * p.get("y").doubleValue()) <= j.heightMm() / 2),
          p.toString());
      assertTrue(p.get("miss").doubleValue() <= 0.02, p.toString());
      for (JsonNode q : probes) {
        if (q != p && q.get("side").equals(p.get("side"))) {
          double d =
              1e3
                  * Math.hypot(
                      q.get("x").doubleValue() - p.get("x").doubleValue(),
                      q.get("y").doubleValue() - p.get("y").doubleValue());
          least = Math.min(least, d);
          double apart =
              (Double.parseDouble(q.get("series").stringValue())
                      + Double.parseDouble(p.get("series").stringValue()))
                  / 2;
          assertTrue(d >= apart - 1e-6, p + " " + q);
        }
      }
    }
    assertEquals(o.get("topProbes").intValue(), above);
    assertTrue(top || above == 0, "none from above that nobody allowed");
    assertEquals(o.get("force").doubleValue(), force, 1e-9);
    if (Double.isFinite(least)) {
      assertEquals(1e3 * o.get("minGap").doubleValue(), least, 1e-6);
    }
    for (JsonNode u : o.get("unreachable")) {
      assertFalse(u.get("why").stringValue().isBlank());
      assertTrue(u.get("remedy").stringValue().contains("test point"), u.toString());
    }
    assertTrue(o.get("optimal").booleanValue(), o.get("advice").toString());
    assertEquals(o.get("tooling").size(), 2);
    assertTrue(o.get("deflection").doubleValue() < 1.6e-3, "within small bending");
    assertTrue(o.get("fingers").size() >= 3);
  }

  private static List<String> nets(JsonNode list) {
    List<String> all = new ArrayList<>();
    list.forEach(x -> all.add(x.get("net").stringValue()));
    return all.stream().distinct().sorted().toList();
  }

  /// Everything of a board whose leads all come through is reached from below, by the largest
  /// series as its pins stand 2.54 mm apart.
  @Test
  public void aShieldIsReachedFromBelow() {
    JsonNode o = jig("shield", "--reach", "all");
    assertEquals(o.get("unreachable").size(), 0, o.get("unreachable").toString());
    assertEquals(o.get("topProbes").intValue(), 0);
    for (JsonNode p : o.get("probes")) {
      assertEquals(p.get("series").stringValue(), "2.54");
      assertEquals(p.get("head").stringValue(), "crown");
      assertEquals(p.get("side").stringValue(), "second");
    }
    assertEquals(1e3 * o.get("minGap").doubleValue(), 2.54, 1e-6, "neighbours of a header");
    // the farthest pair of the three holes
    double[] x = {
      o.get("tooling").get(0).get("x").doubleValue(), o.get("tooling").get(1).get("x").doubleValue()
    };
    assertEquals(Math.abs(x[0] - x[1]), 0.060, 1e-9);
  }

  /// Test points 2 mm apart take a finer series; a net under mask or on the first side only is
  /// told.
  @Test
  public void aCrowdedBoardGivesWay() {
    JsonNode below = jig("cell", "--reach", "all");
    assertEquals(nets(below.get("unreachable")), List.of("EN", "PROG"));
    for (JsonNode u : below.get("unreachable")) {
      String why = u.get("why").stringValue();
      boolean en = u.get("net").stringValue().equals("EN");
      assertTrue(why.contains(en ? "first side" : "under mask"), u.toString());
    }
    JsonNode o = jig("cell", "--reach", "all", "--top-ok");
    assertEquals(o.get("topProbes").intValue(), 2, "EN and PROG, no more");
    Map<String, String> series = new TreeMap<>();
    o.get("probes")
        .forEach(p -> series.put(p.get("net").stringValue(), p.get("series").stringValue()));
    assertEquals(series.get("SCL"), "1.91", "2 mm from its neighbours: " + series);
    assertEquals(series.get("SDA"), "1.91", "" + series);
    assertTrue(o.get("advice").toString().contains("EN"), "what would spare it from above");
    JsonNode points = jig("cell", "--reach", "all", "--targets", "points");
    assertTrue(nets(points.get("unreachable")).contains("STAT"), "its via is not asked for");
  }

  /// Thinner boards bend more, by the cube of their thickness or near it.
  @Test
  public void whatIsKnownCanBeSaid() throws Exception {
    Path copy = folder.resolve("said.ell");
    Files.copy(Path.of(workspaces.get("shield")), copy);
    String ws = copy.toString();
    String[] ask = {"jig", ws, "--reach", "all", "--json"};
    JsonNode thick = TestRun.good(ask).json();
    StringBuilder at = new StringBuilder();
    thick
        .get("fingers")
        .forEach(f ->
            at.append(1e3 * f.get("x").doubleValue())
                .append(',')
                .append(1e3 * f.get("y").doubleValue())
                .append(' '));
    TestRun.good(
        "jig", ws, "--say", "fingers=" + at.toString().strip(), "--say", "thickness=0.8mm");
    JsonNode thin = TestRun.good(ask).json();
    double ratio = thin.get("deflection").doubleValue() / thick.get("deflection").doubleValue();
    assertTrue(ratio > 6.5 && ratio < 8.5, "" + ratio);
    TestRun.good("jig", ws, "--say", "thickness=", "--say", "fingers=");
    JsonNode again = TestRun.good(ask).json();
    assertEquals(again.get("deflection").doubleValue(), thick.get("deflection").doubleValue());
  }

  @Test
  public void badInputChangesNothing() throws Exception {
    String ws = workspaces.get("cell");
    TestRun.bad("no net 'NOPE'", "jig", ws, "--reach", "NOPE");
    Path list = folder.resolve("nets.txt");
    Files.writeString(list, "# wanted\nSDA\n\nSCX\n");
    TestRun.bad("line 4: no net 'SCX'", "jig", ws, "--reach", list.toString());
    Files.writeString(list, "net\nSDA\nSCL,clock\n");
    JsonNode o = jig("cell", "--reach", list.toString());
    assertEquals(nets(o.get("probes")), List.of("SCL", "SDA"));
    TestRun.bad("targets are points", "jig", ws, "--targets", "balls");
    TestRun.bad("a jig has no 'thick'", "jig", ws, "--say", "thick=1mm");
    TestRun.bad("thickness takes", "jig", ws, "--say", "mostMiss=0.01", "--say", "thickness=2km");
    assertFalse(
        jig("cell").toString().contains("0.01mm"), "nothing is kept where one thing is wrong");
    TestRun.bad("fingers are places", "jig", ws, "--say", "fingers=1;2");
    TestRun.bad("no net", "jig", ws, "--patterns", "walking", "--outputs", "SDA,QQ");
    TestRun.bad("needs --outputs", "jig", ws, "--patterns", "walking");
    TestRun.bad("named twice", "jig", ws, "--patterns", "counting", "--outputs", "SDA,SDA");
    TestRun.bad("patterns are walking", "jig", ws, "--patterns", "gray", "--outputs", "SDA,SCL");
    Path file = folder.resolve("a-file");
    Files.writeString(file, "mine");
    TestRun.bad("is a file", "jig", ws, "--out", file.toString());
    Path mine = Files.createDirectories(folder.resolve("mine"));
    Files.writeString(mine.resolve("plates.svg"), "<svg>mine</svg>");
    TestRun.bad("was not made by Ell", "jig", ws, "--out", mine.toString());
    try (var in = Files.list(mine)) {
      assertEquals(in.count(), 1, "nothing half written");
    }
  }

  @Test
  public void patterns() {
    JsonNode o = jig("shield", "--patterns", "counting", "--outputs", "D0,D1,D2,D3,D4,D5");
    assertEquals(o.get("vectors").size(), 3);
    assertEquals(o.get("shorts").get("caught").intValue(), 15);
    assertEquals(o.get("shorts").get("total").intValue(), 15);
    assertEquals(o.get("stuck").get("caught").intValue(), 12);
    // pins in a row: five pairs lie beside each other
    assertEquals(o.get("neighbours").get("total").intValue(), 5);
    JsonNode none = jig("shield", "--patterns", "all-together", "--outputs", "D0,D1,D2");
    assertEquals(none.get("shorts").get("caught").intValue(), 0);
    JsonNode walk = jig("shield", "--patterns", "walking", "--outputs", "D0,D1", "--inputs", "D2");
    assertEquals(walk.get("vectors").get(0).stringValue(), "10");
    assertEquals(walk.get("answers").get(0).stringValue(), "x", "nothing hands it on");
  }

  @DataProvider
  Object[][] written() {
    return new Object[][] {{"shield", false}, {"cell", true}, {"panel", false}};
  }

  private static void has(List<double[]> circles, double x, double y, double d, String what) {
    assertTrue(
        circles.stream()
            .anyMatch(c ->
                Math.abs(c[0] - x) < 2e-3
                    && Math.abs(c[1] - y) < 2e-3
                    && Math.abs(c[2] - d) < 2e-3),
        what + " at " + x + ", " + y + " of " + d);
  }

  /// Every file is read back by somebody who did not write it, hole by hole.
  @Test(dataProvider = "written")
  public void filesLieOverTheNetlist(String board, boolean top) throws Exception {
    Path out = folder.resolve("out-" + board);
    List<String> args = new ArrayList<>(List.of("--reach", "all", "--out", out.toString()));
    if (top) {
      args.add("--top-ok");
    }
    JsonNode o = jig(board, args.toArray(String[]::new));
    for (String f :
        List.of(
            "probe-plate.xnc",
            "guide-plate.xnc",
            "base.xnc",
            "carrier.xnc",
            "plates.dxf",
            "plates.svg",
            "plates.pdf",
            "wiring.csv",
            "parts.csv",
            "drill-steps.csv")) {
      assertTrue(Files.size(out.resolve(f)) > 40, f);
    }
    List<double[]> plate = drilled(out.resolve("probe-plate.xnc"));
    List<double[]> guide = drilled(out.resolve("guide-plate.xnc"));
    List<double[]> above =
        Files.exists(out.resolve("top-plate.xnc"))
            ? drilled(out.resolve("top-plate.xnc"))
            : List.of();
    Map<String, List<double[]>> dxf = PlateFiles.dxf(Files.readString(out.resolve("plates.dxf")));
    Map<String, List<double[]>> svg = svg(Files.readString(out.resolve("plates.svg")));
    List<List<double[]>> pdf = PlateFiles.pdf(out.resolve("plates.pdf"));
    int below = 0;
    for (JsonNode p : o.get("probes")) {
      double x = 1e3 * p.get("x").doubleValue();
      double y = 1e3 * p.get("y").doubleValue();
      double d = 1e3 * p.get("drill").doubleValue();
      if (p.get("side").stringValue().equals("first")) {
        has(above, x, y, d, "top plate");
        continue;
      }
      below++;
      has(plate, x, y, d, "probe plate");
      assertTrue(
          guide.stream().anyMatch(g -> Math.hypot(g[0] - x, g[1] - y) < 2e-3 && g[2] < d),
          "guide plate");
      has(dxf.get("probe-plate"), x, y, d, "DXF");
      has(svg.get("probe-plate"), x, y, d, "SVG");
      // the pages: base, carrier, probe plate from above, from below
      has(pdf.get(2), x, y, d, "PDF from above");
      has(pdf.get(3), -x, y, d, "PDF from below, mirrored");
    }
    long holes = plate.stream().filter(h -> h[2] < 1.8).count();
    assertEquals(holes, below, "no hole for a probe that is not there");
    for (JsonNode t : o.get("tooling")) {
      has(
          plate,
          1e3 * t.get("x").doubleValue(),
          1e3 * t.get("y").doubleValue(),
          1e3 * t.get("diameter").doubleValue(),
          "pin");
    }
    List<String> wiring = Files.readAllLines(out.resolve("wiring.csv"));
    assertEquals(wiring.size() - 1, o.get("probes").size());
    for (int i = 1; i < wiring.size(); i++) {
      String[] c = wiring.get(i).split(",");
      JsonNode p = o.get("probes").get(i - 1);
      assertEquals(c[1], p.get("net").stringValue());
      assertFalse(c[2].isBlank(), "a channel");
      assertEquals(Double.parseDouble(c[6]), 1e3 * p.get("x").doubleValue(), 1e-3);
    }
    for (String line :
        Files.readAllLines(out.resolve("drill-steps.csv")).stream().skip(1).toList()) {
      String[] c = line.split(",");
      String[] steps = c[3].split(" ");
      double last = Double.parseDouble(steps[steps.length - 1]);
      assertEquals(last, Double.parseDouble(c[1]), 1e-9);
      for (int i = 1; i < steps.length; i++) {
        double ratio = Double.parseDouble(steps[i]) / Double.parseDouble(steps[i - 1]);
        assertTrue(ratio > 1 && ratio <= 1.8 + 1e-9, line);
      }
    }
    // once more over its own files
    jig(board, args.toArray(String[]::new));
  }

  private static List<double[]> drilled(Path file) throws Exception {
    return switch (DrillReader.read(Source.of(file))) {
      case Read.Whole<Drilling> d ->
          d.value().holes().stream().map(h -> new double[] {h.x(), h.y(), h.diameter()}).toList();
      case Read.Flawed<Drilling> f -> throw new AssertionError(f.problems().toString());
    };
  }

  /// The jig's own parts are a bill like any other: they can be kitted.
  @Test(dependsOnMethods = "filesLieOverTheNetlist")
  public void theJigIsADesignOfItsOwn() throws Exception {
    Path out = folder.resolve("out-shield");
    String ws = folder.resolve("own.ell").toString();
    TestRun.good("new", ws);
    TestRun.good(
        "import",
        ws,
        "--design",
        "JIG",
        "--revision",
        "1",
        "--bom",
        out.resolve("parts.csv").toString(),
        "--placement",
        out.resolve("carrier-placement.csv").toString(),
        "--netlist",
        out.resolve("carrier.ipc").toString());
    JsonNode kit =
        TestRun.good("kit", ws, "--design", "JIG", "--revision", "1", "--boards", "1", "--json")
            .json();
    int probes = jig("shield", "--reach", "all").get("probes").size();
    int crowns = 0;
    for (JsonNode line : kit.get("lines")) {
      crowns +=
          line.get("code").stringValue().startsWith("CROWN-PROBE")
              ? line.get("need").intValue()
              : 0;
    }
    assertEquals(crowns, probes);
  }

  /// Circles by plate, in the board's own axes: the board's edge begins at 0, 0.
  private static Map<String, List<double[]>> svg(String text) throws Exception {
    DocumentBuilderFactory f = DocumentBuilderFactory.newInstance();
    Element root =
        f.newDocumentBuilder().parse(new InputSource(new StringReader(text))).getDocumentElement();
    assertTrue(root.getAttribute("width").endsWith("mm"), "one to one");
    assertEquals(
        root.getAttribute("viewBox").split(" ")[2] + "mm",
        root.getAttribute("width"),
        "one to one");
    Map<String, List<double[]>> all = new TreeMap<>();
    NodeList groups = root.getElementsByTagName("g");
    for (int i = 0; i < groups.getLength(); i++) {
      Element g = (Element) groups.item(i);
      if (g.getAttribute("id").isEmpty()) {
        continue;
      }
      double[] zero = null;
      NodeList paths = g.getElementsByTagName("path");
      for (int k = 0; k < paths.getLength(); k++) {
        Element p = (Element) paths.item(k);
        if (p.getAttribute("class").equals("board")) {
          zero = PlateFiles.corner(p.getAttribute("d"));
        }
      }
      if (zero == null) {
        continue;
      }
      List<double[]> circles = new ArrayList<>();
      NodeList c = g.getElementsByTagName("circle");
      for (int k = 0; k < c.getLength(); k++) {
        Element e = (Element) c.item(k);
        circles.add(
            new double[] {
              Double.parseDouble(e.getAttribute("cx")) - zero[0],
              zero[1] - Double.parseDouble(e.getAttribute("cy")),
              2 * Double.parseDouble(e.getAttribute("r"))
            });
      }
      all.put(g.getAttribute("id"), circles);
    }
    return all;
  }

  /// A jig has a book of its own: closings wear its probes, a check that finds something stays open
  /// until it is mended.
  @Test
  public void aJigHasItsOwnBook() throws Exception {
    Path copy = folder.resolve("book.ell");
    Files.copy(Path.of(workspaces.get("cell")), copy);
    String ws = copy.toString();
    TestRun.good("build", ws, "--design", "cell", "--revision", "1", "--boards", "2");
    for (String line :
        List.of("jig J1 built", "jig J1 closed 40", "jig J1 check open SDA", "jig J1 probe SDA")) {
      TestRun.good("log", ws, "--board", "01", line);
    }
    TestRun.good("log", ws, "--board", "02", "jig J1 closed");
    JsonNode j = TestRun.good("jig", ws, "--json").json().get("jigs").get(0);
    assertEquals(j.get("jig").stringValue(), "J1");
    assertEquals(j.get("closings").intValue(), 41);
    assertEquals(j.get("changed").get("SDA").intValue(), 1);
    assertEquals(j.get("open").size(), 0, "the probe was changed");
    assertTrue(j.get("told").toString().contains("never checked"));
    TestRun.good("log", ws, "--board", "01", "jig J1 check good");
    TestRun.good("log", ws, "--board", "01", "jig J1 check short SDA SCL");
    j = TestRun.good("jig", ws, "--json").json().get("jigs").get(0);
    assertEquals(j.get("open").get(0).stringValue(), "short at SDA SCL");
    TestRun.bad("no net", "log", ws, "--board", "01", "jig J1 check open NOPE");
    TestRun.bad("a jig is built", "log", ws, "--board", "01", "jig J1 burnt");
    TestRun.bad("closings are 1", "log", ws, "--board", "01", "jig J1 closed 0");
    assertEquals(
        TestRun.good("show", ws, "--board", "02", "--json").json().get("stage").stringValue(),
        "jig");
  }

  /// What holds on both products stays in the base.
  @Test
  public void twoProductsOnOneJig() throws Exception {
    Path copy = folder.resolve("two.ell");
    Files.copy(Path.of(workspaces.get("cell")), copy);
    String ws = copy.toString();
    JigBoard other = JigBoard.cell();
    other.via("STAT", 6, 11, 0).joint("TP9", "1", "PROG", 30, 4, 2, 0, 1.5);
    Path files = folder.resolve("second");
    other.into(files, "cell2");
    Path f = files.resolve("cell2");
    TestRun.good(
        "import",
        ws,
        "--design",
        "cell2",
        "--revision",
        "1",
        "--bom",
        f.resolve("bom.csv").toString(),
        "--placement",
        f.resolve("placement.csv").toString(),
        "--netlist",
        f.resolve("netlist.ipc").toString(),
        "--outline",
        f.resolve("outline.csv").toString(),
        "--drill",
        f.resolve("drill.xnc").toString());
    JsonNode s =
        TestRun.good(
                "jig",
                ws,
                "--design",
                "cell",
                "--revision",
                "1",
                "--also",
                "cell2:1",
                "--reach",
                "all",
                "--json")
            .json()
            .get("shared");
    assertTrue(s.get("common").toString().contains("SDA"));
    assertEquals(s.get("personality").get(1).get("nets").toString(), "[\"PROG\"]");
    assertTrue(s.get("samePlaces").intValue() >= 4, s.toString());
    assertEquals(Optional.of(s.get("personality").size()), Optional.of(2));
    TestRun.bad("DESIGN:REVISION", "jig", ws, "--also", "cell2");
    TestRun.bad("no revision", "jig", ws, "--also", "cell9:1");
  }

  /// A list of nets that is empty, no text, huge or gone; nothing is kept where another word is
  /// bad.
  @Test
  public void listsOfNetsThatAreNone() throws Exception {
    Path copy = folder.resolve("lists.ell");
    Files.copy(Path.of(workspaces.get("cell")), copy);
    String ws = copy.toString();
    Path list = folder.resolve("list.txt");
    Files.writeString(list, "");
    TestRun.bad("names no net", "jig", ws, "--reach", list.toString());
    Files.write(list, new byte[] {(byte) 0xff, (byte) 0xfe, 0, 3});
    TestRun.bad("is no text", "jig", ws, "--reach", list.toString());
    Files.writeString(list, "SDA\n".repeat(1_100_000));
    TestRun.bad("too large", "jig", ws, "--reach", list.toString());
    TestRun.bad("no net 'a", "jig", ws, "--reach", "a\u0000b");
    TestRun.bad("fingers are places", "jig", ws, "--say", "fingers=NaN,3");
    TestRun.bad("fingers are places", "jig", ws, "--say", "fingers=1e9,3");
    TestRun.bad("thickness", "jig", ws, "--say", "thickness=1.6V");
    String before = TestRun.good("jig", ws, "--json").out();
    TestRun.bad("no net 'NOPE'", "jig", ws, "--say", "thickness=0.8mm", "--reach", "NOPE");
    TestRun.bad("no net 'NOPE'", "jig", ws, "--say", "reach=NOPE");
    TestRun.bad("is a file", "jig", ws, "--say", "thickness=0.8mm", "--out", list.toString());
    assertEquals(TestRun.good("jig", ws, "--json").out(), before, "nothing was kept");
    Files.writeString(list, "SDA\nSCL\n");
    TestRun.good("jig", ws, "--say", "reach=" + list);
    Files.delete(list);
    assertEquals(
        nets(TestRun.good("jig", ws, "--json").json().get("probes")),
        List.of("SCL", "SDA"),
        "what the file named is kept, not the file");
  }

  /// Where no probe reaches anything nothing is costed, bent or written, and that is said.
  @Test
  public void noProbeNoJig() {
    String ws = workspaces.get("panel");
    JsonNode o = jig("panel", "--targets", "points", "--reach", "power");
    assertEquals(o.get("probes").size(), 0);
    assertTrue(o.get("worth") == null && o.get("deflection") == null, o.toString());
    assertEquals(nets(o.get("unreachable")), List.of("5V", "GND"));
    String text = TestRun.good("jig", ws, "--targets", "points", "--reach", "power").out();
    assertTrue(text.contains("no probe reaches anything"), text);
    assertFalse(text.contains("NaN"), text);
    TestRun.bad(
        "no probe reaches anything",
        "jig",
        ws,
        "--targets",
        "points",
        "--reach",
        "power",
        "--out",
        folder.resolve("none").toString());
    assertFalse(Files.exists(folder.resolve("none")));
  }
}
