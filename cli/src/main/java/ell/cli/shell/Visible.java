package ell.cli.shell;

import java.io.FilterWriter;
import java.io.IOException;
import java.io.Writer;

/// Shows control characters instead of sending them: what a workspace or a file of somebody else
/// holds must not move the cursor, change colours or rename the window.
public final class Visible extends FilterWriter {
  private static final char PICTURES = '\u2400';
  private static final char DELETE = '\u2421';
  private static final char UNKNOWN = '\uFFFD';

  public Visible(Writer out) {
    super(out);
  }

  private static char shown(char c) {
    if (c == '\n' || c == '\t') {
      return c;
    }
    if (c < ' ') {
      return (char) (PICTURES + c);
    }
    if (c == 0x7f) {
      return DELETE;
    }
    boolean control = c >= 0x80 && c < 0xa0;
    boolean turnsText = c >= 0x202a && c <= 0x202e || c >= 0x2066 && c <= 0x2069;
    return control || turnsText ? UNKNOWN : c;
  }

  @Override
  public void write(int c) throws IOException {
    super.write(shown((char) c));
  }

  @Override
  public void write(char[] text, int from, int count) throws IOException {
    char[] shown = new char[count];
    for (int i = 0; i < count; i++) {
      shown[i] = shown(text[from + i]);
    }
    super.write(shown, 0, count);
  }

  @Override
  public void write(String text, int from, int count) throws IOException {
    write(text.toCharArray(), from, count);
  }
}
