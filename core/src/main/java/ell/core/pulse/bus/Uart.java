package ell.core.pulse.bus;

import ell.core.pulse.bus.Decoded.Item;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalInt;

/// Frames of a serial line: a start bit, data bits from the least on, perhaps a parity bit, a stop
/// bit; idle is high. Each bit is looked at in its middle.
///
/// @param baud bits a second
/// @param bits of data, 5...9
/// @param parity `N`, `E` or `O`
public record Uart(double baud, int bits, char parity) {
  private static final double[] USUAL = {
    300, 1200, 2400, 4800, 9600, 14400, 19200, 28800, 31250, 38400, 57600, 76800, 115200, 230400,
    250000, 460800, 500000, 921600, 1e6, 2e6, 3e6
  };

  private static final double NEAR = 0.06;

  /// @throws IllegalArgumentException when a value is out of its range
  public Uart {
    if (!(baud > 0) || bits < 5 || bits > 9 || "NEO".indexOf(parity) < 0) {
      throw new IllegalArgumentException(
          "a serial line has a rate above 0, 5 to 9 bits and parity N, E or O, got "
              + baud
              + ", "
              + bits
              + ", "
              + parity);
    }
  }

  /// The rate that a line has: by its shortest pulse, the nearest usual one where one is near.
  ///
  /// @return 0 when it has too few edges
  public static double guess(Levels line) {
    if (line.count() < 4) {
      return 0;
    }
    double[] pulses = new double[line.count() - 1];
    Arrays.setAll(pulses, i -> line.when(i + 1) - line.when(i));
    Arrays.sort(pulses);
    // the shortest are one bit; an average of some of them is better known than one
    double shortest = pulses[pulses.length / 50];
    double sum = 0;
    int n = 0;
    for (double p : pulses) {
      if (p >= shortest && p < 1.4 * shortest) {
        sum += p;
        n++;
      }
    }
    double rate = n / sum;
    return Arrays.stream(USUAL)
        .filter(u -> Math.abs(u - rate) < NEAR * u)
        .boxed()
        .min((a, b) -> Double.compare(Math.abs(a - rate), Math.abs(b - rate)))
        .orElse(rate);
  }

  /// Decodes a line.
  ///
  /// @param channel the name that its bytes carry
  public List<Item> decode(Levels line, String channel) {
    List<Item> all = new ArrayList<>();
    double bit = 1 / baud;
    int parityBits = parity == 'N' ? 0 : 1;
    double t = line.begin();
    while (true) {
      int i = line.firstFrom(t);
      while (i < line.count() && line.highAfter(i)) {
        i++; // an idle line falls
      }
      if (i >= line.count()) {
        return all;
      }
      double begin = line.when(i);
      double stop = begin + (1 + bits + parityBits + 0.5) * bit;
      if (stop > line.end()) {
        return all; // the capture ends within the frame
      }
      if (line.highAt(begin + bit / 2)) {
        all.add(
            new Item(
                begin,
                begin + bit / 2,
                "glitch",
                channel,
                OptionalInt.empty(),
                "a start bit shorter than half a bit"));
        t = begin + bit / 2;
        continue;
      }
      int value = 0;
      int ones = 0;
      for (int k = 0; k < bits; k++) {
        if (line.highAt(begin + (1.5 + k) * bit)) {
          value |= 1 << k;
          ones++;
        }
      }
      String problem = "";
      if (parityBits > 0) {
        ones += line.highAt(begin + (1.5 + bits) * bit) ? 1 : 0;
        problem = ones % 2 == (parity == 'E' ? 0 : 1) ? "" : "parity is wrong";
      }
      boolean stopped = line.highAt(stop);
      if (!stopped && ones == 0) {
        int up = line.firstFrom(stop);
        double end = up < line.count() ? line.when(up) : line.end();
        all.add(
            new Item(
                begin,
                end,
                "break",
                channel,
                OptionalInt.empty(),
                "low for longer than a frame: a break, or the line is stuck"));
        t = end;
        continue;
      }
      if (!stopped) {
        problem = "framing: the stop bit is low; another rate, or an edge that is too slow?";
      }
      all.add(new Item(begin, stop + bit / 2, "byte", channel, OptionalInt.of(value), problem));
      t = stop;
    }
  }
}
