package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.book.Place;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.practice.SameFault;
import ell.work.Workshop;
import ell.work.practice.Practice;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Practice through the command line: a fault is hidden, looked for with the simulated bench,
/// named, and the run told; on the demo and on boards unlike it.
public final class PracticeTest {
  private static final Path ODD = Path.of("../fixtures/odd");
  private Path folder;

  @BeforeClass
  public void make() throws Exception {
    folder = Files.createTempDirectory("practice");
    System.setProperty("ell.demo", "../demo");
    System.setProperty("ell.state", folder.resolve("state").toString());
  }

  private static Fault hidden(String file) throws Exception {
    try (Workshop w = Workshop.look(Path.of(file))) {
      return Practice.in(w).orElseThrow().faults().getFirst();
    }
  }

  @Test
  public void aRailThatIsNotThere() throws Exception {
    System.setProperty("ell.state", folder.resolve("own-state").toString());
    try {
      rail(folder.resolve("rail.ell").toString());
    } finally {
      System.setProperty("ell.state", folder.resolve("state").toString());
    }
  }

  private static void rail(String file) throws Exception {
    JsonNode begun =
        TestRun.good("practice", file, "--level", "2", "--seed", "11", "--json").json();
    assertEquals(begun.path("level").asInt(), 2);
    assertFalse(begun.path("over").asBoolean());
    assertTrue(begun.path("words").asString().contains("Somebody has seen"));
    assertTrue(begun.path("faults").isMissingNode(), "it is not told before it is over");
    String board = begun.path("board").asString();
    // the same bench, the same commands
    TestRun.good("trace", file, "--board", board, "--measure", "--sim");
    TestRun.good("trace", file, "--board", board, "--measure", "--sim");
    Fault fault = hidden(file);
    assertFalse(TestRun.good("practice", file).out().contains("it is:"));
    TestRun.good("log", file, "--board", board, "found " + FaultWords.words(fault));
    JsonNode over = TestRun.good("practice", file, "--json").json();
    assertTrue(over.path("over").asBoolean());
    assertTrue(over.path("right").asBoolean());
    assertEquals(over.path("measurements").size(), 2);
    double bits = 0;
    for (JsonNode m : over.path("measurements")) {
      assertTrue(m.path("minutes").asDouble() > 0);
      assertTrue(m.has("bits") && m.has("left"));
      bits += m.path("bits").asDouble();
    }
    // what was known more adds up: from what was not known at first to what is left
    double left = over.path("measurements").get(1).path("left").asDouble();
    assertEquals(bits + left, over.path("best").path("entropy").asDouble(), 0.3);
    assertTrue(over.path("best").path("right").asBoolean());
    assertTrue(over.path("best").path("bound").asDouble() > 0);
    assertTrue(
        over.path("best").path("bound").asDouble()
            <= over.path("best").path("measurements").size() + 1e-9);
    // it counts once, in a file of the person's own
    TestRun.good("practice", file);
    JsonNode course = TestRun.good("practice", "--json").json();
    assertEquals(course.path("course").get(1).path("runs").asInt(), 1);
    assertEquals(course.path("course").get(1).path("right").asInt(), 1);
    assertEquals(course.path("runs").size(), 1);
  }

  @Test
  public void theSameSeedHidesTheSameFault() throws Exception {
    String a = folder.resolve("seed-a.ell").toString();
    String b = folder.resolve("seed-b.ell").toString();
    TestRun.good("practice", a, "--level", "4", "--seed", "5");
    TestRun.good("practice", b, "--level", "4", "--seed", "5");
    assertEquals(hidden(a), hidden(b));
    assertTrue(hidden(a) instanceof Fault.Sometimes, hidden(a).toString());
    JsonNode over = TestRun.good("practice", a, "--give-up", "--json").json();
    assertTrue(over.path("givenUp").asBoolean());
    assertFalse(over.path("right").asBoolean());
    assertEquals(over.path("faults").get(0).asString(), FaultWords.words(hidden(a)));
  }

  @DataProvider
  public Object[][] odd() {
    return new Object[][] {{"shield", 2}, {"cell", 3}, {"panel", 2}};
  }

  /// Boards that nobody here drew for practice: a fault is hidden, or it is said why none can be.
  @Test(dataProvider = "odd")
  public void boardsUnlikeTheDemo(String which, int level) throws Exception {
    String ws = folder.resolve(which + ".ell").toString();
    Path f = ODD.resolve(which);
    TestRun.good("new", ws);
    TestRun.good(
        "import",
        ws,
        "--design",
        "X",
        "--revision",
        "1",
        "--bom",
        f.resolve("bom.csv").toString(),
        "--placement",
        f.resolve("placement.csv").toString(),
        "--netlist",
        f.resolve("netlist.ipc").toString());
    String file = folder.resolve(which + "-practice.ell").toString();
    MainTest.Ran r =
        MainTest.ell("practice", file, "--on", ws, "--level", String.valueOf(level), "--seed", "3");
    if (r.code() == 2) {
      assertTrue(r.err().contains("take another level"), r.err());
      assertFalse(Files.exists(Path.of(file)), "nothing half done is left");
      return;
    }
    assertEquals(r.code(), 0, r.err());
    JsonNode over = TestRun.good("practice", file, "--give-up", "--json").json();
    Fault hidden = hidden(file);
    assertEquals(over.path("faults").get(0).asString(), FaultWords.words(hidden));
    try (Workshop w = Workshop.look(Place.of(file))) {
      String found = over.path("best").path("found").asString();
      assertTrue(new SameFault(w.revision("X", "1")).same(FaultWords.parse(found), hidden), found);
      // the real workspace knows nothing of it
    }
    assertTrue(TestRun.good("show", ws, "--json").json().path("builds").isEmpty());
  }

  @Test
  public void aCaseIsHandedOn() throws Exception {
    String demo = folder.resolve("demo.ell").toString();
    TestRun.good("demo-workspace", demo);
    String handed = folder.resolve("case.json").toString();
    TestRun.good(
        "practice",
        "--on",
        demo,
        "--design",
        "MG-1",
        "--revision",
        "B",
        "--write-case",
        handed,
        "--fault",
        "open FB1.2",
        "--title",
        "the quiet sensor",
        "--words",
        "It was fine yesterday",
        "--lesson",
        "A bead is a joint too.");
    TestRun.bad(
        "--force", "practice", "--on", demo, "--write-case", handed, "--fault", "open FB1.2");
    // nothing else is needed than the file
    System.setProperty("ell.demo", folder.resolve("nowhere").toString());
    try {
      String file = folder.resolve("case.ell").toString();
      JsonNode begun = TestRun.good("practice", file, "--case", handed, "--json").json();
      assertEquals(begun.path("title").asString(), "the quiet sensor");
      String words = begun.path("words").asString();
      assertTrue(words.startsWith("It was fine yesterday. "), "ended as a sentence: " + words);
      assertEquals(hidden(file), FaultWords.parse("open FB1.2"));
      String board = begun.path("board").asString();
      TestRun.good("log", file, "--board", board, "found open U1.1");
      JsonNode over = TestRun.good("practice", file, "--json").json();
      assertTrue(over.path("over").asBoolean());
      assertFalse(over.path("right").asBoolean(), "that is not it");
    } finally {
      System.setProperty("ell.demo", "../demo");
    }
  }

  @Test
  public void badInput() throws Exception {
    String file = folder.resolve("bad.ell").toString();
    TestRun.bad("a level is from 1 to 5", "practice", file, "--level", "9");
    TestRun.bad("there is no practice", "practice", file, "--give-up");
    TestRun.bad("no such file", "practice", file, "--case", folder.resolve("no.json").toString());
    Path wrong =
        Files.writeString(
            folder.resolve("wrong.json"), "{\"case\": 1,\n \"faults\": [\"broken\"]}");
    TestRun.bad("expected such as open", "practice", file, "--case", wrong.toString());
    Files.writeString(wrong, "{\n nonsense");
    TestRun.bad("wrong.json:2", "practice", file, "--case", wrong.toString());
    Files.writeString(
        wrong, "{\"case\":1,\"design\":\"MG-1\",\"revision\":\"B\",\"faults\":[\"open U99.1\"]}");
    TestRun.bad("U99", "practice", file, "--case", wrong.toString());
    TestRun.bad("go together", "practice", file, "--design", "MG-1");
    assertFalse(Files.exists(Path.of(file)));
    String real = folder.resolve("real.ell").toString();
    TestRun.good("new", real);
    TestRun.bad("is a real workspace", "practice", real);
    Set<String> left = new TreeSet<>();
    try (var all = Files.list(folder)) {
      all.map(p -> p.getFileName().toString()).filter(n -> n.startsWith("bad")).forEach(left::add);
    }
    assertEquals(left, Set.of());
  }
}
