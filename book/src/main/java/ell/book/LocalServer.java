package ell.book;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.nio.file.attribute.UserPrincipal;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/// A database server of this machine's own system, in a folder, that listens on this machine alone:
/// for two programs at one bench, and for trying what several benches do. What more benches need is
/// a server that somebody looks after.
public final class LocalServer implements AutoCloseable {
  /// Who owns what is made on it.
  public static final String OWNER = "owner";

  private static final Path DEBIAN = Path.of("/usr/lib/postgresql");
  private static final List<String> OTHERS =
      List.of("/usr/local/bin", "/usr/bin", "/opt/homebrew/bin", "/usr/local/pgsql/bin");
  private static final String SYSTEM_USER = "postgres";
  private static final int SECONDS = 60;
  private static final int PASSWORD_BYTES = 18;

  private final Path bin;
  private final Path folder;
  private final int port;

  private LocalServer(Path bin, Path folder, int port) {
    this.bin = bin;
    this.folder = folder;
    this.port = port;
  }

  /// Where the programs of a server are, the newest where there are several; empty when this system
  /// has none.
  public static Optional<Path> programs() {
    List<Path> found = new ArrayList<>();
    if (Files.isDirectory(DEBIAN)) {
      try (Stream<Path> s = Files.list(DEBIAN)) {
        s.sorted(Comparator.comparingInt(LocalServer::version).reversed())
            .map(v -> v.resolve("bin"))
            .forEach(found::add);
      } catch (IOException e) {
        // it may be elsewhere
      }
    }
    OTHERS.forEach(o -> found.add(Path.of(o)));
    return found.stream()
        .filter(b -> Files.isExecutable(b.resolve("initdb")))
        .filter(b -> Files.isExecutable(b.resolve("pg_ctl")))
        .findFirst();
  }

  private static int version(Path p) {
    try {
      return Integer.parseInt(p.getFileName().toString());
    } catch (NumberFormatException e) {
      return 0;
    }
  }

  /// Starts the server of a folder, making it when it is new.
  ///
  /// @param port 0 for any that is free
  /// @param password whether who comes is asked for one; without, everybody on this machine may
  ///   come
  /// @throws BookException when the system has no server, or it does not start, saying why
  public static LocalServer start(Path folder, int port, boolean password) throws BookException {
    Path bin =
        programs()
            .orElseThrow(() ->
                new BookException(
                    "no database server was found on this system; its package is often named"
                        + " postgresql"));
    try {
      Files.createDirectories(folder);
      LocalServer s = new LocalServer(bin, folder.toAbsolutePath(), port == 0 ? free() : port);
      s.mine();
      if (!Files.exists(s.data().resolve("PG_VERSION"))) {
        s.make(password);
      }
      s.start();
      return s;
    } catch (IOException e) {
      throw e instanceof BookException b
          ? b
          : new BookException("no server can be started in " + folder + ": " + e.getMessage(), e);
    }
  }

  private static int free() throws IOException {
    try (ServerSocket s = new ServerSocket(0)) {
      return s.getLocalPort();
    }
  }

  private Path data() {
    return folder.resolve("data");
  }

  /// The server refuses to run as root: there it runs as the system's own user for it.
  private static boolean root() {
    return System.getProperty("user.name").equals("root");
  }

  private void mine() throws IOException {
    if (root()) {
      UserPrincipal who =
          folder.getFileSystem().getUserPrincipalLookupService().lookupPrincipalByName(SYSTEM_USER);
      Files.setOwner(folder, who);
    }
  }

  private void make(boolean password) throws IOException {
    List<String> how =
        new ArrayList<>(
            List.of(
                "-D",
                data().toString(),
                "-U",
                OWNER,
                "-E",
                "UTF8",
                "--locale=C",
                "--no-instructions"));
    if (password) {
      byte[] chance = new byte[PASSWORD_BYTES];
      new SecureRandom().nextBytes(chance);
      Path file = passwordFile();
      Files.deleteIfExists(file);
      Files.createFile(
          file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
      Files.writeString(
          file, Base64.getUrlEncoder().withoutPadding().encodeToString(chance) + "\n");
      if (root()) {
        Files.setOwner(file, Files.getOwner(folder));
      }
      how.addAll(List.of("--auth=scram-sha-256", "--pwfile", file.toString()));
    } else {
      how.add("--auth=trust");
    }
    run("initdb", how);
  }

  /// The file that holds the owner's password, readable by who runs the server alone.
  public Path passwordFile() {
    return folder.resolve("password");
  }

  private void start() throws IOException {
    run(
        "pg_ctl",
        List.of(
            "-D",
            data().toString(),
            "-l",
            folder.resolve("log").toString(),
            "-w",
            "-t",
            String.valueOf(SECONDS),
            "-o",
            "-p "
                + port
                + " -c listen_addresses=127.0.0.1 -c unix_socket_directories='"
                + folder
                + "'",
            "start"));
  }

  /// Starts it again after it was stopped or killed.
  public void again() throws BookException {
    try {
      start();
    } catch (IOException e) {
      throw e instanceof BookException b
          ? b
          : new BookException("the server does not start: " + e.getMessage(), e);
    }
  }

  private void run(String program, List<String> how) throws IOException {
    List<String> command = new ArrayList<>();
    if (root()) {
      command.addAll(
          List.of("setpriv", "--reuid=" + SYSTEM_USER, "--regid=" + SYSTEM_USER, "--clear-groups"));
    }
    command.add(bin.resolve(program).toString());
    command.addAll(how);
    Path said = Files.createTempFile("ell-server", ".log");
    try {
      ProcessBuilder b = new ProcessBuilder(command);
      b.environment().put("LC_ALL", "C");
      Process p =
          b.directory(folder.toFile())
              .redirectErrorStream(true)
              .redirectOutput(said.toFile())
              .redirectInput(ProcessBuilder.Redirect.from(new java.io.File("/dev/null")))
              .start();
      if (!p.waitFor(2L * SECONDS, TimeUnit.SECONDS) || p.exitValue() != 0) {
        p.destroyForcibly();
        throw new BookException(
            program + " did not do it: " + Files.readString(said).strip() + log());
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new BookException("starting the server was given up", e);
    } finally {
      Files.deleteIfExists(said);
    }
  }

  private String log() {
    try {
      List<String> lines = Files.readAllLines(folder.resolve("log"));
      return "\n" + String.join("\n", lines.subList(Math.max(0, lines.size() - 5), lines.size()));
    } catch (IOException e) {
      return "";
    }
  }

  /// Whether it runs, as far as its folder tells.
  public boolean runs() {
    return Files.exists(data().resolve("postmaster.pid"));
  }

  /// The port that it listens on.
  public int port() {
    return port;
  }

  /// The address of a workspace on it.
  public String address(String database) {
    return "postgresql://" + OWNER + "@127.0.0.1:" + port + "/" + database;
  }

  /// Stops it.
  ///
  /// @param how `fast` lets nobody finish, `immediate` is as if it were killed
  public void stop(String how) throws BookException {
    try {
      run("pg_ctl", List.of("-D", data().toString(), "-m", how, "-w", "stop"));
    } catch (IOException e) {
      throw e instanceof BookException b
          ? b
          : new BookException("the server does not stop: " + e.getMessage(), e);
    }
  }

  @Override
  public void close() throws BookException {
    stop("fast");
  }
}
