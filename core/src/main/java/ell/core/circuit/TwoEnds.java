package ell.core.circuit;

/// An element between two nodes.
abstract class TwoEnds extends Element {
  final int a;
  final int b;

  /// @param a where its current goes in, or the plus of what gives
  TwoEnds(String name, int a, int b) {
    super(name);
    this.a = a;
    this.b = b;
  }

  /// Volts over it.
  final double volts(double[] v) {
    return at(v, a) - at(v, b);
  }

  @Override
  double power(double[] v, Moment m) {
    return amps(v, m) * volts(v);
  }

  @Override
  final int[] nodes() {
    return new int[] {a, b};
  }
}
