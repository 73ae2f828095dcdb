package ell.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.bench.instrument.Meter;
import ell.bench.link.BenchException;
import ell.bench.link.LineLink;
import ell.bench.link.TcpLink;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// A link to a server that answers what a test tells it to, when a test tells it to: late answers,
/// lines too many, and what only looks like a number.
public final class TcpLinkTest {
  private ServerSocket server;
  private Script script;
  private final List<String> heard = Collections.synchronizedList(new ArrayList<>());

  /// What is answered to a line; null when nothing is.
  private interface Script {
    String answer(String line) throws Exception;
  }

  @BeforeMethod
  public void start() throws IOException {
    heard.clear();
    server = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
    ServerSocket own = server;
    Thread.ofVirtual()
        .start(() -> {
          while (!own.isClosed()) {
            try {
              Socket s = own.accept();
              Thread.ofVirtual().start(() -> serve(s));
            } catch (IOException e) {
              return;
            }
          }
        });
  }

  private void serve(Socket s) {
    try (s;
        BufferedReader in =
            new BufferedReader(
                new InputStreamReader(s.getInputStream(), StandardCharsets.US_ASCII))) {
      String line;
      while ((line = in.readLine()) != null) {
        heard.add(line);
        String said = script.answer(line);
        if (said != null) {
          s.getOutputStream().write(said.getBytes(StandardCharsets.US_ASCII));
          s.getOutputStream().flush();
        }
      }
    } catch (Exception e) {
      // the client is gone
    }
  }

  @AfterMethod(alwaysRun = true)
  public void stop() throws IOException {
    server.close();
  }

  private LineLink link(int timeout) throws BenchException {
    return TcpLink.connect("127.0.0.1", server.getLocalPort(), timeout);
  }

  /// An answer that comes after the time-out belongs to the old question: the next one gets its
  /// own.
  @Test(timeOut = 20_000)
  public void aLateAnswerIsNotTakenForTheNext() throws Exception {
    script =
        line -> {
          if (line.equals("SLOW?")) {
            Thread.sleep(250);
            return "old\n";
          }
          return line.endsWith("?") ? "new\n" : null;
        };
    try (LineLink l = link(150)) {
      BenchException e = expectThrows(BenchException.class, () -> l.ask("SLOW?"));
      assertTrue(e.getMessage().contains("within 150 ms"), e.getMessage());
      Thread.sleep(200);
      assertEquals(l.ask("FAST?"), "new");
    }
  }

  /// After a time-out the link still carries a command: OFF gets through.
  @Test(timeOut = 20_000)
  public void offGetsThroughAfterATimeOut() throws Exception {
    script = _ -> null;
    try (LineLink l = link(80)) {
      expectThrows(BenchException.class, () -> l.ask("OUTP?"));
      l.send("OUTP OFF");
      for (int i = 0; i < 200 && !heard.contains("OUTP OFF"); i++) {
        Thread.sleep(5);
      }
      assertEquals(heard, List.of("OUTP?", "OUTP OFF"));
    }
  }

  @Test(timeOut = 20_000)
  public void whatWasLeftOverIsThrownAway() throws Exception {
    script = line -> line.equals("NOISE") ? "1\n2\n3\n" : "right\n";
    try (LineLink l = link(500)) {
      l.send("NOISE");
      Thread.sleep(50);
      assertEquals(l.ask("A?"), "right");
      l.send("NOISE");
      Thread.sleep(50);
      l.resync();
      assertEquals(l.askNext("A?"), "right");
    }
  }

  @Test(timeOut = 20_000)
  public void whoDoesNotStopTalkingIsGivenUp() throws Exception {
    script = _ -> "x".repeat(5000) + "\n";
    try (LineLink l = link(500)) {
      assertTrue(
          expectThrows(BenchException.class, () -> l.ask("A?"))
              .getMessage()
              .contains("more than 4096 characters"));
    }
  }

  /// What instruments answer, and what a meter makes of it; NaN stands for no reading.
  @DataProvider
  Object[][] answers() {
    return new Object[][] {
      {"3.3", 3.3},
      {"+3.300000E+00", 3.3},
      {"-.5", -0.5},
      {"5.", 5},
      {"1e3", 1000},
      {"1E-03", 0.001},
      {"0", 0},
      {"+0", 0},
      {"9.9E37", Double.NaN},
      {"-9.9E37", Double.NaN},
      {"9.91E37", Double.NaN},
      {"NaN", Double.NaN},
      {"NAN", Double.NaN},
      {"INF", Double.NaN},
      {"Infinity", Double.NaN},
      {"0x1p3", Double.NaN},
      {"3.3d", Double.NaN},
      {"3.3f", Double.NaN},
      {"3.3 V", Double.NaN},
      {"3,3", Double.NaN},
      {"", Double.NaN},
      {"1e999", Double.NaN},
      {"--3", Double.NaN},
      {"1 2", Double.NaN},
      {"3.3\u0000", Double.NaN},
      {"1".repeat(80), Double.NaN},
    };
  }

  @Test(dataProvider = "answers", timeOut = 20_000)
  public void numbersAreNumbersAndNothingElseIs(String answer, double volts) throws Exception {
    script = line -> line.startsWith("SYST") ? "0,\"No error\"\n" : answer + "\n";
    try (Meter m = new Meter(link(300))) {
      if (Double.isNaN(volts)) {
        expectThrows(BenchException.class, m::dcVolts);
      } else {
        assertEquals(m.dcVolts(), volts, 1e-12);
      }
    }
  }

  /// Ohms: the sign for an overload is an open loop, the sign for no number is none.
  @Test(timeOut = 20_000)
  public void anOpenLoopIsNoMissingNumber() throws Exception {
    String[] answer = {"9.9E37"};
    script = line -> line.startsWith("SYST") ? "+0,\"No error\"\n" : answer[0] + "\n";
    try (Meter m = new Meter(link(300))) {
      assertEquals(m.ohms(), Double.POSITIVE_INFINITY);
      for (String none : List.of("9.91E37", "-9.9E37")) {
        answer[0] = none;
        expectThrows(BenchException.class, m::ohms);
      }
    }
  }

  /// The error queue is asked after each question: what it holds is the answer that counts.
  @Test(timeOut = 20_000)
  public void anErrorBehindAnAnswerIsSaid() throws Exception {
    script = line -> line.startsWith("SYST") ? "-222,\"Data out of range\"\n" : "3.3\n";
    try (Meter m = new Meter(link(300))) {
      assertTrue(
          expectThrows(BenchException.class, m::dcVolts).getMessage().contains("out of range"));
    }
  }

  @Test
  public void addressesAreHeldToWhatTheyCanBe() {
    for (String wrong : List.of("host:0", "host:65536", "host:99999", ":5025", "host:x", "")) {
      Bench b = new Bench("bench", java.util.Map.of("meter", wrong), 200);
      assertTrue(
          expectThrows(BenchException.class, () -> b.need(Meter.KIND))
              .getMessage()
              .contains("host:port"),
          wrong);
    }
    for (int timeout : new int[] {0, -1, 600_001}) {
      expectThrows(
          IllegalArgumentException.class, () -> new Bench("bench", java.util.Map.of(), timeout));
    }
  }
}
