package ell.core.rack;

import ell.core.entry.BoardState;
import java.util.List;

/// Where a board stands.
///
/// @param stage where it is now
/// @param phrase one phrase of state
/// @param mark what to show beside it
/// @param progress 0...1 over the stages that count
/// @param stageProgress 0...1 within its stage
public record Standing(
    Stage stage, String phrase, Mark mark, double progress, double stageProgress) {
  /// Marks beside a board, a step, a reading.
  public enum Mark {
    /// Nothing is known yet.
    NOT_YET,
    /// This is what comes next.
    NEXT,
    /// As it should be.
    WITHIN,
    /// Too close to call.
    CLOSE,
    /// Out, or held by a finding.
    OUT
  }

  /// Works out where a board stands among the stages that are built.
  public static Standing of(BoardState s, Plan plan) {
    return of(s, plan, Progress.ALL);
  }

  /// Works out where a board stands: every stage says whether it has it, the last one first.
  ///
  /// @param stages in the order of the work, the first of which has every board
  public static Standing of(BoardState s, Plan plan, List<Progress> stages) {
    double sum = 0;
    int counted = 0;
    for (Progress p : stages) {
      if (p.counts()) {
        sum += p.far().apply(plan, s).share();
        counted++;
      }
    }
    double progress = counted == 0 ? 0 : sum / counted;
    Progress at = stages.getFirst();
    for (Progress p : stages.reversed()) {
      if (p.here().test(plan, s)) {
        at = p;
        break;
      }
    }
    Progress.Far far = at.far().apply(plan, s);
    if (!s.findings().isEmpty()) {
      BoardState.Finding f = s.findings().getFirst();
      return new Standing(
          at.stage(), "held · " + f.place() + " " + f.what(), Mark.OUT, progress, far.share());
    }
    return new Standing(at.stage(), far.phrase(), far.mark(), progress, far.share());
  }
}
