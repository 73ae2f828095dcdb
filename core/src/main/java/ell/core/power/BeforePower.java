package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder.Source;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/// What must be so before a board gets power for the first time: cells out, modules out of their
/// sockets, nothing else plugged in where the supply feeds. Common practice, no source.
public final class BeforePower {
  private BeforePower() {}

  /// A sentence for each.
  ///
  /// @param placed parts that the book has as placed
  public static List<String> of(Revision revision, Ladder ladder, Set<String> placed) {
    List<String> all = new ArrayList<>();
    for (Part p : revision.parts()) {
      boolean cell = p.kind() == PartKind.CELL && !saidIn(ladder, p);
      boolean module = p.kind() == PartKind.MODULE && plugged(ladder, p);
      if (!p.fitted() || !cell && !module) {
        continue;
      }
      String what = cell ? "no cell in " + p.reference() : p.reference() + " is out of its sockets";
      all.add(
          placed.contains(p.reference())
              ? what
                  + " (the book has it as placed: "
                  + (cell ? "look into it" : "take it out")
                  + ")"
              : what);
    }
    for (Source s : ladder.sources()) {
      if (ladder.raises(s)) {
        all.add(
            s.rail()
                + " gets output "
                + ladder.channel(s)
                + " of the supply, and nothing else feeds it"
                + at(revision, s));
      }
    }
    return all;
  }

  private static boolean saidIn(Ladder ladder, Part p) {
    PartSaid s = ladder.parts().get(p.reference());
    return s != null && s.kind().equals("cell");
  }

  /// A module that is soldered on cannot be taken out: the ladder says of which it is so.
  private static boolean plugged(Ladder ladder, Part p) {
    return ladder.assumptions().stream()
        .anyMatch(a -> a.startsWith(p.reference() + " is out of its socket"));
  }

  private static String at(Revision revision, Source s) {
    Set<String> plugs = new LinkedHashSet<>();
    for (Joint j : revision.net(s.rail())) {
      if (PartKind.of(j.part()) == PartKind.CONNECTOR) {
        plugs.add(j.part());
      }
    }
    return plugs.isEmpty() ? "" : ": no other cable in " + String.join(", ", plugs);
  }
}
