package ell.core.order;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedSet;
import java.util.Set;

/// What the book says of the building of a board.
///
/// @param placed parts in the order in which they were placed
/// @param stepsDone numbers of the steps that are done, kept for entries that say no side
/// @param actsDone steps that place nothing, as `action side`
/// @param gates latest answer by gate
public record OrderFacts(
    SequencedSet<String> placed,
    Set<Integer> stepsDone,
    Set<String> actsDone,
    Map<String, Boolean> gates) {
  public OrderFacts {
    stepsDone = Collections.unmodifiableSet(new LinkedHashSet<>(stepsDone));
    actsDone = Collections.unmodifiableSet(new LinkedHashSet<>(actsDone));
    gates = Collections.unmodifiableMap(new LinkedHashMap<>(gates));
  }

  /// The facts of a board.
  public static OrderFacts of(BoardState s) {
    return s.facts(OrderFacts.class, OrderFacts::fold);
  }

  /// Whether a step is done: all of its parts placed, its gate held, or itself logged.
  public boolean done(Step step) {
    if (step.gate().isPresent()) {
      return gates.getOrDefault(step.gate().get(), false);
    }
    return step.parts().isEmpty()
        ? actsDone.contains(step.action().words() + " " + step.side().key())
            || stepsDone.contains(step.number())
        : placed.containsAll(step.parts());
  }

  /// How many steps of an order are done.
  public int done(BuildOrder order) {
    return (int) order.steps().stream().filter(this::done).count();
  }

  /// The first step that is not done.
  public Optional<Step> next(BuildOrder order) {
    return order.steps().stream().filter(s -> !done(s)).findFirst();
  }

  /// The first step of an action that is not done.
  public Optional<Step> next(BuildOrder order, Step.Action action) {
    return order.steps().stream().filter(s -> s.action() == action && !done(s)).findFirst();
  }

  private static OrderFacts fold(List<Logged> standing) {
    SequencedSet<String> placed = new LinkedHashSet<>();
    Set<Integer> steps = new HashSet<>();
    Set<String> acts = new HashSet<>();
    Map<String, Boolean> gates = new LinkedHashMap<>();
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.StepDone s) {
        if (s.side().isEmpty()) {
          steps.add(s.number());
        } else if (s.parts().isEmpty()) {
          acts.add(s.action() + " " + s.side());
        }
        placed.addAll(s.parts());
      } else if (l.entry() instanceof Entry.Gate g) {
        gates.put(g.gate(), g.held());
      }
    }
    return new OrderFacts(
        Collections.unmodifiableSequencedSet(placed),
        Collections.unmodifiableSet(steps),
        Collections.unmodifiableSet(acts),
        Collections.unmodifiableMap(gates));
  }
}
