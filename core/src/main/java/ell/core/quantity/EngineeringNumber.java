package ell.core.quantity;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Reads and prints engineering numbers.
///
/// Grammar of what is read: `[sign] digits [point digits] [e exponent] [prefix][unit]`, where the
/// point is `.` or `,` (the comma is always decimal), or a letter in place of the point as in
/// `4k7`, `0R1`, `2n2`, `3V3` (letter code for resistance and capacitance values: IEC 60062). A
/// space may stand before the prefix. Prefixes are SI (`u`, `µ` and `μ` alike; `K` is taken as
/// kilo, `Meg` as mega). Lengths also take `mil`, `in` and `inch`; ratios take `%`, charge takes
/// `Ah`, mass takes `g`.
///
/// What is printed without rounding reads back to exactly the same value.
public final class EngineeringNumber {
  private static final String PREFIXES = "fpnµm kMGT";
  private static final Pattern NUMBER =
      Pattern.compile("([+-]?)(\\d+(?:[.,]\\d*)?|[.,]\\d+)(?:[eE]([+-]?\\d{1,3}))?\\s*(.*)");
  private static final Pattern LETTER_POINT =
      Pattern.compile("([+-]?)(\\d*)([pnuµmRrkKMGVvFfHh])(\\d+)\\s*(.*)");
  private static final int MAX_LENGTH = 64;

  private static final Map<String, Scaled> WHOLE_UNITS =
      Map.ofEntries(
          Map.entry("cm", new Scaled("0.01", Unit.METRE)),
          Map.entry("mil", new Scaled("25.4e-6", Unit.METRE)),
          Map.entry("in", new Scaled("0.0254", Unit.METRE)),
          Map.entry("inch", new Scaled("0.0254", Unit.METRE)),
          Map.entry("g", new Scaled("0.001", Unit.KILOGRAM)),
          Map.entry("mg", new Scaled("1e-6", Unit.KILOGRAM)),
          Map.entry("kg", new Scaled("1", Unit.KILOGRAM)),
          Map.entry("%", new Scaled("0.01", Unit.ONE)),
          Map.entry("ppm", new Scaled("1e-6", Unit.ONE)),
          Map.entry("min", new Scaled("60", Unit.SECOND)),
          Map.entry("h", new Scaled("3600", Unit.SECOND)),
          Map.entry("Ah", new Scaled("3600", Unit.COULOMB)),
          Map.entry("mAh", new Scaled("3.6", Unit.COULOMB)),
          Map.entry("°C", new Scaled("1", Unit.CELSIUS)),
          Map.entry("℃", new Scaled("1", Unit.CELSIUS)),
          Map.entry("degC", new Scaled("1", Unit.CELSIUS)),
          Map.entry("K/W", new Scaled("1", Unit.KELVIN_PER_WATT)),
          Map.entry("°C/W", new Scaled("1", Unit.KELVIN_PER_WATT)),
          Map.entry("C/W", new Scaled("1", Unit.KELVIN_PER_WATT)),
          Map.entry("m/s", new Scaled("1", Unit.METRE_PER_SECOND)),
          Map.entry("m2", new Scaled("1", Unit.SQUARE_METRE)),
          Map.entry("m²", new Scaled("1", Unit.SQUARE_METRE)),
          Map.entry("mm2", new Scaled("1e-6", Unit.SQUARE_METRE)),
          Map.entry("mm²", new Scaled("1e-6", Unit.SQUARE_METRE)),
          Map.entry("µm²", new Scaled("1e-12", Unit.SQUARE_METRE)),
          Map.entry("mil2", new Scaled("645.16e-12", Unit.SQUARE_METRE)),
          Map.entry("m³", new Scaled("1", Unit.CUBIC_METRE)),
          Map.entry("m3", new Scaled("1", Unit.CUBIC_METRE)),
          Map.entry("mm3", new Scaled("1e-9", Unit.CUBIC_METRE)),
          Map.entry("mm³", new Scaled("1e-9", Unit.CUBIC_METRE)),
          Map.entry("g/mm²", new Scaled("1", Unit.GRAM_PER_SQUARE_MILLIMETRE)),
          Map.entry("g/mm2", new Scaled("1", Unit.GRAM_PER_SQUARE_MILLIMETRE)),
          Map.entry("°", new Scaled("1", Unit.DEGREE)),
          Map.entry("deg", new Scaled("1", Unit.DEGREE)));

  private static final Map<String, Unit> SYMBOLS =
      Map.ofEntries(
          Map.entry("V", Unit.VOLT),
          Map.entry("A", Unit.AMPERE),
          Map.entry("Ω", Unit.OHM),
          Map.entry("\u2126", Unit.OHM), // the OHM SIGN code point, which some writers use
          Map.entry("ohm", Unit.OHM),
          Map.entry("Ohm", Unit.OHM),
          Map.entry("ohms", Unit.OHM),
          Map.entry("R", Unit.OHM),
          Map.entry("F", Unit.FARAD),
          Map.entry("H", Unit.HENRY),
          Map.entry("s", Unit.SECOND),
          Map.entry("Hz", Unit.HERTZ),
          Map.entry("hz", Unit.HERTZ),
          Map.entry("m", Unit.METRE),
          Map.entry("W", Unit.WATT),
          Map.entry("J", Unit.JOULE),
          Map.entry("C", Unit.COULOMB),
          Map.entry("S", Unit.SIEMENS),
          Map.entry("N", Unit.NEWTON),
          Map.entry("Pa", Unit.PASCAL),
          Map.entry("s/V", Unit.SECOND_PER_VOLT),
          Map.entry("K", Unit.KELVIN));

  private record Scaled(BigDecimal factor, Unit unit) {
    Scaled(String factor, Unit unit) {
      this(new BigDecimal(factor), unit);
    }
  }

  private EngineeringNumber() {}

  /// Reads `text` as a value in `expected`.
  ///
  /// @param text as a maker writes it; a bare number is taken in `expected`
  /// @param expected the unit that the value must have
  /// @return the value in `expected`, finite
  /// @throws NumberFormatException with a sentence when the text is no such value
  public static double parse(String text, Unit expected) {
    Quantity q = read(text, expected);
    if (q.unit() != expected) {
      throw new NumberFormatException(
          "'" + shorten(text) + "' is in " + name(q.unit()) + ", expected " + name(expected));
    }
    return q.value();
  }

  /// Reads `text` with whatever unit it carries; a bare number, or one with only a prefix, is in
  /// `assumed`.
  ///
  /// @throws NumberFormatException with a sentence when the text is not a number
  public static Quantity read(String text, Unit assumed) {
    String t = text.strip().replace('−', '-').replace('μ', 'µ').replace('\u00a0', ' ');
    if (t.isEmpty() || t.length() > MAX_LENGTH) {
      throw new NumberFormatException(
          "expected a number such as " + example(assumed) + ", found '" + shorten(text) + "'");
    }
    Matcher letter = LETTER_POINT.matcher(t);
    if (letter.matches()) {
      return letterPoint(letter, assumed, text);
    }
    Matcher m = NUMBER.matcher(t);
    if (!m.matches()) {
      throw new NumberFormatException(
          "expected a number such as " + example(assumed) + ", found '" + shorten(text) + "'");
    }
    if (m.group(4).startsWith(",") || m.group(4).startsWith(".")) {
      throw new NumberFormatException(
          "'"
              + shorten(text)
              + "' has two decimal points; thousands are written without a separator");
    }
    BigDecimal number = new BigDecimal(plain(m.group(1) + m.group(2)));
    if (m.group(3) != null) {
      number = number.scaleByPowerOfTen(Integer.parseInt(m.group(3).replace("+", "")));
    }
    Scaled tail = tail(m.group(4), assumed, text);
    return finite(number.multiply(tail.factor()), tail.unit(), text);
  }

  private static String plain(String digits) {
    String d = digits.replace(',', '.');
    return d.endsWith(".") ? d + "0" : d;
  }

  private static Quantity letterPoint(Matcher m, Unit assumed, String text) {
    String whole = m.group(2).isEmpty() ? "0" : m.group(2);
    BigDecimal number = new BigDecimal(m.group(1) + whole + "." + m.group(4));
    char c = m.group(3).charAt(0);
    String rest = m.group(5);
    Unit inherent =
        switch (c) {
          case 'R', 'r' -> Unit.OHM;
          case 'V', 'v' -> Unit.VOLT;
          case 'F', 'f' -> Unit.FARAD;
          case 'H', 'h' -> Unit.HENRY;
          default -> null;
        };
    if (inherent != null) {
      if (!rest.isEmpty() && SYMBOLS.get(rest) != inherent) {
        throw new NumberFormatException("'" + shorten(text) + "' has two units");
      }
      return finite(number, inherent, text);
    }
    Unit unit = rest.isEmpty() ? assumed : SYMBOLS.get(rest);
    if (unit == null) {
      throw unknownUnit(rest, assumed, text);
    }
    return finite(number.scaleByPowerOfTen(exponent(c)), unit, text);
  }

  private static Scaled tail(String tail, Unit assumed, String text) {
    if (tail.isEmpty()) {
      return new Scaled(BigDecimal.ONE, assumed);
    }
    if (tail.equals("m") && assumed != Unit.METRE || tail.equals("K") && assumed != Unit.KELVIN) {
      return new Scaled(BigDecimal.ONE.scaleByPowerOfTen(exponent(tail.charAt(0))), assumed);
    }
    if (tail.equals("C") && assumed == Unit.CELSIUS) {
      return new Scaled(BigDecimal.ONE, Unit.CELSIUS);
    }
    if (tail.equals("F") && assumed != Unit.FARAD && assumed != Unit.ONE) {
      throw unknownUnit(tail, assumed, text);
    }
    Scaled whole = WHOLE_UNITS.get(tail);
    if (whole != null && !(tail.equals("h") && assumed == Unit.HENRY)) {
      return whole;
    }
    Unit bare = SYMBOLS.get(tail);
    if (bare != null) {
      return new Scaled(BigDecimal.ONE, bare);
    }
    int prefixLength = tail.startsWith("Meg") || tail.startsWith("MEG") ? 3 : 1;
    int exponent = exponent(tail.charAt(0));
    String symbol = tail.substring(prefixLength).strip();
    Unit unit = symbol.isEmpty() ? assumed : SYMBOLS.get(symbol);
    if (exponent == Integer.MIN_VALUE || unit == null) {
      throw unknownUnit(tail, assumed, text);
    }
    return new Scaled(BigDecimal.ONE.scaleByPowerOfTen(exponent), unit);
  }

  private static int exponent(char prefix) {
    return switch (prefix) {
      case 'f' -> -15;
      case 'p' -> -12;
      case 'n' -> -9;
      case 'u', 'µ' -> -6;
      case 'm' -> -3;
      case 'k', 'K' -> 3;
      case 'M' -> 6;
      case 'G' -> 9;
      case 'T' -> 12;
      default -> Integer.MIN_VALUE;
    };
  }

  private static Quantity finite(BigDecimal number, Unit unit, String text) {
    double value = number.doubleValue();
    if (!Double.isFinite(value)) {
      throw new NumberFormatException("'" + shorten(text) + "' is too large");
    }
    return new Quantity(value, unit);
  }

  private static NumberFormatException unknownUnit(String tail, Unit assumed, String text) {
    return new NumberFormatException(
        "unknown unit '"
            + shorten(tail)
            + "' in '"
            + shorten(text)
            + "', expected "
            + name(assumed));
  }

  private static String shorten(String text) {
    return text.length() <= 40 ? text : text.substring(0, 40) + "...";
  }

  private static String name(Unit unit) {
    return unit.symbol().isEmpty() ? "a plain number" : unit.symbol();
  }

  private static String example(Unit unit) {
    return switch (unit) {
      case OHM -> "4k7";
      case FARAD -> "100n";
      case METRE -> "0.12mm";
      case VOLT -> "3.3V";
      case AMPERE -> "120mA";
      case SECOND -> "5ms";
      default -> "1.5" + unit.symbol();
    };
  }

  /// Prints `value` exactly, in engineering form with its unit: `4.7 kΩ`, `12.5 mm`, `-40 °C`.
  /// Reads back to the same value.
  ///
  /// @throws IllegalArgumentException when the value is not finite
  public static String print(double value, Unit unit) {
    return engineering(new BigDecimal(Double.toString(Check.finite(value, "value"))), unit, false);
  }

  /// Prints `value` rounded to `digits` significant digits, trailing zeros kept: `3.290 V`.
  ///
  /// @param digits 1...15
  /// @throws IllegalArgumentException when digits is not in 1...15
  public static String print(double value, Unit unit, int digits) {
    Check.inRange(digits, 1, 15, "digits");
    if (!Double.isFinite(value)) {
      return Double.isNaN(value) ? "unknown" : value > 0 ? "∞" : "−∞";
    }
    BigDecimal d = new BigDecimal(value).round(new MathContext(digits, RoundingMode.HALF_EVEN));
    if (d.signum() != 0 && d.precision() < digits) {
      d = d.setScale(d.scale() + digits - d.precision());
    }
    return engineering(d, unit, true);
  }

  private static String engineering(BigDecimal d, Unit unit, boolean keepZeros) {
    if (d.signum() == 0) {
      return join("0", unit.symbol());
    }
    int magnitude = d.precision() - d.scale() - 1;
    String prefix = "";
    if (unit.takesPrefix()) {
      int steps = Math.clamp(Math.floorDiv(magnitude, 3), -5, 4);
      prefix = steps == 0 ? "" : String.valueOf(PREFIXES.charAt(steps + 5));
      d = d.scaleByPowerOfTen(-3 * steps);
    } else if (unit == Unit.KILOGRAM && magnitude < 0) {
      return join(text(d.scaleByPowerOfTen(3), keepZeros), "g");
    } else if (unit == Unit.SQUARE_METRE && magnitude < -2) {
      return join(text(d.scaleByPowerOfTen(6), keepZeros), "mm²");
    } else if (unit == Unit.CUBIC_METRE && magnitude < -4) {
      return join(text(d.scaleByPowerOfTen(9), keepZeros), "mm³");
    }
    return join(text(d, keepZeros), prefix + unit.symbol());
  }

  private static String text(BigDecimal d, boolean keepZeros) {
    int magnitude = d.precision() - d.scale() - 1;
    if (magnitude > 14 || magnitude < -6) {
      return d.toString().toLowerCase(Locale.ROOT).replace("e+", "e");
    }
    if (keepZeros && d.scale() >= 0) {
      return d.toPlainString();
    }
    String s = d.toPlainString();
    return s.contains(".") ? s.replaceAll("0+$", "").replaceAll("\\.$", "") : s;
  }

  private static String join(String number, String symbol) {
    return symbol.isEmpty() ? number : number + " " + symbol;
  }
}
