package ell.core.power;

import ell.core.quantity.Check;

/// How a cell charges: with a steady current until its terminals reach their most, then at those
/// volts while the current falls, until it is small. The cell is one whose own volts go straight
/// from empty to full, behind a resistance.
///
/// @param coulombs of a full cell, above 0
/// @param empty its own volts without charge
/// @param full its own volts with all of it, and the most that its terminals may have
/// @param ohms of itself, above 0
/// @param current while it is steady, A, above 0
/// @param end the current at which it is taken for full, A, above 0, not above `current`
public record Charging(
    double coulombs, double empty, double full, double ohms, double current, double end) {
  /// @throws IllegalArgumentException when a value is out of its range
  public Charging {
    Check.positive(coulombs, "capacity");
    Check.positive(ohms, "resistance");
    Check.positive(current, "current");
    Check.inRange(end, Double.MIN_VALUE, current, "end");
    if (!(full > empty)) {
      throw new IllegalArgumentException(
          "a full cell has more volts than an empty one, got " + full + " and " + empty);
    }
  }

  /// The share of charge at which the steady current ends, 0 when it never begins.
  public double turns() {
    return Math.max(0, (full - current * ohms - empty) / (full - empty));
  }

  /// Seconds with a steady current from some share of charge on.
  public double steady(double share) {
    return Math.max(0, turns() - share) * coulombs / current;
  }

  /// The time constant in which the current falls, s: resistance times what a volt holds.
  public double falls() {
    return ohms * coulombs / (full - empty);
  }

  /// Seconds at steady volts from some share of charge on.
  public double falling(double share) {
    double at = Math.max(turns(), share);
    double begins = Math.min(current, (full - empty) * (1 - at) / ohms);
    return begins <= end ? 0 : falls() * Math.log(begins / end);
  }

  /// The share of charge at the end.
  public double ends() {
    return 1 - end * ohms / (full - empty);
  }
}
