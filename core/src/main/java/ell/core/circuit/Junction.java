package ell.core.circuit;

/// A junction: the law of Shockley behind a series resistance, with a breakdown the other way.
///
/// Junction and resistance are solved together, so that the current grows with the volts no faster
/// than the resistance lets it.
final class Junction extends Element {
  private static final int ROUNDS = 60;

  private final int anode;
  private final int cathode;
  private final Diode law;

  Junction(String name, int anode, int cathode, Diode law) {
    super(name);
    this.anode = anode;
    this.cathode = cathode;
    this.law = law;
  }

  /// Current of a junction of `n` thermal volts with a resistance, and its slope.
  private static double[] forward(double v, double saturation, double volts, double ohms) {
    double vd = v;
    if (v > 0) {
      vd = Math.min(v, volts * Math.log1p(v / (ohms * saturation)));
    }
    for (int i = 0; i < ROUNDS; i++) {
      double e = saturation * Math.exp(vd / volts);
      double f = vd + ohms * (e - saturation) - v;
      double step = f / (1 + ohms * e / volts);
      vd -= step;
      if (Math.abs(step) <= 1e-15 + 1e-15 * Math.abs(vd)) {
        break;
      }
    }
    double e = saturation * Math.exp(vd / volts);
    return new double[] {e - saturation, 1 / (ohms + volts / e)};
  }

  private double[] at(double v) {
    double[] on = forward(v, law.saturation(), law.ideality() * THERMAL_VOLT, law.ohms());
    if (Double.isFinite(law.breakdown())) {
      // at the breakdown itself a milliampere flows
      double back = -v - law.breakdown();
      double[] off = forward(back, 1e-3, THERMAL_VOLT, law.ohms());
      on[0] -= off[0] + 1e-3;
      on[1] += off[1];
      // and nothing at no volts
      double none = forward(-law.breakdown(), 1e-3, THERMAL_VOLT, law.ohms())[0] + 1e-3;
      on[0] += none;
    }
    return on;
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    double d = at(v, anode) - at(v, cathode);
    double[] i = at(d);
    s.conduct(anode, cathode, i[1]);
    s.pull(anode, cathode, i[0] - i[1] * d);
  }

  @Override
  double amps(double[] v, Moment m) {
    return at(at(v, anode) - at(v, cathode))[0];
  }

  @Override
  double power(double[] v, Moment m) {
    return amps(v, m) * (at(v, anode) - at(v, cathode));
  }

  @Override
  int[] nodes() {
    return new int[] {anode, cathode};
  }
}
