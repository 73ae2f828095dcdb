package ell.core.look;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.testng.annotations.Test;

/// Rates, charts, exact tests and samples against published examples.
public class LookTest {
  /// NIST/SEMATECH e-Handbook, 6.3.3.1: defects of 25 wafers, 400 in all; centre 16, limits 4 and
  /// 28. Data from memory; their sum is the book's.
  @Test
  public void theHandbooksWafers() {
    List<Double> wafers =
        Arrays.stream(
                "16 14 28 16 12 20 10 12 10 17 19 17 14 16 15 13 14 16 11 20 11 19 16 31 13"
                    .split(" "))
            .map(Double::valueOf)
            .toList();
    Chart c = Chart.of(wafers, List.of(1.0));
    assertEquals(c.centre(), 16.0);
    assertEquals(c.upper().getFirst(), 28.0);
    assertEquals(c.lower().getFirst(), 4.0);
    assertEquals(c.out(), List.of(24), "only the wafer with 31 is outside; 28 lies on the line");
  }

  /// Unequal sizes by hand: 4 + 9 + 0 of 10 + 20 + 5.
  @Test
  public void limitsDependOnTheSize() {
    Chart c = Chart.of(List.of(4.0, 9.0, 0.0), List.of(10.0, 20.0, 5.0));
    double u = 13 / 35.0;
    assertEquals(c.centre(), u);
    assertEquals(c.upper().get(1), u + 3 * Math.sqrt(u / 20), 1e-12);
    assertEquals(c.lower().get(2), 0.0);
    assertTrue(c.out().isEmpty());
  }

  /// Fisher, The Design of Experiments, 1935: the lady tasting tea, 3 of 4 right; and the two-sided
  /// example with 1, 9, 11, 3 that textbooks give as 0.0028.
  @Test
  public void fishersExactTest() {
    assertEquals(ExactTest.twoSided(3, 4, 1, 4), 34.0 / 70, 1e-12);
    assertEquals(ExactTest.twoSided(1, 12, 9, 12), 0.002759, 1e-6);
    assertEquals(ExactTest.twoSided(0, 5, 0, 7), 1.0);
    assertEquals(ExactTest.twoSided(2, 4, 3, 6), 1.0, 1e-12);
  }

  /// Against the product that a pencil makes: 100 boards, 5 bad put up with, none found.
  @Test
  public void samplesWithoutReplacement() {
    int n = Sampling.size(100, 0.05, 0.95);
    assertTrue(clean(100, 6, n) <= 0.05 && clean(100, 6, n - 1) > 0.05, "n = " + n);
    assertEquals(Sampling.size(10, 0, 0.95), 10, "to say that none is bad, all are looked at");
    int most = Sampling.proves(100, n, 0.95);
    assertEquals(most, 5);
    assertTrue(clean(50, Sampling.proves(50, 20, 0.9), 20) > 0.1);
    assertTrue(clean(50, Sampling.proves(50, 20, 0.9) + 1, 20) <= 0.1);
  }

  private static double clean(int lot, int bad, int sample) {
    double p = 1;
    for (int i = 0; i < sample; i++) {
      p *= (double) (lot - bad - i) / (lot - i);
    }
    return Math.max(p, 0);
  }

  @Test
  public void everyDefectHasItsOwnWordAndKey() {
    Set<String> seen = new HashSet<>();
    for (DefectKind k : DefectKind.values()) {
      assertTrue(seen.add(k.word()), k.word());
      assertTrue(k.letter().isEmpty() || seen.add("key " + k.letter()), k.letter());
      assertEquals(DefectKind.of(k.word()).orElseThrow(), k);
      assertTrue(!k.causes().isEmpty() && !k.remedy().isEmpty());
    }
  }

  @Test
  public void dpmo() {
    assertEquals(Rates.dpmo(3, 1500), 2000.0);
  }
}
