package ell.core.power;

import ell.core.power.Ladder.Source;
import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// How long a cell feeds a board that is in its states for shares of the time.
///
/// @param source the rail that the cell feeds
/// @param coulombs that can be used
/// @param shares each state with what it takes
/// @param guessed loads behind the source that nobody said
public record BatteryLife(
    String source, double coulombs, List<Share> shares, List<Ladder.Load> guessed) {
  /// A state.
  ///
  /// @param share of the time, 0...1
  /// @param amps from the cell in it
  public record Share(String state, double share, double amps) {
    /// What it takes on the average, A.
    public double takes() {
      return share * amps;
    }
  }

  public BatteryLife {
    Check.positive(coulombs, "capacity");
    shares = List.copyOf(shares);
    guessed = List.copyOf(guessed);
  }

  private static final double ROUNDING = 1e-3;

  /// Works it from a ladder.
  ///
  /// @param duty states with their shares of the time, which add up to 1
  /// @throws IllegalArgumentException when they do not, for an unknown state, or a rail that is no
  ///   source
  public static BatteryLife of(
      Ladder ladder, String rail, double coulombs, Map<String, Double> duty) {
    Source source =
        ladder.sources().stream()
            .filter(s -> s.rail().equals(rail))
            .findFirst()
            .orElseThrow(() ->
                new IllegalArgumentException(
                    "no power comes in at '"
                        + rail
                        + "'; sources are "
                        + String.join(", ", ladder.sources().stream().map(Source::rail).toList())));
    double sum = 0;
    List<Share> shares = new ArrayList<>();
    for (Map.Entry<String, Double> d : new LinkedHashMap<>(duty).entrySet()) {
      Check.inRange(d.getValue(), 0, 1, "share of " + d.getKey());
      sum += d.getValue();
      double amps =
          LadderState.of(ladder, d.getKey()).rails().stream()
              .filter(r -> r.rail().net().equals(rail))
              .mapToDouble(LadderState.RailLoad::current)
              .findFirst()
              .orElse(0);
      shares.add(new Share(d.getKey(), d.getValue(), amps));
    }
    if (Math.abs(sum - 1) > ROUNDING) {
      throw new IllegalArgumentException(
          "the shares of the time add up to " + sum + ", expected 1");
    }
    return new BatteryLife(rail, coulombs, shares, ladder.guessedLoads(List.of(source)));
  }

  /// The mean current, A.
  public double mean() {
    return shares.stream().mapToDouble(Share::takes).sum();
  }

  /// Hours; infinite when nothing is drawn.
  public double hours() {
    return coulombs / mean() / 3600;
  }

  /// The state that takes most.
  public Share greatest() {
    return shares.stream().max((a, b) -> Double.compare(a.takes(), b.takes())).orElseThrow();
  }
}
