package ell.core.beep;

import ell.core.board.Joint;
import ell.core.statistic.Normal;
import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;

/// How well milliohm readings along a net agree with a short at each of some places.
///
/// The ohms from a joint to the short grow with the way along the copper: R = R0 + k·d, with what
/// the short and the way of the other tip take in R0, k not below 0. What is not known is not
/// chosen but summed over, each with how likely it is: R0 is anything, k lies about half a milliohm
/// a millimetre (a track 1 mm wide of 35 µm copper; typical, no source), the readings may be
/// noisier than they look, and tracks that bend and change their width make each stretch of the way
/// differ from the straight line. As the ways of neighbours share most of their copper, more than
/// five readings count as five. So readings that no short explains speak for no place.
public final class AlongCopper {
  /// What a good milliohm meter leaves open, ohms; typical, no source.
  private static final double LEAST_OHM = 3e-4;

  private static final double LEAST_VOLT = 5e-5;

  /// A share of the reading that its instrument leaves open.
  private static final double SHARE = 0.005;

  private static final double OHM_PER_MM = 5e-4;
  private static final double OHM_FACTOR = 2.5;
  private static final double LEAST_PER_MM = 1e-5;
  private static final double MOST_PER_MM = 1e-2;
  private static final int STEPS = 28;

  /// Copper is a chain of stretches of this length, each with ohms of its own that are off by a
  /// share; so a long way is off by less of it than a short one. Even tracks and uneven ones are as
  /// likely. Typical, no source.
  private static final double STRETCH_MM = 5;

  private static final double[] OFF = {0.1, 0.5};

  /// Joints that lie near each other share most of their way, and with it what is off on it: many
  /// readings count as so many together.
  private static final int INDEPENDENT = 5;

  /// Of the sum over what one joint may read: points, and how far out.
  private static final int GRID = 16;

  private static final double SPAN = 3.5;

  private static final double[] NOISIER = {1, 3, 10, 30, 100};
  private static final double[] NOISIER_CHANCE = {0.4, 0.2, 0.15, 0.15, 0.1};

  private AlongCopper() {}

  /// A place of the short, millimetres.
  public record Spot(double xMm, double yMm) {}

  /// The likelihood of the readings at each place, the best 1; all 1 where they say nothing.
  public static double[] fits(List<Spot> places, ShortPlaces.Readings all) {
    int n = all.at().size();
    double[] fit = new double[places.size()];
    if (n < 2) {
      java.util.Arrays.fill(fit, 1);
      return fit;
    }
    double[] floor = new double[n];
    double[] ohms = new double[n];
    for (int i = 0; i < n; i++) {
      ohms[i] = all.at().get(i).ohms();
      floor[i] = floor(ohms[i], all.feed());
    }
    double best = Double.NEGATIVE_INFINITY;
    double[] ways = new double[n];
    for (int p = 0; p < fit.length; p++) {
      for (int i = 0; i < n; i++) {
        ways[i] = way(all.at().get(i).joint(), places.get(p), all.feed());
      }
      fit[p] = logLikelihood(ohms, floor, ways);
      best = Math.max(best, fit[p]);
    }
    double counts = Math.min(1, (double) INDEPENDENT / n);
    for (int p = 0; p < fit.length; p++) {
      fit[p] = Math.exp(counts * (fit[p] - best));
    }
    return fit;
  }

  /// What a reading leaves open: its instrument, and the digits that were written down.
  private static double floor(double ohms, Optional<ShortPlaces.Feed> feed) {
    double own = Math.max(LEAST_OHM, SHARE * Math.abs(ohms));
    return feed.isPresent()
        ? Math.max(own, LEAST_VOLT / feed.get().amps())
        : Math.max(own, 0.5 * step(ohms));
  }

  /// The last digit of a number.
  private static double step(double v) {
    return v == 0 || !Double.isFinite(v)
        ? 0
        : Math.pow(10, -BigDecimal.valueOf(v).stripTrailingZeros().scale());
  }

  /// The logarithm of the density of the readings where the short is `ways` from their joints.
  static double logLikelihood(double[] ohms, double[] floor, double[] ways) {
    double top = Double.NEGATIVE_INFINITY;
    double sum = 0;
    for (int c = 0; c < NOISIER.length * OFF.length * STEPS; c++) {
      int m = c / OFF.length / STEPS;
      double off = OFF[c / STEPS % OFF.length];
      double k = LEAST_PER_MM * Math.pow(MOST_PER_MM / LEAST_PER_MM, c % STEPS / (STEPS - 1.0));
      double z = Math.log(k / OHM_PER_MM) / Math.log(OHM_FACTOR);
      double log =
          Math.log(NOISIER_CHANCE[m]) - z * z / 2 + density(ohms, floor, ways, k, off, NOISIER[m]);
      if (log > top) {
        sum = sum * Math.exp(top - log) + 1;
        top = log;
      } else {
        sum += Math.exp(log - top);
      }
    }
    return top + Math.log(sum);
  }

  /// Of independent normal readings about R0 + k·d, summed over every R0.
  private static double density(
      double[] ohms, double[] floor, double[] ways, double k, double share, double noisier) {
    double sw = 0;
    double swx = 0;
    double swxx = 0;
    double logs = 0;
    for (int i = 0; i < ohms.length; i++) {
      double own = noisier * floor[i];
      double off = off(k, share, ways[i]);
      double w = 1 / (own * own + off * off);
      double x = ohms[i] - k * ways[i];
      sw += w;
      swx += w * x;
      swxx += w * x * x;
      logs += Math.log(w);
    }
    return logs / 2 - Math.log(sw) / 2 - Math.max(0, swxx - swx * swx / sw) / 2;
  }

  /// By how much the ohms of a way are off.
  private static double off(double k, double share, double mm) {
    return share * k * Math.sqrt(Math.max(0, mm) * STRETCH_MM);
  }

  /// Millimetres of copper between a joint and a place over which the readings change.
  static double way(Joint joint, Spot at, Optional<ShortPlaces.Feed> feed) {
    double here = Math.hypot(joint.xMm() - at.xMm(), joint.yMm() - at.yMm());
    if (feed.isEmpty()) {
      return here;
    }
    Joint f = feed.get().joint();
    return (here + Math.hypot(f.xMm() - at.xMm(), f.yMm() - at.yMm()) - f.distanceMm(joint)) / 2;
  }

  /// How likely it is that a joint reads least, of some, where the short is `ways` from each: over
  /// three copper widths, with what a good meter leaves open.
  ///
  /// @return one for each, they sum to 1
  public static double[] least(double[] ways) {
    double[] chance = new double[ways.length];
    for (double k : new double[] {OHM_PER_MM / OHM_FACTOR, OHM_PER_MM, OHM_PER_MM * OHM_FACTOR}) {
      double[] one = least(ways, k);
      for (int i = 0; i < chance.length; i++) {
        chance[i] += one[i] / 3;
      }
    }
    return chance;
  }

  private static double[] least(double[] ways, double k) {
    int n = ways.length;
    double[] sd = new double[n];
    for (int i = 0; i < n; i++) {
      sd[i] = Math.hypot(2 * LEAST_OHM, off(k, OFF[1], ways[i]));
    }
    double[] chance = new double[n];
    double sum = 0;
    for (int i = 0; i < n; i++) {
      for (int g = 0; g < GRID; g++) {
        double z = SPAN * ((g + 0.5) / GRID * 2 - 1);
        double x = k * ways[i] + z * sd[i];
        double p = Math.exp(-z * z / 2);
        for (int j = 0; j < n; j++) {
          if (j != i) {
            p *= Normal.below((k * ways[j] - x) / sd[j]);
          }
        }
        chance[i] += p;
      }
      sum += chance[i];
    }
    for (int i = 0; i < n; i++) {
      chance[i] /= sum;
    }
    return chance;
  }
}
