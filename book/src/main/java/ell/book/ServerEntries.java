package ell.book;

import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.entry.Logged;
import java.sql.Array;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.SequencedMap;
import java.util.TreeMap;
import java.util.UUID;

/// The entries on a server. Each board has a chain of its own, so that appending to one waits for
/// no other; the chain over all boards, as a file has it, is anchored now and then. The server
/// gives the numbers; they rise, and some may be left out.
final class ServerEntries extends EntryStore {
  /// Who holds this alone keeps everybody from appending.
  static final long ALL = 1164733473;

  private static final int FETCH = 2000;

  private final Seen seen;
  private final String bench;
  private final boolean anchors;
  private final Mirror mirror;
  private final Map<String, byte[]> ends = new HashMap<>();

  /// What this bench has seen of boards, kept over connections.
  static final class Seen {
    /// For how long a board is taken in hand by writing on it, 0 to take none.
    int hold;

    private final Map<String, Long> last = new HashMap<>();
    private final Map<String, Long> before = new HashMap<>();

    /// Last number of a board that was seen, -1 when it was never looked at.
    long of(String board) {
      return board.isEmpty() ? -1 : last.getOrDefault(board, -1L);
    }

    void saw(String board, long number) {
      Long was = last.put(board, number);
      before.putIfAbsent(board, was == null ? -1 : was);
    }

    /// From now on what is seen may have to be forgotten.
    void begin() {
      before.clear();
    }

    /// Nothing of what was done since came to be.
    void back() {
      last.putAll(before);
      before.clear();
    }
  }

  /// @param anchors whether this person may write down where the chain stands
  /// @param mirror keeps what is seen, null for none
  ServerEntries(Connection db, Seen seen, String bench, boolean anchors, Mirror mirror) {
    super(db);
    this.mirror = mirror;
    this.seen = seen;
    this.bench = bench;
    this.anchors = anchors;
  }

  @Override
  List<Written> written(String board) throws SQLException {
    List<Written> all = super.written(board);
    seen.saw(board, all.isEmpty() ? 0 : all.getLast().number());
    if (mirror != null) {
      mirror.keep(board, all);
    }
    return all;
  }

  @Override
  End remembered() {
    return End.NONE; // the server remembers
  }

  @Override
  void back(End before) {
    // nothing was remembered
  }

  @Override
  boolean atOnce(int entries) {
    return true;
  }

  /// What is sent with one append.
  record Sending(
      List<UUID> tokens,
      List<String> ats,
      List<String> boards,
      List<String> bodies,
      List<Long> seen) {}

  @Override
  List<Logged> append(
      SequencedMap<String, List<Entry>> several, OffsetDateTime at, List<UUID> tokens)
      throws SQLException {
    Sending s =
        new Sending(
            tokens, new ArrayList<>(), new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
    List<Entry> entries = new ArrayList<>();
    several.forEach((board, list) ->
        list.forEach(e -> {
          s.ats.add(at.toString());
          s.boards.add(board);
          s.bodies.add(EntryJson.write(e));
          s.seen.add(seen.of(board));
          entries.add(e);
        }));
    Long[] numbers = send(s);
    if (mirror != null) {
      mirror.wrote(s, numbers);
    }
    List<Logged> logged = new ArrayList<>();
    for (int i = 0; i < numbers.length; i++) {
      String board = s.boards.get(i);
      logged.add(new Logged(numbers[i], at, board, entries.get(i)));
      if (seen.of(board) >= 0) {
        seen.saw(board, numbers[i]);
      }
    }
    return logged;
  }

  /// Numbers of what other benches wrote on a board behind a number.
  List<Long> others(String board, long after) throws SQLException {
    List<Long> all = new ArrayList<>();
    try (PreparedStatement p =
        db().prepareStatement(
                "SELECT number FROM entry WHERE board = ? AND number > ? AND bench <> ? ORDER BY"
                    + " number")) {
      p.setString(1, board);
      p.setLong(2, after);
      p.setString(3, bench);
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          all.add(r.getLong(1));
        }
      }
    }
    return all;
  }

  /// Sends one append.
  ///
  /// @return the numbers that the entries got
  Long[] send(Sending s) throws SQLException {
    if (s.tokens.isEmpty()) {
      return new Long[0];
    }
    try (PreparedStatement p = db().prepareStatement("SELECT append(?,?,?,?,?,?,?)")) {
      p.setString(1, bench);
      p.setInt(2, seen.hold);
      p.setArray(3, db().createArrayOf("uuid", s.tokens.toArray()));
      p.setArray(4, db().createArrayOf("text", s.ats.toArray()));
      p.setArray(5, db().createArrayOf("text", s.boards.toArray()));
      p.setArray(6, db().createArrayOf("text", s.bodies.toArray()));
      p.setArray(7, db().createArrayOf("int8", s.seen.toArray()));
      try (ResultSet r = p.executeQuery()) {
        r.next();
        Array a = r.getArray(1);
        return (Long[]) a.getArray();
      }
    }
  }

  @Override
  void insert(Written w) throws SQLException {
    byte[] before = ends.get(w.board());
    if (before == null) {
      before = boardEnd(w.board());
    }
    byte[] hash = new Chain().next(before, w.number(), w.at(), w.board(), w.body());
    try (PreparedStatement p =
        db().prepareStatement(
                "INSERT INTO entry (number, at, board, body, hash) VALUES (?,?,?,?,?)")) {
      p.setLong(1, w.number());
      p.setString(2, w.at());
      p.setString(3, w.board());
      p.setString(4, w.body());
      p.setBytes(5, hash);
      p.executeUpdate();
    }
    try (PreparedStatement p =
        db().prepareStatement(
                "SELECT setval('entry_number', ?) WHERE ? >= (SELECT last_value FROM"
                    + " entry_number)")) {
      p.setLong(1, w.number());
      p.setLong(2, w.number());
      p.executeQuery().close();
    }
    ends.put(w.board(), hash);
  }

  private byte[] boardEnd(String board) throws SQLException {
    try (PreparedStatement p =
        db().prepareStatement(
                "SELECT hash FROM entry WHERE board = ? ORDER BY number DESC LIMIT 1")) {
      p.setString(1, board);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? r.getBytes(1) : Chain.START;
      }
    }
  }

  @Override
  long count() throws SQLException {
    return one("SELECT count(*) FROM entry");
  }

  @Override
  long last() throws SQLException {
    return one("SELECT max(number) FROM entry");
  }

  private long one(String sql) throws SQLException {
    try (Statement s = db().createStatement();
        ResultSet r = s.executeQuery(sql)) {
      return r.next() ? r.getLong(1) : 0;
    }
  }

  /// Number of the last entry before which nothing can come any more: who appends just now has
  /// either come to an end, or gets a higher number.
  long settled() throws SQLException {
    // the lock is asked for after the statement has begun to see: what it sees as the last number
    // was given before, and who was given a lower one has ended when the lock is had
    return one(
        "SELECT max(number) FROM entry, (SELECT pg_advisory_xact_lock(" + ALL + ")) AS alone");
  }

  /// Where the chain over all boards stands, which is written down so that it can be held against
  /// later.
  @Override
  End end() throws SQLException {
    long to = settled();
    if (to == 0) {
      return End.NONE;
    }
    End end = chained(to);
    if (anchors) {
      try (PreparedStatement p =
          db().prepareStatement("INSERT INTO anchor VALUES (?,?,?) ON CONFLICT DO NOTHING")) {
        p.setLong(1, end.number());
        p.setBytes(2, end.hash());
        p.setString(3, OffsetDateTime.now().toString());
        p.executeUpdate();
      }
    }
    return end;
  }

  /// The chain over all boards up to a number, from the nearest anchor before it.
  private End chained(long to) throws SQLException {
    byte[][] hash = {Chain.START};
    long from = 0;
    try (PreparedStatement p =
        db().prepareStatement(
                "SELECT entries, head FROM anchor WHERE entries <= ? ORDER BY entries DESC LIMIT"
                    + " 1")) {
      p.setLong(1, to);
      try (ResultSet r = p.executeQuery()) {
        if (r.next()) {
          from = r.getLong(1);
          hash[0] = r.getBytes(2);
        }
      }
    }
    Chain chain = new Chain();
    rows(
        "SELECT number, at, board, body FROM entry WHERE number > "
            + from
            + " AND number <= "
            + to
            + " ORDER BY number",
        r -> {
          hash[0] =
              chain.next(hash[0], r.getLong(1), r.getString(2), r.getString(3), r.getString(4));
        });
    return new End(to, hash[0]);
  }

  interface Row {
    void of(ResultSet r) throws SQLException;
  }

  /// Goes through many rows without having them all in memory.
  void rows(String sql, Row row) throws SQLException {
    boolean own = db().getAutoCommit();
    if (own) {
      db().setAutoCommit(false);
    }
    try (Statement s = db().createStatement()) {
      s.setFetchSize(FETCH);
      try (ResultSet r = s.executeQuery(sql)) {
        while (r.next()) {
          row.of(r);
        }
      }
    } finally {
      if (own) {
        db().setAutoCommit(true);
      }
    }
  }

  @Override
  Walked walk(Walk each) throws SQLException {
    // first what was anchored, then where the book ends: an anchor behind the end tells of a cut
    TreeMap<Long, byte[]> anchored = new TreeMap<>();
    rows(
        "SELECT entries, head FROM anchor ORDER BY entries",
        r -> anchored.put(r.getLong(1), r.getBytes(2)));
    long to = settled();
    Walking w = new Walking(anchored, each);
    rows(
        "SELECT number, at, board, body, hash FROM entry WHERE number <= "
            + to
            + " ORDER BY number",
        w);
    return w.end();
  }

  /// A walk along the chains of the boards and the one over all.
  private static final class Walking implements Row {
    private final TreeMap<Long, byte[]> anchored;
    private final Walk each;
    private final Chain chain = new Chain();
    private final Map<String, byte[]> boards = new HashMap<>();
    private byte[] all = Chain.START;
    private long count;
    private Optional<Walked> bad = Optional.empty();

    Walking(TreeMap<Long, byte[]> anchored, Walk each) {
      this.anchored = anchored;
      this.each = each;
    }

    @Override
    public void of(ResultSet r) throws SQLException {
      if (bad.isPresent()) {
        return;
      }
      Written w = new Written(r.getLong(1), r.getString(2), r.getString(3), r.getString(4));
      byte[] before = boards.getOrDefault(w.board(), Chain.START);
      byte[] hash = chain.next(before, w.number(), w.at(), w.board(), w.body());
      if (!Arrays.equals(hash, r.getBytes(5))) {
        bad = Optional.of(Walked.bad(count, w.number()));
        return;
      }
      Map.Entry<Long, byte[]> passed = anchored.firstEntry();
      if (passed != null && passed.getKey() < w.number()) {
        bad = Optional.of(missing(passed.getKey()));
        return;
      }
      boards.put(w.board(), hash);
      all = chain.next(all, w.number(), w.at(), w.board(), w.body());
      if (passed != null && passed.getKey() == w.number()) {
        if (!Arrays.equals(passed.getValue(), all)) {
          bad =
              Optional.of(
                  new Walked(
                      count,
                      OptionalLong.of(w.number()),
                      "up to entry "
                          + w.number()
                          + " the book is not as it stood when that was written: an entry is"
                          + " missing, changed or moved"));
          return;
        }
        anchored.pollFirstEntry();
      }
      each.entry(w);
      count++;
    }

    private Walked missing(long number) {
      return new Walked(count, OptionalLong.of(number), "entry " + number + " is missing");
    }

    /// What was found; an anchor that no entry came to tells of one that is missing.
    Walked end() {
      return bad.orElseGet(() ->
          anchored.isEmpty()
              ? new Walked(count, OptionalLong.empty(), "")
              : missing(anchored.firstKey()));
    }
  }

  @Override
  Optional<String> hashOf(long number) throws SQLException {
    if (number > settled() || entry(number).isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(HexFormat.of().formatHex(chained(number).hash()));
  }

  @Override
  void photograph(String sha256, String name, byte[] body) throws SQLException {
    try (PreparedStatement p = db().prepareStatement("SELECT keep_file(?,?,?)")) {
      p.setString(1, sha256);
      p.setString(2, name);
      p.setBytes(3, body);
      p.executeQuery().close();
    }
  }
}
