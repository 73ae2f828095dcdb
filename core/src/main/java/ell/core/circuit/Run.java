package ell.core.circuit;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntToDoubleFunction;

/// A circuit in time. Steps are as long as what is remembered allows; each is two solves of one
/// kind (a singly diagonally implicit method of order two that forgets what is fast; Alexander,
/// 1977). What starts, stops or trips does so between steps, found to some microseconds.
public final class Run {
  private static final double GAMMA = 1 - Math.sqrt(0.5);
  private static final double FIRST = 1e-8;
  private static final double SHORTEST = 1e-13;
  private static final double PATIENT = 1e-6;
  private static final double EVENT = 1e-5;

  /// Of what a step may be wrong: up to which one solve will do.
  private static final double SLOW = 1e-3;

  /// Of what a step may be wrong: by which nothing moves while steps are not solved.
  private static final double QUIET = 1e-5;

  /// No more of them in a row.
  private static final int STAYS = 64;

  private final Circuit circuit;
  private final List<Element> elements;
  private final Element[] all;
  private final Element[] bent;
  private final Element[] remembering;
  private final Regulating[] regulators;
  private final Newton newton;
  private final Account account;
  private double[] x;
  private double[] v;
  private final double[] rate; // of each of them over the last step, a guess at the next
  private double[] k; // how fast what is remembered changed at its end
  private final double[] still;
  private double slowly = Double.POSITIVE_INFINITY; // how those slopes change, as a step is wrong
  private double drift; // since it was counted last, in shares of how wrong a step may be
  private double time;
  private double told; // up to which the memory and the volts are
  private double stays; // up to which what was solved last tells all, to [#QUIET]
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
    regulators = Regulating.inTurn(elements);
    newton = new Newton(circuit);
    account = new Account(all);
    x = new double[circuit.memory()];
    elements.forEach(e -> {
      e.mode = 0;
      e.fresh(x);
    });
    v = new double[circuit.nodes().size()];
    rate = new double[v.length];
    k = new double[x.length];
    still = new double[x.length];
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
    tell();
    return new Mark(x, v, elements.stream().mapToInt(e -> e.mode).toArray(), time, turns);
  }

  /// Goes back. What was counted of energy and heat since stays counted.
  public void back(Mark to) {
    tell();
    account.close(v, last, time); // what was counted stays counted
    x = to.memory().clone();
    v = to.volts().clone();
    for (int i = 0; i < elements.size(); i++) {
      elements.get(i).mode = to.modes()[i];
    }
    time = to.time();
    told = time;
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
    tell();
    account.close(time);
    step = FIRST;
    slowly = Double.POSITIVE_INFINITY;
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
      if (time + h <= stays) {
        time += h;
        steps++;
      } else {
        tell();
        advance(h, longest);
      }
    }
    return this;
  }

  private void advance(double h, double longest) {
    if (slowly * h * h <= SLOW && alone(h, longest)) {
      return;
    }
    double[] tried = new double[v.length];
    for (int i = 0; i < v.length; i++) {
      tried[i] = v[i] + GAMMA * h * rate[i];
    }
    Element.Moment first = new Element.Moment(GAMMA * h, x);
    guess(tried, first, v, last);
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
    Element.Moment second = new Element.Moment(GAMMA * h, base);
    for (int i = 0; i < v.length; i++) {
      tried[i] += (tried[i] - v[i]) * (1 - GAMMA) / GAMMA;
    }
    guess(tried, second, v1, first);
    solved = solved && newton.solve(tried, second, patient);
    if (!solved && !patient) {
      step = h / 8;
      return;
    }
    double[] k2 = slope(tried, second);
    double wrong = solved ? GAMMA * h * apart(base, GAMMA * h, k2, k1) : Double.POSITIVE_INFINITY;
    if (wrong > 1 || !Double.isFinite(wrong)) {
      step = h * (solved && Double.isFinite(wrong) ? Math.max(0.1, 0.9 / Math.sqrt(wrong)) : 0.1);
      if (step < SHORTEST) {
        settled = false;
      }
      return;
    }
    boolean turns = turns(tried, second);
    if (turns && h > EVENT) {
      step = h / 4;
      return;
    }
    account.close(v, last, time);
    account.add(v1, first, h * (1 - GAMMA));
    account.add(tried, second, h * GAMMA);
    slowly = apart(base, GAMMA * h, k2, k) / (2 * h);
    arrive(tried, second, h, base, GAMMA * h, k2);
    lengthen(h, wrong, longest);
    if (turns) {
      this.turns++;
      for (Element e : elements) {
        e.mode = e.next(v, last);
      }
      changed();
    }
  }

  /// A step in one solve (Euler's method backwards), where slopes change so little that it is
  /// hardly wrong.
  ///
  /// @return whether it was; nothing is changed otherwise
  private boolean alone(double h, double longest) {
    double[] tried = new double[v.length];
    for (int i = 0; i < v.length; i++) {
      tried[i] = v[i] + h * rate[i];
    }
    Element.Moment m = new Element.Moment(h, x);
    guess(tried, m, v, last);
    if (!newton.solve(tried, m, false) || turns(tried, m)) {
      slowly = Double.POSITIVE_INFINITY;
      return false;
    }
    double[] now = slope(tried, m);
    double bends = apart(x, h, now, k);
    if (!(h / 2 * bends <= SLOW)) {
      slowly = Double.POSITIVE_INFINITY;
      return false;
    }
    double speed = apart(x, h, now, still);
    double goesOn = QUIET / Math.max(bends, speed);
    if (h <= goesOn) {
      stays = time + Math.min(goesOn, STAYS * h);
    }
    if (!account.open()) {
      account.open(v, last, time);
      drift = 0;
    }
    drift += speed * (Math.max(time + h, stays) - time);
    slowly = bends / (2 * h);
    arrive(tried, m, h, x, h, now);
    if (drift > 1) {
      account.upTo(v, last, time);
      drift = 0;
    }
    lengthen(h, h / 2 * bends, longest);
    return true;
  }

  private boolean turns(double[] at, Element.Moment m) {
    for (Element e : bent) {
      if (e.next(at, m) != e.mode) {
        return true;
      }
    }
    return false;
  }

  /// Takes a step that is right enough.
  ///
  /// @param base what was remembered, to which the last slope is added for so many seconds
  private void arrive(
      double[] at, Element.Moment m, double h, double[] base, double seconds, double[] slope) {
    double[] to = new double[x.length];
    for (int i = 0; i < x.length; i++) {
      to[i] = base[i] + seconds * slope[i];
    }
    for (int i = 0; i < v.length; i++) {
      rate[i] = (at[i] - v[i]) / h;
    }
    x = to;
    v = at;
    k = slope;
    last = m;
    time += h;
    told = time;
    steps++;
  }

  private void lengthen(double h, double wrong, double longest) {
    double wider = Math.min(4, 0.9 / Math.sqrt(Math.max(wrong, 1e-4)));
    step = Math.min(Math.max(h * wider, SHORTEST), Math.max(longest, SHORTEST));
  }

  private void guess(double[] tried, Element.Moment m, double[] before, Element.Moment was) {
    for (Regulating r : regulators) {
      r.guess(tried, m, before, was);
    }
  }

  private double[] slope(double[] at, Element.Moment m) {
    double[] k = new double[x.length];
    for (Element e : remembering) {
      e.slope(at, m, k);
    }
    return k;
  }

  /// Goes to the end of the steps that were not solved; from here on they are.
  private void tell() {
    stays = 0;
    double h = time - told;
    told = time;
    if (h > 0) {
      for (int i = 0; i < x.length; i++) {
        x[i] += h * k[i];
      }
      for (int i = 0; i < v.length; i++) {
        v[i] += h * rate[i];
      }
    }
  }

  /// How far two slopes are apart, a second, as a share of how wrong a step may be: by what is
  /// remembered before it or at its end, whichever is more.
  private double apart(double[] base, double seconds, double[] one, double[] other) {
    double most = 0;
    for (Element e : remembering) {
      for (int w = 0; w < e.memory(); w++) {
        int i = e.first + w;
        double size = Math.max(Math.abs(x[i]), Math.abs(base[i] + seconds * one[i]));
        double may = relative * size + e.small(w) * relative / 1e-3;
        most = Math.max(most, Math.abs(one[i] - other[i]) / may);
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
    return sum(element, counted()::joules);
  }

  /// Joules that became heat in an element.
  public double heat(String element) {
    return sum(element, counted()::heat);
  }

  /// Joules that became heat in an element, by its place.
  double heat(int element) {
    return counted().heat(element);
  }

  private Account counted() {
    tell();
    account.upTo(v, last, time);
    return account;
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

  private double sum(String element, IntToDoubleFunction of) {
    double sum = 0;
    for (Element e : elements) {
      sum += e.name.equals(element) ? of.applyAsDouble(e.place) : 0;
    }
    return sum;
  }

  /// Joules into all elements together: 0 but for rounding, for none is made or lost.
  public double balance() {
    return counted().balance();
  }

  /// The state now.
  public Operating now() {
    return Rest.state(circuit, v, last, settled);
  }
}
