package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Mistakes of revisions and the difference of drawings through the command line: on the demo, and
/// on files of boards unlike it that were edited as text.
public final class ReviseTest {
  private static final Path ODD = Path.of("../fixtures/odd");
  private Path folder;
  private String demo;

  @BeforeClass
  public void make() throws Exception {
    folder = Files.createTempDirectory("revise");
    demo = folder.resolve("demo.ell").toString();
    System.setProperty("ell.demo", "../demo");
    TestRun.good("demo-workspace", demo);
  }

  private String copy() throws Exception {
    Path to = Files.createTempFile(folder, "copy", ".ell");
    Files.delete(to);
    TestRun.good("backup", demo, "--out", to.toString());
    return to.toString();
  }

  private static Set<String> words(JsonNode array) {
    Set<String> all = new TreeSet<>();
    array.forEach(n -> all.add(n.asString()));
    return all;
  }

  @Test
  public void theDemosMistakesAgainstItsBoards() throws Exception {
    JsonNode o = TestRun.good("revise", demo, "--json").json();
    assertEquals(o.path("errata").size(), 3);
    JsonNode e = o.path("errata").get(0);
    assertEquals(e.path("id").asString(), "E1");
    assertEquals(e.path("state").asString(), "open");
    assertEquals(words(e.path("places")), Set.of("U6.7"));
    assertEquals(words(e.path("revisions")), Set.of("A"));
    assertEquals(e.path("taughtBy").get(0).asLong(), 23);
    assertEquals(e.path("bodge").path("steps").get(1).asString(), "wire U6.7 GND");
    assertEquals(e.path("bodge").path("heats").path("U6").asInt(), 1);
    assertEquals(e.path("proof").asString(), "joined U6.7 GND");
    assertEquals(o.path("boards").size(), 17);
    for (JsonNode b : o.path("boards")) {
      boolean own = b.path("revision").asString().equals("MG-1 rev A");
      assertTrue(own || b.path("errata").path("E1").asString().equals("notNeeded"));
      b.path("errata")
          .forEach(s ->
              assertTrue(
                  Set.of("needed", "done", "proved", "notNeeded", "cannot")
                      .contains(s.asString())));
    }
    double minutes = 0;
    Set<String> boards = new TreeSet<>();
    for (JsonNode j : o.path("workOrder")) {
      minutes += j.path("minutes").asDouble();
      assertTrue(boards.add(j.path("board").asString()), "each board once");
    }
    assertEquals(o.path("minutes").asDouble(), minutes, 1e-9);
    assertEquals(boards, Set.of("A02", "A03", "A04", "A05"));
  }

  @Test
  public void theListOfRevisionAIsDoneInRevisionB() {
    JsonNode o = TestRun.good("diff", demo, "--from", "A", "--to", "B", "--json").json();
    assertEquals(
        words(o.path("parts").path("added")), Set.of("R7", "SJ1", "SJ2", "SJ3", "TP7", "TP8"));
    assertEquals(o.path("nets").path("joints").size(), 5);
    assertEquals(o.path("changes").get(0).path("state").asString(), "done");
    assertEquals(o.path("changes").get(1).path("state").asString(), "done");
    assertEquals(o.path("changes").get(2).path("state").asString(), "partly");
    assertEquals(o.path("unexplained").size(), 0, o.path("unexplained").toString());
    JsonNode list = TestRun.good("revise", demo, "--changes", "--json").json();
    assertEquals(list.path("changes").size(), 3);
    assertEquals(list.path("checked").path("against").asString(), "B");
  }

  /// Boards unlike the demo, their files edited as text: names anew, a pin on another net, a part
  /// elsewhere, another value.
  @DataProvider
  Object[][] odd() {
    return new Object[][] {{"shield"}, {"cell"}, {"panel"}};
  }

  @Test(dataProvider = "odd")
  public void filesThatWereEdited(String board) throws Exception {
    Path from = ODD.resolve(board);
    Path to = Files.createDirectories(folder.resolve(board + "-2"));
    List<String> netlist = Files.readAllLines(from.resolve("netlist.ipc"));
    List<String> nets =
        netlist.stream()
            .filter(l -> l.startsWith("317") || l.startsWith("327"))
            .map(l -> l.substring(3, 17).strip())
            .filter(n -> !n.isEmpty() && !n.equals("N/C"))
            .distinct()
            .toList();
    // every net has another name, and one pin of a net with several hangs on the next net
    String moved = "";
    List<String> edited = new ArrayList<>();
    Random q = new Random(4);
    int pick = 20 + q.nextInt(20);
    int n = 0;
    for (String l : netlist) {
      boolean record = l.startsWith("317") || l.startsWith("327");
      String net = record ? l.substring(3, 17).strip() : "";
      if (!record || !nets.contains(net)) {
        edited.add(l);
        continue;
      }
      int at = nets.indexOf(net);
      long ends =
          netlist.stream()
              .filter(x -> x.length() > 17 && x.substring(3, 17).strip().equals(net))
              .count();
      boolean mine = moved.isEmpty() && n++ >= pick && ends > 2;
      if (mine) {
        moved = l.substring(20, 26).strip() + "." + l.substring(27, 31).strip();
        at = (at + 1) % nets.size();
      }
      edited.add(l.substring(0, 3) + String.format("%-14s", "N" + at) + l.substring(17));
    }
    Files.write(to.resolve("netlist.ipc"), edited);
    Files.copy(from.resolve("outline.csv"), to.resolve("outline.csv"));
    Files.copy(from.resolve("bom.csv"), to.resolve("bom.csv"));
    Files.copy(from.resolve("placement.csv"), to.resolve("placement.csv"));
    String ws = folder.resolve(board + ".ell").toString();
    TestRun.good("new", ws);
    bring(ws, board, "1", from);
    bring(ws, board, "2", to);
    JsonNode o = TestRun.good("diff", ws, "--from", "1", "--to", "2", "--json").json();
    assertEquals(o.path("nets").path("joints").size(), 1, o.path("nets").toString());
    assertEquals(o.path("nets").path("joints").get(0).path("place").asString(), moved);
    assertEquals(o.path("nets").path("renamed").size(), nets.size(), "every name is another");
    assertEquals(o.path("parts").path("moved").size(), 0);
    assertEquals(o.path("parts").path("added").size(), 0);
    assertEquals(o.path("parts").path("renumbered").size(), 0);
    assertFalse(o.path("same").asBoolean());
    assertEquals(o.path("unexplained").size(), 1, "nobody asked for it");
    JsonNode same = TestRun.good("diff", ws, "--from", "1", "--to", "1", "--json").json();
    assertTrue(same.path("same").asBoolean());
    assertEquals(TestRun.good("revise", ws, "--json").json().path("errata").size(), 0);
    assertTrue(TestRun.good("revise", ws).out().contains("no erratum is written down"));
  }

  private static void bring(String ws, String design, String name, Path f) {
    TestRun.good(
        "import",
        ws,
        "--design",
        design,
        "--revision",
        name,
        "--bom",
        f.resolve("bom.csv").toString(),
        "--netlist",
        f.resolve("netlist.ipc").toString(),
        "--placement",
        f.resolve("placement.csv").toString(),
        "--outline",
        f.resolve("outline.csv").toString());
  }

  @Test
  public void whatToDoAndWhatIsGuessed() throws Exception {
    String ws = copy();
    JsonNode o = TestRun.good("revise", ws, "--decide", "--json").json();
    assertEquals(o.path("choice").asString(), "rework");
    assertTrue(o.path("guessed").size() > 5);
    JsonNode sheet =
        TestRun.good(
                "calc",
                "revise.decide",
                "--json",
                "successChance=" + o.path("inputs").path("successChance").asDouble(),
                "boards=" + o.path("inputs").path("boards").asInt(),
                "boardCost=" + o.path("inputs").path("boardCost").asDouble(),
                "partsCost=" + o.path("inputs").path("partsCost").asDouble(),
                "reworkHours=" + o.path("inputs").path("reworkHours").asDouble(),
                "hourRate=" + o.path("inputs").path("hourRate").asDouble(),
                "leadDays=" + o.path("inputs").path("leadDays").asDouble(),
                "nextDays=" + o.path("inputs").path("nextDays").asDouble(),
                "delayPerDay=" + o.path("inputs").path("delayPerDay").asDouble(),
                "escapeChance=" + o.path("inputs").path("escapeChance").asDouble(),
                "escapeCost=" + o.path("inputs").path("escapeCost").asDouble())
            .json()
            .path("results");
    assertEquals(
        o.path("rework").path("cost").asDouble(), sheet.path("reworkCost").asDouble(), 1e-6);
    assertEquals(o.path("turnsAt").asDouble(), sheet.path("turnsAt").asDouble(), 1e-9);
    // one short command puts a guess right
    JsonNode said =
        TestRun.good(
                "revise",
                ws,
                "--say",
                "hour-rate=400",
                "--say",
                "lead-days=2",
                "--say",
                "board-cost=1",
                "--json")
            .json();
    assertFalse(said.path("choice").asString().equals("rework"));
    assertEquals(said.path("guessed").size(), o.path("guessed").size() - 3);
    JsonNode kept = TestRun.good("revise", ws, "--decide", "--json").json();
    assertEquals(kept.path("inputs").path("hourRate").asDouble(), 400, 1e-9);
  }

  @Test
  public void theListOnPaper() throws Exception {
    Path pdf = folder.resolve("changes.pdf");
    TestRun.good("revise", demo, "--out", pdf.toString());
    String text;
    try (PDDocument d = Loader.loadPDF(pdf.toFile())) {
      text = new PDFTextStripper().getText(d);
    }
    for (String s :
        List.of(
            "What the next revision must have",
            "E1",
            "lift U6.7",
            "wire U6.7 GND",
            "AWG 30",
            "Held against revision B",
            "Work that is left",
            "joined U6.7 GND",
            "Power off, cell out")) {
      assertTrue(text.contains(s), s + "\n" + text);
    }
    Path csv = folder.resolve("changes.csv");
    TestRun.good("revise", demo, "--out", csv.toString());
    assertEquals(Files.readAllLines(csv).size(), 4);
    TestRun.bad(
        "written as .pdf or .csv", "revise", demo, "--out", folder.resolve("x.txt").toString());
  }

  @Test
  public void whatTheBenchHasLearned() {
    JsonNode c = TestRun.good("revise", demo, "--compare", "--json").json();
    assertEquals(c.path("groups").size(), 2);
    JsonNode a = c.path("groups").get(0);
    assertEquals(a.path("judged").asInt(), 5);
    assertTrue(a.path("yield").path("high").asDouble() > a.path("yield").path("value").asDouble());
    JsonNode l = TestRun.good("revise", demo, "--lessons", "--json").json();
    long joints = 0;
    for (JsonNode p : l.path("package")) {
      joints += p.path("of").asLong();
      double rate = p.path("rate").path("value").asDouble();
      assertTrue(rate > 0 && rate < 1);
    }
    assertTrue(joints > 1000);
    JsonNode s = TestRun.good("revise", demo, "--stacks", "--json").json();
    assertTrue(s.path("tried").get(0).path("mayShip").asBoolean());
    assertEquals(s.path("together").get(0).path("worked").asInt(), 1);
  }

  @Test
  public void badInputIsSaid() {
    TestRun.bad("no design has both revisions", "diff", demo, "--from", "A", "--to", "Z");
    TestRun.bad(
        "there is no revision", "diff", demo, "--from", "A", "--to", "Z", "--design", "MG-1");
    TestRun.bad("no design 'X'", "revise", demo, "--design", "X");
    TestRun.bad("one at a time", "revise", demo, "--changes", "--decide");
    TestRun.bad("says nothing that is known", "revise", demo, "--say", "lead=3");
    TestRun.bad("lead-days is 0 to", "revise", demo, "--say", "lead-days=-3");
    TestRun.bad(
        "out of range",
        "calc",
        "revise.decide",
        "successChance=1.4",
        "boards=3",
        "boardCost=1",
        "partsCost=1",
        "reworkHours=1",
        "hourRate=1",
        "leadDays=1");
  }
}
