package ell.book;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;

/// The connection to a workspace with its stores. When a statement fails in a way that leaves a
/// connection useless, it is thrown away and made anew by the next who needs it: nobody has to
/// start the program again. Callers hold the book's monitor.
abstract class Connected implements AutoCloseable {
  private Connection db;
  private RevisionStore revisions;
  private ShelfStore shelf;
  private EntryStore entries;
  private SealStore seals;

  /// Uses a connection from now on, null for none.
  protected final void take(Connection next) throws SQLException {
    db = next;
    if (next != null) {
      revisions = new RevisionStore(db);
      shelf = new ShelfStore(db);
      entries = entries(db);
      seals = seals(db);
    }
  }

  /// How entries are kept here.
  protected abstract EntryStore entries(Connection on) throws SQLException;

  /// How seals are kept here.
  protected abstract SealStore seals(Connection on);

  /// The workspace, in words of a message.
  abstract String name();

  /// Makes the connection anew if it was thrown away.
  abstract void ready() throws SQLException;

  /// Turns what the store says into a sentence.
  abstract BookException problem(SQLException e);

  /// Checks the store's own structure.
  ///
  /// @return what is wrong with it, empty when nothing is
  abstract Optional<String> structure() throws SQLException;

  /// Why tables that are no entries cannot be written now, empty when they can.
  Optional<String> tablesWait() {
    return Optional.empty();
  }

  /// Work with the tables; where the connection is lost before anything of it was done, it may be
  /// done once more.
  <T> T work(Writes.Sql<T> work) throws SQLException, BookException {
    return work.run();
  }

  /// Names of so many entries that are to be appended, where what is sent twice must be written
  /// once.
  List<UUID> tokens(int entries) {
    return List.of();
  }

  /// Keeps everybody else from writing until the transaction ends.
  void hold() throws SQLException {
    // a file has one writer
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
  <T> T together(Writes.Sql<T> work) throws SQLException, BookException {
    Connection on = db;
    on.setAutoCommit(false);
    try {
      T result = work.run();
      on.commit();
      on.setAutoCommit(true);
      return result;
    } catch (SQLException | BookException | RuntimeException e) {
      try {
        on.rollback();
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
      revisions.store(k.revision(), at);
      for (Map.Entry<String, String> d : k.documents().entrySet()) {
        revisions.document(k.revision().design(), k.revision().name(), d.getKey(), d.getValue());
      }
    }
    for (Build b : all.builds()) {
      revisions.build(b.design(), b.revision(), b.method(), b.alloy(), b.variant(), at, b.boards());
    }
    shelf.store(
        all.shelf(), all.shelf().stream().mapToLong(ell.core.kit.ShelfLine::since).min().orElse(0));
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
      letGo();
    } catch (SQLException more) {
      because.addSuppressed(more);
    }
    db = null;
  }

  /// Lets the connection go, if there is one.
  protected final void letGo() throws SQLException {
    if (db != null) {
      try {
        entries.close();
      } finally {
        db.close();
      }
    }
  }

  @Override
  public void close() throws SQLException {
    letGo();
  }
}
