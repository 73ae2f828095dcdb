package ell.core.pulse;

import ell.core.series.Series;
import java.util.ArrayList;
import java.util.List;

/// How an input with two thresholds counts a captured channel: how long it is between them, and how
/// often it rises past the upper one.
///
/// @param dwell the longest time between the thresholds on the way up, s; NaN without an edge
/// @param crossings rises past the upper threshold
/// @param doubledAt when those of them come, s, that come before it was below the lower one again:
///   counted by an input whose own threshold lies there, and by none that has both
public record Counted(double dwell, int crossings, List<Double> doubledAt) {
  public Counted {
    doubledAt = List.copyOf(doubledAt);
  }

  /// How many edges are counted once too often.
  public int doubles() {
    return doubledAt.size();
  }

  /// Counts.
  ///
  /// @param vil the most that is low, V
  /// @param vih the least that is high, V
  /// @throws IllegalArgumentException when they are the wrong way round
  public static Counted of(Series s, double vil, double vih) {
    if (!(vil < vih)) {
      throw new IllegalArgumentException("vil is below vih, got " + vil + " and " + vih);
    }
    double dwell = Double.NaN;
    int crossings = 0;
    List<Double> doubled = new ArrayList<>();
    double left = Double.NaN; // when the lower threshold was left
    boolean was = s.value(0) >= vih;
    boolean low = s.value(0) < vih; // since it was high last; what was before it began is not known
    for (int i = 1; i < s.size(); i++) {
      double a = s.value(i - 1);
      double b = s.value(i);
      if (a <= vil && b > vil) {
        left = passed(s, i, vil);
      }
      if (b <= vil) {
        low = true;
        left = Double.NaN;
      }
      if (!was && b >= vih) {
        crossings++;
        if (!low) {
          doubled.add(passed(s, i, vih));
        }
        if (!Double.isNaN(left)) {
          double took = passed(s, i, vih) - left;
          dwell = Double.isNaN(dwell) ? took : Math.max(dwell, took);
        }
        left = Double.NaN;
        low = false;
      }
      was = b >= vih;
    }
    return new Counted(dwell, crossings, doubled);
  }

  private static double passed(Series s, int i, double level) {
    double a = s.value(i - 1);
    double b = s.value(i);
    return s.second(i - 1) + (s.second(i) - s.second(i - 1)) * (level - a) / (b - a);
  }
}
