package ell.core.circuit;

import java.util.Comparator;
import java.util.function.IntUnaryOperator;

/// A part of a circuit between nodes. It says which current flows at which volts, and how that
/// changes with them; some remember: a charge, a current, a temperature, or whether they run.
///
/// Node -1 is the reference, 0 V. Currents are in ampere, from the first node through the element.
abstract class Element {
  /// Boltzmann's constant times 300 K over the charge of an electron, volt. Source: CODATA.
  static final double THERMAL_VOLT = 0.025852;

  /// Elements of one kind together: a processor goes faster through many of the same.
  static final Comparator<Element> BY_KIND =
      Comparator.comparing((Element e) -> e.getClass().getName());

  final String name;

  /// Its place among the elements of its circuit.
  int place;

  /// Where its remembered numbers begin among those of the circuit.
  int first;

  /// What it does of several things, as running or not; 0 before power.
  int mode;

  Element(String name) {
    this.name = name;
  }

  /// Which moment of a step is solved.
  ///
  /// @param slice seconds of which the remembered numbers change with their present slope; 0 asks
  ///   for what stays once nothing changes any more
  /// @param base the remembered numbers before it
  /// @param softness 0 for the circuit as it is; up to 1 for one whose corners are ever rounder,
  ///   which is solved on the way only
  record Moment(double slice, double[] base, double softness) {
    Moment(double slice, double[] base) {
      this(slice, base, 0);
    }

    Moment soft(double by) {
      return new Moment(slice, base, by);
    }

    boolean still() {
      return slice == 0;
    }
  }

  /// Volts of a node.
  static double at(double[] v, int node) {
    return node < 0 ? 0 : v[node];
  }

  /// Writes the element at some volts.
  abstract void stamp(Stamp s, double[] v, Moment m);

  /// Watts that go into it at some volts, from all of its nodes.
  abstract double power(double[] v, Moment m);

  /// Watts that become heat in it: what goes in, unless it stores some.
  double heat(double[] v, Moment m) {
    return power(v, m);
  }

  /// Counts what went into it, and what of it became heat, over some time. It has its [#place] in
  /// both accounts.
  void count(double[] v, Moment m, double seconds, double[] energy, double[] heat) {
    energy[place] += seconds * power(v, m);
    heat[place] += seconds * heat(v, m);
  }

  /// The current that is asked for by its name: from its first node.
  abstract double amps(double[] v, Moment m);

  /// Siemens between its ends at volts too low for any junction; 0 where it does not lead.
  double leads() {
    return 0;
  }

  /// How many numbers it remembers.
  int memory() {
    return 0;
  }

  /// The remembered numbers of a fresh circuit.
  void fresh(double[] x) {}

  /// How fast the remembered numbers change, each second.
  void slope(double[] v, Moment m, double[] out) {}

  /// What of a remembered number is too little to care for.
  double small(int which) {
    return 1e-4;
  }

  /// What it would do of several things at these volts.
  int next(double[] v, Moment m) {
    return mode;
  }

  /// Nodes that it touches.
  abstract int[] nodes();

  /// The same element between other nodes.
  ///
  /// @param to tells the node in place of each that it touches
  protected abstract Element between(IntUnaryOperator to);

  /// The same element between other nodes, remembering and doing the same.
  final Element moved(IntUnaryOperator to) {
    Element e = between(to);
    e.place = place;
    e.first = first;
    e.mode = mode;
    return e;
  }
}
