package ell.book;

import ell.core.board.Revision;
import ell.core.kit.ShelfLine;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Map;

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
  <T> T together(Writes.Sql<T> work) throws SQLException {
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

  /// Puts everything that another workspace held into this empty one; within a transaction.
  ///
  /// @param at when, for what keeps no time of its own
  void put(Contents all, String at) throws SQLException {
    for (Contents.Kept k : all.revisions()) {
      Revision r = k.revision();
      revisions.store(r, at);
      for (Map.Entry<String, String> d : k.documents().entrySet()) {
        revisions.document(r.design(), r.name(), d.getKey(), d.getValue());
      }
    }
    for (Build b : all.builds()) {
      revisions.build(b.design(), b.revision(), b.method(), b.alloy(), b.variant(), at, b.boards());
    }
    shelf.store(all.shelf(), all.shelf().stream().mapToLong(ShelfLine::since).min().orElse(0));
    shelf.storeParameters(all.parameters());
    for (Map.Entry<String, String> k : all.keepsakes().entrySet()) {
      shelf.storeKeepsake(k.getKey(), k.getValue());
    }
    for (Contents.Photograph p : all.photographs()) {
      entries.photograph(p.sha256(), p.name(), p.body());
    }
    for (Written e : all.entries()) {
      entries.insert(e);
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
