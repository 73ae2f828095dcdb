package ell.desk.kit;

import ell.core.board.Part;
import ell.core.kit.KitCheck;
import ell.core.kit.KitLine;
import ell.core.kit.Landed;
import ell.core.kit.MassBudget;
import ell.core.kit.buy.OrderSplit;
import ell.core.kit.substitute.Substitution;
import ell.core.quantity.Unit;
import ell.core.rack.Standing;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.work.kit.Buying;
import ell.work.kit.Buying.DateCost;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// What the margin says at the kit: why the verdict is what it is, what a day brings and costs,
/// what to order, whether a candidate may be fitted.
final class KitMargin {
  private final Snapshot.Work work;
  private final KitModel.Shown s;
  private final Optional<OrderSplit> split;
  private final Optional<Substitution> substitute;

  KitMargin(
      Snapshot.Work work,
      KitModel.Shown s,
      Optional<OrderSplit> split,
      Optional<Substitution> substitute) {
    this.work = work;
    this.s = s;
    this.split = split;
    this.substitute = substitute;
  }

  /// Says it.
  ///
  /// @param line that is selected
  /// @param sheet which of the sheets, counted round and round
  Margin say(Optional<KitLine> line, int sheet) {
    List<Margin.Note> notes = new ArrayList<>();
    if (s.kit().pasteStaysClosed()) {
      notes.add(
          Margin.Note.care(
              List.of(
                  "Opened paste ages: do not open it for a side that cannot be finished.",
                  "The paste's data sheet decides how long it may stand.")));
    }
    substitute.ifPresent(x -> notes.add(fitting(x)));
    split.ifPresent(x -> notes.add(bought(x)));
    notes.add(Margin.Note.plain("Why this verdict", s.kit().reasons()));
    notes.add(Margin.Note.plain("On " + s.at(), on()));
    return new Margin(sheet(line, sheet), notes);
  }

  private Optional<Worked> sheet(Optional<KitLine> line, int sheet) {
    if (substitute.isPresent()) {
      return substitute.map(Substitution::sheet);
    }
    return switch (sheet % 3) {
      case 1 -> Optional.of(MassBudget.of(work.plan().revision(), Optional.empty()).sheet());
      case 2 -> Optional.of(landed(s.kit()));
      default -> line.map(l -> l.sheet(s.kit().boards()));
    };
  }

  /// What a good board costs by the prices of the bill; the yield is that of the boards that the
  /// book knows to the end.
  private Worked landed(KitCheck kit) {
    double parts = 0;
    List<String> unknown = new ArrayList<>();
    for (KitLine l : kit.lines()) {
      double price =
          work.plan()
              .revision()
              .part(l.references().getFirst())
              .map(Part::unitCost)
              .orElse(Double.NaN);
      if (Double.isNaN(price)) {
        unknown.add(l.code());
      } else {
        parts += price * l.need();
      }
    }
    long held =
        work.standings().values().stream().filter(x -> x.mark() == Standing.Mark.OUT).count();
    double yield = Math.max(1.0 / kit.boards(), 1 - (double) held / kit.boards());
    Worked.Builder w =
        Worked.of("kit.landed", "What a good board costs")
            .line("partsCost", "need of each line · its price in the bill", parts, Unit.ONE)
            .line("yield", "boards that nothing holds now, of all", yield, Unit.ONE);
    Landed.of(0, 0, parts, split.map(OrderSplit::shipping).orElse(0.0), kit.boards(), yield).on(w);
    w.assume("blank boards and stencil are not counted: kit --board-cost --stencil-cost says them");
    if (!unknown.isEmpty()) {
      w.assume("no price in the bill: " + String.join(", ", unknown));
    }
    return w.source("common practice, no source: everything that was paid, over the good boards")
        .done();
  }

  private static Margin.Note fitting(Substitution x) {
    return Margin.Note.plain(
        "May it be fitted?",
        List.of(
            switch (x.verdict()) {
              case WITHIN -> "every parameter that decides is within";
              case CLOSE -> "something is not known: the data sheet decides";
              case OUT -> "no: what is out does not fit this circuit";
            },
            "S shows the next candidate, I writes that it was fitted"));
  }

  private static Margin.Note bought(OrderSplit x) {
    List<String> lines = new ArrayList<>();
    for (OrderSplit.Shipment ship : x.shipments()) {
      lines.add(String.join(" and ", ship.sellers()) + ", shipping " + Buying.money(ship.cost()));
      x.purchases().stream()
          .filter(p -> ship.sellers().contains(p.offer().seller()))
          .forEach(p ->
              lines.add(
                  "   "
                      + p.quantity()
                      + " × "
                      + p.offer().code()
                      + " at "
                      + Buying.money(p.unitPrice())
                      + ", there "
                      + p.arrives()));
    }
    lines.add(
        "total "
            + Buying.money(x.total())
            + (x.proven()
                ? ", nothing is cheaper"
                : String.format(Locale.ROOT, ", at most %.1f %% too dear", 100 * x.gap())));
    x.oneSeller().ifPresent(n -> lines.add(n.words() + ": " + Buying.money(n.total())));
    x.cheapestEach().ifPresent(n -> lines.add(n.words() + ": " + Buying.money(n.total())));
    x.unmet()
        .forEach(u ->
            lines.add(
                "not to be had: "
                    + u.quantity()
                    + " × "
                    + u.code()
                    + u.earliest().map(d -> ", the soonest is " + d).orElse("")));
    return Margin.Note.plain("What to order for " + x.by(), lines);
  }

  private List<String> on() {
    List<String> lines = new ArrayList<>();
    lines.add(
        "the shelf makes "
            + s.boardsOn(s.at())
            + " boards"
            + (s.day() == 0
                ? s.kit().limiting().map(c -> "; " + c + " limits").orElse("")
                    + s.kit().next().map(n -> ", then " + n.code() + " at " + n.boards()).orElse("")
                : ""));
    cost(s)
        .ifPresent(c ->
            lines.add(
                "everything by then costs "
                    + Buying.money(c.total())
                    + (c.unmet().isEmpty() ? "" : ", without " + String.join(", ", c.unmet()))));
    if (s.working()) {
      lines.add("what dates cost is being worked out; X stops it");
    }
    return lines;
  }

  private static Optional<DateCost> cost(KitModel.Shown s) {
    return s.costs().stream().filter(c -> !c.by().isAfter(s.at())).reduce((_, b) -> b);
  }
}
