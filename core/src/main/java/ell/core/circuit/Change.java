package ell.core.circuit;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// A small change of a circuit: parts that are gone, that hang elsewhere, that sit the wrong way
/// round, resistors more. Made with [Variants#change].
///
/// The elements of a part are those of its name, and those whose names begin with it and a blank.
public final class Change {
  private final Variants of;
  final Set<Element> gone = Collections.newSetFromMap(new IdentityHashMap<>());
  final List<Element> more = new ArrayList<>();
  final Map<String, Integer> leads = new LinkedHashMap<>();

  /// For each new node the one that it was before, to begin a solution with.
  final List<Integer> was = new ArrayList<>();

  Change(Variants of) {
    this.of = of;
  }

  /// Whether it changes anything.
  public boolean any() {
    return !gone.isEmpty() || !more.isEmpty();
  }

  /// A part is not there.
  public Change without(String part) {
    gone.addAll(of.elements(part));
    more.removeIf(e -> Variants.part(e.name).equals(part));
    return this;
  }

  /// What of a part hangs on a node hangs on a lead of its own instead.
  public Change apart(String part, String node, String lead) {
    int from = of.place(node, this);
    int to = lead(lead, from);
    replace(part, n -> n == from ? to : n, from);
    return this;
  }

  /// What has two ends of a part sits the wrong way round.
  public Change turned(String part) {
    for (Element e : List.copyOf(of.elements(part))) {
      if (e instanceof Junction || e instanceof Cell) {
        TwoEnds t = (TwoEnds) e;
        gone.add(e);
        more.add(e.moved(n -> n == t.a ? t.b : n == t.b ? t.a : n));
      }
    }
    return this;
  }

  /// A resistor more.
  ///
  /// @param ohms not below 0
  public Change resistor(String name, String a, String b, double ohms) {
    int from = of.place(a, this);
    int to = of.place(b, this);
    if (from != to) {
      more.add(new Resistor(name, from, to, Math.max(ohms, Circuit.LEAST_OHM)));
    }
    return this;
  }

  /// The resistors of a name have another value.
  ///
  /// @param ohms not below 0
  public Change value(String name, double ohms) {
    for (Element e : of.elements(name)) {
      if (e instanceof Resistor r && gone.add(e)) {
        more.add(new Resistor(name, r.a, r.b, Math.max(ohms, Circuit.LEAST_OHM)));
      }
    }
    return this;
  }

  private void replace(String part, java.util.function.IntUnaryOperator to, int from) {
    List<Element> again = new ArrayList<>();
    more.removeIf(e -> Variants.part(e.name).equals(part) && touches(e, from) && again.add(e));
    for (Element e : of.elements(part)) {
      if (touches(e, from) && gone.add(e)) {
        again.add(e);
      }
    }
    again.forEach(e -> more.add(e.moved(to)));
  }

  private static boolean touches(Element e, int node) {
    for (int n : e.nodes()) {
      if (n == node) {
        return true;
      }
    }
    return false;
  }

  /// A node of its own.
  private int lead(String name, int from) {
    return leads.computeIfAbsent(
        name,
        _ -> {
          was.add(from);
          return of.size() + leads.size();
        });
  }
}
