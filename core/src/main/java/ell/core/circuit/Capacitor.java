package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// A capacitance behind its series resistance, with a leakage beside both. It remembers the volts
/// of the capacitance.
final class Capacitor extends Straight {
  private final double farads;
  private final double series;
  private final double leak;
  private double lastSlice = -1;
  private double lastCharging;

  /// @param leakOhms may be infinite
  Capacitor(String name, int a, int b, double farads, double seriesOhms, double leakOhms) {
    super(name, a, b);
    this.farads = farads;
    this.series = seriesOhms;
    this.leak = 1 / leakOhms;
  }

  private double charging(Moment m) {
    if (m.slice() != lastSlice) {
      lastSlice = m.slice();
      lastCharging = m.still() ? 0 : 1 / (series + m.slice() / farads);
    }
    return lastCharging;
  }

  private double into(double[] v, Moment m) {
    return m.still() ? 0 : charging(m) * (volts(v) - m.base()[first]);
  }

  @Override
  double siemens(Moment m) {
    return charging(m) + leak;
  }

  @Override
  double pulls(Moment m) {
    return m.still() ? 0 : -charging(m) * m.base()[first];
  }

  @Override
  double amps(double[] v, Moment m) {
    return into(v, m) + leak * volts(v);
  }

  @Override
  double heat(double[] v, Moment m) {
    double i = into(v, m);
    double d = volts(v);
    return i * i * series + d * d * leak;
  }

  @Override
  void count(double[] v, Moment m, double seconds, double[] energy, double[] heat) {
    double into = into(v, m);
    double d = volts(v);
    double leaks = d * d * leak;
    energy[place] += seconds * (into * d + leaks);
    heat[place] += seconds * (into * into * series + leaks);
  }

  @Override
  int memory() {
    return 1;
  }

  @Override
  void slope(double[] v, Moment m, double[] out) {
    out[first] = into(v, m) / farads;
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new Capacitor(name, to.applyAsInt(a), to.applyAsInt(b), farads, series, 1 / leak);
  }
}
