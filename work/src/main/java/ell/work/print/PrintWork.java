package ell.work.print;

import ell.core.entry.Entry;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.print.PrintFacts;
import ell.core.rack.Stage;
import ell.work.act.Companion;
import ell.work.act.Situation;
import ell.work.act.StageWork;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/// The print as the workshop sees it: a print and the step of the order that prints are one act,
/// whichever of the two somebody says.
public final class PrintWork implements StageWork {
  /// Said in place of a code when no jar is meant.
  public static final String NO_JAR = "none";

  private final Printing printing;

  /// The print over the jars of a workspace.
  public PrintWork(Printing printing) {
    this.printing = printing;
  }

  @Override
  public Stage stage() {
    return Stage.PRINT;
  }

  @Override
  public List<Companion> companions() {
    return List.of(this::together);
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of(
        "jar-rules", "json", "paste-first", "gbr", "paste-second", "gbr", "legend", "gbr");
  }

  private List<Entry> together(Entry next, Situation s) throws IOException, ActException {
    return switch (next) {
      case Entry.Printed p -> {
        List<Entry> all = new ArrayList<>();
        all.add(new Entry.Printed(p.side(), p.wiped(), jar(p.jar())));
        OrderFacts facts = OrderFacts.of(s.state());
        s.plan().order().steps().stream()
            .filter(x -> x.action() == Step.Action.PASTE && x.side().key().equals(p.side()))
            .filter(x -> !facts.done(x))
            .findFirst()
            .ifPresent(x -> all.add(x.done(0)));
        yield all;
      }
      case Entry.StepDone d
          when d.action().equals(Step.Action.PASTE.words())
              && !d.side().isEmpty()
              && !PrintFacts.of(s.state()).printed().contains(d.side()) ->
          List.of(new Entry.Printed(d.side(), false, jar("")), d);
      default -> List.of(next);
    };
  }

  /// The jar that is open is meant where none is named: it is the one in the maker's hand.
  private String jar(String said) throws IOException {
    if (said.equalsIgnoreCase(NO_JAR)) {
      return "";
    }
    return said.isEmpty() ? printing.inUse().orElse("") : said;
  }
}
