package ell.core.circuit;

/// What a circuit does once nothing changes any more.
public interface AtRest {
  /// Volts of a node against `GND`; 0 for a node that is not there.
  double at(String node);

  /// Amperes of an element; 0 for one that is not there.
  double through(String element);

  /// Watts that become heat in an element; 0 for one that is not there.
  double heat(String element);
}
