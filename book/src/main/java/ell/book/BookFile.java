package ell.book;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteErrorCode;
import org.sqlite.SQLiteException;

/// The file of a workspace: made whole or not at all, looked at before it is opened, copied while
/// it is open.
final class BookFile {
  private static final byte[] MAGIC = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);

  private BookFile() {}

  /// Makes a new workspace file.
  ///
  /// @throws BookException when something with that name is there, or the place cannot be written
  static void create(Path file) throws BookException {
    create(file, _ -> {});
  }

  /// What fills a new file.
  interface Filling {
    void into(Path part) throws SQLException, BookException;
  }

  /// Makes a new workspace file and fills it, before it appears.
  ///
  /// @throws BookException when something with that name is there, or the place cannot be written
  static void create(Path file, Filling filling) throws BookException {
    if (Files.exists(file)) {
      throw new BookException(file + " is already there; choose another name");
    }
    Path folder = file.toAbsolutePath().getParent();
    if (folder == null || !Files.isDirectory(folder)) {
      throw new BookException("there is no folder " + folder + " to put the workspace in");
    }
    Path part = null;
    try {
      part = Files.createTempFile(folder, ".ell-", ".part");
      Schema.migrate(part);
      filling.into(part);
      try (Connection c = connect(part, false)) {
        checkpoint(c);
      }
      settle(part, file, folder);
    } catch (BookException e) {
      throw e;
    } catch (SQLException e) {
      throw BookException.of(file, e);
    } catch (IOException | RuntimeException e) {
      throw BookException.cannot(file + " cannot be made", e);
    } finally {
      deleteQuietly(part);
    }
  }

  /// Puts a finished file in its place, lastingly.
  private static void settle(Path part, Path to, Path folder) throws IOException {
    try (FileChannel c = FileChannel.open(part, StandardOpenOption.WRITE)) {
      c.force(true);
    }
    try {
      Files.setPosixFilePermissions(part, PosixFilePermissions.fromString("rw-r--r--"));
    } catch (UnsupportedOperationException e) {
      // a system without such rights
    }
    if (Files.exists(to)) {
      throw new IOException("something with that name came meanwhile");
    }
    Files.move(part, to, StandardCopyOption.ATOMIC_MOVE);
    try (FileChannel c = FileChannel.open(folder, StandardOpenOption.READ)) {
      c.force(true);
    } catch (IOException e) {
      // not every system can open a folder; it is written in the system's own time then
    }
  }

  static void deleteQuietly(Path part) {
    if (part == null) {
      return;
    }
    for (String end : new String[] {"", "-wal", "-shm"}) {
      try {
        Files.deleteIfExists(part.resolveSibling(part.getFileName() + end));
      } catch (IOException e) {
        // a leftover of a workspace that was never made harms nobody
      }
    }
  }

  /// Looks whether a file can be a workspace at all.
  ///
  /// @return the file itself, where what was named is a link to it: lock and side files go by it
  /// @throws BookException when it is none, or has a second name under which its side files would
  ///   not be found
  static Path inspect(Path named) throws BookException {
    if (!Files.exists(named)) {
      throw new BookException("there is no workspace " + named + "; make one with: new " + named);
    }
    if (Files.isDirectory(named)) {
      throw new BookException(named + " is a folder, not a workspace");
    }
    if (!Files.isRegularFile(named)) {
      throw new BookException(named + " is no plain file");
    }
    try {
      Path file = Files.isSymbolicLink(named) ? named.toRealPath() : named;
      try (InputStream in = Files.newInputStream(file)) {
        byte[] head = in.readNBytes(MAGIC.length);
        if (!Arrays.equals(head, MAGIC)) {
          throw new BookException(named + " is not a workspace");
        }
      }
      if (names(file) > 1) {
        throw new BookException(
            named
                + " has a second name (a hard link): what is written under one name would be lost"
                + " under the other; copy it to a file of its own");
      }
      return file;
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new BookException(named + " cannot be read: " + e.getMessage(), e);
    }
  }

  private static int names(Path file) throws IOException {
    try {
      return (Integer) Files.getAttribute(file, "unix:nlink");
    } catch (UnsupportedOperationException | IllegalArgumentException e) {
      return 1; // a system without such links, or one that does not tell
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
    return c.createConnection(url(file) + (alone ? "?immutable=1" : ""));
  }

  /// Connects to look only. Where the disk has no room for the side files that this takes, the file
  /// is read as it stands when nothing waits beside it; else what waits is read alone, without side
  /// files.
  static Connection connectToLook(Path file) throws SQLException {
    Connection c = connect(file, true);
    try {
      Schema.pragma(c, "schema_version");
      return c;
    } catch (SQLException first) {
      c.close();
      if (!noRoom(first)) {
        throw first;
      }
      try {
        return waiting(file) ? alone(file) : asItStands(file);
      } catch (SQLException e) {
        first.addSuppressed(e);
        throw first;
      }
    }
  }

  private static boolean noRoom(SQLException e) {
    return e instanceof SQLiteException s
        && switch (SQLiteErrorCode.getErrorCode(s.getResultCode().code & 0xff)) {
          case SQLITE_FULL, SQLITE_IOERR, SQLITE_CANTOPEN, SQLITE_READONLY -> true;
          default -> false;
        };
  }

  /// Whether something was written that is not in the file itself yet.
  static boolean waiting(Path file) {
    try {
      Path wal = file.resolveSibling(file.getFileName() + "-wal");
      return Files.exists(wal) && Files.size(wal) > 0;
    } catch (IOException e) {
      return true;
    }
  }

  static Connection asItStands(Path file) throws SQLException {
    SQLiteConfig c = new SQLiteConfig();
    c.setReadOnly(true);
    return c.createConnection(url(file) + "?immutable=1");
  }

  private static Connection alone(Path file) throws SQLException {
    SQLiteConfig c = new SQLiteConfig();
    c.setLockingMode(SQLiteConfig.LockingMode.EXCLUSIVE);
    c.setBusyTimeout(5000);
    Connection db = c.createConnection(url(file));
    try (Statement s = db.createStatement()) {
      s.execute("PRAGMA query_only = ON");
    }
    return db;
  }

  private static String url(Path file) {
    return "jdbc:sqlite:file:" + file.toAbsolutePath().toUri().getRawPath();
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
    Path folder = to.toAbsolutePath().getParent();
    if (folder == null || !Files.isDirectory(folder)) {
      throw new BookException("there is no folder " + folder + " to put the backup in");
    }
    Path part = null;
    try {
      part = Files.createTempFile(folder, ".ell-", ".part");
      // over a connection of its own: appends go on meanwhile, and the copy holds one moment
      try (Connection reader = connect(file, true);
          PreparedStatement p = reader.prepareStatement("VACUUM INTO ?")) {
        p.setString(1, part.toAbsolutePath().toString());
        p.execute();
      }
      settle(part, to, folder);
    } catch (SQLException e) {
      throw BookException.of(to, e);
    } catch (IOException e) {
      throw BookException.cannot("the backup " + to + " cannot be written", e);
    } finally {
      deleteQuietly(part);
    }
  }
}
