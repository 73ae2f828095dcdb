package ell.book;

import java.io.IOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.HexFormat;
import java.util.Locale;

/// What a bench calls itself, and where it keeps what is its own of a workspace on a server: what
/// it has seen, what it wrote while the server did not answer, captures that are being taken. Only
/// who runs the program can read it.
public final class BenchFolder {
  private static final int SHORT = 12;

  private BenchFolder() {}

  /// The name of this bench: as the address says, or the environment (`ELL_BENCH`), or the
  /// machine's.
  public static String bench(Place.OnServer server) {
    String said = server.said().getOrDefault("bench", System.getenv("ELL_BENCH"));
    if (said != null && !said.isBlank()) {
      return said.strip();
    }
    try {
      return InetAddress.getLocalHost().getHostName();
    } catch (UnknownHostException e) {
      return "bench";
    }
  }

  /// The folder, made when it is not there.
  static Path of(Place.OnServer server) {
    String key = server + "?" + bench(server);
    String hash =
        HexFormat.of()
            .formatHex(SealStore.sha256().digest(key.getBytes(StandardCharsets.UTF_8)))
            .substring(0, SHORT);
    String plain =
        (server.database() + "-" + bench(server))
            .toLowerCase(Locale.ROOT)
            .replaceAll("[^a-z0-9-]", "-");
    Path folder = home().resolve(plain + "-" + hash);
    try {
      if (!Files.isDirectory(folder)) {
        Files.createDirectories(folder);
      }
      Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwx------"));
    } catch (UnsupportedOperationException | IOException e) {
      // who cannot make it hears so when something is put in
    }
    return folder;
  }

  /// Where Ell keeps what is of whoever runs it, and of no workspace: the system property
  /// `ell.state`, `ELL_STATE`, or the folder that the system has for such things.
  public static Path home() {
    String own = System.getProperty("ell.state", System.getenv("ELL_STATE"));
    if (own != null && !own.isBlank()) {
      return Path.of(own);
    }
    String state = System.getenv("XDG_STATE_HOME");
    return state == null || state.isBlank()
        ? Path.of(System.getProperty("user.home"), ".local", "state", "ell")
        : Path.of(state, "ell");
  }
}
