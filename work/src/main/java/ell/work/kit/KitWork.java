package ell.work.kit;

import ell.core.entry.Entry;
import ell.core.kit.KitCheck;
import ell.core.kit.KitFacts;
import ell.core.kit.ShelfLine;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.rack.Stage;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.act.StageWork;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

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
    return List.of(new PasteRule(), new LostRule());
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of("offers", "csv", "attrition", "txt");
  }

  /// Nobody loses more than lies there. One may always be lost: then somebody counted wrong. A code
  /// that was never counted is not known, and not judged.
  private final class LostRule implements Rule {
    @Override
    public String key() {
      return "lost";
    }

    @Override
    public String guards() {
      return "no more parts are lost than lie on the shelf";
    }

    @Override
    public Optional<Refusal> refusal(Entry next, Situation s) throws IOException, ActException {
      if (!(next instanceof Entry.Lost l) || l.count() == 1) {
        return Optional.empty();
      }
      Set<String> codes = codes(l.place(), s);
      List<ShelfLine> lines =
          stockroom.now().lines().stream().filter(x -> codes.contains(x.code())).toList();
      long there = lines.stream().mapToLong(ShelfLine::quantity).sum();
      if (lines.isEmpty() || l.count() <= there) {
        return Optional.empty();
      }
      String code = lines.getFirst().code();
      return Optional.of(
          new Refusal(
              key(),
              String.format(
                  Locale.ROOT, "%d %s cannot be lost: %d lie on the shelf", l.count(), code, there),
              "Count them first: count " + code + " N"));
    }

    /// What may have lain at a place: what was said to be fitted, else the bill's code and what may
    /// stand in for it.
    private Set<String> codes(String place, Situation s) {
      String said = KitFacts.of(s.state()).fitted().get(place);
      Set<String> codes = new LinkedHashSet<>();
      if (said != null) {
        codes.add(said);
      } else {
        s.plan()
            .revision()
            .part(place)
            .ifPresent(p -> {
              codes.add(p.code());
              codes.addAll(p.alternates());
            });
      }
      return codes;
    }
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
