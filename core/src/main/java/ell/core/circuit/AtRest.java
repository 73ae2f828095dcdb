package ell.core.circuit;

/// What a circuit does once nothing changes any more.
public interface AtRest {
  /// Volts of a node against `GND`; 0 for a node that is not there.
  double at(String node);

  /// Amperes of an element; 0 for one that is not there.
  double through(String element);

  /// Watts that become heat in an element; 0 for one that is not there.
  double heat(String element);

  /// Answers all that is asked at once, as [#at], [#through] and [#heat] do one by one.
  ///
  /// @param volts filled, by node as asked; none more
  /// @param amps filled, by element as asked; none more
  /// @param watts filled, by group as asked; none more
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
