package ell.work.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Supply;
import ell.bench.line.Line;
import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.core.quantity.Verdict;
import ell.work.OddBoards;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import ell.work.demo.DemoWorkspace;
import java.io.IOException;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.testng.SkipException;
import org.testng.annotations.Test;

/// Lines over a pair of serial ports that the test makes: every byte goes through as it is, both
/// ways.
public class SerialPairTest {
  private static Pty pair() {
    return Pty.open().orElseThrow(() -> new SkipException("this system has no pairs of ports"));
  }

  @Test(timeOut = 60_000)
  public void everyByteGoesThroughBothWays() throws Exception {
    byte[] all = new byte[200_000];
    new Random(2).nextBytes(all);
    try (Pty pty = pair();
        Line line = new LineAddress("serial:" + pty.name() + "@3000000,8N1").open(1000)) {
      Thread echo =
          Thread.ofPlatform()
              .daemon()
              .start(() -> {
                byte[] b = new byte[4096];
                try {
                  for (int left = all.length; left > 0; ) {
                    int n = pty.read(b);
                    if (n <= 0) {
                      return;
                    }
                    pty.write(b, n);
                    left -= n;
                  }
                } catch (IOException e) {
                  // the test is over
                }
              });
      byte[] got = new byte[all.length];
      int at = 0;
      byte[] some = new byte[4096];
      for (int sent = 0; at < all.length; ) {
        if (sent < all.length) {
          byte[] piece = java.util.Arrays.copyOfRange(all, sent, Math.min(all.length, sent + 2000));
          line.send(piece);
          sent += piece.length;
        }
        int n = line.read(some, 20);
        System.arraycopy(some, 0, got, at, n);
        at += n;
      }
      echo.join(5000);
      assertEquals(got, all);
    }
  }

  /// The demo's script over a serial port: the same run as over a socket.
  @Test(timeOut = 60_000)
  public void aBoardIsLoadedOverAPort() throws Exception {
    Path ws = Files.createTempDirectory("pty").resolve("ws.ell");
    try (Pty pty = pair();
        Workshop w = DemoWorkspace.make(ws, Path.of("../demo"), true);
        SimulatedBench sim = SimulatedBench.start(w, 1);
        Hands hands = sim.bench().need(Hands.KIND)) {
      w.talks().answer("MG-1", "B", "cable", "yes");
      hands.lay("01");
      try (Supply _ = OddBoards.power(sim.servers(), w.ladder("MG-1", "B"));
          Socket board =
              new Socket(
                  "127.0.0.1",
                  Integer.parseInt(sim.bench().addresses().get("line").split(":")[1]))) {
        Thread.ofPlatform().daemon().start(() -> carry(pty, board));
        Thread.ofPlatform()
            .daemon()
            .start(() -> {
              byte[] b = new byte[4096];
              try {
                for (int n = board.getInputStream().read(b);
                    n > 0;
                    n = board.getInputStream().read(b)) {
                  pty.write(b, n);
                }
              } catch (IOException e) {
                // the test is over
              }
            });
        LineAddress at = new LineAddress("serial:" + pty.name() + "@115200,8N1");
        TalkRun.Done d =
            new TalkRun(
                    w.talks(),
                    w.recordings(),
                    w.acts(),
                    w.plan(w.buildOf("01")),
                    "01",
                    new TalkRun.Watcher() {})
                .run(
                    Scripts.open(Path.of("../demo/mg-1-b/first-load.json")),
                    at,
                    () -> at.open(2000),
                    List.of());
        assertEquals(d.talk().verdict().orElseThrow(), Verdict.WITHIN, d.talk().steps().toString());
        assertEquals(d.talk().firmware(), "1.4");
      }
    }
  }

  private static void carry(Pty pty, Socket board) {
    byte[] b = new byte[4096];
    try {
      for (int n = pty.read(b); n > 0; n = pty.read(b)) {
        board.getOutputStream().write(b, 0, n);
        board.getOutputStream().flush();
      }
    } catch (IOException e) {
      // the test is over
    }
  }

  @Test(timeOut = 60_000)
  public void aPortThatGoesAwayIsSaid() throws Exception {
    Pty pty = pair();
    try (Line line = new LineAddress("serial:" + pty.name() + "@115200,8N1,none").open(1000)) {
      assertEquals(line.read(new byte[10], 20), 0, "nothing was sent");
      pty.close();
      byte[] b = new byte[10];
      BenchException e =
          expectThrows(
              BenchException.class,
              () -> {
                for (int i = 0; i < 50; i++) {
                  line.read(b, 20);
                  Thread.sleep(20);
                }
              });
      assertTrue(e.getMessage().contains("is gone"), e.getMessage());
    }
  }

  @Test
  public void addressesThatAreNone() {
    for (String bad :
        new String[] {
          "", "tcp:", "tcp:host", "tcp:host:99999", "serial:", "serial:@9600", "host:x"
        }) {
      expectThrows(BenchException.class, () -> new LineAddress(bad).open(100));
    }
    expectThrows(BenchException.class, () -> new LineAddress("serial:x@fast,8N1").open(100));
  }
}
