package ell.core.jig;

import ell.core.quantity.Check;

/// A net that must be reached.
///
/// @param probes how many, 1 or more
/// @param amps current that they carry, 0 when it only is looked at
/// @param sense whether the last of them senses beside the others
/// @param why in words
public record Need(String net, int probes, double amps, boolean sense, String why) {
  public Need {
    if (probes < 1) {
      throw new IllegalArgumentException("a net needs a probe or more, got " + probes);
    }
    Check.notNegative(amps, "current of " + net);
  }

  /// What the probe of a number does, counted from 1.
  String role(int number) {
    return sense && number == probes
        ? "sense"
        : why.startsWith("ground") ? "ground" : why.startsWith("power") ? "force" : why;
  }
}
