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
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Semaphore;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// First power with instruments that misbehave in every way and at any moment: what may be on is
/// said to be, in the book and to the maker; what is said to be off is off.
public final class PowerMischiefTest {
  private static final int TIMEOUT = 500;

  /// Looks at the supply until it begins to misbehave.
  private static final int WHILE_ON = 19;

  /// For what is no mischief, where a busy machine must not look like one.
  private static final int PATIENT = 4000;

  /// So many at a time: most of it is waiting.
  private static final Semaphore FEW = new Semaphore(4);

  /// One board on one bench.
  private static final class One implements PowerRun.Watcher, AutoCloseable {
    final Workshop w = Demo.workspace(true);
    final SimulatedBench sim = SimulatedBench.start(w, 3);
    final int timeout;
    int samples;
    boolean onBeforeTheBook;
    String ended = "";
    boolean mayBeOn;
    private final Runnable onSample;
    private boolean logged;

    One(int timeout, Consumer<One> onSample) throws Exception {
      this.timeout = timeout;
      this.onSample = () -> onSample.accept(this);
    }

    @Override
    public void sample(double seconds, double volts, double amps, PowerStep step) {
      samples++;
      onSample.run();
    }

    @Override
    public void logged(Logged entry) {
      onBeforeTheBook |= !logged && sim.servers().outputOn();
      logged = true;
    }

    @Override
    public void ended(String why, boolean surprise, boolean unsure) {
      ended = why;
      mayBeOn = unsure;
    }

    Bench bench() {
      return new Bench("simulated bench", sim.bench().addresses(), timeout, false);
    }

    PowerRun run() throws Exception {
      return new PowerRun(w.acts(), w.plan(w.buildOf("07")), "07", bench(), this, 1);
    }

    void misbehave(Mischief m) {
      sim.servers().instrument("supply").mischief(m);
    }

    @Override
    public void close() throws IOException {
      sim.close();
      w.close();
    }
  }

  @DataProvider(parallel = true)
  Object[][] moments() {
    return Arrays.stream(Mischief.values())
        .flatMap(m -> Stream.of(new Object[] {m, 0}, new Object[] {m, WHILE_ON}))
        .toArray(Object[][]::new);
  }

  private static final Set<Mischief> HARMLESS =
      EnumSet.of(Mischief.NONE, Mischief.CARELESS, Mischief.LINE_BEFORE, Mischief.LINE_BEHIND);

  @Test(dataProvider = "moments", timeOut = 120_000)
  public void whatMayBeOnIsSaidToBe(Mischief m, int at) throws Exception {
    FEW.acquire();
    try (One one =
        new One(
            HARMLESS.contains(m) ? PATIENT : TIMEOUT,
            o -> {
              if (o.samples == at) {
                o.misbehave(m);
              }
            })) {
      whatMayBeOnIsSaidToBe(one, m, at);
    } finally {
      FEW.release();
    }
  }

  private static void whatMayBeOnIsSaidToBe(One one, Mischief m, int at) throws Exception {
    if (at == 0) {
      one.misbehave(m);
    }
    long from = System.nanoTime();
    try (PowerRun run = one.run()) {
      if (run.climb()) {
        for (int i = 0; i < 3 && run.watch(); i++) {
          Thread.sleep(5);
        }
        run.off("done");
      }
    }
    long millis = (System.nanoTime() - from) / 1_000_000;
    assertTrue(HARMLESS.contains(m) || millis < 30_000, m + " at " + at + " took " + millis);
    assertFalse(one.ended.isEmpty());
    assertFalse(one.onBeforeTheBook, "the book says it before it happens");
    if (one.sim.servers().outputOn()) {
      assertTrue(one.mayBeOn, m + " at " + at + " is on and was not said to be: " + one.ended);
    }
    assertEquals(one.ended.contains(SupplyOff.MAY_BE_ON), one.mayBeOn, one.ended);
    assertEquals(LeftOn.of(one.w.space()).size(), one.mayBeOn ? 1 : 0, m + " at " + at);
    PowerFacts facts = PowerFacts.of(one.w.state("07"));
    assertEquals(facts.mayBeOn(), one.mayBeOn);
    if (HARMLESS.contains(m)) {
      assertEquals(one.ended, "done", m + " at " + at);
    } else {
      assertFalse(one.ended.equals("done"), m + " at " + at + " passed");
    }
    if (m == Mischief.STUCK_ON || m == Mischief.FALSE_OFF) {
      assertEquals(
          one.mayBeOn, at > 0 && one.samples >= at || one.sim.servers().outputOn(), one.ended);
    }
    assertTrue(one.w.book().verify().ok());
  }

  /// A supply that did not obey, and then does: told again, it is off, and the warning is over.
  @Test(timeOut = 60_000)
  public void toldAgainItIsOff() throws Exception {
    try (One one = new One(PATIENT, _ -> {})) {
      leftOn(one);
      Workshop w = one.w;
      LeftOn left = LeftOn.of(w.space()).getFirst();
      assertEquals(left.board(), "07");
      assertTrue(left.words().startsWith("THE OUTPUT MAY BE ON: Board 07, since "), left.words());
      List<Integer> outputs = w.plan(w.buildOf("07")).ladder().outputs();
      Logged still = SupplyOff.now(w.acts(), "07", one.bench(), outputs);
      assertTrue(((Entry.Supply) still.entry()).mayBeOn(), "it still does not obey");
      assertEquals(LeftOn.of(w.space()).size(), 1);
      one.misbehave(Mischief.NONE);
      Logged off = SupplyOff.now(w.acts(), "07", one.bench(), outputs);
      assertFalse(((Entry.Supply) off.entry()).mayBeOn());
      assertFalse(one.sim.servers().outputOn());
      assertEquals(LeftOn.of(w.space()), List.of());
    }
  }

  /// Nothing answers any more: the maker pulls the plug and says so.
  @Test(timeOut = 60_000)
  public void theMakerEndsTheWarning() throws Exception {
    try (One one = new One(PATIENT, _ -> {})) {
      leftOn(one);
      one.w.type("07", "off pulled the plug").orThrow();
      assertEquals(LeftOn.of(one.w.space()), List.of());
      assertFalse(PowerFacts.of(one.w.state("07")).mayBeOn());
      assertTrue(
          one.w.state("07").findings().stream().anyMatch(f -> f.place().equals("supply")),
          "what went wrong is still a finding");
    }
  }

  private static void leftOn(One one) throws Exception {
    try (PowerRun run = one.run()) {
      assertTrue(run.climb(), one.ended);
      one.misbehave(Mischief.STUCK_ON);
      run.off("done");
    }
    assertTrue(one.mayBeOn);
    assertTrue(one.sim.servers().outputOn());
  }

  /// A supply too slow to be watched is off within the budget of a stage, not after half a minute.
  @Test(timeOut = 60_000)
  public void aSlowSupplyIsNotWatchedForLong() throws Exception {
    long[] on = {0};
    long[] off = {0};
    try (One one =
        new One(
            1000,
            o -> {
              if (on[0] == 0) {
                on[0] = System.nanoTime();
                o.misbehave(Mischief.SLOW);
                Thread.ofVirtual().start(() -> waitForOff(o, off));
              }
            })) {
      Workshop w = one.w;
      w.log("04", List.of(new Entry.Override("power", "to see the limit hold"))).orThrow();
      try (PowerRun run =
          new PowerRun(w.acts(), w.plan(w.buildOf("04")), "04", one.bench(), one, 1)) {
        assertFalse(run.climb());
      }
      assertFalse(one.sim.servers().outputOn());
    }
    double seconds = (off[0] - on[0]) / 1e9;
    assertTrue(
        seconds > 0 && seconds < 15, "the budget of a stage and one look: " + seconds + " s");
  }

  private static void waitForOff(One one, long[] at) {
    try {
      while (one.sim.servers().outputOn()) {
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
