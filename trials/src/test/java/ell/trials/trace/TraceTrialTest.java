package ell.trials.trace;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.practice.SameFault;
import ell.core.trace.Tracer;
import ell.trials.trace.TraceTrial.Run;
import ell.trials.trace.TraceTrial.Way;
import java.util.List;
import org.testng.annotations.Test;

/// Faults put into made boards that a simulator of its own measures: found, seldom wrongly, with
/// chances that are meant, and sooner than by a list.
public class TraceTrialTest {
  @Test
  public void faultsAreFound() {
    TraceBench.Found found = TraceBench.made(4, 16, List.of(Way.PROPOSED, Way.LIST));
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

  @Test
  public void alike() {
    SameFault same = new SameFault(LargeBoard.of(40).revision());
    assertTrue(same.same(fault("open U10.1"), fault("open U10.1")));
    assertTrue(same.same(fault("bridge C10.1 C10.2 0.3ohm"), fault("short C10")));
    assertTrue(same.same(fault("value R20 1"), fault("value R20 100")));
    assertTrue(!same.same(fault("dead U10"), fault("missing U10")));
    assertTrue(!same.same(fault("open U10.1"), fault("open U10.2")));
  }

  private static ell.core.power.Fault fault(String words) {
    return ell.core.power.FaultWords.parse(words);
  }
}
