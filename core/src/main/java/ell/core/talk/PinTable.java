package ell.core.talk;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What firmware needs of pins, and what a controller board offers.
public final class PinTable {
  private PinTable() {}

  /// A signal of the firmware.
  ///
  /// @param signal its name in the code
  /// @param needs words, all of which its pin must offer; at least one
  /// @param was the pin it is on in the code, empty when it is on none yet
  /// @param load what hangs on it at reset, such as `680 GND` or `10k 3V3`; empty when nothing is
  ///   known of it
  public record Need(String signal, Set<String> needs, String was, String load) {
    /// @throws IllegalArgumentException when there is no name or no need
    public Need {
      if (signal.isBlank() || needs.isEmpty()) {
        throw new IllegalArgumentException("a signal has a name and at least one need");
      }
      needs = java.util.Collections.unmodifiableSet(new LinkedHashSet<>(needs));
    }
  }

  /// A pin of a controller board.
  ///
  /// @param pin its name
  /// @param offers words
  /// @param strap the level that it must have at reset, `high` or `low`; empty when it is no strap
  /// @param shared what else of the board uses it, empty when nothing does
  /// @param pull its own pull at reset in words, such as `45k high`; empty for none
  public record Offer(String pin, Set<String> offers, String strap, String shared, String pull) {
    /// @throws IllegalArgumentException when there is no name, or the strap is neither level
    public Offer {
      if (pin.isBlank()) {
        throw new IllegalArgumentException("a pin has a name");
      }
      offers = java.util.Collections.unmodifiableSet(new LinkedHashSet<>(offers));
      if (!strap.isEmpty() && !strap.equals("high") && !strap.equals("low")) {
        throw new IllegalArgumentException(
            "a strap must be high or low at reset, found '" + strap + "'");
      }
    }

    /// Whether it offers all of what is needed.
    public boolean meets(Need n) {
      return offers.containsAll(n.needs());
    }
  }

  /// Words of a cell: divided by blanks, in small letters.
  public static Set<String> words(String cell) {
    Set<String> all = new LinkedHashSet<>();
    for (String w : cell.strip().toLowerCase(Locale.ROOT).split("[\\s;|+]+")) {
      if (!w.isEmpty()) {
        all.add(w);
      }
    }
    return all;
  }

  /// The level that a strap must have, as tables write it.
  ///
  /// @return `high`, `low`, or nothing for no strap
  /// @throws IllegalArgumentException when it is none of these
  public static String level(String cell) {
    return switch (cell.strip().toLowerCase(Locale.ROOT)) {
      case "", "-", "no", "none", "false" -> "";
      case "high", "h", "1", "up", "hi", "pull-up" -> "high";
      case "low", "l", "0", "down", "lo", "pull-down" -> "low";
      // a strap of which nobody says the level: any level may be the wrong one
      default ->
          throw new IllegalArgumentException(
              "a strap is high or low at reset, found '" + cell.strip() + "'");
    };
  }

  /// Signals that appear twice, and pins that appear twice, as sentences.
  static List<String> doubles(List<Need> needs, List<Offer> offers) {
    List<String> all = new ArrayList<>();
    Set<String> seen = new LinkedHashSet<>();
    needs.stream()
        .filter(n -> !seen.add(n.signal()))
        .forEach(n -> all.add("signal " + n.signal() + " stands twice"));
    seen.clear();
    offers.stream()
        .filter(o -> !seen.add(o.pin()))
        .forEach(o -> all.add("pin " + o.pin() + " stands twice"));
    return all;
  }

  /// Pins by signal as they were: those of another table over those of the needs.
  public static List<Need> was(List<Need> needs, Map<String, String> was) {
    return needs.stream()
        .map(n -> new Need(n.signal(), n.needs(), was.getOrDefault(n.signal(), n.was()), n.load()))
        .toList();
  }

  /// The offer of a pin.
  static Optional<Offer> named(List<Offer> offers, String pin) {
    return offers.stream().filter(o -> o.pin().equals(pin)).findFirst();
  }
}
