package ell.work.practice;

import ell.book.BenchFolder;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// How the runs of a person went, one after the other: a CSV file of their own, in no workspace.
public final class Runs {
  private static final String HEAD = "id,at,board,level,right,minutes,best,bits,parts";

  private final Path file;

  /// Those of a file.
  public Runs(Path file) {
    this.file = file;
  }

  /// Those of whoever runs the program.
  public static Runs own() {
    return new Runs(BenchFolder.home().resolve("practice.csv"));
  }

  /// One run.
  ///
  /// @param id of the practice, so that it counts once
  /// @param board such as `MG-1 rev B`
  /// @param level 1 to 5, 0 for a case of a trainer
  /// @param minutes that it took, typical
  /// @param best minutes of the best run
  /// @param bits that its measurements told, on the average
  /// @param parts that were put in anew
  public record Run(
      String id,
      OffsetDateTime at,
      String board,
      int level,
      boolean right,
      double minutes,
      double best,
      double bits,
      int parts) {}

  /// All of them, oldest first; a line that cannot be read is passed over.
  public List<Run> all() throws IOException {
    List<Run> all = new ArrayList<>();
    if (!Files.isRegularFile(file)) {
      return all;
    }
    for (String line : Files.readAllLines(file)) {
      String[] f = line.split(",");
      if (f.length == 9 && !line.equals(HEAD)) {
        try {
          all.add(
              new Run(
                  f[0],
                  OffsetDateTime.parse(f[1]),
                  f[2],
                  Integer.parseInt(f[3]),
                  Boolean.parseBoolean(f[4]),
                  Double.parseDouble(f[5]),
                  Double.parseDouble(f[6]),
                  Double.parseDouble(f[7]),
                  Integer.parseInt(f[8])));
        } catch (NumberFormatException | DateTimeParseException e) {
          // not one of ours
        }
      }
    }
    return all;
  }

  /// Writes a run down, once.
  public void add(Run r) throws IOException {
    if (all().stream().anyMatch(x -> x.id.equals(r.id))) {
      return;
    }
    Files.createDirectories(file.toAbsolutePath().getParent());
    String line =
        String.format(
            Locale.ROOT,
            "%s,%s,%s,%d,%s,%.2f,%.2f,%.3f,%d%n",
            r.id,
            r.at,
            r.board.replace(',', ' '),
            r.level,
            r.right,
            r.minutes,
            r.best,
            r.bits,
            r.parts);
    Files.writeString(
        file,
        (Files.exists(file) ? "" : HEAD + System.lineSeparator()) + line,
        StandardCharsets.UTF_8,
        StandardOpenOption.CREATE,
        StandardOpenOption.APPEND);
  }
}
