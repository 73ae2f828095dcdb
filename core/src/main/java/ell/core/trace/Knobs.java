package ell.core.trace;

import ell.core.circuit.Circuit;
import ell.core.power.BoardCircuit;
import ell.core.power.Ladder;
import ell.core.power.LadderState;
import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.List;

/// How the supplies of a board are set.
///
/// @param volts by source, 0 for one that is off
/// @param limits by source, ampere, above 0
public record Knobs(List<Double> volts, List<Double> limits) {
  /// A board draws no more than so much of what it should, and is not held by its limit.
  private static final double ENOUGH = 1.5;

  private static final double LEAST = 0.02;
  private static final double NEAR = 0.02;
  private static final double ALIKE = 0.6;

  /// @throws IllegalArgumentException when a value is out of its range
  public Knobs {
    volts = List.copyOf(volts);
    limits = List.copyOf(limits);
    volts.forEach(v -> Check.notNegative(v, "volts of a source"));
    limits.forEach(a -> Check.positive(a, "limit of a source"));
  }

  /// All sources at their volts, each with the limit of first power.
  public static Knobs usual(Ladder ladder) {
    List<Double> volts = new ArrayList<>();
    List<Double> limits = new ArrayList<>();
    for (Ladder.Source s : ladder.sources()) {
      volts.add(ladder.raises(s) ? s.volts() : 0);
      limits.add(Math.max(LEAST, ENOUGH * LadderState.limit(ladder, "boot", s).limit()));
    }
    return new Knobs(volts, limits);
  }

  /// Everything off.
  public static Knobs off(Ladder ladder) {
    Knobs usual = usual(ladder);
    return new Knobs(usual.volts.stream().map(_ -> 0.0).toList(), usual.limits);
  }

  /// The same with one source set otherwise.
  public Knobs with(int source, double v, double limit) {
    List<Double> vs = new ArrayList<>(volts);
    List<Double> as = new ArrayList<>(limits);
    vs.set(source, v);
    as.set(source, limit);
    return new Knobs(vs, as);
  }

  /// The usual ones where these are as good as those: so near in volts, and with no less current,
  /// or with as much as was wanted.
  ///
  /// @param limited whether a supply was at its limit
  Knobs near(Knobs usual, boolean limited) {
    for (int i = 0; i < volts.size(); i++) {
      double v = usual.volts.get(i);
      if (Math.abs(volts.get(i) - v) > NEAR * v
          || limited && limits.get(i) < ALIKE * usual.limits.get(i)) {
        return this;
      }
    }
    return usual;
  }

  /// Whether anything is on.
  public boolean on() {
    return volts.stream().anyMatch(v -> v > 0);
  }

  /// Turns the knobs of a circuit.
  public void turn(Circuit c) {
    for (int i = 0; i < volts.size(); i++) {
      c.set(BoardCircuit.supply(i), volts.get(i), limits.get(i), volts.get(i) > 0);
    }
  }
}
