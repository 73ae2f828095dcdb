package ell.book;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;

/// Carries a workspace from a file to a server and back, row by row: entries letter for letter with
/// their numbers, tables and seals as they are. What arrived is held against what left by its
/// hashes before anything of it is kept.
public final class Moving {
  private static final List<String> TABLES =
      List.of(
          "revision",
          "part",
          "joint",
          "corner",
          "document",
          "build",
          "board",
          "shelf",
          "parameter",
          "keepsake",
          "photograph");

  private Moving() {}

  /// What was carried.
  ///
  /// @param entries how many
  /// @param seal that the chain over all boards ends in, the same on both sides
  /// @param things how many revisions, documents and tables were held against each other
  public record Moved(long entries, String seal, int things) {}

  /// Carries a workspace to where none is yet.
  ///
  /// @throws BookException when there is one, the source does not hold, or what arrived is not what
  ///   left; nothing is kept then
  public static Moved move(Place from, Place to) throws BookException {
    if (from.equals(to)) {
      throw new BookException(to + " is where the workspace is already");
    }
    if (from instanceof Place.OfFile f && WriterLock.held(f.path())) {
      throw new BookException(
          from
              + " is open for writing elsewhere; close that first, or what is written there stays");
    }
    try (Book source = Book.openReadOnly(from)) {
      if (source.shared().filter(Shared::away).isPresent()) {
        throw new BookException(from + " does not answer: only the whole of it can be moved");
      }
      if (source.shared().isPresent() && !source.shared().get().waiting().isEmpty()) {
        throw new BookException(
            "entries that were written here still wait for " + from + "; see: outbox " + from);
      }
      Verification v = source.verify();
      if (!v.ok()) {
        throw new BookException(from + " does not hold: " + v.message());
      }
    }
    return switch (to) {
      case Place.OfFile f ->
          switch (from) {
            case Place.OnServer s -> toFile(s, f.path());
            case Place.OfFile g -> {
              try (Book b = Book.openReadOnly(g.path())) {
                b.backup(f.path());
                yield new Moved(b.size(), b.seal(), 0);
              }
            }
          };
      case Place.OnServer s -> toServer(from, s);
    };
  }

  /// Copies a server's workspace into a new file, as it stands at one moment.
  static Moved toFile(Place.OnServer from, Path to) throws BookException {
    Moved[] moved = new Moved[1];
    BookFile.create(
        to,
        part -> {
          try (Connection source = ServerDoor.single(from, from.database());
              Connection target = BookFile.connect(part, false)) {
            ServerSchema.run(source, "SET search_path = ell");
            oneMoment(source);
            moved[0] =
                carry(
                    source,
                    new FileConnected(part, false, Optional.empty(), target),
                    from.toString());
          } catch (SQLException e) {
            throw e instanceof org.sqlite.SQLiteException ? e : new Failed(from, e);
          }
        });
    return moved[0];
  }

  private static final class Failed extends SQLException {
    private static final long serialVersionUID = 1;

    Failed(Place.OnServer server, SQLException e) {
      super(ServerProblem.of(server, e).getMessage(), e);
    }
  }

  /// From now on the connection sees the server as it is at this moment, when nobody is in the
  /// middle of an append.
  private static void oneMoment(Connection c) throws SQLException {
    ServerSchema.holds(c, "SELECT pg_advisory_lock(" + ServerEntries.ALL + ")");
    c.setTransactionIsolation(Connection.TRANSACTION_REPEATABLE_READ);
    c.setAutoCommit(false);
    ServerSchema.holds(c, "SELECT 1 FROM workspace");
    ServerSchema.holds(c, "SELECT pg_advisory_unlock(" + ServerEntries.ALL + ")");
  }

  private static Moved toServer(Place from, Place.OnServer to) throws BookException {
    ServerSchema.create(to);
    boolean done = false;
    try (Connection target = ServerDoor.single(to, to.database())) {
      ServerSchema.run(target, "SET search_path = ell");
      try {
        Moved m =
            switch (from) {
              case Place.OfFile f -> {
                try (Connection source = BookFile.connectToLook(f.path())) {
                  source.setAutoCommit(false); // from here on it is seen as at one moment
                  yield carryToServer(source, target, from.toString());
                }
              }
              case Place.OnServer s -> {
                try (Connection source = ServerDoor.single(s, s.database())) {
                  ServerSchema.run(source, "SET search_path = ell");
                  oneMoment(source);
                  yield carryToServer(source, target, from.toString());
                }
              }
            };
        done = true;
        return m;
      } finally {
        if (!done) {
          ServerSchema.run(target, "DROP SCHEMA ell CASCADE");
        }
      }
    } catch (SQLException e) {
      throw ServerProblem.of(to, e);
    }
  }

  private static Moved carryToServer(Connection source, Connection target, String from)
      throws SQLException, BookException {
    ServerEntries entries = new ServerEntries(target, new ServerEntries.Seen(), "", true, null);
    return carry(source, new OpenConnected(target, entries), from);
  }

  private static Moved carry(Connection source, Connected to, String from)
      throws SQLException, BookException {
    Connection target = to.db();
    target.setAutoCommit(false);
    try {
      for (String table : TABLES) {
        Rows.carry(source, "SELECT * FROM " + table, target, table);
      }
      Carried carried = carryEntries(source, to);
      Rows.carry(source, "SELECT * FROM seal ORDER BY number", target, "seal");
      if (to instanceof OpenConnected) {
        afterwards(target);
      }
      target.commit();
      target.setAutoCommit(true);
      if (to instanceof OpenConnected) {
        ServerSchema.run(target, "ANALYZE");
      }
      return held(source, to, from, carried);
    } catch (SQLException | BookException | RuntimeException e) {
      if (!target.getAutoCommit()) {
        target.rollback();
        target.setAutoCommit(true);
      }
      throw e;
    }
  }

  /// How many entries were carried, and where the chain over all boards ends with them.
  private record Carried(long entries, byte[] head) {}

  /// Entries in the order of their numbers; on a server, the chain over all boards is written down
  /// wherever a seal speaks of it.
  private static Carried carryEntries(Connection source, Connected to) throws SQLException {
    TreeSet<Long> sealed = new TreeSet<>();
    try (PreparedStatement p = source.prepareStatement("SELECT DISTINCT entries FROM seal");
        ResultSet r = p.executeQuery()) {
      while (r.next()) {
        sealed.add(r.getLong(1));
      }
    }
    boolean server = to instanceof OpenConnected;
    Chain chain = new Chain();
    byte[] all = Chain.START;
    long count = 0;
    String sql =
        server
            ? "INSERT INTO entry (number, at, board, body, hash) VALUES (?,?,?,?,?)"
            : "INSERT INTO entry VALUES (?,?,?,?,?)";
    Map<String, byte[]> boards = new java.util.HashMap<>();
    try (PreparedStatement in = to.db().prepareStatement(sql);
        PreparedStatement read =
            source.prepareStatement("SELECT number, at, board, body FROM entry ORDER BY number")) {
      read.setFetchSize(2000);
      try (ResultSet r = read.executeQuery()) {
        while (r.next()) {
          Written w = EntryStore.row(r);
          all = chain.next(all, w.number(), w.at(), w.board(), w.body());
          byte[] own = all;
          if (server) {
            byte[] before = boards.getOrDefault(w.board(), Chain.START);
            own = chain.next(before, w.number(), w.at(), w.board(), w.body());
            boards.put(w.board(), own);
          }
          in.setLong(1, w.number());
          in.setString(2, w.at());
          in.setString(3, w.board());
          in.setString(4, w.body());
          in.setBytes(5, own);
          in.addBatch();
          if (++count % 2000 == 0) {
            in.executeBatch();
          }
          if (server && sealed.contains(w.number())) {
            anchor(to.db(), w.number(), all, w.at());
          }
        }
        in.executeBatch();
      }
    }
    return new Carried(count, all);
  }

  private static void anchor(Connection db, long number, byte[] head, String at)
      throws SQLException {
    try (PreparedStatement p = db.prepareStatement("INSERT INTO anchor VALUES (?,?,?)")) {
      p.setLong(1, number);
      p.setBytes(2, head);
      p.setString(3, at);
      p.executeUpdate();
    }
  }

  /// What is counted goes on behind what came.
  private static void afterwards(Connection c) throws SQLException {
    ServerSchema.holds(
        c,
        "SELECT setval('entry_number', greatest(1, (SELECT max(number) FROM entry)),"
            + " EXISTS (SELECT 1 FROM entry))");
    for (String table : List.of("revision", "build")) {
      ServerSchema.holds(
          c,
          "SELECT setval(pg_get_serial_sequence('"
              + table
              + "', 'id'), greatest(1, (SELECT max(id) FROM "
              + table
              + ")), EXISTS (SELECT 1 FROM "
              + table
              + "))");
    }
  }

  /// Holds what arrived against what left.
  private static Moved held(Connection source, Connected to, String from, Carried carried)
      throws SQLException, BookException {
    Verification v = Verifier.verify(to);
    if (!v.ok() || v.entries() != carried.entries()) {
      throw new BookException("what arrived from " + from + " does not hold: " + v.message());
    }
    SealStore left = new SealStore(source, "SELECT 0, NULL");
    List<String> things = left.all();
    for (String what : things) {
      if (!Arrays.equals(left.digest(what), to.seals().digest(what))) {
        throw new BookException("what arrived from " + from + " is not what left: " + what);
      }
    }
    return new Moved(carried.entries(), HexFormat.of().formatHex(carried.head()), things.size());
  }

  /// A connection that somebody else looks after.
  private static final class OpenConnected extends Connected {
    private final ServerEntries own;

    OpenConnected(Connection db, ServerEntries own) throws SQLException {
      this.own = own;
      take(db);
    }

    @Override
    protected EntryStore entries(Connection on) {
      return own;
    }

    @Override
    protected SealStore seals(Connection on) {
      return new SealStore(on, "SELECT entries, head FROM anchor");
    }

    @Override
    String name() {
      return "the server";
    }

    @Override
    void ready() {
      // it is open
    }

    @Override
    BookException problem(SQLException e) {
      return new BookException(String.valueOf(e.getMessage()), e);
    }

    @Override
    Optional<String> structure() {
      return Optional.empty();
    }
  }
}
