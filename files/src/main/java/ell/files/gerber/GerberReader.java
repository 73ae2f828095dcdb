package ell.files.gerber;

import ell.core.artwork.Artwork;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import java.io.IOException;
import java.io.InputStream;
import java.util.Locale;

/// Reads a layer in Gerber (RS-274X with X2 attributes): format and unit statements, standard
/// apertures, macros and blocks, D01, D02, D03, regions, arcs of one and of many quadrants, step
/// and repeat, polarity, mirroring, turning and scaling, attributes; and what old writers leave
/// behind (G54, G70, G71, G90, G91, IN, LN, attributes in comments). Millimetre.
///
/// ```
/// file      = { word "*" | "%" word "*" { word "*" } "%" }
/// word      = FS | MO | AD | AM | AB | SR | LP | LM | LR | LS | TF | TA | TO | TD
///           | "G" code | [ "G" code ] [ "X" n ] [ "Y" n ] [ "I" n ] [ "J" n ] [ "D" code ] | "M02"
/// ```
public final class GerberReader {
  /// Larger files are refused, in bytes.
  static final int MOST_BYTES = 256 << 20;

  private GerberReader() {}

  /// Whether the beginning of a file looks like a layer.
  public static boolean looksRight(String head) {
    return head.contains("%FS") || head.contains("%MO") || head.contains("%ADD");
  }

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<Artwork> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    byte[] bytes;
    try (InputStream in = source.open()) {
      bytes = in.readNBytes(MOST_BYTES + 1);
    }
    if (bytes.length > MOST_BYTES) {
      f.error(0, 0, "larger than 256 MB, which no layer of a board is");
      return f.flawed();
    }
    GerberPlotter plotter = new GerberPlotter(f);
    TextFile.Encoding e = TextFile.encoding(source);
    words(new String(bytes, e.mark(), bytes.length - e.mark(), e.charset()), f, plotter);
    Artwork art = plotter.finish();
    return f.failed() ? f.flawed() : f.done(art);
  }

  private static void words(String text, Findings f, GerberPlotter plotter) {
    int line = 1;
    int i = 0;
    int n = text.length();
    StringBuilder word = new StringBuilder();
    boolean extended = false;
    StringBuilder macro = null; // an aperture macro is one word of several blocks
    int macroLine = 0;
    int from = 1;
    while (i < n && !plotter.ended()) {
      char c = text.charAt(i++);
      switch (c) {
        case '\n' -> line++;
        case '\r' -> {}
        case '%' -> {
          if (!word.toString().isBlank()) {
            f.error(line, 0, "a % in the middle of a word: '" + word + "'; expected * before it");
            word.setLength(0);
          }
          if (macro != null) {
            plotter.macro(macro.toString(), macroLine);
            macro = null;
          }
          extended = !extended;
        }
        case '*' -> {
          String w = word.toString().strip();
          word.setLength(0);
          if (macro != null) {
            macro.append(w).append('*');
          } else if (extended && w.toUpperCase(Locale.ROOT).startsWith("AM")) {
            macro = new StringBuilder(w).append('*');
            macroLine = from;
          } else if (!w.isEmpty()) {
            plotter.word(w, from, extended);
          }
          if (f.count() > Findings.MOST) {
            return;
          }
        }
        default -> {
          if (word.isEmpty()) {
            if (c == ' ' || c == '\t') {
              break;
            }
            from = line;
          }
          word.append(c);
          if (word.length() > 1 << 20) {
            f.error(from, 0, "a word of more than a million characters; is this a Gerber file?");
            return;
          }
        }
      }
    }
    if (!plotter.ended()) {
      if (!word.toString().isBlank()) {
        f.error(from, 0, "the file ends within '" + word.toString().strip() + "'; expected *");
      } else if (extended) {
        f.error(line, 0, "the file ends within a %...% command; expected %");
      }
    }
  }
}
