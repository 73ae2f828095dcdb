package ell.core.circuit;

import java.util.Collections;
import java.util.HashMap;
import java.util.Map;

/// The state of a circuit at one moment.
///
/// @param volts by node, `GND` included
/// @param amps by element: out of a supply, a cell or a regulator, through anything else from its
///   first node
/// @param watts by element, what becomes heat in it
/// @param limited whether a supply holds its current instead of its volts
/// @param settled false when no state was found in which all of it agrees: the values are then
///   nobody's
public record Operating(
    Map<String, Double> volts,
    Map<String, Double> amps,
    Map<String, Double> watts,
    boolean limited,
    boolean settled)
    implements AtRest {
  public Operating {
    volts = Collections.unmodifiableMap(new HashMap<>(volts));
    amps = Collections.unmodifiableMap(new HashMap<>(amps));
    watts = Collections.unmodifiableMap(new HashMap<>(watts));
  }

  /// Volts of a node against `GND`; 0 for a node that is not there.
  @Override
  public double at(String node) {
    return volts.getOrDefault(node, 0.0);
  }

  /// Amperes of an element; 0 for one that is not there.
  @Override
  public double through(String element) {
    return amps.getOrDefault(element, 0.0);
  }

  /// Watts that become heat in an element; 0 for one that is not there.
  @Override
  public double heat(String element) {
    return watts.getOrDefault(element, 0.0);
  }

  /// The average of this and another by the share of the time that the other lasts.
  Operating mixed(Operating other, double share) {
    return new Operating(
        mix(volts, other.volts, share),
        mix(amps, other.amps, share),
        mix(watts, other.watts, share),
        true,
        settled && other.settled);
  }

  private static Map<String, Double> mix(
      Map<String, Double> a, Map<String, Double> b, double share) {
    Map<String, Double> out = new HashMap<>();
    a.forEach((k, v) -> out.put(k, v + share * (b.getOrDefault(k, v) - v)));
    return out;
  }
}
