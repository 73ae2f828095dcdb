package ell.core.circuit;

/// An element whose current goes straight with its volts while a moment is solved.
abstract class Straight extends TwoEnds {
  Straight(String name, int a, int b) {
    super(name, a, b);
  }

  /// Its conductance, which depends on how long the moment is and on nothing else of it.
  abstract double siemens(Moment m);

  /// What flows at no volts, A.
  double pulls(Moment m) {
    return 0;
  }

  @Override
  final void stamp(Stamp s, double[] v, Moment m) {
    s.conduct(a, b, siemens(m));
    s.pull(a, b, pulls(m));
  }

  @Override
  double amps(double[] v, Moment m) {
    return siemens(m) * volts(v) + pulls(m);
  }
}
