package ell.cli.shell;

import ell.book.Build;
import ell.book.RevisionStore;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;
import picocli.CommandLine.Option;

/// Which revision something is said of, where it need not have a build: as said, else that of a
/// board, else that of the latest build, else the latest one.
public final class OfRevision {
  @Option(names = "--design", description = "of the revision; that of the build when not said")
  Optional<String> design = Optional.empty();

  @Option(names = "--revision", description = "that of the build when not said")
  Optional<String> revision = Optional.empty();

  /// The revision that is meant.
  ///
  /// @throws ActException when there is none, or no such board
  public RevisionStore.Id id(Workshop w, Optional<String> board) throws IOException, ActException {
    if (design.isPresent() && revision.isPresent()) {
      return new RevisionStore.Id(design.get(), revision.get());
    }
    if (board.isPresent() || !w.book().builds().isEmpty()) {
      Build b = board.isPresent() ? w.buildOf(board.get()) : w.build(Optional.empty());
      return new RevisionStore.Id(design.orElse(b.design()), revision.orElse(b.revision()));
    }
    RevisionStore.Id latest = w.revisions().latest();
    return new RevisionStore.Id(design.orElse(latest.design()), revision.orElse(latest.name()));
  }
}
