package ell.work;

import ell.core.kit.ShelfLine;
import ell.files.ParametersReader;
import ell.files.Problem;
import ell.files.Read;
import ell.files.ShelfReader;
import ell.files.Source;
import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/// Files about the shelf, read whole or refused with every problem, a line each.
public final class ShelfFiles {
  private ShelfFiles() {}

  private interface Reading<T> {
    Read<T> of(Source source) throws IOException;
  }

  /// A shelf.
  public static List<ShelfLine> shelf(Path file) throws IOException, ActException {
    return whole(Source.of(file), ShelfReader::read);
  }

  /// What is known of parts, by code.
  public static Map<String, Map<String, String>> parameters(Path file)
      throws IOException, ActException {
    return whole(Source.of(file), ParametersReader::read);
  }

  private static <T> T whole(Source source, Reading<T> reader) throws IOException, ActException {
    try {
      return switch (reader.of(source)) {
        case Read.Whole<T>(T value, var _, var _) -> value;
        case Read.Flawed<T>(var problems) ->
            throw new ActException(
                String.join("\n", problems.stream().map(Problem::toString).toList()));
      };
    } catch (NoSuchFileException e) {
      throw new ActException(source.name() + ": there is no such file", e);
    }
  }
}
