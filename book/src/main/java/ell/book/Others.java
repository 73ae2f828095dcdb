package ell.book;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Set;
import java.util.TreeSet;
import org.postgresql.PGConnection;
import org.postgresql.PGNotification;

/// Hears what other benches do, and tells them what this one did, over a connection of its own. A
/// bench that dies between writing and telling is heard all the same: every while the server is
/// asked whether there is more than was heard of.
final class Others implements AutoCloseable {
  /// What a notification is about, as the server knows it.
  private static final String CHANNEL = "ell";

  private static final int WAIT_MILLIS = 120;
  private static final int ASK_MILLIS = 700;
  private static final int AGAIN_MILLIS = 1500;
  private static final int MOST_SAID = 7000;

  private final Place.OnServer server;
  private final Shared shared;
  private final Shared.Listener listener;
  private final Thread thread;
  private final Set<String> toTell = new TreeSet<>();
  private volatile boolean ended;
  private long entries = -1;
  private long tables = -1;

  Others(Place.OnServer server, Shared shared, Shared.Listener listener) {
    this.server = server;
    this.shared = shared;
    this.listener = listener;
    this.thread = new Thread(this::run, "others");
    thread.setDaemon(true);
  }

  void start() {
    thread.start();
  }

  /// Tells others of boards; none for something else.
  void tell(Collection<String> boards) {
    synchronized (toTell) {
      if (boards.isEmpty()) {
        toTell.add("*");
      }
      boards.forEach(b -> toTell.add("=" + b));
    }
  }

  private void run() {
    while (!ended) {
      try (Connection c = ServerDoor.asking(server)) {
        try (Statement s = c.createStatement()) {
          s.execute("LISTEN " + CHANNEL);
        }
        if (shared.away()) {
          shared.back();
          listener.everything();
        }
        hear(c);
      } catch (SQLException | BookException | RuntimeException e) {
        boolean was = shared.away();
        pause(AGAIN_MILLIS);
        if (was != shared.away()) {
          listener.everything();
        }
      }
    }
  }

  private void hear(Connection c) throws SQLException, BookException {
    long asked = 0;
    Set<String> heard = new TreeSet<>(); // since it was asked last
    int own = c.unwrap(PGConnection.class).getBackendPID();
    while (!ended) {
      say(c);
      PGNotification[] told = c.unwrap(PGConnection.class).getNotifications(WAIT_MILLIS);
      Set<String> boards = new TreeSet<>();
      boolean more = false;
      for (PGNotification n : told == null ? new PGNotification[0] : told) {
        if (n.getPID() == own) {
          continue;
        }
        for (String one : n.getParameter().split("\n")) {
          if (one.startsWith("=")) {
            boards.add(one.substring(1));
          } else {
            more = true;
          }
        }
      }
      if (System.currentTimeMillis() - asked > ASK_MILLIS) {
        asked = System.currentTimeMillis();
        Set<String> untold = new TreeSet<>();
        more |= ask(c, untold);
        heard.addAll(boards);
        untold.removeAll(heard);
        boards.addAll(untold);
        heard.clear();
      } else {
        heard.addAll(boards);
      }
      if (shared.away()) {
        shared.back();
        more = true;
      }
      if (!boards.isEmpty()) {
        listener.boards(boards);
      }
      if (more) {
        shared.look();
        listener.everything();
      }
    }
  }

  /// Asks for what nobody told of.
  private boolean ask(Connection c, Set<String> boards) throws SQLException {
    long lastTable = one(c, "SELECT max(number) FROM seal");
    boolean written = tables >= 0 && lastTable > tables;
    tables = lastTable;
    long last = one(c, "SELECT max(number) FROM entry");
    if (entries >= 0 && last > entries) {
      try (PreparedStatement p =
          c.prepareStatement("SELECT DISTINCT board FROM entry WHERE number > ? AND bench <> ?")) {
        p.setLong(1, entries);
        p.setString(2, shared.bench());
        try (ResultSet r = p.executeQuery()) {
          while (r.next()) {
            boards.add(r.getString(1));
          }
        }
      }
    }
    entries = last;
    return written;
  }

  private static long one(Connection c, String sql) throws SQLException {
    try (Statement s = c.createStatement();
        ResultSet r = s.executeQuery(sql)) {
      return r.next() ? r.getLong(1) : 0;
    }
  }

  private void say(Connection c) throws SQLException {
    Collection<String> now;
    synchronized (toTell) {
      if (toTell.isEmpty()) {
        return;
      }
      now = new ArrayList<>(toTell);
      toTell.clear();
    }
    String said = String.join("\n", now);
    try (PreparedStatement p = c.prepareStatement("SELECT pg_notify('" + CHANNEL + "', ?)")) {
      p.setString(1, said.length() > MOST_SAID ? "*" : said);
      p.executeQuery().close();
    }
  }

  private void pause(int millis) {
    try {
      Thread.sleep(millis);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      ended = true;
    }
  }

  @Override
  public void close() {
    ended = true;
    thread.interrupt();
    try {
      thread.join(1000);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
