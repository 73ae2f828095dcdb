package ell.core.trace;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// The outlook of a word.
final class Words implements Outlook {
  private static final double NEVER = 0.001;

  private final List<String> words;
  private final int[] who;
  private final int[] group;
  private final double[][] table;

  /// @param words that may be said
  /// @param others chance of each where a case is not in `cases`
  /// @param cases chances of each
  Words(List<String> words, double[] others, Map<Integer, double[]> cases) {
    this.words = List.copyOf(words);
    who = cases.keySet().stream().mapToInt(Integer::intValue).sorted().toArray();
    group = new int[who.length];
    Map<List<Double>, Integer> seen = new LinkedHashMap<>();
    List<double[]> rows = new ArrayList<>();
    seen.put(key(others), 0);
    rows.add(others);
    for (int i = 0; i < who.length; i++) {
      double[] row = cases.get(who[i]);
      group[i] =
          seen.computeIfAbsent(
              key(row),
              _ -> {
                rows.add(row);
                return rows.size() - 1;
              });
    }
    table = rows.stream().map(Words::even).toArray(double[][]::new);
  }

  private int of(int at) {
    int i = Arrays.binarySearch(who, at);
    return i < 0 ? 0 : group[i];
  }

  private static List<Double> key(double[] row) {
    List<Double> k = new ArrayList<>();
    for (double d : row) {
      k.add(Math.rint(d * 1e4));
    }
    return k;
  }

  /// Nothing is never said.
  private static double[] even(double[] row) {
    double sum = 0;
    double[] out = new double[row.length];
    for (int i = 0; i < row.length; i++) {
      out[i] = Math.max(row[i], NEVER);
      sum += out[i];
    }
    for (int i = 0; i < row.length; i++) {
      out[i] /= sum;
    }
    return out;
  }

  @Override
  public double chance(Answer answer, int at, int times) {
    int w = words.indexOf(((Answer.Word) answer).word());
    double[] row = table[of(at)];
    return w < 0 ? 1.0 / row.length : row[w];
  }

  @Override
  public double best(int at, Answer answer) {
    double most = 0;
    for (double d : table[of(at)]) {
      most = Math.max(most, d);
    }
    return most;
  }

  @Override
  public int[] who() {
    return who;
  }

  @Override
  public int[] group() {
    return group;
  }

  @Override
  public double[][] table() {
    return table;
  }

  @Override
  public List<Outcome> outcomes() {
    return words.stream().map(w -> new Outcome(Double.NaN, Double.NaN, w)).toList();
  }
}
