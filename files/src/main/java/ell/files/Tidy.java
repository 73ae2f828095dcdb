package ell.files;

/// Text of a cell as it is compared and read: no blanks around it, one blank for each run of them
/// within. Takes each character once, whatever they are.
public final class Tidy {
  private Tidy() {}

  /// The cell without superfluous blanks, line breaks and tabs among them.
  public static String cell(String text) {
    int n = text.length();
    StringBuilder s = new StringBuilder(Math.min(n, 256));
    boolean gap = false;
    for (int i = 0; i < n; i++) {
      char c = text.charAt(i);
      if (Character.isWhitespace(c) || c == '\u00a0') {
        gap = true;
      } else {
        if (gap && !s.isEmpty()) {
          s.append(' ');
        }
        gap = false;
        s.append(c);
      }
    }
    return s.toString();
  }
}
