package ell.core.circuit;

/// What a circuit does once nothing changes any more.
public interface AtRest {
  /// Volts of a node against `GND`; 0 for a node that is not there.
  double at(String node);

  /// Amperes of an element; 0 for one that is not there.
  double through(String element);

  /// Watts that become heat in an element; 0 for one that is not there.
  double heat(String element);

  /// Answers what is asked again and again: each of the arrays is as long as what is asked for it.
  default void answer(Asked asked, float[] volts, float[] amps, float[] watts) {
    for (int i = 0; i < volts.length; i++) {
      volts[i] = (float) at(asked.volts.get(i));
    }
    for (int i = 0; i < amps.length; i++) {
      amps[i] = (float) through(asked.amps.get(i));
    }
    for (int i = 0; i < watts.length; i++) {
      double sum = 0;
      for (String e : asked.watts.get(i)) {
        sum += heat(e);
      }
      watts[i] = (float) sum;
    }
  }
}
