package ell.core.revise;

import ell.core.board.Block;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// Gates of the order as errata change them: the gate of the block that an erratum lies in asks for
/// its bodge too.
public final class ErrataGates {
  private ErrataGates() {}

  /// The gate that waits for an erratum: that of the last block which has a part of it; the last
  /// gate for one that lies at no part. One that holds nothing up is at none.
  public static Map<String, List<Erratum>> of(
      List<Block> blocks, List<Erratum> errata, Revision revision) {
    Map<String, List<Erratum>> by = new LinkedHashMap<>();
    for (Erratum e : errata) {
      if (blocks.isEmpty() || !e.severity().holds()) {
        continue;
      }
      List<String> parts = e.parts(revision);
      Block at = blocks.getLast();
      for (Block b : blocks) {
        if (b.parts().stream().anyMatch(parts::contains)) {
          at = b;
        }
      }
      by.computeIfAbsent(at.gate(), _ -> new ArrayList<>()).add(e);
    }
    return by;
  }

  /// The blocks with what their gates ask more.
  public static List<Block> with(List<Block> blocks, List<Erratum> errata, Revision revision) {
    Map<String, List<Erratum>> by = of(blocks, errata, revision);
    return by.isEmpty()
        ? blocks
        : blocks.stream()
            .map(b -> {
              List<Erratum> own = by.getOrDefault(b.gate(), List.of());
              return own.isEmpty() ? b : asking(b, own);
            })
            .toList();
  }

  private static Block asking(Block b, List<Erratum> own) {
    StringBuilder q = new StringBuilder(b.question());
    for (Erratum e : own) {
      q.append(" The board is mended of ")
          .append(e.id())
          .append(" (")
          .append(e.title())
          .append(')');
      e.shows().ifPresent(p -> q.append(": ").append(p.text()));
      q.append('.');
    }
    return new Block(b.name(), b.gate(), q.toString(), b.parts());
  }
}
