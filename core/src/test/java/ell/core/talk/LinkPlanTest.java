package ell.core.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/// Operations in the order that heats least, against every order of small cases.
public class LinkPlanTest {
  private static final Map<String, Boolean> NONE = Map.of();

  private static Link solder(String part) {
    return new Link(part, Link.Kind.SOLDER, false, false);
  }

  private static Operation op(String name, Map<String, Boolean> links, String... after) {
    return new Operation(name, links, NONE, List.of(after));
  }

  /// Changes with the iron, by jumpers and switches, and of plugs, over an order; null where the
  /// order is against what must come before.
  private static long cost(List<Operation> order, List<Link> links, LinkPlan.Stand now) {
    LinkPlan.Stand stand = now;
    long cost = 0;
    List<String> done = new ArrayList<>();
    for (Operation o : order) {
      for (String a : o.after()) {
        if (!done.contains(a) && order.stream().anyMatch(x -> x.name().equals(a))) {
          return Long.MAX_VALUE;
        }
      }
      LinkPlan.Step s = LinkPlan.of(o, links, stand);
      for (LinkPlan.Change c : s.changes()) {
        cost += c.iron() ? 1_000_000 : 1000;
      }
      stand = LinkPlan.after(s, stand);
      done.add(o.name());
    }
    return cost;
  }

  private static long best(
      List<Operation> left, List<Operation> so, List<Link> links, LinkPlan.Stand now) {
    if (left.isEmpty()) {
      return cost(so, links, now);
    }
    long best = Long.MAX_VALUE;
    for (Operation o : left) {
      List<Operation> rest = new ArrayList<>(left);
      rest.remove(o);
      List<Operation> more = new ArrayList<>(so);
      more.add(o);
      best = Math.min(best, best(rest, more, links, now));
    }
    return best;
  }

  @Test
  public void noOrderOfAThousandSmallCasesHeatsLess() {
    Random r = new Random(7);
    for (int k = 0; k < 1000; k++) {
      List<Link> links = new ArrayList<>();
      for (int i = 0; i < 1 + r.nextInt(4); i++) {
        links.add(new Link("L" + i, Link.Kind.values()[r.nextInt(3)], r.nextBoolean(), false));
      }
      List<Operation> all = new ArrayList<>();
      for (int i = 0; i < 1 + r.nextInt(5); i++) {
        Map<String, Boolean> must = new HashMap<>();
        links.forEach(l -> {
          if (r.nextInt(3) > 0) {
            must.put(l.part(), r.nextBoolean());
          }
        });
        // what comes before has a smaller number: no circles
        List<String> after =
            i > 0 && r.nextInt(3) == 0 ? List.of("o" + r.nextInt(i)) : List.<String>of();
        all.add(new Operation("o" + i, must, NONE, after));
      }
      Map<String, Boolean> is = new HashMap<>();
      links.forEach(l -> is.put(l.part(), r.nextBoolean()));
      LinkPlan.Stand now = new LinkPlan.Stand(is, NONE);
      LinkPlan p = LinkPlan.of(all, links, now);
      assertTrue(p.proven());
      long found = cost(p.steps().stream().map(LinkPlan.Step::operation).toList(), links, now);
      assertEquals(found, best(all, List.of(), links, now), "case " + k);
      assertEquals(
          p.heats(),
          p.steps().stream()
              .flatMap(s -> s.changes().stream())
              .filter(LinkPlan.Change::iron)
              .count());
    }
  }

  /// Twelve links and twelve operations, each of which wants two of them: exact, and at once.
  @Test
  public void twelveOverTwelveAreExact() {
    Random r = new Random(3);
    List<Link> links = new ArrayList<>();
    Map<String, Boolean> is = new HashMap<>();
    for (int i = 0; i < 12; i++) {
      links.add(solder("L" + i));
      is.put("L" + i, false);
    }
    List<Operation> all = new ArrayList<>();
    for (int i = 0; i < 12; i++) {
      Map<String, Boolean> must = new HashMap<>();
      links.forEach(l -> {
        if (r.nextInt(4) > 0) {
          must.put(l.part(), r.nextBoolean());
        }
      });
      all.add(op("o" + i, must));
    }
    LinkPlan p = LinkPlan.of(all, links, new LinkPlan.Stand(is, NONE));
    assertTrue(p.proven());
    assertEquals(p.steps().size(), 12);
    assertEquals(
        Set.copyOf(p.steps().stream().map(LinkPlan.Step::operation).toList()), Set.copyOf(all));
    // no exchange of two makes it better
    List<Operation> order =
        new ArrayList<>(p.steps().stream().map(LinkPlan.Step::operation).toList());
    LinkPlan.Stand now = new LinkPlan.Stand(is, NONE);
    long cost = cost(order, links, now);
    for (int i = 0; i < 12; i++) {
      for (int j = i + 1; j < 12; j++) {
        List<Operation> other = new ArrayList<>(order);
        other.set(i, order.get(j));
        other.set(j, order.get(i));
        assertTrue(cost(other, links, now) >= cost);
      }
    }
  }

  /// By hand: open to program, closed to run; two programs between would be one change each way.
  @Test
  public void programBeforeRun() {
    List<Link> links = List.of(solder("A"), solder("B"));
    Operation program = op("program", Map.of("A", false, "B", false));
    Operation run = op("run", Map.of("A", true, "B", true), "program");
    Operation check = op("check", Map.of("A", false));
    LinkPlan p =
        LinkPlan.of(
            List.of(run, program, check),
            links,
            new LinkPlan.Stand(Map.of("A", false, "B", false), NONE));
    assertEquals(p.heats(), 2);
    assertEquals(p.steps().getLast().operation(), run);
    assertEquals(
        LinkPlan.needed("run", List.of(run, program, check), Set.of()), List.of(program, run));
    assertEquals(LinkPlan.needed("run", List.of(run, program), Set.of("program")), List.of(run));
  }

  @Test
  public void plugsThatNobodySpokeOfAreAskedFor() {
    Operation o = new Operation("run", NONE, Map.of("M1", true, "J3", false), List.of());
    LinkPlan.Step s = LinkPlan.of(o, List.of(), new LinkPlan.Stand(NONE, NONE));
    assertEquals(s.plug(), List.of("M1"));
    assertEquals(s.unplug(), List.of("J3"));
    LinkPlan.Step so = LinkPlan.of(o, List.of(), LinkPlan.after(s, new LinkPlan.Stand(NONE, NONE)));
    assertTrue(so.ready());
    assertFalse(s.ready());
  }

  @Test
  public void nonsenseIsRefused() {
    LinkPlan.Stand now = new LinkPlan.Stand(NONE, NONE);
    expectThrows(
        IllegalArgumentException.class,
        () -> LinkPlan.of(List.of(op("a", Map.of("X", true))), List.of(), now));
    expectThrows(
        IllegalArgumentException.class,
        () -> LinkPlan.of(List.of(op("a", NONE, "b"), op("b", NONE, "a")), List.of(), now));
    expectThrows(IllegalArgumentException.class, () -> LinkPlan.needed("x", List.of(), Set.of()));
  }
}
