package ell.core.circuit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;

/// A network of conductances to each other and to ground with currents into its nodes, solved by
/// taking away one node after the other, those with the fewest neighbours first, and replacing its
/// star by the mesh that acts the same. Nothing is subtracted on the way, so nothing cancels, and a
/// board, whose nodes mostly have few neighbours, takes little more than linear time. Source:
/// Rosen's theorem (A. Rosen, 1924); the order is that of Tinney and Walker, 1967.
///
/// Every node needs a path to ground. SI units. For one solve.
final class StarMesh {
  private final List<Map<Integer, Double>> arms = new ArrayList<>();
  private final double[] ground;
  private final double[] amps;

  StarMesh(int nodes, double leak) {
    ground = new double[nodes];
    amps = new double[nodes];
    for (int i = 0; i < nodes; i++) {
      ground[i] = leak;
      arms.add(new HashMap<>(4));
    }
  }

  /// Adds siemens between two nodes; a node below 0 is ground.
  void conduct(int a, int b, double siemens) {
    if (a >= 0 && b >= 0) {
      if (a != b) {
        arms.get(a).merge(b, siemens, Double::sum);
        arms.get(b).merge(a, siemens, Double::sum);
      }
    } else if (a >= 0 || b >= 0) {
      ground[Math.max(a, b)] += siemens;
    }
  }

  /// Adds a current into a node; ground takes anything.
  void inject(int node, double current) {
    if (node >= 0) {
      amps[node] += current;
    }
  }

  private record Seat(int node, int neighbours) {}

  /// Volts of every node. Uses the network up.
  double[] solve() {
    PriorityQueue<Seat> queue =
        new PriorityQueue<>((x, y) -> Integer.compare(x.neighbours(), y.neighbours()));
    for (int i = 0; i < ground.length; i++) {
      queue.add(new Seat(i, arms.get(i).size()));
    }
    boolean[] gone = new boolean[ground.length];
    double[] total = new double[ground.length];
    List<Integer> order = new ArrayList<>(ground.length);
    while (!queue.isEmpty()) {
      Seat s = queue.poll();
      if (gone[s.node()] || s.neighbours() != arms.get(s.node()).size()) {
        continue; // it was seated anew since
      }
      gone[s.node()] = true;
      order.add(s.node());
      total[s.node()] = takeAway(s.node());
      arms.get(s.node()).keySet().forEach(j -> queue.add(new Seat(j, arms.get(j).size())));
    }
    double[] volts = new double[ground.length];
    for (int node : order.reversed()) {
      double sum = amps[node];
      for (Map.Entry<Integer, Double> arm : arms.get(node).entrySet()) {
        sum += arm.getValue() * volts[arm.getKey()];
      }
      volts[node] = sum / total[node];
    }
    return volts;
  }

  /// Replaces the star of a node by a mesh of its neighbours; its own arms stay for the way back.
  private double takeAway(int node) {
    int n = arms.get(node).size();
    int[] ends = new int[n];
    double[] g = new double[n];
    double total = ground[node];
    int at = 0;
    for (Map.Entry<Integer, Double> arm : arms.get(node).entrySet()) {
      ends[at] = arm.getKey();
      g[at++] = arm.getValue();
      total += arm.getValue();
    }
    for (int i = 0; i < n; i++) {
      arms.get(ends[i]).remove(node);
      double share = g[i] / total;
      ground[ends[i]] += share * ground[node];
      amps[ends[i]] += share * amps[node];
      for (int j = 0; j < i; j++) {
        conduct(ends[i], ends[j], share * g[j]);
      }
    }
    return total;
  }
}
