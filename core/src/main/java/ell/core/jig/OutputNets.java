package ell.core.jig;

import ell.core.beep.Beside;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.PartValue;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/// Outputs of a board that patterns are set on: which of them lie beside each other, and what
/// inputs should read.
public final class OutputNets {
  /// A resistor up to this hands a level on, Ω.
  private static final double HANDS_ON = 20e3;

  private OutputNets() {}

  /// Two outputs, by their places in a list.
  public record Pair(int a, int b) {}

  /// Pairs of outputs whose metal lies so near that solder may join them.
  public static List<Pair> neighbours(Revision r, List<String> outputs) {
    Set<Pair> all = new LinkedHashSet<>();
    for (Beside x : Beside.all(r, Integer.MAX_VALUE)) {
      int a = outputs.indexOf(x.a().net());
      int b = outputs.indexOf(x.b().net());
      if (a >= 0 && b >= 0 && a != b) {
        all.add(new Pair(Math.min(a, b), Math.max(a, b)));
      }
    }
    return List.copyOf(all);
  }

  /// What inputs read at each vector: the level of the one output that hands it on through
  /// resistors, beads and closed links, `x` where none or several do.
  public static List<String> answers(
      Revision r, Ladder ladder, List<String> outputs, List<String> inputs, Patterns p) {
    int[] from = new int[inputs.size()];
    for (int i = 0; i < from.length; i++) {
      from[i] = from(r, ladder, outputs, inputs.get(i));
    }
    List<String> all = new ArrayList<>();
    for (String v : p.vectors()) {
      StringBuilder s = new StringBuilder();
      for (int f : from) {
        s.append(f < 0 ? 'x' : v.charAt(f));
      }
      all.add(s.toString());
    }
    return all;
  }

  private static int from(Revision r, Ladder ladder, List<String> outputs, String input) {
    Set<String> seen = new HashSet<>(Set.of(input));
    Deque<String> next = new ArrayDeque<>(seen);
    int found = -1;
    while (!next.isEmpty()) {
      String net = next.poll();
      int at = outputs.indexOf(net);
      if (at >= 0) {
        if (found >= 0) {
          return -1;
        }
        found = at;
        continue; // an output decides its own net
      }
      for (Joint j : r.net(net)) {
        Part part = r.part(j.part()).orElse(null);
        if (part == null || !part.fitted() || !handsOn(part)) {
          continue;
        }
        for (Joint o : r.jointsOf(part.reference())) {
          if (o.connected()
              && ladder.rail(o.net()).isEmpty()
              && !o.net().equals(ladder.ground())
              && seen.add(o.net())) {
            next.add(o.net());
          }
        }
      }
    }
    return found;
  }

  private static boolean handsOn(Part p) {
    return p.kind() == PartKind.FERRITE
        || p.kind() == PartKind.FUSE
        || p.kind() == PartKind.RESISTOR
            && PartValue.ohms(p).isPresent()
            && PartValue.ohms(p).getAsDouble() <= HANDS_ON;
  }
}
