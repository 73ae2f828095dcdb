package ell.core.trace;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleFunction;
import java.util.function.DoubleUnaryOperator;

/// The outlook of a number.
final class Numbers implements Outlook {
  /// Fewer sd between two means are one group.
  private static final double APART = 1.2;

  private static final int MOST_GROUPS = 24;

  /// Nothing is never shown.
  private static final double LEAST = 1e-12;

  /// On the scale of ohms: what beeps no more, and what is nearly open.
  private static final double BEEPS = 2.7;

  private static final double HIGH = 5.5;

  private final double from;
  private final double to;
  private final DoubleUnaryOperator scale;
  private final Spread others;
  private final int[] who;
  private final Spread[] spreads;
  private int[] group;
  private double[][] table;
  private double[] bounds;
  private final DoubleUnaryOperator back;
  private final DoubleFunction<String> print;

  /// @param from least on the scale
  /// @param to greatest on it
  /// @param scale from a value to the scale
  /// @param back from the scale to a value
  /// @param print a value for a person
  /// @param others what all show that are not in `cases`
  Numbers(
      double from,
      double to,
      DoubleUnaryOperator scale,
      DoubleUnaryOperator back,
      DoubleFunction<String> print,
      Spread others,
      Map<Integer, Spread> cases) {
    this.from = from;
    this.to = to;
    this.scale = scale;
    this.back = back;
    this.print = print;
    this.others = others;
    who = cases.keySet().stream().mapToInt(Integer::intValue).sorted().toArray();
    spreads = new Spread[who.length];
    for (int i = 0; i < who.length; i++) {
      spreads[i] = cases.get(who[i]);
    }
  }

  private Spread spread(int at) {
    int i = Arrays.binarySearch(who, at);
    return i < 0 ? others : spreads[i];
  }

  @Override
  public double chance(Answer answer, int at, int times) {
    double value = ((Answer.Number) answer).value();
    if (Double.isInfinite(value)) {
      // no beep, or more than the meter reads: nobody wrote which
      Spread s = spread(at);
      return 0.5 * s.between(BEEPS, to, from, to) + 0.5 * s.between(HIGH, to, from, to);
    }
    double y = scale.applyAsDouble(value);
    return spread(at).again(times).density(Math.clamp(y, from, to), to - from);
  }

  /// The chance that an answer is a slip under a case: a tip that does not touch, a range misread.
  double slipped(Answer answer, int at) {
    double value = ((Answer.Number) answer).value();
    double even =
        Double.isInfinite(value)
            ? 0.5 * (to - BEEPS) / (to - from) + 0.5 * (to - HIGH) / (to - from)
            : 1 / (to - from);
    return spread(at).slipped(chance(answer, at, 1), even);
  }

  @Override
  public double best(int at, Answer answer) {
    return answer instanceof Answer.Number(double v) && Double.isInfinite(v)
        ? 1
        : spread(at).best(to - from);
  }

  /// How likely any answer is where anything may come out.
  double even(Answer answer) {
    boolean open = answer instanceof Answer.Number(double v) && Double.isInfinite(v);
    return open ? 0.3 : 1 / (to - from);
  }

  /// What is expected under a case, on the scale.
  double mean(int at) {
    return spread(at).mean();
  }

  @Override
  public int[] who() {
    return who;
  }

  /// Alike means are one group. The outcomes lie around the means.
  private void sort() {
    if (group != null) {
      return;
    }
    List<Spread> centres = new ArrayList<>(List.of(others));
    int[] g = new int[who.length];
    Integer[] order = new Integer[who.length];
    Arrays.setAll(order, i -> i);
    Arrays.sort(order, (a, b) -> Double.compare(spreads[a].mean(), spreads[b].mean()));
    for (int i : order) {
      g[i] = near(centres, spreads[i]);
      if (g[i] < 0) {
        g[i] = centres.size();
        centres.add(spreads[i]);
      }
    }
    List<Spread> sorted = new ArrayList<>(centres);
    sorted.removeIf(s -> s.loose() >= 1);
    sorted.sort((a, b) -> Double.compare(a.mean(), b.mean()));
    List<Double> cuts = new ArrayList<>();
    for (int i = 1; i < sorted.size(); i++) {
      Spread a = sorted.get(i - 1);
      Spread b = sorted.get(i);
      double cut = (a.mean() * b.sd() + b.mean() * a.up()) / (a.up() + b.sd());
      if (cut > from && cut < to && (cuts.isEmpty() || cut > cuts.getLast())) {
        cuts.add(cut);
      }
    }
    bounds = new double[cuts.size() + 2];
    bounds[0] = from;
    for (int i = 0; i < cuts.size(); i++) {
      bounds[i + 1] = cuts.get(i);
    }
    bounds[bounds.length - 1] = to;
    table = new double[centres.size()][];
    for (int k = 0; k < table.length; k++) {
      table[k] = centres.get(k).between(bounds);
      for (int b = 0; b < table[k].length; b++) {
        table[k][b] = Math.max(LEAST, table[k][b]);
      }
    }
    group = g;
  }

  private static int near(List<Spread> centres, Spread s) {
    int best = -1;
    double least = Double.POSITIVE_INFINITY;
    for (int k = 0; k < centres.size(); k++) {
      Spread c = centres.get(k);
      if (c.loose() >= 1 != s.loose() >= 1) {
        continue;
      }
      double d =
          Math.abs(c.mean() - s.mean()) / Math.min(c.sd(), s.sd())
              + Math.abs(Math.log(c.up() / c.sd()) - Math.log(s.up() / s.sd()));
      if (d < least) {
        least = d;
        best = k;
      }
    }
    return least < APART || best >= 0 && centres.size() >= MOST_GROUPS || least == 0 ? best : -1;
  }

  @Override
  public int[] group() {
    sort();
    return group;
  }

  @Override
  public double[][] table() {
    sort();
    return table;
  }

  @Override
  public List<Outcome> outcomes() {
    sort();
    List<Outcome> all = new ArrayList<>();
    for (int b = 0; b < bounds.length - 1; b++) {
      double low = back.applyAsDouble(bounds[b]);
      double high = back.applyAsDouble(bounds[b + 1]);
      all.add(new Outcome(low, high, words(low, high)));
    }
    return all;
  }

  /// A stretch of values for a person.
  String words(double low, double high) {
    boolean first = low <= back.applyAsDouble(from);
    boolean last = high >= back.applyAsDouble(to);
    return first && last
        ? "any"
        : first
            ? "below " + print.apply(high)
            : last ? "above " + print.apply(low) : print.apply(low) + " to " + print.apply(high);
  }
}
