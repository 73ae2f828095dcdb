package ell.trials.pulse;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import ell.core.pulse.Wave;
import ell.core.series.Log;
import ell.core.series.Series;
import ell.core.series.Thinning;
import ell.files.Read;
import ell.files.Source;
import ell.files.series.CaptureReader;
import ell.files.series.CaptureStore;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Random;

/// A capture of a clock, of some millions of rows: read in the three ways that there are, measured,
/// drawn again and again.
///
/// @param library seconds of the CSV library with its numbers parsed
/// @param reader seconds of the reader
/// @param measured seconds of measuring what was read
/// @param firstPicture seconds from the first byte to a picture, of a file that is kept beside
/// @param stored seconds until all of it is kept
/// @param frame seconds of one picture of 1,200 columns while it is panned and zoomed
/// @param heap bytes that are held while such a one is looked at
public record CaptureTrial(
    double library,
    double reader,
    double measured,
    double firstPicture,
    double stored,
    double frame,
    long heap) {
  private static final int FRAMES = 200;
  private static final int COLUMNS = 1200;

  /// Tries it.
  ///
  /// @param rows of the file
  public static CaptureTrial of(int rows) throws IOException {
    Path folder = Files.createTempDirectory("ell-captures");
    Path file = folder.resolve("clock.csv");
    try {
      write(file, rows);
      double library = Double.POSITIVE_INFINITY;
      double reader = Double.POSITIVE_INFINITY;
      for (int i = 0; i < 3; i++) {
        library = Math.min(library, library(file, rows));
        long t = System.nanoTime();
        read(file, rows);
        reader = Math.min(reader, since(t));
      }
      Series s = read(file, rows);
      double measured = Double.POSITIVE_INFINITY;
      for (int i = 0; i < 3; i++) {
        long t = System.nanoTime();
        if (Wave.of(s).edges() < rows / 100) {
          throw new IOException("edges are missing");
        }
        measured = Math.min(measured, since(t));
      }
      long began = System.nanoTime();
      double[] first = {0};
      CaptureStore store = CaptureStore.of(file, folder.resolve("kept"));
      List<Series> kept =
          store.read(
              (_, _, soFar) -> {
                if (first[0] == 0) {
                  Series now = soFar.getFirst();
                  Thinning.of(now, 0, now.duration(), COLUMNS);
                  first[0] = since(began);
                }
              },
              () -> false);
      double stored = since(began);
      s = null;
      double frame = frames(kept.getFirst());
      System.gc();
      Runtime r = Runtime.getRuntime();
      return new CaptureTrial(
          library, reader, measured, first[0], stored, frame, r.totalMemory() - r.freeMemory());
    } finally {
      try (var all = Files.walk(folder)) {
        for (Path p : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
          Files.deleteIfExists(p);
        }
      }
    }
  }

  private static double since(long nanos) {
    return (System.nanoTime() - nanos) * 1e-9;
  }

  private static void write(Path file, int rows) throws IOException {
    Random r = new Random(1);
    String[] low = new String[997];
    String[] high = new String[991];
    for (int i = 0; i < low.length; i++) {
      low[i] = String.format(Locale.ROOT, ",%.4f%n", 0.01 * r.nextGaussian());
    }
    for (int i = 0; i < high.length; i++) {
      high[i] = String.format(Locale.ROOT, ",%.4f%n", 3.3 + 0.01 * r.nextGaussian());
    }
    try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 20)) {
      out.write("time (s),CH1 (V)\n".getBytes(StandardCharsets.US_ASCII));
      StringBuilder b = new StringBuilder();
      for (int i = 0; i < rows; i++) {
        b.setLength(0);
        long ten = i; // steps of 10 ns, written as seconds
        b.append(ten / 100_000_000).append('.');
        String behind = String.valueOf(ten % 100_000_000);
        b.append("00000000", 0, 8 - behind.length()).append(behind);
        b.append(i / 50 % 2 == 0 ? low[i % low.length] : high[i % high.length]);
        out.write(b.toString().getBytes(StandardCharsets.US_ASCII));
      }
    }
  }

  private static double library(Path file, int rows) throws IOException {
    long t = System.nanoTime();
    double[] seconds = new double[rows];
    float[] volts = new float[rows];
    int n = -1;
    try (CsvReader<CsvRecord> in = CsvReader.builder().ofCsvRecord(file)) {
      for (CsvRecord c : in) {
        if (n >= 0) {
          seconds[n] = Double.parseDouble(c.getField(0));
          volts[n] = Float.parseFloat(c.getField(1));
        }
        n++;
      }
    }
    if (n != rows) {
      throw new IOException("the library read " + n + " rows");
    }
    return since(t);
  }

  private static Series read(Path file, int rows) throws IOException {
    if (CaptureReader.read(Source.of(file)) instanceof Read.Whole<Log> whole) {
      Series s = whole.value().series().getFirst();
      if (s.size() == rows) {
        return s;
      }
    }
    throw new IOException("the reader did not read " + rows + " rows");
  }

  private static double frames(Series s) {
    double best = Double.POSITIVE_INFINITY;
    for (int again = 0; again < 3; again++) {
      long t = System.nanoTime();
      for (int i = 0; i < FRAMES; i++) {
        double wide = s.duration() * Math.pow(0.95, i % 100);
        double from = (s.duration() - wide) * i / FRAMES;
        Thinning.of(s, from, from + wide, COLUMNS);
      }
      best = Math.min(best, since(t) / FRAMES);
    }
    return best;
  }
}
