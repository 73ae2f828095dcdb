package ell.core.talk;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import java.util.Optional;

/// A frame of the boot loader's protocol, the same in both directions:
///
/// | bytes | what |
/// |---|---|
/// | 1 | 0x1D |
/// | 1 | kind: a letter |
/// | 1 | number, counted by who asks; the answer has that of the question |
/// | 2 | length of what follows, least byte first, up to 260 |
/// | n | body |
/// | 2 | CRC-16 of everything between the first byte and this, least byte first |
///
/// Questions: `H` who are you; `B` begin, erase (size, CRC-32); `D` data (offset, up to 256 bytes);
/// `E` end, check the whole; `R` run. Answers: `A` with a status byte and what was asked for. A
/// frame that does not check is not answered: who asked asks again. Whatever is asked twice is done
/// once.
///
/// @param kind a letter
/// @param number 0...255
/// @param body up to 260 bytes
public record LoaderFrame(char kind, int number, byte[] body) {
  /// The first byte.
  public static final int START = 0x1D;

  /// Bytes of an image in one frame.
  public static final int BLOCK = 256;

  /// What a status byte says: done.
  public static final int OK = 0;

  /// The image does not check, or is not whole.
  public static final int BAD_IMAGE = 1;

  /// Out of order, or out of room.
  public static final int REFUSED = 2;

  private static final int LONGEST = BLOCK + 4;
  private static final int HEAD = 5;

  /// @throws IllegalArgumentException when the body is too long
  public LoaderFrame {
    if (body.length > LONGEST) {
      throw new IllegalArgumentException(
          "a frame holds up to " + LONGEST + " bytes, found " + body.length);
    }
  }

  /// As it goes over the line.
  public byte[] bytes() {
    byte[] all = new byte[HEAD + body.length + 2];
    all[0] = START;
    all[1] = (byte) kind;
    all[2] = (byte) number;
    all[3] = (byte) body.length;
    all[4] = (byte) (body.length >> 8);
    System.arraycopy(body, 0, all, HEAD, body.length);
    int crc = Crc.crc16(all, 1, HEAD + body.length);
    all[HEAD + body.length] = (byte) crc;
    all[HEAD + body.length + 1] = (byte) (crc >> 8);
    return all;
  }

  /// Who are you.
  public static LoaderFrame hello(int number) {
    return new LoaderFrame('H', number, new byte[0]);
  }

  /// Begin with an image: what was there is gone from here on.
  public static LoaderFrame begin(int number, byte[] image) {
    return new LoaderFrame(
        'B', number, little(8).putInt(image.length).putInt((int) Crc.crc32(image)).array());
  }

  /// A block of the image.
  public static LoaderFrame data(int number, byte[] image, int offset) {
    int n = Math.min(BLOCK, image.length - offset);
    return new LoaderFrame('D', number, little(4 + n).putInt(offset).put(image, offset, n).array());
  }

  /// Check the whole.
  public static LoaderFrame end(int number) {
    return new LoaderFrame('E', number, new byte[0]);
  }

  /// Run it.
  public static LoaderFrame run(int number) {
    return new LoaderFrame('R', number, new byte[0]);
  }

  /// An answer.
  public static LoaderFrame answer(int number, int status, byte[] more) {
    byte[] body = new byte[1 + more.length];
    body[0] = (byte) status;
    System.arraycopy(more, 0, body, 1, more.length);
    return new LoaderFrame('A', number, body);
  }

  /// The body as numbers, least byte first.
  public ByteBuffer reads() {
    return ByteBuffer.wrap(body).order(ByteOrder.LITTLE_ENDIAN);
  }

  private static ByteBuffer little(int size) {
    return ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof LoaderFrame f
        && f.kind == kind
        && f.number == number
        && Arrays.equals(f.body, body);
  }

  @Override
  public int hashCode() {
    return 31 * (31 * kind + number) + Arrays.hashCode(body);
  }

  @Override
  public String toString() {
    return kind + " " + number + ", " + body.length + " bytes";
  }

  /// Takes frames out of bytes as they come; what is no frame is passed over. Not for many threads.
  public static final class Taker {
    private final Bytes held = new Bytes();
    private final Bytes stray = new Bytes();

    /// Takes a byte.
    ///
    /// @return the frame that it ends
    public Optional<LoaderFrame> take(int b) {
      if (held.size() == 0 && b != START) {
        stray.add(b);
        return Optional.empty();
      }
      held.add(b);
      return whole();
    }

    /// Bytes that belonged to no frame, what was begun and given up among them.
    public byte[] stray() {
      byte[] begun = held.array();
      stray.add(begun, 0, begun.length);
      held.clear();
      byte[] all = stray.array();
      stray.clear();
      return all;
    }

    private Optional<LoaderFrame> whole() {
      while (held.size() >= HEAD) {
        byte[] b = held.array();
        int n = (b[3] & 0xff) | (b[4] & 0xff) << 8;
        if (n <= LONGEST && b.length < HEAD + n + 2) {
          return Optional.empty();
        }
        if (n <= LONGEST) {
          int crc = (b[HEAD + n] & 0xff) | (b[HEAD + n + 1] & 0xff) << 8;
          if (crc == Crc.crc16(b, 1, HEAD + n)) {
            held.clear();
            held.add(b, HEAD + n + 2, b.length);
            return Optional.of(
                new LoaderFrame(
                    (char) (b[1] & 0xff), b[2] & 0xff, Arrays.copyOfRange(b, HEAD, HEAD + n)));
          }
        }
        again(b);
      }
      return Optional.empty();
    }

    /// It was no frame: another may begin inside of it.
    private void again(byte[] b) {
      int next = 1;
      while (next < b.length && b[next] != START) {
        next++;
      }
      stray.add(b, 0, next);
      held.clear();
      held.add(b, next, b.length);
    }
  }
}
