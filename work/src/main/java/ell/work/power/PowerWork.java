package ell.work.power;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepFacts;
import ell.core.entry.Entry;
import ell.core.rack.Stage;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.act.StageWork;
import ell.work.space.Workspace;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Power as the workshop sees it: no power before the rails were beeped, while something is plugged
/// in that must not be, or by a helper where the maker has not been.
public final class PowerWork implements StageWork {
  /// The rule's word.
  public static final String RULE = "power";

  /// The word of the rule about what is plugged in.
  public static final String PLUGGED = PluggedRule.KEY;

  private final Workspace space;

  /// The work on a workspace.
  public PowerWork(Workspace space) {
    this.space = space;
  }

  @Override
  public Stage stage() {
    return Stage.POWER;
  }

  @Override
  public List<Rule> rules() {
    return List.of(new BeepedFirst(), new PluggedRule(), new Helping(space));
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of("ladder", "json", "ladder-said", "txt", "faults", "json");
  }

  private static final class BeepedFirst implements Rule {
    @Override
    public String key() {
      return RULE;
    }

    @Override
    public String guards() {
      return "no power before every rail was beeped";
    }

    @Override
    public Optional<Refusal> refusal(Entry next, Situation s) {
      if (!(next instanceof Entry.Supply on) || !on.on()) {
        return Optional.empty();
      }
      BeepFacts facts = BeepFacts.of(s.state());
      List<String> which = new ArrayList<>();
      for (BeepCheck c : facts.open(s.plan().beep())) {
        which.add(
            "check "
                + c.number()
                + " "
                + c.netB()
                + " to "
                + c.netA()
                + facts.verdict(c.key()).map(v -> " is " + v.words()).orElse(" is not made yet"));
      }
      return which.isEmpty()
          ? Optional.empty()
          : Optional.of(
              new Refusal(
                  RULE,
                  "no power for board " + s.board() + ": " + String.join("; ", which),
                  "Beep first, or write why: override power WHY"));
    }
  }
}
