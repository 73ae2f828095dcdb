package ell.core.prove;

import ell.core.quantity.Limits;
import java.util.List;
import java.util.Optional;

/// A step of a test plan.
///
/// @param line of the plan that it was read from, 0 when it was proposed
/// @param name of the test, unlike every other in the plan
/// @param limits of its own; without them those that the revision has for the place
/// @param guard band on each side that is kept beside the uncertainty, in the unit of the limits
/// @param retries how often it is tried again before it has failed
/// @param needs names of steps without which it is left out
/// @param stops whether the run ends when it fails
/// @param minutes that it takes, 0 when nobody said so
public record TestStep(
    int line,
    String name,
    TestAct act,
    Optional<Limits> limits,
    double guard,
    int retries,
    List<String> needs,
    boolean stops,
    double minutes) {
  public TestStep {
    needs = List.copyOf(needs);
  }

  /// A step of which nothing is said but what it does.
  public static TestStep of(TestAct act, boolean stops, String... needs) {
    return new TestStep(0, act.usualName(), act, Optional.empty(), 0, 0, List.of(needs), stops, 0);
  }

  /// The same under another name.
  public TestStep named(String other) {
    return new TestStep(line, other, act, limits, guard, retries, needs, stops, minutes);
  }

  /// The same with another list of what it needs.
  public TestStep needing(List<String> others) {
    return new TestStep(line, name, act, limits, guard, retries, others, stops, minutes);
  }

  /// Minutes that it takes, said or typical.
  public double minutes(boolean inJig) {
    return minutes > 0 ? minutes : act.minutes(inJig);
  }
}
