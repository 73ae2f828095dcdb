package ell.core.circuit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntUnaryOperator;
import java.util.stream.Stream;

/// One circuit at rest, solved again and again with small changes: what thousands of faults would
/// do to a board. The matrix at the state without a change is factored once; each change is a few
/// places in it, and so is each element that acts otherwise because of it (Sherman, Morrison and
/// Woodbury). What is found is held against the currents of every node, element by element, so that
/// nothing of the way there is left in it.
///
/// It says when a change leads too far: supplies at their limit, converters that start or stop,
/// steps that do not settle. Whoever asks then solves the whole. Not for many threads.
public final class Variants {
  private static final int ROUNDS = 30;

  /// A step that is smaller is the last; volts, and share of them.
  private static final double TINY = 1e-11;

  private static final double FAR = 200;

  /// Slopes that differ by less stay as they were: what they miss shrinks with every step.
  private static final double ALIKE = 5e-5;

  private static final double NOTHING = 1e-13;

  /// New nodes of a change.
  private static final int MOST_LEADS = 8;

  private final Circuit circuit;
  private final int n;
  private final Map<String, List<Element>> byPart = new HashMap<>();
  private final Straight[] straight;
  private final Element[] bent;
  private final int[] begins;
  private final double[] volts;
  private final double most;
  private final Element.Moment moment;
  private final Written written = new Written();
  private double[] baseValues = {};
  private LowRank matrix;
  private final boolean plain;
  private final Operating rest;

  /// Solves a circuit as it is. From then on it must not be changed.
  public Variants(Circuit circuit) {
    this.circuit = circuit;
    Rest solver = new Rest(circuit);
    rest = solver.solve();
    n = circuit.nodes().size();
    volts = solver.volts();
    most = solver.most();
    moment = solver.moment();
    List<Straight> even = new ArrayList<>();
    List<Element> other = new ArrayList<>();
    for (Element e : circuit.elements()) {
      byPart.computeIfAbsent(part(e.name), _ -> new ArrayList<>(2)).add(e);
      if (e instanceof Straight s) {
        even.add(s);
      } else {
        other.add(e);
      }
    }
    straight = even.toArray(Straight[]::new);
    other.sort(Element.BY_KIND);
    bent = other.toArray(Element[]::new);
    begins = new int[bent.length + 1];
    plain = rest.settled() && !rest.limited();
    if (plain) {
      circuit.elements().stream()
          .filter(Supply.class::isInstance)
          .forEach(s -> ((Supply) s).free(true));
      double[] flows = new double[n];
      written.begin(volts, flows);
      for (int i = 0; i < bent.length; i++) {
        begins[i] = written.count;
        bent[i].stamp(written, volts, moment);
      }
      begins[bent.length] = written.count;
      baseValues = Arrays.copyOf(written.value, written.count);
      matrix = new LowRank(solver.newton().factors(volts, moment), n, MOST_LEADS);
    }
  }

  /// The part in the name of an element.
  static String part(String element) {
    int blank = element.indexOf(' ');
    return blank < 0 ? element : element.substring(0, blank);
  }

  List<Element> elements(String part) {
    return byPart.getOrDefault(part, List.of());
  }

  /// The elements of a name.
  Stream<Element> named(String name) {
    return elements(part(name)).stream().filter(e -> e.name.equals(name));
  }

  /// The place of a node, -1 for the reference and for one that is not there.
  int find(String node) {
    return circuit.find(node).orElse(-1);
  }

  int size() {
    return n;
  }

  int place(String node, Change c) {
    Integer lead = c.leads.get(node);
    return lead != null
        ? lead
        : circuit
            .find(node)
            .orElseThrow(
                () -> new IllegalArgumentException("the circuit has no node '" + node + "'"));
  }

  /// Whether the circuit has a node.
  public boolean has(String node) {
    return circuit.find(node).isPresent();
  }

  /// The state without a change.
  public Operating base() {
    return rest;
  }

  /// Begins a change.
  public Change change() {
    return new Change(this);
  }

  /// The state with a change.
  ///
  /// @return empty when it leads too far, or the circuit itself is at its limit
  public Optional<AtRest> with(Change c) {
    if (!plain || c.leads.size() > MOST_LEADS) {
      return Optional.empty();
    }
    int size = n + c.leads.size();
    double[] v = Arrays.copyOf(volts, size);
    for (int i = n; i < size; i++) {
      v[i] = Element.at(volts, c.was.get(i - n));
    }
    double[] flows = new double[size];
    double[] step = new double[size];
    for (int round = 0; round < ROUNDS; round++) {
      if (!write(c, v, flows) || !matrix.solve(flows, step)) {
        return Optional.empty();
      }
      double left = 0;
      for (int i = 0; i < size; i++) {
        double d = Math.abs(step[i]);
        if (!(d < FAR)) {
          return Optional.empty();
        }
        left = Math.max(left, d / (1 + Math.abs(v[i])));
        v[i] -= step[i];
      }
      if (left < TINY) {
        return stays(c, v) ? Optional.of(new Solved(c, v)) : Optional.empty();
      }
    }
    return Optional.empty();
  }

  /// The state with a change, solved from before power on, whatever the change leads to.
  ///
  /// @param near as in [Circuit#rest(double)]
  public Operating whole(Change c, double near) {
    Circuit k = new Circuit();
    circuit.nodes().forEach(k::touch);
    c.leads.keySet().forEach(k::touch);
    for (Element e : circuit.elements()) {
      if (!c.gone.contains(e)) {
        k.put(e.between(IntUnaryOperator.identity()));
      }
    }
    c.more.forEach(e -> k.put(e.between(IntUnaryOperator.identity())));
    return k.rest(near);
  }

  /// Writes the currents out of every node, and what changed of the matrix.
  ///
  /// @return false when too much of it changed
  private boolean write(Change c, double[] v, double[] flows) {
    for (int i = 0; i < v.length; i++) {
      flows[i] = Newton.LEAK * v[i];
    }
    matrix.begin();
    for (Straight e : straight) {
      boolean gone = !c.gone.isEmpty() && c.gone.contains(e);
      double g = e.siemens(moment);
      if (gone) {
        conduct(e.a, e.b, -g);
        continue;
      }
      double amps = g * e.volts(v) + e.pulls(moment);
      flow(e.a, e.b, amps, flows);
    }
    written.begin(v, flows);
    for (int i = 0; i < bent.length; i++) {
      Element e = bent[i];
      if (!c.gone.isEmpty() && c.gone.contains(e)) {
        // what it wrote before is taken back
        double[] none = new double[flows.length];
        Written w = new Written();
        w.begin(volts, none);
        e.stamp(w, volts, moment);
        for (int k = 0; k < w.count; k++) {
          matrix.add(w.row[k], w.column[k], -w.value[k]);
        }
        if (!matrix.room()) {
          return false;
        }
        continue;
      }
      int from = written.count;
      e.stamp(written, v, moment);
      int base = begins[i];
      for (int k = from; k < written.count; k++, base++) {
        double d = written.value[k] - baseValues[base];
        if (Math.abs(d) > ALIKE * Math.abs(baseValues[base]) + NOTHING) {
          if (!matrix.room()) {
            return false;
          }
          matrix.add(written.row[k], written.column[k], d);
        }
      }
    }
    int from = written.count;
    for (Element e : c.more) {
      e.stamp(written, v, moment);
    }
    for (int k = from; k < written.count; k++) {
      if (!matrix.room()) {
        return false;
      }
      matrix.add(written.row[k], written.column[k], written.value[k]);
    }
    return true;
  }

  private void conduct(int a, int b, double g) {
    if (a >= 0) {
      matrix.add(a, a, g);
    }
    if (b >= 0) {
      matrix.add(b, b, g);
    }
    if (a >= 0 && b >= 0) {
      matrix.add(a, b, -g);
      matrix.add(b, a, -g);
    }
  }

  private static void flow(int a, int b, double amps, double[] flows) {
    if (a >= 0) {
      flows[a] += amps;
    }
    if (b >= 0) {
      flows[b] -= amps;
    }
  }

  /// Whether everything goes on doing what it did, within limits and physics.
  private boolean stays(Change c, double[] v) {
    for (double x : v) {
      if (!(Math.abs(x) <= most)) {
        return false;
      }
    }
    for (Element e : bent) {
      if (c.gone.contains(e)) {
        continue;
      }
      if (e.next(v, moment) != e.mode || e instanceof Supply s && s.amps(v, moment) > s.limit()) {
        return false;
      }
    }
    for (Element e : c.more) {
      if (e.next(v, moment) != e.mode) {
        return false;
      }
    }
    return true;
  }

  private final class Solved implements AtRest {
    private final Change change;
    private final double[] v;

    Solved(Change change, double[] v) {
      this.change = change;
      this.v = v;
    }

    @Override
    public double at(String node) {
      Integer lead = change.leads.get(node);
      if (lead != null) {
        return v[lead];
      }
      return circuit.find(node).isPresent() ? Element.at(v, circuit.find(node).getAsInt()) : 0;
    }

    @Override
    public void answer(Asked asked, float[] volts, float[] amps, float[] watts) {
      Asked.Places p = asked.places(Variants.this);
      for (int i = 0; i < volts.length; i++) {
        volts[i] = (float) Element.at(v, p.volts()[i]);
      }
      Set<String> other = new HashSet<>(); // which the change has to do with
      change.gone.forEach(e -> other.add(e.name));
      change.more.forEach(e -> other.add(e.name));
      for (int i = 0; i < amps.length; i++) {
        String name = asked.amps.get(i);
        Element e = p.amps()[i];
        amps[i] =
            (float) (other.contains(name) ? through(name) : e == null ? 0 : e.amps(v, moment));
      }
      for (int i = 0; i < watts.length; i++) {
        boolean changed = false;
        double sum = 0;
        for (String name : asked.watts.get(i)) {
          changed |= other.contains(name);
        }
        if (changed) {
          for (String name : asked.watts.get(i)) {
            sum += heat(name);
          }
        } else {
          for (Element e : p.watts()[i]) {
            sum += e.heat(v, moment);
          }
        }
        watts[i] = (float) sum;
      }
    }

    @Override
    public double through(String element) {
      for (Element e : change.more) {
        if (e.name.equals(element)) {
          return e.amps(v, moment);
        }
      }
      for (Element e : elements(part(element))) {
        if (e.name.equals(element) && !change.gone.contains(e)) {
          return e.amps(v, moment);
        }
      }
      return 0;
    }

    @Override
    public double heat(String element) {
      double sum = 0;
      for (Element e : change.more) {
        if (e.name.equals(element)) {
          sum += e.heat(v, moment);
        }
      }
      for (Element e : elements(part(element))) {
        if (e.name.equals(element) && !change.gone.contains(e)) {
          sum += e.heat(v, moment);
        }
      }
      return sum;
    }
  }
}
