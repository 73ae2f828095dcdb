package ell.work.bench;

import ell.bench.dialect.Dialect;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/// Dialect files of a maker's own.
public final class DialectFiles {
  private static final long LONGEST = 1 << 16;

  private DialectFiles() {}

  /// Reads one.
  ///
  /// @throws ActException naming the file and everything that is wrong in it
  public static Dialect read(Path file) throws IOException, ActException {
    if (!Files.isRegularFile(file)) {
      throw new ActException(file + ": there is no such file");
    }
    if (Files.size(file) > LONGEST) {
      throw new ActException(file + ": a dialect is a few lines, this is no dialect");
    }
    try {
      return Dialect.read(Files.readString(file));
    } catch (IllegalArgumentException | java.nio.charset.CharacterCodingException e) {
      throw new ActException(file + ": " + e.getMessage(), e);
    }
  }
}
