package ell.core.pulse.bus;

import ell.core.pulse.Wave;
import ell.core.series.Series;
import java.util.Arrays;

/// A capture as an input with two thresholds sees it: the moments at which its level changes.
public final class Levels {
  private static final double LOWER = 0.3;
  private static final double UPPER = 0.7;

  private final boolean first;
  private final double[] changes;
  private final double begin;
  private final double end;

  private Levels(boolean first, double[] changes, double begin, double end) {
    this.first = first;
    this.changes = changes;
    this.begin = begin;
    this.end = end;
  }

  /// By thresholds.
  ///
  /// @param vil the most that is low, V
  /// @param vih the least that is high, V
  public static Levels of(Series s, double vil, double vih) {
    boolean high = s.value(0) > (vil + vih) / 2;
    boolean first = high;
    double[] all = new double[16];
    int n = 0;
    for (int i = 1; i < s.size(); i++) {
      double v = s.value(i);
      if (high ? v <= vil : v >= vih) {
        double level = high ? vil : vih;
        double a = s.value(i - 1);
        double t =
            v == a
                ? s.second(i)
                : s.second(i - 1)
                    + (s.second(i) - s.second(i - 1)) * Math.clamp((level - a) / (v - a), 0, 1);
        all = n == all.length ? Arrays.copyOf(all, 2 * n) : all;
        all[n++] = t;
        high = !high;
      }
    }
    return new Levels(first, Arrays.copyOf(all, n), s.second(0), s.second(s.size() - 1));
  }

  /// By thresholds at 30 and 70 % of the two levels that it has; a flat one is high or low by what
  /// the others swing.
  ///
  /// @param swing volts of a line that swings, for one that does not; 0 when there is none
  public static Levels of(Series s, double swing) {
    Wave w = Wave.of(s);
    if (w.edges() == 0) {
      double middle = swing > 0 ? swing / 2 : 0.5;
      return new Levels(w.mean() > middle, new double[0], s.second(0), s.second(s.size() - 1));
    }
    return of(s, w.low() + LOWER * w.amplitude(), w.low() + UPPER * w.amplitude());
  }

  /// Second at which the capture begins.
  public double begin() {
    return begin;
  }

  /// Second at which it ends.
  public double end() {
    return end;
  }

  /// How often the level changes.
  public int count() {
    return changes.length;
  }

  /// When it changes for the i-th time, counted from 0.
  public double when(int i) {
    return changes[i];
  }

  /// Whether it is high after the i-th change; before the first for -1.
  public boolean highAfter(int i) {
    return first ^ (i + 1) % 2 != 0;
  }

  /// Whether it is high at a time.
  public boolean highAt(double t) {
    int i = Arrays.binarySearch(changes, t);
    return highAfter(i >= 0 ? i : -i - 2);
  }

  /// The first change at or after a time; `count()` when there is none.
  public int firstFrom(double t) {
    int i = Arrays.binarySearch(changes, t);
    return i >= 0 ? i : -i - 1;
  }

  /// The other way up, as an inverting driver sends it.
  public Levels inverted() {
    return new Levels(!first, changes, begin, end);
  }
}
