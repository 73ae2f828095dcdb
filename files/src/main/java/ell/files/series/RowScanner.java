package ell.files.series;

import ell.files.EightBytes;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.CompletableFuture;
import java.util.function.BooleanSupplier;
import java.util.regex.Pattern;

/// Rows of numbers straight out of bytes: no text is made of them. Empty lines and those that begin
/// with `#` are passed over.
final class RowScanner {
  private static final int BUFFER = 1 << 20;

  private static final int SMALL = 1 << 16;
  private static final int LONGEST_TOLD = 120;

  /// Bytes behind the last that are looked at and mean nothing.
  private static final int PAD = 24;

  private final int columns;
  private final byte separator;
  private final byte point;
  private long gone;
  private long line;

  /// Takes rows.
  interface Rows {
    /// Some rows.
    ///
    /// @param cells by column, not to be kept
    /// @param count rows of them
    /// @param lines at which each stands, counted from the line before the first
    /// @param before lines before it
    /// @return whether more is wanted
    boolean rows(double[][] cells, int count, int[] lines, long before) throws IOException;

    /// A row that is none.
    ///
    /// @param line counted from 1
    /// @param text of it
    /// @return whether more is wanted
    boolean odd(long line, String text) throws IOException;
  }

  /// @param columns numbers that each row has, or more
  /// @param comma whether a comma stands before the tenths
  RowScanner(int columns, char separator, boolean comma) {
    this.columns = columns;
    this.separator = (byte) separator;
    this.point = (byte) (comma ? ',' : '.');
  }

  /// Bytes that were read through the last row that was handed over.
  long bytes() {
    return gone;
  }

  /// Lines so far.
  long lines() {
    return line;
  }

  /// Scans from where a stream stands. Half of each block is taken apart by another thread.
  ///
  /// @param from bytes that lie before it
  /// @param lines lines that lie before it
  /// @param stopped is asked now and then
  void scan(InputStream in, long from, long lines, Rows to, BooleanSupplier stopped)
      throws IOException {
    gone = from;
    line = lines;
    byte[] b = new byte[BUFFER + PAD];
    Part first = new Part(b);
    Part second = new Part(b);
    int have = 0;
    while (!stopped.getAsBoolean()) {
      int n = in.readNBytes(b, have, BUFFER - have);
      boolean last = n < BUFFER - have;
      have += n;
      int whole = have; // where the last whole line ends
      if (last) {
        if (have > 0 && b[have - 1] != '\n') {
          b[have++] = '\n'; // the last line has no end
          whole = have;
        }
      } else {
        while (whole > 0 && b[whole - 1] != '\n') {
          whole--;
        }
      }
      if (whole > 0 && !block(b, whole, first, second, to) || last) {
        return;
      }
      if (whole == 0) {
        throw new IOException("line " + (line + 1) + " is longer than " + BUFFER + " bytes");
      }
      System.arraycopy(b, whole, b, 0, have - whole);
      have -= whole;
    }
  }

  private boolean block(byte[] b, int whole, Part first, Part second, Rows to) throws IOException {
    int middle = whole / 2;
    while (b[middle - 1] != '\n' && middle < whole) {
      middle++;
    }
    int half = middle;
    CompletableFuture<Void> aside =
        whole > SMALL
            ? CompletableFuture.runAsync(() -> second.parse(half, whole))
            : CompletableFuture.completedFuture(null);
    boolean more = part(first, 0, half, to);
    aside.join();
    if (!more) {
      return false;
    }
    if (whole <= SMALL) {
      second.parse(half, whole);
    }
    return handed(second, whole, to);
  }

  private boolean part(Part p, int from, int end, Rows to) throws IOException {
    p.parse(from, end);
    return handed(p, end, to);
  }

  /// Hands rows over, goes on behind what is no row.
  private boolean handed(Part p, int end, Rows to) throws IOException {
    while (true) {
      int begun = p.from;
      if (p.rows > 0 && !to.rows(p.cells, p.rows, p.lines, line)) {
        gone += p.at - begun;
        line += p.lined;
        return false;
      }
      gone += p.at - begun;
      line += p.lined;
      if (p.at >= end) {
        return true;
      }
      int stop = p.at;
      while (p.b[stop] != '\n') {
        stop++;
      }
      line++;
      gone += stop + 1 - p.at;
      String text =
          new String(p.b, p.at, Math.min(LONGEST_TOLD, stop - p.at), StandardCharsets.UTF_8);
      if (!to.odd(line, text)) {
        return false;
      }
      p.parse(stop + 1, end);
    }
  }

  /// A stretch of whole lines, taken apart as far as they are rows.
  private final class Part {
    private final byte[] b;
    private final CellNumber number = new CellNumber();
    private final double[] row = new double[columns];
    private double[][] cells = new double[columns][0];
    private int[] lines = {};
    private int from;
    private int at;
    private int rows;
    private int lined;

    Part(byte[] b) {
      this.b = b;
    }

    void parse(int begin, int end) {
      int most = (end - begin) / (2 * columns) + 1;
      if (lines.length < most) {
        lines = new int[most];
        cells = new double[columns][most];
      }
      from = begin;
      rows = 0;
      lined = 0;
      int i = begin;
      while (i < end) {
        int next = plain(b, i, row);
        if (next <= 0) {
          int stop = i;
          while (b[stop] != '\n') {
            stop++;
          }
          next = stop + 1;
          int kind = other(i, stop);
          if (kind < 0) {
            break;
          }
          if (kind == 0) {
            lined++;
            i = next;
            continue;
          }
        }
        lined++;
        for (int c = 0; c < columns; c++) {
          cells[c][rows] = row[c];
        }
        lines[rows++] = lined;
        i = next;
      }
      at = i;
    }

    /// A row of another form: 1 when it is one, 0 when it is nothing, -1 when it is none.
    private int other(int begin, int stop) {
      int end = stop;
      while (end > begin && b[end - 1] <= ' ') {
        end--;
      }
      if (end == begin || b[begin] == '#') {
        return 0;
      }
      int i = begin;
      for (int c = 0; c < columns; c++) {
        while (i < end && b[i] == ' ') {
          i++;
        }
        int next = i < end ? number.read(b, i, end, separator, point) : -1;
        if (next < 0) {
          next = slow(i, end, c);
          if (next < 0) {
            return -1;
          }
        } else {
          row[c] = number.value();
        }
        i = next + 1;
      }
      return 1;
    }

    /// A number with more digits than fit, or with blanks around it; a gap.
    private int slow(int begin, int end, int column) {
      int to = begin;
      while (to < end && b[to] != separator) {
        to++;
      }
      String text =
          new String(b, begin, Math.max(0, to - begin), StandardCharsets.ISO_8859_1).strip();
      if (text.isEmpty() && column > 0) {
        row[column] = Double.NaN; // a sample that is missing
        return to;
      }
      if (!OTHER.matcher(text).matches()) {
        return -1;
      }
      row[column] = Double.parseDouble(text.replace(',', '.'));
      return to;
    }
  }

  private static final Pattern OTHER =
      Pattern.compile("[+-]?+(\\d++([.,]\\d*+)?+|[.,]\\d++)([eE][+-]?+\\d{1,3}+)?+");

  /// The rows that nearly all are: digits with a point among them, a sign, a separator between, the
  /// end of the line behind the last. Eight bytes are looked at at once: how many of the first are
  /// digits, and which number they are.
  ///
  /// @return where the next line begins, 0 when this one is another
  private int plain(byte[] b, int from, double[] row) {
    int i = from;
    int count = row.length;
    for (int c = 0; c < count; c++) {
      boolean minus = b[i] == '-';
      i += minus ? 1 : 0;
      long x = EightBytes.numerals(b, i);
      int digits = EightBytes.digits(x);
      if (digits == 8) {
        return 0; // as many are left to the slower way
      }
      long n = EightBytes.number(x, digits);
      i += digits;
      double v;
      if (b[i] == point && point != separator) {
        x = EightBytes.numerals(b, ++i);
        int behind = EightBytes.digits(x);
        long m = EightBytes.number(x, behind);
        i += behind;
        if (behind == 8) {
          x = EightBytes.numerals(b, i);
          int more = EightBytes.digits(x);
          if (more == 8) {
            return 0;
          }
          m = m * POWERS[more] + EightBytes.number(x, more);
          i += more;
          behind += more;
        }
        if (digits + behind == 0 || digits + behind > MOST_DIGITS) {
          return 0;
        }
        v = (n * POWERS[behind] + m) / TENTHS[behind];
      } else {
        if (digits == 0) {
          return 0;
        }
        v = n;
      }
      row[c] = minus ? -v : v;
      byte end = b[i];
      if (c + 1 < count) {
        if (end != separator) {
          return 0;
        }
        i++;
      } else if (end == '\n') {
        return i + 1;
      } else if (end == '\r' && b[i + 1] == '\n') {
        return i + 2;
      } else if (end == separator) {
        while (b[i] != '\n') {
          i++; // columns that nobody asked for
        }
        return i + 1;
      } else {
        return 0;
      }
    }
    return 0;
  }

  private static final int MOST_DIGITS = 15;
  private static final double[] TENTHS = new double[MOST_DIGITS + 1];
  private static final long[] POWERS = new long[MOST_DIGITS + 1];

  static {
    TENTHS[0] = 1;
    POWERS[0] = 1;
    for (int i = 1; i < POWERS.length; i++) {
      POWERS[i] = POWERS[i - 1] * 10;
    }
    for (int i = 1; i < TENTHS.length; i++) {
      TENTHS[i] = TENTHS[i - 1] * 10;
    }
  }
}
