package ell.files.gerber;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// How the numbers of a Gerber file are written: unit, digits, which zeros are left out, absolute
/// or one from the other.
final class GerberFormat {
  private static final Pattern FORMAT =
      Pattern.compile("FS([LTD]?)([AI]?)(?:N\\d)?(?:G\\d)?X(\\d)(\\d)Y(\\d)(\\d).*");

  private double mm = Double.NaN;
  private int whole = -1;
  private int places;
  private boolean trailing;
  private boolean incremental;

  /// Whether a format was stated.
  boolean stated() {
    return whole >= 0;
  }

  /// Whether each place is told from the one before.
  boolean incremental() {
    return incremental;
  }

  void incremental(boolean now) {
    incremental = now;
  }

  /// Takes a format such as `FSLAX46Y46`.
  void format(String w) {
    Matcher m = FORMAT.matcher(w);
    if (!m.matches()) {
      throw new IllegalArgumentException("expected a format such as FSLAX46Y46");
    }
    trailing = m.group(1).equals("T");
    incremental = m.group(2).equals("I");
    whole = Integer.parseInt(m.group(3));
    places = Integer.parseInt(m.group(4));
    if (!m.group(3).equals(m.group(5)) || !m.group(4).equals(m.group(6))) {
      throw new IllegalArgumentException("expected the same format for X and Y");
    }
  }

  /// Takes a unit, `MM` or `IN`.
  void units(String u) {
    mm =
        switch (u.strip()) {
          case "MM" -> 1;
          case "IN" -> 25.4;
          default -> throw new IllegalArgumentException("expected MOMM or MOIN");
        };
  }

  /// Millimetre in the file's unit.
  double mm() {
    if (Double.isNaN(mm)) {
      throw new NotStated("no unit is stated; expected %MOMM*% or %MOIN*%");
    }
    return mm;
  }

  /// The coordinate in `text[from...to)`, in millimetre.
  double millimetre(String text, int from, int to) {
    if (text.indexOf('.', from, to) >= 0) {
      return GerberNumbers.decimal(text.substring(from, to)) * mm();
    }
    if (whole < 0) {
      throw new NotStated("no number format is stated before; expected one such as %FSLAX46Y46*%");
    }
    char first = from < to ? text.charAt(from) : ' ';
    int sign = first == '-' ? -1 : 1;
    int start = first == '-' || first == '+' ? from + 1 : from;
    int digits = to - start;
    if (digits < 1 || digits > 15) {
      throw GerberWord.unread(text, from, to);
    }
    long n = 0;
    for (int i = start; i < to; i++) {
      char c = text.charAt(i);
      if (c < '0' || c > '9') {
        throw GerberWord.unread(text, from, to);
      }
      n = 10 * n + c - '0';
    }
    if (trailing) {
      for (int i = digits; i < whole + places; i++) {
        n *= 10;
      }
    }
    return sign * n / POWERS[places] * mm();
  }

  private static final double[] POWERS = {1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9};

  /// Something without which no number of the file can be read.
  static final class NotStated extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    NotStated(String message) {
      super(message);
    }
  }
}
