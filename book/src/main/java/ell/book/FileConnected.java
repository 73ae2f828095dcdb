package ell.book;

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

  FileConnected(Path file, boolean readOnly, Connection db) throws SQLException {
    this.file = file;
    this.readOnly = readOnly;
    take(db);
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
}
