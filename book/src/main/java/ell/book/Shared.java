package ell.book;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.postgresql.PGConnection;

/// What several benches share of a workspace on a server: which board is in whose hand, what waits
/// here to be taken over, who may come, and what others write. Safe for several threads.
public final class Shared {
  /// For how long a board stays in hand when nobody writes on it.
  public static final int HOLD_SECONDS = 900;

  /// The roles that somebody can be given.
  public static final List<String> ROLES = List.of("reader", "helper", "maker");

  private final ServerConnected to;
  private final Writes writes;
  private Others others;

  Shared(ServerConnected to, Writes writes) {
    this.to = to;
    this.writes = writes;
    to.seen().hold = HOLD_SECONDS;
  }

  /// Is told of what others did.
  public interface Listener {
    /// Others wrote on boards, an empty name for what belongs to none.
    void boards(Set<String> boards);

    /// Something else is other than before: tables, who has what in hand, or whether the server
    /// answers.
    void everything();
  }

  /// The name of this bench.
  public String bench() {
    return BenchFolder.bench(to.server());
  }

  /// Whether the server does not answer now.
  public boolean away() {
    synchronized (writes) {
      return to.away();
    }
  }

  /// Since when it does not, as a clock shows it; empty when it does.
  public String since() {
    synchronized (writes) {
      return to.away() ? to.since() : "";
    }
  }

  /// What is to be said since somebody asked last, a sentence each.
  public List<String> notes() {
    synchronized (writes) {
      return to.notes();
    }
  }

  /// For how long boards that are written on are taken in hand.
  ///
  /// @param seconds 0 to take none
  public void hold(int seconds) {
    synchronized (writes) {
      to.seen().hold = seconds;
    }
  }

  /// Looks whether the server is back, and takes over what waits.
  ///
  /// @return whether it answers
  public boolean back() throws BookException {
    synchronized (writes) {
      try {
        return to.back();
      } catch (SQLException e) {
        throw to.problem(e);
      }
    }
  }

  /// From now on tells of what others do, until the book is closed; looks for the server while it
  /// does not answer.
  public void listen(Listener listener) {
    others = new Others(to.server(), this, listener);
    others.start();
  }

  /// Fetches what others wrote, so that it is known here when the server goes away.
  void look() throws BookException {
    writes.reading(() -> {
      to.look();
      return null;
    });
  }

  /// Tells other benches that boards were written on.
  void wrote(Collection<String> boards) {
    if (others != null) {
      others.tell(boards);
    }
  }

  /// What waits here until the server takes it over, in order.
  public List<Waiting> waiting() throws BookException {
    if (to.mirror().isEmpty()) {
      return List.of();
    }
    synchronized (writes) {
      try {
        return Outbox.waiting(to.mirror().get());
      } catch (SQLException e) {
        throw to.problem(e);
      }
    }
  }

  private ServerEntries answering(String what) throws BookException {
    if (to.away() || !(to.entries() instanceof ServerEntries e)) {
      throw new BookException(
          to.name()
              + " does not answer since "
              + to.since()
              + ": "
              + what
              + " waits until it does");
    }
    return e;
  }

  /// Takes over what waits of a board, behind what others wrote on it.
  ///
  /// @return numbers that entries had here, and have now
  public Map<Long, Long> keep(String board) throws BookException {
    return writes.reading(
        () -> new Outbox(to.mirror().orElseThrow(), answering("what waits")).keep(board));
  }

  /// Lays aside what waits of a board: it stays in this bench's own file, and is no longer offered.
  public List<Waiting> layAside(String board, String words) throws BookException {
    return writes.reading(() ->
        new Outbox(to.mirror().orElseThrow(), answering("what waits")).layAside(board, words));
  }

  /// Boards that are in hand now.
  public List<Lease> leases() throws BookException {
    return writes.reading(() -> {
      List<Lease> all = new ArrayList<>();
      if (to.away()) {
        return all;
      }
      try (Statement s = to.db().createStatement();
          ResultSet r =
              s.executeQuery(
                  "SELECT board, bench, person, since, until, words FROM lease WHERE until >"
                      + " clock_timestamp() ORDER BY board")) {
        while (r.next()) {
          all.add(
              new Lease(
                  r.getString(1),
                  r.getString(2),
                  r.getString(3),
                  r.getObject(4, OffsetDateTime.class),
                  r.getObject(5, OffsetDateTime.class),
                  r.getString(6)));
        }
      }
      return all;
    });
  }

  /// Takes a board in hand.
  ///
  /// @throws BookException when another bench has it, saying which
  public void take(String board) throws BookException {
    call("SELECT take_in_hand(?,?,?)", bench(), board, HOLD_SECONDS);
  }

  /// Gives a board to a bench, this one or another, whoever has it.
  ///
  /// @param words why; a board is not handed over without
  public void handOver(String board, String bench, String words) throws BookException {
    call("SELECT hand_over(?,?,?,?)", bench, board, HOLD_SECONDS, words);
  }

  /// Lays a board down that this bench has in hand.
  public void layDown(String board) throws BookException {
    call("SELECT lay_down(?,?)", bench(), board);
  }

  private void call(String sql, Object... values) throws BookException {
    writes.reading(() -> {
      answering("who has a board in hand");
      try (PreparedStatement p = to.db().prepareStatement(sql)) {
        for (int i = 0; i < values.length; i++) {
          p.setObject(i + 1, values[i]);
        }
        p.executeQuery().close();
      }
      return null;
    });
    wrote(List.of());
  }

  /// The role of whoever opened the book.
  public String role() throws BookException {
    return people().stream()
        .filter(p -> p.name().equals(ServerDoor.user(to.server())))
        .map(Person::role)
        .findFirst()
        .orElse("reader");
  }

  /// Who may come, by name.
  public List<Person> people() throws BookException {
    return writes.reading(() -> {
      answering("who may come");
      List<Person> all = new ArrayList<>();
      try (Statement s = to.db().createStatement();
          ResultSet r =
              s.executeQuery(
                  "SELECT tableowner, 'owner' FROM pg_tables WHERE schemaname = 'ell' AND tablename"
                      + " = 'entry' UNION ALL SELECT m.rolname, max(CASE g.rolname WHEN 'ell_reader'"
                      + " THEN 'reader' WHEN 'ell_helper' THEN 'helper' ELSE 'maker' END) FROM"
                      + " pg_auth_members a JOIN pg_roles m ON m.oid = a.member JOIN pg_roles g ON"
                      + " g.oid = a.roleid WHERE g.rolname IN ('ell_reader', 'ell_helper',"
                      + " 'ell_maker') GROUP BY m.rolname ORDER BY 1")) {
        while (r.next()) {
          String name = r.getString(1);
          if (all.stream().noneMatch(p -> p.name().equals(name))) {
            all.add(new Person(name, r.getString(2)));
          }
        }
      }
      return all;
    });
  }

  /// Lets somebody come, or gives who comes already another role.
  ///
  /// @param password of a person who is new to the server; empty for one that the server knows
  /// @throws BookException when the role is none, or this person may not say who comes
  public void invite(String name, String role, Optional<String> password) throws BookException {
    if (!ROLES.contains(role)) {
      throw new BookException("a role is " + String.join(", ", ROLES) + ", found '" + role + "'");
    }
    if (!name.matches("[a-z_][a-z0-9_-]{0,62}")) {
      throw new BookException(
          "a name on a server is of small letters, digits, - and _, found '" + name + "'");
    }
    writes.reading(() -> {
      answering("who may come");
      Connection db = to.db();
      String who = ServerSchema.quoted(name);
      boolean known =
          ServerSchema.holds(
              db, "SELECT 1 FROM pg_roles WHERE rolname = " + ServerSchema.literal(name));
      if (!known) {
        ServerSchema.run(db, "CREATE ROLE " + who + " LOGIN");
      }
      if (password.isPresent()) {
        // as a verifier: what was typed is not sent, and stands in no log of the server
        db.unwrap(PGConnection.class)
            .alterUserPassword(name, password.get().toCharArray(), "scram-sha-256");
      }
      for (String r : ROLES) {
        ServerSchema.run(
            db,
            r.equals(role) ? "GRANT ell_" + r + " TO " + who : "REVOKE ell_" + r + " FROM " + who);
      }
      return null;
    });
  }

  /// Lets somebody come no more.
  public void dismiss(String name) throws BookException {
    writes.reading(() -> {
      answering("who may come");
      if (!ServerSchema.holds(
          to.db(), "SELECT 1 FROM pg_roles WHERE rolname = " + ServerSchema.literal(name))) {
        throw new BookException("nobody is called '" + name + "' there");
      }
      for (String r : ROLES) {
        ServerSchema.run(to.db(), "REVOKE ell_" + r + " FROM " + ServerSchema.quoted(name));
      }
      return null;
    });
  }

  void close() {
    if (others != null) {
      others.close();
    }
  }
}
