package ell.desk.shell;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/// Asks the maker for files. The window uses the system's own dialogs; tests and the offscreen play
/// say what was chosen.
public interface FileAsker {
  /// A workspace to open.
  Optional<Path> workspaceToOpen();

  /// Where to make a new workspace.
  Optional<Path> workspaceToMake();

  /// Files of a revision.
  List<Path> revisionFiles();

  /// Where to write the record of a board.
  Optional<Path> record(String board);

  /// Files about the shelf: offers, a shelf, parameters of parts.
  List<Path> shelfFiles();

  /// Where to write labels.
  Optional<Path> labels();

  /// A temperature log to take in.
  Optional<Path> profileLog();

  /// A capture to take in.
  default Optional<Path> capture() {
    return Optional.empty();
  }

  /// A script, or what firmware needs.
  default Optional<Path> script() {
    return Optional.empty();
  }

  /// A photograph of a joint.
  Optional<Path> photograph();

  /// A folder to write into.
  ///
  /// @param what will be written, for the title
  Optional<Path> folder(String what);

  /// One that answers nothing.
  FileAsker NOBODY =
      new FileAsker() {
        @Override
        public Optional<Path> workspaceToOpen() {
          return Optional.empty();
        }

        @Override
        public Optional<Path> workspaceToMake() {
          return Optional.empty();
        }

        @Override
        public List<Path> revisionFiles() {
          return List.of();
        }

        @Override
        public Optional<Path> record(String board) {
          return Optional.empty();
        }

        @Override
        public List<Path> shelfFiles() {
          return List.of();
        }

        @Override
        public Optional<Path> labels() {
          return Optional.empty();
        }

        @Override
        public Optional<Path> profileLog() {
          return Optional.empty();
        }

        @Override
        public Optional<Path> photograph() {
          return Optional.empty();
        }

        @Override
        public Optional<Path> folder(String what) {
          return Optional.empty();
        }
      };
}
