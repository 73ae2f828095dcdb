package ell.work.power;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.LadderBands;
import ell.core.power.PowerFacts;
import ell.core.power.WarmParts;
import ell.core.quantity.Accuracy;
import ell.core.quantity.Limits;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import ell.work.tape.Places;
import java.util.List;
import java.util.Optional;

/// Makes the entries of readings, judged where the place is a rail of the ladder.
public final class Readings {
  private Readings() {}

  /// The entry of a rail's ripple, peak to peak. Its limit is what keeps the rail within its own
  /// limits at every moment: twice what its volts have left to the nearer one.
  public static Entry.Reading ripple(Places places, BoardState state, String rail, double volts) {
    Optional<RailSpec> spec = places.railAt(rail).filter(r -> !r.guessed());
    Optional<Limits> limits =
        spec.map(r -> {
          double mean =
              PowerFacts.of(state)
                  .reading(r)
                  .filter(x -> x.unit() == Unit.VOLT)
                  .map(Entry.Reading::value)
                  .orElse(r.volts());
          return new Limits(0, Math.max(0, 2 * Math.min(r.high() - mean, mean - r.low())));
        });
    return new Entry.Reading(
        rail + " ripple",
        volts,
        Unit.VOLT,
        limits,
        Optional.empty(),
        limits.map(l -> l.judge(volts, 0)),
        "peak to peak");
  }

  /// The entry of what a source gives in a state, judged by what parts anywhere in their tolerances
  /// make of it. Where loads behind it are guessed, nothing is judged.
  public static Entry.Reading inState(Places places, String rail, Quantity amps, String state) {
    Ladder ladder = places.ladder();
    List<Ladder.Source> here =
        ladder.sources().stream().filter(s -> s.rail().equals(rail)).toList();
    Optional<Limits> limits =
        here.isEmpty() || !ladder.guessedLoads(here).isEmpty()
            ? Optional.empty()
            : LadderBands.of(ladder, state).rails().stream()
                .filter(r -> r.rail().net().equals(rail))
                .map(r -> new Limits(r.amps().low(), r.amps().high()))
                .findFirst();
    double u = Accuracy.handheldAmps(amps.value()).uncertainty(amps.value());
    return new Entry.Reading(
        rail,
        amps.value(),
        Unit.AMPERE,
        limits,
        Optional.of(u),
        limits.map(l -> l.judge(amps.value(), u)),
        "in the state " + state);
  }

  /// The entry of a reading at a place, its uncertainty that of a hand-held meter.
  ///
  /// @param with the instrument in words, may be empty
  public static Entry.Reading of(Places places, String place, Quantity q, String with) {
    Optional<Double> uncertainty =
        switch (q.unit()) {
          case VOLT -> Optional.of(Accuracy.handheldVolts(q.value()).uncertainty(q.value()));
          case OHM -> Optional.of(Accuracy.handheldOhms(q.value()).uncertainty(q.value()));
          case CELSIUS -> Optional.of(WarmParts.PROBE);
          default -> Optional.empty();
        };
    // where the volts of a rail are guessed there is nothing to hold a reading against
    Optional<RailSpec> rail =
        places.railAt(place).filter(r -> q.unit() == Unit.VOLT && !r.guessed());
    Optional<Limits> limits =
        q.unit() == Unit.CELSIUS
            ? WarmParts.of(places.ladder(), "worst", place).flatMap(WarmParts.Warm::limits)
            : rail.map(r -> new Limits(r.low(), r.high()));
    return new Entry.Reading(
        place,
        q.value(),
        q.unit(),
        limits,
        uncertainty,
        limits.map(l -> l.judge(q.value(), uncertainty.orElse(0.0))),
        with);
  }
}
