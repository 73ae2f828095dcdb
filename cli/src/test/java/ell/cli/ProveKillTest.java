package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.sim.Mischief;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import java.io.BufferedReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// A proof in a program of its own, which is killed at every step: the output goes off, nothing is
/// lost or doubled, and the same command goes on where it was.
public final class ProveKillTest {
  private static final String PLAN =
      """
      plan killed
      ohms 3V3 GND 100ohm..
      power
      volts 5V0 needs=power
      loop 2
      volts 3V3 needs=power
      end
      set VIN_RAW 11V
      volts 3V3A needs=power
      wait 0.2s
      off
      """;

  private static final int TURNS = 9;

  @BeforeClass
  public void demo() {
    System.setProperty("ell.demo", "../fixtures/marram");
  }

  private static List<String> prove(Path ws, Path plan, Map<String, String> at) {
    List<String> args =
        new ArrayList<>(
            List.of("prove", ws.toString(), "--board", "07", "--go", "--plan", plan.toString()));
    for (String kind : List.of("supply", "meter", "hands")) {
      args.add("--" + kind);
      args.add(at.get(kind));
    }
    return args;
  }

  private static Process started(List<String> args) throws Exception {
    List<String> command =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "--enable-native-access=ALL-UNNAMED",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                Main.class.getName()));
    command.addAll(args);
    return new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
  }

  @DataProvider
  Object[][] steps() {
    Object[][] all = new Object[TURNS][];
    for (int i = 0; i < TURNS; i++) {
      all[i] = new Object[] {i + 1};
    }
    return all;
  }

  @Test(dataProvider = "steps", timeOut = 180_000)
  public void killedAtAStepItGoesOnThere(int at) throws Exception {
    Path folder = Files.createTempDirectory("proof");
    Path ws = folder.resolve("ws.ell");
    Path plan = Files.writeString(folder.resolve("plan.txt"), PLAN);
    assertEquals(MainTest.ell("demo-workspace", ws.toString()).code(), 0);
    SimulatedBench sim;
    try (Workshop w = Workshop.look(ws)) {
      sim = SimulatedBench.start(w, 3);
    }
    try {
      // it has no watchdog of its own: what switches off is Ell's
      sim.servers().instrument("supply").mischief(Mischief.CARELESS);
      List<String> args = prove(ws, plan, sim.bench().addresses());
      Process p = started(args);
      BufferedReader out = p.inputReader();
      String begins = at + "/" + TURNS + "  ";
      String l = out.readLine();
      while (l != null && !l.startsWith(begins)) {
        l = out.readLine();
      }
      assertTrue(l != null, "step " + at + " began");
      p.destroyForcibly().waitFor();
      long from = System.nanoTime();
      while (sim.servers().outputOn() && System.nanoTime() - from < 20_000_000_000L) {
        Thread.sleep(5);
      }
      assertTrue(System.nanoTime() - from < 2_000_000_000L, "off at once");
      assertEquals(MainTest.ell("verify", ws.toString()).code(), 0);
      long made = steps(ws).size();
      assertTrue(made >= at - 1 && made <= at, made + " steps in the book, killed at " + at);

      args.add("--json");
      MainTest.Ran again = MainTest.ell(args.toArray(String[]::new));
      JsonNode o = again.json();
      assertEquals(o.get("verdict").stringValue(), "within", again.out() + again.err());
      assertEquals(o.get("steps").size(), TURNS);
      Set<String> once = new HashSet<>();
      o.get("steps")
          .forEach(s ->
              once.add(
                  s.get("number").intValue()
                      + "."
                      + (s.has("round") ? s.get("round").intValue() : 1)));
      assertEquals(once.size(), TURNS, "none twice");
      assertFalse(sim.servers().outputOn());
      assertEquals(MainTest.ell("verify", ws.toString()).code(), 0);
      JsonNode show = MainTest.ell("show", ws.toString(), "--board", "07", "--json").json();
      assertFalse(show.has("mayBeOn"), show.toString());
    } finally {
      sim.close();
    }
  }

  private static List<String> steps(Path ws) throws Exception {
    Path csv = ws.resolveSibling("steps.csv");
    assertEquals(
        MainTest.ell("report", ws.toString(), "--board", "07", "--out", csv.toString(), "--force")
            .code(),
        0);
    List<String> all = Files.readAllLines(csv);
    return all.subList(1, all.size());
  }
}
