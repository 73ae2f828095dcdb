package ell.core.kit.substitute;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// A parameter of a part, with the names that files give it.
public enum Trait {
  /// Resistance.
  RESISTANCE("resistance", Unit.OHM, "value", "ohms"),
  /// Capacitance.
  CAPACITANCE("capacitance", Unit.FARAD, "value", "farads"),
  /// Nominal frequency.
  FREQUENCY("frequency", Unit.HERTZ, "value"),
  /// Load capacitance of a crystal.
  LOAD_CAPACITANCE("load capacitance", Unit.FARAD, "cl", "load"),
  /// Series resistance of a crystal.
  SERIES_RESISTANCE("series resistance", Unit.OHM, "esr"),
  /// Power that a crystal bears.
  DRIVE_LEVEL("drive level", Unit.WATT, "drive"),
  /// Tolerance of the main value, a fraction.
  TOLERANCE("tolerance", Unit.ONE, "tol", "accuracy", "stability"),
  /// Body or land pattern, in words.
  OUTLINE("outline", null, "package", "footprint", "case"),
  /// Rated voltage.
  VOLTAGE("voltage", Unit.VOLT, "rated voltage", "voltage rating"),
  /// Dielectric of a capacitor, in words.
  DIELECTRIC("dielectric", null, "temperature characteristic"),
  /// Rated power.
  POWER("power", Unit.WATT, "rated power", "power rating"),
  /// Least supply voltage.
  SUPPLY_LOW("supply low", Unit.VOLT, "supply min", "minimum supply", "vcc min"),
  /// Greatest supply voltage.
  SUPPLY_HIGH("supply high", Unit.VOLT, "supply max", "maximum supply", "vcc max"),
  /// Kind of output, in words.
  OUTPUT("output", null, "output type", "output level"),
  /// Reverse voltage of a diode.
  REVERSE_VOLTAGE("reverse voltage", Unit.VOLT, "vr", "vrrm"),
  /// Current that it bears.
  CURRENT("current", Unit.AMPERE, "rated current", "output current", "forward current"),
  /// Forward voltage of a diode.
  FORWARD_VOLTAGE("forward voltage", Unit.VOLT, "vf", "drop"),
  /// Technology, in words, such as schottky.
  TYPE("type", null, "technology"),
  /// Channel or junction, in words, such as n-channel.
  POLARITY("polarity", null, "channel"),
  /// Voltage between drain and source, or collector and emitter.
  SWITCH_VOLTAGE("switch voltage", Unit.VOLT, "vds", "vce", "drain voltage"),
  /// The least gate voltage at which it is stated to be on.
  GATE_VOLTAGE("gate voltage", Unit.VOLT, "drive voltage", "vgs on"),
  /// Output of a regulator.
  OUTPUT_VOLTAGE("output voltage", Unit.VOLT, "vout"),
  /// Least difference of input and output.
  DROPOUT("dropout", Unit.VOLT, "dropout voltage"),
  /// Greatest input.
  INPUT_VOLTAGE("input voltage", Unit.VOLT, "vin max", "maximum input"),
  /// What turns it on, in words: high, low or none.
  ENABLE("enable", null, "enable polarity"),
  /// Which pin does what, in words.
  PINOUT("pin-out", null, "pinout", "pin out"),
  /// Size of a memory in bits.
  SIZE("size", Unit.ONE, "bits", "capacity", "density"),
  /// How it talks, in words.
  INTERFACE("interface", null, "bus"),
  /// Bytes of a page.
  PAGE("page", Unit.ONE, "page size"),
  /// How many pins.
  PINS("pins", Unit.ONE, "positions", "ways", "contacts"),
  /// Distance of pins.
  PITCH("pitch", Unit.METRE),
  /// Through the board or on it, in words.
  MOUNTING("mounting", null, "mount"),
  /// Plug or receptacle, in words.
  GENDER("gender", null);

  private final String words;
  private final Unit unit;
  private final List<String> names;

  Trait(String words, Unit unit, String... more) {
    this.words = words;
    this.unit = unit;
    this.names = List.of(more);
  }

  /// The name as it is shown.
  public String words() {
    return words;
  }

  /// The unit of a number; empty for words.
  public Optional<Unit> unit() {
    return Optional.ofNullable(unit);
  }

  /// Whether a parameter of that name is this.
  boolean named(String name) {
    String n = name.toLowerCase(Locale.ROOT).strip();
    return n.equals(words)
        || n.replace(" ", "").equals(words.replace(" ", ""))
        || names.contains(n);
  }

  /// A value as a number in the unit; tolerances in ppm and percent, sizes in kbit and kB as well.
  Optional<Double> read(String text) {
    String t = text.strip();
    try {
      if (this == TOLERANCE) {
        return Optional.of(tolerance(t));
      }
      if (this == SIZE) {
        return Optional.of(bits(t));
      }
      if (this == PITCH && t.matches("[\\d.,]+")) {
        return Optional.of(EngineeringNumber.parse(t, Unit.ONE) / 1000);
      }
      return Optional.of(EngineeringNumber.parse(t, unit));
    } catch (NumberFormatException e) {
      return Optional.empty();
    }
  }

  private static double tolerance(String text) {
    String t = text.replaceFirst("^(±|\\+/-|\\+-)\\s*", "");
    if (t.matches("(?i).*ppm")) {
      return EngineeringNumber.parse(t.substring(0, t.length() - 3).strip(), Unit.ONE) / 1e6;
    }
    if (t.endsWith("%")) {
      return EngineeringNumber.parse(t.substring(0, t.length() - 1).strip(), Unit.ONE) / 100;
    }
    return EngineeringNumber.parse(t, Unit.ONE);
  }

  /// Kilo is 1024 in sizes of memories: common practice.
  private static double bits(String text) {
    String t = text.replaceAll("\\s+", "");
    double factor = t.matches("(?i).*(bytes?|(?-i:B))$") ? 8 : 1;
    t = t.replaceAll("(?i)(bytes?|bits?|b)$", "");
    if (t.matches("(?i).*ki?$")) {
      factor *= 1024;
    } else if (t.matches("(?i).*mi?$")) {
      factor *= 1024 * 1024;
    } else if (t.matches("(?i).*gi?$")) {
      factor *= 1024.0 * 1024 * 1024;
    }
    return EngineeringNumber.parse(t.replaceAll("(?i)[kmg]i?$", ""), Unit.ONE) * factor;
  }

  /// A number in this trait's unit, in words.
  String print(double value) {
    if (this == TOLERANCE) {
      return value < 1e-3
          ? EngineeringNumber.print(value * 1e6, Unit.ONE, 3) + " ppm"
          : EngineeringNumber.print(value * 100, Unit.ONE, 3) + " %";
    }
    if (this == SIZE) {
      return value % 1024 == 0
          ? EngineeringNumber.print(value / 1024, Unit.ONE) + " kbit"
          : EngineeringNumber.print(value, Unit.ONE) + " bit";
    }
    return EngineeringNumber.print(value, unit, 4);
  }
}
