package ell.files.netlist;

import ell.files.EightBytes;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/// Names by the bytes that spell them: each is made into a string once and has a small number.
/// Names of up to 14 bytes, which is all that fits a record, are held packed in two longs, so that
/// finding one again touches little memory; records that follow each other often share theirs.
public final class NamePool {
  private static final int PACKED = 14;
  private static final long LONGER = -1;
  private static final int BESIDE = 16;
  private static final int MOST_ROOM = 1 << 20;

  /// A slot holds a number plus one below, and a part of the hash above.
  private static final int TAG = 24;

  private static final int NUMBER = (1 << TAG) - 1;
  private static final long BLANKS = 0x2020202020202020L;

  private String[] names = new String[1 << 10];

  /// Two words of each: its bytes against blanks, so that blanks behind it are zeros. The second is
  /// [#LONGER] where there are more, which no name that fits can have.
  private long[] words = new long[2 << 10];

  private int[] slots = new int[1 << 12]; // 0 for empty
  private final Map<String, Integer> longer = new HashMap<>();
  private int size;
  private int last;

  /// Makes room for so many names, where that many may come.
  void room(int expected) {
    int wanted = Math.clamp(expected, names.length, MOST_ROOM);
    grow(wanted);
    if (slots.length < 2 * wanted) {
      widen(Integer.highestOneBit(wanted - 1) * 4);
    }
  }

  /// The number of the name in `b[start...stop)`, blanks around it left out.
  ///
  /// @param b with [EightBytes#ROOM] bytes behind `stop`
  int number(byte[] b, int start, int stop) {
    int from = start;
    while (from < stop && b[from] == ' ') {
      from++;
    }
    int width = stop - from;
    if (width > PACKED) {
      return number(new String(b, from, width, StandardCharsets.ISO_8859_1).stripTrailing());
    }
    long low = 0;
    long high = 0;
    if (width >= 8) {
      low = EightBytes.at(b, from) ^ BLANKS;
      high = first(EightBytes.at(b, from + 8) ^ BLANKS, width - 8);
    } else if (width > 0) {
      low = first(EightBytes.at(b, from) ^ BLANKS, width);
    }
    if (is(last, low, high)) {
      return last;
    }
    int next = last + 1; // names often come in the order in which they came before
    last = is(next, low, high) ? next : number(b, from, low, high);
    return last;
  }

  private boolean is(int number, long low, long high) {
    return number < size && words[2 * number] == low && words[2 * number + 1] == high;
  }

  private int number(byte[] b, int from, long low, long high) {
    int hash = hash(low, high);
    int at = hash & slots.length - 1;
    int slot = slots[at];
    while (slot != 0) {
      int n = (slot & NUMBER) - 1;
      if ((slot ^ hash) >>> TAG == 0 && words[2 * n] == low && words[2 * n + 1] == high) {
        return n;
      }
      at = at + 1 & slots.length - 1;
      slot = slots[at];
    }
    int length = 8 - Long.numberOfLeadingZeros(high != 0 ? high : low) / 8 + (high != 0 ? 8 : 0);
    int n = add(new String(b, from, length, StandardCharsets.ISO_8859_1));
    words[2 * n] = low;
    words[2 * n + 1] = high;
    slots[at] = hash >>> TAG << TAG | n + 1;
    if (2 * size > slots.length) {
      widen(4 * slots.length);
    }
    return n;
  }

  /// The first bytes of a word, 0 to 8.
  private static long first(long word, int bytes) {
    return bytes == 0 ? 0 : word & -1L >>> 64 - 8 * bytes;
  }

  /// Where to look for a name, and above [#TAG] what tells most others there from it. Names that
  /// differ in their last byte only, as those that are counted do, lie side by side.
  private static int hash(long low, long high) {
    long end = high != 0 ? high : low;
    int at = 56 - Long.numberOfLeadingZeros(end) & ~7; // of the last byte
    int last = (int) (end >>> at) & 0xff;
    long others = end & ~(0xffL << at);
    long folded = high != 0 ? low ^ others * 31 : others;
    long mixed = (folded ^ folded >>> 32) * 0x9E3779B97F4A7C15L;
    return (int) (mixed >>> 36) + (last & BESIDE - 1) & NUMBER | (int) (mixed >>> 56 ^ last) << TAG;
  }

  /// The number of a name of any length, blanks around it left out.
  int number(String name) {
    if (name.length() <= PACKED) {
      byte[] b = name.getBytes(StandardCharsets.ISO_8859_1);
      return number(Arrays.copyOf(b, b.length + EightBytes.ROOM), 0, b.length);
    }
    return longer.computeIfAbsent(
        name,
        n -> {
          int number = add(n);
          words[2 * number + 1] = LONGER;
          return number;
        });
  }

  String name(int number) {
    return names[number];
  }

  int size() {
    return size;
  }

  /// Whether a name has all bytes that fit a record, and may have been cut.
  boolean full(int number) {
    long high = words[2 * number + 1];
    return high != LONGER && high >>> (PACKED - 9) * 8 != 0;
  }

  private int add(String name) {
    if (size == names.length) {
      grow(2 * size);
    }
    names[size] = name;
    return size++;
  }

  private void grow(int room) {
    names = Arrays.copyOf(names, room);
    words = Arrays.copyOf(words, 2 * room);
  }

  private void widen(int room) {
    int[] wider = new int[room];
    for (int n = 0; n < size; n++) {
      if (words[2 * n + 1] != LONGER) {
        int hash = hash(words[2 * n], words[2 * n + 1]);
        int at = hash & wider.length - 1;
        while (wider[at] != 0) {
          at = at + 1 & wider.length - 1;
        }
        wider[at] = hash >>> TAG << TAG | n + 1;
      }
    }
    slots = wider;
  }
}
