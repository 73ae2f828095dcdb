package ell.desk.order;

import ell.core.board.Folded;
import ell.core.board.Part;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.order.Bodies;
import ell.core.order.OrderFacts;
import ell.core.order.Rows;
import ell.core.order.Schools;
import ell.core.order.SeveralBoards;
import ell.core.order.Step;
import ell.core.order.StepTimes;
import ell.core.order.StepWords;
import ell.core.order.Wish;
import ell.core.rack.Plan;
import ell.core.rack.Stage;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.order.Ordering;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;

/// The step in hand of one board: the next that is open, or one that the maker turned to.
public final class OrderModel extends StageModel {
  private static final Duration LONGEST = Duration.ofHours(1);

  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final ObjectProperty<String> named = new SimpleObjectProperty<>(this, "named", "");
  private Snapshot.Work work;
  private int at = -1;
  private int offered = -1;
  private Instant since;
  private String follow = "";
  private final Loader<Here> here;
  private final Loader<Planned> comparing;
  private Plan planned;
  private Here known = Here.NOTHING;
  private Optional<Planned> compared = Optional.empty();
  private Optional<Bodies> bodies = Optional.empty();
  private final Map<Step, List<List<String>>> rows = new HashMap<>();
  private int sheet;
  private boolean turned;

  /// What this bench adds.
  ///
  /// @param times that steps take on this bench, empty until they were read
  /// @param bins where parts lie, by code
  private record Here(Optional<StepTimes> times, Map<String, String> bins) {
    static final Here NOTHING = new Here(Optional.empty(), Map.of());
  }

  /// What is worked out once for a plan.
  private record Planned(List<Wish> wishes, Schools schools, SeveralBoards several) {}

  /// What is drawn.
  ///
  /// @param stepDone whether the step that is shown is done
  /// @param doneSteps how many steps are done
  /// @param placed references on the board
  /// @param inHand references of the row that is in hand, those of the step when it has no rows
  /// @param faulty references with an open finding
  /// @param what the step's parts or act, as its title
  /// @param detail how, value, package, bin and polarity
  /// @param broken rules that a wish of the maker breaks here
  /// @param expected seconds that the step, or its row in hand, takes on this bench
  /// @param minutes that all steps take on this bench
  public record Shown(
      Snapshot.Work work,
      Step step,
      boolean stepDone,
      long doneSteps,
      Set<String> placed,
      Set<String> inHand,
      Set<String> faulty,
      String what,
      String detail,
      Side side,
      List<String> broken,
      double expected,
      double minutes) {
    public Shown {
      broken = List.copyOf(broken);
    }
  }

  /// A model for a desk.
  public OrderModel(DeskModel desk) {
    this.desk = desk;
    this.here =
        loader(
            desk,
            desk.runner().worker(),
            "what steps take on this bench",
            k -> {
              known = k;
              fill();
            });
    this.comparing =
        loader(
            desk,
            desk.runner().worker(),
            "the comparison of the ways to build",
            p -> {
              compared = Optional.of(p);
              fill();
            });
    whenShown(
        desk,
        Stage.ORDER,
        () -> {
          load();
          fill();
        });
  }

  /// What is only worth working out while somebody looks.
  private void load() {
    if (work == null || !desk.navigation().at(Stage.ORDER)) {
      return;
    }
    Snapshot.Work w = work;
    here.load(
        w,
        desk.reading(ws -> {
          Map<String, String> bins = ws.stockroom().bins();
          return new Here(Optional.of(ws.ordering().times(w.plan())), bins);
        }));
    comparing.load(
        List.of(w.plan(), w.build()),
        desk.reading(ws -> {
          int boards = w.build().boards().size();
          return new Planned(
              ws.wishes().of(w.plan().revision(), w.plan().blocks()),
              ws.ordering().schools(w.plan(), boards),
              ws.ordering().several(w.plan(), boards, 1));
        }));
  }

  /// What is drawn; null until a board is in hand.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  /// The part that was clicked, named in the margin.
  public ObjectProperty<String> namedProperty() {
    return named;
  }

  @Override
  public void show(Snapshot.Work w) {
    boolean sameBoard = work != null && work.board().equals(w.board());
    work = w;
    if (planned != w.plan()) {
      planned = w.plan();
      rows.clear();
      bodies = Optional.empty();
      compared = Optional.empty();
    }
    load();
    List<Step> steps = w.plan().order().steps();
    if (steps.isEmpty()) {
      return;
    }
    int next =
        OrderFacts.of(w.state())
            .next(w.plan().order())
            .map(s -> s.number() - 1)
            .orElse(steps.size() - 1);
    if (!sameBoard || at < 0 || at >= steps.size() || at == offered) {
      at = next;
    }
    if (!follow.isEmpty()) {
      at = w.plan().order().placing(follow).map(x -> x.number() - 1).orElse(at);
      follow = "";
    }
    turned = false;
    offered = next;
    since = desk.clock().instant();
    fill();
  }

  private void fill() {
    if (work == null || work.plan().order().steps().isEmpty()) {
      return;
    }
    StepTimes times =
        known.times().orElseGet(() -> StepTimes.learn(work.plan().order(), List.of()));
    Step step = work.plan().order().steps().get(at);
    Set<String> placed = new LinkedHashSet<>(OrderFacts.of(work.state()).placed());
    Set<String> faulty = new HashSet<>();
    work.state().findings().forEach(f -> faulty.add(f.place().split("\\.")[0]));
    OrderFacts facts = OrderFacts.of(work.state());
    List<Step> all = work.plan().order().steps();
    shown.set(
        new Shown(
            work,
            step,
            facts.done(step),
            facts.done(work.plan().order()),
            placed,
            new LinkedHashSet<>(row(step)),
            faulty,
            rowed(step) ? Folded.folded(row(step)) : StepWords.what(step),
            rowWords(step) + StepWords.detail(step, work.plan().revision(), known.bins()),
            turned ? step.side().other() : step.side(),
            StepWords.broken(step, work.plan().order()),
            times.seconds(step) * row(step).size() / Math.max(1, step.parts().size()),
            times.seconds(all) / 60));
    margin(
        new OrderMargin(
                work,
                times,
                compared.map(Planned::wishes).orElse(List.of()),
                compared.map(Planned::schools),
                compared.map(Planned::several),
                near())
            .say(step, row(step), named.get(), sheet));
  }

  private List<List<String>> rows(Step step) {
    return rows.computeIfAbsent(step, s -> Rows.of(s, work.plan().revision()));
  }

  private boolean rowed(Step step) {
    return step.parts().size() > Rows.AT_ONCE && rows(step).size() > 1;
  }

  /// The first row with a part that is not on the board.
  private int rowAt(Step step) {
    Set<String> placed = OrderFacts.of(work.state()).placed();
    List<List<String>> all = rows(step);
    for (int i = 0; i < all.size(); i++) {
      if (!placed.containsAll(all.get(i))) {
        return i;
      }
    }
    return all.size() - 1;
  }

  private List<String> row(Step step) {
    return rowed(step) ? rows(step).get(rowAt(step)) : step.parts();
  }

  private String rowWords(Step step) {
    if (!rowed(step)) {
      return "";
    }
    int n = row(step).size();
    return "row "
        + (rowAt(step) + 1)
        + " of "
        + rows(step).size()
        + ", "
        + n
        + " of "
        + step.parts().size()
        + way(step)
        + " · ";
  }

  /// Where a row begins, as one sees it.
  private String way(Step step) {
    Optional<Part.Spot> a = spot(row(step).getFirst());
    Optional<Part.Spot> b = spot(row(step).getLast());
    if (a.isEmpty() || b.isEmpty()) {
      return "";
    }
    double dx = (b.get().xMm() - a.get().xMm()) * (step.side() == Side.SECOND ? -1 : 1);
    double dy = b.get().yMm() - a.get().yMm();
    return Math.abs(dx) >= Math.abs(dy)
        ? dx > 0 ? ", from the left" : ", from the right"
        : dy > 0 ? ", from below" : ", from above";
  }

  private Optional<Part.Spot> spot(String reference) {
    return work.plan().revision().part(reference).flatMap(Part::place);
  }

  /// The outlines that tell what is near what: worked out once for a plan, where somebody looks.
  private Optional<Bodies> near() {
    if (bodies.isEmpty() && desk.navigation().at(Stage.ORDER)) {
      bodies =
          Optional.of(
              new Bodies(
                  work.plan().revision(),
                  work.plan().revision().parts().stream().filter(Part::fitted).toList()));
    }
    return bodies;
  }

  /// Turns the drawing over, to look at the other side; the next step turns it back.
  public void turnOver() {
    turned = !turned;
    fill();
  }

  /// Turns to another worked sheet: minutes, the two schools, several boards.
  public void nextSheet() {
    sheet++;
    fill();
  }

  /// Names a part that was clicked.
  public void name(String reference) {
    named.set(reference);
    fill();
  }

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    return s == null || s.stepDone()
        ? "next step"
        : s.step().gate().isPresent() ? "gate holds" : rowed(s.step()) ? "row done" : "done";
  }

  @Override
  public void primary() {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    if (s.stepDone()) {
      at = offered;
      fill();
      return;
    }
    if (s.step().gate().isPresent()) {
      desk.log(List.of(new Entry.Gate(s.step().gate().get(), true, "")));
      return;
    }
    Duration took = Duration.between(since, desk.clock().instant());
    double seconds = took.compareTo(LONGEST) < 0 ? took.toMillis() / 1000.0 : 0;
    List<String> own = row(s.step()).stream().filter(r -> !s.placed().contains(r)).toList();
    desk.log(List.of(s.step().done(own, at == offered ? seconds : 0)));
  }

  /// Logs everything that is left of the step that is shown, whatever row is in hand.
  public void wholeStep() {
    Shown s = shown.get();
    desk.log(List.of(s.step().rest(s.placed())));
  }

  /// Whether the step that is shown is open and walked by rows.
  public boolean byRows() {
    return canBeDone() && rowed(shown.get().step());
  }

  /// How long the step in hand has been in hand; empty when another step is looked at.
  public Optional<Duration> elapsed() {
    Shown s = shown.get();
    return s == null || s.stepDone() || at != offered
        ? Optional.empty()
        : Optional.of(Duration.between(since, desk.clock().instant()));
  }

  /// Whether the step that is shown places parts.
  public boolean placing() {
    return shown.get() != null && !shown.get().step().parts().isEmpty();
  }

  /// Whether the step that is shown is open and no gate.
  public boolean canBeDone() {
    Shown s = shown.get();
    return s != null && !s.stepDone() && s.step().gate().isEmpty();
  }

  /// Logs the step for every board of the build for which it is the next and which nothing holds.
  public void doneOnAll() {
    Step step = shown.get().step();
    Snapshot.Work w = work;
    desk.act(ws -> {
      Ordering.OnAll all = ws.ordering().doneOnAll(ws.acts(), w.build(), w.plan(), step);
      desk.say(all.words(step));
    });
  }

  private List<Wish> wishes() {
    return compared.map(Planned::wishes).orElse(List.of());
  }

  /// Whether anything is wished.
  public boolean hasWishes() {
    return !wishes().isEmpty();
  }

  /// Wishes something for every part of the step that is shown.
  public void wish(Wish.Kind kind) {
    List<String> parts = shown.get().step().parts();
    keep(all -> {
      for (String part : parts) {
        all.removeIf(x ->
            x.part().equals(part)
                && (x.kind() == Wish.Kind.FIRST || x.kind() == Wish.Kind.LAST)
                && kind != Wish.Kind.BY_HAND);
        all.add(new Wish(kind, part, ""));
      }
    });
  }

  /// Moves the step that is shown before the one before it, or after the one after it.
  public void reorder(int by) {
    List<Step> steps = work.plan().order().steps();
    int other = at + by;
    if (other < 0 || other >= steps.size() || steps.get(other).parts().isEmpty()) {
      desk.say("the step beside it places nothing: a part stays within its side or block");
      return;
    }
    List<String> sooner = by < 0 ? steps.get(at).parts() : steps.get(other).parts();
    List<String> later = by < 0 ? steps.get(other).parts() : steps.get(at).parts();
    keep(all -> {
      for (String a : sooner) {
        for (String b : later) {
          all.remove(new Wish(Wish.Kind.BEFORE, b, a));
          all.add(new Wish(Wish.Kind.BEFORE, a, b));
        }
      }
    });
  }

  /// Wishes that the parts of the step that is shown arrive fitted, or takes that wish back.
  public void byHouse() {
    Step step = shown.get().step();
    keep(all -> {
      if (step.action() == Step.Action.ARRIVE) {
        all.removeIf(x -> x.kind() == Wish.Kind.BY_HOUSE);
      } else {
        step.parts().forEach(p -> all.add(new Wish(Wish.Kind.BY_HOUSE, p, "")));
      }
    });
  }

  /// Whether both sides lie in paste, so that it can be chosen which melts first.
  public boolean twoPasted() {
    return work != null
        && work.plan().order().steps().stream().filter(x -> x.action() == Step.Action.PASTE).count()
            > 1;
  }

  /// Wishes that the side that would melt second melts first.
  public void otherSideFirst() {
    Side now =
        work.plan().order().steps().stream()
            .filter(x -> x.action() == Step.Action.PASTE)
            .findFirst()
            .orElseThrow()
            .side();
    keep(all -> {
      all.removeIf(x -> x.kind() == Wish.Kind.SIDE_FIRST);
      all.add(new Wish(Wish.Kind.SIDE_FIRST, "", now.other().key()));
    });
  }

  /// Forgets every wish.
  public void forgetWishes() {
    keep(List::clear);
  }

  /// Changes the wishes as they are kept, whatever was read of them so far.
  private void keep(Consumer<List<Wish>> change) {
    Snapshot.Work w = work;
    if (placing()) {
      follow = shown.get().step().parts().getFirst();
    }
    desk.act(ws -> {
      List<Wish> all = new ArrayList<>(ws.wishes().of(w.plan().revision(), w.plan().blocks()));
      change.accept(all);
      all = all.stream().distinct().toList();
      ws.wishes().keep(w.plan(), all);
      List<String> broken = ws.plan(w.build()).order().mind();
      desk.say(
          all.isEmpty()
              ? "every wish is forgotten"
              : broken.isEmpty() ? "the order is as you want it" : broken.getLast());
    });
  }

  @Override
  public String faultLine() {
    Shown s = shown.get();
    if (s == null) {
      return "";
    }
    return s.step().gate().isPresent()
        ? "gate " + s.step().gate().get() + " fails "
        : s.step().parts().isEmpty() ? "note " : s.step().parts().getFirst() + " ";
  }

  @Override
  public void move(int by) {
    if (work != null && !work.plan().order().steps().isEmpty()) {
      at = Math.clamp(at + by, 0, work.plan().order().steps().size() - 1);
      turned = false;
      fill();
    }
  }

  @Override
  public boolean canBeBig() {
    return true;
  }
}
