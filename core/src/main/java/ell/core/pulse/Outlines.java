package ell.core.pulse;

import ell.core.entry.Entry.Capture.Outline;
import ell.core.series.Series;
import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;

/// Makes outlines of captures.
public final class Outlines {
  /// Stretches at most.
  public static final int COLUMNS = 300;

  private static final MathContext DIGITS = new MathContext(4);

  /// From so many samples on a pyramid is worth making.
  private static final int MANY = 200_000;

  private Outlines() {}

  /// The outline of a series of two samples or more.
  public static Outline of(Series s) {
    int columns = Math.min(COLUMNS, s.size());
    double from = s.second(0);
    double step = s.duration() / columns;
    List<Double> least = new ArrayList<>();
    List<Double> most = new ArrayList<>();
    boolean many = s.even() && s.size() > MANY;
    int i = 0;
    for (int c = 0; c < columns; c++) {
      double end = from + (c + 1) * step;
      double a = s.at(from + c * step);
      double b = s.at(Math.min(end, from + s.duration()));
      double low = Math.min(a, b);
      double high = Math.max(a, b);
      if (many) {
        int until = s.firstFrom(end);
        float[] ends = s.pyramid().range(s.samples(), i, until);
        low = until > i ? Math.min(low, ends[0]) : low;
        high = until > i ? Math.max(high, ends[1]) : high;
        i = until;
      }
      while (i < s.size() && s.second(i) < end) {
        low = Math.min(low, s.value(i));
        high = Math.max(high, s.value(i));
        i++;
      }
      least.add(rounded(low));
      most.add(rounded(high));
    }
    return new Outline(from, step, least, most);
  }

  private static double rounded(double v) {
    return new BigDecimal(v).round(DIGITS).doubleValue();
  }
}
