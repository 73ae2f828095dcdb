package ell.core.revise;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.order.OrderFacts;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// What one board says of how it was made: whether it was good without anybody mending it, what was
/// wrong, and how long it took.
///
/// @param judged whether anything was asked of it: a rail read, a defect seen, a proof ended
/// @param good whether nothing was ever wrong with it
/// @param defects how often each kind was found
/// @param joints that were soldered, 0 when nothing was
/// @param minutes that were timed, 0 for none
/// @param heats of parts after they were soldered
public record FirstPass(
    boolean judged,
    boolean good,
    Map<String, Integer> defects,
    int joints,
    double minutes,
    int heats) {
  public FirstPass {
    defects = Collections.unmodifiableMap(new LinkedHashMap<>(defects));
  }

  /// What a board says.
  ///
  /// @param revision that it is of, in its variant
  public static FirstPass of(ell.core.board.Revision revision, BoardState s) {
    boolean judged = false;
    boolean good = true;
    double seconds = 0;
    int heats = 0;
    Map<String, Integer> defects = new LinkedHashMap<>();
    for (Logged l : s.standing()) {
      switch (l.entry()) {
        case Entry.StepDone d -> seconds += d.seconds();
        case Entry.Defect d -> {
          defects.merge(d.defect(), 1, Integer::sum);
          judged = true;
          good = false;
        }
        case Entry.Found f when !f.place().isEmpty() -> {
          judged = true;
          good = false;
        }
        case Entry.Gate g -> {
          judged = true;
          good &= g.held();
        }
        case Entry.Reading r when r.unit() == Unit.VOLT && r.verdict().isPresent() -> {
          judged = true;
          good &= r.verdict().get() != Verdict.OUT;
        }
        case Entry.Check c when c.verdict() == Verdict.OUT -> {
          judged = true;
          good = false;
        }
        case Entry.ProofEnded p -> {
          judged = true;
          good &= p.verdict() != Verdict.OUT;
          seconds += 60 * p.minutes();
        }
        case Entry.Bodge b -> seconds += 60 * b.minutes();
        case Entry.Action a -> heats += a.heat() ? 1 : 0;
        default -> {} // says nothing of how it was made
      }
    }
    int joints = 0;
    for (String part : OrderFacts.of(s).placed()) {
      joints += revision.jointsOf(part).size();
    }
    return new FirstPass(judged, judged && good, defects, joints, seconds / 60, heats);
  }

  /// Adds up what boards say of each kind of defect.
  static Map<String, Integer> defects(List<FirstPass> boards) {
    Map<String, Integer> all = new LinkedHashMap<>();
    boards.forEach(b -> b.defects().forEach((k, n) -> all.merge(k, n, Integer::sum)));
    return all;
  }
}
