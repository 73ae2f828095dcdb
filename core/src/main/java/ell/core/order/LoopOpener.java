package ell.core.order;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.ToIntFunction;
import org.jgrapht.Graph;
import org.jgrapht.GraphPath;
import org.jgrapht.alg.connectivity.GabowStrongConnectivityInspector;
import org.jgrapht.alg.shortestpath.BFSShortestPath;
import org.jgrapht.graph.AsSubgraph;
import org.jgrapht.graph.DirectedPseudograph;

/// Opens the loops of a graph: as long as some arrows lead back to where they began, the cheapest
/// arrow of the shortest such way is given up. What is left has no loop.
final class LoopOpener {
  /// An arrow between two numbered things; equal arrows count once.
  interface Edge {
    int before();

    int after();
  }

  /// A loop that was opened.
  ///
  /// @param way its arrows in their order, the last leading back to the first
  /// @param gone the one of them that was given up: of the least cost, the first of equals
  record Opened<E>(List<E> way, E gone) {
    Opened {
      way = List.copyOf(way);
    }
  }

  private LoopOpener() {}

  /// The loops opened, in the order in which that was done; the same for the same edges.
  ///
  /// @param edges arrows in an order that decides between equals
  /// @param cost what it costs to lose one
  static <E extends Edge> List<Opened<E>> open(Collection<E> edges, ToIntFunction<E> cost) {
    Graph<Integer, E> graph = new DirectedPseudograph<>(null, null, false);
    for (E e : edges) {
      graph.addVertex(e.before());
      graph.addVertex(e.after());
      graph.addEdge(e.before(), e.after(), e);
    }
    List<Opened<E>> opened = new ArrayList<>();
    ArrayDeque<Set<Integer>> open = new ArrayDeque<>(knots(graph));
    while (!open.isEmpty()) {
      Graph<Integer, E> knot = new AsSubgraph<>(graph, open.poll());
      List<E> way = shortest(knot);
      E gone = way.stream().min(Comparator.comparingInt(cost)).orElseThrow();
      graph.removeEdge(gone);
      opened.add(new Opened<>(way, gone));
      knots(new AsSubgraph<>(graph, knot.vertexSet())).reversed().forEach(open::addFirst);
    }
    return opened;
  }

  /// The sets of more than one vertex in which each leads to each, the one with the least number
  /// first; and single vertices that lead to themselves.
  private static <E extends Edge> List<Set<Integer>> knots(Graph<Integer, E> graph) {
    return new GabowStrongConnectivityInspector<>(graph)
        .stronglyConnectedSets().stream()
            .filter(s -> s.size() > 1 || graph.containsEdge(one(s), one(s)))
            .<Set<Integer>>map(HashSet::new)
            .sorted(Comparator.comparing(s -> s.stream().min(Integer::compare).orElseThrow()))
            .toList();
  }

  private static int one(Set<Integer> set) {
    return set.iterator().next();
  }

  /// The shortest way from the vertex of the least number back to it.
  private static <E extends Edge> List<E> shortest(Graph<Integer, E> knot) {
    int from = knot.vertexSet().stream().min(Integer::compare).orElseThrow();
    List<E> best = null;
    for (E e : knot.outgoingEdgesOf(from)) {
      GraphPath<Integer, E> back = BFSShortestPath.findPathBetween(knot, e.after(), from);
      if (best == null || back.getLength() + 1 < best.size()) {
        best = new ArrayList<>(List.of(e));
        best.addAll(back.getEdgeList());
      }
    }
    return best;
  }
}
