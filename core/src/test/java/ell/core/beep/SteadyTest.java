package ell.core.beep;

import static org.testng.Assert.assertEquals;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Readings that take themselves, from what a meter shows while tips come, hold and go. Sequences
/// are made up; the rules are common practice, no source.
public final class SteadyTest {
  private static final double OPEN = Double.POSITIVE_INFINITY;

  private static List<Long> taken(boolean open, double... looks) {
    Steady s = new Steady(open);
    List<Long> all = new ArrayList<>();
    for (double l : looks) {
      s.look(l).ifPresent(v -> all.add(Double.isInfinite(v) ? -1 : Math.round(v * 10)));
    }
    return all;
  }

  @DataProvider
  Object[][] sequences() {
    return new Object[][] {
      {"nothing touches", new double[] {OPEN, OPEN, OPEN, OPEN, OPEN, OPEN}, List.of()},
      {"it settles", new double[] {OPEN, 9, 0.4, 0.3, 0.3, 0.3, 0.4, 0.3, 0.3}, List.of(3L)},
      {"held for long it is one", new double[] {1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1}, List.of(10L)},
      {
        "lifted and set down on the same",
        new double[] {1, 1, 1, 1, 1, OPEN, 1, 1, 1, 1},
        List.of(10L, 10L)
      },
      {
        "moved to another without a look between",
        new double[] {1, 1, 1, 1, 100, 100, 100, 100},
        List.of(10L, 1000L)
      },
      {"a capacitor that charges", new double[] {1, 10, 60, 200, 500, 1000, 3000}, List.of()},
      {"flutter", new double[] {0.3, OPEN, 0.3, OPEN, 0.3, OPEN, 0.3, 0.3}, List.of()},
    };
  }

  @Test(dataProvider = "sequences")
  public void whatIsSteadyIsTakenOnce(String what, double[] looks, List<Long> readings) {
    assertEquals(taken(false, looks), readings, what);
  }

  @Test
  public void whereTheTipsAreKnownToTouchAnOpenLoopIsOne() {
    assertEquals(taken(true, OPEN, OPEN, OPEN, OPEN, OPEN), List.of(-1L));
    Steady s = new Steady(true);
    int n = 0;
    for (int i = 0; i < 12; i++) {
      n += s.look(OPEN).isPresent() ? 1 : 0;
      if (i % 4 == 3) {
        s.moved();
      }
    }
    assertEquals(n, 3);
  }

  /// A meter's noise of one digit and a per cent does not keep it from settling.
  @Test
  public void noiseIsNoMovement() {
    Random random = new Random(3);
    for (int round = 0; round < 100; round++) {
      double r = Math.pow(10, 5 * random.nextDouble());
      Steady s = new Steady(false);
      int n = 0;
      for (int i = 0; i < 30; i++) {
        n += s.look(r * (1 + 0.008 * (2 * random.nextDouble() - 1))).isPresent() ? 1 : 0;
      }
      assertEquals(n, 1, "at " + r);
    }
  }
}
