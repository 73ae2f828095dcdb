package ell.desk.window;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import javafx.css.Stylesheet;

/// The house style sheet: as it is written, or as the build has parsed it beforehand, which a start
/// does not have to do again.
public final class Style {
  private static final String SHEET = "/ell/desk/ell.css";

  private Style() {}

  /// Where the toolkit finds it: what the system property `ell.style` names, when that is there.
  static String address() {
    String parsed = System.getProperty("ell.style", "");
    Path file = Path.of(parsed);
    return !parsed.isEmpty() && Files.isRegularFile(file)
        ? file.toUri().toString()
        : Style.class.getResource(SHEET).toExternalForm();
  }

  /// Parses the sheet into a file.
  ///
  /// @throws IOException when the file cannot be written
  public static void parse(Path to) throws IOException {
    Path text = Files.createTempFile("ell", ".css");
    try (InputStream in = Style.class.getResourceAsStream(SHEET)) {
      Files.copy(in, text, StandardCopyOption.REPLACE_EXISTING);
      Stylesheet.convertToBinary(text.toFile(), to.toFile());
    } finally {
      Files.delete(text);
    }
  }
}
