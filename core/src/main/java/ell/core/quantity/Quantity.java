package ell.core.quantity;

/// A finite number with its unit.
///
/// @param value in `unit`, finite
/// @param unit the unit
public record Quantity(double value, Unit unit) {
  public Quantity {
    Check.finite(value, "value");
  }

  @Override
  public String toString() {
    return EngineeringNumber.print(value, unit);
  }
}
