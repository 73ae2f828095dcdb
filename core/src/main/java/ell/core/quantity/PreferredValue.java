package ell.core.quantity;

import java.util.ArrayList;
import java.util.List;

/// The preferred number series for resistors and capacitors. Source: IEC 60063:2015, tables of
/// E3...E24 (listed) and E48, E96, E192 (ten to the power i/n, rounded to three figures, with 9.19
/// replaced by 9.20 in E192); written from memory of the tables.
public final class PreferredValue {
  private static final double[] E24 = {
    1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6,
    6.2, 6.8, 7.5, 8.2, 9.1
  };

  private PreferredValue() {}

  /// The values of one decade, 1...10 (10 not included), rising.
  ///
  /// @param series 3, 6, 12, 24, 48, 96 or 192
  /// @throws IllegalArgumentException when there is no such series
  public static List<Double> decade(int series) {
    List<Double> values = new ArrayList<>();
    switch (series) {
      case 3, 6, 12, 24 -> {
        for (int i = 0; i < 24; i += 24 / series) {
          values.add(E24[i]);
        }
      }
      case 48, 96, 192 -> {
        for (int i = 0; i < series; i++) {
          double v = Math.round(100 * Math.pow(10, (double) i / series)) / 100.0;
          values.add(series == 192 && i == 185 ? 9.20 : v);
        }
      }
      default ->
          throw new IllegalArgumentException(
              "series must be 3, 6, 12, 24, 48, 96 or 192, got " + series);
    }
    return List.copyOf(values);
  }

  /// The value of the series nearest to `value` by ratio.
  ///
  /// @param value above 0
  /// @param series as in [#decade(int)]
  public static double nearest(double value, int series) {
    return pick(value, series, false);
  }

  /// The least value of the series that is not below `value` (with a hair's tolerance for
  /// rounding).
  public static double atLeast(double value, int series) {
    return pick(value, series, true);
  }

  private static double pick(double value, int series, boolean up) {
    Check.positive(value, "value");
    int decade = (int) Math.floor(Math.log10(value));
    double best = Double.NaN;
    for (int d = decade - 1; d <= decade + 1; d++) {
      for (double mantissa : decade(series)) {
        double candidate = Double.parseDouble(mantissa + "e" + d);
        if (up) {
          if (candidate >= value * (1 - 1e-12)) {
            return candidate;
          }
        } else if (Double.isNaN(best)
            || Math.abs(Math.log(candidate / value)) < Math.abs(Math.log(best / value))) {
          best = candidate;
        }
      }
    }
    return up ? Double.parseDouble("1e" + (decade + 2)) : best;
  }
}
