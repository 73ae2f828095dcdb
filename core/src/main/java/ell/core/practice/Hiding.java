package ell.core.practice;

import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.power.Ladder;
import ell.core.trace.Suspect;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/// Hides a fault of a level in a board: one that can be there, that shows, and that the board model
/// can tell from others.
public final class Hiding {
  private static final int MOST_TRIES = 400;
  private static final double SHORTED_OHM = 20;

  private final Revision revision;
  private final Ladder ladder;
  private final List<Suspect> suspects;

  /// In boards of a revision.
  ///
  /// @param suspects the faults that may be on one
  public Hiding(Revision revision, Ladder ladder, List<Suspect> suspects) {
    this.revision = revision;
    this.ladder = ladder;
    this.suspects = List.copyOf(suspects);
  }

  /// A hidden fault.
  ///
  /// @param symptom what is known of it when the board is handed over, empty when nothing is
  public record Hidden(Fault fault, Optional<Entry> symptom) {}

  /// Hides one.
  ///
  /// @return empty when the board has no fault of this level that would show
  public Optional<Hidden> of(Level level, long seed) {
    Random random = new Random(seed);
    List<Suspect> fit =
        new ArrayList<>(suspects.stream().filter(s -> level.takes(s.fault())).toList());
    for (int i = 0; i < MOST_TRIES && !fit.isEmpty(); i++) {
      Fault f = fit.remove(random.nextInt(fit.size())).fault();
      if (FaultWords.unfit(f, revision).isPresent()) {
        continue;
      }
      Optional<Hidden> h = shown(level, f, seed);
      if (h.isPresent()) {
        return h;
      }
    }
    return Optional.empty();
  }

  /// A fault that somebody chose, with what shows of it.
  ///
  /// @return empty when nothing shows
  public Optional<Hidden> shown(Fault fault, long seed) {
    Fault steady = fault instanceof Fault.Sometimes(double _, Fault g) ? g : fault;
    return symptom(steady, seed).map(s -> new Hidden(fault, Optional.of(s)));
  }

  private Optional<Hidden> shown(Level level, Fault f, long seed) {
    if (level == Level.BEEP) {
      return shorted(f, seed) ? Optional.of(new Hidden(f, Optional.empty())) : Optional.empty();
    }
    if (shorted(f, seed)) {
      return Optional.empty(); // that is the first lesson
    }
    return symptom(f, seed).map(s -> new Hidden(level.hidden(f), Optional.of(s)));
  }

  private Optional<Entry> symptom(Fault f, long seed) {
    return Symptom.of(
        new HiddenBoard(revision, ladder, List.of(f), seed),
        new HiddenBoard(revision, ladder, List.of(), seed + 1));
  }

  /// Whether a rail is shorted to ground.
  private boolean shorted(Fault f, long seed) {
    HiddenBoard bad = new HiddenBoard(revision, ladder, List.of(f), seed);
    HiddenBoard good = new HiddenBoard(revision, ladder, List.of(), seed + 1);
    return ladder.rails().stream()
        .map(Ladder.RailSpec::net)
        .filter(n -> !n.equals(ladder.ground()))
        .anyMatch(n ->
            bad.ohms(n, ladder.ground()) < SHORTED_OHM
                && good.ohms(n, ladder.ground()) > 4 * SHORTED_OHM);
  }
}
