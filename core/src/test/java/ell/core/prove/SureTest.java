package ell.core.prove;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.catalogue.Catalogue;
import ell.core.sheet.Worked;
import ell.core.statistic.Counts;
import java.util.Map;
import java.util.Random;
import org.hipparchus.distribution.discrete.BinomialDistribution;
import org.testng.annotations.Test;

/// How sure a count is, held against published values, exact sums and simulation.
public class SureTest {
  /// NIST/SEMATECH e-Handbook, 7.2.4.1, from memory: 4 failures of 20, two-sided 90 %, exact limits
  /// 0.071354 and 0.401029.
  @Test
  public void theHandbooksExactInterval() {
    Counts.Interval i = Counts.exact(4, 20, 0.90);
    assertEquals(i.low(), 0.071354, 5e-7);
    assertEquals(i.high(), 0.401029, 2e-6);
  }

  /// Brown, Cai and DasGupta, Statistical Science 16 (2001): the exact interval never covers less
  /// than it says, and Wilson's covers about what it says on average, though not everywhere.
  @Test
  public void coverage() {
    int n = 50;
    double mean = 0;
    double least = 1;
    int steps = 500;
    for (int k = 1; k < steps; k++) {
      double p = (double) k / steps;
      BinomialDistribution b = new BinomialDistribution(n, p);
      double wilson = 0;
      double exact = 0;
      for (int x = 0; x <= n; x++) {
        Counts.Interval w = Counts.wilson(x, n, 0.95);
        Counts.Interval e = Counts.exact(x, n, 0.95);
        wilson += w.low() <= p && p <= w.high() ? b.probability(x) : 0;
        exact += e.low() <= p && p <= e.high() ? b.probability(x) : 0;
      }
      assertTrue(exact >= 0.95 - 1e-9, "exact covers " + exact + " at " + p);
      mean += wilson / (steps - 1);
      least = Math.min(least, wilson);
    }
    assertEquals(mean, 0.953, 0.006);
    assertTrue(least > 0.82, "Wilson's worst, near the ends: " + least);
  }

  /// A fault at half of the trials needs 5 clean ones for 95 %, one in ten needs 29 (common
  /// practice, no source; and by the power of the miss).
  @Test
  public void cleanTrials() {
    assertEquals(Counts.cleanTrials(0.5, 0.95), 5);
    assertEquals(Counts.cleanTrials(0.1, 0.95), 29);
    for (double p : new double[] {0.01, 0.03, 0.2, 0.7, 0.99}) {
      long n = Counts.cleanTrials(p, 0.95);
      assertTrue(Math.pow(1 - p, n) <= 0.05 + 1e-12);
      assertTrue(n == 1 || Math.pow(1 - p, n - 1) > 0.05);
    }
  }

  /// NIST/SEMATECH e-Handbook, 6.2.6, from memory: p1 0.01, p2 0.10, alpha 0.05, beta 0.10 give the
  /// lines -0.939 + 0.0397 n and 1.205 + 0.0397 n, and 24 clean items accept.
  @Test
  public void theHandbooksSequentialPlan() {
    Sequential s = new Sequential(0.01, 0.10, 0.05, 0.10);
    assertEquals(s.acceptAt(), -0.939, 5e-4);
    assertEquals(s.rejectAt(), 1.205, 5e-4);
    assertEquals(s.slope(), 0.0397, 5e-5);
    assertEquals(s.fewest(), 24);
    assertEquals(s.decide(0, 23), Sequential.Decision.GO_ON);
    assertEquals(s.decide(0, 24), Sequential.Decision.ACCEPT);
    assertEquals(s.decide(2, 4), Sequential.Decision.REJECT);
    assertEquals(s.decide(1, 4), Sequential.Decision.GO_ON);
    expectThrows(IllegalArgumentException.class, () -> s.decide(3, 2));
    expectThrows(IllegalArgumentException.class, () -> new Sequential(0.1, 0.05, 0.05, 0.1));
  }

  /// Wald's bounds on both errors and his average number of trials, against 20 000 lots each.
  @Test
  public void errorsAndTrialsOfTheSequentialTest() {
    Sequential s = new Sequential(0.05, 0.25, 0.05, 0.10);
    double[] good = walked(s, 0.05, new Random(1));
    double[] bad = walked(s, 0.25, new Random(2));
    assertTrue(good[0] <= s.alpha() / (1 - s.beta()) + 0.005, "rejects good ones: " + good[0]);
    assertTrue(1 - bad[0] <= s.beta() / (1 - s.alpha()) + 0.005, "accepts bad ones: " + bad[0]);
    // the formula leaves out what the last trial carries beyond a line: truth is somewhat more
    assertTrue(
        good[1] >= s.averageIfGood() - 0.3 && good[1] < 1.5 * s.averageIfGood(), "" + good[1]);
    assertTrue(bad[1] >= s.averageIfBad() - 0.3 && bad[1] < 1.7 * s.averageIfBad(), "" + bad[1]);
  }

  private static double[] walked(Sequential s, double p, Random random) {
    int runs = 20_000;
    double rejected = 0;
    double trials = 0;
    for (int i = 0; i < runs; i++) {
      long k = 0;
      long n = 0;
      Sequential.Decision d = Sequential.Decision.GO_ON;
      while (d == Sequential.Decision.GO_ON) {
        n++;
        k += random.nextDouble() < p ? 1 : 0;
        d = s.decide(k, n);
      }
      rejected += d == Sequential.Decision.REJECT ? 1 : 0;
      trials += n;
    }
    return new double[] {rejected / runs, trials / runs};
  }

  /// With five boards nobody tells a yield of 90 % from one of 99 %.
  @Test
  public void whatFiveBoardsCannotTell() {
    Discerned d = Discerned.of(5, 0.01, 0.10, 0.95);
    assertEquals(d.most(), -1);
    assertEquals(d.power(), 0.0);
    // 29 clean boards rule 10 % out, as the rule of trials says
    assertEquals(Discerned.of(28, 0.01, 0.10, 0.95).most(), -1);
    assertEquals(Discerned.of(29, 0.01, 0.10, 0.95).most(), 0);
    assertEquals(Discerned.of(29, 0.01, 0.10, 0.95).power(), Math.pow(0.99, 29), 1e-12);
    long n = Discerned.boards(0.01, 0.10, 0.95, 0.8).orElseThrow();
    assertTrue(Discerned.of((int) n, 0.01, 0.10, 0.95).power() >= 0.8);
    assertTrue(Discerned.of((int) n - 1, 0.01, 0.10, 0.95).power() < 0.8);
    Worked w = Catalogue.work("prove.power", Map.of("boards", "5", "good", "0.01", "bad", "0.1"));
    assertEquals(w.number("boardsNeeded"), (double) n);
    assertTrue(w.cautions().getFirst().contains("no outcome"), w.cautions().toString());
  }

  /// Every count of a binomial summed by hand.
  @Test
  public void thePowerByHand() {
    for (int n : new int[] {3, 12, 40}) {
      Discerned d = Discerned.of(n, 0.05, 0.4, 0.9);
      double bad = 0;
      double good = 0;
      int most = -1;
      for (int k = 0; k <= n; k++) {
        bad += choose(n, k) * Math.pow(0.4, k) * Math.pow(0.6, n - k);
        if (bad > 0.1 + 1e-12) {
          break;
        }
        most = k;
        good += choose(n, k) * Math.pow(0.05, k) * Math.pow(0.95, n - k);
      }
      assertEquals(d.most(), most);
      assertEquals(d.power(), good, 1e-12);
    }
  }

  private static double choose(int n, int k) {
    double c = 1;
    for (int i = 0; i < k; i++) {
      c = c * (n - i) / (i + 1);
    }
    return c;
  }
}
