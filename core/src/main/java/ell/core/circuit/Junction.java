package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// A junction: the law of Shockley behind a series resistance, with a breakdown the other way.
///
/// Junction and resistance are solved together, so that the current grows with the volts no faster
/// than the resistance lets it.
final class Junction extends TwoEnds {
  private static final int ROUNDS = 60;
  private static final double NEAR = 0.5;
  private static final double BREAKS = 1e-3;
  private static final double SAME = 1e-7;

  private final Diode law;
  private final Behind on;
  private final Behind off;
  private final double none;
  private double solvedAt = Double.NaN;
  private double solvedAmps;
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

  /// A junction behind its resistance that was solved before is begun from there.
  private static final class Behind {
    private final double saturation;
    private final double volts;
    private final double ohms;
    private double lastVolts = Double.NaN;
    private double lastInner;
    private double amps;
    private double slope;

    Behind(double saturation, double volts, double ohms) {
      this.saturation = saturation;
      this.volts = volts;
      this.ohms = ohms;
    }

    void solve(double v) {
      // from above the law falls to its root without going past it
      double inner = v;
      if (Math.abs(v - lastVolts) < NEAR * volts) {
        inner = lastInner + Math.max(0, v - lastVolts);
      } else if (v > 0) {
        inner = Math.min(v, volts * Math.log1p(v / (ohms * saturation)));
      }
      double e = saturation * Math.exp(inner / volts);
      for (int i = 0; i < ROUNDS; i++) {
        double step = (inner + ohms * (e - saturation) - v) / (1 + ohms * e / volts);
        inner -= step;
        e = saturation * Math.exp(inner / volts);
        if (Math.abs(step) <= 1e-9 * volts) {
          break; // the next one, of Newton's order, is beyond what a number holds
        }
      }
      lastVolts = v;
      lastInner = inner;
      amps = e - saturation;
      slope = 1 / (ohms + volts / e);
    }
  }

  private void at(double v) {
    // so near to where it was solved before the line of its slope is the law, to 1e-11
    if (Math.abs(v - solvedAt) < SAME) {
      amps = solvedAmps + slope * (v - solvedAt);
      return;
    }
    on.solve(v);
    solvedAmps = on.amps;
    slope = on.slope;
    if (off != null) {
      // at the breakdown itself a milliampere flows, and nothing at no volts
      off.solve(-v - law.breakdown());
      solvedAmps -= off.amps + BREAKS - none;
      slope += off.slope;
    }
    solvedAt = v;
    amps = solvedAmps;
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
