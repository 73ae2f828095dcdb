package ell.cli.shell;

import ell.book.Place;
import ell.files.Output;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import picocli.CommandLine.Option;

/// Whether a command may write over a file that Ell did not make.
public final class Replacing {
  @Option(
      names = "--force",
      description = "write over a file that was not made by Ell; never over a workspace")
  boolean force;

  /// What may be replaced; the workspace, where it is a file, never is.
  public Output.Over over(Place workspace) {
    return over(workspace.file().orElse(null));
  }

  /// What may be replaced.
  ///
  /// @param inputs files that the command reads, which never are; null where one was not said
  public Output.Over over(Path... inputs) {
    List<Path> given = java.util.Arrays.stream(inputs).filter(Objects::nonNull).toList();
    return new Output.Over(force, given);
  }
}
