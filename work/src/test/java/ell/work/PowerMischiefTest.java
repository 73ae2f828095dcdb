package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.Bench;
import ell.bench.sim.Mischief;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.PowerFacts;
import ell.core.power.PowerStep;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import ell.work.bench.SimulatedBench;
import ell.work.power.LeftOn;
import ell.work.power.PowerRun;
import ell.work.power.SupplyOff;
import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// First power with instruments that misbehave in every way and at any moment: what may be on is
/// said to be, in the book and to the maker; what is said to be off is off.
public final class PowerMischiefTest {
  private static final int TIMEOUT = 250;

  /// For what is no mischief, where a busy machine must not look like one.
  private static final int PATIENT = 1000;

  private int timeout = TIMEOUT;
  private Workshop w;
  private SimulatedBench sim;
  private final List<Logged> logged = new ArrayList<>();
  private int samples;
  private boolean onBeforeTheBook;
  private String ended = "";
  private boolean mayBeOn;

  @BeforeMethod
  public void open() throws Exception {
    w = Demo.workspace(true);
    sim = SimulatedBench.start(w, 3);
    logged.clear();
    samples = 0;
    onBeforeTheBook = false;
    ended = "";
    mayBeOn = false;
    timeout = TIMEOUT;
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws IOException {
    sim.close();
    w.close();
  }

  private Bench bench() {
    return new Bench("simulated bench", sim.bench().addresses(), timeout, false);
  }

  private PowerRun run(Runnable onSample) throws Exception {
    PowerRun.Watcher watcher =
        new PowerRun.Watcher() {
          @Override
          public void sample(double seconds, double volts, double amps, PowerStep step) {
            samples++;
            onSample.run();
          }

          @Override
          public void logged(Logged entry) {
            onBeforeTheBook |= logged.isEmpty() && sim.servers().outputOn();
            logged.add(entry);
          }

          @Override
          public void ended(String why, boolean surprise, boolean unsure) {
            ended = why;
            mayBeOn = unsure;
          }
        };
    return new PowerRun(w.acts(), w.plan(w.buildOf("07")), "07", bench(), watcher, 1);
  }

  private void misbehave(Mischief m) {
    sim.servers().instrument("supply").mischief(m);
  }

  @DataProvider
  Object[][] moments() {
    List<Object[]> all = new ArrayList<>();
    for (Mischief m : Mischief.values()) {
      for (int at : new int[] {0, 19}) {
        all.add(new Object[] {m, at});
      }
    }
    return all.toArray(Object[][]::new);
  }

  @Test(dataProvider = "moments", timeOut = 60_000)
  public void whatMayBeOnIsSaidToBe(Mischief m, int at) throws Exception {
    if (at == 0) {
      misbehave(m);
    }
    long from = System.nanoTime();
    try (PowerRun run =
        run(() -> {
          if (samples == at) {
            misbehave(m);
          }
        })) {
      if (run.climb()) {
        for (int i = 0; i < 3 && run.watch(); i++) {
          Thread.sleep(5);
        }
        run.off("done");
      }
    }
    long millis = (System.nanoTime() - from) / 1_000_000;
    assertTrue(millis < 20_000, m + " at " + at + " took " + millis + " ms");
    assertFalse(ended.isEmpty());
    assertFalse(onBeforeTheBook, "the book says it before it happens");
    if (sim.servers().outputOn()) {
      assertTrue(mayBeOn, m + " at " + at + " is on and was not said to be: " + ended);
    }
    assertEquals(ended.contains(SupplyOff.MAY_BE_ON), mayBeOn, ended);
    assertEquals(LeftOn.of(w.space()).size(), mayBeOn ? 1 : 0, m + " at " + at);
    PowerFacts facts = PowerFacts.of(w.state("07"));
    assertEquals(facts.mayBeOn(), mayBeOn);
    Set<Mischief> harmless =
        EnumSet.of(Mischief.NONE, Mischief.CARELESS, Mischief.LINE_BEFORE, Mischief.LINE_BEHIND);
    if (harmless.contains(m)) {
      assertEquals(ended, "done", m + " at " + at);
    } else {
      assertFalse(ended.equals("done"), m + " at " + at + " passed");
    }
    if (m == Mischief.STUCK_ON || m == Mischief.FALSE_OFF) {
      assertEquals(mayBeOn, at > 0 || sim.servers().outputOn(), ended);
    }
    assertTrue(w.book().verify().ok());
  }

  /// A supply that did not obey, and then does: told again, it is off, and the warning is over.
  @Test(timeOut = 60_000)
  public void toldAgainItIsOff() throws Exception {
    leftOn();
    LeftOn left = LeftOn.of(w.space()).getFirst();
    assertEquals(left.board(), "07");
    assertTrue(left.words().startsWith("THE OUTPUT MAY BE ON: Board 07, since "), left.words());
    Logged still =
        SupplyOff.now(w.acts(), "07", bench(), w.plan(w.buildOf("07")).ladder().outputs());
    assertTrue(((Entry.Supply) still.entry()).mayBeOn(), "it still does not obey");
    assertEquals(LeftOn.of(w.space()).size(), 1);
    misbehave(Mischief.NONE);
    Logged off = SupplyOff.now(w.acts(), "07", bench(), w.plan(w.buildOf("07")).ladder().outputs());
    assertFalse(((Entry.Supply) off.entry()).mayBeOn());
    assertFalse(sim.servers().outputOn());
    assertEquals(LeftOn.of(w.space()), List.of());
  }

  /// Nothing answers any more: the maker pulls the plug and says so.
  @Test(timeOut = 60_000)
  public void theMakerEndsTheWarning() throws Exception {
    leftOn();
    w.type("07", "off pulled the plug").orThrow();
    assertEquals(LeftOn.of(w.space()), List.of());
    assertFalse(PowerFacts.of(w.state("07")).mayBeOn());
    assertTrue(
        w.state("07").findings().stream().anyMatch(f -> f.place().equals("supply")),
        "what went wrong is still a finding");
  }

  private void leftOn() throws Exception {
    timeout = PATIENT;
    try (PowerRun run = run(() -> {})) {
      assertTrue(run.climb(), ended);
      misbehave(Mischief.STUCK_ON);
      run.off("done");
    }
    assertTrue(mayBeOn);
    assertTrue(sim.servers().outputOn());
  }

  /// A supply too slow to be watched is off within the budget of a stage, not after half a minute.
  @Test(timeOut = 60_000)
  public void aSlowSupplyIsNotWatchedForLong() throws Exception {
    Bench slow = new Bench("simulated bench", sim.bench().addresses(), 1500, false);
    w.log("04", List.of(new Entry.Override("power", "to see the limit hold"))).orThrow();
    long[] on = {0};
    long[] off = {0};
    PowerRun.Watcher watcher =
        new PowerRun.Watcher() {
          @Override
          public void sample(double seconds, double volts, double amps, PowerStep step) {
            if (on[0] == 0) {
              on[0] = System.nanoTime();
              misbehave(Mischief.SLOW);
              Thread.ofVirtual().start(() -> waitForOff(off));
            }
          }
        };
    try (PowerRun run = new PowerRun(w.acts(), w.plan(w.buildOf("04")), "04", slow, watcher, 1)) {
      assertFalse(run.climb());
    }
    assertFalse(sim.servers().outputOn());
    double seconds = (off[0] - on[0]) / 1e9;
    assertTrue(seconds > 0 && seconds < 8, "the budget of a stage and one look: " + seconds + " s");
  }

  private void waitForOff(long[] at) {
    try {
      while (sim.servers().outputOn()) {
        Thread.sleep(5);
      }
      at[0] = System.nanoTime();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /// An entry of an older Ell says nothing of being sure, and was.
  @Test
  public void olderEntriesAreSure() {
    String old =
        "{\"v\":1,\"kind\":\"supply\",\"on\":true,\"volts\":5,\"limit\":0.1,\"why\":\"x\"}";
    Entry.Supply s = (Entry.Supply) ell.core.entry.EntryJson.read(old);
    assertTrue(s.sure() && s.on());
    for (boolean sure : new boolean[] {true, false}) {
      Entry.Supply x =
          new Entry.Supply(
              false,
              sure,
              5,
              0.1,
              Optional.of(0.02),
              Optional.of(new Limits(0.01, 0.03)),
              Optional.of(Verdict.OUT),
              "why");
      assertEquals(ell.core.entry.EntryJson.read(ell.core.entry.EntryJson.write(x)), x);
    }
  }
}
