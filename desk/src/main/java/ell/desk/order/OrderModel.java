package ell.desk.order;

import ell.core.board.Part;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.order.Step;
import ell.core.rack.Standing;
import ell.core.sheet.Worked;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.Tape;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
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

  /// What is drawn.
  ///
  /// @param stepDone whether the step that is shown is done
  /// @param doneSteps how many steps are done
  /// @param placed references on the board
  /// @param faulty references with an open finding
  /// @param what the step's parts or act, as its title
  /// @param detail how, value, package, bin and polarity
  public record Shown(
      Snapshot.Work work,
      Step step,
      boolean stepDone,
      long doneSteps,
      Set<String> placed,
      Set<String> faulty,
      String what,
      String detail,
      Side side) {}

  /// A model for a desk.
  public OrderModel(DeskModel desk) {
    this.desk = desk;
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
    List<Step> steps = w.plan().order().steps();
    if (steps.isEmpty()) {
      return;
    }
    int next =
        Standing.nextStep(w.state(), w.plan()).map(s -> s.number() - 1).orElse(steps.size() - 1);
    if (!sameBoard || at < 0 || at >= steps.size() || at == offered) {
      at = next;
    }
    offered = next;
    since = desk.clock().instant();
    fill();
  }

  private void fill() {
    Step step = work.plan().order().steps().get(at);
    Set<String> placed = new LinkedHashSet<>(work.state().placed());
    Set<String> faulty = new HashSet<>();
    work.state().findings().forEach(f -> faulty.add(f.place().split("\\.")[0]));
    long done =
        work.plan().order().steps().stream()
            .filter(s -> Standing.stepDone(work.state(), s))
            .count();
    shown.set(
        new Shown(
            work,
            step,
            Standing.stepDone(work.state(), step),
            done,
            placed,
            faulty,
            what(step),
            detail(step),
            step.side()));
    explain(step);
  }

  private static String what(Step s) {
    return s.gate()
        .map(g -> "Gate · " + g)
        .orElseGet(() ->
            s.parts().isEmpty()
                ? s.action().words().substring(0, 1).toUpperCase(java.util.Locale.ROOT)
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
        switch (p.kind()) {
          case DIODE, LED -> " · one way round";
          case CHIP, MODULE, TRANSISTOR -> " · pin 1 at the dot";
          case RESISTOR, FERRITE, FUSE, CRYSTAL, INDUCTOR -> " · no polarity";
          default -> "";
        };
    return s.action().words() + " · " + p.label() + bin + polarity;
  }

  private void explain(Step s) {
    List<Margin.Note> notes = new ArrayList<>();
    notes.add(Margin.Note.plain("Why now", s.reasons()));
    if (!s.cautions().isEmpty()) {
      notes.add(Margin.Note.care(s.cautions()));
    }
    if (!named.get().isEmpty()) {
      work.plan().revision().part(named.get()).ifPresent(p -> notes.add(about(p)));
    }
    List<String> dropped = work.plan().order().mind();
    if (!dropped.isEmpty()) {
      notes.add(Margin.Note.wrong(dropped));
    }
    margin(new Margin(Optional.of(minutes()), notes));
  }

  private Margin.Note about(Part p) {
    List<String> lines = new ArrayList<>();
    lines.add(p.label());
    lines.add("code " + p.code());
    work.plan()
        .order()
        .placing(p.reference())
        .ifPresent(s -> lines.add("placed in step " + s.number()));
    int heated = work.state().heatCycles().getOrDefault(p.reference(), 0);
    lines.add("heated " + heated + (heated == 1 ? " time" : " times"));
    work.state().findings().stream()
        .filter(f -> f.place().split("\\.")[0].equals(p.reference()))
        .forEach(f -> lines.add(f.what()));
    return Margin.Note.plain(p.reference(), lines);
  }

  private Worked minutes() {
    double total = work.plan().order().minutes();
    double left =
        work.plan().order().steps().stream()
                .filter(s -> !Standing.stepDone(work.state(), s))
                .mapToDouble(Step::seconds)
                .sum()
            / 60;
    return Worked.of("order.minutes", "Minutes of work on this board")
        .line("all steps", "sum of the steps' typical times", total, "min")
        .line("left", "of the steps that are open", left, "min")
        .result("minutes", total)
        .assume("place 6 s, change of reel 15 s, iron 20 s, a pin 4 s, a plate load 8 min")
        .source("typical times, no source")
        .done();
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
    if (s.step().gate().isPresent()) {
      desk.log(List.of(new Entry.Gate(s.step().gate().get(), true, "")));
      return;
    }
    Duration took = Duration.between(since, desk.clock().instant());
    double seconds = took.compareTo(LONGEST) < 0 ? took.toMillis() / 1000.0 : 0;
    desk.log(List.of(Tape.done(s.step(), at == offered ? seconds : 0)));
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
      fill();
    }
  }

  @Override
  public boolean canBeBig() {
    return true;
  }
}
