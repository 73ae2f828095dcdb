package ell.cli;

import static java.nio.charset.StandardCharsets.US_ASCII;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.book.Place;
import ell.work.page.PageServer;
import ell.work.space.ActException;
import java.net.ConnectException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.SkipException;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Boards on a phone: who is let in, what is shown, that nothing can be written, and that the pages
/// say what the other doors say.
public class ShareTest {
  private Path folder;
  private String ws;

  @BeforeClass
  public void demo() throws Exception {
    System.setProperty("ell.demo", "../fixtures/marram");
    folder = Files.createTempDirectory("share");
    ws = folder.resolve("bench.ell").toString();
    assertEquals(MainTest.ell("demo-workspace", ws).code(), 0);
  }

  private PageServer begin(Optional<String> board) throws Exception {
    return PageServer.begin(Place.of(ws), "127.0.0.1:0", board);
  }

  static HttpResponse<String> get(HttpClient c, URI at, String cookie) throws Exception {
    HttpRequest.Builder r = HttpRequest.newBuilder(at);
    if (!cookie.isEmpty()) {
      r.header("Cookie", cookie);
    }
    return c.send(r.build(), HttpResponse.BodyHandlers.ofString());
  }

  private static HttpResponse<String> typed(HttpClient c, PageServer s, String code)
      throws Exception {
    return c.send(
        HttpRequest.newBuilder(s.where().resolve("/code"))
            .POST(HttpRequest.BodyPublishers.ofString("code=" + code.replace(" ", "+")))
            .build(),
        HttpResponse.BodyHandlers.ofString());
  }

  static String in(HttpClient c, PageServer s) throws Exception {
    HttpResponse<String> r = typed(c, s, s.code());
    assertEquals(r.statusCode(), 303, r.body());
    return r.headers().firstValue("Set-Cookie").orElseThrow().split(";")[0];
  }

  @Test
  public void nobodyIsLetInWithoutTheCode() throws Exception {
    try (HttpClient c = HttpClient.newHttpClient();
        PageServer s = begin(Optional.empty())) {
      for (String p : List.of("/", "/board/07", "/board/07/record", "/board/07/beep")) {
        HttpResponse<String> r = get(c, s.where().resolve(p), "");
        assertTrue(r.body().contains("Which code"), r.body());
        assertFalse(r.body().contains("MG-1"), "a board is shown to nobody");
      }
      assertEquals(get(c, s.where().resolve("/now"), "").statusCode(), 401);
      assertEquals(get(c, s.where().resolve("/now"), "ell=guessed").statusCode(), 401);
      String wrong = s.code().startsWith("0") ? "100000" : "000000";
      for (int i = 0; i < 5; i++) {
        assertEquals(typed(c, s, wrong).statusCode(), 403);
      }
      // from here on even the right one has to wait
      HttpResponse<String> late = typed(c, s, s.code());
      assertEquals(late.statusCode(), 429);
      assertTrue(late.body().contains("60 s"), late.body());
    }
  }

  @Test
  public void onlyLookedAtAndNothingWritten() throws Exception {
    byte[] before = Files.readAllBytes(Path.of(ws));
    try (HttpClient c = HttpClient.newHttpClient();
        PageServer s = begin(Optional.empty())) {
      String cookie = in(c, s);
      for (String method : List.of("POST", "PUT", "DELETE", "PATCH")) {
        HttpResponse<String> r =
            c.send(
                HttpRequest.newBuilder(s.where().resolve("/board/07"))
                    .header("Cookie", cookie)
                    .method(method, HttpRequest.BodyPublishers.ofString("note 07 hello"))
                    .build(),
                HttpResponse.BodyHandlers.ofString());
        assertEquals(r.statusCode(), 405, method);
      }
      HttpResponse<String> all = get(c, s.where(), cookie);
      assertEquals(all.statusCode(), 200);
      assertTrue(all.headers().firstValue("Cache-Control").orElse("").contains("no-store"));
      for (String odd :
          List.of("/board/99", "/board/07/else", "/board", "/../etc/passwd", "/board/%3Cb%3E")) {
        HttpResponse<String> r = get(c, s.where().resolve(odd), cookie);
        assertEquals(r.statusCode(), 404, odd);
        assertFalse(r.body().contains("<b>"), "what was asked is not markup");
      }
    }
    assertEquals(hash(Files.readAllBytes(Path.of(ws))), hash(before));
  }

  private static String hash(byte[] b) throws Exception {
    return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(b));
  }

  @Test
  public void thePagesSayWhatTheOtherDoorsSay() throws Exception {
    try (HttpClient c = HttpClient.newHttpClient();
        PageServer s = begin(Optional.empty())) {
      String cookie = in(c, s);
      String all = get(c, s.where(), cookie).body();
      for (JsonNode b : MainTest.ell("show", ws, "--json").json().get("boards")) {
        assertTrue(all.contains(">" + b.get("board").stringValue() + "<"), all);
        assertTrue(all.contains(escaped(b.get("state").stringValue())), b.toString());
      }
      String beep = get(c, s.where().resolve("/board/04/beep"), cookie).body();
      JsonNode checks = MainTest.ell("beep", ws, "--board", "04", "--json").json().get("checks");
      assertTrue(beep.contains(" of " + checks.size() + " checks made"), "as many checks");
      assertTrue(beep.contains("× out"), "the bridge is shown as mark and word");
      Path record = folder.resolve("r.json");
      assertEquals(
          MainTest.ell("report", ws, "--board", "07", "--out", record.toString()).code(), 0);
      String page = get(c, s.where().resolve("/board/07/record"), cookie).body();
      JsonNode r = new tools.jackson.databind.ObjectMapper().readTree(Files.readString(record));
      assertTrue(page.contains(r.get("seal").stringValue()), "the same seal");
    }
  }

  private static String escaped(String s) {
    return s.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
  }

  /// What somebody logged is words on the page, whatever it looks like.
  @Test
  public void wordsStayWords() throws Exception {
    String own = folder.resolve("words.ell").toString();
    assertEquals(MainTest.ell("demo-workspace", own).code(), 0);
    assertEquals(
        MainTest.ell("log", own, "--board", "07", "note <script>alert(1)</script> & \"so\"").code(),
        0);
    try (HttpClient c = HttpClient.newHttpClient();
        PageServer s = PageServer.begin(Place.of(own), "127.0.0.1:0", Optional.of("07"))) {
      String cookie = in(c, s);
      String page = get(c, s.where().resolve("/board/07/record"), cookie).body();
      assertFalse(page.contains("<script>alert"), "markup in a note");
      assertTrue(page.contains("&lt;script&gt;alert(1)&lt;/script&gt; &amp;"), "the note is there");
      // one board only
      assertEquals(get(c, s.where().resolve("/board/08"), cookie).statusCode(), 403);
      assertEquals(
          get(c, s.where(), cookie).headers().firstValue("Location").orElse(""), "/board/07");
    }
  }

  /// A phone that begins to send and does not go on holds up nobody.
  @Test(timeOut = 60_000)
  public void aSlowPhoneHoldsUpNobody() throws Exception {
    try (HttpClient c = HttpClient.newHttpClient();
        PageServer s = begin(Optional.empty());
        Socket slow = new Socket("127.0.0.1", s.where().getPort())) {
      slow.getOutputStream()
          .write(
              "POST /code HTTP/1.1\r\nHost: x\r\nContent-Length: 100\r\n\r\nco".getBytes(US_ASCII));
      slow.getOutputStream().flush();
      String cookie = in(c, s);
      assertEquals(get(c, s.where(), cookie).statusCode(), 200);
    }
  }

  /// In the language that the browser asks for; what is asked for in another is English.
  @Test
  public void inTheLanguageOfThePhone() throws Exception {
    try (HttpClient c = HttpClient.newHttpClient();
        PageServer s = begin(Optional.empty())) {
      String cookie = in(c, s);
      for (Map.Entry<String, String> e :
          Map.of(
                  "de-CH,de;q=0.9,en;q=0.5", "Platinen",
                  "ja,fr;q=0.7", "Cartes",
                  "es", "Placas",
                  "ja", "Boards",
                  "*;;;", "Boards")
              .entrySet()) {
        String page =
            c.send(
                    HttpRequest.newBuilder(s.where())
                        .header("Cookie", cookie)
                        .header("Accept-Language", e.getKey())
                        .build(),
                    HttpResponse.BodyHandlers.ofString())
                .body();
        assertTrue(page.contains("<h1>" + e.getValue() + "</h1>"), e.getKey());
      }
    }
  }

  /// An address of IPv6 is written as one types it (RFC 5952, 4.2), where this machine has it.
  @Test
  public void aLongAddressIsWrittenShort() throws Exception {
    if (java.net.NetworkInterface.getByInetAddress(java.net.InetAddress.getByName("::1")) == null) {
      throw new org.testng.SkipException("this machine has no IPv6");
    }
    try (PageServer s = PageServer.begin(Place.of(ws), "[::1]:0", Optional.empty())) {
      assertTrue(s.where().toString().startsWith("http://[::1]:"), s.where().toString());
    }
  }

  @Test
  public void whatCannotBeListenedAtIsTold() throws Exception {
    for (Map.Entry<String, String> e :
        Map.of(
                "8420", "ADDRESS:PORT",
                "127.0.0.1:http", "port",
                "127.0.0.1:70000", "0...65535",
                "192.0.2.7:8420", "no address of this machine",
                "0.0.0.0:8420", "every address of this machine; name one",
                "[::]:8420", "every address",
                "127.0.0.1:0x", "port")
            .entrySet()) {
      MainTest.Ran r = MainTest.ell("share", ws, "--at", e.getKey());
      assertNotEquals(r.code(), 0, e.getKey());
      assertTrue(r.err().contains(e.getValue()), r.err());
    }
    try (PageServer s = begin(Optional.empty())) {
      String taken = "127.0.0.1:" + s.where().getPort();
      ActException a =
          expectThrows(
              ActException.class, () -> PageServer.begin(Place.of(ws), taken, Optional.empty()));
      assertTrue(a.getMessage().contains(taken), a.getMessage());
    }
    assertTrue(MainTest.ell("share", ws).err().contains("--at"), "an address has to be named");
    expectThrows(ActException.class, () -> begin(Optional.of("99")));
  }

  @Test
  public void closedItListensNoMore() throws Exception {
    PageServer s = begin(Optional.empty());
    URI where = s.where();
    s.close();
    try (HttpClient c = HttpClient.newHttpClient()) {
      expectThrows(ConnectException.class, () -> get(c, where, ""));
    }
  }

  /// A phone: the code is typed, the ways are followed, and what is logged at the bench appears.
  @Test(timeOut = 240_000)
  public void inARealBrowser() throws Exception {
    Path program =
        Browser.found().orElseThrow(() -> new SkipException("there is no browser on this system"));
    String own = folder.resolve("phone.ell").toString();
    assertEquals(MainTest.ell("demo-workspace", own).code(), 0);
    try (PageServer s = PageServer.begin(Place.of(own), "127.0.0.1:0", Optional.empty());
        Browser b = Browser.start(program, 412, 900)) {
      b.go(s.where());
      b.until("document.activeElement.id === 'code'");
      b.type(s.code());
      b.says("document.querySelector('button').click()");
      b.until("document.querySelector('.rack')");
      picture(b, "boards");
      // nothing is wider than the phone
      assertEquals(b.says("document.documentElement.scrollWidth <= innerWidth"), "true");
      b.says("[...document.querySelectorAll('a.board')].find(a => a.innerText === '03').click()");
      b.until("document.querySelector('.card')");
      picture(b, "step");
      assertEquals(b.says("document.documentElement.scrollWidth <= innerWidth"), "true");
      assertEquals(b.says("document.cookie"), "", "the token is not for scripts");
      b.says("[...document.querySelectorAll('nav a')].find(a => a.innerText === 'Beep').click()");
      b.until("document.querySelectorAll('table tr').length > 100");
      picture(b, "beep");
      b.says("[...document.querySelectorAll('nav a')].find(a => a.innerText === 'Record').click()");
      b.until("document.querySelector('.seal')");
      picture(b, "record");
      assertEquals(
          MainTest.ell("log", own, "--board", "03", "note seen from the other room").code(), 0);
      b.until("document.body.innerText.includes('seen from the other room')");
      assertEquals(
          b.says("performance.getEntriesByType('resource').every(r => r.name.startsWith(origin))"),
          "true",
          "nothing is asked of anybody else");
      s.close();
      b.until("document.getElementById('age').innerText.includes('may be old')");
    }
  }

  private static void picture(Browser b, String name) throws Exception {
    String to = System.getProperty("ell.pictures");
    if (to != null) {
      Files.createDirectories(Path.of(to));
      b.picture(Path.of(to, "share-" + name + ".png"));
    }
  }
}
