package ell.core.talk;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;

/// At which rate a sender speaks, told by what a receiver made of words that are known.
///
/// @param ratio the sender's rate over the receiver's
/// @param likeness share of what was heard that is explained, 0...1
public record RateGuess(double ratio, double likeness) {
  private static final double ENOUGH = 0.9;
  private static final double ALIKE = 0.02;

  /// Rates that are in use, bits a second; common practice, no source.
  private static final int[] RATES = {
    300, 1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 74_880, 115_200, 230_400, 250_000, 460_800,
    500_000, 921_600, 1_000_000, 2_000_000, 3_000_000
  };

  /// Tries.
  ///
  /// @param heard bytes, of which up to 400 are looked at
  /// @param healthy what is said when all is well
  /// @param receiver bits a second that it was heard at
  /// @return empty when no rate explains it
  public static Optional<RateGuess> of(byte[] heard, String healthy, double receiver) {
    byte[] sent = healthy.getBytes(StandardCharsets.UTF_8);
    RateGuess best = null;
    for (double r = 0.2; r <= 5; r *= 1.005) {
      RateGuess g = new RateGuess(r, likeness(heard, Framing.of(sent, r).bytes()));
      best = best == null || g.likeness() > best.likeness() ? g : best;
    }
    // of two that explain it alike, the one that is in use
    for (int rate : RATES) {
      double r = rate / receiver;
      if (r >= 0.2 && r <= 5 && Math.abs(r - 1) > 0.1) {
        RateGuess g = new RateGuess(r, likeness(heard, Framing.of(sent, r).bytes()));
        best = g.likeness() >= best.likeness() - ALIKE ? g : best;
      }
    }
    return Optional.ofNullable(best).filter(g -> g.likeness() >= ENOUGH);
  }

  /// The rate as one that is in use, where it is one within 3 %.
  ///
  /// @param receiver bits a second that it listens at
  public String words(double receiver) {
    double rate = ratio * receiver;
    for (int r : RATES) {
      if (Math.abs(rate / r - 1) < 0.03 && Math.abs(ratio - 1) > 0.1) {
        return "it speaks at " + r + " bits a second, and is heard at " + Math.round(receiver);
      }
    }
    return String.format(
        Locale.ROOT,
        "it speaks %.1f %% too %s: its clock, or what its code takes the clock to be",
        Math.abs(ratio - 1) * 100,
        ratio > 1 ? "fast" : "slow");
  }

  /// The longest run of both that is the same in order, over the length of what was heard.
  private static double likeness(byte[] heard, byte[] would) {
    int n = Math.min(heard.length, 400);
    int m = Math.min(would.length, 800);
    if (n == 0 || m == 0) {
      return 0;
    }
    int[] row = new int[m + 1];
    for (int i = 1; i <= n; i++) {
      int before = 0;
      for (int j = 1; j <= m; j++) {
        int up = row[j];
        row[j] = heard[i - 1] == would[j - 1] ? before + 1 : Math.max(row[j], row[j - 1]);
        before = up;
      }
    }
    return (double) row[m] / Math.max(n, Math.min(m, n));
  }
}
