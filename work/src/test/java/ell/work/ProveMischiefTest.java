package ell.work;

import static ell.work.ProofBoards.PLAN;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.sim.Mischief;
import ell.core.entry.Entry;
import ell.core.power.PowerFacts;
import ell.core.prove.PlanReader;
import ell.core.prove.ProveFacts;
import ell.core.quantity.Verdict;
import ell.work.prove.ProofTold;
import ell.work.prove.ProveRun;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Semaphore;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Runs that are stopped, wait, or have instruments that misbehave: what may be on is said to be,
/// nothing is lost or doubled, and no board is accused of what its instrument did.
public class ProveMischiefTest {
  @DataProvider
  Object[][] moments() {
    Object[][] all = new Object[9][];
    for (int i = 0; i < all.length; i++) {
      all[i] = new Object[] {i + 1};
    }
    return all;
  }

  /// Stopped at every step in turn: the output is off, nothing is lost or doubled, and it goes on
  /// where it was.
  @Test(dataProvider = "moments", timeOut = 120_000)
  public void stoppedItGoesOnWhereItWas(int at) throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      int[] n = {0};
      one.begins =
          _ -> {
            if (++n[0] == at) {
              one.run.stop();
            }
          };
      ProveRun.Done d = one.go(PLAN);
      assertFalse(d.ended());
      assertTrue(one.off(), "off after stop at " + at);
      assertEquals(ProofTold.of(one.w.state("07")).orElseThrow().word(), "GO ON");
      int made = d.run().made().size();
      one.begins = _ -> {};
      ProveRun.Done again = one.go(PLAN);
      assertTrue(again.ended());
      assertEquals(again.run().number(), d.run().number(), "the same run");
      assertEquals(again.run().made().size(), 10);
      assertTrue(made >= at - 1 && made <= at, made + " at " + at);
      assertEquals(
          again.run().made().stream().map(s -> s.number() + "." + s.round()).distinct().count(),
          10);
      assertEquals(
          again.run().verdict().orElseThrow(), Verdict.WITHIN, again.run().made().toString());
      assertTrue(one.off());
    }
  }

  @Test(timeOut = 120_000)
  public void begunAnewTheOldOneIsEnded() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      one.begins =
          t -> {
            if (t.step().name().equals("5V0")) {
              one.run.stop();
            }
          };
      long old = one.go(PLAN).run().number();
      one.begins = _ -> {};
      ProveRun.Done d = one.go(PlanReader.read(PLAN, "x"), true);
      assertTrue(d.run().number() > old);
      ProveFacts f = ProveFacts.of(one.w.state("07"));
      assertEquals(f.runs().size(), 2);
      assertEquals(f.runs().getFirst().verdict().orElseThrow(), Verdict.CLOSE);
    }
  }

  /// While it waits the supply is watched all the same.
  @Test(timeOut = 120_000)
  public void whileItWaitsTheSupplyIsWatched() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      one.begins =
          t -> {
            if (t.step().name().equals("5V0")) {
              one.run.pause(true);
              Thread.ofVirtual()
                  .start(() -> {
                    try {
                      Thread.sleep(400);
                      one.sim.servers().instrument("supply").mischief(Mischief.VANISH);
                    } catch (InterruptedException e) {
                      Thread.currentThread().interrupt();
                    }
                  });
            }
          };
      one.timeout = 1000;
      ProveRun.Done d = one.go(PLAN);
      assertTrue(d.ended());
      Entry.ProofEnded end = (Entry.ProofEnded) d.run().ended().orElseThrow().entry();
      assertFalse(end.why().isEmpty());
      assertTrue(end.verdict() != Verdict.WITHIN);
    }
  }

  private static final Set<Mischief> HARMLESS =
      EnumSet.of(Mischief.NONE, Mischief.CARELESS, Mischief.LINE_BEFORE, Mischief.LINE_BEHIND);

  /// So many at a time: most of it is waiting.
  private static final Semaphore FEW = new Semaphore(4);

  @DataProvider(parallel = true)
  Object[][] mischief() {
    List<Object[]> all = new ArrayList<>();
    for (Mischief m : Mischief.values()) {
      for (String kind : List.of("supply", "meter")) {
        all.add(new Object[] {m, kind});
      }
    }
    return all.toArray(Object[][]::new);
  }

  /// Every misbehaviour of supply and meter in the middle of a run: what may be on is said to be, a
  /// run with a lame instrument never passes a board, and never accuses it unless a reading did.
  @Test(dataProvider = "mischief", timeOut = 180_000)
  public void instrumentsThatMisbehave(Mischief m, String kind) throws Exception {
    FEW.acquire();
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      // a busy machine must not look like one
      one.timeout = HARMLESS.contains(m) ? 4000 : 1000;
      one.begins =
          t -> {
            if (t.step().name().equals("3V3")) {
              one.sim.servers().instrument(kind).mischief(m);
            }
          };
      ProveRun.Done d = one.go(PLAN);
      assertTrue(d.ended());
      boolean on = one.sim.servers().outputOn();
      assertEquals(
          on && !PowerFacts.of(one.w.state("07")).mayBeOn(),
          false,
          m + " of the " + kind + ": on, and the book does not say so");
      if (HARMLESS.contains(m)) {
        assertEquals(d.run().verdict().orElseThrow(), Verdict.WITHIN, m + " of the " + kind);
      }
      boolean shows =
          d.run().made().stream()
              .anyMatch(s -> s.verdict().filter(v -> v == Verdict.OUT).isPresent());
      if (d.run().verdict().orElseThrow() == Verdict.OUT) {
        assertTrue(shows, d.run().made().toString());
      }
      if (kind.equals("meter")
          && d.run().made().stream().anyMatch(s -> s.words().contains("gave up"))) {
        assertEquals(
            d.run().verdict().orElseThrow(), Verdict.CLOSE, m + ": the board is not accused");
        assertTrue(one.off());
      }
    } finally {
      FEW.release();
    }
  }

  /// A scope or a line that gives up says nothing about the board.
  @Test(timeOut = 240_000)
  public void aScopeThatGivesUp() throws Exception {
    for (Mischief m : List.of(Mischief.HANG, Mischief.GARBAGE, Mischief.VANISH, Mischief.DRIP)) {
      try (ProofBoards.One one = new ProofBoards.One("07")) {
        one.timeout = 1000;
        one.begins =
            t -> {
              if (t.step().name().startsWith("XIN")) {
                one.sim.servers().instrument("scope").mischief(m);
              }
            };
        ProveRun.Done d =
            one.go(
                "plan waves\npower\nvolts 3V3\nwave XIN frequency 11.9MHz..12.1MHz\nvolts 5V0\noff\n");
        assertEquals(d.run().verdict().orElseThrow(), Verdict.CLOSE, m + ": " + d.run().made());
        assertTrue(one.off(), m.toString());
        assertEquals(
            one.w.state("07").findings(),
            List.of(),
            m + ", the board is accused: " + d.run().made());
      }
    }
  }
}
