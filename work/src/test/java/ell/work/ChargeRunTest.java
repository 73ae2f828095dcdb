package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Supply;
import ell.core.entry.Entry;
import ell.core.power.ChargeWatch.Phase;
import ell.core.power.ChargedCell;
import ell.core.rack.Plan;
import ell.work.bench.SimulatedBench;
import ell.work.power.ChargeRun;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// A small cell is charged by the simulated supply and watched with the simulated meter: a tenth of
/// a coulomb is full in seconds.
public final class ChargeRunTest {
  private static final String BOARD = "07";

  private Workshop w;
  private SimulatedBench sim;
  private Plan plan;
  private Supply supply;
  private ChargedCell cell;

  @BeforeMethod
  public void open() throws Exception {
    w = Demo.workspace(true);
    String small = "cell,empty=3,full=4.2,charge=0.1C,share=0.3,ohms=0.5,amps=50mA";
    w.ladders().say("MG-1", "B", List.of("part BT1=" + small));
    plan = w.plan(w.buildOf(BOARD));
    sim = SimulatedBench.start(w, 3);
    try (Hands hands = sim.bench().need(Hands.KIND)) {
      hands.lay(BOARD);
    }
    cell = ChargedCell.of(plan.revision(), plan.ladder(), "BT1", Map.of());
    int output =
        plan.ladder().sources().stream()
            .filter(s -> cell.places().contains(s.rail()))
            .mapToInt(plan.ladder()::channel)
            .findFirst()
            .orElseThrow();
    supply = sim.bench().need(Supply.KIND);
    supply.outputs(List.of(1, output));
    supply.select(output);
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws Exception {
    supply.close();
    sim.close();
    w.close();
  }

  private ChargeRun run() throws Exception {
    return new ChargeRun(w.acts(), plan, BOARD, sim.bench(), cell, false);
  }

  @Test(timeOut = 60_000)
  public void itIsWatchedUntilItIsFull() throws Exception {
    supply.set(4.2, 0.05);
    supply.output(true);
    List<Phase> phases = new ArrayList<>();
    try (ChargeRun run = run()) {
      for (int i = 0; i < 200 && !phases.contains(Phase.END); i++) {
        // the client that selected the output says what flows out of it
        double amps = Math.max(0, supply.amps());
        w.type(BOARD, "BT1 " + amps * 1e3 + "mA").orThrow();
        ChargeRun.Look look = run.look();
        assertEquals(look.watch().stop(), List.of());
        if (phases.isEmpty() || phases.getLast() != look.watch().phase()) {
          phases.add(look.watch().phase());
        }
        Thread.sleep(50);
      }
    }
    assertEquals(phases, List.of(Phase.STEADY, Phase.FALLING, Phase.END));
    assertTrue(w.state(BOARD).findings().isEmpty(), w.state(BOARD).findings().toString());
  }

  @Test(timeOut = 60_000)
  public void tooManyVoltsSwitchTheSupplyOff() throws Exception {
    supply.set(4.6, 0.05);
    supply.output(true);
    try (ChargeRun run = run()) {
      ChargeRun.Look look = run.look();
      for (int i = 0; i < 200 && look.watch().stop().isEmpty(); i++) {
        Thread.sleep(50);
        supply.amps(); // a supply to which nobody speaks switches itself off
        look = run.look();
      }
      assertTrue(look.watch().stop().getFirst().contains("bears 4.20 V"), look.toString());
      Entry.Supply off = (Entry.Supply) run.stop(look.watch().stop().getFirst()).entry();
      assertFalse(off.mayBeOn(), off.why());
    }
    assertFalse(sim.servers().outputOn());
    assertTrue(
        w.state(BOARD).findings().stream().anyMatch(f -> f.what().contains("bears 4.20 V")),
        "it is a finding");
  }
}
