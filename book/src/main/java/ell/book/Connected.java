package ell.book;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;

/// The connection to a workspace with its stores. When a statement fails in a way that leaves a
/// connection useless, such as on a full disk, it is thrown away and made anew by the next who
/// needs it: nobody has to start the program again. Callers hold the book's monitor.
final class Connected implements AutoCloseable {
  private final Path file;
  private final boolean readOnly;
  private Connection db;
  private RevisionStore revisions;
  private ShelfStore shelf;
  private EntryStore entries;
  private SealStore seals;

  Connected(Path file, boolean readOnly, Connection db) throws SQLException {
    this.file = file;
    this.readOnly = readOnly;
    take(db);
  }

  private void take(Connection next) throws SQLException {
    db = next;
    revisions = new RevisionStore(db);
    shelf = new ShelfStore(db);
    entries = new EntryStore(db);
    seals = new SealStore(db);
  }

  /// Makes the connection anew if it was thrown away.
  void ready() throws SQLException {
    if (db == null) {
      Connection next = BookFile.connect(file, readOnly);
      try {
        take(next);
      } catch (SQLException e) {
        db = null;
        try {
          next.close();
        } catch (SQLException more) {
          e.addSuppressed(more);
        }
        throw e;
      }
    }
  }

  RevisionStore revisions() {
    return revisions;
  }

  ShelfStore shelf() {
    return shelf;
  }

  EntryStore entries() {
    return entries;
  }

  SealStore seals() {
    return seals;
  }

  Connection db() {
    return db;
  }

  /// Runs statements as one transaction: all or none.
  <T> T together(Book.Sql<T> work) throws SQLException {
    db.setAutoCommit(false);
    try {
      T result = work.run();
      db.commit();
      db.setAutoCommit(true);
      return result;
    } catch (SQLException | RuntimeException e) {
      try {
        db.rollback();
      } catch (SQLException more) {
        e.addSuppressed(more); // the first problem is the one to tell
      }
      drop(e);
      throw e;
    }
  }

  /// Throws the connection away; what was acknowledged is on disk.
  void drop(Exception because) {
    try {
      close();
    } catch (SQLException more) {
      because.addSuppressed(more);
    }
    db = null;
  }

  @Override
  public void close() throws SQLException {
    if (db != null) {
      try {
        entries.close();
      } finally {
        db.close();
      }
    }
  }
}
