package ell.core.trace;

/// What a measurement showed.
public sealed interface Answer {
  /// A number.
  ///
  /// @param value in the unit of its probe, infinite for an open loop
  record Number(double value) implements Answer {}

  /// A word.
  record Word(String word) implements Answer {}
}
