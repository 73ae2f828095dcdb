package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// A cell with its own resistance, which gives and takes. It remembers its charge; its volts go
/// straight from empty to full.
final class Cell extends TwoEnds {
  private final double empty;
  private final double full;
  private final double ohms;
  private final double coulombs;
  private final double share;

  /// @param empty its volts without charge
  /// @param share of its charge that it begins with, 0...1
  Cell(
      String name,
      int plus,
      int minus,
      double empty,
      double full,
      double ohms,
      double coulombs,
      double share) {
    super(name, plus, minus);
    this.empty = empty;
    this.full = full;
    this.ohms = ohms;
    this.coulombs = coulombs;
    this.share = share;
  }

  /// Volts without load before the moment.
  private double own(Moment m) {
    return empty + (full - empty) * m.base()[first];
  }

  /// Its resistance, and what its own volts give way for each ampere over the moment.
  private double behind(Moment m) {
    return ohms + (full - empty) * m.slice() / coulombs;
  }

  double most() {
    return Math.max(empty, full);
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    s.conduct(a, b, 1 / behind(m));
    s.pull(b, a, own(m) / behind(m));
  }

  @Override
  double amps(double[] v, Moment m) {
    return (own(m) - volts(v)) / behind(m);
  }

  @Override
  double power(double[] v, Moment m) {
    return -amps(v, m) * volts(v);
  }

  @Override
  double heat(double[] v, Moment m) {
    double i = amps(v, m);
    return i * i * ohms;
  }

  @Override
  int memory() {
    return 1;
  }

  @Override
  void fresh(double[] x) {
    x[first] = share;
  }

  @Override
  void slope(double[] v, Moment m, double[] out) {
    out[first] = -amps(v, m) / coulombs;
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new Cell(name, to.applyAsInt(a), to.applyAsInt(b), empty, full, ohms, coulombs, share);
  }
}
