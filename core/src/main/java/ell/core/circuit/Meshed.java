package ell.core.circuit;

import java.util.Arrays;
import java.util.List;
import java.util.Set;

/// The matrix of a circuit of resistances with some of them gone and some more, in the pattern that
/// the circuit has without the change: ordering its unknowns anew would take longer than all else.
///
/// A lead of its own that hangs on one node at most is taken out beforehand, as a voltage divider.
final class Meshed {
  private final int n;
  private final SparseLu matrix;
  private final double[][] columns;
  private final int[] hangsOn; // by lead: the node that it hangs on, -1 for none
  private final double[] hangsBy; // siemens
  private final double[] all; // siemens of a lead to everything

  private Meshed(int n, SparseLu matrix, int[] hangsOn, double[] hangsBy, double[] all) {
    this.n = n;
    this.matrix = matrix;
    this.hangsOn = hangsOn;
    this.hangsBy = hangsBy;
    this.all = all;
    columns = new double[n + hangsOn.length][];
  }

  /// The changed circuit.
  ///
  /// @param circuit of resistances alone, whose pattern is known
  /// @param more those that come to it; nodes from the circuit's own number on are leads
  /// @return null where it does not fit the pattern
  static Meshed of(Circuit circuit, Set<Element> gone, List<TwoEnds> more, int leads) {
    Pattern pattern = circuit.pattern();
    if (pattern == null) {
      return null;
    }
    int n = circuit.nodes().size();
    int[] hangsOn = new int[leads];
    Arrays.fill(hangsOn, -1);
    double[] hangsBy = new double[leads];
    double[] elsewhere = new double[leads];
    Arrays.fill(elsewhere, Newton.LEAK);
    Stamp s = new Stamp(n, pattern);
    s.begin();
    for (int i = 0; i < n; i++) {
      s.conduct(i, -1, Newton.LEAK);
    }
    // what is gone is written too, as nothing: each has its places by the order of writing
    for (Element e : circuit.elements()) {
      TwoEnds t = (TwoEnds) e;
      s.conduct(t.a, t.b, gone.contains(e) ? 0 : t.leads());
    }
    for (TwoEnds e : more) {
      double g = e.leads();
      int a = Math.max(e.a, e.b);
      int b = Math.min(e.a, e.b);
      if (b >= n) {
        return null; // a lead on a lead
      }
      if (a < n) {
        if (!add(s, pattern, a, b, g)) {
          return null;
        }
        continue;
      }
      int lead = a - n;
      if (b < 0) {
        elsewhere[lead] += g;
      } else {
        if (hangsOn[lead] >= 0 && hangsOn[lead] != b) {
          return null;
        }
        hangsOn[lead] = b;
        hangsBy[lead] += g;
      }
    }
    double[] all = new double[leads];
    for (int lead = 0; lead < leads; lead++) {
      int on = hangsOn[lead];
      all[lead] = hangsBy[lead] + elsewhere[lead];
      if (on >= 0) {
        // of what it hangs by, what goes on from it to elsewhere
        s.values[pattern.place(on, on)] += hangsBy[lead] * elsewhere[lead] / all[lead];
      }
    }
    SparseLu matrix = new SparseLu(pattern);
    matrix.factor(s.values);
    return new Meshed(n, matrix, hangsOn, hangsBy, all);
  }

  private static boolean add(Stamp s, Pattern pattern, int a, int b, double g) {
    if (a == b) {
      return true;
    }
    if (b >= 0) {
      int there = pattern.place(a, b);
      if (there < 0) {
        return false;
      }
      s.values[there] -= g;
      s.values[pattern.place(b, a)] -= g;
      s.values[pattern.place(b, b)] += g;
    }
    if (a >= 0) {
      s.values[pattern.place(a, a)] += g;
    }
    return true;
  }

  /// A column of the inverse: the volts of every node, leads too, for an ampere into one.
  double[] column(int node) {
    if (columns[node] == null) {
      double[] in = new double[n];
      if (node < n) {
        in[node] = 1;
      } else if (hangsOn[node - n] >= 0) {
        in[hangsOn[node - n]] = hangsBy[node - n] / all[node - n];
      }
      double[] out = new double[n + hangsOn.length];
      matrix.solve(in, out);
      for (int lead = 0; lead < hangsOn.length; lead++) {
        double from = hangsOn[lead] < 0 ? 0 : hangsBy[lead] * out[hangsOn[lead]];
        out[n + lead] = ((node == n + lead ? 1 : 0) + from) / all[lead];
      }
      columns[node] = out;
    }
    return columns[node];
  }
}
