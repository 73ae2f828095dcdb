package ell.desk.heat;

import ell.core.board.Part;
import ell.core.board.Side;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.heat.FloorLife;
import ell.core.heat.JointDemand;
import ell.core.heat.PlateFit;
import ell.core.heat.PlateSchedule;
import ell.core.heat.ProfileCheck;
import ell.core.heat.ProfileLog;
import ell.core.heat.ProfileWindow;
import ell.core.order.Method;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Stage;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.heat.Heating;
import ell.work.heat.PlateAct;
import ell.work.heat.PlateDrive;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// Heat on the board in hand: runs of the plate held against their window, the next run driven, and
/// the iron's side: which pin wants what.
public final class HeatModel extends StageModel {
  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private Snapshot.Work work;
  private Loaded loaded;
  private final Loader<Loaded> loader;
  private boolean iron;
  private boolean ironChosen;
  private int run = -1;
  private int channel;
  private int part;
  private int pin;
  private int sheet;
  private final PlateRunner runner;

  /// Where a run of the plate is.
  public enum Phase {
    /// The heater is off.
    OFF,
    /// The board lies on the hot plate.
    HEATING,
    /// It was lifted off.
    LIFTED
  }

  /// A run that was recorded.
  ///
  /// @param own whether it was this board
  public record Track(String title, boolean own, ProfileLog log, ProfileCheck check) {}

  private record Loaded(
      ProfileWindow window,
      List<Track> tracks,
      PlateFit fit,
      PlateSchedule schedule,
      Map<String, FloorLife> bags,
      List<Heating.Holed> holes) {}

  /// What is drawn.
  ///
  /// @param iron whether the iron's side is looked at, not the plate's
  /// @param selected index of the run in hand, -1 when there is none
  /// @param channel of that run
  /// @param look at the plate as it runs
  /// @param part in hand of those that an iron solders, those that want most heat first
  /// @param pins of the part in hand in the order of soldering
  public record Shown(
      Snapshot.Work work,
      boolean loading,
      boolean iron,
      Optional<ProfileWindow> window,
      List<Track> tracks,
      int selected,
      int channel,
      Optional<PlateSchedule> schedule,
      Optional<PlateFit> fit,
      Phase phase,
      Optional<PlateDrive.Look> look,
      Optional<Part> part,
      List<JointDemand.Pin> pins,
      int pin,
      double dial) {
    /// The run in hand.
    public Optional<Track> track() {
      return selected >= 0 && selected < tracks.size()
          ? Optional.of(tracks.get(selected))
          : Optional.empty();
    }

    /// The channel in hand.
    public Optional<ProfileCheck.Channel> line() {
      return track()
          .map(t -> t.check().channels().get(Math.min(channel, t.check().channels().size() - 1)));
    }
  }

  /// A model for a desk.
  public HeatModel(DeskModel desk) {
    this.desk = desk;
    this.runner = new PlateRunner(desk, this::fill);
    this.loader =
        loader(
            desk,
            desk.runner().aside(),
            "the plate and its runs",
            next -> {
              boolean more = loaded != null && next.tracks().size() > loaded.tracks().size();
              loaded = next;
              if (run < 0 || more) {
                run = latest(next.tracks());
              }
              fill();
            });
    whenShown(desk, Stage.HEAT, this::load);
  }

  /// What is drawn; null until a board is in hand.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work w) {
    boolean same = work != null && work.board().equals(w.board());
    if (work != null && !same && !runner.idle()) {
      off();
    }
    work = w;
    if (!same) {
      run = -1;
      channel = 0;
      part = 0;
      pin = 0;
      runner.forgetLook();
    }
    if (!ironChosen) {
      iron = Method.of(w.build().method()) == Method.IRON;
    }
    fill();
    if (desk.navigation().at(Stage.HEAT)) {
      load();
    }
  }

  private void load() {
    if (work == null) {
      return;
    }
    Snapshot.Work w = work;
    Loaded before = loaded;
    loader.load(
        w,
        desk.reading(ws -> {
          ProfileWindow window = ws.heating().window(Alloy.of(w.build().alloy()));
          PlateFit fit = ws.heating().plate(w.build());
          boolean same =
              before != null && before.fit().equals(fit) && before.window().equals(window);
          return new Loaded(
              window,
              tracks(ws.heating().runs(w.build()), window, w.board()),
              fit,
              same ? before.schedule() : PlateSchedule.of(fit.model(), window),
              ws.heating().bags(),
              ws.heating().holes(w.plan()));
        }));
  }

  private static List<Track> tracks(List<Heating.Kept> kept, ProfileWindow window, String board) {
    List<Track> all = new ArrayList<>();
    for (Heating.Kept k : kept) {
      ProfileLog log = Heating.log(k.run());
      try {
        all.add(
            new Track(
                "board "
                    + k.board()
                    + (k.run().side().isEmpty() ? "" : ", " + k.run().side() + " side"),
                k.board().equals(board),
                log,
                ProfileCheck.of(log, window, 0)));
      } catch (IllegalArgumentException e) {
        // a run that was stopped at once has nothing to tell
      }
    }
    return all;
  }

  /// The latest run of this board, else the latest of all.
  private static int latest(List<Track> tracks) {
    for (int i = tracks.size() - 1; i >= 0; i--) {
      if (tracks.get(i).own()) {
        return i;
      }
    }
    return tracks.size() - 1;
  }

  private Alloy alloy() {
    return Alloy.of(work.build().alloy());
  }

  private void fill() {
    if (work == null) {
      return;
    }
    IronSide side = IronSide.of(work, iron, part, pin);
    part = side.partAt();
    pin = side.pinAt();
    shown.set(
        new Shown(
            work,
            loaded == null,
            iron,
            Optional.ofNullable(loaded).map(Loaded::window),
            loaded == null ? List.of() : loaded.tracks(),
            loaded == null ? -1 : Math.min(run, loaded.tracks().size() - 1),
            channel,
            Optional.ofNullable(loaded).map(Loaded::schedule),
            Optional.ofNullable(loaded).map(Loaded::fit),
            runner.phase(work.board()),
            runner.look(),
            side.part(),
            side.pins(),
            pin,
            side.dial()));
    explain();
  }

  private void explain() {
    Map<String, FloorLife> bags = loaded == null ? Map.of() : loaded.bags();
    List<Heating.Holed> holes = loaded == null ? List.of() : loaded.holes();
    margin(new HeatMargin(shown.get(), alloy(), sheet, bags, holes).say());
  }

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    if (s == null || iron) {
      return s == null || s.part().isEmpty() ? "" : "next pin";
    }
    return switch (s.phase()) {
      case OFF ->
          s.schedule().isEmpty()
              ? ""
              : "plate: "
                  + PlateAct.reflow(work.plan(), work.state())
                      .map(r -> r.side().key() + " side")
                      .orElse("a test piece");
      case HEATING -> "lifted off";
      case LIFTED -> "";
    };
  }

  @Override
  public void primary() {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    if (iron) {
      across(1);
      return;
    }
    switch (s.phase()) {
      case OFF -> s.schedule().ifPresent(schedule -> runner.start(work, schedule));
      case HEATING -> runner.lifted();
      case LIFTED -> {}
    }
  }

  /// Whether the plate is hot now.
  public boolean live() {
    return runner.live();
  }

  /// The heater off, now.
  public void off() {
    runner.off();
  }

  /// Switches off and waits until the plate was told, at most three seconds; for when the window
  /// closes.
  public void close() throws InterruptedException {
    runner.close();
  }

  /// Takes in a logged run of the board in hand.
  public void take(Path log) {
    String serial = work.board();
    String side =
        PlateAct.reflow(work.plan(), work.state())
            .map(s -> s.side().key())
            .orElse(Side.FIRST.key());
    desk.act(w -> {
      List<Logged> logged = w.log(serial, List.of(w.heating().entry(serial, log, side))).orThrow();
      desk.say("logged to " + serial + ": " + EntryWords.of(logged.getFirst().entry()));
    });
  }

  /// The iron's side, or the plate's.
  public void turn() {
    iron = !iron;
    ironChosen = true;
    fill();
  }

  /// The next sheet in the margin: the run, the plate, the schedule.
  public void nextSheet() {
    sheet = (sheet + 1) % 3;
    explain();
  }

  @Override
  public void move(int by) {
    if (iron) {
      part += by;
      pin = 0;
    } else if (loaded != null && !loaded.tracks().isEmpty()) {
      run = Math.clamp(run + by, 0, loaded.tracks().size() - 1);
    }
    fill();
  }

  @Override
  public void across(int by) {
    Shown s = shown.get();
    if (iron) {
      pin += by;
    } else if (s != null && s.track().isPresent()) {
      channel = Math.clamp(channel + by, 0, s.track().get().check().channels().size() - 1);
    }
    fill();
  }

  @Override
  public String faultLine() {
    Shown s = shown.get();
    return s != null && s.part().isPresent() ? s.part().get().reference() + " " : "";
  }

  /// A number of seconds as it is called out.
  static String seconds(double s) {
    return EngineeringNumber.print(Math.rint(s), Unit.SECOND);
  }
}
