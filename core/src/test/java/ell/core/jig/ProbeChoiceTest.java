package ell.core.jig;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.board.Side;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.Test;

/// The choice of probes against every choice there is, and against bounds where there are too many.
public class ProbeChoiceTest {
  private static final List<ProbeSeries> SERIES = ProbeSeries.TYPICAL;

  private static Target target(
      String net, double x, double y, Side side, TargetKind kind, int finest) {
    List<ProbeSeries> fits = SERIES.subList(finest, SERIES.size());
    return new Target(
        net,
        net + "@" + x + "," + y,
        x,
        y,
        side,
        kind,
        1,
        1,
        true,
        0,
        false,
        fits,
        fits.stream().map(_ -> 0.0).toList());
  }

  /// A choice's worth: nets lacking, probes on the first side, ranks of series, spacing (the wider
  /// the better), targets.
  private record Worth(int lacks, int top, int series, double gap, long targets) {
    boolean betterThan(Worth o) {
      if (lacks != o.lacks) {
        return lacks < o.lacks;
      }
      if (top != o.top) {
        return top < o.top;
      }
      if (series != o.series) {
        return series < o.series;
      }
      if (Math.abs(gap - o.gap) > 1e-9) {
        return gap > o.gap;
      }
      return targets < o.targets;
    }
  }

  private static double gap(List<Target> t) {
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < t.size(); i++) {
      for (int k = i + 1; k < t.size(); k++) {
        if (t.get(i).side() == t.get(k).side()) {
          least = Math.min(least, t.get(i).distanceMm(t.get(k)));
        }
      }
    }
    return least;
  }

  /// Tries every choice.
  private static final class Every {
    private final List<String> nets;
    private final Map<String, List<Target>> of = new HashMap<>();
    private final List<Target> chosen = new ArrayList<>();
    private final List<ProbeSeries> series = new ArrayList<>();
    private Worth best;

    Every(List<String> nets, List<Target> targets) {
      this.nets = nets;
      nets.forEach(n -> of.put(n, targets.stream().filter(t -> t.net().equals(n)).toList()));
      go(0, 0);
    }

    private void go(int at, int lacks) {
      if (at == nets.size()) {
        Worth w =
            new Worth(
                lacks,
                (int) chosen.stream().filter(t -> t.side() == Side.FIRST).count(),
                series.stream().mapToInt(ProbeSeries::cost).sum(),
                gap(chosen),
                chosen.stream().mapToLong(t -> t.worth(0)).sum());
        best = best == null || w.betterThan(best) ? w : best;
        return;
      }
      for (Target t : of.get(nets.get(at))) {
        for (ProbeSeries s : t.fits()) {
          boolean free = true;
          for (int i = 0; i < chosen.size(); i++) {
            free &=
                chosen.get(i).side() != t.side()
                    || chosen.get(i).distanceMm(t) >= s.apartMm(series.get(i)) - 1e-9;
          }
          if (free) {
            chosen.add(t);
            series.add(s);
            go(at + 1, lacks);
            chosen.removeLast();
            series.removeLast();
          }
        }
      }
      go(at + 1, lacks + 1);
    }
  }

  private static Worth worth(ProbeChoice c) {
    return new Worth(
        c.lacking().values().stream().mapToInt(i -> i).sum(),
        (int) c.probes().stream().filter(p -> p.target().side() == Side.FIRST).count(),
        c.probes().stream().mapToInt(p -> p.of().cost()).sum(),
        gap(c.probes().stream().map(Probe::target).toList()),
        c.probes().stream().mapToLong(p -> p.target().worth(0)).sum());
  }

  /// 300 small boards, crowded enough that nets stand in each other's way.
  @Test
  public void asGoodAsEveryChoice() {
    int crowded = 0;
    for (int seed = 0; seed < 300; seed++) {
      Random r = new Random(seed);
      int n = 2 + r.nextInt(4);
      double room = 2 + 5 * r.nextDouble();
      List<String> nets = new ArrayList<>();
      List<Target> targets = new ArrayList<>();
      for (int i = 0; i < n; i++) {
        String net = "N" + i;
        nets.add(net);
        int places = 1 + r.nextInt(3);
        for (int k = 0; k < places; k++) {
          targets.add(
              target(
                  net,
                  Math.round(100 * room * r.nextDouble()) / 100.0,
                  Math.round(100 * room * r.nextDouble()) / 100.0,
                  r.nextInt(3) == 0 ? Side.FIRST : Side.SECOND,
                  TargetKind.values()[r.nextInt(TargetKind.values().length)],
                  r.nextInt(5) == 0 ? 1 : 0));
        }
      }
      List<Need> needs = nets.stream().map(x -> new Need(x, 1, 0, false, "signal")).toList();
      ProbeChoice c = ProbeChoice.of(needs, targets, () -> 10);
      Worth best = new Every(nets, targets).best;
      Worth got = worth(c);
      assertTrue(c.optimal(), seed + " " + c.told());
      assertEquals(got.lacks, best.lacks, "lacking, board " + seed);
      assertEquals(got.top, best.top, "first side, board " + seed);
      assertEquals(got.series, best.series, "series, board " + seed);
      // spacing is settled to 5 µm
      assertTrue(
          got.gap == best.gap || Math.abs(got.gap - best.gap) <= 0.005 + 1e-9,
          seed + ": " + got.gap + " of " + best.gap);
      if (got.gap == best.gap) {
        assertEquals(got.targets, best.targets, "targets, board " + seed);
      }
      crowded += best.series > 0 || best.lacks > 0 ? 1 : 0;
    }
    assertTrue(crowded > 60, "boards where something gave way: " + crowded);
  }

  /// No two probes of a side stand nearer than their series allow, each net has its own.
  private static void holds(ProbeChoice c, List<Need> needs) {
    List<Probe> p = c.probes();
    for (int i = 0; i < p.size(); i++) {
      for (int k = i + 1; k < p.size(); k++) {
        Target a = p.get(i).target();
        Target b = p.get(k).target();
        assertTrue(
            a.side() != b.side() || a.distanceMm(b) >= p.get(i).of().apartMm(p.get(k).of()) - 1e-9,
            a + " " + b);
      }
    }
    for (Need n : needs) {
      long has = p.stream().filter(x -> x.target().net().equals(n.net())).count();
      assertEquals(has + c.lacking().getOrDefault(n.net(), 0), n.probes(), n.net());
    }
  }

  /// A thousand nets with two places each: what is said is held against bounds net by net.
  @Test
  public void twoThousandPlaces() {
    Random r = new Random(4);
    List<Need> needs = new ArrayList<>();
    List<Target> targets = new ArrayList<>();
    int mustTop = 0;
    for (int i = 0; i < 1000; i++) {
      String net = "N" + i;
      needs.add(new Need(net, 1, 0, false, "signal"));
      boolean top = r.nextInt(20) == 0;
      mustTop += top ? 1 : 0;
      for (int k = 0; k < 2; k++) {
        targets.add(
            target(
                net,
                (i % 40) * 5 + 3 * r.nextDouble(),
                (i / 40) * 5 + 3 * r.nextDouble(),
                top ? Side.FIRST : k == 0 ? Side.SECOND : Side.values()[r.nextInt(2)],
                TargetKind.PAD,
                0));
      }
    }
    ProbeChoice c = ProbeChoice.of(needs, targets, () -> 3);
    holds(c, needs);
    Worth w = worth(c);
    assertEquals(w.lacks, 0);
    assertEquals(w.top, mustTop, "no more from above than must");
    assertTrue(w.gap > 1.27, "" + w.gap);
    assertTrue(c.optimal() || !c.told().isEmpty(), "what is not proven is said");
  }

  /// A ground with many places and several probes keeps clear of those that have one place only.
  @Test
  public void aGroundGivesWay() {
    List<Target> targets = new ArrayList<>();
    for (int i = 0; i < 12; i++) {
      targets.add(target("GND", i * 2.0, 0, Side.SECOND, TargetKind.VIA, 0));
    }
    targets.add(target("A", 4.5, 1, Side.SECOND, TargetKind.POINT, 0));
    targets.add(target("B", 14.5, 1, Side.SECOND, TargetKind.POINT, 0));
    List<Need> needs =
        List.of(
            new Need("GND", 4, 3, false, "ground: all of it"),
            new Need("A", 1, 0, false, "signal"),
            new Need("B", 1, 0, false, "signal"));
    ProbeChoice c = ProbeChoice.of(needs, targets, () -> 5);
    holds(c, needs);
    assertTrue(c.optimal(), c.told().toString());
    assertTrue(c.lacking().isEmpty());
    assertEquals(worth(c).series, 0, Arrays.toString(c.probes().toArray()));
    List<Need> more = new ArrayList<>(needs);
    more.set(0, new Need("GND", 13, 3, false, "ground: more than there is"));
    ProbeChoice lacking = ProbeChoice.of(more, targets, () -> 5);
    holds(lacking, more);
    assertTrue(lacking.lacking().containsKey("GND"));
  }
}
