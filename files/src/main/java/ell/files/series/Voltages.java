package ell.files.series;

import java.util.Locale;
import java.util.Optional;

/// Columns of a capture: volts, also as `mV` or `kV`; what says no unit is volts. Columns that
/// count samples, and those of another unit, are passed over.
final class Voltages implements Sense {
  @Override
  public String reading() {
    return "voltage";
  }

  @Override
  public String example() {
    return "time (s),CH1 (V)";
  }

  @Override
  public String unit() {
    return "V";
  }

  @Override
  public Column unnamed(int place) {
    return new Column("CH" + place, v -> v);
  }

  @Override
  public String withoutUnit(String cell) {
    return cell.replaceAll("\\s*(volts?|v)$", "");
  }

  @Override
  public Optional<Column> column(String heading) {
    String h = heading.toLowerCase(Locale.ROOT).strip();
    if (h.isEmpty()
        || h.matches(
            "(index|no\\.?|nr\\.?|n|#|sample|samples|point|points|record|date|time)\\b.*")) {
      return Optional.empty();
    }
    if (h.matches(
        ".*[\\[(/]\\s*([munµμ]?a|amps?|amperes?|%|°?c|m?w|[kmg]?hz|db|deg)\\s*[\\])]?$")) {
      return Optional.empty();
    }
    double scale =
        h.matches(".*[\\[(/ _]\\s*(mv|millivolts?)\\s*[\\])]?$")
            ? 1e-3
            : h.matches(".*[\\[(/ _]\\s*([uµμ]v|microvolts?)\\s*[\\])]?$")
                ? 1e-6
                : h.matches(".*[\\[(/ _]\\s*kv\\s*[\\])]?$") ? 1e3 : 1;
    String name =
        heading
            .replaceAll("\\s*[\\[(]\\s*([mukµμ]?[vVaA]|[Vv]olts?)\\s*[\\])]", "")
            .replaceAll("\\s*/\\s*[mukµμ]?[vV]$", "")
            .strip();
    return Optional.of(new Column(name.isEmpty() ? heading.strip() : name, v -> v * scale));
  }
}
