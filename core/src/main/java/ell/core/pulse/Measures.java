package ell.core.pulse;

import ell.core.entry.Entry.Capture.Measure;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Everything that a capture measures, as the book keeps it.
public final class Measures {
  private static final double RELATIVE_LEVEL = 0.02;

  /// Names of everything that can have limits, with their units.
  public static final Map<String, Unit> NAMES = names();

  private Measures() {}

  private static Map<String, Unit> names() {
    Map<String, Unit> all = new java.util.LinkedHashMap<>();
    for (String v :
        List.of(
            "low", "high", "amplitude", "peak", "least", "peakToPeak", "mean", "rms", "noise")) {
      all.put(v, Unit.VOLT);
    }
    for (String s :
        List.of(
            "rise",
            "fall",
            "period",
            "jitter",
            "dwell",
            "widthHigh",
            "widthLow",
            "narrowest",
            "settling")) {
      all.put(s, Unit.SECOND);
    }
    for (String h : List.of("frequency", "ring")) {
      all.put(h, Unit.HERTZ);
    }
    for (String o :
        List.of("overshoot", "undershoot", "duty", "edges", "doubleClocks", "runts", "glitches")) {
      all.put(o, Unit.ONE);
    }
    return all;
  }

  /// A measure without limits.
  private static Measure plain(String name, double value, double u) {
    return new Measure(name, value, NAMES.get(name), u, Optional.empty(), Optional.empty());
  }

  /// Everything that a wave measures; what it has too little of is left out.
  ///
  /// @param counted by the thresholds of an input, if they are known
  public static List<Measure> of(
      Wave w, Optional<Counted> counted, Pulses pulses, double most, double least) {
    List<Measure> all = new ArrayList<>();
    // levels are as well known as a scope reads: typical, no source
    double level =
        Math.hypot(RELATIVE_LEVEL * Math.max(Math.abs(most), Math.abs(least)), w.noise());
    add(all, "low", w.low(), Math.hypot(level, w.noise()));
    add(all, "high", w.high(), Math.hypot(level, w.noise()));
    if (w.edges() > 0) {
      add(all, "amplitude", w.amplitude(), level);
      add(all, "overshoot", w.overshoot(), Double.NaN);
      add(all, "undershoot", w.undershoot(), Double.NaN);
      add(all, "rise", w.rise(), w.riseU());
      add(all, "fall", w.fall(), w.fallU());
      add(all, "period", w.period(), w.periodU());
      add(all, "frequency", w.frequency(), w.periodU() * w.frequency() * w.frequency());
      add(all, "duty", w.duty(), Double.NaN);
      add(all, "jitter", w.jitter(), Double.NaN);
      add(all, "widthHigh", pulses.widthHigh(), w.riseU());
      add(all, "widthLow", pulses.widthLow(), w.riseU());
      add(all, "narrowest", pulses.narrowest(), w.riseU());
      add(all, "settling", pulses.settling(), Double.NaN);
      add(all, "runts", pulses.runts(), 0);
      add(all, "glitches", pulses.glitches(), 0);
      w.ring().ifPresent(r -> add(all, "ring", r.frequency(), Double.NaN));
    }
    add(all, "peak", most, level);
    add(all, "least", least, level);
    add(all, "peakToPeak", most - least, Math.hypot(0.02 * (most - least), 3 * w.noise()));
    add(all, "mean", w.mean(), level);
    add(all, "rms", w.rms(), level);
    add(all, "noise", w.noise(), Double.NaN);
    add(all, "edges", w.edges(), 0);
    if (counted.isPresent()) {
      add(all, "dwell", counted.get().dwell(), w.riseU());
      add(all, "doubleClocks", counted.get().doubles(), 0);
    }
    return all;
  }

  private static void add(List<Measure> all, String name, double value, double u) {
    if (Double.isFinite(value)) {
      all.add(plain(name, value, u));
    }
  }
}
