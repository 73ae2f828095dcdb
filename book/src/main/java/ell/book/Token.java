package ell.book;

import java.security.SecureRandom;
import java.util.UUID;

/// The name of one append, so that one that is sent twice is written once: a UUID of version 7 (RFC
/// 9562), whose rising time keeps the index of them short.
final class Token {
  private static final SecureRandom CHANCE = new SecureRandom();
  private static final long VERSION = 0x7000L;
  private static final long VARIANT = 0x8000000000000000L;
  private static final long RANDOM_A = 0xfffL;
  private static final long RANDOM_B = 0x3fffffffffffffffL;
  private static final int TIME_SHIFT = 16;

  private Token() {}

  static UUID next() {
    long high = System.currentTimeMillis() << TIME_SHIFT | VERSION | CHANCE.nextLong() & RANDOM_A;
    return new UUID(high, VARIANT | CHANCE.nextLong() & RANDOM_B);
  }
}
