package ell.core.trace;

import ell.core.beep.ShortPlaces;

/// What a measurement showed.
public sealed interface Answer {
  /// A number.
  ///
  /// @param value in the unit of its probe, infinite for an open loop
  record Number(double value) implements Answer {}

  /// Milliohms at several joints of a net.
  ///
  /// @param readings with the other tip where it is, on the other net
  record Along(ShortPlaces.Readings readings) implements Answer {}

  /// A word.
  record Word(String word) implements Answer {}
}
