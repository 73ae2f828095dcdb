package ell.core.circuit;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// A circuit in time. Steps are as long as what is remembered allows; each is two solves of one
/// kind (a singly diagonally implicit method of order two that forgets what is fast; Alexander,
/// 1977). What starts, stops or trips does so between steps, found to some microseconds.
public final class Run {
  private static final double GAMMA = 1 - Math.sqrt(0.5);
  private static final double FIRST = 1e-8;
  private static final double SHORTEST = 1e-13;
  private static final double PATIENT = 1e-6;
  private static final double EVENT = 1e-5;
  private static final double QUIET = 1e-5;

  private final Circuit circuit;
  private final List<Element> elements;
  private final Element[] all;
  private final Element[] bent;
  private final Element[] remembering;
  private final Newton newton;
  private final double[] energy;
  private final double[] heat;
  private double[] x;
  private double[] v;
  private final double[] rate; // of each of them over the last step, a guess at the next
  private double time;
  private double step = FIRST;
  private double relative = 1e-3;
  private boolean settled = true;
  private Element.Moment last;
  private long steps;
  private long turns;
  private long tries = Long.MAX_VALUE;

  Run(Circuit circuit) {
    this.circuit = circuit;
    elements = circuit.elements();
    all = elements.stream().sorted(Element.BY_KIND).toArray(Element[]::new);
    bent = Arrays.stream(all).filter(e -> !(e instanceof Straight)).toArray(Element[]::new);
    remembering = Arrays.stream(all).filter(e -> e.memory() > 0).toArray(Element[]::new);
    newton = new Newton(circuit);
    energy = new double[elements.size()];
    heat = new double[elements.size()];
    x = new double[circuit.memory()];
    elements.forEach(e -> {
      e.mode = 0;
      e.fresh(x);
    });
    v = new double[circuit.nodes().size()];
    rate = new double[v.length];
    last = new Element.Moment(SHORTEST, x.clone());
  }

  /// How exact it is.
  ///
  /// @param share of what is remembered by which a step may be wrong, 1e-9...0.1; 1e-3 at first
  /// @throws IllegalArgumentException when it is not among them
  public Run exact(double share) {
    relative = Check.inRange(share, 1e-9, 0.1, "share");
    return this;
  }

  /// How many steps it tries from now on, those that are taken back too; then it has not settled. A
  /// board that never comes to rest is not waited for.
  ///
  /// @throws IllegalArgumentException when it is below 0
  public Run tries(long most) {
    tries = (long) Check.notNegative(most, "tries");
    return this;
  }

  /// How many of them are left.
  public long triesLeft() {
    return Math.max(0, tries);
  }

  /// Seconds since before power.
  public double time() {
    return time;
  }

  /// What it was at some time, to go back to.
  ///
  /// @param turns how often something had started, stopped or tripped
  public record Mark(double[] memory, double[] volts, int[] modes, double time, long turns) {
    public Mark {
      memory = memory.clone();
      volts = volts.clone();
      modes = modes.clone();
    }
  }

  /// Where it is now.
  public Mark mark() {
    return new Mark(x, v, elements.stream().mapToInt(e -> e.mode).toArray(), time, turns);
  }

  /// Goes back. What was counted of energy and heat since stays counted.
  public void back(Mark to) {
    x = to.memory().clone();
    v = to.volts().clone();
    for (int i = 0; i < elements.size(); i++) {
      elements.get(i).mode = to.modes()[i];
    }
    time = to.time();
    turns = to.turns();
    changed();
  }

  /// How often something started, stopped or tripped.
  public long turns() {
    return turns;
  }

  /// Whether the last stretch was solved to its end.
  public boolean settled() {
    return settled;
  }

  /// How many steps it took.
  public long steps() {
    return steps;
  }

  /// Something was changed from outside: the next step is a short one.
  public void changed() {
    step = FIRST;
    Arrays.fill(rate, 0);
  }

  /// Goes on for some time.
  ///
  /// @param seconds not below 0
  /// @throws IllegalArgumentException when `seconds` is below 0
  public Run on(double seconds) {
    return on(seconds, Double.POSITIVE_INFINITY);
  }

  /// Goes on for some time, in steps that are no longer than some seconds.
  ///
  /// @throws IllegalArgumentException when `seconds` is below 0 or `longest` not above 0
  public Run on(double seconds, double longest) {
    double end = time + Check.notNegative(seconds, "seconds");
    if (!(longest > 0)) {
      throw new IllegalArgumentException("a step is above 0 s, got " + longest);
    }
    settled = true;
    while (end - time > 1e-15 * Math.max(1, end) && settled) {
      if (tries-- <= 0) {
        settled = false;
        break;
      }
      double h = Math.min(Math.min(step, longest), end - time);
      advance(h, longest);
    }
    return this;
  }

  private void advance(double h, double longest) {
    double[] tried = new double[v.length];
    for (int i = 0; i < v.length; i++) {
      tried[i] = v[i] + GAMMA * h * rate[i];
    }
    Element.Moment first = new Element.Moment(GAMMA * h, x);
    // a shorter step begins nearer to its end than a long way round would
    boolean patient = h < PATIENT;
    boolean solved = newton.solve(tried, first, patient);
    if (!solved && !patient) {
      step = h / 8;
      return;
    }
    double[] k1 = slope(tried, first);
    double[] base = new double[x.length];
    for (int i = 0; i < x.length; i++) {
      base[i] = x[i] + (1 - GAMMA) * h * k1[i];
    }
    double[] v1 = tried.clone();
    double[] k2 = k1;
    boolean quiet = solved && quiet(h, k1);
    Element.Moment second = quiet ? first : new Element.Moment(GAMMA * h, base);
    if (!quiet) {
      for (int i = 0; i < v.length; i++) {
        tried[i] += (tried[i] - v[i]) * (1 - GAMMA) / GAMMA;
      }
      solved = solved && newton.solve(tried, second, patient);
      if (!solved && !patient) {
        step = h / 8;
        return;
      }
      k2 = slope(tried, second);
    }
    double wrong = solved ? wrong(h, base, k1, k2) : Double.POSITIVE_INFINITY;
    if (wrong > 1 || !Double.isFinite(wrong)) {
      step = h * (solved && Double.isFinite(wrong) ? Math.max(0.1, 0.9 / Math.sqrt(wrong)) : 0.1);
      if (step < SHORTEST) {
        settled = false;
      }
      return;
    }
    boolean turns = false;
    for (Element e : bent) {
      turns |= e.next(tried, second) != e.mode;
    }
    if (turns && h > EVENT) {
      step = h / 4;
      return;
    }
    if (!quiet) {
      count(v1, first, h * (1 - GAMMA));
    }
    count(tried, second, quiet ? h : h * GAMMA);
    for (int i = 0; i < x.length; i++) {
      x[i] = base[i] + GAMMA * h * k2[i];
    }
    for (int i = 0; i < v.length; i++) {
      rate[i] = (tried[i] - v[i]) / h;
    }
    v = tried;
    last = second;
    time += h;
    steps++;
    double wider = Math.min(4, 0.9 / Math.sqrt(Math.max(wrong, 1e-4)));
    step = Math.min(Math.max(h * wider, SHORTEST), Math.max(longest, SHORTEST));
    if (turns) {
      this.turns++;
      for (Element e : elements) {
        e.mode = e.next(v, last);
      }
      changed();
    }
  }

  private void count(double[] at, Element.Moment m, double seconds) {
    for (Element e : all) {
      e.count(at, m, seconds, energy, heat);
    }
  }

  private double[] slope(double[] at, Element.Moment m) {
    double[] k = new double[x.length];
    for (Element e : remembering) {
      e.slope(at, m, k);
    }
    return k;
  }

  /// Whether so little changes over a step that the half of it tells the rest.
  private boolean quiet(double h, double[] k) {
    for (Element e : remembering) {
      for (int w = 0; w < e.memory(); w++) {
        double may = relative * Math.abs(x[e.first + w]) + e.small(w) * relative / 1e-3;
        if (!(h * Math.abs(k[e.first + w]) <= QUIET * may)) {
          return false;
        }
      }
    }
    return true;
  }

  /// How much a step is wrong against what it may be, by the difference to the method of order one.
  private double wrong(double h, double[] base, double[] k1, double[] k2) {
    double most = 0;
    for (Element e : remembering) {
      for (int w = 0; w < e.memory(); w++) {
        int i = e.first + w;
        double end = base[i] + GAMMA * h * k2[i];
        double may =
            relative * Math.max(Math.abs(x[i]), Math.abs(end)) + e.small(w) * relative / 1e-3;
        most = Math.max(most, GAMMA * h * Math.abs(k2[i] - k1[i]) / may);
      }
    }
    return most;
  }

  /// Volts of a node; 0 for one that is not there.
  public double at(String node) {
    int i = circuit.find(node).orElse(-1);
    return i < 0 ? 0 : v[i];
  }

  /// Amperes of an element; 0 for one that is not there.
  public double through(String element) {
    Element e = circuit.named(element);
    return e == null ? 0 : e.amps(v, last);
  }

  /// Whether a supply holds its current instead of its volts.
  ///
  /// @throws IllegalArgumentException when there is no such supply
  public boolean limited(String supply) {
    return circuit.supply(supply).limited(v);
  }

  /// Joules that have gone into an element since before power, below 0 for what came out of it.
  public double energy(String element) {
    return sum(energy, element);
  }

  /// Joules that became heat in an element.
  public double heat(String element) {
    return sum(heat, element);
  }

  /// Joules that became heat in an element, by its place.
  double heat(int element) {
    return heat[element];
  }

  /// The elements of each part: those of its name, and of its name and a further word.
  Map<String, List<Integer>> named() {
    Map<String, List<Integer>> all = new HashMap<>();
    for (int i = 0; i < elements.size(); i++) {
      String part = elements.get(i).name.split(" ", 2)[0];
      all.computeIfAbsent(part, _ -> new ArrayList<>()).add(i);
    }
    return all;
  }

  private double sum(double[] of, String element) {
    double sum = 0;
    for (int i = 0; i < of.length; i++) {
      sum += elements.get(i).name.equals(element) ? of[i] : 0;
    }
    return sum;
  }

  /// Joules into all elements together: 0 but for rounding, for none is made or lost.
  public double balance() {
    double sum = 0;
    for (double e : energy) {
      sum += e;
    }
    return sum;
  }

  /// The state now.
  public Operating now() {
    return Rest.state(circuit, v, last, settled);
  }
}
