package ell.core.pulse.bus;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.pulse.bus.Decoded.Item;
import ell.core.series.Series;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What was encoded here comes out, and so do the errors that were put in.
public final class DecodersTest {
  /// A line as levels over equal ticks, drawn as volts with slow edges and noise.
  private static final class Wire {
    final StringBuilder levels = new StringBuilder();

    Wire hold(int level, int ticks) {
      levels.append(String.valueOf(level).repeat(ticks));
      return this;
    }

    Levels seen(double tick, int each, long seed) {
      Random r = new Random(seed);
      int n = levels.length() * each;
      double[] t = new double[n];
      double[] v = new double[n];
      double now = levels.charAt(0) == '1' ? 3.3 : 0;
      for (int i = 0; i < n; i++) {
        double to = levels.charAt(i / each) == '1' ? 3.3 : 0;
        now += (to - now) * 0.7;
        t[i] = i * tick / each;
        v[i] = now + 0.02 * r.nextGaussian();
      }
      return Levels.of(new Series("x", t, v), 3.3);
    }
  }

  private static final int BIT = 16;

  private static void frame(
      Wire w, int value, int bits, char parity, boolean stop, double stretch) {
    int ticks = (int) Math.round(BIT * stretch);
    w.hold(0, ticks);
    int ones = 0;
    for (int i = 0; i < bits; i++) {
      int b = value >> i & 1;
      ones += b;
      w.hold(b, ticks);
    }
    if (parity != 'N') {
      w.hold(ones % 2 == (parity == 'E' ? 0 : 1) ? 0 : 1, ticks);
    }
    w.hold(stop ? 1 : 0, ticks);
    if (!stop) {
      w.hold(1, ticks);
    }
  }

  @DataProvider
  Object[][] frames() {
    return new Object[][] {{8, 'N'}, {7, 'E'}, {8, 'O'}, {5, 'N'}, {9, 'N'}};
  }

  @Test(dataProvider = "frames")
  public void bytesOfASerialLine(int bits, char parity) {
    Random r = new Random(bits * 31 + parity);
    for (int idle : new int[] {0, 1, 40}) {
      Wire w = new Wire().hold(1, 100);
      List<Integer> sent = new ArrayList<>();
      for (int i = 0; i < 60; i++) {
        int v = r.nextInt(1 << bits);
        sent.add(v);
        frame(w, v, bits, parity, true, 1);
        w.hold(1, idle);
      }
      w.hold(1, 100);
      double baud = 115200;
      Levels l = w.seen(1 / baud / BIT, 2, 1);
      List<Item> got = new Uart(baud, bits, parity).decode(l, "tx");
      assertEquals(got.stream().map(i -> i.value().orElse(-1)).toList(), sent);
      assertEquals(got.stream().filter(i -> !i.problem().isEmpty()).count(), 0L);
      if (bits == 8 && parity == 'N') {
        assertEquals(Uart.guess(l), 115200.0);
      }
    }
  }

  /// A rate that is off by 3 % is read; by 8 % it is not, and says so.
  @Test
  public void aRateThatIsOff() {
    for (double off : new double[] {0.97, 1.03, 1.08}) {
      Wire w = new Wire().hold(1, 100);
      for (int i = 0; i < 40; i++) {
        frame(w, 0x55 + i, 8, 'N', true, 1);
        w.hold(1, 30);
      }
      List<Item> got =
          new Uart(9600 * off, 8, 'N').decode(w.hold(1, 300).seen(1 / 9600.0 / BIT, 2, 2), "tx");
      long wrong = got.stream().filter(i -> !i.problem().isEmpty()).count();
      boolean read = got.size() == 40 && got.get(7).value().getAsInt() == 0x55 + 7 && wrong == 0;
      assertEquals(read, off < 1.05, off + ": " + wrong + " wrong");
    }
  }

  @Test
  public void errorsOfASerialLine() {
    Wire w = new Wire().hold(1, 100);
    frame(w, 'A', 8, 'N', true, 1);
    w.hold(1, 20);
    frame(w, 'B', 8, 'N', false, 1);
    w.hold(1, 20).hold(0, 14 * BIT).hold(1, 40).hold(0, 4).hold(1, 60);
    frame(w, 'C', 8, 'N', true, 1);
    List<Item> got =
        new Uart(9600, 8, 'N').decode(w.hold(1, 200).seen(1 / 9600.0 / BIT, 2, 3), "rx");
    assertEquals(
        got.stream().map(Item::kind).toList(), List.of("byte", "byte", "break", "glitch", "byte"));
    assertEquals(got.get(0).words(), "0x41 'A'");
    assertTrue(got.get(1).problem().startsWith("framing"), got.get(1).problem());
    assertEquals(got.get(4).value().getAsInt(), 'C');
    Wire odd = new Wire().hold(1, 100);
    frame(odd, 'A', 8, 'O', true, 1);
    List<Item> even =
        new Uart(9600, 8, 'E').decode(odd.hold(1, 200).seen(1 / 9600.0 / BIT, 2, 3), "rx");
    assertEquals(even.getFirst().problem(), "parity is wrong");
    assertThrows(IllegalArgumentException.class, () -> new Uart(0, 8, 'N'));
    assertThrows(IllegalArgumentException.class, () -> new Uart(9600, 4, 'N'));
  }

  /// Two lines of a bus, tick by tick.
  private static final class Bus {
    final Wire scl = new Wire();
    final Wire sda = new Wire();

    Bus both(int clock, int data, int ticks) {
      scl.hold(clock, ticks);
      sda.hold(data, ticks);
      return this;
    }

    Bus start() {
      return both(1, 1, 8).both(1, 0, 8).both(0, 0, 8);
    }

    Bus again() {
      return both(0, 1, 8).start();
    }

    Bus stop() {
      return both(0, 0, 8).both(1, 0, 8).both(1, 1, 8);
    }

    Bus bit(int b) {
      return both(0, b, 8).both(1, b, 16).both(0, b, 8);
    }

    Bus byteOf(int v, boolean acknowledged) {
      for (int i = 7; i >= 0; i--) {
        bit(v >> i & 1);
      }
      return bit(acknowledged ? 0 : 1);
    }

    Decoded decode() {
      return TwoWire.of(scl.seen(1e-7, 2, 1), sda.seen(1e-7, 2, 2));
    }
  }

  @Test
  public void aRegisterIsReadOverTwoWires() {
    Decoded d =
        new Bus()
            .both(1, 1, 30)
            .start()
            .byteOf(0x50 << 1, true)
            .byteOf(0x12, true)
            .again()
            .byteOf(0x50 << 1 | 1, true)
            .byteOf(0xA5, true)
            .byteOf(0x5A, false)
            .stop()
            .both(1, 1, 30)
            .decode();
    assertEquals(
        d.items().stream().map(Item::words).toList(),
        List.of(
            "start",
            "write to 0x50",
            "0x12",
            "start again",
            "read from 0x50",
            "0xA5",
            "0x5A 'Z'",
            "stop"));
    assertEquals(d.problems(), 0L, "the byte that ends a read is not acknowledged");
  }

  @Test
  public void errorsOfTwoWires() {
    Decoded nobody =
        new Bus().both(1, 1, 30).start().byteOf(0x29 << 1, false).stop().both(1, 1, 30).decode();
    assertTrue(nobody.items().get(1).problem().contains("nobody answers"));
    Decoded held =
        new Bus()
            .both(1, 1, 30)
            .start()
            .byteOf(0x50 << 1, true)
            .both(0, 0, 400)
            .byteOf(0x12, true)
            .stop()
            .both(1, 1, 30)
            .decode();
    Item stretch =
        held.items().stream().filter(i -> i.kind().equals("stretch")).findFirst().orElseThrow();
    assertEquals(stretch.until() - stretch.at(), 41.6e-6, 2e-6);
    Decoded cut =
        new Bus().both(1, 1, 30).start().bit(1).bit(0).bit(1).stop().both(1, 1, 30).decode();
    assertEquals(cut.items().getLast().problem(), "after 3 of 8 bits");
    Decoded silent = new Bus().both(1, 1, 60).decode();
    assertTrue(silent.items().isEmpty());
    assertFalse(silent.told().isEmpty(), "silence is told");
  }

  @DataProvider
  Object[][] modes() {
    return new Object[][] {{0}, {1}, {2}, {3}};
  }

  /// Words of both directions; the last one is cut off.
  @Test(dataProvider = "modes")
  public void wordsOfThreeWires(int mode) {
    int rests = mode / 2;
    boolean second = mode % 2 == 1;
    Wire clock = new Wire().hold(rests, 40);
    Wire out = new Wire().hold(0, 40);
    Wire in = new Wire().hold(1, 40);
    Wire select = new Wire().hold(1, 30).hold(0, 10);
    int[] sent = {0x9F, 0x00, 0xA5};
    int[] back = {0xFF, 0xC2, 0x17};
    int bits = 0;
    for (int k = 0; k < sent.length; k++) {
      for (int i = 7; i >= 0 && bits < 21; i--, bits++) {
        int a = sent[k] >> i & 1;
        int b = back[k] >> i & 1;
        for (int half = 0; half < 2; half++) {
          boolean active = second ? half == 0 : half == 1;
          clock.hold(active ? 1 - rests : rests, 8);
          out.hold(a, 8);
          in.hold(b, 8);
          select.hold(0, 8);
        }
      }
    }
    clock.hold(rests, 40);
    out.hold(0, 40);
    in.hold(1, 40);
    select.hold(0, 10).hold(1, 30);
    Map<String, Levels> data = new LinkedHashMap<>();
    data.put("out", out.seen(1e-8, 2, 1));
    data.put("in", in.seen(1e-8, 2, 2));
    Decoded d =
        new Spi(mode, 8).decode(clock.seen(1e-8, 2, 3), Optional.of(select.seen(1e-8, 2, 4)), data);
    List<Integer> said =
        d.items().stream()
            .filter(i -> i.channel().equals("out"))
            .map(i -> i.value().getAsInt())
            .toList();
    List<Integer> heard =
        d.items().stream()
            .filter(i -> i.channel().equals("in"))
            .map(i -> i.value().getAsInt())
            .toList();
    assertEquals(said, List.of(0x9F, 0x00), "mode " + mode);
    assertEquals(heard, List.of(0xFF, 0xC2), "mode " + mode);
    assertEquals(d.problems(), 1L);
    assertTrue(
        d.items().stream().anyMatch(i -> i.problem().equals("a word ends after 5 of 8 bits")));
    assertEquals(d.items().getFirst().kind(), "select");
  }
}
