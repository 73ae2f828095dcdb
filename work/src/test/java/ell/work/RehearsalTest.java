package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.link.LineLink;
import ell.bench.link.TcpLink;
import ell.core.power.PowerPlan;
import ell.core.power.PowerStep;
import ell.work.bench.SimulatedBench;
import ell.work.power.Rehearsal;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/// What a rehearsal prints is what a supply would be sent: in the safe order, read back, and
/// understood by a supply that knows nothing of it.
public class RehearsalTest {
  private Workshop w;
  private PowerPlan plan;
  private List<Rehearsal.Part> parts;

  @BeforeClass
  public void rehearse() throws Exception {
    w = Demo.workspace(true);
    var p = w.plan(w.buildOf("07"));
    plan = PowerPlan.of(p.revision(), p.ladder(), "boot").orElseThrow();
    parts = Rehearsal.of(plan);
  }

  @AfterClass(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  @Test
  public void theOrderIsSafe() {
    assertEquals(parts.size(), plan.steps().size() + 2);
    List<Integer> outputs = plan.steps().stream().map(PowerStep::output).distinct().toList();
    assertEquals(
        parts.getFirst().lines().stream().filter("OUTP OFF"::equals).count(),
        2 * outputs.size(),
        "every output, told and asked, before anything is set");
    List<String> all = parts.stream().flatMap(x -> x.lines().stream()).toList();
    assertEquals(all.stream().filter("OUTP ON"::equals).count(), outputs.size());
    assertTrue(all.indexOf("CURR?") < all.indexOf("OUTP ON"), "settings are read back first");
    assertTrue(all.indexOf("VOLT?") < all.indexOf("OUTP ON"));
    for (int i = 0; i < plan.steps().size(); i++) {
      List<String> lines = parts.get(i + 1).lines();
      assertEquals(parts.get(i + 1).step().orElseThrow(), plan.steps().get(i));
      List<String> set = lines.stream().filter(l -> l.matches("(CURR|VOLT) .*")).toList();
      assertTrue(set.getFirst().startsWith("CURR "), "the limit before the volts");
      String volts = lines.stream().filter(l -> l.startsWith("VOLT ")).findFirst().orElseThrow();
      assertEquals(
          Double.parseDouble(volts.substring(5)), plan.steps().get(i).volts(), 1e-4, volts);
    }
    assertTrue(parts.getLast().lines().contains("OUTP OFF"));
    assertFalse(all.subList(all.lastIndexOf("OUTP OFF"), all.size()).contains("OUTP ON"));
  }

  /// Each line to a supply of its own: every query is answered, and its error queue stays empty.
  @Test
  public void everyLineIsUnderstood() throws Exception {
    try (SimulatedBench sim = SimulatedBench.start(w, 1);
        LineLink link =
            TcpLink.connect("127.0.0.1", sim.servers().instrument("supply").port(), 2000)) {
      sim.servers().layDown("07");
      for (Rehearsal.Part p : parts) {
        for (String line : p.lines()) {
          if (line.endsWith("?")) {
            String answer = link.ask(line);
            assertFalse(answer.isBlank(), line);
            assertTrue(!line.equals("SYST:ERR?") || answer.startsWith("0,"), answer);
          } else {
            link.send(line);
          }
        }
      }
      assertFalse(sim.servers().outputOn());
    }
  }
}
