package ell.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Supply;
import ell.bench.sim.SimBench;
import ell.bench.sim.SimBoard;
import ell.core.power.Fault;
import ell.core.talk.Framing;
import ell.core.talk.LoaderFrame;
import java.io.IOException;
import java.io.InputStream;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// The line of the simulated bench as any program sees it: bytes on a socket.
public final class SimLineTest {
  private SimBench sim;
  private Supply supply;
  private Hands hands;

  @BeforeMethod
  public void start() throws Exception {
    List<SimBoard> boards = new ArrayList<>();
    boards.add(BenchTest.board("01"));
    boards.add(BenchTest.board("02", new Fault.Firmware("restarts")));
    boards.add(BenchTest.board("03", new Fault.Firmware("says nothing: silent")));
    boards.add(BenchTest.board("04", new Fault.Firmware("hangs")));
    sim = SimBench.start(boards, 1);
    Bench b = new Bench("sim", sim.addresses(), 2000, false);
    supply = b.need(Supply.KIND);
    hands = b.need(Hands.KIND);
  }

  @AfterMethod(alwaysRun = true)
  public void stop() {
    supply.close();
    hands.close();
    sim.close();
  }

  private Socket line() throws IOException {
    String at = sim.addresses().get("line");
    Socket s = new Socket("127.0.0.1", Integer.parseInt(at.substring(at.indexOf(':') + 1)));
    s.setSoTimeout(100);
    return s;
  }

  private void on(String board) throws Exception {
    hands.lay(board);
    supply.set(5, 0.5);
    supply.output(true);
  }

  private byte[] heard(Socket s, int millis) throws Exception {
    supply.volts(); // it goes off by itself when nobody asks for three seconds
    InputStream in = s.getInputStream();
    java.io.ByteArrayOutputStream all = new java.io.ByteArrayOutputStream();
    long end = System.nanoTime() + millis * 1_000_000L;
    byte[] b = new byte[4096];
    while (System.nanoTime() < end) {
      try {
        int n = in.read(b);
        if (n < 0) {
          break;
        }
        all.write(b, 0, n);
      } catch (SocketTimeoutException e) {
        // it goes on
      }
    }
    return all.toByteArray();
  }

  private String text(Socket s, int millis) throws Exception {
    return new String(heard(s, millis), StandardCharsets.UTF_8);
  }

  /// A board that only wakes hears nothing: it is called until it answers.
  private static void hello(Socket s) throws IOException {
    for (int i = 0; i < 40; i++) {
      Optional<LoaderFrame> a = answer(s, LoaderFrame.hello(1), 100);
      if (a.isPresent()) {
        assertEquals(a.get().body()[0], LoaderFrame.OK);
        return;
      }
    }
    throw new AssertionError("no answer in four seconds");
  }

  private static LoaderFrame asked(Socket s, LoaderFrame f) throws IOException {
    return answer(s, f, 3000).orElseThrow(() -> new AssertionError("no answer to " + f));
  }

  private static Optional<LoaderFrame> answer(Socket s, LoaderFrame f, int millis)
      throws IOException {
    s.getOutputStream().write(f.bytes());
    LoaderFrame.Taker t = new LoaderFrame.Taker();
    long end = System.nanoTime() + millis * 1_000_000L;
    byte[] b = new byte[1];
    while (System.nanoTime() < end) {
      try {
        if (s.getInputStream().read(b) < 0) {
          break;
        }
      } catch (SocketTimeoutException e) {
        continue;
      }
      Optional<LoaderFrame> a = t.take(b[0] & 0xff);
      if (a.isPresent()) {
        return a;
      }
    }
    return Optional.empty();
  }

  private void load(Socket s, byte[] image) throws IOException {
    hello(s);
    assertEquals(asked(s, LoaderFrame.begin(2, image)).body()[0], LoaderFrame.OK);
    for (int at = 0; at < image.length; at += LoaderFrame.BLOCK) {
      assertEquals(asked(s, LoaderFrame.data(3, image, at)).body()[0], LoaderFrame.OK);
    }
    assertEquals(asked(s, LoaderFrame.end(4)).body()[0], LoaderFrame.OK);
    assertEquals(asked(s, LoaderFrame.run(5)).body()[0], LoaderFrame.OK);
  }

  private static byte[] program(String firmware) {
    return ("ELLSIM 1\nfirmware "
            + firmware
            + "\nbanner boots {firmware} on {board}\nanswer hi = ho\n")
        .getBytes(StandardCharsets.UTF_8);
  }

  @Test(timeOut = 60_000)
  public void withoutPowerNothingIsSaid() throws Exception {
    hands.lay("01");
    try (Socket s = line()) {
      assertEquals(heard(s, 900).length, 0);
      supply.set(5, 0.5);
      supply.output(true);
      assertTrue(text(s, 1200).contains("loader 1: no program"));
      supply.output(false);
      heard(s, 200);
      supply.output(true);
      assertTrue(text(s, 1200).contains("loader 1: no program"), "it begins anew");
    }
  }

  @Test(timeOut = 60_000)
  public void whatIsLoadedRuns() throws Exception {
    on("01");
    try (Socket s = line()) {
      load(s, program("2.7"));
      assertTrue(text(s, 900).contains("boots 2.7 on 01"));
      s.getOutputStream().write("hi\rver?\rset a 1\rget a\rget b\rnonsense\r".getBytes());
      String all = text(s, 500);
      for (String x : List.of("ho", "firmware 2.7", "ok", "a 1", "b none", "what? nonsense")) {
        assertTrue(all.contains(x), x + " in " + all);
      }
      s.getOutputStream().write("restart\r".getBytes());
      assertTrue(text(s, 1000).contains("boots 2.7"));
      s.getOutputStream().write("load\r".getBytes());
      assertTrue(text(s, 300).contains("loader 1: waiting"));
      load(s, program("2.8"));
      String after = text(s, 900);
      assertTrue(after.contains("boots 2.8"), after);
    }
    try (Socket again = line()) {
      again.getOutputStream().write("ver?\r".getBytes());
      String all = text(again, 400);
      assertTrue(all.contains("2.8"), "another cable, the same board: " + all);
    }
  }

  /// Half an image is none, and one that does not check is not run.
  @Test(timeOut = 60_000)
  public void aBadImageIsNotRun() throws Exception {
    on("01");
    byte[] image = program("3");
    try (Socket s = line()) {
      hello(s);
      assertEquals(
          asked(s, LoaderFrame.data(2, image, 0)).body()[0], LoaderFrame.REFUSED, "not begun");
      assertEquals(asked(s, LoaderFrame.begin(3, image)).body()[0], LoaderFrame.OK);
      assertEquals(asked(s, LoaderFrame.end(4)).body()[0], LoaderFrame.BAD_IMAGE, "nothing came");
      assertEquals(asked(s, LoaderFrame.run(5)).body()[0], LoaderFrame.BAD_IMAGE);
      byte[] wrong = image.clone();
      wrong[5] ^= 1;
      assertEquals(asked(s, LoaderFrame.begin(6, image)).body()[0], LoaderFrame.OK);
      assertEquals(asked(s, LoaderFrame.data(7, wrong, 0)).body()[0], LoaderFrame.OK);
      assertEquals(asked(s, LoaderFrame.end(8)).body()[0], LoaderFrame.BAD_IMAGE);
      LoaderFrame beyond =
          new LoaderFrame('D', 9, new byte[] {0, 0, 1, 0, 42}); // byte 65536 of so few
      assertEquals(asked(s, beyond).body()[0], LoaderFrame.REFUSED);
      assertEquals(asked(s, new LoaderFrame('Z', 10, new byte[0])).body()[0], LoaderFrame.REFUSED);
      assertEquals(
          asked(s, new LoaderFrame('B', 11, new byte[] {-1, -1, -1, -1, 0, 0, 0, 0})).body()[0],
          LoaderFrame.REFUSED,
          "an image of less than nothing");
      load(s, image);
      assertTrue(text(s, 900).contains("boots 3"));
    }
  }

  @Test(timeOut = 60_000)
  public void theCablesRateIsItsOwn() throws Exception {
    hands.rate(57_600);
    on("01");
    try (Socket s = line()) {
      byte[] is = heard(s, 1200);
      byte[] should = Framing.of("loader 1: no program\r\n".getBytes(), 2).bytes();
      assertEquals(is, should, "what a receiver makes of it at half of the rate");
      hands.rate(0);
      hands.pull();
      assertEquals(s.getInputStream().read(), -1, "the cable is out");
    }
  }

  @Test(timeOut = 60_000)
  public void whatFirmwareDoesWrong() throws Exception {
    on("02");
    try (Socket s = line()) {
      load(s, program("1"));
      String all = text(s, 3000);
      assertTrue(all.split("boots 1", -1).length > 3, all);
    }
    supply.output(false);
    on("03");
    try (Socket s = line()) {
      load(s, program("1"));
      assertFalse(text(s, 900).contains("boots"));
      s.getOutputStream().write("hi\r".getBytes());
      assertTrue(text(s, 300).contains("ho"), "it lives");
    }
    supply.output(false);
    on("04");
    try (Socket s = line()) {
      load(s, program("1"));
      assertTrue(text(s, 900).contains("boots"));
      s.getOutputStream().write("hi\r".getBytes());
      assertEquals(text(s, 300), "");
    }
  }

  @Test(timeOut = 60_000)
  public void severalListenAndGarbageIsBorne() throws Exception {
    on("01");
    try (Socket a = line();
        Socket b = line()) {
      assertTrue(text(a, 1200).contains("loader"));
      byte[] noise = new byte[20_000];
      new java.util.Random(4).nextBytes(noise);
      a.getOutputStream().write(noise);
      a.getOutputStream().write("x".repeat(5000).getBytes());
      heard(a, 200);
      heard(b, 100);
      a.getOutputStream().write(LoaderFrame.hello(9).bytes());
      // a length that noise made up is waited for: asked again until it is over
      boolean answered = false;
      for (int i = 0; i < 60 && !answered; i++) {
        a.getOutputStream().write(LoaderFrame.hello(9).bytes());
        answered = heard(a, 60).length > 0;
      }
      assertTrue(answered);
      assertTrue(heard(b, 300).length > 0, "who listens hears what others ask");
    }
  }
}
