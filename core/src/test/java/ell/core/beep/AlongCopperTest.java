package ell.core.beep;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.beep.AlongCopper.Spot;
import ell.core.board.Joint;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What milliohms along a net say of where it touches another: against a sum worked out otherwise,
/// against drawn readings, and on copper whose answer is known.
public class AlongCopperTest {
  private static Joint joint(int i, double x) {
    return new Joint(
        "C" + i, "1", "3V3", x, 0, Joint.Reach.FIRST, false, 0, true, 1, 1, 0, false, 0);
  }

  private static ShortPlaces.Readings readings(double[] x, double[] ohms) {
    List<ShortPlaces.At> at = new ArrayList<>();
    for (int i = 0; i < x.length; i++) {
      at.add(new ShortPlaces.At(joint(i, x[i]), ohms[i]));
    }
    return new ShortPlaces.Readings(at, Optional.empty());
  }

  private static List<Spot> row(double... x) {
    return java.util.Arrays.stream(x).mapToObj(v -> new Spot(v, 0)).toList();
  }

  @DataProvider
  Object[][] places() {
    return new Object[][] {{0}, {1}, {2}, {3}, {4}, {5}};
  }

  /// On an even track of 0.5 mΩ a millimetre and a short of 80 mΩ the place is found, whichever it
  /// is, from every second joint.
  @Test(dataProvider = "places")
  public void anEvenTrackPointsToThePlace(int at) {
    double[] x = {0, 24, 48};
    double[] ohms = new double[3];
    for (int i = 0; i < 3; i++) {
      ohms[i] = 0.08 + 5e-4 * Math.abs(x[i] - 12 * at);
    }
    double[] fit = AlongCopper.fits(row(0, 12, 24, 36, 48, 60), readings(x, ohms));
    int best = 0;
    for (int i = 1; i < fit.length; i++) {
      best = fit[i] > fit[best] ? i : best;
    }
    // behind the last joint every place gives the same differences
    assertEquals(Math.min(best, 4), Math.min(at, 4), java.util.Arrays.toString(fit));
    assertEquals(fit[best], 1, 0);
  }

  /// The sum over what is not known, by a fine grid over R0 as well, and the normal density written
  /// out: another solution of the same integral.
  @Test
  public void theSumOverWhatIsNotKnown() {
    double[] ohms = {0.031, 0.024, 0.027};
    double[] floor = {3e-4, 3e-4, 3e-4};
    double near = other(ohms, floor, new double[] {14, 1, 6});
    double far = other(ohms, floor, new double[] {3, 12, 9});
    double own =
        AlongCopper.logLikelihood(ohms, floor, new double[] {14, 1, 6})
            - AlongCopper.logLikelihood(ohms, floor, new double[] {3, 12, 9});
    assertEquals(own, Math.log(near / far), 1e-3 * Math.abs(own));
    assertTrue(own > 3, "and it speaks for the place to which the readings fall: " + own);
  }

  private static double other(double[] ohms, double[] floor, double[] ways) {
    double[] times = {1, 3, 10, 30, 100};
    double[] share = {0.4, 0.2, 0.15, 0.15, 0.1};
    double sum = 0;
    for (int m = 0; m < times.length; m++) {
      for (double off : new double[] {0.1, 0.5}) {
        for (int s = 0; s < 28; s++) {
          double k = 1e-5 * Math.pow(1000, s / 27.0);
          double z = Math.log(k / 5e-4) / Math.log(2.5);
          double over = 0;
          double step = 2e-5;
          for (double r0 = -0.4; r0 < 0.5; r0 += step) {
            double p = step;
            for (int i = 0; i < ohms.length; i++) {
              double sd = Math.hypot(times[m] * floor[i], off * k * Math.sqrt(ways[i] * 5));
              double e = (ohms[i] - r0 - k * ways[i]) / sd;
              p *= Math.exp(-e * e / 2) / sd;
            }
            over += p;
          }
          sum += share[m] * Math.exp(-z * z / 2) * over;
        }
      }
    }
    return sum;
  }

  /// A meter with two wires reads the same everywhere but for the tips: no place is accused.
  @Test
  public void readingsThatNoShortExplainsAccuseNobody() {
    Random random = new Random(4);
    int accused = 0;
    for (int round = 0; round < 200; round++) {
      double[] x = {0, 6, 12, 18, 24};
      double[] ohms = new double[5];
      for (int i = 0; i < 5; i++) {
        ohms[i] = 0.25 + 0.02 * random.nextGaussian();
      }
      double[] fit = AlongCopper.fits(row(x), readings(x, ohms));
      double sum = 0;
      for (double f : fit) {
        sum += f;
      }
      accused += 1 / sum > 0.9 ? 1 : 0;
    }
    assertTrue(accused <= 4, accused + " of 200 times one of five gets more than 0.9");
  }

  /// What was written with two digits is known to its last digit only.
  @Test
  public void digitsThatWereNotWrittenSayNothing() {
    double[] x = {0, 30};
    double[] coarse = AlongCopper.fits(row(0, 30), readings(x, new double[] {0.1, 0.2}));
    double[] fine = AlongCopper.fits(row(0, 30), readings(x, new double[] {0.1001, 0.1102}));
    assertTrue(coarse[1] > 5 * fine[1], coarse[1] + " against " + fine[1]);
    double[] one = AlongCopper.fits(row(0, 30), readings(new double[] {0}, new double[] {0.1}));
    assertEquals(one, new double[] {1, 1}, "one reading says nothing of where");
  }

  /// Which joint reads least, against readings that are drawn.
  @Test
  public void whoReadsLeast() {
    double[] ways = {0, 4, 9, 15};
    double[] chance = AlongCopper.least(ways);
    double sum = 0;
    for (double c : chance) {
      sum += c;
    }
    assertEquals(sum, 1, 1e-12);
    Random random = new Random(11);
    int[] count = new int[4];
    int rounds = 60_000;
    for (int i = 0; i < rounds; i++) {
      double k = 5e-4 * Math.pow(2.5, i % 3 - 1);
      int least = 0;
      double low = Double.POSITIVE_INFINITY;
      for (int j = 0; j < 4; j++) {
        double r =
            k * ways[j]
                + random.nextGaussian() * Math.hypot(6e-4, 0.5 * k * Math.sqrt(5 * ways[j]));
        if (r < low) {
          low = r;
          least = j;
        }
      }
      count[least]++;
    }
    for (int j = 0; j < 4; j++) {
      assertEquals(chance[j], count[j] / (double) rounds, 0.012, "joint " + j);
    }
  }
}
