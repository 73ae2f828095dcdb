package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// A junction: the law of Shockley behind a series resistance, with a breakdown the other way.
///
/// Junction and resistance are solved together, so that the current grows with the volts no faster
/// than the resistance lets it.
final class Junction extends TwoEnds {
  private static final int ROUNDS = 8;

  /// Below this z its solution is its exponential, to what a number holds.
  private static final double FAINT = -38;

  /// So near to the last z a parabola is a good guess.
  private static final double BESIDE = 0.5;

  private static final double TWO_THIRDS = 2.0 / 3;

  /// What is left before the last step; after it less than 1e-13.
  private static final double ONE_MORE = 1e-3;

  private static final double SOFTER = 0.5;
  private static final double BREAKS = 1e-3;

  /// Volts.
  private static final double SAME = 1e-5;

  private final Diode law;
  private final Behind on;
  private final Behind off;
  private final double none;
  private double solvedAt = Double.NaN;
  private double solvedAmps;
  private double solvedSlope;
  private double bend;
  private double slope;
  private double amps;

  Junction(String name, int anode, int cathode, Diode law) {
    super(name, anode, cathode);
    this.law = law;
    on = new Behind(law.saturation(), law.ideality() * THERMAL_VOLT, law.ohms());
    if (Double.isFinite(law.breakdown())) {
      off = new Behind(BREAKS, THERMAL_VOLT, law.ohms());
      off.solve(-law.breakdown());
      none = off.amps + BREAKS;
    } else {
      off = null;
      none = 0;
    }
  }

  /// A junction behind its resistance. With u, what the resistance drops in thermal volts, the two
  /// laws together are u + ln u = z, whose solution is Wright's omega function of z. Source for the
  /// step towards it, of order four: Fritsch, Shafer and Crowley, Algorithm 443, 1973.
  private static final class Behind {
    private final double saturation;
    private final double volts;
    private final double ohms;
    private final double unit; // ampere of u
    private final double none; // z at no volts
    private final double each; // z by volts
    private double lastZ = Double.NaN; // where it was solved before, the next one begins
    private double last;
    private double amps;
    private double slope;
    private double bend;

    Behind(double saturation, double volts, double ohms) {
      this.saturation = saturation;
      this.volts = volts;
      this.ohms = ohms;
      unit = volts / ohms;
      none = saturation / unit + Math.log(saturation / unit);
      each = 1 / volts;
    }

    void solve(double v) {
      double e = omega(none + v * each) * unit;
      double both = 1 / (ohms * e + volts);
      amps = e - saturation;
      slope = e * both;
      bend = slope * volts * both * both;
    }

    private double omega(double z) {
      double u = z < FAINT ? Math.exp(z) : near(z); // which no longer counts beside its logarithm
      last = u;
      lastZ = z;
      return u;
    }

    private double near(double z) {
      double u = guess(z);
      double left = z - u - Math.log(u);
      for (int i = 0; i < ROUNDS; i++) {
        double more = 1 + u;
        double both = more * (more + left * TWO_THIRDS);
        u *= 1 + left * (both - 0.5 * left) / (more * (both - left));
        if (Math.abs(left) < ONE_MORE) {
          break; // the next one, of order four, is beyond what a number holds
        }
        left = z - u - Math.log(u);
      }
      return u;
    }

    /// From where it was solved before by how it grows there, or from far away.
    private double guess(double z) {
      double on = z - lastZ;
      if (Math.abs(on) < BESIDE && lastZ >= FAINT) {
        double share = on / (1 + last);
        return last * (1 + share + 0.5 * share * share / (1 + last));
      }
      return z > 1 ? z - Math.log(z) * z / (1 + z) : Math.exp(z) / (1 + Math.exp(z - SOFTER));
    }
  }

  private void at(double v) {
    // so near to where it was solved before its slope and how that bends are the law, to 1e-11
    double beside = v - solvedAt;
    if (Math.abs(beside) < SAME) {
      amps = solvedAmps + beside * (solvedSlope + beside * bend / 2);
      slope = solvedSlope + beside * bend;
      return;
    }
    on.solve(v);
    solvedAmps = on.amps;
    solvedSlope = on.slope;
    bend = on.bend;
    if (off != null) {
      // at the breakdown itself a milliampere flows, and nothing at no volts
      off.solve(-v - law.breakdown());
      solvedAmps -= off.amps + BREAKS - none;
      solvedSlope += off.slope;
      bend -= off.bend;
    }
    solvedAt = v;
    amps = solvedAmps;
    slope = solvedSlope;
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    double d = volts(v);
    at(d);
    s.conduct(a, b, slope);
    s.pull(a, b, amps - slope * d);
  }

  @Override
  double amps(double[] v, Moment m) {
    at(volts(v));
    return amps;
  }

  @Override
  void count(double[] v, Moment m, double seconds, double[] energy, double[] heat) {
    double joules = seconds * power(v, m);
    energy[place] += joules;
    heat[place] += joules;
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new Junction(name, to.applyAsInt(a), to.applyAsInt(b), law);
  }
}
