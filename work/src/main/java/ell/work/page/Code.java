package ell.work.page;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.Set;
import java.util.function.LongSupplier;

/// The code that is read off where the sharing began and typed on the phone. It is new each time
/// and never written anywhere; who typed it once keeps a token for as long as the sharing lasts.
final class Code {
  /// So many wrong codes are taken before everybody waits.
  static final int TRIES = 5;

  /// How long everybody waits then, in seconds.
  static final int WAIT = 60;

  private static final SecureRandom RANDOM = new SecureRandom();

  private final String digits;
  private final LongSupplier nanos;
  private final Set<String> tokens = new HashSet<>();
  private int wrong;
  private long closedUntil;
  private boolean closed;

  /// A new code.
  ///
  /// @param nanos a clock that only goes forward
  Code(LongSupplier nanos) {
    this.digits = String.format(java.util.Locale.ROOT, "%06d", RANDOM.nextInt(1_000_000));
    this.nanos = nanos;
  }

  /// Six digits, in two groups as they are read.
  String read() {
    return digits.substring(0, 3) + " " + digits.substring(3);
  }

  /// What came of a code.
  enum Came {
    RIGHT,
    WRONG,
    WAIT
  }

  /// Tries a code as somebody typed it; spaces do not count.
  synchronized Came tried(String typed) {
    if (closed && nanos.getAsLong() - closedUntil < 0) {
      return Came.WAIT;
    }
    closed = false;
    byte[] a = typed.replaceAll("\\s", "").getBytes(StandardCharsets.UTF_8);
    if (MessageDigest.isEqual(a, digits.getBytes(StandardCharsets.UTF_8))) {
      wrong = 0;
      return Came.RIGHT;
    }
    if (++wrong >= TRIES) {
      wrong = 0;
      closed = true;
      closedUntil = nanos.getAsLong() + WAIT * 1_000_000_000L;
    }
    return Came.WRONG;
  }

  /// A token for who typed it right.
  synchronized String token() {
    byte[] b = new byte[16];
    RANDOM.nextBytes(b);
    String t = HexFormat.of().formatHex(b);
    tokens.add(t);
    return t;
  }

  /// Whether a token was given out.
  synchronized boolean knows(String token) {
    return tokens.contains(token);
  }
}
