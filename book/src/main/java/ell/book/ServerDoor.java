package ell.book;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/// How a server is reached: with whose name and password, how safe the way to it is, and how long
/// is waited.
public final class ServerDoor {
  /// The schema that all tables of a workspace are in.
  static final String SCHEMA = "ell";

  private static final int CONNECT_SECONDS = 3;
  private static final int ANSWER_SECONDS = 15;
  private static final int MOST_CONNECTIONS = 4;
  private static final int HIKARI_LEAST_MILLIS = 250;

  /// Passwords that somebody typed, for as long as the program runs.
  private static final Map<String, String> TYPED = new ConcurrentHashMap<>();

  private ServerDoor() {}

  /// Remembers a password that was typed, in memory alone.
  public static void typed(Place.OnServer server, String password) {
    TYPED.put(server.toString(), password);
  }

  /// A pool of connections to a workspace.
  static HikariDataSource pool(Place.OnServer server) throws BookException {
    HikariConfig c = new HikariConfig();
    c.setJdbcUrl(url(server, server.database()));
    c.setDataSourceProperties(properties(server));
    c.addDataSourceProperty("currentSchema", SCHEMA);
    c.setMaximumPoolSize(MOST_CONNECTIONS);
    c.setMinimumIdle(0);
    c.setInitializationFailTimeout(-1); // who asks for the first connection hears what is wrong
    c.setConnectionTimeout(Math.max(HIKARI_LEAST_MILLIS, CONNECT_SECONDS * 1000L));
    c.setValidationTimeout(CONNECT_SECONDS * 1000L);
    c.setPoolName("ell");
    return new HikariDataSource(c);
  }

  /// One connection, outside of any pool, that waits for as long as the work takes.
  static Connection single(Place.OnServer server, String database)
      throws SQLException, BookException {
    Properties p = properties(server);
    p.setProperty("socketTimeout", "0");
    return DriverManager.getConnection(url(server, database), p);
  }

  /// One connection to a workspace, for listening and for asking whether the server is back.
  static Connection asking(Place.OnServer server) throws SQLException, BookException {
    Properties p = properties(server);
    p.setProperty("currentSchema", SCHEMA);
    return DriverManager.getConnection(url(server, server.database()), p);
  }

  private static String url(Place.OnServer s, String database) {
    String host = s.host().contains(":") ? "[" + s.host() + "]" : s.host();
    return "jdbc:postgresql://"
        + host
        + ":"
        + s.port()
        + "/"
        + java.net.URLEncoder.encode(database, java.nio.charset.StandardCharsets.UTF_8);
  }

  private static Properties properties(Place.OnServer s) throws BookException {
    Properties p = new Properties();
    String user = user(s);
    p.setProperty("user", user);
    Optional<String> password = password(s, user);
    password.ifPresent(w -> p.setProperty("password", w));
    p.setProperty("sslmode", loopback(s.host()) ? "prefer" : "verify-full");
    s.said()
        .forEach((k, v) -> {
          if (k.startsWith("ssl")) {
            p.setProperty(k, v);
          }
        });
    p.setProperty("connectTimeout", String.valueOf(CONNECT_SECONDS));
    p.setProperty("loginTimeout", String.valueOf(2 * CONNECT_SECONDS));
    p.setProperty("socketTimeout", String.valueOf(ANSWER_SECONDS));
    p.setProperty("tcpKeepAlive", "true");
    p.setProperty("ApplicationName", "ell " + BenchFolder.bench(s));
    p.setProperty("reWriteBatchedInserts", "true");
    return p;
  }

  static String user(Place.OnServer s) {
    return s.user().isEmpty() ? System.getProperty("user.name") : s.user();
  }

  private static boolean loopback(String host) {
    try {
      return InetAddress.getByName(host).isLoopbackAddress();
    } catch (UnknownHostException e) {
      return false;
    }
  }

  private static Optional<String> password(Place.OnServer s, String user) throws BookException {
    String typed = TYPED.get(s.toString());
    if (typed != null) {
      return Optional.of(typed);
    }
    String said = System.getenv("ELL_PASSWORD");
    if (said != null) {
      return Optional.of(said);
    }
    String named = System.getenv("PGPASSFILE");
    Path file =
        named == null || named.isBlank()
            ? Path.of(System.getProperty("user.home"), ".pgpass")
            : Path.of(named);
    return Files.isRegularFile(file) ? fromFile(file, s, user) : Optional.empty();
  }

  /// Looks a password up in a file of lines `host:port:database:user:password`.
  ///
  /// @throws BookException when others can read the file
  static Optional<String> fromFile(Path file, Place.OnServer s, String user) throws BookException {
    try {
      Set<PosixFilePermission> rights = Files.getPosixFilePermissions(file);
      for (PosixFilePermission r : rights) {
        if (!r.name().startsWith("OWNER")) {
          throw new BookException(
              file + " holds passwords and others can read it; close it first: chmod 600 " + file);
        }
      }
    } catch (UnsupportedOperationException e) {
      // a system without such rights
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new BookException(file + " cannot be looked at: " + e.getMessage(), e);
    }
    try {
      for (String line : Files.readAllLines(file)) {
        String[] f = line.startsWith("#") ? new String[0] : line.split("(?<!\\\\):", -1);
        if (f.length >= 5
            && fits(f[0], s.host())
            && fits(f[1], String.valueOf(s.port()))
            && fits(f[2], s.database())
            && fits(f[3], user)) {
          return Optional.of(
              String.join(":", java.util.Arrays.copyOfRange(f, 4, f.length)).replace("\\:", ":"));
        }
      }
      return Optional.empty();
    } catch (IOException e) {
      throw new BookException(file + " cannot be read: " + e.getMessage(), e);
    }
  }

  private static boolean fits(String written, String is) {
    return written.equals("*") || written.replace("\\:", ":").equals(is);
  }
}
