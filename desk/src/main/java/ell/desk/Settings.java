package ell.desk;

import ell.desk.shell.DeskBench;
import java.io.IOException;
import java.io.Reader;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.stream.Collectors;

/// What the window remembers between two starts: its size, the palette, the bench, the last
/// workspace. Losing it harms nothing, so problems with it are not told.
final class Settings {
  private static final String BENCH = "bench.";

  private final Path file;
  private final Properties values = new Properties();

  private Settings(Path file) {
    this.file = file;
  }

  /// The settings of this person: the system property `ell.settings`, else a file in the home
  /// folder.
  static Settings read() {
    String told = System.getProperty("ell.settings");
    Path home = Path.of(System.getProperty("user.home"), ".config", "ell", "desk.properties");
    Settings s = new Settings(told == null ? home : Path.of(told));
    if (Files.isRegularFile(s.file)) {
      try (Reader in = Files.newBufferedReader(s.file)) {
        s.values.load(in);
      } catch (IOException | IllegalArgumentException e) {
        s.values.clear();
      }
    }
    return s;
  }

  double number(String key, double otherwise) {
    try {
      double d = Double.parseDouble(values.getProperty(key, ""));
      return Double.isFinite(d) ? d : otherwise;
    } catch (NumberFormatException e) {
      return otherwise;
    }
  }

  Optional<String> text(String key) {
    return Optional.ofNullable(values.getProperty(key)).filter(t -> !t.isBlank());
  }

  void set(String key, Object value) {
    values.setProperty(key, String.valueOf(value));
  }

  /// The bench as it is typed: `simulated` when no instrument is remembered.
  String bench() {
    String all =
        values.stringPropertyNames().stream()
            .filter(k -> k.startsWith(BENCH))
            .sorted()
            .map(k -> k.substring(BENCH.length()) + "=" + values.getProperty(k))
            .collect(Collectors.joining(" "));
    return all.isEmpty() ? DeskBench.SIMULATED : all;
  }

  /// Remembers where each instrument is, by the word of its kind; none for the simulated bench.
  void bench(Map<String, String> addresses) {
    values.stringPropertyNames().stream().filter(k -> k.startsWith(BENCH)).forEach(values::remove);
    addresses.forEach((kind, at) -> set(BENCH + kind, at));
  }

  void write() {
    try {
      Files.createDirectories(file.toAbsolutePath().getParent());
      try (Writer out = Files.newBufferedWriter(file)) {
        values.store(out, null);
      }
    } catch (IOException e) {
      // the next start then begins as if it were the first
    }
  }
}
