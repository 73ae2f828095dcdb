package ell.book;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.SkipException;

/// One server for all tests of this module, started when the first needs it. Where the system has
/// none, those tests are skipped and say so.
final class OneServer {
  private static final AtomicInteger NAMES = new AtomicInteger();
  private static LocalServer server;

  private OneServer() {}

  static synchronized LocalServer get() throws IOException {
    if (LocalServer.programs().isEmpty()) {
      throw new SkipException("this system has no PostgreSQL server: not tried against one");
    }
    if (server == null) {
      Path folder = Files.createTempDirectory("ell-server");
      System.setProperty("ell.state", Files.createTempDirectory("ell-state").toString());
      server = LocalServer.start(folder, 0, false);
      LocalServer s = server;
      Runtime.getRuntime()
          .addShutdownHook(
              new Thread(() -> {
                try {
                  s.stop("immediate");
                } catch (BookException e) {
                  // it ends with the machine
                }
              }));
    }
    return server;
  }

  /// A place for a workspace that is not there yet.
  static Place.OnServer place(String bench) throws IOException {
    return place("t" + NAMES.incrementAndGet() + "_" + ProcessHandle.current().pid(), bench);
  }

  static Place.OnServer place(String database, String bench) throws IOException {
    return (Place.OnServer) Place.of(get().address(database) + "?bench=" + bench);
  }

  static Place.OnServer as(Place.OnServer p, String user, String bench) throws IOException {
    return (Place.OnServer)
        Place.of(
            "postgresql://"
                + user
                + "@127.0.0.1:"
                + p.port()
                + "/"
                + p.database()
                + "?bench="
                + bench);
  }
}
