package ell.files.series;

import ell.core.heat.Thermocouple;
import java.util.Locale;
import java.util.Optional;

/// Columns of temperature: `T1 [°C]`, `board (F)`, `K`, or `mV` of a thermocouple of type K whose
/// cold end is at 0 °C. A column of anything else (`%`, `W`, `rpm`, `phase`) is passed over.
final class Temperatures implements Sense {
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
    return new Column("T" + place, c -> c);
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
        || h.matches(".*[\\[(/]\\s*(%|w|kw|a|v|hz|pa|rpm|s|min)\\s*[\\])]?$")
        || h.matches(
            "(index|no\\.?|nr|#|sample|power|duty|humidity|rh|state|phase|note|remark|comment|date|time).*")) {
      return Optional.empty();
    }
    return Optional.of(new Column(name, c -> c));
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
}
