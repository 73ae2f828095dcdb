package ell.book;

import ell.core.kit.ShelfLine;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The shelf, what is known of parts, and what else is kept with a workspace, in the tables.
/// Callers hold the transaction.
final class ShelfStore {
  private final Connection db;

  ShelfStore(Connection db) {
    this.db = db;
  }

  /// Puts a shelf in place of the one before.
  ///
  /// @param since number of the last entry that the count has seen
  void store(List<ShelfLine> lines, long since) throws SQLException {
    try (Statement s = db.createStatement()) {
      s.execute("DELETE FROM shelf");
    }
    try (PreparedStatement p =
        db.prepareStatement("INSERT INTO shelf VALUES (?,?,?,?,?,?,?,?,?,?)")) {
      int position = 0;
      for (ShelfLine l : lines) {
        p.setInt(1, ++position);
        p.setInt(2, l.line());
        p.setString(3, l.code());
        p.setLong(4, l.quantity());
        p.setString(5, l.bin());
        p.setLong(6, l.onOrder());
        p.setString(7, l.expected().map(LocalDate::toString).orElse(null));
        p.setString(8, l.expiry().map(LocalDate::toString).orElse(null));
        p.setString(9, l.kind().key());
        p.setLong(10, since);
        p.addBatch();
      }
      p.executeBatch();
    }
  }

  List<ShelfLine> lines() throws SQLException {
    List<ShelfLine> lines = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT line, code, quantity, bin, on_order, expected, expiry, kind, since"
                    + " FROM shelf ORDER BY position")) {
      while (r.next()) {
        lines.add(
            new ShelfLine(
                r.getInt(1),
                r.getString(2),
                r.getLong(3),
                r.getString(4),
                r.getLong(5),
                Optional.ofNullable(r.getString(6)).map(LocalDate::parse),
                Optional.ofNullable(r.getString(7)).map(LocalDate::parse),
                ShelfLine.Kind.of(r.getString(8)),
                r.getLong(9)));
      }
    }
    return List.copyOf(lines);
  }

  void storeParameters(Map<String, Map<String, String>> byCode) throws SQLException {
    try (PreparedStatement gone = db.prepareStatement("DELETE FROM parameter WHERE code = ?");
        PreparedStatement p = db.prepareStatement("INSERT INTO parameter VALUES (?,?,?)")) {
      for (Map.Entry<String, Map<String, String>> one : byCode.entrySet()) {
        gone.setString(1, one.getKey());
        gone.executeUpdate();
        for (Map.Entry<String, String> e : one.getValue().entrySet()) {
          p.setString(1, one.getKey());
          p.setString(2, e.getKey());
          p.setString(3, e.getValue());
          p.addBatch();
        }
      }
      p.executeBatch();
    }
  }

  Map<String, String> parameters(String code) throws SQLException {
    Map<String, String> found = new LinkedHashMap<>();
    try (PreparedStatement p =
        db.prepareStatement("SELECT name, value FROM parameter WHERE code = ? ORDER BY name")) {
      p.setString(1, code);
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          found.put(r.getString(1), r.getString(2));
        }
      }
    }
    return found;
  }

  List<String> codesWithParameters() throws SQLException {
    List<String> found = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT DISTINCT code FROM parameter ORDER BY code")) {
      while (r.next()) {
        found.add(r.getString(1));
      }
    }
    return found;
  }

  Optional<String> keepsake(String kind) throws SQLException {
    try (PreparedStatement p = db.prepareStatement("SELECT body FROM keepsake WHERE kind = ?")) {
      p.setString(1, kind);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? Optional.of(r.getString(1)) : Optional.empty();
      }
    }
  }

  Map<String, String> keepsakes() throws SQLException {
    Map<String, String> all = new LinkedHashMap<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT kind, body FROM keepsake ORDER BY kind")) {
      while (r.next()) {
        all.put(r.getString(1), r.getString(2));
      }
    }
    return all;
  }

  void storeKeepsake(String kind, String body) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement(
            "INSERT INTO keepsake VALUES (?,?)"
                + " ON CONFLICT (kind) DO UPDATE SET body = excluded.body")) {
      p.setString(1, kind);
      p.setString(2, body);
      p.executeUpdate();
    }
  }
}
