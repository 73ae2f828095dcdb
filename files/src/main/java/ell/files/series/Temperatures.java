package ell.files.series;

import ell.core.heat.Thermocouple;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;

/// Columns of temperature: `T1 [°C]`, `board (F)`, `K`, or `mV` of a thermocouple of type K whose
/// cold end is at 0 °C. A column of anything else (`%`, `W`, `rpm`, `phase`) is passed over.
final class Temperatures implements Sense {
  /// A room is that warm, as degrees Fahrenheit and not as Celsius; common practice, no source.
  private static final double ROOM_F = 58;

  private static final double WARM_F = 110;

  /// No board is soldered hotter, in degree Celsius; common practice, no source.
  private static final double HOTTEST_C = 310;

  /// A run of soldering lasts between these, in second; common practice, no source.
  private static final double SHORTEST_S = 40;

  private static final double LONGEST_S = 10_800;

  /// Steps below are of a minute and not of a second, in a log that is too short for seconds.
  private static final double FINEST = 0.2;

  private final String unit;
  private final String timeUnit;

  /// @param unit of columns that do not say theirs, `C`, `F` or `K`; empty to judge by the readings
  /// @param timeUnit of times whose heading does not say it, `s`, `ms` or `min`; empty to judge by
  ///   the length of the log
  Temperatures(String unit, String timeUnit) {
    this.unit = unit;
    this.timeUnit = timeUnit;
  }

  @Override
  public String reading() {
    return "temperature";
  }

  @Override
  public String example() {
    return "time (s),board (°C)";
  }

  @Override
  public String unit() {
    return "°C";
  }

  @Override
  public Column unnamed(int place) {
    return new Column("T" + place, c -> c, false);
  }

  @Override
  public String withoutUnit(String cell) {
    return cell.replaceAll("\\s*(°|º|deg)?\\s*[cfk]$", "");
  }

  @Override
  public Optional<Column> column(String heading) {
    String h = heading.toLowerCase(Locale.ROOT).replace('º', '°');
    String name = name(heading);
    if (h.matches(".*([ _]deg)?_f$")
        || h.matches(".*(°\\s*f|\\bdeg\\s*f\\b|fahrenheit).*")
        || h.matches(".*[\\[(/]\\s*f\\s*[\\])]?$")) {
      return Optional.of(new Column(name, f -> (f - 32) * 5 / 9));
    }
    if (h.matches(".*[\\[(/]\\s*(k|kelvin)\\s*[\\])]?$")) {
      return Optional.of(new Column(name, k -> k - 273.15));
    }
    if (h.matches(".*[\\[(/ ]\\s*mv\\s*[\\])]?$")) {
      return Optional.of(new Column(name, mv -> Thermocouple.celsius(mv * 1e-3, 0)));
    }
    if (h.isEmpty()
        || h.matches(".*[\\[(/]\\s*(%|-|w|kw|a|v|hz|pa|rpm|s|min)\\s*[\\])]?$")
        || h.matches(
            "(zone name|stage|step|status|alarm|event|text|user|operator|name|file|label|tag)\\b.*")
        || h.matches(
            "(index|no\\.?|nr|#|sample|power|duty|humidity|rh|state|phase|note|remark|comment|date|time).*")) {
      return Optional.empty();
    }
    boolean stated =
        h.matches(
            ".*(°\\s*c|\\bdeg\\s*c\\b|celsius|centigrade).*|.*[ _]c$|.*[\\[(/]\\s*c\\s*[\\])]?$");
    return Optional.of(new Column(name, c -> c, stated));
  }

  private static String name(String heading) {
    String n =
        heading
            .replaceAll(
                "[\\[(]\\s*(°|º|deg)?\\s*(c|f|k|celsius|fahrenheit|kelvin|mv|C|F|K|mV)\\s*[\\])]",
                "")
            .replaceAll("\\s*[/,]?\\s*(°|º)\\s*[CcFf]\\s*$", "")
            .strip();
    return n.isEmpty() ? heading : n;
  }

  @Override
  public Optional<Taken> unstated(List<double[]> readings) {
    if (!unit.isEmpty()) {
      return Optional.of(new Taken("", scale(unit), ""));
    }
    double first = readings.stream().mapToDouble(r -> r[0]).min().orElse(0);
    double hottest =
        readings.stream().mapToDouble(r -> Arrays.stream(r).max().orElse(0)).max().orElse(0);
    boolean fahrenheit = first >= ROOM_F && first <= WARM_F && hottest > HOTTEST_C;
    return Optional.of(
        new Taken(
            fahrenheit ? "°F, as it begins warm and peaks at " + Math.round(hottest) : "°C",
            scale(fahrenheit ? "F" : "C"),
            "--unit " + (fahrenheit ? "C" : "F")));
  }

  private static DoubleUnaryOperator scale(String unit) {
    return switch (unit) {
      case "F" -> f -> (f - 32) * 5 / 9;
      case "K" -> k -> k - 273.15;
      default -> c -> c;
    };
  }

  @Override
  public Optional<Taken> unstatedTime(double length, int rows) {
    if (!timeUnit.isEmpty()) {
      double s = timeUnit.equals("ms") ? 1e-3 : timeUnit.equals("min") ? 60 : 1;
      return Optional.of(new Taken("", t -> t * s, ""));
    }
    if (length > LONGEST_S && length * 1e-3 >= SHORTEST_S && length * 1e-3 <= LONGEST_S) {
      return Optional.of(new Taken("millisecond", t -> t * 1e-3, "--time-unit s"));
    }
    if (length < SHORTEST_S && length * 60 >= SHORTEST_S && length / rows < FINEST) {
      return Optional.of(new Taken("minute", t -> t * 60, "--time-unit s"));
    }
    return Optional.empty();
  }
}
