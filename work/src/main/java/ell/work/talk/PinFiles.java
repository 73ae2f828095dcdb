package ell.work.talk;

import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Consumer;

/// Tables of pins as files.
public final class PinFiles {
  private PinFiles() {}

  /// A reader of one kind of them.
  public interface Reads<T> {
    /// Reads.
    Read<T> read(Source source) throws IOException;
  }

  /// Reads a file.
  ///
  /// @param warned is told what was not used, a sentence each
  /// @throws ActException naming the file, the line and what was expected
  public static <T> T read(Path file, Reads<T> how, Consumer<String> warned)
      throws IOException, ActException {
    if (!Files.isRegularFile(file)) {
      throw new ActException("there is no file " + file);
    }
    Read<T> r = how.read(Source.of(file));
    if (r instanceof Read.Whole<T> w) {
      w.warnings().forEach(p -> warned.accept(p.toString()));
    }
    return whole(r);
  }

  static <T> T whole(Read<T> read) throws ActException {
    return switch (read) {
      case Read.Whole<T> w -> w.value();
      case Read.Flawed<T> x -> {
        Problem p = x.problems().getFirst();
        throw new ActException(
            p + (x.problems().size() > 1 ? "; and " + (x.problems().size() - 1) + " more" : ""));
      }
    };
  }
}
