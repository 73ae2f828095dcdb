package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.dialect.Dialect;
import ell.core.power.FaultWords;
import ell.core.trace.Probe;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import ell.work.trace.TraceRun;
import ell.work.trace.Traces;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// The search for a fault through the command line: on the demo, on boards that are not like it, to
/// the finding with the simulated bench, and with bad input.
public final class TraceTest {
  private Path folder;
  private Path demo;

  private static MainTest.Ran ran(int code, String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), code, String.join(" ", args) + "\n" + r.err() + r.out());
    return r;
  }

  private static MainTest.Ran good(String... args) {
    return ran(0, args);
  }

  private static void bad(String says, String... args) {
    MainTest.Ran r = ran(2, args);
    assertTrue(r.err().contains(says), String.join(" ", args) + "\n" + r.err());
  }

  @BeforeClass
  public void workspace() throws Exception {
    folder = Files.createTempDirectory("trace");
    demo = folder.resolve("demo.ell");
    try (Workshop w = ell.work.demo.DemoWorkspace.make(demo, Path.of("../demo"), true)) {
      assertFalse(w.book().builds().isEmpty());
    }
  }

  private String copy(String name) throws Exception {
    Path to = folder.resolve(name);
    Files.copy(demo, to);
    return to.toString();
  }

  private static JsonNode trace(String ws, String board, String... more) {
    List<String> args = new ArrayList<>(List.of("trace", ws, "--board", board, "--json"));
    args.addAll(List.of(more));
    return good(args.toArray(String[]::new)).json();
  }

  private static double chance(JsonNode o, String fault) {
    double sum = 0;
    for (JsonNode s : o.get("suspects")) {
      sum += s.get("fault").stringValue().equals(fault) ? s.get("probability").doubleValue() : 0;
    }
    return sum;
  }

  @Test
  public void theShape() throws Exception {
    JsonNode o = trace(copy("shape.ell"), "04");
    assertEquals(o.get("board").stringValue(), "04");
    assertTrue(o.get("entropy").doubleValue() > 0);
    assertTrue(o.get("explained").doubleValue() > 0.02);
    double design = o.get("designChance").doubleValue();
    assertTrue(design >= 0 && design <= 1);
    double sum = 0;
    double last = 1;
    List<String> names = new ArrayList<>();
    for (JsonNode s : o.get("suspects")) {
      double p = s.get("probability").doubleValue();
      assertTrue(p <= last + 1e-12, "sorted");
      last = p;
      sum += p;
      names.add(s.get("fault").stringValue());
      assertTrue(s.get("why").isArray());
    }
    assertEquals(sum, 1, 1e-6);
    assertTrue(names.containsAll(List.of("healthy", "other", "dead U2", "open U4.7")));
    assertTrue(names.size() > 500, names.size() + " suspects");
    JsonNode next = o.get("next").get(0);
    for (String key : List.of("line", "kind", "minutes", "information", "perMinute", "why")) {
      assertTrue(next.has(key), key);
    }
    assertEquals(
        next.get("perMinute").doubleValue(),
        next.get("information").doubleValue() / next.get("minutes").doubleValue(),
        1e-9);
    for (JsonNode n : o.get("next")) {
      double all = 0;
      for (JsonNode x : n.get("outcomes")) {
        all += x.get("probability").doubleValue();
        assertTrue(x.has("words") || x.has("low") || x.has("high"), x.toString());
      }
      assertEquals(all, 1, 0.03);
      assertEquals(n.has("supply"), n.get("power").booleanValue(), n.toString());
      assertTrue(n.get("line").stringValue().contains("?"));
    }
    // the bridge that the beeper found
    assertTrue(o.get("groups").get(0).get("words").stringValue().contains("3V3 and GND"));
  }

  @Test
  public void allThatWasWeighed() throws Exception {
    String ws = copy("all.ell");
    int few = trace(ws, "04").get("next").size();
    int all = trace(ws, "04", "--all").get("next").size();
    assertTrue(all > 100 && few < 20, few + " of " + all);
    assertTrue(good("trace", ws, "--board", "04").out().contains("bit not known"));
  }

  /// What a tape line says is a clue, and a struck one is none.
  @Test
  public void symptomsAreTypedAndStruck() throws Exception {
    String ws = copy("typed.ell");
    JsonNode before = trace(ws, "06");
    assertTrue(chance(before, "healthy") > 0.5);
    good("log", ws, "--board", "06", "3V3A 0.02");
    JsonNode dark = trace(ws, "06");
    // one reading may be a slip of the tip
    assertTrue(chance(dark, "healthy") < 0.1, "" + chance(dark, "healthy"));
    assertTrue(
        chance(dark, "open FB1.2") + chance(dark, "dead FB1") > 20 * chance(before, "dead FB1"));
    for (String line :
        List.of(
            "LED2 dark",
            "U3 hot",
            "U3 touch warm",
            "fine while U4 is pressed",
            "U4 cooled same",
            "comes and goes 3 of 10",
            "U1 swapped, same",
            "U4.7 look good",
            "U4.7 look open",
            "talks silent",
            "found open U3.4")) {
      good("log", ws, "--board", "07", line);
    }
    dark = trace(ws, "06"); // what was found on another board counts here too
    JsonNode log = good("log", ws, "--board", "06", "LED3 lamp lit", "--json").json();
    long number = log.get("entry").get("number").longValue();
    double lit = trace(ws, "06").get("entropy").doubleValue();
    good("log", ws, "--board", "06", "strike " + number);
    JsonNode struck = trace(ws, "06");
    assertEquals(struck.get("entropy").doubleValue(), dark.get("entropy").doubleValue(), 1e-9);
    assertTrue(lit != struck.get("entropy").doubleValue());
    for (String wrong :
        List.of(
            "comes and goes 11 of 10",
            "fine while U99 is pressed",
            "found open U99.1",
            "found nonsense",
            "LED2 lamp blue",
            "talks rubbish")) {
      ran(2, "log", ws, "--board", "06", wrong);
    }
  }

  @Test
  public void aFindingGoesIntoTheBookAndOutAgain() throws Exception {
    String ws = copy("find.ell");
    bad("nothing is likely enough yet", "trace", ws, "--board", "06", "--find");
    bad("no joint 'U99.1'", "trace", ws, "--board", "06", "--find", "open U99.1");
    JsonNode sister = trace(ws, "07");
    double before = chance(sister, "loose U4.7");
    good("trace", ws, "--board", "06", "--find", "loose U4.7");
    JsonNode shown = good("show", ws, "--board", "06", "--json").json();
    assertTrue(shown.get("openFindings").toString().contains("loose U4.7"), shown.toString());
    assertTrue(
        chance(trace(ws, "07"), "loose U4.7") > 20 * before, "it may be the design's mistake");
    assertTrue(
        good("show", ws, "--board", "06").out().contains("loose U4.7"), "the finding is open");
    long number = 0;
    for (JsonNode f : shown.get("openFindings")) {
      number = Math.max(number, f.get("entry") == null ? 0 : f.get("entry").longValue());
    }
    try (Workshop w = Workshop.look(Path.of(ws))) {
      number = w.entries("06").getLast().number();
    }
    good("log", ws, "--board", "06", "strike " + number);
    assertEquals(chance(trace(ws, "07"), "loose U4.7"), before, 1e-9, "all of it is taken back");
    assertTrue(ran(0, "verify", ws, "--json").json().get("ok").booleanValue());
  }

  @Test
  public void chancesBeforehandAreShownAndSet() throws Exception {
    String ws = copy("prior.ell");
    JsonNode p = good("trace", ws, "--board", "06", "--prior", "open FB1.2", "--json").json();
    double product = 1;
    for (JsonNode f : p.get("factors")) {
      product *= (f.has("rate") ? f.get("rate") : f.get("times")).doubleValue();
    }
    assertEquals(p.get("prior").doubleValue(), product, 1e-12);
    assertTrue(
        good("trace", ws, "--board", "06", "--prior", "open FB1.2").out().contains("first guess")
            || product > 0);
    double before = chance(trace(ws, "06"), "open FB1.2");
    good("trace", ws, "--board", "06", "--prior", "open FB1.2=0.3");
    assertTrue(chance(trace(ws, "06"), "open FB1.2") > 50 * before);
    good("trace", ws, "--board", "06", "--prior", "open FB1.2=");
    assertEquals(chance(trace(ws, "06"), "open FB1.2"), before, 1e-9);
    bad("above 0 and below 1", "trace", ws, "--board", "06", "--prior", "open FB1.2=1");
    bad("none of the faults", "trace", ws, "--board", "06", "--prior", "value R1 123456=0.1");
    bad("is no fault that is known", "trace", ws, "--board", "06", "--prior", "nonsense");
    bad("expected FAULT=CHANCE", "trace", ws, "--board", "06", "--prior", "open FB1.2=x");
  }

  @Test
  public void badInputIsSaid() throws Exception {
    String ws = copy("bad.ell");
    bad("there is no board 'zz'", "trace", ws, "--board", "zz");
    bad("counted from 1", "trace", ws, "--board", "06", "--sim", "--measure", "9999");
    ran(2, "trace", ws);
    ran(2, "trace", folder.resolve("none.ell").toString(), "--board", "06");
  }

  /// A board whose checks before power are not made is traced on without power.
  @Test
  public void withoutLeaveForPowerWhatNeedsNoneIsMade() throws Exception {
    String ws = copy("barred.ell");
    good("log", ws, "--board", "09", "LED2 dark");
    for (int i = 0; i < 3; i++) {
      String out = good("trace", ws, "--board", "09", "--sim", "--measure").out();
      assertTrue(out.startsWith("entry "), out);
    }
    try (Workshop w = Workshop.open(Path.of(ws), java.time.Clock.systemUTC())) {
      var log = w.entries("09");
      assertTrue(
          log.subList(log.size() - 3, log.size()).stream()
              .allMatch(l -> l.entry() instanceof ell.core.entry.Entry.Check),
          log.toString());
      assertTrue(
          log.stream().noneMatch(l -> l.entry() instanceof ell.core.entry.Entry.Supply),
          "never powered");
    }
    String told = good("trace", ws, "--board", "09", "--all").out();
    assertTrue(told.contains("what power waits for comes first"), told);
  }

  @DataProvider
  Object[][] faults() {
    return new Object[][] {
      // fault, symptom
      {"open FB1.2", "3V3A 0.0"},
      {"dead U2", "3V3 0.0"},
      {"bridge U4.6 U4.7 0.5ohm", "3V3 GND 0.6"},
      {"missing L1", "5V0 0.0"},
      {"open L1.2", "5V0 0.0"},
    };
  }

  /// From a symptom to the finding with the simulated bench: what instruments can show they are
  /// asked, what is looked at is answered as it is.
  @Test(dataProvider = "faults")
  public void toTheFinding(String fault, String symptom) throws Exception {
    String ws = copy(fault.replace(' ', '-') + ".ell");
    good("log", ws, "--board", "06", symptom);
    try (Workshop w = Workshop.open(Path.of(ws), java.time.Clock.systemUTC());
        SimulatedBench sim =
            SimulatedBench.start(
                w, 3, Map.of(), 20, Map.of("06", List.of(FaultWords.parse(fault))))) {
      JsonNode o = null;
      for (int i = 0; i < 14; i++) {
        var t = w.traces().of("06", 60);
        if (t.finding().isPresent()) {
          // what the book had as open before is now joined: it comes and goes
          String found = t.finding().get().suspect().words().replaceFirst("^sometimes \\S+ ", "");
          assertTrue(same(found, fault), found + " in place of " + fault);
          assertTrue(t.finding().get().chance() > 0.5, found);
          assertFalse(t.finding().get().todo().isEmpty());
          return;
        }
        var next = t.next().getFirst().probe();
        if (TraceRun.can(next)) {
          new TraceRun(w.acts(), w.plan(w.buildOf("06")), "06", sim.bench())
              .measure(next, t.next().stream().map(c -> c.probe()).toList());
        } else {
          w.type("06", next.line(seen(next, fault))).orThrow();
        }
      }
      throw new AssertionError(fault + " was not found: " + o);
    }
  }

  /// What a look, a finger and a lamp show of a board with a fault.
  private static String seen(ell.core.trace.Probe p, String fault) {
    String[] words = fault.split(" ");
    boolean here = words.length > 1 && (words[1].equals(p.a()) || words[1].startsWith(p.a() + "."));
    return switch (p.kind()) {
      case LOOK ->
          here && List.of("missing", "open", "bridge").contains(words[0])
                  || words[0].equals("bridge") && fault.contains(" " + p.a() + " ")
              ? words[0]
              : "good";
      case LIT -> lit(p.a(), fault) ? "lit" : "dark";
      case TOUCH -> "cool";
      case SWAP -> here ? "fine" : "same";
      case PRESS -> "same";
      case TALK -> fault.contains("FB1") ? "fine" : "silent";
      default -> throw new AssertionError(p.toString());
    };
  }

  /// LED1 hangs on the input, LED2 on 5V0, LED3 on 3V3, as far as they are lamps of rails.
  private static boolean lit(String lamp, String fault) {
    return !fault.contains("L1") && !(fault.contains("U2") || fault.contains("GND"))
        || lamp.equals("LED1") && !fault.contains("L1");
  }

  private static boolean same(String found, String fault) {
    if (found.equals(fault)) {
      return true;
    }
    String[] f = found.split(" ");
    String[] t = fault.split(" ");
    return switch (t[0]) {
      case "bridge" -> f[0].equals("bridge");
      case "value" -> f[0].equals("value") && f[1].equals(t[1]);
      case "dead", "missing" -> f[1].equals(t[1]);
      default -> false;
    };
  }

  @DataProvider
  Object[][] shorts() {
    return new Object[][] {{"", "3V3"}, {"cell", "3V3"}, {"panel", "5V"}, {"shield", "5V"}};
  }

  /// Of a rail with many parts the one that is shorted is found along its copper, by four wires, on
  /// boards that nobody drew for this; of the forty of the demo it is among the likeliest.
  @Test(dataProvider = "shorts")
  public void oneShortedPartOfMany(String name, String rail) throws Exception {
    boolean demo = name.isEmpty();
    String ws = demo ? copy("short.ell") : odd(name, "short-" + name);
    String board = demo ? "12" : "01";
    try (Workshop w = Workshop.open(Path.of(ws), java.time.Clock.systemUTC())) {
      String part = lastCapacitor(w.plan(w.buildOf(board)).revision(), rail);
      w.type(board, rail + " GND 0.3").orThrow();
      try (SimulatedBench sim =
          SimulatedBench.start(
              w, 3, Map.of(), 20, Map.of(board, List.of(FaultWords.parse("short " + part))))) {
        boolean along = false;
        StringBuilder steps = new StringBuilder();
        for (int i = 0; i < (demo ? 6 : 16); i++) {
          var t = w.traces().of(board, 60);
          if (t.finding().isPresent()) {
            assertEquals(t.finding().get().suspect().words(), "short " + part, steps.toString());
            assertTrue(along, "nobody read along " + rail + "\n" + steps);
            return;
          }
          var next = t.next().getFirst().probe();
          steps.append(next.line()).append(' ').append(next.places()).append('\n');
          if (TraceRun.can(next)) {
            along |= next.places().size() > 1;
            new TraceRun(w.acts(), w.plan(w.buildOf(board)), board, sim.bench())
                .measure(next, List.of());
          } else {
            w.type(board, next.line(answer(next, part))).orThrow();
          }
        }
        assertTrue(demo && along, part + " was not found:\n" + steps);
        var last = w.traces().of(board, 1);
        List<String> likeliest =
            last.suspects().stream()
                .map(x -> x.fault())
                .filter(f -> f.startsWith("short "))
                .limit(3)
                .toList();
        assertTrue(likeliest.contains("short " + part), likeliest + "\n" + steps);
      }
    }
  }

  private static String lastCapacitor(ell.core.board.Revision r, String rail) {
    return r.net(rail).stream()
        .map(j -> j.part())
        .filter(p -> p.matches("C\\d+"))
        .filter(p -> r.jointsOf(p).stream().anyMatch(j -> j.net().equals("GND")))
        .reduce((_, later) -> later)
        .orElseThrow();
  }

  /// What is seen of a board on which a part is shorted.
  private static String answer(ell.core.trace.Probe p, String shorted) {
    return switch (p.kind()) {
      case SWAP -> p.a().equals(shorted) ? "fine" : "same";
      case LOOK -> "good";
      case LIT -> "dark";
      default -> throw new AssertionError(p.line());
    };
  }

  /// Where a maker holds the tips, one joint is read at a time, and an open loop is none; what is
  /// proposed names the joints, and a reading that is typed is taken in.
  @Test
  public void alongANetByHand() throws Exception {
    String ws = copy("along.ell");
    good("log", ws, "--board", "12", "3V3 GND 0.3");
    JsonNode along = null;
    JsonNode all = trace(ws, "12", "--all").get("next");
    int number = 0;
    for (int i = 0; i < all.size() && along == null; i++) {
      if (all.get(i).has("places")) {
        along = all.get(i);
        number = i + 1;
      }
    }
    assertTrue(along != null, "nothing to be read along");
    assertEquals(along.get("kind").stringValue(), "ohms");
    String first = along.get("places").get(0).stringValue();
    assertEquals(along.get("a").stringValue(), first);
    assertEquals(along.get("b").stringValue(), "GND");
    assertEquals(along.get("line").stringValue(), first + " ? ohm");
    assertFalse(along.get("power").booleanValue());
    assertTrue(along.get("why").stringValue().contains("by four wires from " + first));
    good("log", ws, "--board", "12", along.get("line").stringValue().replace("? ohm", "24mohm"));
    JsonNode after = trace(ws, "12", "--all").get("next");
    for (JsonNode n : after) {
      if (n.has("places")) {
        assertFalse(n.get("places").toString().contains("\"" + first + "\""), n.toString());
      }
    }
    assertTrue(number > 0);
  }

  /// A meter that has no line for four wires is not asked for them: another measurement is the
  /// first.
  @Test
  public void alongANetWithoutFourWires() throws Exception {
    String ws = copy("two-wires.ell");
    try (Workshop w = Workshop.open(Path.of(ws), java.time.Clock.systemUTC());
        SimulatedBench sim = SimulatedBench.start(w, 3, Map.of(), 20, Map.of())) {
      w.type("12", "3V3 GND 0.3").orThrow();
      Dialect own =
          Dialect.read("{\"kind\":\"meter\",\"volts\":\"MEAS:VOLT:DC?\",\"ohms\":\"MEAS:RES?\"}");
      List<Probe> next =
          w.traces().of("12", Traces.ALL).next().stream().map(c -> c.probe()).toList();
      List<Probe> along = next.stream().filter(p -> p.kind() == Probe.Kind.ALONG).toList();
      Probe other =
          next.stream().filter(p -> p.kind() == Probe.Kind.OHMS).findFirst().orElseThrow();
      List<Probe> two = List.of(along.getFirst(), other);
      var plan = w.plan(w.buildOf("12"));
      assertEquals(new TraceRun(w.acts(), plan, "12", sim.bench()).first(two), 0);
      TraceRun run = new TraceRun(w.acts(), plan, "12", sim.bench().speaking(List.of(own)));
      assertEquals(run.first(two), 1);
      assertEquals(run.first(along), -1);
      assertEquals(run.measure(other, List.of()).size(), 1);
    }
  }

  @DataProvider
  Object[][] odd() {
    return new Object[][] {{"cell"}, {"panel"}, {"shield"}};
  }

  private String odd(String name, String file) throws Exception {
    String ws = folder.resolve(file + ".ell").toString();
    good("new", ws);
    List<String> args = new ArrayList<>(List.of("import", ws, "--design", name, "--revision", "1"));
    try (var all = Files.list(Path.of("../fixtures/odd/" + name))) {
      all.filter(p -> !p.toString().endsWith(".json"))
          .sorted()
          .forEach(p -> args.add(p.toString()));
    }
    good(args.toArray(String[]::new));
    good("build", ws, "--design", name, "--revision", "1", "--boards", "2");
    return ws;
  }

  /// Boards that nobody drew for this: it is said what is not known, and something is proposed.
  @Test(dataProvider = "odd")
  public void boardsThatAreNotTheDemo(String name) throws Exception {
    String ws = odd(name, name);
    JsonNode o = trace(ws, "01");
    assertTrue(o.get("suspects").size() > 50);
    assertTrue(o.get("next").size() > 0);
    assertTrue(o.get("told").toString().contains("nothing was measured yet"));
    String net = name.equals("panel") ? "5V" : name.equals("cell") ? "3V3" : "5V";
    good("log", ws, "--board", "01", net + " GND 0.4");
    JsonNode shorted = trace(ws, "01");
    assertTrue(chance(shorted, "healthy") < 0.2, name + " " + chance(shorted, "healthy"));
    String top = shorted.get("groups").get(0).get("words").stringValue();
    assertTrue(
        top.contains("bridge") || top.contains("short") || top.contains("jack"), name + " " + top);
    assertFalse(shorted.get("next").get(0).get("power").booleanValue(), "no power on a short");
  }

  /// A rail that is dark in a jig may be the jig's own doing: its check says so, a tip settles it.
  @Test
  public void aJigHasFaultsOfItsOwn() throws Exception {
    String ws = copy("jig.ell");
    good("log", ws, "--board", "07", "3V3A 0.01 in jig J1");
    JsonNode before = trace(ws, "07");
    double unsaid = chance(before, "setting jig 3V3A");
    assertTrue(unsaid > 0, "the probe may not touch");
    good("log", ws, "--board", "07", "jig J1 check open 3V3A");
    double checked = chance(trace(ws, "07"), "setting jig 3V3A");
    assertTrue(checked > 0.5 && checked > 2 * unsaid, unsaid + " became " + checked);
    good("log", ws, "--board", "07", "3V3A 3.29");
    JsonNode after = trace(ws, "07");
    assertTrue(chance(after, "setting jig 3V3A") > 0.9, after.get("suspects").get(0).toString());
    good("trace", ws, "--board", "07", "--find", "setting jig 3V3A");
    bad("no jig", "bench-sim", ws, "--board", "07", "--fault", "setting jig 3V3A");
  }
}
