package ell.files.netlist;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/// NamePool by the bytes that spell them: each is made into a string once and has a small number.
/// NamePool of up to 14 bytes, which is all that fits a record, are held packed in two longs, so
/// that finding one again touches little memory; records that follow each other often share theirs.
public final class NamePool {
  private static final int PACKED = 14;

  private String[] names = new String[1 << 10];
  private long[] low = new long[1 << 10];
  private long[] high = new long[1 << 10]; // six bytes and, at the top, the length
  private int[] slots = new int[1 << 12]; // number + 1, 0 for empty
  private final Map<String, Integer> longer = new HashMap<>();
  private int size;
  private int last = -1;

  /// The number of the name in `b[start...stop)`, blanks around it left out.
  int number(byte[] b, int start, int stop) {
    int from = start;
    int to = stop;
    while (from < to && b[from] == ' ') {
      from++;
    }
    while (to > from && b[to - 1] == ' ') {
      to--;
    }
    if (to - from > PACKED) {
      return number(new String(b, from, to - from, StandardCharsets.ISO_8859_1));
    }
    int middle = Math.min(to, from + 8);
    long lo = 0;
    for (int i = from; i < middle; i++) {
      lo = lo << 8 | b[i] & 0xff;
    }
    long hi = to - from;
    for (int i = middle; i < to; i++) {
      hi = hi << 8 | b[i] & 0xff;
    }
    if (last >= 0 && low[last] == lo && high[last] == hi) {
      return last;
    }
    int at = hash(lo, hi) & (slots.length - 1);
    while (slots[at] != 0) {
      int n = slots[at] - 1;
      if (low[n] == lo && high[n] == hi) {
        last = n;
        return n;
      }
      at = (at + 1) & (slots.length - 1);
    }
    last = add(new String(b, from, to - from, StandardCharsets.ISO_8859_1), lo, hi);
    slots[at] = size;
    if (2 * size > slots.length) {
      widen();
    }
    return last;
  }

  private static int hash(long lo, long hi) {
    long mixed = (lo ^ hi * 31) * 0x9E3779B97F4A7C15L;
    return (int) (mixed >>> 32);
  }

  /// The number of a name of any length.
  int number(String name) {
    if (name.length() <= PACKED) {
      byte[] b = name.getBytes(StandardCharsets.ISO_8859_1);
      return number(b, 0, b.length);
    }
    return longer.computeIfAbsent(name, n -> add(n, 0, -1));
  }

  String name(int number) {
    return names[number];
  }

  int size() {
    return size;
  }

  private int add(String name, long lo, long hi) {
    if (size == names.length) {
      names = Arrays.copyOf(names, 2 * size);
      low = Arrays.copyOf(low, 2 * size);
      high = Arrays.copyOf(high, 2 * size);
    }
    names[size] = name;
    low[size] = lo;
    high[size] = hi;
    return size++;
  }

  private void widen() {
    int[] wider = new int[2 * slots.length];
    for (int n = 0; n < size; n++) {
      if (high[n] >= 0) {
        int at = hash(low[n], high[n]) & (wider.length - 1);
        while (wider[at] != 0) {
          at = (at + 1) & (wider.length - 1);
        }
        wider[at] = n + 1;
      }
    }
    slots = wider;
  }
}
