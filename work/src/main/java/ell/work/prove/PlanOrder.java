package ell.work.prove;

import ell.core.prove.BuildProof;
import ell.core.prove.TestAct;
import ell.core.prove.TestOrder;
import ell.core.prove.TestPlan;
import ell.core.prove.TestStep;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// The steps of a plan in the order that decides a board soonest: stretches between what switches
/// power, sets or prepares stay where they are, and the tests within each are put in order by what
/// the book says of them.
///
/// @param plan in that order
/// @param minutes expected until a board is decided, when the first failure ends its proof
/// @param asGiven likewise in the order that it had
/// @param optimal whether no order of its stretches is better
/// @param told what it rests on, a sentence each
public record PlanOrder(
    TestPlan plan, double minutes, double asGiven, boolean optimal, List<String> told) {
  public PlanOrder {
    told = List.copyOf(told);
  }

  /// The order of a plan.
  ///
  /// @param book what the book says of its tests
  public static PlanOrder of(TestPlan plan, BuildProof book) {
    Map<String, Double> fails = new HashMap<>();
    int made = 0;
    for (BuildProof.OfTest t : book.tests()) {
      // one half failure and one half pass more than were seen (Jeffreys): nothing is certain
      fails.put(t.name(), (t.failed() + 0.5) / (t.n() + 1));
      made += t.n();
    }
    List<String> told = new ArrayList<>();
    told.add(
        made == 0
            ? "no test of it is in the book yet: all are taken to fail alike, and only their minutes"
                + " count"
            : "chances to fail are those of the book, with half a failure and half a pass added");
    told.add("where it is kept in this order, remarks of the plan are not kept with it");
    if (!plan.loops().isEmpty()) {
      told.add("loops stay where they are, and nothing is moved past them");
    }
    List<TestStep> out = new ArrayList<>();
    List<TestStep> stretch = new ArrayList<>();
    boolean optimal = true;
    for (int i = 0; i < plan.steps().size(); i++) {
      TestStep s = plan.steps().get(i);
      boolean fixed =
          !s.act().tests()
              || s.act() instanceof TestAct.Power
              || plan.times(i + 1) > 1
              || looped(plan, i);
      if (fixed) {
        optimal &= sorted(stretch, fails, out);
        out.add(s);
      } else {
        stretch.add(s);
      }
    }
    optimal &= sorted(stretch, fails, out);
    return new PlanOrder(
        plan.ordered(out), expected(out, fails), expected(plan.steps(), fails), optimal, told);
  }

  private static boolean looped(TestPlan p, int i) {
    return p.loops().stream().anyMatch(l -> i >= l.from() && i < l.to());
  }

  private static double expected(List<TestStep> steps, Map<String, Double> fails) {
    List<Integer> order = new ArrayList<>();
    double[] m = new double[steps.size()];
    double[] f = new double[steps.size()];
    for (int i = 0; i < m.length; i++) {
      order.add(i);
      m[i] = steps.get(i).minutes(false);
      f[i] = steps.get(i).act().tests() ? fails.getOrDefault(steps.get(i).name(), 0.5) : 0;
    }
    return TestOrder.expected(order, m, f);
  }

  private static boolean sorted(
      List<TestStep> stretch, Map<String, Double> fails, List<TestStep> out) {
    int n = stretch.size();
    double[] m = new double[n];
    double[] f = new double[n];
    List<List<Integer>> after = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      TestStep s = stretch.get(i);
      m[i] = s.minutes(false);
      f[i] = fails.getOrDefault(s.name(), 0.5);
      List<Integer> own = new ArrayList<>();
      for (int k = 0; k < n; k++) {
        if (s.needs().contains(stretch.get(k).name())) {
          own.add(k);
        }
      }
      after.add(own);
    }
    TestOrder o = TestOrder.best(m, f, after);
    o.order().forEach(i -> out.add(stretch.get(i)));
    stretch.clear();
    return o.optimal();
  }
}
