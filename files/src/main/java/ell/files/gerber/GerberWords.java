package ell.files.gerber;

import ell.files.Findings;
import java.util.regex.Pattern;

/// Parts the text of a Gerber file into words, and puts up with what writers leave out: a star
/// before a `%` or at the end of a line, the `%` behind a command. What was put up with is told.
final class GerberWords {
  /// No word is longer, in characters.
  private static final int LONGEST = 1 << 20;

  /// Longer words are not looked into for what was left out.
  private static final int LOOKED_AT = 4000;

  /// What only stands outside of `%...%`.
  private static final Pattern PLAIN =
      Pattern.compile(
          "(?:G0*(?:[1-3]|3[67]|5[45]|7[0145]|9[01])(?!\\d)|[XY][+-]?\\d|D\\d|M0*[02]$).*",
          Pattern.DOTALL);

  /// A comment; what stands in it is nobody's.
  private static final Pattern COMMENT = Pattern.compile("G0?4(?!\\d).*", Pattern.DOTALL);

  private final String text;
  private final Findings f;
  private final GerberPlotter plotter;
  private final StringBuilder word = new StringBuilder();
  private boolean extended;
  private StringBuilder macro; // an aperture macro is one word of several blocks
  private int macroLine;
  private int line = 1;
  private int from = 1;
  private int zeros;

  GerberWords(String text, Findings f, GerberPlotter plotter) {
    this.text = text;
    this.f = f;
    this.plotter = plotter;
  }

  void run() {
    int n = text.length();
    for (int i = 0; i < n && !plotter.ended() && f.count() <= Findings.MOST; i++) {
      char c = text.charAt(i);
      switch (c) {
        case '\n' -> {
          endOfLine(i);
          line++;
        }
        case '\r' -> {
          if (i + 1 >= n || text.charAt(i + 1) != '\n') {
            endOfLine(i);
            line++;
          }
        }
        case 0 -> zeros++;
        case '%' -> percent(i);
        case '*' -> star();
        default -> {
          if (word.isEmpty()) {
            if (c <= ' ') {
              break;
            }
            from = line;
          }
          int stop = run(i + 1);
          if (word.isEmpty() && stop - i <= LONGEST && stop < n && text.charAt(stop) == '*') {
            star(text.substring(i, stop).strip()); // as most are: whole, on one line
            i = stop;
            break;
          }
          word.append(text, i, stop);
          i = stop - 1;
          if (word.length() > LONGEST) {
            f.error(from, 0, "a word of more than a million characters; is this a Gerber file?");
            return;
          }
        }
      }
    }
    end();
    if (zeros > 0) {
      f.warn(0, 0, zeros + " characters of value zero in it were passed over");
    }
  }

  /// Where the next character stands that may end a word.
  private int run(int at) {
    int i = at;
    while (i < text.length()) {
      char c = text.charAt(i);
      if (c == '*' || c == '%' || c == '\n' || c == '\r' || c == 0) {
        break;
      }
      i++;
    }
    return i;
  }

  /// A comment whose star is missing ends with its line, and so does the end of the file.
  private void endOfLine(int i) {
    if (extended || macro != null || word.isEmpty() || word.length() > LOOKED_AT) {
      return;
    }
    String w = word.toString().strip();
    boolean comment = COMMENT.matcher(w).matches();
    if (comment && begins(i + 1) || w.matches("M0*[02]|G0*3[67]|D0*[1-9]\\d+")) {
      missing("a word without its star", w);
      star();
    }
  }

  /// Whether what stands next begins a word of its own, as behind a comment without its star.
  private boolean begins(int at) {
    int i = at;
    while (i < text.length() && text.charAt(i) <= ' ') {
      i++;
    }
    if (i >= text.length()) {
      return true;
    }
    int end = i;
    while (end < text.length() && end < i + 40 && "*\r\n".indexOf(text.charAt(end)) < 0) {
      end++;
    }
    String next = text.substring(i, end);
    return next.startsWith("%") || next.startsWith("G04") || plain(next);
  }

  private void percent(int i) {
    if (!extended && word.length() > LOOKED_AT) {
      word.append('%');
      return;
    }
    String w = word.toString().strip();
    if (!w.isEmpty() && macro == null) {
      if (!extended && COMMENT.matcher(w).matches() && !begins(i)) {
        word.append('%');
        return;
      }
      if (!extended && COMMENT.matcher(w).matches() && !lineBegins(i)) {
        word.append('%'); // in the middle of a line of a comment it is a sign like others
        return;
      }
      missing("a word without its star", w);
      star();
    } else if (!w.isEmpty()) {
      missing("a word without its star", w);
      star();
    }
    if (macro != null) {
      endMacro();
    }
    extended = !extended;
  }

  private boolean lineBegins(int i) {
    int k = i - 1;
    while (k >= 0 && (text.charAt(k) == ' ' || text.charAt(k) == '\t')) {
      k--;
    }
    return k < 0 || text.charAt(k) == '\n' || text.charAt(k) == '\r' || text.charAt(k) == '*';
  }

  private void endMacro() {
    plotter.macro(macro.toString(), macroLine);
    macro = null;
  }

  private void star() {
    String w = word.toString().strip();
    word.setLength(0);
    star(w);
  }

  private void star(String w) {
    if (extended && plain(w) && (macro == null || !w.contains(","))) {
      // nothing that draws stands between two %: the second one was left out
      missing("a command without its second %", w);
      if (macro != null) {
        endMacro();
      }
      extended = false;
    }
    if (macro != null) {
      macro.append(w).append('*');
    } else if (extended && w.regionMatches(true, 0, "AM", 0, 2)) {
      macro = new StringBuilder(w).append('*');
      macroLine = from;
    } else if (!w.isEmpty()) {
      plotter.word(w, from, extended);
    }
  }

  private static boolean plain(String w) {
    return !w.isEmpty() && "GXYDM".indexOf(w.charAt(0)) >= 0 && PLAIN.matcher(w).matches();
  }

  private void missing(String what, String w) {
    f.warn(from, 0, what + ": '" + GerberPlotter.cut(w) + "'");
  }

  private void end() {
    if (plotter.ended() || f.failed()) {
      return;
    }
    String w = word.toString().strip();
    if (w.matches("M0*[02]")) {
      missing("a word without its star", w);
      star();
    } else if (!w.isEmpty() && !COMMENT.matcher(w).matches()) {
      f.error(from, 0, "the file ends within '" + GerberPlotter.cut(w) + "'; expected *");
    } else if (extended) {
      f.error(line, 0, "the file ends within a %...% command; expected %");
    }
  }
}
