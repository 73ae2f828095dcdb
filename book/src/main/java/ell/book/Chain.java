package ell.book;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;

/// The hash chain over the entries: each hash covers the one before and everything that the entry
/// says, so a changed, missing or moved entry shows. SHA-256 (FIPS 180-4).
final class Chain {
  /// What the first entry is chained to.
  static final byte[] START = new byte[32];

  private final MessageDigest digest;

  Chain() {
    try {
      digest = MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }

  byte[] next(byte[] before, long number, String at, String board, String body) {
    digest.update(before);
    digest.update((number + "\n" + at + "\n" + board + "\n").getBytes(StandardCharsets.UTF_8));
    return digest.digest(body.getBytes(StandardCharsets.UTF_8));
  }

  /// The seal that a whole list of entries ends in, hexadecimal.
  static String seal(Iterable<Written> entries) {
    Chain chain = new Chain();
    byte[] hash = START;
    for (Written e : entries) {
      hash = chain.next(hash, e.number(), e.at(), e.board(), e.body());
    }
    return java.util.HexFormat.of().formatHex(hash);
  }
}
