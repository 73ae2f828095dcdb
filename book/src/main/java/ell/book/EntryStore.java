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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.SequencedMap;
import java.util.UUID;

/// The entries with their chain, and the photographs that they name, in the tables. Callers hold
/// the transaction, and put the end of the chain back when it did not hold.
abstract class EntryStore implements AutoCloseable {
  private final Connection db;

  /// Where the chain over all boards ends.
  record End(long number, byte[] hash) {
    static final End NONE = new End(0, Chain.START);
  }

  EntryStore(Connection db) {
    this.db = db;
  }

  Connection db() {
    return db;
  }

  /// Where the chain over all boards ends now.
  abstract End end() throws SQLException;

  /// Puts the end back to where it was before a transaction that did not hold.
  abstract void back(End before);

  /// Where the chain ends, without asking the tables: what {@link #back} is given.
  abstract End remembered();

  /// Writes entries behind the last ones.
  ///
  /// @param tokens one an entry where there are any: what is sent twice with the same is written
  ///   once
  abstract List<Logged> append(
      SequencedMap<String, List<Entry>> several, OffsetDateTime at, List<UUID> tokens)
      throws SQLException;

  /// Whether so many entries are written as one statement, which is a transaction of its own.
  abstract boolean atOnce(int entries);

  /// Writes an entry as it was written elsewhere.
  ///
  /// @throws SQLException when it does not come behind the last
  abstract void insert(Written w) throws SQLException;

  /// How many entries there are.
  abstract long count() throws SQLException;

  /// Number of the last entry of all boards, 0 when there is none.
  abstract long last() throws SQLException;

  /// Walks the chains from the first entry to the last.
  ///
  /// @param each is shown every entry that is as it was written
  abstract Walked walk(Walk each) throws SQLException;

  /// What is shown each entry of a walk.
  interface Walk {
    /// One entry, letter for letter.
    void entry(Written w) throws SQLException;
  }

  /// What a walk along the chains found.
  ///
  /// @param count of entries that are as they were written
  /// @param firstBad number of the first that is not
  /// @param why it is not, empty when all are
  record Walked(long count, OptionalLong firstBad, String why) {
    static final String CHANGED = "is not as it was written, or one before it is missing";

    static Walked bad(long count, long number) {
      return new Walked(count, OptionalLong.of(number), "entry " + number + " " + CHANGED);
    }
  }

  /// Every entry as it is written, in the order of their numbers.
  List<Written> written() throws SQLException {
    List<Written> all = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT number, at, board, body FROM entry ORDER BY number")) {
      while (r.next()) {
        all.add(row(r));
      }
    }
    return all;
  }

  /// The entries of a board, oldest first.
  List<Logged> entries(String board) throws SQLException {
    List<Logged> found = new ArrayList<>();
    for (Written w : written(board)) {
      found.add(logged(w));
    }
    return found;
  }

  /// The entries of a board letter for letter, oldest first.
  List<Written> written(String board) throws SQLException {
    List<Written> found = new ArrayList<>();
    try (PreparedStatement p =
        db.prepareStatement(
            "SELECT number, at, board, body FROM entry WHERE board = ? ORDER BY number")) {
      p.setString(1, board);
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          found.add(row(r));
        }
      }
    }
    return found;
  }

  /// An entry of a row of number, time, board and body.
  static Written row(ResultSet r) throws SQLException {
    return new Written(r.getLong(1), r.getString(2), r.getString(3), r.getString(4));
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
        return r.next() ? Optional.of(logged(row(r))) : Optional.empty();
      }
    }
  }

  /// What an entry says.
  ///
  /// @throws SQLException when nobody can read it
  static Logged logged(Written w) throws SQLException {
    try {
      return new Logged(
          w.number(), OffsetDateTime.parse(w.at()), w.board(), EntryJson.read(w.body()));
    } catch (RuntimeException e) {
      throw new DamagedException("entry " + w.number() + " cannot be read: " + e.getMessage(), e);
    }
  }

  /// The hash that the chain over all boards has at an entry, as hexadecimal.
  abstract Optional<String> hashOf(long number) throws SQLException;

  /// Keeps the bytes of a photograph; what is kept already stays as it is.
  void photograph(String sha256, String name, byte[] body) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("INSERT INTO photograph VALUES (?,?,?) ON CONFLICT DO NOTHING")) {
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
    // a store that keeps statements lets go of them
  }
}
