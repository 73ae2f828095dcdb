package ell.core.jig;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jgrapht.alg.util.UnionFind;

/// A board with a few of its parts fitted as the proof of a jig: parts with two ends that join the
/// nets which probes reach into as few heaps as they can, each part joining two heaps that no other
/// one does. Between any two probes of a heap a meter then reads a resistance that is known.
///
/// @param parts to be fitted
/// @param alone nets that no part of two ends joins to another one
public record ProofBoard(List<String> parts, List<String> alone) {
  public ProofBoard {
    parts = List.copyOf(parts);
    alone = List.copyOf(alone);
  }

  /// The least such board: a forest over the nets, parts that lead both ways first (Kruskal).
  ///
  /// @param nets that probes reach
  public static ProofBoard of(Revision r, Set<String> nets) {
    UnionFind<String> heaps = new UnionFind<>(nets);
    List<String> fitted = new ArrayList<>();
    Set<String> joined = new LinkedHashSet<>();
    r.parts().stream()
        .filter(p -> p.fitted() && rank(p) < 9)
        .sorted(Comparator.comparingInt(ProofBoard::rank).thenComparing(Part::reference))
        .forEach(p -> {
          List<String> ends =
              r.jointsOf(p.reference()).stream()
                  .filter(Joint::connected)
                  .map(Joint::net)
                  .distinct()
                  .toList();
          if (ends.size() == 2 && nets.containsAll(ends)) {
            if (!heaps.inSameSet(ends.get(0), ends.get(1))) {
              heaps.union(ends.get(0), ends.get(1));
              fitted.add(p.reference());
              joined.addAll(ends);
            }
          }
        });
    return new ProofBoard(fitted, nets.stream().filter(n -> !joined.contains(n)).sorted().toList());
  }

  /// What a meter reads best first.
  private static int rank(Part p) {
    PartKind k = p.kind();
    return switch (k) {
      case RESISTOR -> 0;
      case FERRITE, INDUCTOR, FUSE -> 1;
      case DIODE, LED -> 2;
      default -> 9;
    };
  }
}
