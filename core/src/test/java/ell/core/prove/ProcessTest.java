package ell.core.prove;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.catalogue.Catalogue;
import ell.core.quantity.Limits;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import ell.core.statistic.Apart;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import org.hipparchus.stat.inference.OneWayAnova;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What a build says of its process, held against published values: NIST Statistical Reference
/// Datasets, NIST/SEMATECH e-Handbook, and Hipparchus.
public class ProcessTest {
  /// NIST/SEMATECH e-Handbook, 6.1.6, from memory: limits 8 and 20, mean 16, sd 2 give Cp 1.0 and
  /// Cpk 0.6667.
  @Test
  public void theHandbooksProcess() {
    Capability c = Capability.of(16, 2, 0, new Limits(8, 20), 0.95);
    assertEquals(c.cp().orElseThrow(), 1.0, 1e-12);
    assertEquals(c.cpk(), 2.0 / 3, 1e-12);
    assertTrue(c.cpkLow().isEmpty(), "nothing was estimated, so nothing is uncertain");
    Capability one = Capability.of(16, 2, 0, Limits.atMost(20), 0.95);
    assertTrue(one.cp().isEmpty());
    assertEquals(one.cpk(), 2.0 / 3, 1e-12);
    expectThrows(
        IllegalArgumentException.class, () -> Capability.of(16, 0, 5, new Limits(8, 20), 0.95));
  }

  /// Of many samples so many intervals must hold the process that they were drawn from.
  @Test
  public void intervalsHoldWhatTheySay() {
    Random random = new Random(7);
    int cp = 0;
    int cpk = 0;
    int runs = 4000;
    double true1 = 3.0 / (3 * 0.8);
    for (int i = 0; i < runs; i++) {
      double[] v = new double[30];
      for (int k = 0; k < v.length; k++) {
        v[k] = 10 + 0.8 * random.nextGaussian();
      }
      double mean = Arrays.stream(v).average().orElseThrow();
      double sd =
          Math.sqrt(Arrays.stream(v).map(x -> (x - mean) * (x - mean)).sum() / (v.length - 1));
      Capability c = Capability.of(mean, sd, v.length, new Limits(7, 13), 0.95);
      cp += c.cpLow().orElseThrow() <= true1 && true1 <= c.cpHigh().orElseThrow() ? 1 : 0;
      cpk += c.cpkLow().orElseThrow() <= true1 && true1 <= c.cpkHigh().orElseThrow() ? 1 : 0;
    }
    assertEquals((double) cp / runs, 0.95, 0.012, "chi-squared, exact");
    assertEquals((double) cpk / runs, 0.95, 0.02, "normal approximation");
  }

  @DataProvider
  Object[][] univariate() {
    return new Object[][] {
      // digits that double arithmetic leaves: NumAcc3 and 4 differ in the eighth and ninth
      {"Mavro", 1e-9}, {"Michelso", 1e-12}, {"NumAcc1", 1e-9}, {"NumAcc3", 1e-7}, {"NumAcc4", 1e-6}
    };
  }

  /// NIST StRD, univariate: mean and standard deviation through the sheet, as a maker gets them.
  @Test(dataProvider = "univariate")
  public void certifiedMeansAndSpreads(String name, double within) throws Exception {
    Nist n = new Nist(name);
    assertTrue(n.values.size() > 2, "found " + n.values.size());
    String all = n.values.stream().map(String::valueOf).collect(Collectors.joining(","));
    Worked w =
        Catalogue.work("prove.capability", Map.of("values", all, "low", "-1e12", "high", "1e12"));
    double mean = n.certified("Sample Mean", 0);
    double sd = n.certified("Sample Standard Dev", 0);
    assertEquals(w.number("mean"), mean, Math.abs(mean) * 1e-13, name);
    assertEquals(w.number("sd"), sd, sd * within, name);
  }

  @DataProvider
  Object[][] anova() {
    return new Object[][] {{"SiRstv", 1e-9}, {"AtmWtAg", 1e-5}, {"SmLs01", 1e-9}, {"SmLs04", 1e-6}};
  }

  /// NIST StRD, analysis of variance: what a gauge study takes apart, and by Hipparchus as well.
  @Test(dataProvider = "anova")
  public void certifiedAnalysisOfVariance(String name, double within) throws Exception {
    Nist n = new Nist(name);
    double[][][] cube =
        n.groups.values().stream()
            .map(g -> new double[][] {g.stream().mapToDouble(d -> d).toArray()})
            .toArray(double[][][]::new);
    int r = cube[0][0].length;
    Gauge g = Gauge.of(cube);
    double betweenMs = n.certified("Between", 1);
    double withinMs = n.certified("Within", 0);
    assertEquals(g.repeatability() * g.repeatability(), withinMs, withinMs * within, name);
    double parts = Math.max(0, (betweenMs - withinMs) / r);
    assertEquals(g.boards() * g.boards(), parts, Math.max(parts, 1e-12) * within * 100, name);
    double f = n.certified("Between", 0);
    if (within < 1e-8) { // on the harder ones it loses digits itself
      double hipparchus =
          new OneWayAnova()
              .anovaFValue(n.groups.values().stream().map(ProcessTest::array).toList());
      assertEquals(hipparchus, f, f * 1e-6, name);
    }
    double own =
        (g.boards() * g.boards() * r + g.repeatability() * g.repeatability())
            / (g.repeatability() * g.repeatability());
    assertEquals(own, f, f * 1e-4, name);
  }

  private static double[] array(List<Double> l) {
    return l.stream().mapToDouble(d -> d).toArray();
  }

  /// A study that is made: boards, persons and repeats have spreads of their own, and are found.
  @Test
  public void aCrossedStudyIsTakenApart() {
    Random random = new Random(11);
    double boards = 0;
    double people = 0;
    double repeats = 0;
    int runs = 300;
    for (int k = 0; k < runs; k++) {
      double[][][] v = new double[10][4][3];
      double[] p = random.doubles(4).map(_ -> 0.5 * random.nextGaussian()).toArray();
      for (double[][] b : v) {
        double own = 2 * random.nextGaussian();
        for (int j = 0; j < 4; j++) {
          for (int i = 0; i < 3; i++) {
            b[j][i] = 100 + own + p[j] + 0.3 * random.nextGaussian();
          }
        }
      }
      Gauge g = Gauge.of(v);
      boards += g.boards() * g.boards() / runs;
      people += g.reproducibility() * g.reproducibility() / runs;
      repeats += g.repeatability() * g.repeatability() / runs;
    }
    assertEquals(boards, 4, 0.3);
    assertEquals(people, 0.25, 0.05);
    assertEquals(repeats, 0.09, 0.005);
    expectThrows(
        IllegalArgumentException.class, () -> Gauge.of(new double[][][] {{{1, 2}}, {{1}}}));
  }

  /// The rules of the Western Electric handbook, each by a series that breaks it alone.
  @Test
  public void runsThatAreNoChance() {
    double[] still = {0, 1, 0, 1, 0, 1, 0, 1, 0, 1, 0, 1};
    assertTrue(RunRules.of(still).signals().isEmpty());
    double[] far = {0, 1, 0, 1, 0, 1, 0, 1, 0, 1, 0, 5};
    assertEquals(RunRules.of(far).signals().getFirst().rule(), "beyond 3 sigma");
    double[] shifted = new double[24];
    for (int i = 0; i < 24; i++) {
      shifted[i] = (i % 2 == 0 ? 0 : 1) + (i < 12 ? 0 : 1.2);
    }
    assertTrue(
        RunRules.of(shifted).signals().stream().anyMatch(s -> s.rule().startsWith("8 in a row")),
        RunRules.of(shifted).toString());
    // of a process that does not drift a chart of 20 boards signals seldom
    Random random = new Random(3);
    int signals = 0;
    for (int k = 0; k < 500; k++) {
      signals +=
          RunRules.of(random.doubles(20).map(_ -> random.nextGaussian()).toArray())
                  .signals()
                  .isEmpty()
              ? 0
              : 1;
    }
    assertTrue(signals < 200, signals + " of 500 charts of pure chance");
    assertTrue(RunRules.of(new double[] {1, 9}).signals().isEmpty(), "two values are no chart");
  }

  @Test
  public void whoStandsApart() {
    double[] v = {5.012, 5.008, 5.010, 5.011, 5.078};
    boolean[] apart = Apart.of(v, new double[] {0.02, 0.02, 0.02, 0.02, 0.02});
    assertTrue(apart[4]);
    assertFalse(apart[0]);
    assertFalse(
        Apart.of(v, new double[] {0.1, 0.1, 0.1, 0.1, 0.1})[4],
        "nearer than the meter can tell nobody stands apart");
    assertFalse(Apart.of(new double[] {1, 9}, new double[2])[1], "two have no middle");
  }

  /// Every order of up to seven tests that keeps what comes after what, by trying all of them.
  @Test
  public void theBestOrderOfTests() {
    Random random = new Random(5);
    for (int k = 0; k < 300; k++) {
      int n = 2 + random.nextInt(6);
      double[] m = random.doubles(n, 0.05, 3).toArray();
      double[] f = random.doubles(n, 0, 0.6).toArray();
      List<List<Integer>> after = precedence(n, random, random.nextInt(3));
      TestOrder o = TestOrder.best(m, f, after);
      assertTrue(o.optimal());
      assertEquals(o.minutes(), best(m, f, after), 1e-12);
      assertEquals(TestOrder.expected(o.order(), m, f), o.minutes(), 1e-12);
    }
  }

  /// Beyond fifteen tests blocks along trees: as good as the exact way on a copy without the tests
  /// that change nothing.
  @Test
  public void manyTestsByBlocks() {
    Random random = new Random(6);
    for (int k = 0; k < 60; k++) {
      int n = 15;
      double[] m = random.doubles(n, 0.05, 3).toArray();
      double[] f = random.doubles(n, 0, 0.5).toArray();
      List<List<Integer>> after = precedence(n, random, 1);
      TestOrder exact = TestOrder.best(m, f, after);
      // ten more that come behind all others: their cost is known
      int more = n + 10;
      double[] m2 = Arrays.copyOf(m, more);
      double[] f2 = Arrays.copyOf(f, more);
      List<List<Integer>> after2 = new ArrayList<>(after);
      for (int i = n; i < more; i++) {
        m2[i] = 0;
        f2[i] = 0;
        after2.add(List.of());
      }
      TestOrder blocks = TestOrder.best(m2, f2, after2);
      assertTrue(blocks.optimal(), "each comes after one other at most");
      assertEquals(blocks.minutes(), exact.minutes(), 1e-9);
      assertEquals(blocks.order().stream().distinct().count(), more);
      for (int i = 0; i < n; i++) {
        for (int j : after.get(i)) {
          assertTrue(blocks.order().indexOf(j) < blocks.order().indexOf(i));
        }
      }
    }
    // without precedence: by failure rate over minutes (Mitten 1960)
    double[] m = random.doubles(40, 0.05, 3).toArray();
    double[] f = random.doubles(40, 0, 0.5).toArray();
    List<List<Integer>> none = precedence(40, random, 0);
    List<Integer> order = TestOrder.best(m, f, none).order();
    for (int i = 1; i < 40; i++) {
      int a = order.get(i - 1);
      int b = order.get(i);
      assertTrue(f[a] / m[a] >= f[b] / m[b] - 1e-12);
    }
    expectThrows(
        IllegalArgumentException.class,
        () ->
            TestOrder.best(
                new double[] {1, 1}, new double[] {0, 0}, List.of(List.of(1), List.of(0))));
  }

  private static List<List<Integer>> precedence(int n, Random random, int most) {
    List<List<Integer>> after = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      List<Integer> own = new ArrayList<>();
      for (int k = 0; k < most && i > 0; k++) {
        int j = random.nextInt(i);
        if (random.nextBoolean() && !own.contains(j)) {
          own.add(j);
        }
      }
      after.add(own);
    }
    return after;
  }

  private static double best(double[] m, double[] f, List<List<Integer>> after) {
    return tried(new ArrayList<>(), m, f, after);
  }

  private static double tried(
      List<Integer> done, double[] m, double[] f, List<List<Integer>> after) {
    if (done.size() == m.length) {
      return TestOrder.expected(done, m, f);
    }
    double best = Double.POSITIVE_INFINITY;
    for (int i = 0; i < m.length; i++) {
      if (!done.contains(i) && done.containsAll(after.get(i))) {
        done.add(i);
        best = Math.min(best, tried(done, m, f, after));
        done.removeLast();
      }
    }
    return best;
  }

  @Test
  public void sheetsRefuseWhatMakesNoSense() {
    for (Map<String, String> bad :
        List.of(
            Map.of("values", "1,2,3"),
            Map.of("values", "1", "low", "0"),
            Map.of("values", "1,1,1", "low", "0"),
            Map.of("values", "1,2", "mean", "1", "sd", "1", "low", "0"),
            Map.of("mean", "1", "low", "0"),
            Map.of("values", "1,2,x", "low", "0"),
            Map.of("values", "1,2", "low", "5", "high", "1"))) {
      expectThrows(SheetProblem.class, () -> Catalogue.work("prove.capability", bad));
    }
    expectThrows(
        SheetProblem.class,
        () ->
            Catalogue.work(
                "prove.gauge", Map.of("values", "1,2,3", "boards", "2", "repeats", "2")));
    expectThrows(
        SheetProblem.class,
        () -> Catalogue.work("prove.order", Map.of("minutes", "1,2", "fails", "0.1")));
    expectThrows(
        SheetProblem.class,
        () ->
            Catalogue.work(
                "prove.order", Map.of("minutes", "1,2", "fails", "0.1,0.2", "after", "1:2,2:1")));
  }
}
