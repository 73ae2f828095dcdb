package ell.desk.jig;

import ell.core.jig.Bending;
import ell.core.jig.JigMaker;
import ell.core.jig.JigPlan;
import ell.core.jig.Probe;
import ell.core.rack.Stage;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Loader;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.files.Output;
import ell.work.jig.JigFiles;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// The jig of the board in hand's revision, and the probe or finger that is turned to. Fingers can
/// be moved; what that does to the board is worked out aside.
public final class JigModel extends StageModel {
  /// How far a key moves a finger, millimetre.
  public static final double STEP_MM = 1;

  private static final List<String> REACHES = List.of("tests", "power", "all");

  private final DeskModel desk;
  private final FileAsker files;
  private final Loader<Answer> planning;
  private final Loader<Answer> bending;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(this, "busy");
  private Snapshot.Work work;
  private int at;
  private List<double[]> moved = List.of();

  /// What is drawn.
  ///
  /// @param at what is turned to: probes first, then fingers, then what it is worth
  /// @param moved whether fingers stand elsewhere than they are kept
  public record Shown(Snapshot.Work work, JigPlan plan, int at, boolean moved) {
    /// The probe that is turned to.
    public Optional<Probe> probe() {
      return at < plan.probes().size() ? Optional.of(plan.probes().get(at)) : Optional.empty();
    }

    /// The finger that is turned to, by its place in the list.
    public int finger() {
      int f = at - plan.probes().size();
      return f >= 0 && f < plan.bending().fingers().size() ? f : -1;
    }

    /// How many things can be turned to.
    int things() {
      return plan.probes().size() + plan.bending().fingers().size() + 1;
    }
  }

  private record Answer(Snapshot.Work work, JigPlan plan) {}

  /// A model for a desk.
  public JigModel(DeskModel desk, FileAsker files) {
    this.desk = desk;
    this.files = files;
    planning =
        loader(
            desk,
            desk.runner().aside(),
            "the jig",
            a -> {
              moved = List.of();
              fill(a, Math.clamp(at, 0, things(a.plan()) - 1), false);
            });
    bending = loader(desk, desk.runner().aside(), "how the board bends", a -> fill(a, at, true));
    busy.bind(
        javafx.beans.binding.Bindings.createBooleanBinding(
            () -> planning.busy() || bending.busy(),
            planning.stateProperty(),
            bending.stateProperty()));
    whenShown(desk, Stage.JIG, this::ask);
  }

  /// What is drawn; null before anything was worked out.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  /// Whether it is being worked out.
  public ReadOnlyBooleanProperty busyProperty() {
    return busy.getReadOnlyProperty();
  }

  private static int things(JigPlan p) {
    return p.probes().size() + p.bending().fingers().size() + 1;
  }

  @Override
  public void show(Snapshot.Work w) {
    boolean other =
        work != null && !work.plan().revision().title().equals(w.plan().revision().title());
    if (other) {
      shown.set(null);
      at = 0;
      margin(Margin.EMPTY);
    }
    work = w;
    ask();
  }

  private void ask() {
    if (work == null || !desk.navigation().at(Stage.JIG)) {
      return;
    }
    Snapshot.Work w = work;
    planning.load(
        List.of(w.plan().revision().title(), System.identityHashCode(w.plan())),
        cancelled ->
            new Answer(
                w, desk.<JigPlan>reading(x -> x.jigs().plan(w.plan(), List.of())).get(cancelled)));
  }

  private void fill(Answer a, int turned, boolean elsewhere) {
    at = Math.clamp(turned, 0, things(a.plan()) - 1);
    Shown s = new Shown(a.work(), a.plan(), at, elsewhere);
    shown.set(s);
    margin(JigMargin.say(s));
  }

  private void again() {
    Shown s = shown.get();
    if (s != null) {
      fill(new Answer(s.work(), s.plan()), at, s.moved());
    }
  }

  @Override
  public void move(int by) {
    Shown s = shown.get();
    if (s != null) {
      at = Math.clamp(at + by, 0, s.things() - 1);
      again();
    }
  }

  /// From the probes to the fingers, to what it is worth, and round.
  @Override
  public void across(int by) {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    int probes = s.plan().probes().size();
    int fingers = s.plan().bending().fingers().size();
    List<Integer> starts = new ArrayList<>();
    if (probes > 0) {
      starts.add(0);
    }
    if (fingers > 0) {
      starts.add(probes);
    }
    starts.add(probes + fingers);
    int here = 0;
    for (int i = 0; i < starts.size(); i++) {
      here = at >= starts.get(i) ? i : here;
    }
    at = starts.get(Math.floorMod(here + by, starts.size()));
    again();
  }

  /// Turns to what lies nearest to a place, millimetre.
  public void turnTo(double xMm, double yMm) {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    double best = Double.POSITIVE_INFINITY;
    for (int i = 0; i < s.things() - 1; i++) {
      Shown x = new Shown(s.work(), s.plan(), i, s.moved());
      double[] p = place(x);
      double d = Math.hypot(p[0] - xMm, p[1] - yMm);
      if (d < best) {
        best = d;
        at = i;
      }
    }
    again();
  }

  /// Where what is turned to lies, millimetre; null where it lies nowhere.
  static double[] place(Shown s) {
    if (s.probe().isPresent()) {
      return new double[] {s.probe().get().target().xMm(), s.probe().get().target().yMm()};
    }
    int f = s.finger();
    if (f < 0) {
      return null;
    }
    Bending.Finger x = s.plan().bending().fingers().get(f);
    return new double[] {x.xMm(), x.yMm()};
  }

  /// Whether a finger is turned to.
  public boolean atFinger() {
    return shown.get() != null && shown.get().finger() >= 0;
  }

  /// Moves the finger that is turned to.
  ///
  /// @param dx steps to the right
  /// @param dy steps up
  public void shift(double dx, double dy) {
    Shown s = shown.get();
    if (s == null || s.finger() < 0) {
      return;
    }
    // keys come faster than answers: the next step goes on from where the last one was asked for
    List<double[]> all =
        new ArrayList<>(
            moved.isEmpty()
                ? s.plan().bending().fingers().stream()
                    .map(f -> new double[] {f.xMm(), f.yMm()})
                    .toList()
                : moved);
    double[] from = all.get(s.finger());
    all.set(s.finger(), new double[] {from[0] + dx * STEP_MM, from[1] + dy * STEP_MM});
    moved = List.copyOf(all);
    press(s);
  }

  private void press(Shown s) {
    List<double[]> to = moved;
    bending.load(
        List.of(System.identityHashCode(s.plan().revision()), words(to)),
        _ -> new Answer(s.work(), JigMaker.pressed(s.plan(), to)));
  }

  private static String words(List<double[]> fingers) {
    return fingers.stream()
        .map(f -> String.format(Locale.ROOT, "%.2f,%.2f", f[0], f[1]))
        .collect(Collectors.joining(" "));
  }

  /// Whether fingers stand elsewhere than they are kept.
  public boolean canKeep() {
    return shown.get() != null && shown.get().moved();
  }

  /// Keeps the fingers where they stand.
  public void keep() {
    if (canKeep()) {
      say("fingers=" + words(moved), "the fingers are kept");
    }
  }

  /// Lets Ell choose the fingers again.
  public void letGo() {
    bending.forget();
    say("fingers=", "the fingers are chosen again");
  }

  /// Lets probes come from above as well, or no more.
  public void top() {
    Shown s = shown.get();
    if (s != null) {
      boolean on = s.plan().setup().words("top").equals("yes");
      say("top=" + (on ? "no" : "yes"), on ? "no probe from above" : "probes from above as well");
    }
  }

  /// The next of: what tests need, power, every net.
  public void reach() {
    Shown s = shown.get();
    if (s != null) {
      int i = REACHES.indexOf(s.plan().setup().words("reach"));
      say("reach=" + REACHES.get((i + 1) % REACHES.size()), "other nets are reached for");
    }
  }

  private void say(String words, String told) {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    bending.forget();
    desk.act(w -> {
      w.jigs().say(s.work().plan().revision(), List.of(words));
      desk.say(told);
    });
  }

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    return s == null || s.plan().probes().isEmpty() ? "" : "write the plates";
  }

  /// Writes plates, wiring and parts into a folder.
  @Override
  public void primary() {
    Shown s = shown.get();
    if (s == null || s.plan().probes().isEmpty()) {
      return;
    }
    Optional<Path> folder = files.folder("plates of the jig");
    folder.ifPresent(f ->
        desk.act(_ -> {
          List<String> names = JigFiles.write(s.plan(), f, Output.Over.OURS);
          desk.say("wrote " + names.size() + " files to " + f);
        }));
  }

  @Override
  public String readingLine() {
    return "jig J1 closed";
  }

  @Override
  public String faultLine() {
    Shown s = shown.get();
    return s == null
        ? ""
        : s.probe().map(p -> "jig J1 check open " + p.target().net()).orElse("jig J1 check ");
  }
}
