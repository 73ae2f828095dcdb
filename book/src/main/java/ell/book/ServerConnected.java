package ell.book;

import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;

/// The connection to a workspace on a server. When the server does not answer, the bench goes on
/// with what it has seen, and what it writes waits in its own file; nothing else can be written
/// then. Callers hold the book's monitor.
final class ServerConnected extends Connected {
  private final Place.OnServer server;
  private final boolean readOnly;
  private final HikariDataSource pool;
  private final ServerEntries.Seen seen = new ServerEntries.Seen();
  private final List<String> notes = new ArrayList<>();
  private Mirror mirror;
  private boolean away;
  private String since = "";
  private boolean inside;

  private ServerConnected(Place.OnServer server, boolean readOnly, HikariDataSource pool) {
    this.server = server;
    this.readOnly = readOnly;
    this.pool = pool;
  }

  /// Opens a workspace; when the server does not answer, what the bench has seen of it.
  ///
  /// @throws BookException when it is none, of another version, nobody is let in, or the server
  ///   does not answer and nothing of it was seen yet
  static ServerConnected open(Place.OnServer server, boolean readOnly) throws BookException {
    ServerConnected c = new ServerConnected(server, readOnly, ServerDoor.pool(server));
    try {
      c.mirror = Mirror.open(server);
      c.mirror.lasting(false);
    } catch (SQLException e) {
      c.notes.add("what is seen of " + server + " cannot be kept here: " + e.getMessage());
    }
    try {
      c.ready();
      if (!c.away) {
        ServerSchema.fit(server, c.db(), readOnly);
        if (!readOnly) {
          c.merged();
          c.look();
        }
      }
      return c;
    } catch (SQLException e) {
      c.end();
      throw c.problem(e);
    } catch (BookException | RuntimeException e) {
      c.end();
      throw e;
    }
  }

  /// What is to be said to who opened it, a sentence each; said once.
  List<String> notes() {
    List<String> all = List.copyOf(notes);
    notes.clear();
    return all;
  }

  /// Whether the server does not answer now.
  boolean away() {
    return away;
  }

  /// Since when it does not, as a clock shows it.
  String since() {
    return since;
  }

  Optional<Mirror> mirror() {
    return Optional.ofNullable(mirror);
  }

  Place.OnServer server() {
    return server;
  }

  ServerEntries.Seen seen() {
    return seen;
  }

  /// Fetches what others wrote, so that it is known when the server goes away.
  void look() throws SQLException {
    if (mirror != null && !away && entries() instanceof ServerEntries e) {
      mirror.refresh(db(), e);
    }
  }

  /// Takes over what waits.
  ///
  /// @return numbers that entries had here, and have now
  Map<Long, Long> merged() throws SQLException {
    if (mirror == null || away || readOnly || mirror.one("SELECT count(*) FROM waiting") == 0) {
      return Map.of();
    }
    Map<Long, Long> now = new Outbox(mirror, (ServerEntries) entries()).merge();
    long left = mirror.one("SELECT count(*) FROM waiting");
    if (!now.isEmpty()) {
      notes.add(now.size() + " entries that waited here are in the book now" + others(now));
    }
    if (left > 0) {
      notes.add(left + " entries that were written here still wait: Ctrl+H, or outbox, shows why");
    }
    return now;
  }

  private static String others(Map<Long, Long> now) {
    List<String> moved =
        now.entrySet().stream()
            .filter(e -> !e.getKey().equals(e.getValue()))
            .map(e -> e.getKey() + " is " + e.getValue())
            .limit(8)
            .toList();
    return moved.isEmpty() ? "" : " (" + String.join(", ", moved) + ")";
  }

  /// Looks whether the server is back, and takes over what waits.
  ///
  /// @return whether it is
  boolean back() throws SQLException {
    if (!away) {
      return true;
    }
    Connection next;
    try {
      next = pool.getConnection();
    } catch (SQLException e) {
      return false;
    }
    away = false;
    take(next);
    try {
      mirror.lasting(false);
      merged();
      look();
      return true;
    } catch (SQLException e) {
      drop(e);
      if (ServerProblem.lost(e)) {
        lost();
        return false;
      }
      throw e;
    }
  }

  @Override
  protected EntryStore entries(Connection on) {
    return away
        ? new OutboxEntries(mirror, awayWords())
        : new ServerEntries(on, seen, BenchFolder.bench(server), !readOnly, mirror);
  }

  private String awayWords() {
    return server + " does not answer since " + since;
  }

  @Override
  protected SealStore seals(Connection on) {
    return new SealStore(on, "SELECT entries, head FROM anchor");
  }

  @Override
  String name() {
    return server.toString();
  }

  @Override
  void ready() throws SQLException {
    if (db() != null) {
      return;
    }
    if (away) {
      take(mirror.db());
      return;
    }
    try {
      take(pool.getConnection());
    } catch (SQLException e) {
      if (!ServerProblem.lost(e) || mirror == null || !mirror.any()) {
        throw e;
      }
      lost();
    }
  }

  /// From now on what was seen is all that there is.
  private void lost() throws SQLException {
    mirror.lasting(true);
    away = true;
    since = LocalTime.now().truncatedTo(ChronoUnit.MINUTES).toString();
    notes.add("the server does not answer: log lines wait here until it is back; " + server);
    take(mirror.db());
  }

  @Override
  <T> T work(Writes.Sql<T> work) throws SQLException, BookException {
    seen.begin();
    try {
      return work.run();
    } catch (BookException | RuntimeException e) {
      seen.back();
      throw e;
    } catch (SQLException e) {
      seen.back();
      if (away || !ServerProblem.lost(e)) {
        throw e;
      }
      drop(e);
      boolean wasInside = inside;
      inside = false;
      if (wasInside) {
        ready(); // the next who comes need not wait
        throw new BookException(
            server
                + " went away in the middle of this: look whether it is there before you do it"
                + " again",
            e);
      }
      ready();
      return work.run();
    }
  }

  @Override
  <T> T together(Writes.Sql<T> work) throws SQLException, BookException {
    inside = !away;
    T result = super.together(work);
    inside = false;
    return result;
  }

  @Override
  void hold() throws SQLException {
    if (!away) {
      ServerSchema.holds(db(), "SELECT pg_advisory_xact_lock(" + ServerEntries.ALL + ")");
    }
  }

  @Override
  List<UUID> tokens(int entries) {
    List<UUID> all = new ArrayList<>();
    for (int i = 0; i < entries; i++) {
      all.add(Token.next());
    }
    return all;
  }

  @Override
  Optional<String> tablesWait() {
    return away
        ? Optional.of(
            awayWords()
                + ": revisions, builds and the shelf wait until it is back; log lines go on")
        : Optional.empty();
  }

  @Override
  BookException problem(SQLException e) {
    return e.getCause() instanceof BookException b ? b : ServerProblem.of(server, e);
  }

  @Override
  Optional<String> structure() {
    return Optional.empty(); // the server looks after its own
  }

  @Override
  void drop(Exception because) {
    if (away || db() == null) {
      return; // the bench's own file stays open
    }
    if (because instanceof SQLException s && ServerProblem.lost(s)) {
      pool.evictConnection(db());
    }
    super.drop(because);
  }

  /// Closes everything, whatever it says.
  private void end() {
    try {
      close();
    } catch (SQLException e) {
      // the first problem is the one to tell
    }
  }

  @Override
  public void close() throws SQLException {
    try {
      if (!away) {
        letGo();
      }
    } finally {
      pool.close();
      if (mirror != null) {
        mirror.close();
      }
    }
  }
}
