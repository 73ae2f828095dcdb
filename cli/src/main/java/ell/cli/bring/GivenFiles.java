package ell.cli.bring;

import ell.files.Looks;
import ell.files.Source;
import ell.work.bring.Dropped;
import ell.work.bring.FileKind;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/// Files as they are given on the command line: plain, or in a zip archive out of which the one of
/// a kind is taken.
record GivenFiles(List<Path> paths) {
  /// All of them, told apart.
  Dropped all() {
    return Dropped.of(paths.stream().map(Source::of).toList());
  }

  /// The one of a kind among files that were told apart.
  static Optional<Source> one(Dropped given, FileKind kind) throws ActException {
    try {
      return given.one(kind);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  /// The file that an option names; out of an archive the one of its kind.
  static Source one(Path path, FileKind kind) throws ActException {
    Source s = Source.of(path);
    if (!zip(s)) {
      return s;
    }
    return one(Dropped.of(List.of(s)), kind)
        .orElseThrow(() -> new ActException(s.name() + " holds no " + kind.words()));
  }

  /// The files that an option names; out of an archive all of their kind.
  static List<Source> some(Path path, FileKind kind) throws ActException {
    Source s = Source.of(path);
    if (!zip(s)) {
      return List.of(s);
    }
    List<Source> all = Dropped.of(List.of(s)).found().getOrDefault(kind, List.of());
    if (all.isEmpty()) {
      throw new ActException(s.name() + " holds no " + kind.words());
    }
    return all;
  }

  private static boolean zip(Source s) {
    try {
      return Looks.of(s) == Looks.ZIP;
    } catch (IOException e) {
      return false; // whoever reads it says what is wrong with it
    }
  }
}
