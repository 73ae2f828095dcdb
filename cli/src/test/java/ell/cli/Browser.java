package ell.cli;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.node.ObjectNode;

/// A real browser without a screen, worked through the protocol that browsers offer to tools.
final class Browser implements AutoCloseable {
  private static final ObjectMapper JSON = new ObjectMapper();

  private final Process process;
  private final Path profile;
  private final HttpClient http;
  private final WebSocket socket;
  private final AtomicInteger numbers = new AtomicInteger();
  private final Map<Integer, CompletableFuture<JsonNode>> asked = new ConcurrentHashMap<>();

  private Browser(Process process, Path profile, HttpClient http, URI page) {
    this.process = process;
    this.profile = profile;
    this.http = http;
    this.socket = http.newWebSocketBuilder().buildAsync(page, new Ear()).join();
  }

  /// Where the system has one.
  static Optional<Path> found() {
    return Stream.of(System.getenv("PATH").split(":"))
        .map(d -> Path.of(d, "chromium"))
        .filter(Files::isExecutable)
        .findFirst();
  }

  /// Starts one with a window of a size.
  static Browser start(Path program, int width, int height) throws Exception {
    Path profile = Files.createTempDirectory("browser");
    List<String> command =
        new ArrayList<>(
            List.of(
                program.toString(),
                "--headless",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--remote-debugging-port=0",
                "--window-size=" + width + "," + height,
                "--user-data-dir=" + profile,
                "about:blank"));
    Process p =
        new ProcessBuilder(command)
            .redirectErrorStream(true)
            .redirectOutput(profile.resolve("browser.log").toFile())
            .start();
    Path port = profile.resolve("DevToolsActivePort");
    HttpClient http = HttpClient.newHttpClient();
    long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
    while (System.nanoTime() - end < 0 && p.isAlive()) {
      if (Files.exists(port) && Files.readAllLines(port).size() >= 2) {
        URI list = URI.create("http://127.0.0.1:" + Files.readAllLines(port).getFirst() + "/json");
        String said =
            http.send(
                    java.net.http.HttpRequest.newBuilder(list).build(),
                    java.net.http.HttpResponse.BodyHandlers.ofString())
                .body();
        for (JsonNode t : JSON.readTree(said)) {
          if (t.get("type").stringValue().equals("page")) {
            return new Browser(
                p, profile, http, URI.create(t.get("webSocketDebuggerUrl").stringValue()));
          }
        }
      }
      Thread.sleep(50);
    }
    p.destroyForcibly();
    throw new IOException(
        "the browser did not start: " + Files.readString(profile.resolve("browser.log")));
  }

  private JsonNode ask(String method, ObjectNode params) throws Exception {
    int n = numbers.incrementAndGet();
    CompletableFuture<JsonNode> answer = new CompletableFuture<>();
    asked.put(n, answer);
    ObjectNode o = JSON.createObjectNode().put("id", n).put("method", method);
    o.set("params", params);
    socket.sendText(o.toString(), true).join();
    return answer.get(30, TimeUnit.SECONDS);
  }

  void go(URI to) throws Exception {
    ask("Page.navigate", JSON.createObjectNode().put("url", to.toString()));
  }

  /// What an expression of the page comes to, as text.
  String says(String expression) throws Exception {
    JsonNode r =
        ask(
            "Runtime.evaluate",
            JSON.createObjectNode()
                .put("expression", "String(" + expression + ")")
                .put("awaitPromise", true));
    return r.path("result").path("result").path("value").asString("");
  }

  /// Waits until an expression of the page is true.
  void until(String expression) throws Exception {
    long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
    while (!says("Boolean(" + expression + ")").equals("true")) {
      if (System.nanoTime() - end > 0) {
        throw new AssertionError(
            "not so after 30 s: "
                + expression
                + "; the page says "
                + says("document.body.innerText"));
      }
      Thread.sleep(50);
    }
  }

  /// Presses keys as a person would, into what has the focus.
  void type(String text) throws Exception {
    ask("Input.insertText", JSON.createObjectNode().put("text", text));
  }

  /// The page as a picture.
  void picture(Path to) throws Exception {
    JsonNode r = ask("Page.captureScreenshot", JSON.createObjectNode().put("format", "png"));
    Files.write(to, Base64.getDecoder().decode(r.path("result").path("data").stringValue()));
  }

  @Override
  public void close() throws Exception {
    socket.abort();
    http.close();
    process.descendants().forEach(ProcessHandle::destroyForcibly);
    process.destroyForcibly().waitFor();
    try (Stream<Path> all = Files.walk(profile)) {
      all.sorted(java.util.Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
    }
  }

  private final class Ear implements WebSocket.Listener {
    private final StringBuilder heard = new StringBuilder();

    @Override
    public CompletionStage<?> onText(WebSocket s, CharSequence data, boolean last) {
      heard.append(data);
      if (last) {
        JsonNode n = JSON.readTree(heard.toString());
        heard.setLength(0);
        CompletableFuture<JsonNode> f = asked.remove(n.path("id").asInt(-1));
        if (f != null) {
          f.complete(n);
        }
      }
      s.request(1);
      return null;
    }
  }
}
