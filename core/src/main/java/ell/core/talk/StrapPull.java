package ell.core.talk;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import java.util.Locale;

/// What the load of a signal does to a strap at reset: the pin's own pull and the load divide the
/// supply, and the pin reads low below 0.3 and high above 0.7 of it (common practice for inputs of
/// controllers, no source).
final class StrapPull {
  /// Of a pin that says nothing of its own; typical, no source.
  static final double OWN_PULL = 45e3;

  /// Shares of the supply at which an input reads low and high.
  static final double LOW = 0.3;

  static final double HIGH = 0.7;

  private StrapPull() {}

  static PinMap.Strapped of(Offer o, Need n) {
    String words = "must be " + o.strap() + " at reset";
    if (n.load().isEmpty()) {
      return new PinMap.Strapped(
          o.pin(),
          o.strap(),
          n.signal(),
          false,
          words + "; what hangs on " + n.signal() + " is not known");
    }
    Load load = Load.parse(n.load());
    Load own =
        o.pull().isEmpty() ? new Load(OWN_PULL, o.strap().equals("high")) : Load.parse(o.pull());
    double up = (load.up() ? 1 / load.ohms() : 0) + (own.up() ? 1 / own.ohms() : 0);
    double down = (load.up() ? 0 : 1 / load.ohms()) + (own.up() ? 0 : 1 / own.ohms());
    double share = up / (up + down);
    boolean wrong = o.strap().equals("high") ? share < HIGH : share > LOW;
    return new PinMap.Strapped(
        o.pin(),
        o.strap(),
        n.signal(),
        wrong,
        String.format(
            Locale.ROOT,
            "%s; %s %s against its own %s %s leaves %.2g of the supply: %s",
            words,
            EngineeringNumber.print(load.ohms(), Unit.OHM, 3),
            load.up() ? "up" : "down",
            EngineeringNumber.print(own.ohms(), Unit.OHM, 3),
            own.up() ? "up" : "down",
            share,
            wrong
                ? share > LOW && share < HIGH ? "neither level" : "the wrong level"
                : "as it must be"));
  }

  /// Ohms to the supply or to ground.
  ///
  /// @param ohms above 0
  record Load(double ohms, boolean up) {
    /// Reads `10k high`, `680 GND`, `4k7 3V3`, `pull-up 10k`.
    ///
    /// @throws IllegalArgumentException when it is none
    static Load parse(String text) {
      String[] words = text.strip().split("[\\s:]+");
      double ohms = Double.NaN;
      Boolean up = null;
      for (String w : words) {
        String l = w.toLowerCase(Locale.ROOT);
        if (l.matches("gnd|vss|ground|low|down|pull-?down|0v")) {
          up = false;
        } else if (l.matches("vcc|vdd|supply|high|up|pull-?up|\\+?\\d+v\\d*|v\\d+.*")) {
          up = true;
        } else {
          try {
            ohms = EngineeringNumber.parse(w, Unit.OHM);
          } catch (NumberFormatException e) {
            ohms = Double.NaN;
            break;
          }
        }
      }
      if (!(ohms > 0) || up == null) {
        throw new IllegalArgumentException(
            "a load is ohms and where they go, such as 680 GND or 10k up; found '" + text + "'");
      }
      return new Load(ohms, up);
    }
  }
}
