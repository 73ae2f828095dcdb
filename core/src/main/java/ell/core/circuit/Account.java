package ell.core.circuit;

import java.util.Arrays;

/// What went into each element of a run, and what of it became heat.
///
/// While little changes it is counted now and then: between two moments as between the ends of a
/// line.
final class Account {
  private final Element[] elements;
  private final double[] joules;
  private final double[] heat;
  private double[] watts;
  private double[] warms;
  private double[] nextWatts;
  private double[] nextWarms;
  private double since;
  private boolean open;

  Account(Element[] elements) {
    this.elements = elements;
    joules = new double[elements.length];
    heat = new double[elements.length];
    watts = new double[elements.length];
    warms = new double[elements.length];
    nextWatts = new double[elements.length];
    nextWarms = new double[elements.length];
  }

  /// Counts some seconds of a moment.
  void add(double[] v, Element.Moment m, double seconds) {
    for (Element e : elements) {
      e.count(v, m, seconds, joules, heat);
    }
  }

  /// Whether it counts from a moment on to one that is still to come.
  boolean open() {
    return open;
  }

  /// Counts from a moment on.
  void open(double[] v, Element.Moment m, double time) {
    watts(v, m);
    swap();
    since = time;
    open = true;
  }

  /// Counts up to a moment, and from it on.
  void upTo(double[] v, Element.Moment m, double time) {
    if (open && time > since) {
      watts(v, m);
      double half = (time - since) / 2;
      for (int i = 0; i < joules.length; i++) {
        joules[i] += half * (watts[i] + nextWatts[i]);
        heat[i] += half * (warms[i] + nextWarms[i]);
      }
      swap();
      since = time;
    }
  }

  /// Counts up to a moment, with the elements no longer as they were in it.
  void close(double time) {
    if (open) {
      for (int i = 0; i < joules.length; i++) {
        joules[i] += (time - since) * watts[i];
        heat[i] += (time - since) * warms[i];
      }
      open = false;
    }
  }

  /// Counts up to a moment, and no further.
  void close(double[] v, Element.Moment m, double time) {
    upTo(v, m, time);
    open = false;
  }

  private void watts(double[] v, Element.Moment m) {
    Arrays.fill(nextWatts, 0);
    Arrays.fill(nextWarms, 0);
    for (Element e : elements) {
      e.count(v, m, 1, nextWatts, nextWarms);
    }
  }

  private void swap() {
    double[] w = watts;
    watts = nextWatts;
    nextWatts = w;
    double[] h = warms;
    warms = nextWarms;
    nextWarms = h;
  }

  /// Joules that went into an element, by its place.
  double joules(int element) {
    return joules[element];
  }

  /// Joules that became heat in it.
  double heat(int element) {
    return heat[element];
  }

  /// Joules into all of them together.
  double balance() {
    double sum = 0;
    for (double j : joules) {
      sum += j;
    }
    return sum;
  }
}
