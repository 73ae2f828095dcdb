package ell.trials.share;

import ell.book.Book;
import ell.book.LocalServer;
import ell.book.Moving;
import ell.book.Place;
import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Standing;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;

/// Appends of one to sixteen benches against bare inserts of as many into a table without chain,
/// leases or rights, on the same server with the same durability; and a book of many entries opened
/// and a board shown.
public final class BenchesTrial {
  private static final int[] BENCHES = {1, 2, 4, 8, 16};
  private static final int SECONDS = 4;
  private static final double RATIO = 5;
  private static final double SHOWN = 1;
  private static final int BOARDS = 50_000;

  private BenchesTrial() {}

  /// One line of a report.
  ///
  /// @param held whether it is as it is wanted
  public record Line(String text, boolean held) {}

  /// Runs it.
  ///
  /// @param entries of the large book, in millions; 0 leaves it out
  public static List<Line> run(int entries) throws Exception {
    if (LocalServer.programs().isEmpty()) {
      return List.of(new Line("benches: this system has no PostgreSQL server", true));
    }
    System.setProperty("ell.state", Files.createTempDirectory("trial-state").toString());
    List<Line> lines = new ArrayList<>();
    Path file = Files.createTempDirectory("trial").resolve("demo.ell");
    DemoWorkspace.make(file).close();
    try (LocalServer server =
        LocalServer.start(Files.createTempDirectory("trial-server"), 0, false)) {
      Moving.move(new Place.OfFile(file), Place.of(server.address("shop")));
      appends(server, 2, 1); // warm
      for (int n : BENCHES) {
        double bare = bare(server, n);
        double ours = appends(server, n, SECONDS);
        lines.add(
            new Line(
                String.format(
                    Locale.ROOT,
                    "benches: %2d append %5.0f entries a second, bare inserts %5.0f: ratio %.2f",
                    n,
                    ours,
                    bare,
                    bare / ours),
                bare / ours < RATIO));
      }
      if (entries > 0) {
        lines.addAll(large(server, entries));
      }
    }
    return lines;
  }

  private static Entry entry() {
    return new Entry.Reading(
        "3V3",
        3.3,
        Unit.VOLT,
        Optional.of(new Limits(3.2, 3.4)),
        Optional.of(0.018),
        Optional.of(Verdict.WITHIN),
        "");
  }

  private interface Work {
    void once() throws Exception;
  }

  private interface Maker {
    Work of(int bench) throws Exception;
  }

  /// How often a second so many threads do something together.
  private static double rate(int n, int seconds, Maker maker) throws Exception {
    AtomicLong done = new AtomicLong();
    CountDownLatch ready = new CountDownLatch(n);
    CountDownLatch go = new CountDownLatch(1);
    long[] end = new long[1];
    List<Thread> all = new ArrayList<>();
    List<Throwable> failed = java.util.Collections.synchronizedList(new ArrayList<>());
    for (int i = 0; i < n; i++) {
      Work w = maker.of(i);
      all.add(
          Thread.ofPlatform()
              .start(() -> {
                try {
                  ready.countDown();
                  go.await();
                  while (System.nanoTime() < end[0]) {
                    w.once();
                    done.incrementAndGet();
                  }
                } catch (Exception e) {
                  failed.add(e);
                }
              }));
    }
    ready.await();
    long from = System.nanoTime();
    end[0] = from + TimeUnit.SECONDS.toNanos(seconds);
    go.countDown();
    for (Thread t : all) {
      t.join();
    }
    if (!failed.isEmpty()) {
      throw new IllegalStateException(failed.getFirst());
    }
    return done.get() / ((System.nanoTime() - from) / 1e9);
  }

  private static double appends(LocalServer server, int n, int seconds) throws Exception {
    List<Book> open = new ArrayList<>();
    try {
      return rate(
          n,
          seconds,
          i -> {
            Book b =
                Book.open(Place.of(server.address("shop") + "?bench=T" + i), Clock.systemUTC());
            open.add(b);
            String board = "trial-" + n + "-" + i;
            Entry e = entry();
            return () -> b.append(board, e);
          });
    } finally {
      for (Book b : open) {
        b.close();
      }
    }
  }

  private static Connection connection(LocalServer server) throws Exception {
    return DriverManager.getConnection(
        "jdbc:postgresql://127.0.0.1:" + server.port() + "/shop", LocalServer.OWNER, null);
  }

  private static double bare(LocalServer server, int n) throws Exception {
    List<Connection> open = new ArrayList<>();
    try (Connection c = connection(server);
        Statement s = c.createStatement()) {
      s.execute("DROP TABLE IF EXISTS bare");
      s.execute(
          "CREATE TABLE bare (number BIGINT PRIMARY KEY GENERATED ALWAYS AS IDENTITY, at TEXT, board"
              + " TEXT, body TEXT, hash BYTEA)");
      return rate(
          n,
          SECONDS,
          i -> {
            Connection own = connection(server);
            open.add(own);
            PreparedStatement p =
                own.prepareStatement("INSERT INTO bare (at, board, body, hash) VALUES (?,?,?,?)");
            String body = EntryJson.write(entry());
            byte[] hash = new byte[32];
            return () -> {
              p.setString(1, "2026-11-28T07:00:00.000Z");
              p.setString(2, "trial-" + i);
              p.setString(3, body);
              p.setBytes(4, hash);
              p.executeUpdate();
            };
          });
    } finally {
      for (Connection c : open) {
        c.close();
      }
    }
  }

  /// A book of many entries on many boards: made by the server itself, chains and all.
  private static List<Line> large(LocalServer server, int millions) throws Exception {
    Path file = Files.createTempDirectory("trial").resolve("demo.ell");
    DemoWorkspace.make(file).close();
    Place place = Place.of(server.address("large") + "?bench=T");
    Moving.move(new Place.OfFile(file), place);
    long made = System.nanoTime();
    try (Connection c =
            DriverManager.getConnection(
                "jdbc:postgresql://127.0.0.1:" + server.port() + "/large",
                LocalServer.OWNER,
                null);
        Statement s = c.createStatement()) {
      s.execute("SET search_path = ell");
      long per = millions * 1_000_000L / BOARDS;
      s.execute(
          "INSERT INTO build (revision, method, alloy, made) SELECT 1, 'iron', 'sac305',"
              + " '2026-01-01T00:00Z' FROM generate_series(1, "
              + BOARDS / 200
              + ")");
      s.execute(
          "INSERT INTO board SELECT 'L' || lpad(i::text, 5, '0'), (SELECT max(id) FROM build) - i"
              + " % "
              + BOARDS / 200
              + ", i FROM generate_series(0, "
              + (BOARDS - 1)
              + ") i");
      String body = EntryJson.write(entry()).replace("'", "''");
      s.execute(
          "INSERT INTO entry (number, at, board, body, hash) SELECT 1000 + i,"
              + " '2026-11-28T07:00:00.000Z', 'L' || lpad((i / "
              + per
              + ")::text, 5, '0'), '"
              + body
              + "', decode(repeat('00', 32), 'hex') FROM generate_series(0, "
              + (per * BOARDS - 1)
              + "::bigint) i");
      s.execute("SELECT setval('entry_number', " + (1000 + per * BOARDS) + ")");
      s.execute("ANALYZE");
      made = System.nanoTime() - made;
      List<Line> lines = new ArrayList<>();
      try (ResultSet r =
          s.executeQuery(
              "SELECT pg_table_size('entry'), pg_indexes_size('entry'), count(*) FROM entry")) {
        r.next();
        lines.add(
            new Line(
                String.format(
                    Locale.ROOT,
                    "benches: %d entries made in %.0f s, %.2f GB and %.2f GB of indexes",
                    r.getLong(3),
                    made / 1e9,
                    r.getLong(1) / 1e9,
                    r.getLong(2) / 1e9),
                true));
      }
      List<Double> times = new ArrayList<>();
      for (int i = 0; i < 5; i++) {
        String board = String.format(Locale.ROOT, "L%05d", 777 + 9000 * i);
        long start = System.nanoTime();
        try (Workshop w = Workshop.look(place)) {
          Standing standing = Standing.of(w.state(board), w.plan(w.buildOf(board)));
          if (w.state(board).entries() < per || standing.phrase().isBlank()) {
            throw new IllegalStateException("the book was not read");
          }
        }
        times.add((System.nanoTime() - start) / 1e9);
      }
      times.sort(null);
      lines.add(
          new Line(
              String.format(
                  Locale.ROOT,
                  "benches: %d million entries on %d boards: open and show a board in %.2f s",
                  millions,
                  BOARDS,
                  times.get(times.size() / 2)),
              times.get(times.size() / 2) < SHOWN));
      return lines;
    }
  }
}
