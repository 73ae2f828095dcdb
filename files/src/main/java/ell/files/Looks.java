package ell.files;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.regex.Pattern;

/// What a file looks like from its first bytes, so that a file of another kind is told in one
/// sentence and not in two hundred.
public enum Looks {
  /// Several files in one.
  ZIP("a zip archive"),
  /// A picture.
  PICTURE("a picture"),
  /// Paper.
  PDF("a PDF document"),
  /// A packed file.
  PACKED("a packed file"),
  /// Nothing that a person could read.
  BINARY("no text"),
  /// A page of the web.
  PAGE("a web page"),
  /// A layer, RS-274X.
  GERBER("a Gerber layer"),
  /// Holes, XNC or Excellon.
  DRILL("a drill file"),
  /// IPC-D-356.
  NETLIST("an IPC-D-356 netlist"),
  /// Names and values in braces.
  JSON("JSON"),
  /// Any other text, a table perhaps.
  TEXT("text");

  private static final int HEAD = 8000;
  // none of these looks at a character more than a few times, whatever stands in a file
  private static final Pattern LAYER =
      Pattern.compile(
          "(?m)%[ \\t]*+(?:FS[LTD]?[AI]|MO(?:MM|IN)|ADD\\d)|^G04[^*\\r\\n]*+\\*|^G0?[123]X"
              + "|^X-?\\d{1,12}+Y-?\\d{1,12}+D0[123]\\*");
  private static final Pattern TEST =
      Pattern.compile(
          "(?m)^(?:[30][12]7[^,;\\t\\r\\n]{20}|P  (?:UNITS|JOB|CODE|TITLE|VER|IMAGE|DIM|NUM) |P  NNAME)");
  private static final Pattern HOLES =
      Pattern.compile("(?m)^[ \\t]*+(?:M48\\b|%?[ \\t]*+T\\d{1,9}+(?:[FS]\\d{1,9}+){0,4}+C[\\d.])");
  private static final Pattern PLACES =
      Pattern.compile("(?m)^T\\d{1,9}+[ \\t]*+\\R[ \\t]*+X[+-]?[\\d.]{1,20}+Y");

  private final String words;

  Looks(String words) {
    this.words = words;
  }

  /// What it is, with its article.
  public String words() {
    return words;
  }

  /// Looks into a file.
  ///
  /// @throws IOException when it cannot be read
  public static Looks of(Source s) throws IOException {
    try (InputStream in = s.open()) {
      return of(in.readNBytes(HEAD));
    }
  }

  /// Looks at the beginning of a file.
  public static Looks of(byte[] head) {
    String raw = new String(head, 0, Math.min(head.length, HEAD), StandardCharsets.ISO_8859_1);
    if (raw.startsWith("PK\u0003\u0004") || raw.startsWith("PK\u0005\u0006")) {
      return ZIP;
    }
    if (raw.startsWith("\u0089PNG")
        || raw.startsWith("\u00ff\u00d8\u00ff")
        || raw.startsWith("GIF8")
        || raw.startsWith("BM") && binary(raw)
        || raw.startsWith("RIFF") && raw.startsWith("WEBP", 8)) {
      return PICTURE;
    }
    if (raw.startsWith("%PDF")) {
      return PDF;
    }
    if (raw.startsWith("\u001f\u008b")
        || raw.startsWith("7z\u00bc\u00af")
        || raw.startsWith("Rar!")) {
      return PACKED;
    }
    Optional<Charset> two = TwoBytes.of(head);
    if (two.isPresent()) {
      int mark = TwoBytes.mark(head);
      return told(new String(head, mark, Math.min(head.length, HEAD) - mark, two.get()));
    }
    return told(raw);
  }

  /// Looks at the beginning of a text.
  private static Looks told(String raw) {
    if (HOLES.matcher(raw).find() && !raw.contains("%FS")) {
      return DRILL;
    }
    if (LAYER.matcher(raw).find()) {
      return GERBER;
    }
    if (binary(raw)) {
      return BINARY;
    }
    if (TEST.matcher(raw).find()) {
      return NETLIST;
    }
    if (PLACES.matcher(raw).find()) {
      return DRILL;
    }
    String first = raw.startsWith("\u00ef\u00bb\u00bf") ? raw.substring(3) : raw;
    first = first.stripLeading();
    if (first.regionMatches(true, 0, "<!doctype", 0, 9)
        || first.regionMatches(true, 0, "<html", 0, 5)) {
      return PAGE;
    }
    return first.startsWith("{") ? JSON : TEXT;
  }

  /// Bytes that no text holds, in some number; a few zeros are put up with.
  private static boolean binary(String raw) {
    long strange =
        raw.chars()
            .filter(c -> c < 32 && c != '\t' && c != '\n' && c != '\r' && c != 12 && c != 26)
            .count();
    return strange * 50 > raw.length() && strange > 4;
  }

  /// Whether this is surely something else than was wanted.
  private boolean other(Looks wanted) {
    // a text that shows nothing of its kind may still be of any, and is read for its own problems
    return this != wanted && this != TEXT;
  }

  /// One sentence when a file is surely of another kind.
  ///
  /// @throws IOException when it cannot be read
  public static Optional<String> wrong(Source s, Looks wanted, String expected) throws IOException {
    Looks is = of(s);
    return is.other(wanted)
        ? Optional.of("this is " + is.words() + "; expected " + expected)
        : Optional.empty();
  }
}
