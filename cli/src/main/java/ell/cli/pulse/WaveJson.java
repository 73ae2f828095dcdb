package ell.cli.pulse;

import ell.core.pulse.Counted;
import ell.core.pulse.Pulses;
import ell.core.pulse.Wave;
import java.util.Optional;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What a channel measures, as JSON.
final class WaveJson {
  private WaveJson() {}

  /// @param allowed seconds that an edge may be between the thresholds
  static void channel(
      ObjectNode c,
      Wave w,
      Optional<Counted> counted,
      Pulses pulses,
      Optional<Double> allowed,
      boolean edges) {
    c.put("name", w.name());
    put(c, "low", w.low());
    put(c, "high", w.high());
    c.putArray("levels").add(w.low()).add(w.high());
    put(c, "amplitude", w.amplitude());
    put(c, "overshoot", w.overshoot());
    put(c, "undershoot", w.undershoot());
    put(c, "rise", w.rise());
    put(c, "riseU", w.riseU());
    put(c, "fall", w.fall());
    put(c, "fallU", w.fallU());
    put(c, "frequency", w.frequency());
    put(c, "period", w.period());
    put(c, "periodU", w.periodU());
    put(c, "duty", w.duty());
    put(c, "jitter", w.jitter());
    c.put("edges", w.edges());
    put(c, "widthHigh", pulses.widthHigh());
    put(c, "widthLow", pulses.widthLow());
    put(c, "narrowest", pulses.narrowest());
    put(c, "settling", pulses.settling());
    c.put("runts", pulses.runts()).put("glitches", pulses.glitches());
    if (edges) {
      ArrayNode list = c.putArray("edgeList");
      for (Pulses.Edge e : pulses.edges()) {
        ObjectNode one = list.addObject().put("at", e.at()).put("rising", e.rising());
        put(one, "length", e.length());
        put(one, "dwell", e.dwell());
      }
    }
    put(c, "noise", w.noise());
    put(c, "rms", w.rms());
    put(c, "mean", w.mean());
    w.ring()
        .ifPresent(
            r -> c.putObject("ring").put("frequency", r.frequency()).put("decay", r.decay()));
    if (counted.isPresent()) {
      Counted k = counted.get();
      c.put("crossings", k.crossings());
      put(c, "dwell", k.dwell());
      c.put("doubleClocks", k.doubles());
      if (allowed.isPresent()) {
        c.put("allowed", allowed.get());
      }
    }
  }

  /// What a capture has too little of is left out.
  static void put(ObjectNode o, String key, double v) {
    if (Double.isFinite(v)) {
      o.put(key, v);
    }
  }
}
