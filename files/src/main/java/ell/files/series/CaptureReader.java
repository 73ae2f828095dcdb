package ell.files.series;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Findings;
import ell.files.Looks;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// Reads a capture: a value change dump, as [VcdReader] does, or CSV of a scope: rows of a time and
/// the volts of one or more channels, as [LogReader] reads them; or rows of volts alone, where the
/// heading says how far apart they are.
public final class CaptureReader {
  private static final int MOST_ROWS = 200_000_000;

  private CaptureReader() {}

  /// Reads a file.
  ///
  /// @return channels in volt
  /// @throws IOException when it cannot be read at all
  public static Read<Log> read(Source source) throws IOException {
    Read<Log> read = unchecked(source);
    return read instanceof Read.Whole<Log> whole ? checked(source, whole) : read;
  }

  /// No scope shows more, V.
  private static final double MOST_VOLTS = 1e9;

  /// A sample outside physics is no sample: nothing of such a file is shown.
  private static Read<Log> checked(Source source, Read.Whole<Log> whole) {
    Findings f = new Findings(source.name());
    for (Series s : whole.value().series()) {
      double least = s.least();
      double most = s.most();
      if (!(least >= -MOST_VOLTS && most <= MOST_VOLTS)) {
        f.error(
            0,
            0,
            String.format(
                Locale.ROOT,
                "%s goes from %.3g to %.3g V: no scope shows that; expected volts",
                s.name(),
                least,
                most));
      }
    }
    return f.failed() ? f.flawed() : whole;
  }

  private static Read<Log> unchecked(Source source) throws IOException {
    if (BlockReader.looksLike(source)) {
      return BlockReader.read(source);
    }
    Findings f = new Findings(source.name());
    Optional<String> wrong = Looks.wrong(source, Looks.TEXT, "a capture, CSV");
    if (wrong.isPresent()) {
      f.error(0, 0, wrong.get());
      return f.flawed();
    }
    if (VcdReader.looksLike(source)) {
      return VcdReader.read(source);
    }
    Optional<SteppedHeading> stepped = SteppedHeading.find(source, f);
    if (f.failed()) {
      return f.flawed();
    }
    if (stepped.isPresent()) {
      return stepped(source, stepped.get(), f);
    }
    Optional<Log> even = EvenRows.read(source, new Voltages(), MOST_ROWS);
    if (even.isPresent()) {
      Series first = even.get().series().getFirst();
      f.found(
          String.format(
              Locale.ROOT,
              "%d samples every %s",
              first.size(),
              EngineeringNumber.print(first.step(), Unit.SECOND, 4)));
      return f.done(even.get());
    }
    return LogReader.read(source, new Voltages());
  }

  /// Rows of volts that are evenly apart.
  private static Read<Log> stepped(Source source, SteppedHeading h, Findings f) throws IOException {
    int count = h.names().size();
    Floats[] columns = new Floats[count];
    Arrays.setAll(columns, _ -> new Floats());
    long[] missing = {0};
    RowScanner scanner = new RowScanner(count, h.separator(), h.comma());
    int[] rows = {0};
    try (InputStream in = source.open()) {
      scanner.scan(
          in,
          0,
          0,
          new RowScanner.Rows() {
            @Override
            public boolean rows(double[][] cells, int n, int[] lines, long before) {
              for (int i = 0; i < n; i++) {
                if (before + lines[i] <= h.firstRow()) {
                  continue; // a number in the heading
                }
                if (++rows[0] > MOST_ROWS) {
                  f.error((int) (before + lines[i]), 0, "more than " + MOST_ROWS + " rows");
                  return false;
                }
                for (int c = 0; c < count; c++) {
                  double v = cells[c][i];
                  if (Double.isNaN(v)) {
                    missing[0]++;
                    v = columns[c].last();
                  }
                  columns[c].add((float) v);
                }
              }
              return true;
            }

            @Override
            public boolean odd(long line, String text) {
              if (line > h.firstRow()) {
                f.error(
                    (int) line,
                    0,
                    "expected " + count + " voltages, found '" + shorten(text) + "'");
              }
              return f.count() <= Findings.MOST;
            }
          },
          () -> false);
    }
    if (rows[0] < 2 && !f.failed()) {
      f.error(0, 0, "fewer than two rows of numbers below the heading");
    }
    if (f.failed()) {
      return f.flawed();
    }
    if (missing[0] > 0) {
      f.warn(0, 0, missing[0] + " samples are missing: the one before each stands for it");
    }
    Voltages volts = new Voltages();
    List<Series> all = new ArrayList<>();
    for (int c = 0; c < count; c++) {
      Sense.Column column =
          volts.column(h.names().get(c)).orElse(new Sense.Column(h.names().get(c), v -> v));
      float[] v = columns[c].take();
      for (int i = 0; i < v.length; i++) {
        v[i] = (float) column.scale().applyAsDouble(v[i]);
      }
      all.add(Series.even(column.name(), h.start(), h.step(), v));
    }
    f.found(
        String.format(
            Locale.ROOT,
            "%d samples every %s",
            rows[0],
            EngineeringNumber.print(h.step(), Unit.SECOND, 4)));
    return f.done(new Log(all));
  }

  private static String shorten(String s) {
    return s.length() > 60 ? s.substring(0, 60) + "..." : s;
  }

  /// Samples of which nobody knows how many will come.
  private static final class Floats {
    private float[] all = new float[1 << 12];
    private int n;

    void add(float v) {
      if (n == all.length) {
        all = Arrays.copyOf(all, 2 * n);
      }
      all[n++] = v;
    }

    float last() {
      return n == 0 ? 0 : all[n - 1];
    }

    float[] take() {
      return Arrays.copyOf(all, n);
    }
  }
}
