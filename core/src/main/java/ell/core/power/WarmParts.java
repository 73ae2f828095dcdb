package ell.core.power;

import ell.core.quantity.Limits;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// How warm the regulators of a ladder may feel once they have settled: no warmer than their
/// junctions should be, and a little. Where what they carry rests on a guess there is no limit.
public final class WarmParts {
  /// A probe on a small body reads so much off, and the room may be so much warmer, K; typical, no
  /// source.
  private static final double ROOM = 15;

  /// What a probe or a fingertip knows, K; typical, no source.
  public static final double PROBE = 3;

  private WarmParts() {}

  /// A part that gets warm.
  ///
  /// @param celsius that its junction should have, °C
  /// @param limits of what it may feel like; empty where it rests on a guess
  public record Warm(String part, double celsius, Optional<Limits> limits) {}

  /// The regulators of a ladder in a state, the warmest first.
  public static List<Warm> of(Ladder ladder, String state) {
    List<Warm> all = new ArrayList<>();
    for (LadderState.RegulatorHeat r : LadderState.of(ladder, state).regulators()) {
      boolean guessed = LadderFinding.guessed(ladder, r.step().to()) || r.step().theta() == 0;
      all.add(
          new Warm(
              r.step().part(),
              r.junction(),
              guessed ? Optional.empty() : Optional.of(Limits.atMost(r.junction() + ROOM))));
    }
    all.sort((a, b) -> Double.compare(b.celsius(), a.celsius()));
    return all;
  }

  /// The part of this name.
  public static Optional<Warm> of(Ladder ladder, String state, String part) {
    return of(ladder, state).stream().filter(w -> w.part().equals(part)).findFirst();
  }
}
