package ell.core.power;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;

/// What somebody said of how a part acts, in words such as `n-channel,threshold=1.1V,on=40mohm`. It
/// goes before what the bill says and before what is typical.
///
/// @param words as they were said
/// @param kind one of [#KINDS], empty where only numbers were said
/// @param numbers by their keys, in SI units
/// @param enable the pin that switches a regulator on, empty when it has none
public record PartSaid(String words, String kind, Map<String, Double> numbers, String enable) {
  /// The kinds that can be said.
  public static final List<String> KINDS =
      List.of(
          "diode",
          "schottky",
          "lamp",
          "npn",
          "pnp",
          "n-channel",
          "p-channel",
          "resistor",
          "capacitor",
          "coil",
          "fuse",
          "cell");

  private static final Map<String, Unit> KEYS = new LinkedHashMap<>();

  static {
    for (String volts : List.of("forward", "breakdown", "threshold", "empty", "full", "volts")) {
      KEYS.put(volts, Unit.VOLT);
    }
    for (String ohms : List.of("on", "ohms", "series", "leak")) {
      KEYS.put(ohms, Unit.OHM);
    }
    for (String amps : List.of("saturates", "holds", "amps")) {
      KEYS.put(amps, Unit.AMPERE);
    }
    for (String plain : List.of("gain", "foldback", "share")) {
      KEYS.put(plain, Unit.ONE);
    }
    KEYS.put("farads", Unit.FARAD);
    KEYS.put("henries", Unit.HENRY);
    KEYS.put("charge", Unit.COULOMB);
    KEYS.put("rises", Unit.SECOND);
    KEYS.put("watts", Unit.WATT);
    KEYS.put("theta", Unit.KELVIN_PER_WATT);
  }

  /// Values that may be 0.
  private static final Set<String> FROM_NOTHING = Set.of("series", "ohms", "rises", "empty");

  public PartSaid {
    numbers = Map.copyOf(numbers);
  }

  /// Reads words.
  ///
  /// @throws IllegalArgumentException naming the word that is not understood
  public static PartSaid parse(String words) {
    String kind = "";
    String enable = "";
    Map<String, Double> numbers = new LinkedHashMap<>();
    for (String one : words.split(",")) {
      int equals = one.indexOf('=');
      String key = (equals < 0 ? one : one.substring(0, equals)).strip().toLowerCase(Locale.ROOT);
      String what = one.substring(equals + 1).strip();
      if (equals < 0) {
        if (!KINDS.contains(key) || !kind.isEmpty()) {
          throw new IllegalArgumentException(
              "'" + key + "' is no kind; there are " + String.join(", ", KINDS));
        }
        kind = key;
      } else if (key.equals("enable")) {
        enable = what;
      } else if (KEYS.containsKey(key)) {
        numbers.put(key, number(key, what));
      } else {
        throw new IllegalArgumentException(
            "'"
                + key
                + "' is not known here; there are enable, "
                + String.join(", ", KEYS.keySet()));
      }
    }
    if (kind.equals("cell") && !numbers.keySet().containsAll(List.of("empty", "full", "charge"))) {
      throw new IllegalArgumentException("a cell has empty, full and charge");
    }
    if (numbers.containsKey("empty")
        && !(numbers.get("empty") < numbers.getOrDefault("full", Double.POSITIVE_INFINITY))) {
      throw new IllegalArgumentException("a full cell has more volts than an empty one");
    }
    return new PartSaid(words.strip(), kind, numbers, enable);
  }

  private static double number(String key, String text) {
    double v = EngineeringNumber.parse(text, KEYS.get(key));
    boolean share = key.equals("foldback") || key.equals("share");
    if (!(v > 0 || v == 0 && FROM_NOTHING.contains(key)) || share && v > 1) {
      throw new IllegalArgumentException(
          "'" + text + "' is no " + key + (share ? ": above 0 and up to 1" : ": it is above 0"));
    }
    return v;
  }

  /// A number that was said.
  public OptionalDouble number(String key) {
    Double v = numbers.get(key);
    return v == null ? OptionalDouble.empty() : OptionalDouble.of(v);
  }

  /// A number that was said, or another.
  double or(String key, double otherwise) {
    return numbers.getOrDefault(key, otherwise);
  }
}
