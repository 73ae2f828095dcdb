package ell.files.gerber;

import java.util.Map;

/// A number in an aperture macro: sums of products of numbers, `$n` and brackets.
final class MacroExpression {
  private static final int DEEPEST = 200;

  private final String text;
  private final Map<Integer, Double> values;
  private int at;
  private int depth;

  private MacroExpression(String text, Map<Integer, Double> values) {
    this.text = text;
    this.values = values;
  }

  /// What an expression comes to.
  ///
  /// @param values what stands for `$n`; 0 for what does not
  /// @throws IllegalArgumentException when it cannot be read or is no number
  static double value(String text, Map<Integer, Double> values) {
    MacroExpression e = new MacroExpression(text, values);
    double v = e.sum();
    if (e.more()) {
      throw new IllegalArgumentException("cannot read '" + text.strip() + "'");
    }
    if (!Double.isFinite(v)) {
      throw new IllegalArgumentException("'" + text.strip() + "' comes to no number");
    }
    return v;
  }

  private boolean more() {
    while (at < text.length() && text.charAt(at) <= ' ') {
      at++;
    }
    return at < text.length();
  }

  private boolean takes(String any) {
    if (more() && any.indexOf(text.charAt(at)) >= 0) {
      at++;
      return true;
    }
    return false;
  }

  private double sum() {
    double v = product();
    while (more() && "+-".indexOf(text.charAt(at)) >= 0) {
      v = text.charAt(at++) == '+' ? v + product() : v - product();
    }
    return v;
  }

  private double product() {
    double v = one();
    while (more() && "xX/".indexOf(text.charAt(at)) >= 0) {
      v = text.charAt(at++) == '/' ? v / one() : v * one();
    }
    return v;
  }

  private double one() {
    if (++depth > DEEPEST) {
      throw new IllegalArgumentException("brackets are nested too deep in '" + text + "'");
    }
    try {
      if (takes("-")) {
        return -one();
      }
      if (takes("+")) {
        return one();
      }
      if (takes("(")) {
        double v = sum();
        if (!takes(")")) {
          throw new IllegalArgumentException("expected ) in '" + text + "'");
        }
        return v;
      }
      boolean variable = takes("$");
      int from = at;
      while (at < text.length()
          && (text.charAt(at) >= '0' && text.charAt(at) <= '9' || text.charAt(at) == '.')) {
        at++;
      }
      if (from == at) {
        throw new IllegalArgumentException("expected a number in '" + text.strip() + "'");
      }
      String digits = text.substring(from, at);
      return variable
          ? values.getOrDefault(Integer.parseInt(digits), 0.0)
          : GerberNumbers.decimal(digits);
    } finally {
      depth--;
    }
  }
}
