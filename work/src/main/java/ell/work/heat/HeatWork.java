package ell.work.heat;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.HeatBudget;
import ell.core.heat.HeatFacts;
import ell.core.rack.Stage;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.act.StageWork;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The heat as the workshop sees it: no part is heated more often than it takes.
public final class HeatWork implements StageWork {
  /// The rule's word.
  public static final String RULE = "heat";

  @Override
  public Stage stage() {
    return Stage.HEAT;
  }

  @Override
  public List<Rule> rules() {
    return List.of(new HeatRule());
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of("window", "json");
  }

  /// Asked of every entry that heats: what would be heated is what the book would count.
  private static final class HeatRule implements Rule {
    @Override
    public String key() {
      return RULE;
    }

    @Override
    public String guards() {
      return "no part is heated more often than it takes";
    }

    @Override
    public Optional<Refusal> refusal(Entry next, Situation s) {
      boolean heats =
          next instanceof Entry.StepDone
              || next instanceof Entry.Action a && a.heat() && a.text().isEmpty();
      if (!heats) {
        return Optional.empty();
      }
      Map<String, Integer> before = HeatFacts.of(s.state()).heatCycles();
      return after(next, s.state()).entrySet().stream()
          .filter(e -> e.getValue() > before.getOrDefault(e.getKey(), 0))
          .flatMap(e -> HeatBudget.refusal(s.plan().revision(), s.state(), e.getKey()).stream())
          .findFirst()
          .map(why ->
              new Refusal(
                  RULE,
                  why,
                  next instanceof Entry.Action
                      ? "Say why behind it, or: override heat WHY"
                      : "Say why it is heated all the same: override heat WHY"));
    }

    private static Map<String, Integer> after(Entry next, BoardState state) {
      List<Logged> log = new ArrayList<>(state.standing());
      log.add(new Logged(Long.MAX_VALUE, OffsetDateTime.MIN, state.board(), next));
      return HeatFacts.of(BoardState.of(state.board(), log)).heatCycles();
    }
  }
}
