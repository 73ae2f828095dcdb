package ell.core.talk;

/// What a receiver makes of bytes that are sent at another rate than it listens at: it finds the
/// edge of a start bit, and samples the middle of each bit by its own clock. Eight bits, no parity,
/// one stop bit.
public final class Framing {
  private static final int BITS = 10;

  private Framing() {}

  /// What was heard.
  ///
  /// @param bytes with a good stop bit, and those without one too, as a receiver hands them over
  /// @param errors how many had no stop bit where it was sampled
  public record Heard(byte[] bytes, int errors) {}

  /// What a receiver hears of bytes that follow each other without a gap.
  ///
  /// @param ratio the sender's rate over the receiver's, 0.1...10
  /// @throws IllegalArgumentException when it is not
  public static Heard of(byte[] sent, double ratio) {
    if (!(ratio >= 0.1 && ratio <= 10)) {
      throw new IllegalArgumentException("a ratio of rates is in 0.1...10, got " + ratio);
    }
    Bytes out = new Bytes();
    int errors = 0;
    // times in bits of the sender
    double bit = ratio;
    double end = sent.length * (double) BITS;
    double t = 0;
    while (true) {
      t = fall(sent, t);
      if (t >= end) {
        return new Heard(out.array(), errors);
      }
      int b = 0;
      for (int i = 0; i < 8; i++) {
        b |= level(sent, t + (i + 1.5) * bit) ? 1 << i : 0;
      }
      boolean stop = level(sent, t + 9.5 * bit);
      errors += stop ? 0 : 1;
      out.add(b);
      t += 9.5 * bit;
      if (!stop) {
        // it waits for the line to be at rest before it looks for a start bit again
        t = rise(sent, t);
      }
    }
  }

  private static boolean level(byte[] sent, double t) {
    long n = (long) Math.floor(t);
    int at = (int) (n / BITS);
    if (n < 0 || at >= sent.length) {
      return true;
    }
    int i = (int) (n % BITS);
    return i == BITS - 1 || i > 0 && (sent[at] >> (i - 1) & 1) != 0;
  }

  private static double fall(byte[] sent, double from) {
    double end = sent.length * (double) BITS;
    double t = from;
    boolean was = level(sent, t);
    if (!was && t == 0) {
      return 0; // the line was at rest before the first start bit
    }
    while (t < end) {
      double next = Math.floor(t) + 1;
      boolean now = level(sent, next);
      if (was && !now) {
        return next;
      }
      was = now;
      t = next;
    }
    return end;
  }

  private static double rise(byte[] sent, double from) {
    double end = sent.length * (double) BITS;
    double t = from;
    while (t < end && !level(sent, t)) {
      t = Math.floor(t) + 1;
    }
    return t;
  }
}
