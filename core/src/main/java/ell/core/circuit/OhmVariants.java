package ell.core.circuit;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.OptionalInt;
import java.util.function.IntFunction;

/// What an ohmmeter shows between two nodes of a circuit without power, for one small change after
/// the other, at volts too low for any junction. One matrix is factored once; a change is a form of
/// a few numbers over the columns of its inverse. Not for many threads.
public final class OhmVariants {
  /// More is an open loop, ohm.
  public static final double OPEN = 6e7;

  private static final double NOTHING = 1e-30;

  /// Less of the current than this is none.
  private static final double SHARE = 1e-4;

  private final Circuit circuit;
  private final Variants variants;

  /// Columns of the inverse of the matrix without a change.
  private final IntFunction<double[]> inverse;

  private final int n;
  private final Element.Moment moment = new Element.Moment(0, new double[0]);

  /// That of a circuit: of its elements, those that lead at such volts.
  public OhmVariants(Circuit whole) {
    this(whole, true);
  }

  /// That of a circuit.
  ///
  /// @param awake whether the own current of a regulator begins with the volts, so that a meter
  ///   sees it. Many draw nothing below a threshold that nobody states
  public OhmVariants(Circuit whole, boolean awake) {
    circuit = new Circuit();
    whole.nodes().forEach(circuit::touch);
    for (Element e : whole.elements()) {
      int[] ends = e.nodes();
      if (e.leads() > 0 && ends.length == 2) {
        circuit.resistor(e.name, whole.name(ends[0]), whole.name(ends[1]), 1 / e.leads());
      } else if (awake && e instanceof Regulating r && r.law.quiescent() > 0) {
        circuit.resistor(
            e.name, whole.name(r.in), whole.name(r.ground), Regulating.AWAKE / r.waits());
      }
    }
    n = circuit.nodes().size();
    variants = new Variants(circuit);
    Newton newton = new Newton(circuit);
    double[] still = new double[n];
    inverse = new LowRank(newton.factors(still, moment), n, 0)::column;
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
  ///
  /// What is only added is a form of a few numbers over the inverse. Where something is gone that
  /// leads between the two nodes, the difference would be lost in rounding; the changed circuit is
  /// then factored by itself, once.
  public final class Changed {
    private final Change change;
    private final int[] nodes;
    private final double[][] form;
    private final List<TwoEnds> lost = new ArrayList<>();
    private IntFunction<double[]> whole; // columns of the inverse

    private Changed(Change c) {
      change = c;
      c.gone.forEach(e -> {
        if (e instanceof TwoEnds t) {
          lost.add(t);
        }
      });
      List<TwoEnds> added = new ArrayList<>();
      for (Element e : c.more) {
        if (e instanceof TwoEnds t && siemens(t) > 0) {
          added.add(t);
        }
      }
      nodes =
          added.stream()
              .flatMapToInt(e -> java.util.Arrays.stream(e.nodes()))
              .filter(x -> x >= 0)
              .distinct()
              .toArray();
      form = lost.isEmpty() && c.leads.isEmpty() ? form(matrix(added)) : new double[0][0];
    }

    private double[][] matrix(List<TwoEnds> added) {
      double[][] d = new double[nodes.length][nodes.length];
      for (TwoEnds e : added) {
        int a = local(e.a);
        int b = local(e.b);
        double g = siemens(e);
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
      return d;
    }

    private int local(int node) {
      for (int i = 0; i < nodes.length; i++) {
        if (nodes[i] == node) {
          return i;
        }
      }
      return -1;
    }

    /// `(1 + D·X)⁻¹·D`, X the inverse at these nodes.
    private double[][] form(double[][] d) {
      int k = nodes.length;
      double[][] m = new double[k][2 * k];
      for (int i = 0; i < k; i++) {
        for (int j = 0; j < k; j++) {
          double s = i == j ? 1 : 0;
          for (int c = 0; c < k; c++) {
            s += d[i][c] * inverse(inverse, nodes[c], nodes[j]);
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
      return between(node(a), node(b));
    }

    /// The number of a node or of a lead.
    ///
    /// @throws IllegalArgumentException when there is none
    public int node(String name) {
      Integer lead = change.leads.isEmpty() ? null : change.leads.get(name);
      return lead != null ? lead : OhmVariants.this.node(name);
    }

    /// Ohms between two nodes by their numbers, see [#node].
    public double between(int i, int j) {
      if (i == j) {
        return 0;
      }
      boolean alone = i < n && j < n;
      double r = alone ? direct(inverse, i, j) : 0;
      if (!alone || !lost.isEmpty() || !change.leads.isEmpty()) {
        return alone && !leads(i, j, r) ? open(r) : open(direct(whole(), i, j));
      }
      int k = nodes.length;
      double[] x = new double[k];
      for (int c = 0; c < k; c++) {
        x[c] = inverse(inverse, nodes[c], i) - inverse(inverse, nodes[c], j);
      }
      for (int p = 0; p < k; p++) {
        double s = 0;
        for (int c = 0; c < k; c++) {
          s += form[p][c] * x[c];
        }
        r -= x[p] * s;
      }
      return open(Math.max(r, 0));
    }

    /// Whether what is gone, or what is new, leads any of the current between two nodes.
    private boolean leads(int i, int j, double r) {
      for (TwoEnds e : lost) {
        double x =
            inverse(inverse, e.a, i)
                - inverse(inverse, e.a, j)
                - inverse(inverse, e.b, i)
                + inverse(inverse, e.b, j);
        if (siemens(e) * Math.abs(x) > SHARE) {
          return true;
        }
      }
      for (int at : nodes) {
        if (at < n
            && Math.abs(inverse(inverse, at, i) - inverse(inverse, at, j)) > SHARE * r
            && change.more.size() > lost.size()) {
          return true;
        }
      }
      return false;
    }

    private IntFunction<double[]> whole() {
      if (whole == null) {
        List<TwoEnds> more = new ArrayList<>();
        for (Element e : change.more) {
          if (e instanceof TwoEnds t && siemens(t) > 0) {
            more.add(t);
          }
        }
        Meshed meshed = Meshed.of(circuit, change.gone, more, change.leads.size());
        whole = meshed != null ? meshed::column : anew(more)::column;
      }
      return whole;
    }

    private LowRank anew(List<TwoEnds> more) {
      Circuit c = new Circuit();
      circuit.nodes().forEach(c::touch);
      change.leads.keySet().forEach(c::touch);
      for (Element e : circuit.elements()) {
        if (!change.gone.contains(e)) {
          put(c, (TwoEnds) e);
        }
      }
      more.forEach(e -> put(c, e));
      int size = c.nodes().size();
      return new LowRank(new Newton(c).factors(new double[size], moment), size, 0);
    }

    private void put(Circuit c, TwoEnds e) {
      c.resistor(e.name, name(e.a), name(e.b), 1 / siemens(e));
    }

    private String name(int at) {
      if (at < n) {
        return circuit.name(at);
      }
      return change.leads.entrySet().stream()
          .filter(x -> x.getValue() == at)
          .findFirst()
          .orElseThrow()
          .getKey();
    }
  }

  private double siemens(TwoEnds e) {
    return e instanceof Straight s ? s.siemens(moment) : e.leads();
  }

  /// Works a change out.
  public Changed with(Change c) {
    return new Changed(c);
  }

  /// Ohms between two nodes of the circuit as it is. Infinite for an open loop.
  public double between(String a, String b) {
    return between(node(a), node(b));
  }

  /// Ohms between two nodes by their numbers, see [#node].
  public double between(int i, int j) {
    return open(i == j ? 0 : direct(inverse, i, j));
  }

  private static double open(double r) {
    return r > OPEN ? Double.POSITIVE_INFINITY : r;
  }

  private static double direct(IntFunction<double[]> m, int i, int j) {
    // from differences of whole columns: what both have to the reference falls out
    return inverse(m, i, i) - inverse(m, j, i) - (inverse(m, i, j) - inverse(m, j, j));
  }

  /// The number of a node.
  ///
  /// @throws IllegalArgumentException when there is none
  public int node(String name) {
    OptionalInt found = circuit.find(name);
    if (found.isEmpty()) {
      throw new IllegalArgumentException("the circuit has no node '" + name + "'");
    }
    return found.getAsInt();
  }

  private static double inverse(IntFunction<double[]> m, int row, int column) {
    return row < 0 || column < 0 ? 0 : m.apply(column)[row];
  }

  /// Names of the nodes.
  public List<String> nodes() {
    return Collections.unmodifiableList(circuit.nodes());
  }
}
