package ell.files.gerber;

/// A word taken apart: letters and the numbers behind them.
final class GerberWord {
  private final String text;
  private int at;

  GerberWord(String text) {
    this.text = text;
  }

  boolean more() {
    while (at < text.length() && text.charAt(at) <= ' ') {
      at++;
    }
    return at < text.length();
  }

  char letter() {
    return Character.toUpperCase(text.charAt(at++));
  }

  @Override
  public String toString() {
    return text;
  }

  String digits() {
    int from = pass();
    return text.substring(from, at);
  }

  /// Goes behind the digits that stand next.
  ///
  /// @return where they begin
  private int pass() {
    while (at < text.length() && text.charAt(at) <= ' ') {
      at++;
    }
    int from = at;
    while (at < text.length()
        && (text.charAt(at) >= '0' && text.charAt(at) <= '9'
            || "+-.".indexOf(text.charAt(at)) >= 0)) {
      at++;
    }
    if (from == at) {
      throw new NumberFormatException("nothing behind a letter");
    }
    return from;
  }

  /// The number in `text[from...to)` is none.
  static NumberFormatException unread(String text, int from, int to) {
    return new NumberFormatException("'" + text.substring(from, to) + "'");
  }

  /// A coordinate in millimetre.
  ///
  /// @throws NumberFormatException when it is no number
  double millimetre(GerberFormat numbers) {
    int from = pass();
    return numbers.millimetre(text, from, at);
  }

  /// @throws NumberFormatException when it is no whole number or too large for one
  int number() {
    int from = pass();
    int n = 0;
    for (int i = from; i < at; i++) {
      int d = text.charAt(i) - '0';
      if (d < 0 || d > 9 || n > (Integer.MAX_VALUE - d) / 10) {
        throw unread(text, from, at);
      }
      n = 10 * n + d;
    }
    return n;
  }
}
