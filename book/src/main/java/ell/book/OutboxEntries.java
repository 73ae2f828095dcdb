package ell.book;

import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.entry.Logged;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.UUID;

/// The entries as a bench knows them while the server does not answer: those that it has seen, and
/// behind them those that wait to be sent. The numbers of these are only for now.
final class OutboxEntries extends EntryStore {
  private final Mirror mirror;
  private final String away;

  /// @param away what is said to who asks for more than is known here
  OutboxEntries(Mirror mirror, String away) {
    super(mirror.db());
    this.mirror = mirror;
    this.away = away;
  }

  private BookException unknown(String what) {
    return new BookException(what + " is not known here, and " + away);
  }

  @Override
  List<Written> written(String board) throws SQLException {
    if (!mirror.knows(board)) {
      throw new SQLException(unknown("board '" + board + "'"));
    }
    List<Written> all = new ArrayList<>(super.written(board));
    all.addAll(waiting(" WHERE board = ?", board));
    return all;
  }

  private List<Written> waiting(String where, String board) throws SQLException {
    List<Written> all = new ArrayList<>();
    try (PreparedStatement p =
        db().prepareStatement(
                "SELECT number, at, board, body FROM waiting" + where + " ORDER BY position")) {
      if (!where.isEmpty()) {
        p.setString(1, board);
      }
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          all.add(row(r));
        }
      }
    }
    return all;
  }

  @Override
  List<Written> written() throws SQLException {
    throw new SQLException(unknown("the whole book"));
  }

  @Override
  Optional<Logged> entry(long number) throws SQLException {
    for (Written w : waiting("", "")) {
      if (w.number() == number) {
        return Optional.of(logged(w));
      }
    }
    return super.entry(number);
  }

  @Override
  long lastNumber(String board) throws SQLException {
    List<Written> all = written(board);
    return all.isEmpty() ? 0 : all.getLast().number();
  }

  @Override
  List<Logged> append(
      SequencedMap<String, List<Entry>> several, OffsetDateTime at, List<UUID> tokens)
      throws SQLException {
    List<Logged> logged = new ArrayList<>();
    long call = mirror.one("SELECT coalesce(max(call), 0) + 1 FROM waiting");
    int i = 0;
    for (Map.Entry<String, List<Entry>> board : several.entrySet()) {
      for (Entry e : board.getValue()) {
        long number = last() + 1;
        wait(call, number, tokens.get(i++), at, board.getKey(), EntryJson.write(e));
        logged.add(new Logged(number, at, board.getKey(), e));
      }
    }
    return logged;
  }

  private void wait(
      long call, long number, UUID token, OffsetDateTime at, String board, String body)
      throws SQLException {
    try (PreparedStatement p =
        db().prepareStatement(
                "INSERT INTO waiting (token, call, number, at, board, body, after) VALUES"
                    + " (?1,?2,?3,?4,?5,?6, CASE WHEN ?5 = '' THEN -1 ELSE coalesce((SELECT"
                    + " max(number) FROM entry WHERE board = ?5), 0) END)")) {
      p.setString(1, token.toString());
      p.setLong(2, call);
      p.setLong(3, number);
      p.setString(4, at.toString());
      p.setString(5, board);
      p.setString(6, body);
      p.executeUpdate();
    }
  }

  @Override
  boolean atOnce(int entries) {
    return entries == 1;
  }

  @Override
  long count() throws SQLException {
    return mirror.one("SELECT (SELECT count(*) FROM entry) + (SELECT count(*) FROM waiting)");
  }

  @Override
  long last() throws SQLException {
    return mirror.one(
        "SELECT max(coalesce((SELECT max(number) FROM entry), 0), coalesce((SELECT max(number) FROM"
            + " waiting), 0), coalesce((SELECT max(was) FROM merged), 0))");
  }

  @Override
  End end() throws SQLException {
    throw new SQLException(unknown("where the book ends"));
  }

  @Override
  End remembered() {
    return End.NONE;
  }

  @Override
  void back(End before) {
    // nothing was remembered
  }

  @Override
  void insert(Written w) throws SQLException {
    throw new SQLException(unknown("whether the workspace is empty"));
  }

  @Override
  Walked walk(Walk each) throws SQLException {
    throw new SQLException(unknown("the whole book"));
  }

  @Override
  Optional<String> hashOf(long number) throws SQLException {
    throw new SQLException(unknown("the whole book"));
  }
}
