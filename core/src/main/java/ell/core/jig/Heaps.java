package ell.core.jig;

import java.util.BitSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jgrapht.alg.util.UnionFind;

/// Groups of which an item is in the way of an item of another hang together.
final class Heaps {
  private Heaps() {}

  /// Heaps of groups 0...groups − 1.
  ///
  /// @param groupOf the group of each item
  /// @param conflicts items that may not stand beside an item
  /// @param left items that count
  static UnionFind<Integer> of(int groups, int[] groupOf, BitSet[] conflicts, BitSet left) {
    UnionFind<Integer> heaps =
        new UnionFind<>(IntStream.range(0, groups).boxed().collect(Collectors.toSet()));
    for (int i = left.nextSetBit(0); i >= 0; i = left.nextSetBit(i + 1)) {
      BitSet c = (BitSet) conflicts[i].clone();
      c.and(left);
      for (int k = c.nextSetBit(i); k >= 0; k = c.nextSetBit(k + 1)) {
        heaps.union(groupOf[i], groupOf[k]);
      }
    }
    return heaps;
  }
}
