package ell.desk.print;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.artwork.Artwork;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.entry.PasteLook;
import ell.core.heat.Alloy;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.print.JarClock;
import ell.core.print.JarRules;
import ell.core.print.Paste;
import ell.core.print.PasteLayer;
import ell.core.print.PrintFacts;
import ell.core.print.PrintLog;
import ell.core.print.StencilCheck;
import ell.core.print.SyringePlan;
import ell.core.rack.Stage;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.files.Source;
import ell.work.Workshop;
import ell.work.bring.Dropped;
import ell.work.bring.LayerKind;
import ell.work.bring.Layers;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// The paste of the board in hand: openings held against a foil, prints logged pad by pad, the jar.
public final class PrintModel extends StageModel {
  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private Snapshot.Work work;
  private Loaded loaded;
  private final Loader<Loaded> loader;
  private int foil = StencilCheck.FOILS.indexOf(0.12e-3);
  private Side side = Side.FIRST;
  private boolean sideChosen;
  private boolean wiped;
  private int at;
  private int sheet;

  /// What the margin can show.
  private static final int SHEETS = 4;

  /// What was read on the worker.
  private record Loaded(
      Map<Side, StencilCheck> checks,
      Optional<Artwork> legend,
      List<JarClock> jars,
      Map<String, JarRules> rules,
      Map<String, LocalDate> expiry,
      PrintLog log,
      Map<Side, SyringePlan> needles,
      double foil) {}

  /// What is drawn.
  ///
  /// @param check empty when the side has no paste layer
  /// @param selected index of the opening in hand among the check's lines
  /// @param worst the openings that release worst, one a part
  /// @param wiped whether the next print is logged as made with a wiped foil
  /// @param done whether this side of this board carries paste
  /// @param jar that is open
  /// @param needle the dots by needle, where the side has no paste layer
  public record Shown(
      Snapshot.Work work,
      Side side,
      boolean loading,
      Optional<StencilCheck> check,
      Optional<Artwork> legend,
      int selected,
      List<StencilCheck.Line> worst,
      boolean wiped,
      boolean done,
      Optional<JarClock> jar,
      PrintLog log,
      List<PrintLog.Fault> faults,
      Optional<PrintLog.Wipe> wipe,
      Optional<SyringePlan> needle) {
    /// The opening in hand.
    public Optional<StencilCheck.Line> line() {
      return check.filter(c -> selected < c.lines().size()).map(c -> c.lines().get(selected));
    }
  }

  /// A model for a desk.
  public PrintModel(DeskModel desk) {
    this.desk = desk;
    this.loader = loader(desk, desk.runner().worker(), "what the paste needs", this::arrived);
    whenShown(desk, Stage.PRINT, this::load);
  }

  /// What is drawn; null until a board is in hand.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work w) {
    boolean same = work != null && work.board().equals(w.board());
    work = w;
    if (!same) {
      wiped = false;
      sideChosen = false;
      at = 0;
    }
    if (!sideChosen) {
      side = sideInHand();
    }
    fill();
    if (desk.navigation().at(Stage.PRINT)) {
      load();
    }
  }

  /// The side whose paste is not molten yet: it is printed next, or was printed and is looked at.
  private Side sideInHand() {
    return work.plan().order().steps().stream()
        .filter(s -> s.action() == Step.Action.REFLOW)
        .filter(s -> !OrderFacts.of(work.state()).done(s))
        .map(Step::side)
        .findFirst()
        .orElse(Side.FIRST);
  }

  private void load() {
    if (work == null) {
      return;
    }
    Snapshot.Work w = work;
    double thick = StencilCheck.FOILS.get(foil);
    Loaded before = loaded;
    loader.load(List.of(w, thick), desk.reading(ws -> read(ws, w, thick, before)));
  }

  private void arrived(Loaded next) {
    boolean first = loaded == null || at == 0;
    loaded = next;
    if (first) {
      toWorst();
    }
    fill();
  }

  private void explain() {
    margin(
        new PrintMargin(
                shown.get(),
                j ->
                    j.sheet(
                        loaded.rules().getOrDefault(j.jar(), JarRules.TYPICAL),
                        Optional.ofNullable(loaded.expiry().get(j.jar()))))
            .say(sheet));
  }

  private static Loaded read(Workshop ws, Snapshot.Work w, double thick, Loaded before)
      throws IOException, ActException {
    Revision r = w.plan().revision();
    Map<Side, StencilCheck> checks = new LinkedHashMap<>();
    Paste paste = Paste.of(Alloy.of(w.build().alloy()));
    for (Side s : Side.values()) {
      Optional<PasteLayer> layer = ws.printing().layer(r, s);
      if (layer.isPresent()) {
        StencilCheck known = before == null ? null : before.checks().get(s);
        boolean same =
            known != null
                && known.layer() == layer.get()
                && known.foil() == thick
                && known.paste().equals(paste);
        checks.put(s, same ? known : StencilCheck.of(layer.get(), r, thick, paste));
      }
    }
    Map<Side, SyringePlan> needles = new LinkedHashMap<>();
    for (Side s : Side.values()) {
      SyringePlan known = before == null ? null : before.needles().get(s);
      needles.put(s, known != null ? known : SyringePlan.of(r, s, paste));
    }
    Map<String, JarRules> rules = new LinkedHashMap<>();
    Map<String, LocalDate> expiry = new LinkedHashMap<>();
    List<JarClock> jars = ws.printing().clocks();
    for (JarClock j : jars) {
      rules.put(j.jar(), ws.printing().rules(j.jar()));
      ws.printing().expiry(j.jar()).ifPresent(e -> expiry.put(j.jar(), e));
    }
    return new Loaded(
        checks,
        ws.printing().legend(r),
        jars,
        rules,
        expiry,
        ws.printing().log(w.build()),
        needles,
        thick);
  }

  /// The opening that releases worst is in hand first.
  private void toWorst() {
    StencilCheck c = loaded.checks().get(side);
    if (c != null && !c.lines().isEmpty()) {
      at = c.lines().indexOf(c.worstByPart().getFirst());
    }
  }

  private void fill() {
    if (work == null) {
      return;
    }
    Optional<StencilCheck> check = Optional.ofNullable(loaded).map(l -> l.checks().get(side));
    at = check.map(c -> Math.clamp(at, 0, Math.max(0, c.lines().size() - 1))).orElse(0);
    shown.set(
        new Shown(
            work,
            side,
            loaded == null,
            check,
            loaded == null || side == Side.SECOND ? Optional.empty() : loaded.legend(),
            at,
            check.map(StencilCheck::worstByPart).orElse(List.of()),
            wiped,
            PrintFacts.of(work.state()).printed().contains(side.key()),
            jar(),
            loaded == null ? new PrintLog(List.of()) : loaded.log(),
            loaded == null ? List.of() : loaded.log().faults(),
            loaded == null ? Optional.empty() : loaded.log().wipe(),
            loaded == null || check.isPresent()
                ? Optional.empty()
                : Optional.ofNullable(loaded.needles().get(side))));
    explain();
  }

  /// The jar that is in use: open or on the foil, the one that moved last.
  private Optional<JarClock> jar() {
    if (loaded == null) {
      return Optional.empty();
    }
    return loaded.jars().stream()
        .filter(JarClock::inUse)
        .max(java.util.Comparator.comparing(j -> j.since().orElseThrow()))
        .or(() -> loaded.jars().stream().findFirst());
  }

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    return s == null
        ? ""
        : (s.done() ? "printed again" : "printed")
            + ", "
            + side.key()
            + " side"
            + (wiped ? ", foil wiped" : "");
  }

  @Override
  public void primary() {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    Entry.Printed print = new Entry.Printed(side.key(), wiped, "");
    desk.log(
        List.of(print),
        () -> {
          wiped = false;
          fill();
        },
        desk::refused);
  }

  /// Whether the next print is logged as made with a wiped foil.
  public void wipe() {
    wiped = !wiped;
    fill();
  }

  /// Logs how the paste lies at the opening in hand, and goes on to the next.
  public void looks(PasteLook look) {
    Shown s = shown.get();
    if (s != null && s.line().isPresent() && s.done()) {
      String place = s.line().get().opening().name();
      if (s.line().get().opening().part().isEmpty()) {
        desk.say("this opening belongs to no joint, so nothing can be said of it");
        return;
      }
      desk.log(List.of(new Entry.PasteSeen(place, look)));
    }
  }

  /// Whether pads can be told.
  public boolean canTell() {
    return shown.get() != null && shown.get().done() && shown.get().line().isPresent();
  }

  /// A thicker or thinner foil.
  public void foil(int by) {
    foil = Math.clamp(foil + by, 0, StencilCheck.FOILS.size() - 1);
    load();
  }

  /// The other side.
  public void turnOver() {
    side = side.other();
    sideChosen = true;
    at = 0;
    if (loaded != null) {
      toWorst();
    }
    fill();
  }

  /// Takes layers into the revision that stands.
  public void take(List<Path> files) {
    Revision r = work.plan().revision();
    desk.act(w -> {
      Dropped dropped = Dropped.of(files.stream().map(Source::of).toList());
      Map<LayerKind, List<Source>> layers = dropped.layers();
      if (layers.isEmpty()) {
        throw new ActException(
            "no layer and no drill file is among them"
                + dropped.unknown().stream().findFirst().map(u -> ": " + u).orElse(""));
      }
      Layers.Outcome got = Layers.read(layers, r);
      if (!got.errors().isEmpty()) {
        throw new ActException(got.errors().getFirst().toString());
      }
      w.revisions().putLayers(r.design(), r.name(), got.texts());
      desk.say(
          String.join(", ", layers.keySet().stream().map(LayerKind::words).toList())
              + " kept with "
              + r.title()
              + (got.warnings().isEmpty() ? "" : "; mind: " + got.warnings().getFirst()));
    });
  }

  /// The next sheet in the margin: the opening, the jar, the needle, the sheet of foil.
  public void nextSheet() {
    sheet = (sheet + 1) % SHEETS;
    explain();
  }

  /// Takes the opening at a place in hand.
  public void select(int index) {
    at = index;
    fill();
  }

  @Override
  public void move(int by) {
    Shown s = shown.get();
    if (s == null || s.worst().isEmpty()) {
      return;
    }
    // from part to part, the one that releases worst first
    String part = s.line().map(l -> l.opening().part()).orElse("");
    int now = -1;
    for (int i = 0; i < s.worst().size(); i++) {
      now = s.worst().get(i).opening().part().equals(part) ? i : now;
    }
    int next = Math.clamp(now + by, 0, s.worst().size() - 1);
    select(s.check().orElseThrow().lines().indexOf(s.worst().get(next)));
  }

  @Override
  public void across(int by) {
    Shown s = shown.get();
    if (s != null && s.check().isPresent()) {
      select(Math.clamp(at + by, 0, Math.max(0, s.check().get().lines().size() - 1)));
    }
  }

  @Override
  public String faultLine() {
    Shown s = shown.get();
    return s == null || s.line().isEmpty() || s.line().get().opening().part().isEmpty()
        ? ""
        : s.line().get().opening().name() + " paste ";
  }

  /// The beginning of a tape line about the jar.
  public String jarLine() {
    Shown s = shown.get();
    return "jar " + (s == null ? "" : s.jar().map(j -> j.jar() + " ").orElse(""));
  }
}
