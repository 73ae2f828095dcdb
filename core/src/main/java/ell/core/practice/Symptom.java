package ell.core.practice;

import ell.core.entry.Entry;
import ell.core.power.Ladder;
import ell.core.trace.Knobs;
import ell.core.trace.Probe;
import java.util.Optional;

/// What somebody who hands a board over has seen of its fault.
public final class Symptom {
  private Symptom() {}

  /// What a maker sees first: a rail that is shorted, else volts, amperes and lamps that are not as
  /// on a good board.
  ///
  /// @param good another board of the same revision, without a fault
  /// @return empty when nothing of it shows
  public static Optional<Entry> of(HiddenBoard hidden, HiddenBoard good) {
    Ladder ladder = hidden.ladder();
    Knobs usual = Knobs.usual(ladder);
    for (Ladder.RailSpec r : ladder.rails()) {
      if (!r.net().equals(ladder.ground())) {
        double x = hidden.ohms(r.net(), ladder.ground());
        if (x < 40 && good.ohms(r.net(), ladder.ground()) > 80) {
          return hidden.measure(
              new Probe(Probe.Kind.OHMS, r.net(), ladder.ground(), Optional.empty()));
        }
      }
    }
    for (Ladder.RailSpec r : ladder.rails()) {
      double v = hidden.volts(r.net(), usual);
      if (Math.abs(v - good.volts(r.net(), usual)) > 0.08 + 0.05 * Math.abs(r.volts())) {
        return hidden.measure(new Probe(Probe.Kind.VOLTS, r.net(), "", Optional.of(usual)));
      }
    }
    for (int i = 0; i < ladder.sources().size(); i++) {
      double a = hidden.amps(i, usual);
      double b = good.amps(i, usual);
      if (Math.abs(a - b) > 0.35 * b + 2e-3) {
        return hidden.measure(
            new Probe(Probe.Kind.AMPS, ladder.sources().get(i).rail(), "", Optional.of(usual)));
      }
    }
    for (String l : hidden.lamps()) {
      Probe p = new Probe(Probe.Kind.LIT, l, "", Optional.of(usual));
      if (!hidden.measure(p).equals(good.measure(p))) {
        return hidden.measure(p);
      }
    }
    return Optional.empty();
  }
}
