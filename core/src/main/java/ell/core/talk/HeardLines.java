package ell.core.talk;

import java.util.ArrayList;
import java.util.List;

/// Text that comes in pieces, as lines with the times at which they ended; the first hundred
/// thousand of them, and of a line without an end nothing. Not for many threads.
public final class HeardLines {
  private static final int MOST = 100_000;
  private static final int LONGEST = 1 << 14;

  private final List<Restarts.Timed> lines = new ArrayList<>();
  private final StringBuilder begun = new StringBuilder();

  /// More came.
  ///
  /// @param seconds since the line was opened
  public void add(double seconds, String text) {
    int from = 0;
    for (int end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n', from)) {
      if (lines.size() < MOST) {
        begun.append(text, from, end);
        lines.add(new Restarts.Timed(seconds, begun.toString()));
      }
      begun.setLength(0);
      from = end + 1;
    }
    begun.append(text, from, text.length());
    if (begun.length() > LONGEST) {
      begun.setLength(0);
    }
  }

  /// All of them, the last one as far as it came.
  ///
  /// @param now seconds since the line was opened
  public List<Restarts.Timed> all(double now) {
    List<Restarts.Timed> all = new ArrayList<>(lines);
    if (!begun.isEmpty()) {
      all.add(new Restarts.Timed(now, begun.toString()));
    }
    return all;
  }
}
