package ell.core.quantity;

/// A unit that Ell measures in. Values are held in this unit, SI with the exceptions that the trade
/// insists on (degree Celsius for temperature).
public enum Unit {
  /// A pure number or a fraction 0...1.
  ONE("", true),
  /// Electric tension.
  VOLT("V", true),
  /// Electric current.
  AMPERE("A", true),
  /// Resistance.
  OHM("Ω", true),
  /// Capacitance.
  FARAD("F", true),
  /// Inductance.
  HENRY("H", true),
  /// Time.
  SECOND("s", true),
  /// Frequency.
  HERTZ("Hz", true),
  /// Length.
  METRE("m", true),
  /// Area.
  SQUARE_METRE("m²", false),
  /// Volume.
  CUBIC_METRE("m³", false),
  /// Mass, held in kilograms.
  KILOGRAM("kg", false),
  /// Temperature in degree Celsius.
  CELSIUS("°C", false),
  /// Temperature difference.
  KELVIN("K", false),
  /// Thermal resistance.
  KELVIN_PER_WATT("K/W", false),
  /// Mass loading of a pad area, in grams per square millimetre, as the trade quotes it.
  GRAM_PER_SQUARE_MILLIMETRE("g/mm²", false),
  /// Power.
  WATT("W", true),
  /// Energy.
  JOULE("J", true),
  /// Electric charge, held in coulombs; `Ah` reads as 3600 C.
  COULOMB("C", true),
  /// Conductance.
  SIEMENS("S", true),
  /// Speed.
  METRE_PER_SECOND("m/s", false),
  /// How slow an edge is.
  SECOND_PER_VOLT("s/V", true),
  /// Force.
  NEWTON("N", true),
  /// Pressure, modulus of elasticity.
  PASCAL("Pa", true),
  /// Angle in degrees.
  DEGREE("°", false),
  /// Money, no currency implied.
  MONEY("", false);

  private final String symbol;
  private final boolean prefixed;

  Unit(String symbol, boolean prefixed) {
    this.symbol = symbol;
    this.prefixed = prefixed;
  }

  /// The symbol as printed, empty for pure numbers.
  public String symbol() {
    return symbol;
  }

  /// Whether SI prefixes are put before the symbol when it is printed.
  boolean takesPrefix() {
    return prefixed && this != ONE;
  }
}
