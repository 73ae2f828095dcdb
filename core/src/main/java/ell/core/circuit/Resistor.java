package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// Ohm's law.
final class Resistor extends Straight {
  private final double g;

  Resistor(String name, int a, int b, double ohms) {
    super(name, a, b);
    this.g = 1 / ohms;
  }

  @Override
  double siemens(Moment m) {
    return g;
  }

  @Override
  void count(double[] v, Moment m, double seconds, double[] energy, double[] heat) {
    double d = volts(v);
    double joules = seconds * g * d * d;
    energy[place] += joules;
    heat[place] += joules;
  }

  @Override
  double leads() {
    return g;
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new Resistor(name, to.applyAsInt(a), to.applyAsInt(b), 1 / g);
  }
}
