package ell.core.power;

import ell.core.quantity.Check;

/// Equal elements one behind the other on a supply line, each drawing the same current: lamps on a
/// strip, modules on a bus. The line's segments carry what lies behind them.
///
/// @param elements 1...100 000
/// @param current of each, A
/// @param segmentOhms there and back, between one element and the next, and before the first
/// @param supply volts before the first segment
public record Chain(int elements, double current, double segmentOhms, double supply) {
  private static final int MOST = 100_000;

  /// @throws IllegalArgumentException when a value is out of its range
  public Chain {
    Check.inRange(elements, 1, MOST, "elements");
    Check.notNegative(current, "current");
    Check.notNegative(segmentOhms, "resistance of a segment");
    Check.notNegative(supply, "supply");
  }

  /// Ampere into the chain.
  public double total() {
    return elements * current;
  }

  /// Volts at an element, counted from 1; below 0 where the line cannot carry so much.
  public double at(int element) {
    double n = elements;
    // segment j carries n - j + 1 currents
    double carried = element * n - element * (element - 1.0) / 2;
    return supply - current * segmentOhms * carried;
  }

  /// Volts at the last one.
  public double last() {
    return at(elements);
  }

  /// Watts that are lost in the line.
  public double loss() {
    double n = elements;
    return current * current * segmentOhms * n * (n + 1) * (2 * n + 1) / 6;
  }

  /// How many elements at most may hang on one feed so that the last has some volts.
  ///
  /// @return 0 when not even one
  public int longest(double least) {
    int low = 0;
    int high = MOST;
    while (low < high) {
      int mid = (low + high + 1) / 2;
      if (new Chain(mid, current, segmentOhms, supply).last() >= least) {
        low = mid;
      } else {
        high = mid - 1;
      }
    }
    return low;
  }
}
