package ell.files.series;

import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Findings;
import ell.files.Source;
import ell.files.TextFile;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/// The captures that nearly all are: rows of a plain time and volts, evenly apart, with nothing odd
/// among them. Read with both hands; what is any other is left to [LogReader], which takes its
/// time.
final class EvenRows implements RowScanner.Rows {
  /// Farther from even than this share of a step is not even.
  private static final double EVEN = 0.02;

  private final LogHeading head;
  private final int[] at;
  private float[][] samples;
  private int rows;
  private double start;
  private double step;
  private boolean odd;

  private EvenRows(LogHeading head) {
    this.head = head;
    this.at = head.at().stream().mapToInt(Integer::intValue).toArray();
    this.samples = new float[at.length][1 << 12];
  }

  /// Reads a file.
  ///
  /// @return empty when it is of another form; nothing is said of it then
  static Optional<Log> read(Source source, Sense sense, int mostRows) throws IOException {
    Findings unheard = new Findings(source.name());
    TextFile.Encoding e = TextFile.encoding(source);
    if (e.charset().name().startsWith("UTF-16")) {
      return Optional.empty();
    }
    Optional<LogHeading> head = LogHeading.find(source, e, sense, unheard);
    if (head.isEmpty() || head.get().dateColumn() >= 0 || !head.get().timeStated()) {
      return Optional.empty();
    }
    EvenRows rows = new EvenRows(head.get());
    int columns = 1 + Math.max(head.get().timeColumn(), Arrays.stream(rows.at).max().orElse(0));
    try (InputStream in = source.open()) {
      in.skipNBytes(e.mark());
      new RowScanner(columns, head.get().separator(), head.get().comma())
          .scan(in, 0, 0, rows, () -> rows.rows > mostRows);
    } catch (IOException x) {
      return Optional.empty(); // the slower reader says what is wrong
    }
    return rows.odd || rows.rows < 2 || rows.rows > mostRows
        ? Optional.empty()
        : Optional.of(rows.log());
  }

  private Log log() {
    List<Series> all = new ArrayList<>();
    for (int c = 0; c < at.length; c++) {
      Sense.Column column = head.columns().get(c);
      float[] v = Arrays.copyOf(samples[c], rows);
      for (int i = 0; i < v.length; i++) {
        v[i] = (float) column.scale().applyAsDouble(v[i]);
      }
      all.add(Series.even(column.name(), start, step, v));
    }
    return new Log(all);
  }

  @Override
  public boolean rows(double[][] cells, int count, int[] lines, long before) {
    double[] times = cells[head.timeColumn()];
    double scale = head.timeScale();
    double wide = step;
    int n = rows;
    for (int i = 0; i < count; i++, n++) {
      if (before + lines[i] <= head.line()) {
        odd = true; // numbers above the heading
        return false;
      }
      double t = times[i] * scale;
      if (n > 1) {
        double off = t - start - n * wide;
        if (!(off < EVEN * wide && off > -EVEN * wide)) {
          odd = true;
          return false;
        }
        if (off != 0) {
          wide += off / n; // what was written with few digits gets better with every row
        }
      } else if (n == 1) {
        wide = t - start;
        odd = !(wide > 0);
      } else {
        start = t;
      }
      if (odd) {
        return false;
      }
    }
    step = wide;
    for (int c = 0; c < at.length; c++) {
      if (samples[c].length < n) {
        samples[c] = Arrays.copyOf(samples[c], Math.max(2 * samples[c].length, n));
      }
      float[] to = samples[c];
      double[] from = cells[at[c]];
      for (int i = 0; i < count; i++) {
        to[rows + i] = (float) from[i];
        odd |= Double.isNaN(from[i]); // a gap
      }
    }
    rows = n;
    return !odd;
  }

  @Override
  public boolean odd(long line, String text) {
    odd |= line > head.line() && head.line() > 0 || rows > 0;
    return !odd;
  }
}
