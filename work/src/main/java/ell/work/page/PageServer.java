package ell.work.page;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import ell.book.BookException;
import ell.book.Place;
import ell.work.space.ActException;
import ell.work.word.Language;
import ell.work.word.Words;
import java.io.IOException;
import java.io.InputStream;
import java.net.BindException;
import java.net.Inet4Address;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.URI;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/// Serves a workspace on one address of this machine to whoever types the code, to be looked at
/// only: it takes nothing but the code, and holds the workspace open for reading alone.
public final class PageServer implements AutoCloseable {
  private static final String COOKIE = "ell";

  /// What is read of a code that somebody sends.
  private static final int MOST_TYPED = 200;

  private static final Map<String, String> FACES =
      Map.of("/face/words.otf", "B612-Regular.otf", "/face/bold.otf", "B612-Bold.otf");

  private final Looked looked;
  private final Optional<String> only;
  private final Code code = new Code(System::nanoTime);
  private final Map<Language, Words> tongues = new ConcurrentHashMap<>();
  private final HttpServer server;

  /// A phone that is slow to ask or to hear holds up nobody else; pages are made one at a time.
  private final ExecutorService each = Executors.newVirtualThreadPerTaskExecutor();

  private PageServer(Looked looked, Optional<String> only, HttpServer server) {
    this.looked = looked;
    this.only = only;
    this.server = server;
    server.createContext("/", this::answer);
    server.setExecutor(each);
  }

  /// Opens a workspace for reading and begins to listen.
  ///
  /// @param at `ADDRESS:PORT`, port 0 for any that is free; the address must be one of this machine
  /// @param only the board that is shown; all of them when empty
  /// @throws ActException when the address is none of this machine's, or its port is taken
  public static PageServer begin(Place place, String at, Optional<String> only)
      throws IOException, ActException {
    InetSocketAddress where = address(at);
    Looked looked = new Looked(place);
    try {
      if (only.isPresent()) {
        looked.now().buildOf(only.get());
      }
      PageServer s = new PageServer(looked, only, HttpServer.create(where, 0));
      s.server.start();
      return s;
    } catch (BindException e) {
      looked.close();
      throw new ActException("nothing can listen at " + at + ": " + e.getMessage(), e);
    } catch (IOException | ActException | RuntimeException e) {
      looked.close();
      throw e;
    }
  }

  private static InetSocketAddress address(String at) throws ActException {
    int colon = at.lastIndexOf(':');
    try {
      if (colon < 1) {
        throw new ActException(
            "expected ADDRESS:PORT such as 127.0.0.1:8420, found '" + at + "'" + mine());
      }
      int port = Integer.parseInt(at.substring(colon + 1));
      if (port < 0 || port > 65_535) {
        throw new ActException("a port is in 0...65535, found '" + at.substring(colon + 1) + "'");
      }
      InetAddress a = InetAddress.getByName(at.substring(0, colon));
      if (a.isAnyLocalAddress()) {
        throw new ActException(
            at.substring(0, colon) + " is every address of this machine; name one" + mine());
      }
      if (NetworkInterface.getByInetAddress(a) == null) {
        throw new ActException(at.substring(0, colon) + " is no address of this machine" + mine());
      }
      return new InetSocketAddress(a, port);
    } catch (NumberFormatException e) {
      throw new ActException("expected a port behind the colon, found '" + at + "'", e);
    } catch (IOException e) {
      throw new ActException(
          "'" + at.substring(0, colon) + "' is no address that can be reached" + mine(), e);
    }
  }

  /// What this machine could be reached by, the way to itself last.
  public static List<String> addresses() {
    try {
      List<String> all =
          NetworkInterface.networkInterfaces()
              .flatMap(NetworkInterface::inetAddresses)
              .filter(a -> a instanceof Inet4Address)
              .sorted(Comparator.comparing(InetAddress::isLoopbackAddress))
              .map(InetAddress::getHostAddress)
              .toList();
      return all;
    } catch (IOException e) {
      return List.of();
    }
  }

  private static String mine() {
    List<String> all = addresses();
    return all.isEmpty() ? "" : "; this machine has " + String.join(", ", all);
  }

  /// Where a browser finds it.
  public URI where() {
    InetSocketAddress a = server.getAddress();
    // of eight groups the first zeros that stand together go without saying
    String host = a.getAddress().getHostAddress().replaceFirst("(^|:)0(:0)+(:|$)", "::");
    return URI.create(
        "http://" + (host.contains(":") ? "[" + host + "]" : host) + ":" + a.getPort() + "/");
  }

  /// The code that is read off and typed on the phone.
  public String code() {
    return code.read();
  }

  private void answer(HttpExchange x) throws IOException {
    try (x) {
      String path = x.getRequestURI().getPath();
      x.getResponseHeaders().set("X-Content-Type-Options", "nosniff");
      x.getResponseHeaders().set("Referrer-Policy", "no-referrer");
      x.getResponseHeaders()
          .set("Content-Security-Policy", "default-src 'self'; frame-ancestors 'none'");
      String method = x.getRequestMethod();
      if (method.equals("POST") && path.equals("/code")) {
        typed(x);
      } else if (!method.equals("GET") && !method.equals("HEAD")) {
        x.getResponseHeaders().set("Allow", "GET, HEAD");
        send(x, 405, Shell.saying(words(x), "This can only be looked at."));
      } else if (FACES.containsKey(path)) {
        try (InputStream in =
            PageServer.class.getResourceAsStream("/ell/files/font/" + FACES.get(path))) {
          send(x, 200, "font/otf", in.readAllBytes());
        }
      } else if (Shell.FILES.containsKey(path)) {
        send(x, 200, Shell.FILES.get(path), Shell.file(path));
      } else if (!let(x)) {
        send(x, path.equals("/now") ? 401 : 200, Shell.asking(words(x), ""));
      } else {
        shown(x, path);
      }
    }
  }

  /// The words of the language that the browser asks for first of those there are.
  private Words words(HttpExchange x) {
    String asked = x.getRequestHeaders().getFirst("Accept-Language");
    Language l = Language.ENGLISH;
    if (asked != null) {
      try {
        l =
            Locale.LanguageRange.parse(asked).stream()
                .map(r -> Language.of(r.getRange().split("-")[0]))
                .flatMap(Optional::stream)
                .findFirst()
                .orElse(l);
      } catch (IllegalArgumentException e) {
        // a browser that asks for no language in particular
      }
    }
    return tongues.computeIfAbsent(l, Words::in);
  }

  /// Whether who asks has typed the code before.
  private boolean let(HttpExchange x) {
    for (String line : x.getRequestHeaders().getOrDefault("Cookie", List.of())) {
      for (String c : line.split(";")) {
        String[] parts = c.strip().split("=", 2);
        if (parts.length == 2 && parts[0].equals(COOKIE) && code.knows(parts[1])) {
          return true;
        }
      }
    }
    return false;
  }

  private void typed(HttpExchange x) throws IOException {
    String body = new String(x.getRequestBody().readNBytes(MOST_TYPED), StandardCharsets.UTF_8);
    String said = body.startsWith("code=") ? body.substring(5) : "";
    try {
      said = URLDecoder.decode(said, StandardCharsets.UTF_8);
    } catch (IllegalArgumentException e) {
      said = "";
    }
    switch (code.tried(said)) {
      case RIGHT -> {
        x.getResponseHeaders()
            .set("Set-Cookie", COOKIE + "=" + code.token() + "; HttpOnly; SameSite=Strict; Path=/");
        x.getResponseHeaders().set("Location", "/");
        x.sendResponseHeaders(303, -1);
      }
      case WRONG -> send(x, 403, Shell.asking(words(x), "This is not the code that is shown now."));
      case WAIT ->
          send(
              x,
              429,
              Shell.asking(
                  words(x), "Too many wrong codes: nobody is let in for " + Code.WAIT + " s."));
    }
  }

  /// What is answered: a page, or the way to another.
  private record Answer(int status, String page, Optional<String> elsewhere) {
    static Answer page(int status, String page) {
      return new Answer(status, page, Optional.empty());
    }
  }

  private void shown(HttpExchange x, String path) throws IOException {
    Answer a;
    synchronized (looked) {
      a = answer(path, words(x));
    }
    if (a.elsewhere().isPresent()) {
      x.getResponseHeaders().set("Location", a.elsewhere().get());
      x.sendResponseHeaders(a.status(), -1);
    } else {
      send(x, a.status(), a.page());
    }
  }

  private Answer answer(String path, Words words) {
    try {
      // taken before the page is made: a page may be newer than it says, never older
      String stamp = looked.stamp();
      if (path.equals("/now")) {
        return Answer.page(200, stamp);
      }
      BoardPages pages = new BoardPages(looked.now(), words);
      if (path.equals("/")) {
        return only.isPresent()
            ? new Answer(303, "", Optional.of(BoardPages.way(only.get(), "")))
            : Answer.page(200, Shell.page(words, "Boards", pages.boards(), stamp));
      }
      return board(path.split("/"), pages, words, stamp);
    } catch (ActException e) {
      return Answer.page(404, Shell.saying(words, e.getMessage()));
    } catch (IOException | RuntimeException e) {
      return Answer.page(503, Shell.saying(words, "this cannot be shown: " + e.getMessage()));
    }
  }

  private Answer board(String[] parts, BoardPages pages, Words words, String stamp)
      throws IOException, ActException {
    if (parts.length < 3 || parts.length > 4 || !parts[1].equals("board")) {
      return Answer.page(404, Shell.saying(words, "There is no such page."));
    }
    String serial = parts[2];
    if (only.isPresent() && !only.get().equals(serial)) {
      return Answer.page(403, Shell.saying(words, "Only one board is shared here."));
    }
    String body =
        switch (parts.length == 3 ? "" : parts[3]) {
          case "" -> pages.step(serial);
          case "beep" -> pages.beep(serial);
          case "record" -> pages.record(serial);
          default -> throw new ActException("There is no such page.");
        };
    Html back = new Html(words);
    if (only.isEmpty()) {
      back.open("p", "back").link("/", "", "all boards").close("p");
    }
    return Answer.page(200, Shell.page(words, "Board " + serial, back + body, stamp));
  }

  private static void send(HttpExchange x, int status, String page) throws IOException {
    send(x, status, "text/html; charset=utf-8", page.getBytes(StandardCharsets.UTF_8));
  }

  private static void send(HttpExchange x, int status, String kind, byte[] body)
      throws IOException {
    x.getResponseHeaders().set("Content-Type", kind);
    x.getResponseHeaders()
        .set("Cache-Control", kind.startsWith("font") ? "max-age=86400" : "no-store");
    boolean head = x.getRequestMethod().equals("HEAD");
    x.sendResponseHeaders(status, head ? -1 : body.length);
    if (!head) {
      x.getResponseBody().write(body);
    }
  }

  /// Listens no more.
  @Override
  public void close() throws BookException {
    server.stop(0);
    each.shutdownNow();
    looked.close();
  }
}
