package ell.core.pulse;

import ell.core.entry.Entry.Capture.Measure;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What a line of a board looks like in a state that somebody knows: measures within limits, and
/// what it means. "restarts every 50 us: alive, no program".
///
/// @param place where it is seen
/// @param name what it means
/// @param good whether a board that shows it may go on
/// @param limits by names of measures, one or more
public record Signature(String place, String name, boolean good, Map<String, Limits> limits) {
  /// What a saved measure may be off; typical, no source.
  private static final double OFF = 0.1;

  private static final double LEVEL_OFF = 0.15;

  /// @throws IllegalArgumentException when it has no limits, or of something that nothing measures
  public Signature {
    limits = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(limits));
    if (limits.isEmpty()) {
      throw new IllegalArgumentException(
          "a signature has limits of one or more measures, such as period=45us..55us");
    }
    for (String m : limits.keySet()) {
      if (!Measures.NAMES.containsKey(m)) {
        throw new IllegalArgumentException(
            "nothing measures '"
                + m
                + "'; there are "
                + String.join(", ", Measures.NAMES.keySet()));
      }
    }
  }

  /// Whether measures are those of it: every one that it has limits of is there and within them.
  public boolean matches(List<Measure> measures) {
    for (Map.Entry<String, Limits> l : limits.entrySet()) {
      Optional<Measure> m = measures.stream().filter(x -> x.name().equals(l.getKey())).findFirst();
      if (m.isEmpty() || l.getValue().judge(m.get().value(), 0) == Verdict.OUT) {
        return false;
      }
    }
    return true;
  }

  /// The signature of a capture: its levels, and its period where it has one, with some room.
  public static Signature from(String place, String name, boolean good, List<Measure> measures) {
    Map<String, Limits> limits = new LinkedHashMap<>();
    double swing =
        measures.stream()
            .filter(m -> m.name().equals("amplitude"))
            .mapToDouble(Measure::value)
            .findFirst()
            .orElse(0);
    for (Measure m : measures) {
      switch (m.name()) {
        case "low", "high" -> {
          double room = LEVEL_OFF * Math.max(swing, Math.abs(m.value()));
          limits.put(m.name(), new Limits(m.value() - room, m.value() + room));
        }
        case "period", "duty" ->
            limits.put(m.name(), new Limits(m.value() * (1 - OFF), m.value() * (1 + OFF)));
        default -> {} // what changes from board to board
      }
    }
    if (swing == 0) {
      limits.put("edges", new Limits(0, 0));
    }
    return new Signature(place, name, good, limits);
  }

  /// As it is said in a line.
  public String words() {
    StringBuilder s = new StringBuilder("signature " + place + " ");
    limits.forEach((m, l) ->
        s.append(m).append('=').append(PulseSaid.range(l, Measures.NAMES.get(m))).append(' '));
    return s.append(good ? "good" : "bad").append(": ").append(name).toString();
  }

  /// The unit of a measure.
  static Unit unit(String measure) {
    return Measures.NAMES.get(measure);
  }
}
