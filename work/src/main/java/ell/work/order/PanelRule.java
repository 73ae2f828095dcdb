package ell.work.order;

import ell.core.board.Folded;
import ell.core.entry.Entry;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.util.Optional;

/// What happens to a whole panel waits until every board on it is ready for it: heat melts the
/// paste of all, whether their parts lie in it or not.
final class PanelRule implements Rule {
  static final String KEY = "panel";

  private final Workspace space;
  private final Panels panels;

  PanelRule(Workspace space, Panels panels) {
    this.space = space;
    this.panels = panels;
  }

  @Override
  public String key() {
    return KEY;
  }

  @Override
  public String guards() {
    return "no panel is printed, heated or cut before every board on it is ready";
  }

  @Override
  public Optional<Refusal> refusal(Entry next, Situation s) throws IOException, ActException {
    Optional<Step> step = step(next, s);
    if (step.isEmpty() || s.shared()) {
      return Optional.empty();
    }
    for (String other : panels.others(next, s.build(), s.board())) {
      Optional<Step> at = OrderFacts.of(space.state(other)).next(s.plan().order());
      if (at.isPresent() && at.get().number() < step.get().number()) {
        return Optional.of(
            new Refusal(
                KEY,
                "board "
                    + other
                    + " hangs on the same panel and is at step "
                    + at.get().number()
                    + " ("
                    + at.get().action().words()
                    + (at.get().parts().isEmpty() ? "" : " " + Folded.references(at.get().parts()))
                    + ")",
                "Do that first, on all boards with A; or say why it is left: override panel WHY"));
      }
    }
    return Optional.empty();
  }

  private static Optional<Step> step(Entry next, Situation s) {
    return next instanceof Entry.StepDone d
        ? s.plan().order().steps().stream()
            .filter(x -> x.action().words().equals(d.action()) && x.side().key().equals(d.side()))
            .filter(x -> x.parts().isEmpty())
            .findFirst()
        : Optional.empty();
  }
}
