package ell.core.pulse;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// What inputs of a kind of logic want: a row of a small file of words. Levels are volts, or shares
/// of the supply written as `0.3vdd`.
///
/// @param name by which it is called, such as `cmos3.3`
/// @param supply volts that it is meant for
/// @param vil the most that is low, V
/// @param vih the least that is high, V
/// @param vol the most that an output gives when it is low, V
/// @param voh the least that an output gives when it is high, V
/// @param slowest seconds that an edge may take for each volt; infinite where an input bears any
/// @param most volts that an input bears, infinite where nothing is said
/// @param source where the numbers are from
public record LogicFamily(
    String name,
    double supply,
    double vil,
    double vih,
    double vol,
    double voh,
    double slowest,
    double most,
    String source) {
  private static final int CELLS = 9;
  private static final double NEAR = 0.12;

  /// The families that ship.
  public static final List<LogicFamily> SHIPPED = read(ShippedFamilies.LINES);

  /// @throws IllegalArgumentException when levels are the wrong way round
  public LogicFamily {
    if (!(vil < vih) || !(vol < voh)) {
      throw new IllegalArgumentException(
          "family "
              + name
              + ": vil is below vih and vol below voh, got "
              + vil
              + ", "
              + vih
              + ", "
              + vol
              + ", "
              + voh);
    }
  }

  /// What an input of it wants.
  public Arrives.Input input() {
    return new Arrives.Input(vil, vih, slowest, most);
  }

  /// Reads a file of families: `name,supply,vil,vih,vol,voh,slowest,most,source`; lines that begin
  /// with `#` and a heading are passed over, an empty cell says nothing.
  ///
  /// @throws IllegalArgumentException naming the line and what was expected
  public static List<LogicFamily> read(String text) {
    List<LogicFamily> all = new ArrayList<>();
    int n = 0;
    for (String line : text.lines().toList()) {
      n++;
      String l = line.strip();
      if (l.isEmpty() || l.startsWith("#") || l.startsWith("name,")) {
        continue;
      }
      String[] c = l.split(",", CELLS);
      if (c.length < CELLS - 1) {
        throw new IllegalArgumentException(
            "line "
                + n
                + ": expected name,supply,vil,vih,vol,voh,slowest,most,source, found '"
                + l
                + "'");
      }
      try {
        double supply = EngineeringNumber.parse(c[1].strip(), Unit.VOLT);
        all.add(
            new LogicFamily(
                c[0].strip().toLowerCase(Locale.ROOT),
                supply,
                level(c[2], supply),
                level(c[3], supply),
                level(c[4], supply),
                level(c[5], supply),
                c[6].isBlank()
                    ? Double.POSITIVE_INFINITY
                    : EngineeringNumber.parse(c[6].strip(), Unit.SECOND_PER_VOLT),
                c[7].isBlank() ? Double.POSITIVE_INFINITY : level(c[7], supply),
                c.length < CELLS ? "" : c[8].strip()));
      } catch (IllegalArgumentException e) {
        throw new IllegalArgumentException("line " + n + ": " + e.getMessage(), e);
      }
    }
    return List.copyOf(all);
  }

  private static double level(String cell, double supply) {
    String c = cell.strip().toLowerCase(Locale.ROOT);
    if (c.endsWith("vdd")) {
      String share = c.substring(0, c.length() - 3).strip();
      return supply * (share.isEmpty() ? 1 : EngineeringNumber.parse(share, Unit.ONE));
    }
    int over = c.indexOf("vdd+");
    return over == 0
        ? supply + EngineeringNumber.parse(c.substring(4), Unit.VOLT)
        : EngineeringNumber.parse(c, Unit.VOLT);
  }

  /// The one of a name among others.
  public static Optional<LogicFamily> named(String name, List<LogicFamily> all) {
    return all.stream().filter(f -> f.name().equalsIgnoreCase(name)).findFirst();
  }

  /// The first that is meant for a supply, for a guess.
  public static Optional<LogicFamily> at(double supply, List<LogicFamily> all) {
    return all.stream().filter(f -> Math.abs(f.supply() - supply) <= NEAR * f.supply()).findFirst();
  }
}
