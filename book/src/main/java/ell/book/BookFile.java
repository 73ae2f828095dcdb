package ell.book;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import org.sqlite.SQLiteConfig;

/// The file of a workspace: made whole or not at all, looked at before it is opened, copied while
/// it is open.
final class BookFile {
  private static final byte[] MAGIC = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);

  private BookFile() {}

  /// Makes a new workspace file.
  ///
  /// @throws BookException when something with that name is there, or the place cannot be written
  static void create(Path file) throws BookException {
    if (Files.exists(file)) {
      throw new BookException(file + " is already there; choose another name");
    }
    Path folder = file.toAbsolutePath().getParent();
    if (folder == null || !Files.isDirectory(folder)) {
      throw new BookException("there is no folder " + folder + " to put the workspace in");
    }
    Path part = file.resolveSibling(file.getFileName() + ".new");
    try {
      Files.deleteIfExists(part);
      Schema.migrate(part);
      try (Connection c = connect(part, false)) {
        checkpoint(c);
      }
      Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    } catch (SQLException e) {
      throw BookException.of(file, e);
    } catch (IOException | RuntimeException e) {
      throw new BookException(file + " cannot be made: " + e.getMessage(), e);
    } finally {
      deleteQuietly(part);
    }
  }

  static void deleteQuietly(Path part) {
    for (String end : new String[] {"", "-wal", "-shm"}) {
      try {
        Files.deleteIfExists(part.resolveSibling(part.getFileName() + end));
      } catch (IOException e) {
        // a leftover of a workspace that was never made harms nobody
      }
    }
  }

  /// Looks whether a file can be a workspace at all.
  static void inspect(Path file) throws BookException {
    if (!Files.exists(file)) {
      throw new BookException("there is no workspace " + file + "; make one with: new " + file);
    }
    if (Files.isDirectory(file)) {
      throw new BookException(file + " is a folder, not a workspace");
    }
    try (InputStream in = Files.newInputStream(file)) {
      byte[] head = in.readNBytes(MAGIC.length);
      if (!Arrays.equals(head, MAGIC)) {
        throw new BookException(file + " is not a workspace");
      }
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new BookException(file + " cannot be read: " + e.getMessage(), e);
    }
  }

  /// Connects; readers in a folder that cannot be written take the file as it is.
  static Connection connect(Path file, boolean readOnly) throws SQLException {
    SQLiteConfig c = new SQLiteConfig();
    c.setReadOnly(readOnly);
    c.enforceForeignKeys(true);
    c.setBusyTimeout(5000);
    if (!readOnly) {
      c.setJournalMode(SQLiteConfig.JournalMode.WAL);
      c.setSynchronous(SQLiteConfig.SynchronousMode.FULL);
    }
    boolean alone = readOnly && !Files.isWritable(file.toAbsolutePath().getParent());
    String url =
        "jdbc:sqlite:file:"
            + file.toAbsolutePath().toUri().getRawPath()
            + (alone ? "?immutable=1" : "");
    return c.createConnection(url);
  }

  private static void checkpoint(Connection c) throws SQLException {
    try (Statement s = c.createStatement()) {
      s.execute("PRAGMA wal_checkpoint(TRUNCATE)");
    }
  }

  /// Copies the workspace to a new file while it stays open. The copy appears whole or not at all.
  static void backup(Path file, Path to) throws BookException {
    if (Files.exists(to)) {
      throw new BookException(to + " is already there; choose another name");
    }
    Path part = to.resolveSibling(to.getFileName() + ".new");
    try {
      // over a connection of its own: appends go on meanwhile, and the copy holds one moment
      try (Connection reader = connect(file, true);
          PreparedStatement p = reader.prepareStatement("VACUUM INTO ?")) {
        p.setString(1, part.toAbsolutePath().toString());
        p.execute();
      }
      Files.move(part, to, StandardCopyOption.ATOMIC_MOVE);
    } catch (SQLException e) {
      throw BookException.of(to, e);
    } catch (IOException e) {
      throw new BookException("the backup " + to + " cannot be written: " + e.getMessage(), e);
    } finally {
      deleteQuietly(part);
    }
  }
}
