package ell.work.power;

import ell.book.Build;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.PowerFacts;
import ell.core.quantity.Quantity;
import ell.core.rack.Plan;
import ell.work.act.Acts;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.tape.Places;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

/// Readings that were judged by limits which the ladder has no more are judged again by those that
/// it has now: an entry of its own, so that the book shows both.
public final class HeldAgain {
  private HeldAgain() {}

  /// Judges the readings of all boards of a revision again, where the verdict changes.
  ///
  /// @return the new entries
  public static List<Logged> readings(
      Workspace space, Acts.Planner planner, Acts acts, String design, String name)
      throws IOException, ActException {
    List<Logged> all = new ArrayList<>();
    for (Build b : space.book().builds()) {
      if (!b.design().equals(design) || !b.revision().equals(name)) {
        continue;
      }
      Plan plan = planner.plan(b);
      Ladder ladder = plan.ladder();
      Places places = new Places(plan.revision(), ladder);
      for (String board : b.boards()) {
        List<Entry> again = new ArrayList<>();
        PowerFacts facts = PowerFacts.of(space.state(board));
        for (RailSpec r : ladder.rails()) {
          Entry.Reading read = facts.reading(r).orElse(null);
          var now = facts.verdict(r);
          if (read != null && now.isPresent() && !now.equals(read.verdict())) {
            again.add(
                Readings.of(
                    places,
                    read.place(),
                    new Quantity(read.value(), read.unit()),
                    "read before, held against the ladder as it is now"));
          }
        }
        if (!again.isEmpty()) {
          all.addAll(acts.log(board, again).orThrow());
        }
      }
    }
    return all;
  }
}
