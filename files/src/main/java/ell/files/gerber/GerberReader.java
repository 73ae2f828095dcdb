package ell.files.gerber;

import ell.core.artwork.Artwork;
import ell.files.Findings;
import ell.files.Looks;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import java.io.IOException;
import java.io.InputStream;
import java.util.Optional;

/// Reads a layer in Gerber (RS-274X with X2 attributes): format and unit statements, standard
/// apertures, macros and blocks, D01, D02, D03, regions, arcs of one and of many quadrants, step
/// and repeat, polarity, mirroring, turning and scaling, attributes; and what old writers leave
/// behind (G54, G70, G71, G90, G91, IN, LN, attributes in comments, missing stars, units behind the
/// apertures, arcs that do not say how their centre is told). Millimetre.
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

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<Artwork> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    Optional<String> wrong = Looks.wrong(source, Looks.GERBER, "a Gerber layer");
    if (wrong.isPresent()) {
      f.error(0, 0, wrong.get());
      return f.flawed();
    }
    byte[] bytes;
    try (InputStream in = source.open()) {
      bytes = in.readNBytes(MOST_BYTES + 1);
    }
    if (bytes.length > MOST_BYTES) {
      f.error(0, 0, "larger than 256 MB, which no layer of a board is");
      return f.flawed();
    }
    TextFile.Encoding e = TextFile.encoding(source);
    String text = new String(bytes, e.mark(), bytes.length - e.mark(), e.charset());
    GerberPlotter plotter = new GerberPlotter(f);
    plotter.unitsOfWholeFile(text);
    new GerberWords(text, f, plotter).run();
    Artwork art = plotter.finish();
    return f.failed() ? f.flawed() : f.done(art);
  }
}
