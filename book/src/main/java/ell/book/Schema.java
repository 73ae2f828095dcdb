package ell.book;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.flywaydb.core.Flyway;

/// The tables of a workspace and their versions: the one place that says how many there are. A new
/// version is a new file of migrations and a line in the list.
final class Schema {
  private static final List<String> MIGRATIONS =
      List.of("workspace", "kit", "photographs", "seals", "errata");

  /// Version that this program writes.
  static final int VERSION = MIGRATIONS.size();

  /// The oldest version that can be looked at as it is: what came after it only finds things
  /// sooner.
  static final int LOOKED_AT = 4;

  private static final String TRIGGER = "CREATE TRIGGER";
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

  /// Looks whether the file holds triggers or views that Ell did not make: what is written would go
  /// elsewhere, and what is read come from elsewhere.
  ///
  /// @throws BookException naming the first
  static void nothingPlanted(Path file, Connection db) throws SQLException, BookException {
    Set<String> own = triggers();
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT type, name, sql FROM sqlite_master WHERE type IN ('trigger', 'view')")) {
      while (r.next()) {
        if (!own.contains(squeezed(r.getString(3)))) {
          throw new BookException(
              file
                  + " holds a "
                  + r.getString(1)
                  + " '"
                  + r.getString(2)
                  + "' that Ell did not make: somebody changed it; open a backup, or see what can"
                  + " be saved with: rescue");
        }
      }
    }
  }

  /// The triggers that the migrations make, as they make them.
  private static Set<String> triggers() {
    Set<String> all = new HashSet<>();
    for (int v = 1; v <= VERSION; v++) {
      String name = "migration/V" + v + "__" + MIGRATIONS.get(v - 1) + ".sql";
      try (InputStream in = Schema.class.getResourceAsStream(name)) {
        String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        for (int at = text.indexOf(TRIGGER); at >= 0; at = text.indexOf(TRIGGER, at + 1)) {
          all.add(squeezed(text.substring(at, text.indexOf("END;", at) + 3)));
        }
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
    return all;
  }

  private static String squeezed(String sql) {
    return sql == null ? "" : sql.strip().replaceAll("\\s++", " ");
  }

  static int pragma(Connection db, String name) throws SQLException {
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("PRAGMA " + name)) {
      return r.next() ? r.getInt(1) : 0;
    }
  }
}
