package ell.core.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// A test plan: what is done with a board to see whether it passes, as data. It is written by hand,
/// a step a line ([PlanReader]), or proposed from what is known of the revision ([PlanProposal]).
///
/// @param name of it
/// @param steps in their order
/// @param loops stretches that are gone through several times, one after the other
/// @param told what it leaves out or guesses, a sentence each
public record TestPlan(String name, List<TestStep> steps, List<Loop> loops, List<String> told) {
  /// No plan has more steps, each try of a loop counted.
  public static final int MOST = 20_000;

  public TestPlan {
    steps = List.copyOf(steps);
    loops = List.copyOf(loops);
    told = List.copyOf(told);
  }

  /// A stretch of steps that is gone through several times.
  ///
  /// @param from index of its first step
  /// @param to index behind its last step
  /// @param times 1 or more
  /// @param stress under which it is done, in words, such as `warmed to 60 °C`; may be empty
  public record Loop(int from, int to, int times, String stress) {}

  /// A step at one try.
  ///
  /// @param number of the step, counted from 1
  /// @param round counted from 1
  public record Turn(int number, int round, TestStep step) {}

  /// Every step in the order in which it is made.
  public List<Turn> turns() {
    List<Turn> all = new ArrayList<>();
    int i = 0;
    while (i < steps.size()) {
      int at = i;
      Optional<Loop> loop = loops.stream().filter(l -> l.from() == at).findFirst();
      if (loop.isEmpty()) {
        all.add(new Turn(i + 1, 1, steps.get(i)));
        i++;
        continue;
      }
      for (int round = 1; round <= loop.get().times(); round++) {
        for (int k = loop.get().from(); k < loop.get().to(); k++) {
          all.add(new Turn(k + 1, round, steps.get(k)));
        }
      }
      i = loop.get().to();
    }
    return all;
  }

  /// How often a step is made.
  ///
  /// @param number counted from 1
  public int times(int number) {
    return loops.stream()
        .filter(l -> number - 1 >= l.from() && number - 1 < l.to())
        .findFirst()
        .map(Loop::times)
        .orElse(1);
  }

  /// Minutes of a board that passes.
  public double minutes(boolean inJig) {
    return turns().stream().mapToDouble(t -> t.step().minutes(inJig)).sum();
  }

  /// The step of a name.
  public Optional<TestStep> step(String name) {
    return steps.stream().filter(s -> s.name().equals(name)).findFirst();
  }

  /// The same with its steps in another order; loops stay where they are only when there are none.
  public TestPlan ordered(List<TestStep> other) {
    return new TestPlan(name, other, loops, told);
  }
}
