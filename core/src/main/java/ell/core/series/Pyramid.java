package ell.core.series;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/// Least and greatest of blocks of samples, of blocks of blocks, and so on: the extremes of any
/// stretch are found in a few looks, so that a hundred million samples draw as fast as a thousand.
/// Grows while samples come in; what is there can be asked at any time. Not safe for several
/// threads.
public final class Pyramid {
  /// Samples of a block of the lowest level.
  public static final int BLOCK = 64;

  private static final int TIMES = 16;

  private final List<Level> levels = new ArrayList<>();
  private int size;
  private float least = Float.POSITIVE_INFINITY;
  private float most = Float.NEGATIVE_INFINITY;

  private static final class Level {
    float[] least = new float[64];
    float[] most = new float[64];
    int count;

    void add(float a, float b) {
      if (count == least.length) {
        least = Arrays.copyOf(least, 2 * count);
        most = Arrays.copyOf(most, 2 * count);
      }
      least[count] = a;
      most[count++] = b;
    }
  }

  /// An empty one.
  public Pyramid() {
    levels.add(new Level());
  }

  /// The pyramid of samples that are there.
  public static Pyramid of(Samples s) {
    Pyramid p = new Pyramid();
    for (int i = 0; i < s.size(); i++) {
      p.add(s.at(i));
    }
    return p;
  }

  /// One whose lowest level was kept.
  ///
  /// @param least of each whole block
  /// @param most likewise
  /// @param s the samples: those behind the last whole block are looked at
  /// @throws IllegalArgumentException when there are not as many blocks as samples make
  public static Pyramid of(float[] least, float[] most, Samples s) {
    if (least.length != s.size() / BLOCK || most.length != least.length) {
      throw new IllegalArgumentException(
          s.size() + " samples make " + s.size() / BLOCK + " blocks, got " + least.length);
    }
    Pyramid p = new Pyramid();
    for (int i = 0; i < least.length; i++) {
      p.block(least[i], most[i]);
    }
    p.size = least.length * BLOCK;
    for (int i = p.size; i < s.size(); i++) {
      p.add(s.at(i));
    }
    return p;
  }

  /// Takes one more sample.
  public void add(float v) {
    least = Math.min(least, v);
    most = Math.max(most, v);
    if (++size % BLOCK == 0) {
      block(least, most);
      least = Float.POSITIVE_INFINITY;
      most = Float.NEGATIVE_INFINITY;
    }
  }

  private void block(float a, float b) {
    float low = a;
    float high = b;
    for (int l = 0; ; l++) {
      if (l == levels.size()) {
        levels.add(new Level());
      }
      Level level = levels.get(l);
      level.add(low, high);
      if (level.count % TIMES != 0) {
        return;
      }
      for (int i = level.count - TIMES; i < level.count; i++) {
        low = Math.min(low, level.least[i]);
        high = Math.max(high, level.most[i]);
      }
    }
  }

  /// How many samples it has taken.
  public int size() {
    return size;
  }

  /// The least of each whole block of the lowest level, for keeping.
  public float[] least() {
    return Arrays.copyOf(levels.getFirst().least, levels.getFirst().count);
  }

  /// The greatest likewise.
  public float[] most() {
    return Arrays.copyOf(levels.getFirst().most, levels.getFirst().count);
  }

  /// Least and greatest of samples from one to before another.
  ///
  /// @param s the samples themselves, for the ends that fill no block
  /// @return `{least, greatest}`, NaN where there are none
  public float[] range(Samples s, int from, int to) {
    int a = Math.max(0, from);
    int b = Math.min(Math.min(size, s.size()), to);
    if (a >= b) {
      return new float[] {Float.NaN, Float.NaN};
    }
    float[] r = {Float.POSITIVE_INFINITY, Float.NEGATIVE_INFINITY};
    int firstBlock = (a + BLOCK - 1) / BLOCK;
    int endBlock = b / BLOCK;
    if (firstBlock >= endBlock) {
      samples(s, a, b, r);
      return r;
    }
    samples(s, a, firstBlock * BLOCK, r);
    samples(s, endBlock * BLOCK, b, r);
    blocks(0, firstBlock, Math.min(endBlock, levels.getFirst().count), r);
    return r;
  }

  private static void samples(Samples s, int from, int to, float[] r) {
    for (int i = from; i < to; i++) {
      float v = s.at(i);
      r[0] = Math.min(r[0], v);
      r[1] = Math.max(r[1], v);
    }
  }

  private void blocks(int l, int from, int to, float[] r) {
    int first = (from + TIMES - 1) / TIMES;
    int end = to / TIMES;
    boolean above = l + 1 < levels.size() && first < end;
    Level level = levels.get(l);
    int a = above ? first * TIMES : to;
    int b = above ? end * TIMES : to;
    for (int i = from; i < a; i++) {
      r[0] = Math.min(r[0], level.least[i]);
      r[1] = Math.max(r[1], level.most[i]);
    }
    for (int i = b; i < to; i++) {
      r[0] = Math.min(r[0], level.least[i]);
      r[1] = Math.max(r[1], level.most[i]);
    }
    if (above) {
      blocks(l + 1, first, end, r);
    }
  }
}
