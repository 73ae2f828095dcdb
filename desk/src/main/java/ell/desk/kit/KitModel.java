package ell.desk.kit;

import ell.core.kit.KitCheck;
import ell.core.kit.KitLine;
import ell.core.kit.KitQuestion;
import ell.core.kit.buy.OrderSplit;
import ell.core.kit.substitute.Substitution;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.Workshop;
import ell.work.kit.Buying;
import ell.work.kit.Buying.DateCost;
import ell.work.kit.Stockroom;
import ell.work.kit.Substituting;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
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
  private int candidate;
  private int sheet;

  private Optional<Loaded> loaded = Optional.empty();
  private final Loader<Loaded> loader;
  private final Loader<List<DateCost>> pricing;
  private final Loader<OrderSplit> splitting;
  private final Loader<Optional<Candidate>> substituting;
  private Object costed = List.of();

  /// What the shelf and the sellers say.
  ///
  /// @param offers as their file had them, empty when there are none
  private record Loaded(KitQuestion question, KitCheck kit, String offers) {
    /// What costs hang on.
    Object key() {
      return List.of(question, offers);
    }
  }

  /// A candidate held against a line's part.
  ///
  /// @param code of the line
  /// @param index of the candidate among those that are known
  private record Candidate(String code, int index, Substitution substitution) {}

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
    this.loader =
        loader(
            desk,
            desk.runner().worker(),
            "the kit",
            l -> {
              loaded = Optional.of(l);
              fill();
            });
    this.pricing =
        loader(
            desk,
            desk.runner().aside(),
            "what dates cost",
            found -> {
              costs = found;
              fill();
            });
    this.splitting =
        loader(
            desk,
            desk.runner().aside(),
            "what to order",
            found -> {
              split = Optional.of(found);
              explain();
            });
    this.substituting =
        loader(desk, desk.runner().worker(), "whether it may be fitted", this::candidate);
    whenShown(
        desk,
        Stage.KIT,
        () -> {
          load();
          fill();
        });
    selected.addListener((_, _, _) -> {
      substitute = Optional.empty();
      candidate = 0;
      substituting.forget();
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
    if (work != null && !work.build().equals(w.build())) {
      loaded = Optional.empty();
      costs = List.of();
      split = Optional.empty();
    }
    work = w;
    load();
    fill();
  }

  /// The kit is held against the shelf while somebody looks at it.
  private void load() {
    if (work == null || !desk.navigation().at(Stage.KIT)) {
      return;
    }
    Snapshot.Work w = work;
    loader.load(
        w,
        desk.reading(ws -> {
          KitQuestion q =
              ws.stockroom()
                  .question(
                      Optional.of(w.build()),
                      w.plan(),
                      Stockroom.Ask.today(w.build().boards().size()));
          return new Loaded(q, KitCheck.of(q), ws.stockroom().offers().orElse(""));
        }));
  }

  /// Works out what dates cost, aside, when the kit or the offers are others than before. Asked for
  /// by the view once it has stood still for a moment: a start, or one entry after the other, does
  /// not wait for it. Not while another stage is in front.
  public void price() {
    if (loaded.isEmpty() || !desk.navigation().at(Stage.KIT) || !stale()) {
      return;
    }
    Loaded l = loaded.get();
    costed = l.key();
    split = Optional.empty();
    costs = List.of();
    if (!l.offers().isEmpty() && l.kit().verdict() != KitCheck.Verdict.START) {
      pricing.load(l.key(), cancelled -> buying(l).costs(cancelled));
    } else {
      pricing.forget();
    }
    fill();
  }

  private boolean stale() {
    return loaded.filter(l -> l.key().equals(costed)).isEmpty();
  }

  private Buying buying(Loaded l) throws IOException, ActException {
    return new Buying(l.question(), Buying.kept(l.offers()), LocalDate.now(desk.clock()));
  }

  /// Stops working out what dates cost; what is known by then stands.
  public void stopPricing() {
    pricing.cancel();
    fill();
  }

  /// Whether costs are being worked out.
  public boolean pricing() {
    return pricing.busy();
  }

  private void fill() {
    if (work == null || loaded.isEmpty()) {
      return;
    }
    KitCheck kit = loaded.get().kit();
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
            pricing.busy(),
            stale()));
    selected.set(Math.clamp(selected.get(), 0, Math.max(0, keep - 1)));
    explain();
  }

  private void explain() {
    if (shown.get() != null) {
      margin(new KitMargin(work, shown.get(), split, substitute).say(line(), sheet));
    }
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

  /// Turns to another worked sheet: need of the line, mass of a board, cost of a good board.
  public void nextSheet() {
    substitute = Optional.empty();
    sheet++;
    explain();
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
        && loaded.filter(l -> !l.offers().isEmpty()).isPresent()
        && !shown.get().kit().shorts().isEmpty();
  }

  /// Works out, aside, what to order for the day that is turned to.
  public void buy() {
    LocalDate by = shown.get().at();
    Loaded l = loaded.orElseThrow();
    splitting.forget();
    splitting.load(by, cancelled -> buying(l).by(by, cancelled));
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
    if (line.isEmpty() || substituting.busy()) {
      return; // the one before is still held against it
    }
    KitLine l = line.get();
    int wanted = candidate;
    Snapshot.Work w = work;
    substituting.load(
        List.of(w, l.code(), wanted), desk.reading(ws -> candidate(ws, w, l, wanted)));
  }

  private static Optional<Candidate> candidate(
      Workshop ws, Snapshot.Work w, KitLine line, int wanted) throws IOException, ActException {
    Set<String> found = new LinkedHashSet<>();
    line.references()
        .forEach(r -> w.plan().revision().part(r).ifPresent(p -> found.addAll(p.alternates())));
    found.addAll(Substituting.candidates(ws.space(), w.plan(), line.code()));
    found.remove(line.code());
    List<String> candidates = found.stream().limit(MOST_CANDIDATES).toList();
    if (candidates.isEmpty()) {
      return Optional.empty();
    }
    int at = wanted % candidates.size();
    return Optional.of(
        new Candidate(
            line.code(),
            at,
            Substituting.of(
                    ws.space(),
                    ws.revisions(),
                    w.plan(),
                    line.code(),
                    candidates.get(at),
                    List.of())
                .getFirst()));
  }

  private void candidate(Optional<Candidate> found) {
    if (found.isEmpty()) {
      desk.say("no candidate is known for this line: take in parameters of parts (Ctrl+E)");
      return;
    }
    if (line().filter(l -> l.code().equals(found.get().code())).isPresent()) {
      candidate = found.get().index() + 1;
      substitute = Optional.of(found.get().substitution());
      explain();
    }
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
