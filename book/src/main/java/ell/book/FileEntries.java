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
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.SequencedMap;
import java.util.UUID;

/// The entries of a file: one chain over all of them, in the order of their numbers. Numbers rise;
/// a file that came from a server may lack some.
final class FileEntries extends EntryStore {
  private final Chain chain = new Chain();
  private PreparedStatement insert;
  private End end = End.NONE;
  private long count = -1; // until somebody asks

  FileEntries(Connection db) throws SQLException {
    super(db);
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery("SELECT number, hash FROM entry ORDER BY number DESC LIMIT 1")) {
      if (r.next()) {
        end = new End(r.getLong(1), r.getBytes(2));
      }
    }
  }

  @Override
  End end() {
    return end;
  }

  @Override
  End remembered() {
    return end;
  }

  @Override
  void back(End before) {
    end = before;
    count = -1;
  }

  @Override
  boolean atOnce(int entries) {
    return entries == 1;
  }

  @Override
  List<Logged> append(
      SequencedMap<String, List<Entry>> several, OffsetDateTime at, List<UUID> tokens)
      throws SQLException {
    List<Logged> logged = new ArrayList<>();
    for (Map.Entry<String, List<Entry>> board : several.entrySet()) {
      for (Entry e : board.getValue()) {
        insert(new Written(end.number() + 1, at.toString(), board.getKey(), EntryJson.write(e)));
        logged.add(new Logged(end.number(), at, board.getKey(), e));
      }
    }
    return logged;
  }

  @Override
  void insert(Written w) throws SQLException {
    if (w.number() <= end.number()) {
      throw new SQLException("entry " + w.number() + " does not follow entry " + end.number());
    }
    if (insert == null) {
      insert = db().prepareStatement("INSERT INTO entry VALUES (?,?,?,?,?)");
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
    count = count < 0 ? count : count + 1;
  }

  @Override
  long count() throws SQLException {
    if (count < 0) {
      try (Statement s = db().createStatement();
          ResultSet r = s.executeQuery("SELECT count(*) FROM entry")) {
        count = r.next() ? r.getLong(1) : 0;
      }
    }
    return count;
  }

  @Override
  long last() {
    return end.number();
  }

  @Override
  Walked walk(Walk each) throws SQLException {
    byte[] before = Chain.START;
    long count = 0;
    long last = 0;
    try (Statement s = db().createStatement();
        ResultSet r =
            s.executeQuery("SELECT number, at, board, body, hash FROM entry ORDER BY number")) {
      while (r.next()) {
        Written w = new Written(r.getLong(1), r.getString(2), r.getString(3), r.getString(4));
        byte[] right = chain.next(before, w.number(), w.at(), w.board(), w.body());
        if (!Arrays.equals(r.getBytes(5), right)) {
          return Walked.bad(count, w.number() > last + 1 ? last + 1 : w.number());
        }
        each.entry(w);
        before = right;
        last = w.number();
        count++;
      }
    }
    return new Walked(count, OptionalLong.empty(), "");
  }

  @Override
  Optional<String> hashOf(long number) throws SQLException {
    try (PreparedStatement p = db().prepareStatement("SELECT hash FROM entry WHERE number = ?")) {
      p.setLong(1, number);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? Optional.of(HexFormat.of().formatHex(r.getBytes(1))) : Optional.empty();
      }
    }
  }

  @Override
  public void close() throws SQLException {
    if (insert != null) {
      insert.close();
    }
  }
}
