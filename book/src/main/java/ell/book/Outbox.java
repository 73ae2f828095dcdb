package ell.book;

import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.entry.Renumbered;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;

/// Takes what waits over to the server: in order, nothing twice, and nothing where another bench
/// has written meanwhile; that is said and waits for somebody to settle it. Callers hold the book's
/// monitor.
final class Outbox {
  private final Mirror mirror;
  private final ServerEntries to;

  Outbox(Mirror mirror, ServerEntries to) {
    this.mirror = mirror;
    this.to = to;
  }

  /// A row that waits.
  private record Row(
      long position,
      UUID token,
      long call,
      long number,
      String at,
      String board,
      String body,
      long after,
      String said) {}

  static List<Waiting> waiting(Mirror mirror) throws SQLException {
    List<Waiting> all = new ArrayList<>();
    for (Row r : rows(mirror)) {
      all.add(
          new Waiting(
              r.number,
              OffsetDateTime.parse(r.at),
              r.board,
              EntryJson.read(r.body),
              r.after,
              r.said));
    }
    return all;
  }

  private static List<Row> rows(Mirror mirror) throws SQLException {
    List<Row> all = new ArrayList<>();
    try (Statement s = mirror.db().createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT position, token, call, number, at, board, body, after, said FROM waiting"
                    + " ORDER BY position")) {
      while (r.next()) {
        all.add(
            new Row(
                r.getLong(1),
                UUID.fromString(r.getString(2)),
                r.getLong(3),
                r.getLong(4),
                r.getString(5),
                r.getString(6),
                r.getString(7),
                r.getLong(8),
                r.getString(9)));
      }
    }
    return all;
  }

  /// Takes over what can be.
  ///
  /// @return numbers that entries had here, and have now
  Map<Long, Long> merge() throws SQLException {
    return merge(Optional.empty());
  }

  /// Takes over what waits of a board behind what others wrote, and what else can be.
  Map<Long, Long> keep(String board) throws SQLException {
    return merge(Optional.of(board));
  }

  private Map<Long, Long> merge(Optional<String> settled) throws SQLException {
    files();
    Map<Long, Long> now = new LinkedHashMap<>();
    Map<Long, List<Row>> calls = new LinkedHashMap<>();
    for (Row r : rows(mirror)) {
      calls.computeIfAbsent(r.call, _ -> new ArrayList<>()).add(r);
    }
    Map<Long, Long> known = numbers();
    Map<String, Long> last = new HashMap<>();
    Map<String, String> against = new HashMap<>();
    for (List<Row> call : calls.values()) {
      Optional<String> before =
          call.stream().map(Row::board).filter(against::containsKey).findFirst();
      if (before.isPresent()) {
        say(call, "it comes behind what waits of board " + before.get());
        call.forEach(r -> against.putIfAbsent(r.board, ""));
        continue;
      }
      try {
        Long[] numbers = to.send(sending(call, known, last, settled));
        for (int i = 0; i < numbers.length; i++) {
          Row r = call.get(i);
          known.put(r.number, numbers[i]);
          now.put(r.number, numbers[i]);
          last.put(r.board, numbers[i]);
        }
        done(call, numbers, "");
      } catch (SQLException e) {
        if (ServerProblem.lost(e)) {
          throw e;
        }
        say(call, why(e));
        call.forEach(r -> against.put(r.board, ""));
      }
    }
    return now;
  }

  /// Why the server refused something: another bench, or what nobody thought of, which must not
  /// hold up what waits of other boards.
  private String why(SQLException e) throws SQLException {
    String state = ServerProblem.state(e);
    if (state.equals(ServerProblem.HELD)) {
      return ServerProblem.heldBy(e);
    }
    if (!state.equals(ServerProblem.STALE)) {
      return ServerProblem.said(e);
    }
    String board = ServerProblem.board(e);
    long after =
        rows(mirror).stream()
            .filter(r -> r.board.equals(board))
            .mapToLong(Row::after)
            .min()
            .orElse(0);
    List<Long> theirs = to.others(board, after);
    return "others wrote on board "
        + board
        + " meanwhile: "
        + theirs.size()
        + (theirs.size() == 1 ? " entry, number " : " entries, from number ")
        + theirs.stream().findFirst().map(String::valueOf).orElse("?");
  }

  private static ServerEntries.Sending sending(
      List<Row> call, Map<Long, Long> known, Map<String, Long> last, Optional<String> settled) {
    return new ServerEntries.Sending(
        call.stream().map(Row::token).toList(),
        call.stream().map(Row::at).toList(),
        call.stream().map(Row::board).toList(),
        call.stream().map(r -> renumbered(r.body, known)).toList(),
        call.stream()
            .map(r ->
                r.board.isEmpty() || settled.filter(r.board::equals).isPresent()
                    ? Long.valueOf(-1)
                    : last.getOrDefault(r.board, r.after))
            .toList());
  }

  /// An entry that speaks of others by their numbers speaks of the numbers that these have now.
  private static String renumbered(String body, Map<Long, Long> known) {
    if (known.isEmpty()) {
      return body;
    }
    Entry was = EntryJson.read(body);
    Entry now = Renumbered.of(was, n -> known.getOrDefault(n, n));
    return now.equals(was) ? body : EntryJson.write(now);
  }

  private Map<Long, Long> numbers() throws SQLException {
    Map<Long, Long> all = new HashMap<>();
    try (Statement s = mirror.db().createStatement();
        ResultSet r = s.executeQuery("SELECT was, now FROM merged WHERE now > 0")) {
      while (r.next()) {
        all.put(r.getLong(1), r.getLong(2));
      }
    }
    return all;
  }

  /// Files that entries name go first.
  private void files() throws SQLException {
    try (Statement s = mirror.db().createStatement();
        ResultSet r = s.executeQuery("SELECT sha256, name, body FROM photograph")) {
      while (r.next()) {
        to.photograph(r.getString(1), r.getString(2), r.getBytes(3));
      }
    }
    ServerSchema.run(mirror.db(), "DELETE FROM photograph");
  }

  private void say(List<Row> call, String what) throws SQLException {
    mirror.transaction(() -> {
      try (PreparedStatement p =
          mirror.db().prepareStatement("UPDATE waiting SET said = ? WHERE position = ?")) {
        for (Row r : call) {
          p.setString(1, what);
          p.setLong(2, r.position);
          p.executeUpdate();
        }
      }
    });
  }

  private void done(List<Row> call, Long[] numbers, String words) throws SQLException {
    mirror.transaction(() -> {
      try (PreparedStatement in =
              mirror.db().prepareStatement("INSERT OR IGNORE INTO merged VALUES (?,?,?,?,?,?,?)");
          PreparedStatement out =
              mirror.db().prepareStatement("DELETE FROM waiting WHERE position = ?")) {
        for (int i = 0; i < call.size(); i++) {
          Row r = call.get(i);
          in.setString(1, r.token.toString());
          in.setLong(2, r.number);
          in.setLong(3, numbers.length == 0 ? 0 : numbers[i]);
          in.setString(4, r.at);
          in.setString(5, r.board);
          in.setString(6, r.body);
          in.setString(7, words);
          in.executeUpdate();
          out.setLong(1, r.position);
          out.executeUpdate();
        }
      }
    });
  }

  /// Lays aside what waits of a board, with everything that was written together with it. It stays
  /// in the bench's own file.
  ///
  /// @return what was laid aside
  List<Waiting> layAside(String board, String words) throws SQLException {
    List<Row> all = rows(mirror);
    List<Long> calls =
        all.stream().filter(r -> r.board.equals(board)).map(Row::call).distinct().toList();
    List<Row> gone = all.stream().filter(r -> calls.contains(r.call)).toList();
    List<Waiting> was =
        waiting(mirror).stream()
            .filter(w -> gone.stream().anyMatch(r -> r.number == w.number()))
            .toList();
    done(gone, new Long[0], words);
    return was;
  }
}
