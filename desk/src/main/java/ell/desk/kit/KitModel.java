package ell.desk.kit;

import ell.core.board.Part;
import ell.core.kit.KitCheck;
import ell.core.kit.KitLine;
import ell.core.kit.KitQuestion;
import ell.core.kit.Landed;
import ell.core.kit.MassBudget;
import ell.core.kit.buy.OrderSplit;
import ell.core.kit.substitute.Substitution;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.core.sheet.Worked;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.kit.Buying;
import ell.work.kit.Buying.DateCost;
import ell.work.kit.Substituting;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleIntegerProperty;



/// The staircase of boards over dates, what a date costs, and the lines that matter: those that are
/// short, then those that would be next.
public final class KitModel extends StageModel {
  private static final int MOST_FOLDED = 6;
  private static final int MOST_CANDIDATES = 12;

  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final IntegerProperty selected = new SimpleIntegerProperty(this, "selected", 0);
  private Snapshot.Work work;
  private boolean unfolded;
  private int day;
  private List<DateCost> costs = List.of();
  private Optional<OrderSplit> split = Optional.empty();
  private Optional<Substitution> substitute = Optional.empty();
  private List<String> candidates = List.of();
  private int candidate = -1;
  private int sheet;

  // what the costs on show were worked out from
  private KitQuestion costedQuestion;
  private String costedOffers = "";
  private AtomicBoolean stop = new AtomicBoolean();
  private boolean working;

  /// What is drawn.
  ///
  /// @param lines what is short first, as far as they are unfolded
  /// @param folded how many more reach the whole build
  /// @param verdict in words
  /// @param days that can be turned to, today first
  /// @param day index of the day that is turned to
  /// @param costs what each date costs, soonest first; empty without offers
  /// @param working whether the costs are being worked out
  /// @param stale whether the costs are not of this kit and these offers
  public record Shown(
      KitCheck kit,
      List<KitLine> lines,
      int folded,
      String verdict,
      List<LocalDate> days,
      int day,
      List<DateCost> costs,
      boolean working,
      boolean stale) {
    /// The day that is turned to.
    public LocalDate at() {
      return days.get(day);
    }

    /// Boards that can be built on a day.
    public long boardsOn(LocalDate when) {
      return kit.stairs().stream()
          .filter(s -> !s.from().isAfter(when))
          .reduce((_, b) -> b)
          .map(KitCheck.Stair::boards)
          .orElse(0L);
    }
  }

  /// A model that shows nothing yet.
  public KitModel(DeskModel desk) {
    this.desk = desk;
    desk.stageProperty()
        .addListener((_, _, now) -> {
          if (now == Stage.KIT && work != null) {
            fill();
          }
        });
    selected.addListener((_, _, _) -> {
      substitute = Optional.empty();
      candidate = -1;
      candidates = List.of();
      explain();
    });
  }

  /// What is drawn.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  /// Which of the drawn lines is selected.
  public IntegerProperty selectedProperty() {
    return selected;
  }

  @Override
  public void show(Snapshot.Work w) {
    work = w;
    fill();
  }

  /// Works out what dates cost, aside, when the kit or the offers are others than before. Asked for
  /// by the view once it has stood still for a moment: a start, or one entry after the other, does
  /// not wait for it. Not while another stage is in front.
  public void price() {
    String offers = work == null ? "" : work.offers().orElse("");
    if (work == null || desk.stageProperty().get() != Stage.KIT || !stale()) {
      return;
    }
    stop.set(true);
    costedQuestion = work.question();
    costedOffers = offers;
    split = Optional.empty();
    costs = List.of();
    working = !offers.isEmpty() && work.kit().verdict() != KitCheck.Verdict.START;
    fill();
    if (!working) {
      return;
    }
    AtomicBoolean mine = new AtomicBoolean();
    stop = mine;
    Snapshot.Work asked = work;
    aside(
        mine,
        () -> {
          List<DateCost> found = buying(asked).costs(mine::get);
          return () -> {
            costs = found;
            working = false;
            fill();
          };
        });
  }

  private boolean stale() {
    return !work.question().equals(costedQuestion)
        || !work.offers().orElse("").equals(costedOffers);
  }

  /// Work that ends with something to show.
  private interface Search {
    Runnable done() throws IOException, ActException;
  }

  private void aside(AtomicBoolean mine, Search work) {
    desk.runner()
        .aside()
        .execute(() -> {
          try {
            Runnable shows = work.done();
            desk.runner()
                .ui()
                .execute(() -> {
                  if (stop == mine) {
                    shows.run();
                  }
                });
          } catch (IOException | ActException e) {
            desk.say(e.getMessage());
          }
        });
  }

  private Buying buying(Snapshot.Work asked) throws IOException, ActException {
    return new Buying(
        asked.question(), Buying.kept(asked.offers().orElse("")), LocalDate.now(desk.clock()));
  }

  /// Stops working out what dates cost; what is known by then stands.
  public void stopPricing() {
    stop.set(true);
    working = false;
    fill();
  }

  /// Whether costs are being worked out.
  public boolean pricing() {
    return working;
  }

  private void fill() {
    KitCheck kit = work.kit();
    List<KitLine> all = new ArrayList<>(kit.lines());
    all.sort(
        Comparator.comparing((KitLine l) -> l.shortBy() > 0 ? 0 : 1)
            .thenComparingLong(KitLine::reach));
    long need = all.stream().filter(l -> l.shortBy() > 0).count();
    int keep = unfolded ? all.size() : (int) Math.min(all.size(), Math.max(MOST_FOLDED, need));
    TreeSet<LocalDate> days = new TreeSet<>();
    kit.stairs().forEach(s -> days.add(s.from()));
    costs.forEach(c -> days.add(c.by()));
    List<LocalDate> list = List.copyOf(days);
    day = Math.clamp(day, 0, list.size() - 1);
    shown.set(
        new Shown(
            kit,
            List.copyOf(all.subList(0, keep)),
            all.size() - keep,
            verdict(kit),
            list,
            day,
            costs,
            working,
            stale()));
    selected.set(Math.clamp(selected.get(), 0, Math.max(0, keep - 1)));
    explain();
  }

  private static String verdict(KitCheck k) {
    return switch (k.verdict()) {
      case START -> "Start: everything for " + k.boards() + " boards is here";
      case START_UP_TO -> "Start, up to gate " + k.gate().orElse("");
      case WAIT ->
          "Wait"
              + k.date()
                  .map(d -> " until " + d)
                  .orElse(": not everything that is short is on order");
    };
  }

  private void explain() {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
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
    notes.add(Margin.Note.plain("On " + s.at(), on(s)));
    margin(new Margin(sheet(s), notes));
  }

  private Optional<Worked> sheet(Shown s) {
    if (substitute.isPresent()) {
      return substitute.map(Substitution::sheet);
    }
    return switch (sheet % 3) {
      case 1 -> Optional.of(MassBudget.of(work.plan().revision(), Optional.empty()).sheet());
      case 2 -> Optional.of(landed(s.kit()));
      default -> line().map(l -> l.sheet(s.kit().boards()));
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

  /// Turns to another worked sheet: need of the line, mass of a board, cost of a good board.
  public void nextSheet() {
    substitute = Optional.empty();
    sheet++;
    explain();
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

  private List<String> on(Shown s) {
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

  private static Optional<DateCost> cost(Shown s) {
    return s.costs().stream().filter(c -> !c.by().isAfter(s.at())).reduce((_, b) -> b);
  }

  private Optional<KitLine> line() {
    Shown s = shown.get();
    return s == null || s.lines().isEmpty()
        ? Optional.empty()
        : Optional.of(s.lines().get(selected.get()));
  }

  /// Whether the order for the day that is turned to can be worked out.
  public boolean canBuy() {
    return shown.get() != null
        && work.offers().isPresent()
        && !shown.get().kit().shorts().isEmpty();
  }

  /// Works out, aside, what to order for the day that is turned to.
  public void buy() {
    LocalDate by = shown.get().at();
    AtomicBoolean mine = stop;
    Snapshot.Work asked = work;
    aside(
        mine,
        () -> {
          OrderSplit found = buying(asked).by(by, mine::get);
          return () -> {
            split = Optional.of(found);
            explain();
          };
        });
  }

  /// Writes the order that is shown, one CSV for each seller.
  public void write(Path folder) {
    split.ifPresent(x ->
        desk.ask(_ -> {
          List<Path> files = Buying.write(x, folder);
          desk.say(
              "wrote "
                  + files.size()
                  + (files.size() == 1 ? " order" : " orders")
                  + " to "
                  + folder);
        }));
  }

  /// Whether an order is shown that can be written.
  public boolean canWrite() {
    return split.filter(x -> !x.purchases().isEmpty()).isPresent();
  }

  /// Holds the next candidate against what the circuit needs of the selected line.
  public void nextCandidate() {
    Optional<KitLine> line = line();
    if (line.isEmpty()) {
      return;
    }
    String code = line.get().code();
    Snapshot.Work w = work;
    desk.ask(ws -> {
      if (candidates.isEmpty()) {
        Set<String> found = new LinkedHashSet<>();
        line.get()
            .references()
            .forEach(r -> w.plan().revision().part(r).ifPresent(p -> found.addAll(p.alternates())));
        found.addAll(Substituting.candidates(ws, w.plan(), code));
        found.remove(code);
        candidates = found.stream().limit(MOST_CANDIDATES).toList();
      }
      if (candidates.isEmpty()) {
        desk.say("no candidate is known for " + code + ": take in parameters of parts (Ctrl+E)");
        return;
      }
      candidate = (candidate + 1) % candidates.size();
      Substitution s =
          Substituting.of(ws, w.plan(), code, candidates.get(candidate), List.of()).getFirst();
      desk.runner()
          .ui()
          .execute(() -> {
            substitute = Optional.of(s);
            explain();
          });
    });
  }

  /// The beginning of a tape line that says that the candidate was fitted; empty when it may not
  /// be.
  public String fittedLine() {
    return substitute
        .filter(s -> s.verdict() != Verdict.OUT)
        .map(s -> s.part() + " fitted with " + s.candidate() + " ")
        .orElse("");
  }

  /// Whether the rule of the paste stands in the way.
  public boolean pasteStaysClosed() {
    return shown.get() != null && shown.get().kit().pasteStaysClosed();
  }

  @Override
  public String primaryWords() {
    return unfolded ? "fold lines that suffice" : "show every line";
  }

  @Override
  public void primary() {
    unfolded = !unfolded;
    if (work != null) {
      fill();
    }
  }

  /// A digit begins a count of the selected line.
  @Override
  public String readingLine() {
    return line().map(l -> "count " + l.code() + " ").orElse("");
  }

  @Override
  public String faultLine() {
    return line().map(l -> l.references().getFirst() + " lost ").orElse("");
  }

  @Override
  public void move(int by) {
    if (shown.get() != null && !shown.get().lines().isEmpty()) {
      selected.set(Math.clamp(selected.get() + by, 0, shown.get().lines().size() - 1));
    }
  }

  /// Turns to another day.
  @Override
  public void across(int by) {
    if (shown.get() != null) {
      turnTo(day + by);
    }
  }

  /// Turns to a day by its index.
  public void turnTo(int index) {
    day = Math.clamp(index, 0, shown.get().days().size() - 1);
    split = Optional.empty();
    fill();
  }
}
