package ell.book;

import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.entry.Logged;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The entries with their chain, and the photographs that they name, in the tables. Callers hold
/// the transaction, and put the end of the chain back when it did not hold.
final class EntryStore implements AutoCloseable {
  private final Connection db;
  private final Chain chain = new Chain();
  private PreparedStatement insert;
  private End end = new End(0, Chain.START);

  /// Where the chain ends.
  record End(long number, byte[] hash) {}

  EntryStore(Connection db) throws SQLException {
    this.db = db;
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery("SELECT number, hash FROM entry ORDER BY number DESC LIMIT 1")) {
      if (r.next()) {
        end = new End(r.getLong(1), r.getBytes(2));
      }
    }
  }

  /// Where the chain ends now.
  End end() {
    return end;
  }

  /// Puts the end back to where it was before a transaction that did not hold.
  void back(End before) {
    end = before;
  }

  /// The hash of the last entry, as hexadecimal.
  String seal() {
    return HexFormat.of().formatHex(end.hash());
  }

  /// Writes an entry behind the last one.
  Logged insert(String board, Entry entry, OffsetDateTime at) throws SQLException {
    insert(new Written(end.number() + 1, at.toString(), board, EntryJson.write(entry)));
    return new Logged(end.number(), at, board, entry);
  }

  /// Writes an entry as it was written elsewhere.
  ///
  /// @throws SQLException when it is not the one behind the last
  void insert(Written w) throws SQLException {
    if (w.number() != end.number() + 1) {
      throw new SQLException("entry " + w.number() + " does not follow entry " + end.number());
    }
    if (insert == null) {
      insert = db.prepareStatement("INSERT INTO entry VALUES (?,?,?,?,?)");
    }
    byte[] hash = chain.next(end.hash(), w.number(), w.at(), w.board(), w.body());
    insert.setLong(1, w.number());
    insert.setString(2, w.at());
    insert.setString(3, w.board());
    insert.setString(4, w.body());
    insert.setBytes(5, hash);
    int rows = insert.executeUpdate();
    if (rows != 1) {
      throw new SQLException("entry " + w.number() + " was not written: " + rows + " rows");
    }
    end = new End(w.number(), hash);
  }

  /// Every entry as it is written, in the order of their numbers.
  List<Written> written() throws SQLException {
    List<Written> all = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT number, at, board, body FROM entry ORDER BY number")) {
      while (r.next()) {
        all.add(new Written(r.getLong(1), r.getString(2), r.getString(3), r.getString(4)));
      }
    }
    return all;
  }

  /// The entries of a board, oldest first.
  List<Logged> entries(String board) throws SQLException {
    List<Logged> found = new ArrayList<>();
    try (PreparedStatement p =
        db.prepareStatement(
            "SELECT number, at, board, body FROM entry WHERE board = ? ORDER BY number")) {
      p.setString(1, board);
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          found.add(logged(r));
        }
      }
    }
    return found;
  }

  /// Boards in whose book something stands about errata, struck or not; found by an index of its
  /// own.
  List<String> boardsWithErrata() throws SQLException {
    List<String> found = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT DISTINCT board FROM entry WHERE instr(body, '\"kind\":\"erratum') > 0"
                    + " ORDER BY board")) {
      while (r.next()) {
        found.add(r.getString(1));
      }
    }
    return found;
  }

  /// Number of the last entry of a board, 0 when there is none.
  long lastNumber(String board) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("SELECT max(number) FROM entry WHERE board = ?")) {
      p.setString(1, board);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? r.getLong(1) : 0;
      }
    }
  }

  /// One entry by its number.
  Optional<Logged> entry(long number) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("SELECT number, at, board, body FROM entry WHERE number = ?")) {
      p.setLong(1, number);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? Optional.of(logged(r)) : Optional.empty();
      }
    }
  }

  private static Logged logged(ResultSet r) throws SQLException {
    long number = r.getLong(1);
    try {
      return new Logged(
          number,
          OffsetDateTime.parse(r.getString(2)),
          r.getString(3),
          EntryJson.read(r.getString(4)));
    } catch (RuntimeException e) {
      throw new DamagedException("entry " + number + " cannot be read: " + e.getMessage(), e);
    }
  }

  /// The hash of an entry as hexadecimal.
  Optional<String> hashOf(long number) throws SQLException {
    try (PreparedStatement p = db.prepareStatement("SELECT hash FROM entry WHERE number = ?")) {
      p.setLong(1, number);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? Optional.of(HexFormat.of().formatHex(r.getBytes(1))) : Optional.empty();
      }
    }
  }

  /// Keeps the bytes of a photograph; what is kept already stays as it is.
  void photograph(String sha256, String name, byte[] body) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("INSERT OR IGNORE INTO photograph VALUES (?,?,?)")) {
      p.setString(1, sha256);
      p.setString(2, name);
      p.setBytes(3, body);
      p.executeUpdate();
    }
  }

  /// The bytes of a photograph.
  Optional<byte[]> photograph(String sha256) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("SELECT body FROM photograph WHERE sha256 = ?")) {
      p.setString(1, sha256);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? Optional.of(r.getBytes(1)) : Optional.empty();
      }
    }
  }

  /// Names of the photographs by the hash of their bytes.
  Map<String, String> photographs() throws SQLException {
    Map<String, String> all = new LinkedHashMap<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT sha256, name FROM photograph ORDER BY sha256")) {
      while (r.next()) {
        all.put(r.getString(1), r.getString(2));
      }
    }
    return all;
  }

  @Override
  public void close() throws SQLException {
    if (insert != null) {
      insert.close();
    }
  }
}
