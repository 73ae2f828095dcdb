package ell.desk.power;

import ell.core.board.Folded;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.Ladder.Load;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/// What hangs on a rail as one block of the picture: loads of one kind, with what they draw.
///
/// @param name parts, folded
/// @param boot at first power, A
/// @param worst at most, A
/// @param guessed whether nobody said how much
record LoadBlock(String name, double boot, double worst, boolean guessed) {
  /// The blocks of a rail, the greatest first.
  static List<LoadBlock> of(Revision revision, Ladder ladder, String rail) {
    Map<PartKind, List<Load>> kinds = new EnumMap<>(PartKind.class);
    for (Load l : ladder.loads()) {
      if (l.rail().equals(rail)) {
        PartKind kind = revision.part(l.part()).map(Part::kind).orElse(PartKind.OTHER);
        kinds.computeIfAbsent(kind, _ -> new ArrayList<>()).add(l);
      }
    }
    List<LoadBlock> blocks = new ArrayList<>();
    kinds.values().forEach(own -> blocks.add(block(own)));
    blocks.sort(Comparator.comparingDouble(LoadBlock::worst).reversed());
    return blocks;
  }

  private static LoadBlock block(List<Load> own) {
    return new LoadBlock(
        own.size() == 1
            ? own.getFirst().name()
            : Folded.folded(own.stream().map(Load::name).toList()),
        own.stream().mapToDouble(l -> l.in("boot")).sum(),
        own.stream().mapToDouble(l -> l.in("worst")).sum(),
        own.stream().anyMatch(Load::guessed));
  }

  /// What it draws.
  String words() {
    String least = EngineeringNumber.print(boot, Unit.AMPERE, 2);
    String most = EngineeringNumber.print(worst, Unit.AMPERE, 2);
    return (least.equals(most) ? "draws " + least : "draws " + least + " to " + most)
        + (guessed ? " ?" : "");
  }
}
