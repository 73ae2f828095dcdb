package ell.work.kit;

import ell.core.entry.Entry;
import ell.core.kit.KitCheck;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.rack.Stage;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.act.StageWork;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The kit as the workshop sees it: paste stays closed while something that lies in it is short.
public final class KitWork implements StageWork {
  private final Stockroom stockroom;

  /// The kit over a shelf.
  public KitWork(Stockroom stockroom) {
    this.stockroom = stockroom;
  }

  @Override
  public Stage stage() {
    return Stage.KIT;
  }

  @Override
  public List<Rule> rules() {
    return List.of(new PasteRule());
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of("offers", "csv", "attrition", "txt");
  }

  /// A board that is begun is finished; one that is not waits for its parts.
  private final class PasteRule implements Rule {
    @Override
    public String key() {
      return Stockroom.PASTE_RULE;
    }

    @Override
    public String guards() {
      return "no paste is opened for a board whose parts are short";
    }

    @Override
    public Optional<Refusal> refusal(Entry next, Situation s) throws IOException, ActException {
      boolean opens =
          next instanceof Entry.Printed
              || next instanceof Entry.StepDone d && d.action().equals(Step.Action.PASTE.words());
      if (!opens || !OrderFacts.of(s.state()).placed().isEmpty()) {
        return Optional.empty();
      }
      KitCheck kit = stockroom.kit(s.build(), s.plan());
      return kit.pasteStaysClosed()
          ? Optional.of(
              new Refusal(
                  key(),
                  "do not open the paste: "
                      + String.join(", ", kit.pasteShort())
                      + (kit.pasteShort().size() == 1 ? " is short" : " are short"),
                  "Say why it is opened all the same: override paste WHY"))
          : Optional.empty();
    }
  }
}
