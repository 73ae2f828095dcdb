package ell.work.revise;

import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.revise.BodgeNeeds;
import ell.core.revise.BodgeStep;
import ell.core.revise.Erratum;
import ell.core.revise.Stand;
import ell.work.act.Companion;
import ell.work.act.Situation;
import ell.work.errata.KeptErrata;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// A bodge that is done brings with it what it does to the board: the heat of each part, which ends
/// the findings at the places that it mends, and the parts that are others now.
final class BodgeEntry implements Companion {
  private final KeptErrata errata;

  BodgeEntry(KeptErrata errata) {
    this.errata = errata;
  }

  @Override
  public List<Entry> with(Entry next, Situation s) throws IOException, ActException {
    if (!(next instanceof Entry.Bodge b)) {
      return List.of(next);
    }
    Erratum e = ErratumEntry.named(errata, b.id());
    Revision revision = s.plan().revision();
    Entry.Bodge own = new Entry.Bodge(e.id(), b.what(), b.minutes(), b.text());
    if (!e.of(revision.design(), revision.name())) {
      throw new ActException(
          e.id()
              + " is of "
              + e.design()
              + " rev "
              + String.join(", ", e.revisions())
              + ", board "
              + s.board()
              + " is "
              + revision.title());
    }
    Stand.State now = Stand.of(e, revision, s.state()).state();
    return switch (b.what()) {
      case "done" -> {
        if (e.bodge().isEmpty()) {
          throw new ActException(
              "nobody has said how "
                  + e.id()
                  + " is mended; say it: erratum "
                  + e.id()
                  + " bodge STEPS");
        }
        if (now == Stand.State.DONE || now == Stand.State.PROVED) {
          throw new ActException(
              e.id()
                  + " is "
                  + now.words()
                  + " on board "
                  + s.board()
                  + " already; if it was taken back: bodge "
                  + e.id()
                  + " undone");
        }
        yield done(own, e, revision);
      }
      case "proved", "undone" -> {
        if (now != Stand.State.DONE && now != Stand.State.PROVED) {
          throw new ActException(e.id() + " is not done on board " + s.board());
        }
        yield List.of(own);
      }
      default -> List.of(own);
    };
  }

  private static List<Entry> done(Entry.Bodge own, Erratum e, Revision revision) {
    List<Entry> all = new ArrayList<>(List.of(own));
    // a part that stays in hand from one step to the next is heated once
    Map<String, Integer> heats = new LinkedHashMap<>(e.heats(revision));
    Set<String> mended = new LinkedHashSet<>();
    int n = 0;
    for (BodgeStep step : e.bodge()) {
      n++;
      fitted(all, own.id() + "+" + n, step, revision, heats);
      for (String part : step.heats(revision)) {
        if (heats.getOrDefault(part, 0) > 0) {
          heats.merge(part, -1, Integer::sum);
          String at =
              step.places().stream().filter(p -> p.startsWith(part + ".")).findFirst().orElse(part);
          mended.add(at);
          all.add(new Entry.Action(at, "bodged", true, e.id() + ": " + step.text()));
        }
      }
    }
    for (String place : e.places()) {
      if (!mended.contains(place)) {
        all.add(new Entry.Action(place, "bodged", false, e.id()));
      }
    }
    return all;
  }

  /// A part that a step puts on the board: it comes from the shelf.
  ///
  /// @param name of an added part, which has no reference of its own
  /// @param heats what is still to be logged of heat; what is logged here is taken off
  private static void fitted(
      List<Entry> all, String name, BodgeStep step, Revision revision, Map<String, Integer> heats) {
    String part =
        step.kind() == BodgeStep.Kind.ADD ? name : step.places().stream().findFirst().orElse("");
    Optional<String> code = BodgeNeeds.code(step, revision);
    if (code.isEmpty()) {
      return;
    }
    switch (step.kind()) {
      case REPLACE -> {
        // the old one is off and a new one from the shelf: then that it is another
        all.add(new Entry.Action(part, "replaced", true, step.text()));
        all.add(new Entry.Fitted(part, code.get(), step.text()));
        heats.merge(part, -1, Integer::sum);
      }
      case ADD, FIT -> {
        all.add(new Entry.Fitted(part, code.get(), step.text()));
        all.add(new Entry.StepDone(0, "solder", List.of(part), 0));
        heats.computeIfPresent(part, (_, n) -> n - 1);
      }
      default -> {} // takes nothing from the shelf
    }
  }
}
