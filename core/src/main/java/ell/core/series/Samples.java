package ell.core.series;

/// Samples that lie evenly apart, wherever they are kept.
public interface Samples {
  /// How many there are.
  int size();

  /// One of them.
  ///
  /// @throws IndexOutOfBoundsException when there is no such sample
  float at(int i);
}
