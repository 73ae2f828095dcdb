package ell.core.circuit;

import ell.core.quantity.Check;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// How much warmer than their surroundings bodies are by what becomes heat in them: each with one
/// thermal resistance and one time constant, none warming another. Follows a [Run].
public final class Warmth {
  /// A body.
  ///
  /// @param part every element of its name, or of its name and a further word, heats it
  /// @param kelvinPerWatt from it to its surroundings, above 0
  /// @param seconds its time constant, above 0
  public record Body(String part, double kelvinPerWatt, double seconds) {
    /// @throws IllegalArgumentException when a value is out of its range
    public Body {
      Check.positive(kelvinPerWatt, "thermal resistance of " + part);
      Check.positive(seconds, "time constant of " + part);
    }
  }

  private final Run run;
  private final List<Body> bodies;
  private final int[][] elements;
  private final double[] joules;
  private final double[] kelvin;
  private final Map<String, Integer> index = new HashMap<>();
  private double time;

  /// Bodies as warm as their surroundings.
  public Warmth(Run run, List<Body> bodies) {
    this.run = run;
    this.bodies = List.copyOf(bodies);
    Map<String, List<Integer>> own = run.named();
    elements = new int[bodies.size()][];
    joules = new double[bodies.size()];
    kelvin = new double[bodies.size()];
    for (int i = 0; i < elements.length; i++) {
      index.put(this.bodies.get(i).part(), i);
      elements[i] =
          own.getOrDefault(this.bodies.get(i).part(), List.of()).stream()
              .mapToInt(Integer::intValue)
              .toArray();
      joules[i] = joules(i);
    }
    time = run.time();
  }

  /// Takes in what became heat since it was asked last, as if it had come evenly.
  public void follow() {
    double since = run.time() - time;
    if (since <= 0) {
      return;
    }
    time = run.time();
    for (int i = 0; i < kelvin.length; i++) {
      double now = joules(i);
      double to = (now - joules[i]) / since * bodies.get(i).kelvinPerWatt();
      kelvin[i] = to + (kelvin[i] - to) * Math.exp(-since / bodies.get(i).seconds());
      joules[i] = now;
    }
  }

  private double joules(int body) {
    double sum = 0;
    for (int e : elements[body]) {
      sum += run.heat(e);
    }
    return sum;
  }

  /// Kelvin above its surroundings; 0 for a part that is no body here.
  public double of(String part) {
    Integer i = index.get(part);
    return i == null ? 0 : kelvin[i];
  }
}
