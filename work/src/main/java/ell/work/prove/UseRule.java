package ell.work.prove;

import ell.core.entry.Entry;
import ell.core.prove.UseGate;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;

/// No board leaves the bench with something missing.
final class UseRule implements Rule {
  static final String KEY = "use";

  private final Proofs proofs;

  UseRule(Proofs proofs) {
    this.proofs = proofs;
  }

  @Override
  public String key() {
    return KEY;
  }

  @Override
  public String guards() {
    return "no board is used with an open finding, unproved, or with a record that is not complete";
  }

  @Override
  public Optional<Refusal> refusal(Entry next, Situation s) throws IOException, ActException {
    if (!(next instanceof Entry.Released)) {
      return Optional.empty();
    }
    UseGate g = proofs.gate(s.plan(), s.state());
    return g.why()
        .map(w ->
            new Refusal(
                KEY,
                "board " + s.board() + " is not ready: " + w,
                "Settle it, or write why: override use WHY"));
  }
}
