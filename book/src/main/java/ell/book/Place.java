package ell.book;

import java.net.URI;
import java.net.URISyntaxException;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Where a workspace is: in a file, or on a server that several benches share.
public sealed interface Place {
  /// How the address of a server begins.
  String SCHEME = "postgresql:";

  /// A file.
  record OfFile(Path path) implements Place {
    @Override
    public String toString() {
      return path.toString();
    }
  }

  /// A database on a server; each holds one workspace.
  ///
  /// @param user empty for whoever runs the program
  /// @param said what the address says besides: `bench`, and how the connection is made safe
  record OnServer(String host, int port, String database, String user, Map<String, String> said)
      implements Place {
    static final int PORT = 5432;

    public OnServer {
      said = Map.copyOf(said);
    }

    /// The address with everything that it says, to be typed again.
    public String whole() {
      return said.isEmpty()
          ? toString()
          : this
              + "?"
              + String.join(
                  "&",
                  said.entrySet().stream()
                      .sorted(Map.Entry.comparingByKey())
                      .map(e ->
                          e.getKey()
                              + "="
                              + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
                      .toList());
    }

    /// The address as it is typed, without what it says besides.
    @Override
    public String toString() {
      return "postgresql://"
          + (user.isEmpty() ? "" : user + "@")
          + (host.contains(":") ? "[" + host + "]" : host)
          + (port == PORT ? "" : ":" + port)
          + "/"
          + database;
    }
  }

  /// What can stand behind the question mark of an address.
  Set<String> SAID = Set.of("bench", "sslmode", "sslrootcert", "sslcert", "sslkey");

  /// A place as it is typed.
  ///
  /// @throws BookException when it is the address of a server and something of it is wrong
  static Place of(String typed) throws BookException {
    if (!typed.startsWith(SCHEME)) {
      try {
        return new OfFile(Path.of(typed));
      } catch (InvalidPathException e) {
        throw new BookException("'" + typed + "' can be no file: " + e.getReason(), e);
      }
    }
    String form = "; expected postgresql://[USER@]HOST[:PORT]/DATABASE";
    try {
      URI u = new URI(typed);
      String path = u.getPath() == null ? "" : u.getPath();
      if (u.getHost() == null || path.length() < 2 || path.indexOf('/', 1) >= 0) {
        throw new BookException("the address '" + withoutSecret(typed) + "' is not whole" + form);
      }
      String user = u.getUserInfo() == null ? "" : u.getUserInfo();
      if (user.contains(":")) {
        throw new BookException(
            "an address holds no password, others could read it; put it into ELL_PASSWORD, or into"
                + " the password file of the database's own clients, readable by you alone");
      }
      String host = u.getHost().replaceAll("^\\[|\\]$", "");
      int port = u.getPort() < 0 ? OnServer.PORT : u.getPort();
      return new OnServer(host, port, path.substring(1), user, said(u.getRawQuery()));
    } catch (URISyntaxException e) {
      throw new BookException(
          "the address '" + withoutSecret(typed) + "' cannot be read: " + e.getReason() + form, e);
    }
  }

  private static String withoutSecret(String typed) {
    return typed.replaceFirst("//([^:@/]*):[^@/]*@", "//$1@");
  }

  private static Map<String, String> said(String query) throws BookException {
    Map<String, String> all = new LinkedHashMap<>();
    if (query == null || query.isEmpty()) {
      return all;
    }
    for (String one : query.split("&")) {
      int is = one.indexOf('=');
      String name = is < 0 ? one : one.substring(0, is);
      if (is < 0 || !SAID.contains(name)) {
        throw new BookException(
            "an address can say "
                + String.join(", ", SAID.stream().sorted().toList())
                + ", not '"
                + name
                + "'");
      }
      all.put(name, URLDecoder.decode(one.substring(is + 1), StandardCharsets.UTF_8));
    }
    return all;
  }

  /// The file, empty when it is none.
  default Optional<Path> file() {
    return this instanceof OfFile f ? Optional.of(f.path()) : Optional.empty();
  }

  /// The file, for what can only be done with one.
  ///
  /// @throws BookException when it is none
  default Path fileOnly() throws BookException {
    return file()
        .orElseThrow(() ->
            new BookException(
                "this is done with a workspace file, and " + this + " is on a server; see: move"));
  }

  /// The whole of it, to be typed again.
  default String typed() {
    return switch (this) {
      case OfFile f -> f.path().toAbsolutePath().toString();
      case OnServer s -> s.whole();
    };
  }

  /// The last word of it, for a title.
  default String shortName() {
    return switch (this) {
      case OfFile f -> String.valueOf(f.path().getFileName());
      case OnServer s -> s.database() + " at " + s.host();
    };
  }
}
