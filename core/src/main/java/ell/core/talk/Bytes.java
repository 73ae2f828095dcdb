package ell.core.talk;

import java.util.Arrays;

/// Bytes that grow. Not for many threads.
final class Bytes {
  private byte[] held = new byte[64];
  private int size;

  void add(int b) {
    room(1);
    held[size++] = (byte) b;
  }

  void add(byte[] from, int at, int to) {
    room(to - at);
    System.arraycopy(from, at, held, size, to - at);
    size += to - at;
  }

  private void room(int more) {
    if (size + more > held.length) {
      held = Arrays.copyOf(held, Math.max(2 * held.length, size + more));
    }
  }

  int size() {
    return size;
  }

  byte[] array() {
    return Arrays.copyOf(held, size);
  }

  void clear() {
    size = 0;
  }
}
