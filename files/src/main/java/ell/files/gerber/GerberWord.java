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
    return text.substring(from, at);
  }

  /// @throws NumberFormatException when it is no whole number or too large for one
  int number() {
    return Integer.parseInt(digits());
  }
}
