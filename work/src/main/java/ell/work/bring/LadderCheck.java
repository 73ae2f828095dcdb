package ell.work.bring;

import ell.core.board.Revision;
import ell.core.power.Ladder;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/// Holds an edited power ladder against the revision it is for.
public final class LadderCheck {
  private LadderCheck() {}

  /// One sentence for each net or part that the revision does not have.
  public static List<String> problems(Ladder ladder, Revision revision) {
    Set<String> nets = new HashSet<>(revision.nets());
    List<String> problems = new ArrayList<>();
    if (!nets.contains(ladder.ground())) {
      problems.add("ground: " + revision.title() + " has no net '" + ladder.ground() + "'");
    }
    for (Ladder.RailSpec r : ladder.rails()) {
      if (!nets.contains(r.net())) {
        problems.add("rails: " + revision.title() + " has no net '" + r.net() + "'");
      }
    }
    for (Ladder.Step s : ladder.steps()) {
      if (revision.part(s.part()).isEmpty()) {
        problems.add("steps: " + revision.title() + " has no part '" + s.part() + "'");
      }
    }
    for (Ladder.Load l : ladder.loads()) {
      if (revision.part(l.part()).isEmpty()) {
        problems.add("loads: " + revision.title() + " has no part '" + l.part() + "'");
      }
    }
    return problems;
  }
}
