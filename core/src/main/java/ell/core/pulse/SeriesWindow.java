package ell.core.pulse;

import ell.core.quantity.PreferredValue;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// A step on a line at several places, and the series resistors with which each of them is within.
///
/// @param arrives what arrives at each place
/// @param range of resistors, empty when none of those that were tried is within everywhere
public record SeriesWindow(List<Arrives> arrives, Optional<Range> range) {
  private static final int SERIES = 24;
  private static final double WIDEST = 10;
  private static final int TRIED = 400;

  public SeriesWindow {
    arrives = List.copyOf(arrives);
  }

  /// Series resistors in ohm.
  ///
  /// @param low the least
  /// @param high the greatest
  /// @param nearest the value of the series E24 nearest to what matches, or its middle
  public record Range(double low, double high, double nearest) {}

  /// Works it out.
  ///
  /// @param b the step, with the resistor that is there
  /// @param driver ohms of the driver alone
  /// @param at places as shares of the line
  /// @throws IllegalArgumentException when the step does not settle
  public static SeriesWindow of(OnLine b, double driver, List<Double> at, Arrives.Input in) {
    return new SeriesWindow(arrives(b, at, in), window(b, driver, at, in));
  }

  private static List<Arrives> arrives(OnLine b, List<Double> at, Arrives.Input in) {
    List<Bounce.Course> courses = b.at(at);
    List<Arrives> all = new ArrayList<>();
    for (int i = 0; i < at.size(); i++) {
      all.add(Arrives.of(at.get(i), courses.get(i), in, b.swing()));
    }
    return all;
  }

  /// Series resistors with which every place is within: the widest range of them, and the value of
  /// the series nearest to its middle.
  private static Optional<Range> window(
      OnLine b, double driver, List<Double> at, Arrives.Input in) {
    double step = WIDEST * b.z0() / TRIED;
    int tried = b.linear() ? TRIED : TRIED / 8;
    double wide = b.linear() ? step : 8 * step;
    double bestLow = 0;
    double bestHigh = -1;
    double low = Double.NaN;
    for (int i = 0; i <= tried + 1; i++) {
      double r = i * wide;
      boolean good =
          i <= tried
              && b.from(driver + r).settles()
              && arrives(b.from(driver + r), at, in).stream()
                  .allMatch(x -> x.verdict() == Verdict.WITHIN);
      if (good && Double.isNaN(low)) {
        low = r;
      } else if (!good && !Double.isNaN(low)) {
        double high = r - wide;
        if (high - low > bestHigh - bestLow) {
          bestLow = low;
          bestHigh = high;
        }
        low = Double.NaN;
      }
    }
    if (bestHigh < bestLow) {
      return Optional.empty();
    }
    double middle = Math.clamp(b.z0() - driver, bestLow, bestHigh);
    double nearest = middle > 0 ? PreferredValue.nearest(middle, SERIES) : 0;
    if (nearest < bestLow || nearest > bestHigh) {
      nearest = middle;
    }
    return Optional.of(new Range(bestLow, bestHigh, nearest));
  }
}
