package ell.book;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Optional;

/// The connection to a workspace file.
final class FileConnected extends Connected {
  private final Path file;
  private final boolean readOnly;

  private final Optional<WriterLock> lock;

  FileConnected(Path file, boolean readOnly, Optional<WriterLock> lock, Connection db)
      throws SQLException {
    this.file = file;
    this.readOnly = readOnly;
    this.lock = lock;
    take(db);
  }

  /// Opens a file for writing, bringing its tables up to date if they are of an older version.
  ///
  /// @throws BookException when it is no workspace, newer, read-only, damaged or held by another
  ///   writer
  static FileConnected open(Path named) throws BookException {
    Path file = BookFile.inspect(named);
    if (!Files.isWritable(file) || !Files.isWritable(file.toAbsolutePath().getParent())) {
      throw new BookException(file + " is read-only: make it writable, or only look at it");
    }
    WriterLock lock = WriterLock.take(file);
    Connection db = null;
    try {
      SideFiles.mustFit(file);
      db = BookFile.connect(file, false);
      Schema.nothingPlanted(file, db);
      if (Schema.version(file, db) < Schema.VERSION) {
        db.close();
        Schema.migrate(file);
        db = BookFile.connect(file, false);
      }
      return new FileConnected(file, false, Optional.of(lock), db);
    } catch (SQLException e) {
      closeQuietly(db, lock);
      throw BookException.of(file, e);
    } catch (BookException | RuntimeException e) {
      closeQuietly(db, lock);
      throw e instanceof BookException b
          ? b
          : new BookException(file + " cannot be brought up to date: " + e.getMessage(), e);
    }
  }

  /// Opens a file to look at it only; a writer may be at work in it.
  static FileConnected look(Path named) throws BookException {
    Path file = BookFile.inspect(named);
    Connection db = null;
    try {
      // asked only when something waits: asking takes the lock for a moment, from nobody else then
      if (BookFile.waiting(file) && !WriterLock.held(file)) {
        SideFiles.mustFit(file);
      }
      db = BookFile.connectToLook(file);
      Schema.nothingPlanted(file, db);
      if (Schema.version(file, db) < Schema.LOOKED_AT) {
        throw new BookException(file + " is of an older version; open it for writing once");
      }
      return new FileConnected(file, true, Optional.empty(), db);
    } catch (SQLException e) {
      closeQuietly(db, null);
      throw BookException.of(file, e);
    } catch (BookException e) {
      closeQuietly(db, null);
      throw e;
    }
  }

  private static void closeQuietly(Connection db, WriterLock lock) {
    try {
      if (db != null) {
        db.close();
      }
      if (lock != null) {
        lock.close();
      }
    } catch (SQLException | IOException e) {
      // the first problem is the one to tell
    }
  }

  /// The file itself, where what was named is a link to it.
  Path file() {
    return file;
  }

  @Override
  protected EntryStore entries(Connection on) throws SQLException {
    return new FileEntries(on);
  }

  @Override
  protected SealStore seals(Connection on) {
    return new SealStore(on, "SELECT number, hash FROM entry");
  }

  @Override
  String name() {
    return file.toString();
  }

  @Override
  void ready() throws SQLException {
    if (db() == null) {
      Connection next = BookFile.connect(file, readOnly);
      try {
        take(next);
      } catch (SQLException e) {
        take(null);
        try {
          next.close();
        } catch (SQLException more) {
          e.addSuppressed(more);
        }
        throw e;
      }
    }
  }

  @Override
  BookException problem(SQLException e) {
    return BookException.of(file, e);
  }

  @Override
  Optional<String> structure() throws SQLException {
    try (Statement s = db().createStatement();
        ResultSet r = s.executeQuery("PRAGMA integrity_check(1)")) {
      String said = r.next() ? r.getString(1) : "no answer";
      return said.equals("ok") ? Optional.empty() : Optional.of(Verifier.damaged(said));
    }
  }

  @Override
  public void close() throws SQLException {
    letGo();
    if (lock.isPresent()) {
      try {
        lock.get().close();
      } catch (IOException e) {
        throw new SQLException(file + " could not be let go of: " + e.getMessage(), e);
      }
    }
  }
}
