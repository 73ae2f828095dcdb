package ell.core.power;

import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import java.util.OptionalDouble;

/// Electrical values read from a part's value text, where the first word is the value: `10k 1%`,
/// `100n/16V`, `22 µF 25V`.
public final class PartValue {
  private PartValue() {}

  /// Ohms of a resistor.
  public static OptionalDouble ohms(Part p) {
    return p.kind() == PartKind.RESISTOR ? first(p.value(), Unit.OHM) : OptionalDouble.empty();
  }

  /// Farads of a capacitor.
  public static OptionalDouble farads(Part p) {
    return p.kind() == PartKind.CAPACITOR ? first(p.value(), Unit.FARAD) : OptionalDouble.empty();
  }

  /// Hertz of a crystal, as its value says them; empty when it does not.
  public static OptionalDouble hertz(Part p) {
    return first(p.value().replaceAll("(?i)(\\d)\\s+(?=[kMG]?Hz)", "$1"), Unit.HERTZ);
  }

  private static OptionalDouble first(String value, Unit unit) {
    String[] words = value.strip().split("[\\s/;]+");
    for (String text : new String[] {words.length > 1 ? words[0] + " " + words[1] : "", words[0]}) {
      if (text.isBlank()) {
        continue;
      }
      try {
        Quantity q = EngineeringNumber.read(text, unit);
        if (q.unit() == unit && q.value() >= 0) {
          return OptionalDouble.of(q.value());
        }
      } catch (NumberFormatException e) {
        // the text names no value in this unit; the next reading of it is tried
      }
    }
    return OptionalDouble.empty();
  }
}
