package ell.trials.trace;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.practice.SameFault;
import ell.core.trace.BenchKnowledge;
import ell.core.trace.Tracer;
import ell.trials.power.MadeBoards;
import ell.trials.trace.TraceTrial.Run;
import ell.trials.trace.TraceTrial.Way;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Faults put into made boards that a simulator of its own measures: found, seldom wrongly, with
/// chances that are meant, and sooner than by a list.
public class TraceTrialTest {
  @Test
  public void faultsAreFound() {
    TraceBench.Found found =
        TraceBench.made(
            4, 16, BenchKnowledge.none(BenchKnowledge::usual), List.of(Way.PROPOSED, Way.LIST));
    List<Run> all = found.runs().get(Way.PROPOSED);
    List<Run> list = found.runs().get(Way.LIST);
    assertTrue(all.size() > 15, all.size() + " faults show");
    assertEquals(all.size(), list.size());
    long right = all.stream().filter(Run::right).count();
    long wrong = all.stream().filter(r -> !r.found().isEmpty() && !r.right()).count();
    assertTrue(right >= 0.9 * all.size(), right + " of " + all.size() + " are found: " + all);
    assertTrue(wrong <= 1 + 0.02 * all.size(), wrong + " of " + all.size() + " are wrong: " + all);
    List<Run> sure = all.stream().filter(r -> r.chance() >= Tracer.SURE).toList();
    double said = sure.stream().mapToDouble(Run::chance).average().orElse(0);
    double was = sure.stream().filter(Run::right).count() / (double) sure.size();
    assertTrue(Math.abs(said - was) < 0.08, said + " was given, " + was + " were right");
    double own = mean(all);
    double theirs = mean(list);
    assertTrue(own < 0.7 * theirs, own + " measurements against " + theirs + " by a list");
  }

  private static double mean(List<Run> runs) {
    return runs.stream().filter(Run::right).mapToInt(Run::measurements).average().orElse(0);
  }

  @DataProvider
  Object[][] odd() {
    return new Object[][] {{"shield", 10}, {"cell", 15}, {"panel", 6}};
  }

  /// Boards that are unlike all others: an iron-only shield, one of two sides with a cell, a panel
  /// of hundreds of equal parts.
  @Test(dataProvider = "odd")
  public void faultsAreFoundOnOddBoards(String name, int atLeast) throws Exception {
    List<Run> all =
        TraceBench.odd(
                Path.of("../fixtures/odd", name),
                150,
                BenchKnowledge.none(BenchKnowledge::usual),
                List.of(Way.PROPOSED))
            .runs()
            .get(Way.PROPOSED);
    assertTrue(all.size() >= atLeast, all.size() + " faults show");
    List<Run> wrong = all.stream().filter(r -> !r.right()).toList();
    assertTrue(wrong.size() <= 0.05 * all.size(), wrong.toString());
    assertTrue(mean(all) < 8, mean(all) + " measurements");
  }

  /// Who has counted the faults that come needs hardly more measurements than their entropy asks
  /// for, where each is the one that tells most.
  @Test
  public void nearTheEntropyBound() {
    List<Run> runs =
        TraceBench.made(5, 12, TraceBench.counted(), List.of(Way.PROPOSED, Way.FEWEST))
            .runs()
            .get(Way.FEWEST)
            .stream()
            .filter(Run::right)
            .toList();
    double begin = runs.stream().mapToDouble(Run::begin).sum();
    double best = runs.stream().mapToDouble(Run::best).sum();
    assertTrue(runs.size() > 15, runs.size() + " found");
    assertTrue(best < 1.6 * begin, best + " bits for " + begin);
    assertTrue(best > 0.5 * begin, "the bound is one: " + best + " bits for " + begin);
  }

  /// The kinds of trouble come as often as they are said to, and each is what it is called.
  @Test
  public void kindsOfTrouble() {
    MadeBoards.Made m = MadeBoards.of(3);
    Random random = new Random(1);
    Map<Trouble.Kind, Integer> count = new EnumMap<>(Trouble.Kind.class);
    for (int i = 0; i < 2000; i++) {
      Trouble t = Trouble.of(m.revision(), m.ladder(), random);
      count.merge(t.kind(), 1, Integer::sum);
      assertEquals(t.faults().size(), t.kind() == Trouble.Kind.PAIR ? 2 : 1);
      assertEquals(
          t.faults().getFirst() instanceof Fault.Sometimes, t.kind() == Trouble.Kind.SOMETIMES);
      assertEquals(
          t.faults().getFirst() instanceof Fault.Setting, t.kind() == Trouble.Kind.INSTRUMENT);
      t.faults()
          .forEach(f -> assertTrue(FaultWords.unfit(f, m.revision()).isEmpty(), f.toString()));
    }
    assertEquals(count.get(Trouble.Kind.SINGLE), 1400, 80);
    assertEquals(count.get(Trouble.Kind.PAIR), 200, 50);
    assertEquals(count.get(Trouble.Kind.DESIGN), 200, 50);
    assertEquals(count.get(Trouble.Kind.SOMETIMES), 100, 40);
    assertEquals(count.get(Trouble.Kind.INSTRUMENT), 100, 40);
  }

  @Test
  public void alike() {
    SameFault same = new SameFault(LargeBoard.of(40).revision());
    assertTrue(same.same(fault("open U10.1"), fault("open U10.1")));
    assertTrue(same.same(fault("bridge C10.1 C10.2 0.3ohm"), fault("short C10")));
    assertFalse(
        same.same(fault("bridge C10.1 C10.2 0.3ohm"), fault("short C11")),
        "a bridge at one part is no short of another");
    assertTrue(same.same(fault("value R20 1"), fault("value R20 100")));
    assertTrue(!same.same(fault("dead U10"), fault("missing U10")));
    assertTrue(!same.same(fault("open U10.1"), fault("open U10.2")));
  }

  private static Fault fault(String words) {
    return FaultWords.parse(words);
  }
}
