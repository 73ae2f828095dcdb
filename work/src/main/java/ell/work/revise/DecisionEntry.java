package ell.work.revise;

import ell.core.entry.Entry;
import ell.core.revise.RespinSaid;
import ell.core.revise.WayOut;
import ell.work.act.Companion;
import ell.work.act.Situation;
import ell.work.errata.KeptErrata;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;

/// A decision keeps the numbers of its day, so that it can be held against what happened.
final class DecisionEntry implements Companion {
  private final Revising revising;
  private final KeptErrata errata;

  DecisionEntry(Revising revising, KeptErrata errata) {
    this.revising = revising;
    this.errata = errata;
  }

  @Override
  public List<Entry> with(Entry next, Situation s) throws IOException, ActException {
    if (!(next instanceof Entry.Decision d) || !d.numbers().isEmpty()) {
      return List.of(next);
    }
    if (!d.about().isEmpty()) {
      ErratumEntry.named(errata, d.about());
    }
    Optional<RespinSaid.Question> q =
        revising.question(s.build().design(), s.build().revision(), d.about());
    if (q.isEmpty()) {
      throw new ActException(
          "no board of "
              + s.plan().revision().title()
              + " is left to be mended: nothing to decide");
    }
    WayOut w = WayOut.of(q.get().asked());
    SequencedMap<String, Double> n = new LinkedHashMap<>();
    n.put("successChance", w.asked().successChance());
    n.put("boards", (double) w.asked().boards());
    n.put("spent", (double) w.asked().spent());
    n.put("reworkHours", w.asked().reworkHours());
    n.put("reworkCost", w.rework().cost());
    n.put("respinCost", w.respin().cost());
    n.put("waitCost", w.pause().cost());
    w.turnsAt().ifPresent(t -> n.put("turnsAt", t));
    return List.of(new Entry.Decision(d.about(), d.choice(), n, d.why()));
  }
}
