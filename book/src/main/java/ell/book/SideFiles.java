package ell.book;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import java.util.Optional;

/// What lies beside a workspace and belongs to it: after a crash, entries wait there. When somebody
/// lays a backup over the workspace itself, they are those of another file, and would spoil it.
final class SideFiles {
  private SideFiles() {}

  private static Path beside(Path file, String end) {
    return file.resolveSibling(file.getFileName() + end);
  }

  /// Looks whether what waits beside a workspace belongs to it: with it the file must be whole, and
  /// the chain of entries go on where that of the file alone ends. Only after a crash does anything
  /// wait.
  ///
  /// @throws BookException when it does not, with what to do; nothing is changed
  static void mustFit(Path file) throws BookException {
    if (!BookFile.waiting(file)) {
      return;
    }
    try (Connection alone = BookFile.asItStands(file)) {
      if (!whole(alone)) {
        return; // the file needs what waits beside it
      }
      EntryStore.End end = new FileEntries(alone).end();
      if (!goesOn(file, end)) {
        throw new BookException(
            "beside "
                + file
                + " lie the side files of another workspace, as after a crash; nothing was changed."
                + " Put a backup back with: restore BACKUP "
                + file
                + ", which keeps what is there");
      }
    } catch (SQLException e) {
      // the file alone cannot be read at all: it is opened as it is, and says so itself
    }
  }

  private static boolean goesOn(Path file, EntryStore.End end) {
    try (Connection both = BookFile.connect(file, true)) {
      if (!whole(both)) {
        return false;
      }
      if (end.number() == 0) {
        return true;
      }
      try (PreparedStatement p = both.prepareStatement("SELECT hash FROM entry WHERE number = ?")) {
        p.setLong(1, end.number());
        try (ResultSet r = p.executeQuery()) {
          return r.next() && Arrays.equals(r.getBytes(1), end.hash());
        }
      }
    } catch (SQLException e) {
      // where there is no room to look, or no answer, nobody is accused
      return !BookException.of(file, e).damaged();
    }
  }

  private static boolean whole(Connection db) throws SQLException {
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("PRAGMA quick_check(1)")) {
      return r.next() && r.getString(1).equals("ok");
    }
  }

  /// Puts a copy of a good file in a place.
  static Optional<Path> putBack(Path backup, Path place) throws BookException {
    Path folder = place.toAbsolutePath().getParent();
    if (folder == null || !Files.isDirectory(folder)) {
      throw new BookException("there is no folder " + folder + " to put the workspace in");
    }
    Path part = null;
    try (WriterLock lock = WriterLock.take(place)) {
      if (Files.exists(place) && Files.isSameFile(backup, place)) {
        throw new BookException(place + " is the backup itself");
      }
      part = Files.createTempFile(folder, ".ell-", ".part");
      Files.copy(backup, part, StandardCopyOption.REPLACE_EXISTING);
      try (FileChannel c = FileChannel.open(part, StandardOpenOption.WRITE)) {
        c.force(true);
      }
      Optional<Path> kept = aside(place);
      Files.move(part, place, StandardCopyOption.ATOMIC_MOVE);
      return kept;
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw BookException.cannot(place + " cannot be put back", e);
    } finally {
      BookFile.deleteQuietly(part);
    }
  }

  /// Moves what is at a place out of the way, under a name that is free.
  private static Optional<Path> aside(Path place) throws IOException {
    boolean any = false;
    for (String end : new String[] {"", "-wal", "-shm"}) {
      any |= Files.exists(beside(place, end));
    }
    if (!any) {
      return Optional.empty();
    }
    int n = 1;
    while (Files.exists(beside(place, ".old-" + n))
        || Files.exists(beside(place, ".old-" + n + "-wal"))) {
      n++;
    }
    Path kept = beside(place, ".old-" + n);
    // the side files first: what is left behind by a crash here is the file with nothing beside it
    for (String end : new String[] {"-wal", "-shm", ""}) {
      if (Files.exists(beside(place, end))) {
        Files.move(beside(place, end), beside(kept, end));
      }
    }
    return Optional.of(kept);
  }
}
