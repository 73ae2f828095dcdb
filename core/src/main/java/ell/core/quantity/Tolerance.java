package ell.core.quantity;

/// A tolerance, relative (`±5 %`) or absolute (`±0.1 V`), symmetrical.
///
/// @param relative true when `amount` is a fraction of the nominal value
/// @param amount a fraction, or a value in `unit`; not below 0
/// @param unit the unit of an absolute amount, [Unit#ONE] for a relative one
public record Tolerance(boolean relative, double amount, Unit unit) {
  public Tolerance {
    Check.notNegative(amount, "amount");
  }

  /// Reads `±5 %`, `+-1%`, `±0.1 V` or `5%`.
  ///
  /// @throws NumberFormatException when the text is no tolerance
  public static Tolerance parse(String text) {
    String t = text.strip();
    for (String sign : new String[] {"±", "+/-", "+-"}) {
      if (t.startsWith(sign)) {
        t = t.substring(sign.length()).strip();
        break;
      }
    }
    if (t.startsWith("-")) {
      throw new NumberFormatException("a tolerance is written ±5 %, found '" + text + "'");
    }
    Quantity q = EngineeringNumber.read(t, Unit.ONE);
    return new Tolerance(q.unit() == Unit.ONE, q.value(), q.unit());
  }

  /// The limits around `nominal`, which is in the unit of the value.
  public Limits around(double nominal) {
    double half = relative ? Math.abs(nominal) * amount : amount;
    return new Limits(nominal - half, nominal + half);
  }

  @Override
  public String toString() {
    return relative
        ? "±" + EngineeringNumber.print(amount * 100, Unit.ONE, 6).replaceAll("\\.?0+$", "") + " %"
        : "±" + EngineeringNumber.print(amount, unit);
  }
}
