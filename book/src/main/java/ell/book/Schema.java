package ell.book;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import org.flywaydb.core.Flyway;

/// The tables of a workspace and their versions: the one place that says how many there are. A new
/// version is a new file of migrations and a line in the list.
final class Schema {
  private static final List<String> MIGRATIONS = List.of("workspace", "kit", "photographs");

  /// Version that this program writes.
  static final int VERSION = MIGRATIONS.size();

  private static final int APPLICATION_ID = 1164733473;

  private Schema() {}

  /// Brings a file up to this version; a file that is not there is made.
  static void migrate(Path file) {
    Flyway.configure(Schema.class.getClassLoader())
        .dataSource("jdbc:sqlite:" + file.toAbsolutePath(), null, null)
        .locations("classpath:ell/book/migration")
        .load()
        .migrate();
  }

  /// The version of a file.
  ///
  /// @throws BookException when it is no workspace, or newer than this program
  static int version(Path file, Connection db) throws SQLException, BookException {
    if (pragma(db, "application_id") != APPLICATION_ID) {
      throw new BookException(file + " is a database, but not a workspace");
    }
    int version = pragma(db, "user_version");
    if (version > VERSION) {
      throw new BookException(
          file
              + " was written by a newer Ell (version "
              + version
              + ", this one knows "
              + VERSION
              + "); use that one");
    }
    return version;
  }

  static int pragma(Connection db, String name) throws SQLException {
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("PRAGMA " + name)) {
      return r.next() ? r.getInt(1) : 0;
    }
  }
}
