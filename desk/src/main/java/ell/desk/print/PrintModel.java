package ell.desk.print;

import static ell.core.quantity.EngineeringNumber.print;
import ell.core.artwork.Artwork;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.entry.JarMove;
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
import ell.core.print.SheetFit;
import ell.core.print.StencilCheck;
import ell.core.print.SyringePlan;
import ell.core.print.TopUp;
import ell.core.quantity.Unit;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.core.sheet.Worked;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.files.Source;
import ell.work.Workshop;
import ell.work.bring.FileKind;
import ell.work.bring.LayerKind;
import ell.work.bring.Layers;
import ell.work.space.ActException;
import ell.work.tape.Tape;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;






/// The paste of the board in hand: openings held against a foil, prints logged pad by pad, the jar.
public final class PrintModel extends StageModel {
  private static final double BORE = 0.41e-3;

  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private Snapshot.Work work;
  private Loaded loaded;
  private Object loadedFor;
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
    if (desk.stageProperty().get() == Stage.PRINT) {
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
    Object key = List.of(w, thick);
    if (key.equals(loadedFor)) {
      return;
    }
    loadedFor = key;
    Loaded before = loaded;
    desk.ask(ws -> {
      Loaded next = read(ws, w, thick, before);
      desk.runner()
          .ui()
          .execute(() -> {
            if (key.equals(loadedFor)) {
              boolean first = loaded == null || at == 0;
              loaded = next;
              if (first) {
                toWorst();
              }
              fill();
            }
          });
    });
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
        .filter(j -> j.state().filter(s -> s == JarMove.OPEN || s == JarMove.STENCIL).isPresent())
        .max(java.util.Comparator.comparing(j -> j.since().orElseThrow()))
        .or(() -> loaded.jars().stream().findFirst());
  }

  private void explain() {
    Shown s = shown.get();
    Optional<Worked> working =
        switch (sheet) {
          case 1 ->
              s.jar()
                  .map(j ->
                      j.sheet(
                          loaded.rules().getOrDefault(j.jar(), JarRules.TYPICAL),
                          Optional.ofNullable(loaded.expiry().get(j.jar()))));
          case 2 -> loaded == null ? Optional.empty() : Optional.of(needle());
          case 3 -> Optional.of(onSheet());
          default ->
              s.check()
                  .flatMap(c -> s.line().map(c::sheet))
                  .or(() -> s.needle().map(_ -> needle()));
        };
    List<Margin.Note> notes = new ArrayList<>();
    if (sheet == 0) {
      s.line().ifPresent(l -> topUp(l).ifPresent(t -> notes.add(t)));
    }
    notes.add(
        Margin.Note.plain(
            "One pass",
            List.of(
                "Board between scraps of its own thickness, foil taped on one edge.",
                "Card at 45°, one pass, lift straight up.",
                "An empty pad gets a dot by needle; a smear is wiped off whole and printed again.")));
    notes.add(
        Margin.Note.care(
            List.of(
                "Cut foil edges are razor sharp: gloves.",
                "Paste holds flux and metal, some of it lead: no food here, wash hands; its data sheet decides.",
                "Solvent burns: not near the hot plate.")));
    notes.add(
        Margin.Note.wrong(
            List.of(
                "bridged at fine pins: wipe the foil from both sides, print again",
                "thin or missing: look through the holes, they clog; press harder on the card",
                "smeared: the board moved or the foil was not lifted straight")));
    margin(new Margin(working, notes));
  }

  private Optional<Margin.Note> topUp(StencilCheck.Line l) {
    PasteLook look = PrintFacts.of(work.state()).paste().get(l.opening().name());
    if (look != PasteLook.MISSING && look != PasteLook.THIN) {
      return Optional.empty();
    }
    // a thin pad is taken to lack half of what a good print leaves
    double volume = look == PasteLook.THIN ? l.volume() / 2 : l.volume();
    if (volume <= 0) {
      return Optional.empty();
    }
    TopUp t = TopUp.of(volume, BORE);
    return Optional.of(
        Margin.Note.plain(
            "Top up " + l.opening().name(),
            List.of(
                "a dot " + print(t.domeDiameter(), Unit.METRE, 2) + " across, or",
                print(t.threadLength(), Unit.METRE, 2)
                    + " of thread from a "
                    + print(BORE, Unit.METRE, 2)
                    + " needle")));
  }

  private Worked needle() {
    SyringePlan p =
        SyringePlan.of(work.plan().revision(), side, Paste.of(Alloy.of(work.build().alloy())));
    double stencil = 25;
    double hour = 20;
    var n = p.breakEven(stencil, 240, hour);
    Worked.Builder s =
        Worked.of("stencil.break-even", "By needle instead of by stencil")
            .line(
                "dots", "surface joints of the " + side.key() + " side", p.dots().size(), Unit.ONE)
            .line("way", "from pad to pad, shortened", p.wayMm() * 1e-3, Unit.METRE)
            .line("time", "2.5 s a dot, 0.03 s a millimetre", p.seconds() / 60, "min a board")
            .line(
                "stencil pays",
                "price 25 / (time saved · 20 an hour)",
                n.isPresent()
                    ? "from " + (int) Math.ceil(n.getAsDouble()) + " boards on"
                    : "never");
    p.dots().stream()
        .limit(6)
        .forEach(d -> s.line(d.joint().place(), "paste of this dot", d.paste() * 1e9, "mm³"));
    return s.source("common practice, no source: times and prices typical")
        .assume("a print takes 4 min, wiping and looking through included; first six dots shown")
        .done();
  }

  private Worked onSheet() {
    double[] b = work.plan().revision().boxMm();
    double w = (b[2] - b[0] + 40) * 1e-3;
    double h = (b[3] - b[1] + 40) * 1e-3;
    SheetFit f = SheetFit.of(0.30, 0.40, w, h, 0.01, 0.004);
    return Worked.of("stencil.sheet", "Boards on one stencil sheet")
        .line(
            "field",
            "board and 20 mm for hands all round",
            print(w, Unit.METRE, 3) + " × " + print(h, Unit.METRE, 3))
        .line("sheet", "typical", "300 × 400 mm")
        .line("boards", "in one or two blocks, turned where it helps", f.boards(), Unit.ONE)
        .line(
            "turned",
            "by a quarter",
            f.fields().stream().filter(SheetFit.Field::turned).count(),
            Unit.ONE)
        .line("left", "sheet − boards", f.left() * 1e4, "cm²")
        .source("geometry; margins typical, no source")
        .assume(
            "both sides of a board, or other boards, may share the sheet: stencil --sheet writes it")
        .caution("Cutting leaves edges that are razor sharp: gloves, tape the edges, deburr.")
        .done();
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
    if (work.kit().pasteStaysClosed() && OrderFacts.of(work.state()).placed().isEmpty()) {
      desk.say(
          "do not open the paste: "
              + String.join(", ", work.kit().pasteShort())
              + " are short; say why it is opened all the same");
      desk.tape().begin("override paste ");
      return;
    }
    List<Entry> entries = new ArrayList<>();
    entries.add(new Entry.Printed(side.key(), wiped, s.jar().map(JarClock::jar).orElse("")));
    work.plan().order().steps().stream()
        .filter(x -> x.action() == Step.Action.PASTE && x.side() == side)
        .filter(x -> !OrderFacts.of(work.state()).done(x))
        .findFirst()
        .ifPresent(x -> entries.add(Tape.done(x, 0)));
    wiped = false;
    desk.log(entries);
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
      Map<LayerKind, Source> layers = new EnumMap<>(LayerKind.class);
      for (Path f : files) {
        FileKind.of(f)
            .flatMap(k -> k == FileKind.OUTLINE ? Optional.of(LayerKind.OUTLINE) : k.layer())
            .ifPresent(k -> layers.put(k, Source.of(f)));
      }
      if (layers.isEmpty()) {
        throw new ActException("no layer and no drill file is among them");
      }
      Layers.Outcome got = Layers.read(layers, r);
      if (!got.errors().isEmpty()) {
        throw new ActException(got.errors().getFirst().toString());
      }
      w.putLayers(r.design(), r.name(), got.texts());
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
