package ell.core.circuit;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.function.IntPredicate;

/// What a circuit leads between its nodes at volts too low for any junction: its resistors, the
/// wire of its coils, its fuses. For the question "what should the meter show between these two".
///
/// Nodal analysis by conjugate gradients on the part of the circuit that lies between the two
/// nodes: a board of ten thousands of parts is asked a few questions only. Source: Kirchhoff's
/// current law; Hestenes and Stiefel 1952 for the solver.
public final class Resistance {
  private final Map<String, Integer> index = new HashMap<>();
  private final List<List<int[]>> arms = new ArrayList<>();
  private final List<Double> conductance = new ArrayList<>();
  private final List<String> names = new ArrayList<>();

  private Resistance() {}

  /// That of a circuit as it is now.
  public static Resistance of(Circuit circuit) {
    Resistance r = new Resistance();
    for (Element e : circuit.elements()) {
      double g = e.leads();
      int[] ends = e.nodes();
      if (g > 0 && ends.length == 2) {
        r.add(e.name, circuit.name(ends[0]), circuit.name(ends[1]), g);
      }
    }
    return r;
  }

  private void add(String name, String a, String b, double siemens) {
    int edge = conductance.size();
    conductance.add(siemens);
    names.add(name);
    int i = node(a);
    int j = node(b);
    arms.get(i).add(new int[] {j, edge});
    arms.get(j).add(new int[] {i, edge});
  }

  private int node(String name) {
    return index.computeIfAbsent(
        name,
        _ -> {
          arms.add(new ArrayList<>(2));
          return arms.size() - 1;
        });
  }

  /// Resistance between two nodes in ohm; infinite when nothing joins them.
  public double between(String a, String b) {
    if (a.equals(b)) {
      return 0;
    }
    Integer from = index.get(a);
    Integer to = index.get(b);
    if (from == null || to == null) {
      return Double.POSITIVE_INFINITY;
    }
    int[] local = component(from);
    if (local[to] < 0) {
      return Double.POSITIVE_INFINITY;
    }
    trim(local, from, to);
    return solve(local, from, to);
  }

  /// Ends between which a resistance lies, in ohm.
  ///
  /// @param low it is not below, 0 or more
  /// @param high it is not above, may be infinite
  public record Ends(double low, double high) {}

  private static final int MOST_VISITS = 200;
  private static final double ROUNDING = 1e-12;
  private double[] sums;

  /// How many nodes it has.
  public int size() {
    return arms.size();
  }

  /// Ends of the resistance between two nodes, found near them without solving the whole: not less
  /// than with all other nodes joined into one, not more than along the best single path
  /// (Rayleigh's law of monotony: what joins nodes lowers, what cuts arms raises a resistance).
  public Ends ends(String a, String b) {
    Integer from = index.get(a);
    Integer to = index.get(b);
    if (a.equals(b)) {
      return new Ends(0, 0);
    }
    if (from == null || to == null) {
      return new Ends(Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY);
    }
    double direct = 0;
    boolean fewer = arms.get(from).size() <= arms.get(to).size();
    for (int[] arm : arms.get(fewer ? from : to)) {
      direct += arm[0] == (fewer ? to : from) ? conductance.get(arm[1]) : 0;
    }
    double out = all(from) - direct;
    double in = all(to) - direct;
    out = out > ROUNDING * all(from) ? out : 0;
    in = in > ROUNDING * all(to) ? in : 0;
    double around = out > 0 && in > 0 ? 1 / (1 / out + 1 / in) : 0;
    double all = direct + around;
    double low = all > 0 ? 1 / all : Double.POSITIVE_INFINITY;
    double path = all > 0 ? path(from, to) : Double.POSITIVE_INFINITY;
    return new Ends(low, Math.min(path, direct > 0 ? 1 / direct : Double.POSITIVE_INFINITY));
  }

  /// Siemens of all arms of a node.
  private double all(int node) {
    if (sums == null) {
      sums = new double[arms.size()];
      for (int i = 0; i < sums.length; i++) {
        for (int[] arm : arms.get(i)) {
          sums[i] += conductance.get(arm[1]);
        }
      }
    }
    return sums[node];
  }

  /// Ohms along the best single path; infinite when none is found near.
  private double path(int from, int to) {
    Map<Integer, Double> best = new HashMap<>();
    PriorityQueue<double[]> next = new PriorityQueue<>((x, y) -> Double.compare(x[0], y[0]));
    next.add(new double[] {0, from});
    Set<Integer> done = new HashSet<>();
    while (!next.isEmpty() && done.size() < MOST_VISITS) {
      double[] at = next.poll();
      int node = (int) at[1];
      if (node == to) {
        return at[0];
      }
      if (!done.add(node) || arms.get(node).size() > MOST_VISITS) {
        continue; // what hangs on a plane of thousands is not looked through
      }
      for (int[] arm : arms.get(node)) {
        double ohms = at[0] + 1 / conductance.get(arm[1]);
        if (ohms < best.getOrDefault(arm[0], Double.POSITIVE_INFINITY)) {
          best.put(arm[0], ohms);
          next.add(new double[] {ohms, arm[0]});
        }
      }
    }
    return Double.POSITIVE_INFINITY;
  }

  /// Names of the resistors that end on both nodes.
  public List<String> directly(String a, String b) {
    Integer from = index.get(a);
    Integer to = index.get(b);
    if (from == null || to == null) {
      return List.of();
    }
    return arms.get(from).stream().filter(e -> e[0] == to).map(e -> names.get(e[1])).toList();
  }

  /// The nodes that some path of resistors joins to `a`, itself included.
  public Set<String> joined(String a) {
    Integer from = index.get(a);
    if (from == null) {
      return Set.of(a);
    }
    int[] local = component(from);
    Set<String> found = new HashSet<>();
    index.forEach((name, i) -> {
      if (local[i] >= 0) {
        found.add(name);
      }
    });
    return found;
  }

  private int[] component(int from) {
    int[] local = new int[arms.size()];
    Arrays.fill(local, -1);
    ArrayDeque<Integer> queue = new ArrayDeque<>();
    queue.add(from);
    local[from] = 0;
    while (!queue.isEmpty()) {
      for (int[] arm : arms.get(queue.poll())) {
        if (local[arm[0]] < 0) {
          local[arm[0]] = 0;
          queue.add(arm[0]);
        }
      }
    }
    return local;
  }

  /// Cuts away dead ends: a node with one arm carries no current.
  private void trim(int[] local, int from, int to) {
    IntPredicate in = i -> local[i] >= 0;
    int[] degree = new int[arms.size()];
    ArrayDeque<Integer> ends = new ArrayDeque<>();
    for (int i = 0; i < degree.length; i++) {
      if (in.test(i)) {
        degree[i] = (int) arms.get(i).stream().filter(e -> in.test(e[0])).count();
        if (degree[i] == 1 && i != from && i != to) {
          ends.add(i);
        }
      }
    }
    while (!ends.isEmpty()) {
      int i = ends.poll();
      local[i] = -1;
      for (int[] arm : arms.get(i)) {
        int j = arm[0];
        if (in.test(j) && --degree[j] == 1 && j != from && j != to) {
          ends.add(j);
        }
      }
    }
  }

  private double solve(int[] local, int from, int to) {
    int n = 0;
    for (int i = 0; i < local.length; i++) {
      if (local[i] >= 0) {
        local[i] = i == to ? Integer.MAX_VALUE : n++;
      }
    }
    int[] nodes = new int[n];
    double[] diagonal = new double[n];
    for (int i = 0; i < local.length; i++) {
      if (local[i] >= 0 && local[i] < n) {
        nodes[local[i]] = i;
        for (int[] arm : arms.get(i)) {
          if (local[arm[0]] >= 0) {
            diagonal[local[i]] += conductance.get(arm[1]);
          }
        }
      }
    }
    // one ampere in at `from`, out at `to`, which is held at zero volts
    double[] x = new double[n];
    double[] r = new double[n];
    double[] z = new double[n];
    r[local[from]] = 1;
    for (int i = 0; i < n; i++) {
      z[i] = r[i] / diagonal[i];
    }
    double[] p = z.clone();
    double[] ap = new double[n];
    double rz = dot(r, z);
    for (int step = 0; step < 20 * n + 200 && dot(r, r) > 1e-26; step++) {
      multiply(local, nodes, diagonal, p, ap);
      double alpha = rz / dot(p, ap);
      for (int i = 0; i < n; i++) {
        x[i] += alpha * p[i];
        r[i] -= alpha * ap[i];
        z[i] = r[i] / diagonal[i];
      }
      double next = dot(r, z);
      double beta = next / rz;
      rz = next;
      for (int i = 0; i < n; i++) {
        p[i] = z[i] + beta * p[i];
      }
      if (rz == 0) {
        break;
      }
    }
    return x[local[from]];
  }

  private void multiply(int[] local, int[] nodes, double[] diagonal, double[] p, double[] out) {
    for (int i = 0; i < out.length; i++) {
      double sum = diagonal[i] * p[i];
      for (int[] arm : arms.get(nodes[i])) {
        int j = local[arm[0]];
        if (j >= 0 && j < out.length) {
          sum -= conductance.get(arm[1]) * p[j];
        }
      }
      out[i] = sum;
    }
  }

  private static double dot(double[] a, double[] b) {
    double sum = 0;
    for (int i = 0; i < a.length; i++) {
      sum += a[i] * b[i];
    }
    return sum;
  }
}
