package ell.work.revise;

import ell.core.entry.Entry;
import ell.core.revise.ErrataGates;
import ell.core.revise.Erratum;
import ell.core.revise.Severity;
import ell.core.revise.Stand;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.errata.KeptErrata;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;

/// No gate holds, and nothing that may do damage is powered, before the board is mended of what its
/// revision is known to do wrong there.
final class MendedRule implements Rule {
  static final String KEY = "erratum";

  private final KeptErrata errata;

  MendedRule(KeptErrata errata) {
    this.errata = errata;
  }

  @Override
  public String key() {
    return KEY;
  }

  @Override
  public String guards() {
    return "no gate holds before the board is mended of the errata there, and none that may do damage"
        + " is powered with one";
  }

  @Override
  public Optional<Refusal> refusal(Entry next, Situation s) throws IOException, ActException {
    boolean gate = next instanceof Entry.Gate g && g.held();
    boolean power = next instanceof Entry.Supply x && x.on();
    if (!gate && !power) {
      return Optional.empty();
    }
    List<Erratum> all = errata.of(s.plan().revision().design(), s.plan().revision().name());
    if (gate) {
      all =
          ErrataGates.of(s.plan().blocks(), all, s.plan().revision())
              .getOrDefault(((Entry.Gate) next).gate(), List.of());
    } else {
      all = all.stream().filter(e -> e.severity() == Severity.HARM).toList();
    }
    for (Erratum e : all) {
      Stand.State now = Stand.of(e, s.plan().revision(), s.state()).state();
      if (now == Stand.State.NEEDED || now == Stand.State.CANNOT) {
        return Optional.of(
            new Refusal(
                KEY,
                "board " + s.board() + " is not mended of " + e.id() + ", " + e.title(),
                "Mend it, then: bodge "
                    + e.id()
                    + "; or write why it is left: override erratum WHY"));
      }
    }
    return Optional.empty();
  }
}
