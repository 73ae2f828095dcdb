package ell.trials;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/// The time that a file takes to be read and understood, against that of reading its lines by the
/// library's own reader: in turns, so that both have the machine as it is at the time, and the
/// fastest of each.
///
/// @param own milliseconds
/// @param lines milliseconds
record AgainstLines(double own, double lines) {
  private static final int LEAST = 10;
  private static final int MOST = 200;
  private static final long ENOUGH = 6_000_000_000L;

  /// Work on the file.
  interface Work {
    /// Does it once.
    void run() throws IOException;
  }

  /// Does both until they have been compiled for long.
  static AgainstLines of(Path file, Work work) throws IOException {
    double own = Double.POSITIVE_INFINITY;
    double lines = Double.POSITIVE_INFINITY;
    long began = System.nanoTime();
    for (int i = 0; i < LEAST || i < MOST && System.nanoTime() - began < ENOUGH; i++) {
      long start = System.nanoTime();
      work.run();
      long middle = System.nanoTime();
      if (read(file) == 0) {
        throw new IOException("nothing was read");
      }
      own = Math.min(own, (middle - start) / 1e6);
      lines = Math.min(lines, (System.nanoTime() - middle) / 1e6);
    }
    return new AgainstLines(own, lines);
  }

  private static long read(Path file) throws IOException {
    long n = 0;
    try (BufferedReader in = Files.newBufferedReader(file)) {
      String l;
      while ((l = in.readLine()) != null) {
        n += l.length();
      }
    }
    return n;
  }
}
