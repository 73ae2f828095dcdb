package ell.core.pulse;

import ell.core.quantity.Check;

/// A serial line's clock made from a controller's: the divider, what comes of it, and how far both
/// ends may be apart.
///
/// @param divider whole
/// @param actual baud
/// @param error share of the wanted baud, with its sign
public record Baud(long divider, double actual, double error) {
  /// Either end may be off by so much; common practice, no source.
  public static final double SAFE = 0.02;

  /// From the edge of the start bit to the middle of the last of ten, in bits.
  private static final double LAST_SAMPLE = 9.5;

  /// The nearest.
  ///
  /// @param oversampling samples for a bit, whole
  /// @throws IllegalArgumentException when clock or baud is not above 0
  public static Baud of(double clock, double baud, long oversampling) {
    Check.positive(clock, "clock");
    Check.positive(baud, "baud");
    long divider = Math.max(1, Math.round(clock / (oversampling * baud)));
    double actual = clock / (oversampling * (double) divider);
    return new Baud(divider, actual, actual / baud - 1);
  }

  /// By how much both ends together may be off before the last bit of ten is sampled at its edge:
  /// half a bit, less the sample by which the start is found late.
  public static double budget(long oversampling) {
    return (0.5 - 1.0 / oversampling) / LAST_SAMPLE;
  }
}
