package ell.core.jig;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;

/// When a jig has paid, worked by hand, and its spread against the integral of it.
public class BreakEvenTest {
  private static BreakEven.Costs costs(double before, double after, double escapes, double coming) {
    return new BreakEven.Costs(200, 10, 30, 30, before, after, escapes, 50, coming);
  }

  /// 200 and ten hours at 30 are 500; four minutes at 30 an hour are 2: after 250 boards.
  @Test
  public void byHand() {
    assertEquals(BreakEven.boards(500, 2), 250);
    BreakEven b = BreakEven.of(costs(5, 1, 0, 100), 0, 1);
    assertEquals(b.fixed(), 500.0);
    assertEquals(b.saved(), 2.0, 1e-12);
    assertEquals(b.boards(), 250.0);
    assertEquals(b.low(), 250.0);
    assertEquals(b.high(), 250.0);
    assertEquals(b.pays(), 0.0);
    // two in a hundred escapes at 50 save one more
    assertEquals(BreakEven.of(costs(5, 1, 0.02, 100), 0, 1).boards(), 167.0);
    BreakEven.Costs c = costs(5, 1, 0.02, 100);
    assertEquals(c.without(167), 167 * (2.5 + 1), 1e-9);
    assertTrue(c.with(167) <= c.without(167) && c.with(166) > c.without(166), "they cross there");
  }

  @Test
  public void whatSavesNothingNeverPays() {
    assertTrue(Double.isInfinite(BreakEven.boards(500, 0)));
    BreakEven b = BreakEven.of(costs(1, 2, 0, 1e6), 0.2, 1);
    assertTrue(Double.isInfinite(b.boards()));
    assertTrue(b.words().contains("never"), b.words());
    assertEquals(BreakEven.boards(0, -1), 0.0);
  }

  /// The share of draws below a count of boards is the area of the square of hours and minutes in
  /// which hours · rate ≤ count · saved; added up here strip by strip.
  @Test
  public void theSpreadIsTheArea() {
    double spread = 0.3;
    BreakEven.Costs c = new BreakEven.Costs(0, 10, 30, 30, 5, 0, 0, 0, 130);
    BreakEven b = BreakEven.of(c, spread, 5);
    assertEquals(share(130, spread), b.pays(), 0.012);
    assertEquals(share(b.low(), spread), 0.1, 0.02);
    assertEquals(share(b.high(), spread), 0.9, 0.02);
  }

  private static double share(double count, double spread) {
    double sum = 0;
    int n = 4000;
    for (int i = 0; i < n; i++) {
      double minutes = 5 * (1 + spread * (2 * (i + 0.5) / n - 1));
      double hours = count * minutes / 60; // those at which it just pays
      sum += Math.clamp((hours / 10 - (1 - spread)) / (2 * spread), 0, 1);
    }
    return sum / n;
  }
}
