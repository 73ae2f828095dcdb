package ell.book;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.FlywayException;

/// The tables of a workspace on a server, their version, and who may do what with them. A new
/// version is a new file of migrations and a line in the list.
final class ServerSchema {
  private static final List<String> MIGRATIONS = List.of("book");
  private static final long APPLICATION = 1164733473;

  /// The roles of a workspace, as groups of the server.
  static final List<String> ROLES = List.of("ell_reader", "ell_helper", "ell_maker");

  private ServerSchema() {}

  /// Makes a workspace: the database when it is not there, the roles, the tables, the rights.
  ///
  /// @throws BookException when there is one already, or this person may not make one
  static void create(Place.OnServer server) throws BookException {
    try {
      makeDatabase(server);
      try (Connection c = ServerDoor.single(server, server.database())) {
        if (holds(
            c,
            "SELECT 1 FROM information_schema.tables WHERE table_schema = 'ell' AND"
                + " table_name = 'workspace'")) {
          throw new BookException(server + " is already there; choose another name");
        }
        for (String role : ROLES) {
          if (!holds(c, "SELECT 1 FROM pg_roles WHERE rolname = '" + role + "'")) {
            run(c, "CREATE ROLE " + role + " NOLOGIN");
          }
        }
      }
      migrate(server);
    } catch (SQLException e) {
      throw ServerProblem.of(server, e);
    }
  }

  private static void makeDatabase(Place.OnServer server) throws SQLException, BookException {
    try (Connection c = ServerDoor.single(server, "postgres")) {
      try (PreparedStatement p =
          c.prepareStatement("SELECT 1 FROM pg_database WHERE datname = ?")) {
        p.setString(1, server.database());
        try (ResultSet r = p.executeQuery()) {
          if (r.next()) {
            return;
          }
        }
      }
      run(
          c,
          "CREATE DATABASE " + quoted(server.database()) + " ENCODING 'UTF8' TEMPLATE template0");
    } catch (SQLException e) {
      if (ServerProblem.lost(e) || ServerProblem.state(e).startsWith("28P")) {
        throw e;
      }
      // who may not make one may have been given one
    }
  }

  /// Makes or brings up to date the tables, and sets the rights.
  private static void migrate(Place.OnServer server) throws SQLException, BookException {
    try {
      Flyway.configure(ServerSchema.class.getClassLoader())
          .dataSource(new OneDoor(server))
          .defaultSchema(ServerDoor.SCHEMA)
          .createSchemas(true)
          .placeholderReplacement(false)
          .locations("classpath:ell/book/server")
          .load()
          .migrate();
    } catch (FlywayException e) {
      if (e.getCause() instanceof SQLException s) {
        throw s;
      }
      throw new BookException(server + " cannot be brought up to date: " + e.getMessage(), e);
    }
    try (Connection c = ServerDoor.single(server, server.database());
        InputStream in = ServerSchema.class.getResourceAsStream("server/rights.sql")) {
      run(c, "SET search_path = ell");
      run(c, new String(in.readAllBytes(), StandardCharsets.UTF_8));
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  /// Looks whether a database is a workspace of this version, and brings it up to date when it is
  /// older and this person owns it.
  static void fit(Place.OnServer server, Connection db, boolean readOnly)
      throws SQLException, BookException {
    int version;
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT (SELECT application FROM workspace), (SELECT count(*) FROM"
                    + " flyway_schema_history WHERE success AND version IS NOT NULL)")) {
      r.next();
      if (r.getLong(1) != APPLICATION) {
        throw new BookException(server + " is a database, but not a workspace");
      }
      version = r.getInt(2);
    }
    if (version > MIGRATIONS.size()) {
      throw new BookException(
          server
              + " was written by a newer Ell (version "
              + version
              + ", this one knows "
              + MIGRATIONS.size()
              + "); use that one");
    }
    if (version < MIGRATIONS.size()) {
      if (readOnly) {
        throw new BookException(server + " is of an older version; its owner opens it once");
      }
      migrate(server);
    }
  }

  static boolean holds(Connection c, String sql) throws SQLException {
    try (Statement s = c.createStatement();
        ResultSet r = s.executeQuery(sql)) {
      return r.next();
    }
  }

  static void run(Connection c, String sql) throws SQLException {
    try (Statement s = c.createStatement()) {
      s.execute(sql);
    }
  }

  /// A name as it stands in a statement.
  static String quoted(String name) {
    return '"' + name.replace("\"", "\"\"") + '"';
  }

  /// Words as they stand in a statement.
  static String literal(String words) {
    return "'" + words.replace("'", "''") + "'";
  }
}
