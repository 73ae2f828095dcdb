package ell.core.power;

import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import ell.core.power.RailBand.Part;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// Where volts and current of every rail of a ladder lie when sources, regulators and loads lie
/// anywhere in their tolerances: by intervals, and in 95 of 100 of many boards from a seed.
///
/// @param rails in the ladder's order
/// @param assumptions the tolerances that were taken, a sentence each
public record LadderBands(List<Rail> rails, List<String> assumptions) {
  /// Typical, no source.
  static final double REGULATOR = 0.02;

  private static final double EFFICIENCY = 0.03;
  private static final double DROP = 0.2;
  private static final int TRIES = 4000;

  /// A rail.
  public record Rail(RailSpec rail, RailBand volts, RailBand amps) {}

  public LadderBands {
    rails = List.copyOf(rails);
    assumptions = List.copyOf(assumptions);
  }

  /// Works them in a state.
  ///
  /// @throws IllegalArgumentException for an unknown state
  public static LadderBands of(Ladder ladder, String state) {
    if (!Ladder.STATES.contains(state)) {
      throw new IllegalArgumentException(
          "unknown state '" + state + "', expected one of " + Ladder.STATES);
    }
    Worker w = new Worker(ladder, state);
    List<RailBand> all = RailBand.all(w::at, w.parts, TRIES);
    List<Rail> rails = new ArrayList<>();
    int n = ladder.rails().size();
    for (int i = 0; i < n; i++) {
      rails.add(new Rail(ladder.rails().get(i), all.get(i), all.get(n + i)));
    }
    List<String> assumptions = new ArrayList<>();
    assumptions.add(
        "sources within their range; regulators ±2 %, efficiency ±3 %, drops ±20 %, loads ±"
            + Math.round(100 * PowerPlan.LOAD_SPREAD)
            + " %, each evenly within; "
            + TRIES
            + " boards from a seed");
    List<String> guessed =
        ladder.guessedLoads(ladder.sources()).stream().map(Load::part).distinct().toList();
    if (!guessed.isEmpty()) {
      assumptions.add(
          "nobody said what these draw, and currents rest on a guess: "
              + String.join(", ", guessed));
    }
    return new LadderBands(rails, assumptions);
  }

  /// One board: the parts' values, in an order that is found once.
  private static final class Worker {
    final List<Part> parts = new ArrayList<>();
    private final Ladder ladder;
    private final String state;
    private final List<Step> down;
    private final Map<String, Integer> place = new HashMap<>();

    Worker(Ladder ladder, String state) {
      this.ladder = ladder;
      this.state = state;
      down = ladder.downwards();
      for (Source s : ladder.sources()) {
        parts.add(new Part(s.volts(), Math.min(s.low(), s.volts()), Math.max(s.high(), s.volts())));
      }
      for (Step s : down) {
        parts.add(
            switch (s.kind()) {
              case LINEAR, SWITCHING -> new Part(s.volts(), REGULATOR);
              case PASS -> new Part(s.ohms(), DROP);
              case DIODE -> new Part(s.dropout(), DROP);
            });
        parts.add(
            new Part(
                s.efficiency(),
                s.efficiency() * (1 - EFFICIENCY),
                Math.min(1, s.efficiency() * (1 + EFFICIENCY))));
      }
      for (Load l : ladder.loads()) {
        parts.add(new Part(l.in(state), PowerPlan.LOAD_SPREAD));
      }
      for (int i = 0; i < ladder.rails().size(); i++) {
        place.put(ladder.rails().get(i).net(), i);
      }
    }

    /// Volts of every rail, then its current.
    double[] at(double[] x) {
      int n = ladder.rails().size();
      double[] y = new double[2 * n];
      for (int i = 0; i < n; i++) {
        y[i] = ladder.rails().get(i).volts();
      }
      int sources = ladder.sources().size();
      for (int i = 0; i < sources; i++) {
        y[place.get(ladder.sources().get(i).rail())] = x[i];
      }
      int loads = sources + 2 * down.size();
      for (int i = 0; i < ladder.loads().size(); i++) {
        y[n + place.get(ladder.loads().get(i).rail())] += x[loads + i];
      }
      // volts without the drops of pass elements, which are small, give the currents
      volts(x, y, false);
      for (int i = down.size() - 1; i >= 0; i--) {
        Step s = down.get(i);
        double out = y[n + place.get(s.to())];
        int from = place.get(s.from());
        y[n + from] +=
            s.kind() == Ladder.Kind.SWITCHING
                ? y[place.get(s.to())] * out / (x[sources + 2 * i + 1] * Math.max(y[from], 0.1))
                    + s.quiescent()
                : out + s.quiescent();
      }
      volts(x, y, true);
      return y;
    }

    private void volts(double[] x, double[] y, boolean drops) {
      int sources = ladder.sources().size();
      int n = ladder.rails().size();
      for (int i = 0; i < down.size(); i++) {
        Step s = down.get(i);
        double vin = y[place.get(s.from())];
        double value = x[sources + 2 * i];
        int to = place.get(s.to());
        y[to] =
            switch (s.kind()) {
              case LINEAR, SWITCHING ->
                  ladder.lifts(s) ? value : Math.min(value, vin - s.dropout());
              case PASS -> drops ? vin - value * y[n + to] : vin;
              case DIODE -> vin - value;
            };
      }
    }
  }
}
