package ell.desk.order;

import ell.core.board.Part;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.heat.HeatFacts;
import ell.core.order.Arrow;
import ell.core.order.Bodies;
import ell.core.order.BuildOrder;
import ell.core.order.Loop;
import ell.core.order.OrderFacts;
import ell.core.order.Schools;
import ell.core.order.SeveralBoards;
import ell.core.order.Step;
import ell.core.order.Wish;
import ell.core.rack.Plan;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.core.sheet.Worked;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.tape.Tape;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
  private List<Wish> wishes = List.of();
  private Plan planned;
  private Bodies bodies;
  private boolean learned;
  private Optional<Schools> schools = Optional.empty();
  private Optional<SeveralBoards> several = Optional.empty();
  private int sheet;
  private boolean turned;

  /// What is drawn.
  ///
  /// @param stepDone whether the step that is shown is done
  /// @param doneSteps how many steps are done
  /// @param placed references on the board
  /// @param faulty references with an open finding
  /// @param what the step's parts or act, as its title
  /// @param detail how, value, package, bin and polarity
  /// @param broken rules that a wish of the maker breaks here
  /// @param expected seconds that the step takes on this bench
  public record Shown(
      Snapshot.Work work,
      Step step,
      boolean stepDone,
      long doneSteps,
      Set<String> placed,
      Set<String> faulty,
      String what,
      String detail,
      Side side,
      List<String> broken,
      double expected) {
    public Shown {
      broken = List.copyOf(broken);
    }
  }

  /// A model for a desk.
  public OrderModel(DeskModel desk) {
    this.desk = desk;
    desk.stageProperty()
        .addListener((_, _, now) -> {
          if (now == Stage.ORDER && work != null && !work.plan().order().steps().isEmpty()) {
            inFront();
            fill();
          }
        });
  }

  /// What is only worth working out while somebody looks.
  private void inFront() {
    if (desk.stageProperty().get() == Stage.ORDER && !learned) {
      learned = true;
      learn(work);
    }
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
      bodies = null;
      schools = Optional.empty();
      several = Optional.empty();
      wishes = List.of();
      learned = false;
    }
    inFront();
    List<Step> steps = w.plan().order().steps();
    if (steps.isEmpty()) {
      return;
    }
    int next =
        OrderFacts.of(w.state()).next(w.plan().order()).map(s -> s.number() - 1).orElse(steps.size() - 1);
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
    Step step = work.plan().order().steps().get(at);
    Set<String> placed = new LinkedHashSet<>(OrderFacts.of(work.state()).placed());
    Set<String> faulty = new HashSet<>();
    work.state().findings().forEach(f -> faulty.add(f.place().split("\\.")[0]));
    long done =
        work.plan().order().steps().stream()
            .filter(s -> OrderFacts.of(work.state()).done(s))
            .count();
    shown.set(
        new Shown(
            work,
            step,
            OrderFacts.of(work.state()).done(step),
            done,
            placed,
            faulty,
            what(step),
            detail(step),
            turned ? other(step.side()) : step.side(),
            broken(step),
            work.times().seconds(step)));
    explain(step);
  }

  /// Wishes, and the two comparisons, which the book is asked for.
  private void learn(Snapshot.Work w) {
    desk.ask(ws -> {
      List<Wish> kept = ws.ordering().wishes(w.plan());
      Schools both = ws.ordering().schools(w.plan(), w.build().boards().size());
      SeveralBoards all = ws.ordering().several(w.plan(), w.build().boards().size(), 1);
      desk.runner()
          .ui()
          .execute(() -> {
            if (planned == w.plan()) {
              wishes = kept;
              schools = Optional.of(both);
              several = Optional.of(all);
              fill();
            }
          });
    });
  }

  /// Rules that a wish breaks at a step, those between the same two parts in one line.
  private List<String> broken(Step s) {
    Map<String, String> reasons = new LinkedHashMap<>();
    for (Loop l : work.plan().order().loops()) {
      Arrow gone = l.dropped();
      if (l.byWish() && (s.parts().contains(gone.before()) || s.parts().contains(gone.after()))) {
        reasons.merge(
            gone.before() + " should come before " + gone.after(),
            gone.reason(),
            (a, b) -> a + ", " + b);
      }
    }
    return reasons.entrySet().stream()
        .map(e -> "breaks a rule: " + e.getKey() + " (" + e.getValue() + ")")
        .toList();
  }

  private static String what(Step s) {
    return s.gate()
        .map(g -> "Gate · " + g)
        .orElseGet(() ->
            s.parts().isEmpty()
                ? s.action().words().substring(0, 1).toUpperCase(Locale.ROOT)
                    + s.action().words().substring(1)
                    + ", "
                    + s.side().key()
                    + " side"
                : String.join(" ", s.parts()));
  }

  private String detail(Step s) {
    if (s.gate().isPresent()) {
      return s.reasons().getFirst();
    }
    if (s.parts().isEmpty()) {
      return "";
    }
    Part p = work.plan().revision().part(s.parts().getFirst()).orElseThrow();
    String bin =
        work.kit().lines().stream()
            .filter(l -> l.code().equals(p.code()) && !l.bin().isEmpty())
            .map(l -> " · bin " + l.bin())
            .findFirst()
            .orElse("");
    String polarity =
        switch (work.plan().revision().shape(p).mark()) {
          case BAR -> " · the bar is the cathode";
          case STRIPE -> " · the stripe is minus";
          case DOT -> " · pin 1 at the dot";
          case NOTCH -> " · pin 1 at the notch";
          case FLAT -> " · mind the flat side";
          case NONE ->
              switch (p.kind()) {
                case RESISTOR, FERRITE, FUSE, CRYSTAL, INDUCTOR -> " · no polarity";
                default -> "";
              };
        };
    return s.action().words() + " · " + p.label() + bin + polarity;
  }

  private void explain(Step s) {
    List<Margin.Note> notes = new ArrayList<>();
    if (!s.cautions().isEmpty()) {
      notes.add(Margin.Note.care(s.cautions()));
    }
    notes.add(Margin.Note.plain("Why now", s.reasons()));
    if (!s.how().isEmpty()) {
      notes.add(Margin.Note.plain("How", s.how()));
    }
    if (!s.parts().isEmpty() && desk.stageProperty().get() == Stage.ORDER) {
      near(s).ifPresent(notes::add);
    }
    if (!named.get().isEmpty()) {
      work.plan().revision().part(named.get()).ifPresent(p -> notes.add(about(p)));
    }
    List<String> mind = new ArrayList<>(work.plan().order().mind());
    if (!wishes.isEmpty()) {
      notes.add(Margin.Note.plain("You want", wishes.stream().map(Wish::text).limit(12).toList()));
    }
    if (!mind.isEmpty()) {
      notes.add(new Margin.Note(Margin.Kind.WRONG, "Mind", mind.stream().limit(8).toList()));
    }
    List<Worked> sheets = sheets();
    margin(new Margin(Optional.of(sheets.get(sheet % sheets.size())), notes));
  }

  /// What is near the first part of a step, and where.
  private Optional<Margin.Note> near(Step s) {
    Optional<Part.Spot> own =
        work.plan().revision().part(s.parts().getFirst()).flatMap(Part::place);
    if (own.isEmpty()) {
      return Optional.empty();
    }
    if (bodies == null) {
      bodies =
          new Bodies(
              work.plan().revision(),
              work.plan().revision().parts().stream().filter(Part::fitted).toList());
    }
    List<String> lines = new ArrayList<>();
    for (Bodies.Neighbour n : bodies.nearest(s.parts().getFirst(), 4)) {
      Part.Spot there =
          work.plan().revision().part(n.reference()).flatMap(Part::place).orElseThrow();
      lines.add(
          n.reference()
              + (n.distanceMm() < 0.05
                  ? " over or under it"
                  : String.format(
                      Locale.ROOT, " %.1f mm %s", n.distanceMm(), where(own.get(), there))));
    }
    return lines.isEmpty()
        ? Optional.empty()
        : Optional.of(Margin.Note.plain("Near " + s.parts().getFirst(), lines));
  }

  /// A direction as it is seen on the drawing, which is turned for the second side.
  private static String where(Part.Spot from, Part.Spot to) {
    double dx = (to.xMm() - from.xMm()) * (from.side() == Side.SECOND ? -1 : 1);
    double dy = to.yMm() - from.yMm();
    return Math.abs(dx) > Math.abs(dy)
        ? dx > 0 ? "to the right" : "to the left"
        : dy > 0 ? "above" : "below";
  }

  private List<Worked> sheets() {
    List<Worked> all = new ArrayList<>();
    all.add(minutes());
    schools.ifPresent(x -> all.add(x.worked()));
    several.filter(x -> x.boards() > 1).ifPresent(x -> all.add(x.sheet()));
    return all;
  }

  private static Side other(Side s) {
    return s == Side.FIRST ? Side.SECOND : Side.FIRST;
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

  private Margin.Note about(Part p) {
    List<String> lines = new ArrayList<>();
    lines.add(p.label());
    lines.add("code " + p.code());
    work.plan()
        .order()
        .placing(p.reference())
        .ifPresent(s -> lines.add("placed in step " + s.number()));
    int heated = HeatFacts.of(work.state()).heatCycles().getOrDefault(p.reference(), 0);
    lines.add("heated " + heated + (heated == 1 ? " time" : " times"));
    work.state().findings().stream()
        .filter(f -> f.place().split("\\.")[0].equals(p.reference()))
        .forEach(f -> lines.add(f.what()));
    return Margin.Note.plain(p.reference(), lines);
  }

  private Worked minutes() {
    List<Step> steps = work.plan().order().steps();
    double total = work.times().seconds(steps) / 60;
    double left =
        work.times()
                .seconds(steps.stream().filter(s -> !OrderFacts.of(work.state()).done(s)).toList())
            / 60;
    BuildOrder.Effort effort = work.plan().order().effort();
    Worked.Builder s =
        Worked.of("order.minutes", "Minutes of work on this board")
            .line("all steps", "sum of the steps", total, "min")
            .line("left", "of the steps that are open", left, "min")
            .line(
                "reels, ways",
                "changes of reel, ways of the hand, turning the board",
                effort.seconds() / 60,
                "min")
            .line(
                "least",
                effort.exact()
                    ? "no order needs less: found by trying all"
                    : "no order needs less: least trees through the parts of each reel",
                effort.bound() / 60,
                "min")
            .result("minutes", total)
            .assume("place 6 s, change of reel 15 s, iron 20 s, a pin 4 s, a plate load 8 min");
    work.times()
        .factors()
        .forEach((a, f) ->
            s.line(
                a.words(),
                "times as long as typical, from " + work.times().steps().get(a) + " steps",
                f,
                ""));
    return s.source("typical times, no source, corrected by the book").done();
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
        : s.step().gate().isPresent() ? "gate holds" : "done";
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
    if (s.step().action() == Step.Action.PASTE && work.kit().pasteStaysClosed() && noneBegun()) {
      desk.say(
          "do not open the paste: "
              + String.join(", ", work.kit().pasteShort())
              + " are short; say why it is opened all the same");
      desk.tape().begin("override paste ");
      return;
    }
    if (s.step().gate().isPresent()) {
      desk.log(List.of(new Entry.Gate(s.step().gate().get(), true, "")));
      return;
    }
    Duration took = Duration.between(since, desk.clock().instant());
    double seconds = took.compareTo(LONGEST) < 0 ? took.toMillis() / 1000.0 : 0;
    desk.log(List.of(Tape.done(s.step(), at == offered ? seconds : 0)));
  }

  /// Whether this board takes its first step: one that is begun is finished.
  private boolean noneBegun() {
    return OrderFacts.of(work.state()).placed().isEmpty();
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
      List<String> serials = ws.ordering().sameStep(w.build(), w.plan(), step);
      for (String serial : serials) {
        ws.log(serial, Tape.done(step, 0));
      }
      desk.say(
          serials.isEmpty()
              ? "no board is at step " + step.number()
              : "step " + step.number() + " done on " + String.join(" ", serials));
    });
  }

  /// Whether anything is wished.
  public boolean hasWishes() {
    return !wishes.isEmpty();
  }

  /// Wishes something for every part of the step that is shown.
  public void wish(Wish.Kind kind) {
    List<Wish> all = new ArrayList<>(wishes);
    for (String part : shown.get().step().parts()) {
      all.removeIf(x ->
          x.part().equals(part)
              && (x.kind() == Wish.Kind.FIRST || x.kind() == Wish.Kind.LAST)
              && kind != Wish.Kind.BY_HAND);
      all.add(new Wish(kind, part, ""));
    }
    keep(all);
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
    List<Wish> all = new ArrayList<>(wishes);
    for (String a : sooner) {
      for (String b : later) {
        all.remove(new Wish(Wish.Kind.BEFORE, b, a));
        if (!all.contains(new Wish(Wish.Kind.BEFORE, a, b))) {
          all.add(new Wish(Wish.Kind.BEFORE, a, b));
        }
      }
    }
    keep(all);
  }

  /// Forgets every wish.
  public void forgetWishes() {
    keep(List.of());
  }

  private void keep(List<Wish> all) {
    Snapshot.Work w = work;
    if (placing()) {
      follow = shown.get().step().parts().getFirst();
    }
    desk.act(ws -> {
      ws.ordering().keep(w.plan(), all);
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
