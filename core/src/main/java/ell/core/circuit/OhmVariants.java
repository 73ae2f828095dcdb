package ell.core.circuit;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.OptionalInt;

/// What an ohmmeter shows between two nodes of a circuit without power, for one small change after
/// the other, at volts too low for any junction. One matrix is factored once; a change is a form of
/// a few numbers over the columns of its inverse. Not for many threads.
public final class OhmVariants {
  /// More is an open loop, ohm.
  public static final double OPEN = 6e7;

  private static final double NOTHING = 1e-30;

  private final Circuit circuit;
  private final Variants variants;
  private final LowRank matrix;
  private final int n;
  private final Element.Moment moment = new Element.Moment(0, new double[0]);

  /// That of a circuit: of its elements, those that lead at such volts.
  public OhmVariants(Circuit whole) {
    circuit = new Circuit();
    whole.nodes().forEach(circuit::touch);
    for (Element e : whole.elements()) {
      int[] ends = e.nodes();
      if (e.leads() > 0 && ends.length == 2) {
        circuit.resistor(e.name, whole.name(ends[0]), whole.name(ends[1]), 1 / e.leads());
      }
    }
    n = circuit.nodes().size();
    variants = new Variants(circuit);
    Newton newton = new Newton(circuit);
    double[] still = new double[n];
    matrix = new LowRank(newton.factors(still, moment), n, 0);
  }

  /// Begins a change.
  public Change change() {
    return variants.change();
  }

  /// Whether the circuit has a node.
  public boolean has(String node) {
    return circuit.find(node).isPresent();
  }

  /// A change, worked out so far that a pair of nodes is asked quickly.
  public final class Changed {
    private final Change change;
    private final int[] nodes;
    private final double[][] form;

    private Changed(Change c) {
      change = c;
      List<int[]> at = new ArrayList<>();
      List<Double> by = new ArrayList<>();
      for (Element e : c.gone) {
        entry((TwoEnds) e, -1, at, by);
      }
      for (Element e : c.more) {
        entry((TwoEnds) e, 1, at, by);
      }
      nodes = at.stream().flatMapToInt(java.util.Arrays::stream).filter(x -> x >= 0).distinct().toArray();
      int k = nodes.length;
      double[][] d = new double[k][k];
      for (int i = 0; i < at.size(); i++) {
        int a = local(at.get(i)[0]);
        int b = local(at.get(i)[1]);
        double g = by.get(i);
        if (a >= 0) {
          d[a][a] += g;
        }
        if (b >= 0) {
          d[b][b] += g;
        }
        if (a >= 0 && b >= 0) {
          d[a][b] -= g;
          d[b][a] -= g;
        }
      }
      form = form(d);
    }

    private int local(int node) {
      if (node < 0) {
        return -1;
      }
      for (int i = 0; i < nodes.length; i++) {
        if (nodes[i] == node) {
          return i;
        }
      }
      return -1;
    }

    private void entry(TwoEnds e, int sign, List<int[]> at, List<Double> by) {
      double g = e instanceof Straight s ? s.siemens(moment) : e.leads();
      if (g > 0) {
        at.add(e.nodes());
        by.add(sign * g);
      }
    }

    /// `(1 + D·X)⁻¹·D`, X the inverse at these nodes.
    private double[][] form(double[][] d) {
      int k = nodes.length;
      double[][] m = new double[k][2 * k];
      for (int i = 0; i < k; i++) {
        for (int j = 0; j < k; j++) {
          double s = i == j ? 1 : 0;
          for (int c = 0; c < k; c++) {
            s += d[i][c] * inverse(nodes[c], nodes[j]);
          }
          m[i][j] = s;
          m[i][k + j] = d[i][j];
        }
      }
      for (int p = 0; p < k; p++) {
        int best = p;
        for (int i = p + 1; i < k; i++) {
          best = Math.abs(m[i][p]) > Math.abs(m[best][p]) ? i : best;
        }
        double[] t = m[best];
        m[best] = m[p];
        m[p] = t;
        double pivot = Math.abs(t[p]) < NOTHING ? NOTHING : t[p];
        for (int i = 0; i < k; i++) {
          if (i != p) {
            double f = m[i][p] / pivot;
            for (int c = p; f != 0 && c < 2 * k; c++) {
              m[i][c] -= f * t[c];
            }
          }
        }
        for (int c = p; c < 2 * k; c++) {
          t[c] /= pivot;
        }
      }
      double[][] out = new double[k][k];
      for (int i = 0; i < k; i++) {
        System.arraycopy(m[i], k, out[i], 0, k);
      }
      return out;
    }

    /// Whether there is a node under the change.
    public boolean has(String node) {
      return change.leads.containsKey(node) || OhmVariants.this.has(node);
    }

    /// Ohms between two nodes; leads of the change are nodes too. Infinite for an open loop.
    public double between(String a, String b) {
      int i = node(a, change);
      int j = node(b, change);
      double r = direct(i, j);
      int k = nodes.length;
      double[] x = new double[k];
      boolean any = false;
      for (int c = 0; c < k; c++) {
        x[c] = inverse(nodes[c], i) - inverse(nodes[c], j);
        any |= Math.abs(x[c]) > 1e-12 * r;
      }
      if (any) {
        for (int p = 0; p < k; p++) {
          double s = 0;
          for (int c = 0; c < k; c++) {
            s += form[p][c] * x[c];
          }
          r -= x[p] * s;
        }
      }
      return open(i == j ? 0 : Math.max(r, 0));
    }
  }

  /// Works a change out.
  public Changed with(Change c) {
    return new Changed(c);
  }

  /// Ohms between two nodes of the circuit as it is. Infinite for an open loop.
  public double between(String a, String b) {
    int i = node(a, null);
    int j = node(b, null);
    return open(i == j ? 0 : direct(i, j));
  }

  private static double open(double r) {
    return r > OPEN ? Double.POSITIVE_INFINITY : r;
  }

  private double direct(int i, int j) {
    return inverse(i, i) + inverse(j, j) - 2 * inverse(i, j);
  }

  private int node(String name, Change c) {
    if (c != null && c.leads.containsKey(name)) {
      return c.leads.get(name);
    }
    OptionalInt found = circuit.find(name);
    if (found.isEmpty()) {
      throw new IllegalArgumentException("the circuit has no node '" + name + "'");
    }
    return found.getAsInt();
  }

  private double inverse(int row, int column) {
    if (row < 0 || column < 0) {
      return 0;
    }
    if (row >= n || column >= n) {
      return row == column ? 1 / Newton.LEAK : 0;
    }
    return matrix.column(column)[row];
  }

  /// Names of the nodes.
  public List<String> nodes() {
    return Collections.unmodifiableList(circuit.nodes());
  }
}
