package ell.core.pulse.bus;

import ell.core.pulse.bus.Decoded.Item;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;

/// A bus of a clock and a data line that both rest high: data changes while the clock is low; where
/// it changes while the clock is high a transfer begins or ends. Source: NXP UM10204, 3.1, from
/// memory.
public final class TwoWire {
  private static final double STRETCHED = 4;
  private static final int BITS = 8;

  private TwoWire() {}

  private record Event(double at, boolean clock, boolean high) {}

  /// Decodes a bus.
  public static List<Item> decode(Levels clock, Levels data) {
    List<Event> events = new ArrayList<>();
    for (int i = 0; i < clock.count(); i++) {
      events.add(new Event(clock.when(i), true, clock.highAfter(i)));
    }
    for (int i = 0; i < data.count(); i++) {
      events.add(new Event(data.when(i), false, data.highAfter(i)));
    }
    events.sort(Comparator.comparingDouble(Event::at));
    double usual = usualLow(clock);
    List<Item> all = new ArrayList<>();
    boolean started = false;
    boolean address = false;
    int bits = 0;
    int value = 0;
    double began = 0;
    double fell = Double.NaN;
    boolean scl = clock.highAfter(-1);
    boolean sda = data.highAfter(-1);
    for (Event e : events) {
      if (!e.clock()) {
        sda = e.high();
        if (!scl) {
          continue;
        }
        String cut =
            started && bits > 1
                ? "after " + (bits - 1) + " of 8 bits"
                : ""; // one bit is the clock that carries the condition itself
        all.add(
            new Item(
                e.at(),
                e.at(),
                e.high() ? "stop" : started ? "start again" : "start",
                "",
                OptionalInt.empty(),
                cut));
        started = !e.high();
        address = started;
        bits = 0;
        value = 0;
        continue;
      }
      scl = e.high();
      if (!scl) {
        fell = e.at();
        continue;
      }
      double low = e.at() - fell;
      if (started && usual > 0 && low > STRETCHED * usual) {
        all.add(
            new Item(
                fell,
                e.at(),
                "stretch",
                "",
                OptionalInt.empty(),
                String.format(Locale.ROOT, "the clock is held low for %.3g us", low * 1e6)));
      }
      if (!started) {
        continue;
      }
      began = bits == 0 ? e.at() : began;
      if (bits < BITS) {
        value = value << 1 | (sda ? 1 : 0);
        bits++;
        continue;
      }
      all.add(byteOf(began, e.at(), value, address, sda));
      address = false;
      bits = 0;
      value = 0;
    }
    return all;
  }

  private static Item byteOf(double from, double to, int value, boolean address, boolean high) {
    String no = high ? address ? "nobody answers: no acknowledge" : "no acknowledge" : "";
    return address
        ? new Item(
            from, to, value % 2 == 1 ? "read from" : "write to", "", OptionalInt.of(value >> 1), no)
        // the last byte of a read is not acknowledged, which ends it
        : new Item(from, to, "byte", "", OptionalInt.of(value), no);
  }

  /// How long the clock is low as a rule.
  private static double usualLow(Levels clock) {
    List<Double> lows = new ArrayList<>();
    for (int i = 0; i + 1 < clock.count(); i++) {
      if (!clock.highAfter(i)) {
        lows.add(clock.when(i + 1) - clock.when(i));
      }
    }
    double[] all = lows.stream().mapToDouble(d -> d).sorted().toArray();
    return all.length == 0 ? 0 : Arrays.stream(all).skip(all.length / 2).findFirst().orElse(0);
  }

  /// Whether a byte that was not acknowledged is the last one of a read, which is as it should be.
  static List<Item> settled(List<Item> items) {
    List<Item> all = new ArrayList<>(items);
    boolean reading = false;
    for (int i = 0; i < all.size(); i++) {
      Item x = all.get(i);
      reading = x.kind().equals("read from") || reading && !x.kind().equals("write to");
      boolean ends =
          i + 1 < all.size()
              && (all.get(i + 1).kind().equals("stop")
                  || all.get(i + 1).kind().equals("start again"));
      if (reading && ends && x.kind().equals("byte") && !x.problem().isEmpty()) {
        all.set(i, new Item(x.at(), x.until(), x.kind(), x.channel(), x.value(), ""));
      }
    }
    return all;
  }

  /// Decodes a bus; the byte that ends a read needs no acknowledge.
  public static Decoded of(Levels clock, Levels data) {
    List<Item> items = settled(decode(clock, data));
    List<String> told = new ArrayList<>();
    if (clock.count() == 0) {
      told.add("the clock does not move: pull-ups, or nobody speaks");
    }
    return new Decoded(items, told);
  }
}
