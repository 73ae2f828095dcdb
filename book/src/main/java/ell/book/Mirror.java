package ell.book;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// What a bench has seen of a workspace on a server, in a file of its own, so that it can go on
/// when the server does not answer. It is no workspace: what it holds can be fetched anew, but for
/// what waits to be sent. Callers hold the book's monitor.
final class Mirror implements AutoCloseable {
  /// How many entries are fetched at most so that a bench knows all boards.
  static final long MOST = 200_000;

  private static final int MOST_KEPT_BACK = 200;

  private final Connection db;
  private final List<Written> written = new ArrayList<>();

  private Mirror(Connection db) {
    this.db = db;
  }

  private static Path file(Place.OnServer server) {
    return BenchFolder.of(server).resolve("seen.db");
  }

  /// Opens the one of a workspace, made when there is none.
  ///
  /// @throws SQLException when its folder cannot be written
  static Mirror open(Place.OnServer server) throws SQLException {
    Path file = file(server);
    Connection c = BookFile.connect(file, false);
    try {
      if (Schema.pragma(c, "user_version") == 0) {
        make(c);
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
      }
      return new Mirror(c);
    } catch (UnsupportedOperationException e) {
      return new Mirror(c); // a system without such rights
    } catch (SQLException | IOException e) {
      c.close();
      throw e instanceof SQLException s ? s : new SQLException(e.getMessage(), e);
    }
  }

  private static void make(Connection c) throws SQLException {
    try (InputStream in = Mirror.class.getResourceAsStream("mirror/mirror.sql");
        Statement s = c.createStatement()) {
      c.setAutoCommit(false);
      String text =
          new String(in.readAllBytes(), StandardCharsets.UTF_8).replaceAll("(?m)^--.*$", "");
      for (String one : text.split(";\\s*\n")) {
        if (!one.isBlank()) {
          s.execute(one);
        }
      }
      c.commit();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } finally {
      c.setAutoCommit(true);
    }
  }

  Connection db() {
    return db;
  }

  /// Whether anything of the workspace is known here.
  boolean any() throws SQLException {
    return one("SELECT count(*) FROM seen") > 0 || one("SELECT count(*) FROM fetched") > 0;
  }

  /// Whether the entries of a board are known here, as far as they were seen.
  boolean knows(String board) throws SQLException {
    if (one("SELECT number FROM complete") > 0) {
      return true;
    }
    try (PreparedStatement p = db.prepareStatement("SELECT 1 FROM fetched WHERE board = ?")) {
      p.setString(1, board);
      try (ResultSet r = p.executeQuery()) {
        return r.next();
      }
    }
  }

  long one(String sql) throws SQLException {
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery(sql)) {
      return r.next() ? r.getLong(1) : 0;
    }
  }

  /// Keeps the entries of a board that were just read.
  void keep(String board, List<Written> all) throws SQLException {
    flush();
    long known = -1;
    try (PreparedStatement p =
        db.prepareStatement(
            "SELECT coalesce((SELECT max(number) FROM entry WHERE board = ?1), 0)"
                + " WHERE EXISTS (SELECT 1 FROM fetched WHERE board = ?1)")) {
      p.setString(1, board);
      try (ResultSet r = p.executeQuery()) {
        if (r.next()) {
          known = r.getLong(1);
        }
      }
    }
    long last = all.isEmpty() ? 0 : all.getLast().number();
    if (known >= 0 && last <= known) {
      return;
    }
    transaction(() -> {
      try (PreparedStatement p = db.prepareStatement("INSERT OR IGNORE INTO fetched VALUES (?)")) {
        p.setString(1, board);
        p.executeUpdate();
      }
      put(all);
    });
  }

  /// Keeps what this bench has just written on the server.
  void wrote(ServerEntries.Sending s, Long[] numbers) throws SQLException {
    for (int i = 0; i < numbers.length; i++) {
      written.add(new Written(numbers[i], s.ats().get(i), s.boards().get(i), s.bodies().get(i)));
    }
    if (written.size() >= MOST_KEPT_BACK) {
      flush();
    }
  }

  /// Keeps what was kept back: the server has it, and it is needed here only when that goes away.
  void flush() throws SQLException {
    if (!written.isEmpty()) {
      transaction(() -> put(List.copyOf(written)));
      written.clear();
    }
  }

  /// Whether what is written is on disk when it is acknowledged: what waits to be sent must be, and
  /// what is only seen need not.
  void lasting(boolean yes) throws SQLException {
    flush();
    ServerSchema.run(db, "PRAGMA synchronous = " + (yes ? "FULL" : "NORMAL"));
  }

  private void put(List<Written> all) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("INSERT OR IGNORE INTO entry VALUES (?,?,?,?)")) {
      for (Written w : all) {
        p.setLong(1, w.number());
        p.setString(2, w.at());
        p.setString(3, w.board());
        p.setString(4, w.body());
        p.addBatch();
      }
      p.executeBatch();
    }
  }

  interface Sql {
    void run() throws SQLException;
  }

  /// Several statements as one.
  void transaction(Sql work) throws SQLException {
    db.setAutoCommit(false);
    try {
      work.run();
      db.commit();
    } catch (SQLException | RuntimeException e) {
      db.rollback();
      throw e;
    } finally {
      db.setAutoCommit(true);
    }
  }

  /// Fetches every table that was written since it was fetched last, and the entries of all boards
  /// when they are not too many.
  void refresh(Connection server, ServerEntries entries) throws SQLException {
    Map<String, Long> now = new LinkedHashMap<>();
    try (Statement s = server.createStatement();
        ResultSet r = s.executeQuery("SELECT what, max(number) FROM seal GROUP BY what")) {
      while (r.next()) {
        now.put(r.getString(1), r.getLong(2));
      }
    }
    Map<String, Long> had = new LinkedHashMap<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT what, seal FROM seen")) {
      while (r.next()) {
        had.put(r.getString(1), r.getLong(2));
      }
    }
    for (Map.Entry<String, Long> what : now.entrySet()) {
      if (!what.getValue().equals(had.get(what.getKey()))) {
        fetch(server, what.getKey(), what.getValue());
      }
    }
    fetchEntries(server, entries);
  }

  private void fetch(Connection server, String what, long seal) throws SQLException {
    transaction(() -> {
      for (String query : SealStore.queries(what).reversed()) {
        String rest = query.substring("SELECT * FROM ".length());
        String where =
            rest.contains(" WHERE ")
                ? rest.substring(rest.indexOf(" WHERE "), rest.indexOf('?') + 1)
                : "";
        ServerSchema.run(
            db, "DELETE FROM " + rest.split(" ")[0] + where.replace("?", SealStore.idOf(what)));
      }
      for (String query : SealStore.queries(what)) {
        String table = query.substring("SELECT * FROM ".length()).split(" ")[0];
        Rows.carry(server, query.replace("?", SealStore.idOf(what)), db, table);
      }
      try (PreparedStatement p = db.prepareStatement("INSERT OR REPLACE INTO seen VALUES (?,?)")) {
        p.setString(1, what);
        p.setLong(2, seal);
        p.executeUpdate();
      }
    });
  }

  private void fetchEntries(Connection server, ServerEntries entries) throws SQLException {
    long known = one("SELECT number FROM complete");
    long last = entries.last();
    if (last - known > MOST || last == known) {
      return;
    }
    long to = entries.settled();
    transaction(() -> {
      List<Written> some = new ArrayList<>();
      try (PreparedStatement p =
          server.prepareStatement(
              "SELECT number, at, board, body FROM entry WHERE number > ? AND number <= ? ORDER BY"
                  + " number")) {
        p.setLong(1, known);
        p.setLong(2, to);
        try (ResultSet r = p.executeQuery()) {
          while (r.next()) {
            some.add(EntryStore.row(r));
          }
        }
      }
      put(some);
      ServerSchema.run(db, "UPDATE complete SET number = " + to);
    });
  }

  @Override
  public void close() throws SQLException {
    try {
      flush();
    } finally {
      db.close();
    }
  }
}
