package ell.trials.prove;

import ell.core.prove.Capability;
import ell.core.prove.RunRules;
import ell.core.prove.TestOrder;
import ell.core.quantity.Limits;
import ell.core.statistic.Apart;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Random;

/// The exact order of tests against trying orders, and the sums of a large build against adding its
/// readings up.
public final class ProveBench {
  private ProveBench() {}

  /// One line of a report.
  ///
  /// @param held whether it is as it is wanted
  public record Line(String text, boolean held) {}

  /// Runs it.
  public static List<Line> run() {
    return List.of(order(), blocks(), build());
  }

  /// Fifteen tests, exactly, against as many orders drawn at random as take as long.
  private static Line order() {
    Random random = new Random(1);
    int n = 15;
    double[] m = random.doubles(n, 0.05, 3).toArray();
    double[] f = random.doubles(n, 0, 0.3).toArray();
    List<List<Integer>> after = after(n, random);
    TestOrder.best(m, f, after);
    long from = System.nanoTime();
    TestOrder o = TestOrder.best(m, f, after);
    double exact = (System.nanoTime() - from) / 1e9;
    double best = Double.POSITIVE_INFINITY;
    int tried = 0;
    long then = System.nanoTime();
    List<Integer> any = new ArrayList<>(o.order());
    while ((System.nanoTime() - then) / 1e9 < exact) {
      Collections.shuffle(any, random);
      if (keeps(any, after)) {
        best = Math.min(best, TestOrder.expected(any, m, f));
      }
      tried++;
    }
    return new Line(
        String.format(
            Locale.ROOT,
            "prove: 15 tests in the best order, proven, in %.0f ms: %.3f min; the best of %d drawn in"
                + " the same time: %.3f min",
            exact * 1e3,
            o.minutes(),
            tried,
            best),
        o.optimal() && o.minutes() <= best + 1e-12 && exact < 1);
  }

  private static List<List<Integer>> after(int n, Random random) {
    List<List<Integer>> all = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      all.add(i > 0 && random.nextInt(3) == 0 ? List.of(random.nextInt(i)) : List.of());
    }
    return all;
  }

  private static boolean keeps(List<Integer> order, List<List<Integer>> after) {
    for (int i = 0; i < after.size(); i++) {
      for (int j : after.get(i)) {
        if (order.indexOf(j) > order.indexOf(i)) {
          return false;
        }
      }
    }
    return true;
  }

  /// A thousand tests by blocks, against sorting them.
  private static Line blocks() {
    Random random = new Random(2);
    int n = 1000;
    double[] m = random.doubles(n, 0.05, 3).toArray();
    double[] f = random.doubles(n, 0, 0.01).toArray();
    List<List<Integer>> after = after(n, random);
    TestOrder.best(m, f, after);
    long from = System.nanoTime();
    TestOrder o = TestOrder.best(m, f, after);
    double took = (System.nanoTime() - from) / 1e9;
    Integer[] sorted = new Integer[n];
    long then = System.nanoTime();
    for (int k = 0; k < 100; k++) {
      for (int i = 0; i < n; i++) {
        sorted[i] = i;
      }
      Arrays.sort(sorted, (a, b) -> Double.compare(f[b] / m[b], f[a] / m[a]));
    }
    double sorting = (System.nanoTime() - then) / 1e11;
    return new Line(
        String.format(
            Locale.ROOT,
            "prove: 1,000 tests by blocks in %.0f ms, %.0f times a sort without what comes after what",
            took * 1e3,
            took / sorting),
        o.optimal() && took < 2);
  }

  /// Spread, capability, drift and who stands apart of 1,000 boards, against adding them up.
  private static Line build() {
    Random random = new Random(3);
    double[][] tests = new double[100][1000];
    for (double[] t : tests) {
      for (int i = 0; i < t.length; i++) {
        t[i] = 3.3 + 0.01 * random.nextGaussian();
      }
    }
    double own = timed(() -> sums(tests));
    double adding =
        timed(() -> Arrays.stream(tests).mapToDouble(t -> Arrays.stream(t).sum()).sum());
    return new Line(
        String.format(
            Locale.ROOT,
            "prove: 100 tests of 1,000 boards worked out in %.1f ms, %.0f times adding them up",
            own * 1e3,
            own / adding),
        own < 1);
  }

  private static double sums(double[][] tests) {
    double all = 0;
    double[] u = new double[1000];
    for (double[] t : tests) {
      RunRules r = RunRules.of(t);
      boolean[] apart = Apart.of(t, u);
      all +=
          Capability.of(r.mean(), r.sigma(), t.length, new Limits(3.2, 3.4), 0.95).cpk()
              + r.signals().size()
              + (apart[0] ? 1 : 0);
    }
    return all;
  }

  private static double timed(java.util.function.DoubleSupplier what) {
    double kept = what.getAsDouble();
    double best = Double.POSITIVE_INFINITY;
    for (int i = 0; i < 5; i++) {
      long from = System.nanoTime();
      kept += what.getAsDouble();
      best = Math.min(best, (System.nanoTime() - from) / 1e9);
    }
    return Double.isNaN(kept) ? 0 : best;
  }
}
