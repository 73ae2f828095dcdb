package ell.core.prove;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What the book says of the proof of a board.
///
/// @param runs of test plans, oldest first
/// @param released when the board left the bench, the latest
/// @param touched number of the latest entry that changed the board: a part, a joint, a link's
///   heat, firmware; 0 when there is none
public record ProveFacts(List<Run> runs, Optional<Logged> released, long touched) {
  public ProveFacts {
    runs = List.copyOf(runs);
  }

  /// A run of a plan.
  ///
  /// @param number of the entry with which it began
  /// @param steps that were made or left out, oldest first
  /// @param ended empty while it is under way, or was cut off
  public record Run(
      long number,
      OffsetDateTime at,
      Entry.ProofBegun begun,
      List<Logged> steps,
      Optional<Logged> ended) {
    public Run {
      steps = List.copyOf(steps);
    }

    /// The steps, without when they were made.
    public List<Entry.ProofStep> made() {
      return steps.stream().map(l -> (Entry.ProofStep) l.entry()).toList();
    }

    /// What came of it, empty when it did not end.
    public Optional<Verdict> verdict() {
      return ended.map(l -> ((Entry.ProofEnded) l.entry()).verdict());
    }

    /// Whether a step was made or left out already.
    public boolean has(int stepNumber, int round) {
      return made().stream().anyMatch(s -> s.number() == stepNumber && s.round() == round);
    }

    /// The worst of what its steps showed so far.
    public Verdict worst() {
      return made().stream()
          .map(s -> s.left() ? Verdict.CLOSE : s.verdict().orElse(Verdict.CLOSE))
          .reduce(Verdict.WITHIN, Verdict::and);
    }
  }

  /// The facts of a board.
  public static ProveFacts of(BoardState s) {
    return s.facts(ProveFacts.class, ProveFacts::fold);
  }

  /// The latest run.
  public Optional<Run> last() {
    return runs.isEmpty() ? Optional.empty() : Optional.of(runs.getLast());
  }

  /// The latest run that ended.
  public Optional<Run> lastEnded() {
    return runs.stream().filter(r -> r.ended().isPresent()).reduce((_, b) -> b);
  }

  /// A run that began last and did not end: it was cut off, or is under way.
  public Optional<Run> open() {
    return last().filter(r -> r.ended().isEmpty());
  }

  /// Whether a board is at its proof: it was begun, or the board has left the bench.
  public boolean at() {
    return !runs.isEmpty() || released.isPresent();
  }

  /// Whether the latest run passed, and nothing was changed on the board since.
  public boolean proved() {
    return open().isEmpty()
        && lastEnded()
            .filter(r -> r.verdict().orElseThrow() == Verdict.WITHIN)
            .filter(r -> r.number() > touched)
            .isPresent();
  }

  private static ProveFacts fold(List<Logged> standing) {
    Map<Long, Logged> begun = new LinkedHashMap<>();
    Map<Long, List<Logged>> steps = new LinkedHashMap<>();
    Map<Long, Logged> ended = new LinkedHashMap<>();
    Optional<Logged> released = Optional.empty();
    long touched = 0;
    for (Logged l : standing) {
      switch (l.entry()) {
        case Entry.ProofBegun _ -> begun.put(l.number(), l);
        case Entry.ProofStep s -> steps.computeIfAbsent(s.run(), _ -> new ArrayList<>()).add(l);
        case Entry.ProofEnded e -> ended.put(e.run(), l);
        case Entry.Released _ -> released = Optional.of(l);
        case Entry.Action _, Entry.Fitted _, Entry.StepDone _ -> touched = l.number();
        default -> {} // changes nothing on the board
      }
    }
    List<Run> runs = new ArrayList<>();
    begun.forEach((n, l) ->
        runs.add(
            new Run(
                n,
                l.at(),
                (Entry.ProofBegun) l.entry(),
                steps.getOrDefault(n, List.of()),
                Optional.ofNullable(ended.get(n)))));
    return new ProveFacts(runs, released, touched);
  }
}
