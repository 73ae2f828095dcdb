package ell.desk.look;

import ell.core.board.Joint;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.look.DefectKind;
import ell.core.look.LookFacts;
import ell.core.look.Rates;
import ell.core.look.Walk;
import ell.core.order.OrderFacts;
import ell.core.rack.Stage;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.look.Photographs;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// The walk of the board in hand: the joint under the lens, what was seen, how often it goes wrong.
public final class LookModel extends StageModel {
  /// Share of the expected defects that the short walk meets.
  public static final double SHARE = 0.8;

  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private Snapshot.Work work;
  private Loaded loaded;
  private final Loader<Loaded> loader;
  private String walked = "";
  private boolean brief;
  private int at = -1;
  private int offered = -1;
  private int sheet;

  private record Loaded(Walk walk, String way, Rates rates) {}

  /// What is drawn.
  ///
  /// @param brief whether only the risky joints are walked
  /// @param stops of the walk
  /// @param at index of the stop in hand, -1 when there is none
  /// @param coverage share of the expected defects that these stops meet
  /// @param done how many of them were seen good or have a finding
  public record Shown(
      Snapshot.Work work,
      boolean loading,
      boolean brief,
      List<Walk.Stop> stops,
      List<Joint> hidden,
      int at,
      double coverage,
      int done,
      Optional<Rates> rates) {
    /// The stop in hand.
    public Optional<Walk.Stop> stop() {
      return at >= 0 && at < stops.size() ? Optional.of(stops.get(at)) : Optional.empty();
    }

    /// What is wrong at the joint in hand.
    public List<BoardState.Finding> findings() {
      return stop()
          .map(s ->
              work.state().findings().stream()
                  .filter(f ->
                      f.place().equals(s.joint().place()) || f.place().equals(s.joint().part()))
                  .toList())
          .orElse(List.of());
    }
  }

  /// A model for a desk.
  public LookModel(DeskModel desk) {
    this.desk = desk;
    this.loader =
        loader(
            desk,
            desk.runner().worker(),
            "the walk of the joints",
            l -> {
              loaded = l;
              walked = l.way();
              fill();
            });
    whenShown(desk, Stage.LOOK, this::load);
  }

  /// What is drawn; null until a board is in hand.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work w) {
    if (work == null || !work.board().equals(w.board())) {
      loaded = null;
      at = -1;
      offered = -1;
    }
    work = w;
    fill();
    if (desk.navigation().at(Stage.LOOK)) {
      load();
    }
  }

  private void load() {
    if (work == null) {
      return;
    }
    Snapshot.Work w = work;
    // the way stays the same while it is walked: what is seen must not change what comes next
    Walk keep = loaded != null && walked.equals(way(w)) ? loaded.walk() : null;
    loader.load(
        w,
        desk.reading(ws ->
            new Loaded(
                keep != null ? keep : ws.looking().walk(w.build(), w.board()),
                way(w),
                ws.looking().rates(w.build()))));
  }

  private void explain() {
    margin(new LookMargin(shown.get()).say(sheet));
  }

  private static String way(Snapshot.Work w) {
    return w.board() + " " + OrderFacts.of(w.state()).placed().size();
  }

  private List<Walk.Stop> stops() {
    return loaded == null ? List.of() : brief ? loaded.walk().risky(SHARE) : loaded.walk().stops();
  }

  private boolean told(Walk.Stop s) {
    return LookFacts.of(work.state()).sawGood(s.joint().place())
        || work.state().findings().stream()
            .anyMatch(
                f -> f.place().equals(s.joint().place()) || f.place().equals(s.joint().part()));
  }

  private void fill() {
    if (work == null) {
      return;
    }
    List<Walk.Stop> stops = stops();
    int next = -1;
    int done = 0;
    for (int i = 0; i < stops.size(); i++) {
      if (told(stops.get(i))) {
        done++;
      } else if (next < 0) {
        next = i;
      }
    }
    if (at < 0 || at == offered || at >= stops.size()) {
      at = next < 0 ? stops.size() - 1 : next;
    }
    offered = next;
    shown.set(
        new Shown(
            work,
            loaded == null,
            brief,
            stops,
            loaded == null ? List.of() : loaded.walk().hidden(),
            at,
            loaded == null ? 0 : loaded.walk().coverage(stops),
            done,
            Optional.ofNullable(loaded).map(Loaded::rates)));
    explain();
  }

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    return s == null || s.stop().isEmpty() ? "" : told(s.stop().get()) ? "next joint" : "good";
  }

  @Override
  public void primary() {
    Shown s = shown.get();
    if (s == null || s.stop().isEmpty()) {
      return;
    }
    if (told(s.stop().get())) {
      at = offered >= 0 ? offered : Math.min(at + 1, s.stops().size() - 1);
      fill();
      return;
    }
    desk.log(List.of(new Entry.Seen(List.of(s.stop().get().joint().place()))));
  }

  /// The rest of the part's joints are good.
  public void restOfPart() {
    Shown s = shown.get();
    if (s == null || s.stop().isEmpty()) {
      return;
    }
    String part = s.stop().get().joint().part();
    List<String> open =
        s.stops().stream()
            .filter(x -> x.joint().part().equals(part) && !told(x))
            .map(x -> x.joint().place())
            .distinct()
            .toList();
    if (!open.isEmpty()) {
      desk.log(List.of(new Entry.Seen(open)));
    }
  }

  /// Every joint that is left is good.
  public void restOfBoard() {
    List<String> open = LookFacts.restGood(work.plan().revision(), work.state());
    if (open.isEmpty()) {
      desk.say("every joint was looked at, or has a finding");
    } else {
      desk.log(List.of(new Entry.Seen(open)));
    }
  }

  /// Logs a defect at the joint in hand, or at its part where the kind is about the whole part.
  public void defect(DefectKind kind) {
    Shown s = shown.get();
    if (s != null && s.stop().isPresent()) {
      Joint j = s.stop().get().joint();
      desk.log(List.of(new Entry.Defect(kind.joint() ? j.place() : j.part(), kind.word(), "")));
    }
  }

  /// Whether something at the joint in hand can be mended.
  public boolean canMend() {
    Shown s = shown.get();
    return s != null && s.findings().stream().anyMatch(f -> DefectKind.of(f.what()).isPresent());
  }

  /// Begins the line that says that the finding in hand was mended the usual way.
  public void mend() {
    shown.get().findings().stream()
        .filter(f -> DefectKind.of(f.what()).isPresent())
        .findFirst()
        .ifPresent(f ->
            desk.tape()
                .begin(f.place() + " " + DefectKind.of(f.what()).orElseThrow().action() + " "));
  }

  /// Only the risky joints, or all.
  public void brief() {
    brief = !brief;
    at = -1;
    offered = -1;
    fill();
  }

  /// The next sheet in the margin.
  public void nextSheet() {
    sheet = (sheet + 1) % 2;
    explain();
  }

  /// Keeps a photograph of the joint in hand.
  public void photograph(Path file) {
    Shown s = shown.get();
    if (s != null && s.stop().isPresent()) {
      String serial = work.board();
      String place = s.stop().get().joint().place();
      desk.act(w -> {
        Photographs.keep(w.space(), serial, place, file);
        desk.say("the photograph of " + place + " is kept with board " + serial);
      });
    }
  }

  /// Whether there is a joint in hand.
  public boolean hasStop() {
    return shown.get() != null && shown.get().stop().isPresent();
  }

  /// Kinds that have a key.
  static List<DefectKind> keyed() {
    return Arrays.stream(DefectKind.values()).filter(k -> !k.letter().isEmpty()).toList();
  }

  @Override
  public void across(int by) {
    Shown s = shown.get();
    if (s != null && !s.stops().isEmpty()) {
      at = Math.clamp(at + by, 0, s.stops().size() - 1);
      fill();
    }
  }

  /// From part to part.
  @Override
  public void move(int by) {
    Shown s = shown.get();
    if (by == 0 || s == null || s.stop().isEmpty()) {
      return;
    }
    String part = s.stop().get().joint().part();
    int i = at;
    while (i >= 0 && i < s.stops().size() && s.stops().get(i).joint().part().equals(part)) {
      i += by;
    }
    if (by < 0 && i >= 0) {
      // to the first joint of the part before
      String before = s.stops().get(i).joint().part();
      while (i > 0 && s.stops().get(i - 1).joint().part().equals(before)) {
        i--;
      }
    }
    at = Math.clamp(i, 0, s.stops().size() - 1);
    fill();
  }

  @Override
  public String faultLine() {
    Shown s = shown.get();
    return s == null || s.stop().isEmpty() ? "" : s.stop().get().joint().place() + " ";
  }

  @Override
  public String readingLine() {
    return faultLine();
  }
}
