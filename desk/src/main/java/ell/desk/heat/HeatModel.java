package ell.desk.heat;

import ell.bench.instrument.Plate;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.heat.Alloy;
import ell.core.heat.FloorLife;
import ell.core.heat.HeatBudget;
import ell.core.heat.HeatFacts;
import ell.core.heat.JointDemand;
import ell.core.heat.PlateFit;
import ell.core.heat.PlateSchedule;
import ell.core.heat.ProfileCheck;
import ell.core.heat.ProfileLog;
import ell.core.heat.ProfileWindow;
import ell.core.order.Method;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.heat.Heating;
import ell.work.heat.PlateDrive;
import ell.work.look.Looking;
import ell.work.space.ActException;
import ell.work.tape.Tape;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;





/// Heat on the board in hand: runs of the plate held against their window, the next run driven, and
/// the iron's side: which pin wants what.
public final class HeatModel extends StageModel {
  private static final double SAMPLE_S = 1;

  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private Snapshot.Work work;
  private Loaded loaded;
  private Object loadedFor;
  private boolean iron;
  private boolean ironChosen;
  private int run = -1;
  private int channel;
  private int part;
  private int pin;
  private int sheet;
  private Phase phase = Phase.OFF;
  private String running = "";
  private Optional<PlateDrive.Look> look = Optional.empty();
  private volatile PlateDrive drive;
  private volatile CountDownLatch ended = new CountDownLatch(0);

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
    whenShown(desk, Stage.HEAT, this::load);
  }

  /// What is drawn; null until a board is in hand.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work w) {
    boolean same = work != null && work.board().equals(w.board());
    if (work != null && !same && phase != Phase.OFF) {
      off();
    }
    work = w;
    if (!same) {
      run = -1;
      channel = 0;
      part = 0;
      pin = 0;
      look = Optional.empty();
    }
    if (!ironChosen) {
      iron = Method.of(w.build().method()) == Method.IRON;
    }
    fill();
    if (desk.stageProperty().get() == Stage.HEAT) {
      load();
    }
  }

  private void load() {
    if (work == null) {
      return;
    }
    Snapshot.Work w = work;
    if (w == loadedFor) {
      return;
    }
    loadedFor = w;
    desk.ask(ws -> {
      Alloy alloy = Alloy.of(w.build().alloy());
      ProfileWindow window = ws.heating().window(alloy);
      List<Heating.Kept> kept = ws.heating().runs(w.build());
      PlateFit fit = ws.heating().plate(w.build());
      Map<String, FloorLife> bags = ws.heating().bags();
      List<Heating.Holed> holes = ws.heating().holes(w.plan());
      desk.runner()
          .aside()
          .execute(() -> {
            Loaded next =
                new Loaded(
                    window,
                    tracks(kept, window, w.board()),
                    fit,
                    schedule(fit, window),
                    bags,
                    holes);
            desk.runner()
                .ui()
                .execute(() -> {
                  if (w == loadedFor) {
                    boolean more = loaded != null && next.tracks().size() > loaded.tracks().size();
                    loaded = next;
                    if (run < 0 || more) {
                      run = latest(next.tracks());
                    }
                    fill();
                  }
                });
          });
    });
  }

  private PlateSchedule schedule(PlateFit fit, ProfileWindow window) {
    Loaded l = loaded;
    return l != null && l.fit().equals(fit) && l.window().equals(window)
        ? l.schedule()
        : PlateSchedule.of(fit.model(), window);
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

  private List<Part> parts() {
    Set<String> planes = Looking.planes(work.plan());
    boolean all = Method.of(work.build().method()) == Method.IRON;
    return work.plan().revision().parts().stream()
        .filter(Part::fitted)
        .filter(p -> !p.kind().bare() && !work.plan().revision().jointsOf(p.reference()).isEmpty())
        .filter(p -> all || work.plan().revision().throughHole(p))
        .sorted(
            Comparator.comparingDouble((Part p) ->
                    -work.plan().revision().jointsOf(p.reference()).stream()
                        .mapToDouble(j -> demand(j, planes).seconds())
                        .map(s -> Double.isInfinite(s) ? 1e6 : s)
                        .max()
                        .orElse(0))
                .thenComparing(Part::reference))
        .toList();
  }

  private JointDemand demand(Joint j, Set<String> planes) {
    return JointDemand.of(
        JointDemand.body(work.plan().revision(), j, planes),
        alloy(),
        JointDemand.Tip.BEVEL,
        JointDemand.dial(alloy(), 0),
        25);
  }

  private void fill() {
    if (work == null) {
      return;
    }
    List<Part> parts = iron ? parts() : List.of();
    part = Math.clamp(part, 0, Math.max(0, parts.size() - 1));
    Optional<Part> inHand = parts.isEmpty() ? Optional.empty() : Optional.of(parts.get(part));
    int had = inHand.map(p -> HeatFacts.of(work.state()).heatCycles().getOrDefault(p.reference(), 0)).orElse(0);
    double dial = JointDemand.dial(alloy(), had);
    List<JointDemand.Pin> pins =
        inHand
            .map(p ->
                JointDemand.order(
                    work.plan().revision(),
                    p,
                    Looking.planes(work.plan()),
                    alloy(),
                    JointDemand.Tip.BEVEL,
                    dial))
            .orElse(List.of());
    pin = Math.clamp(pin, 0, Math.max(0, pins.size() - 1));
    boolean here = running.equals(work.board());
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
            here ? phase : Phase.OFF,
            look,
            inHand,
            pins,
            pin,
            dial));
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
              : "run the plate, "
                  + reflow().map(r -> r.side().key() + " side").orElse("a test piece");
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
      case OFF -> s.schedule().ifPresent(this::start);
      case HEATING -> {
        PlateDrive d = drive;
        if (d != null) {
          d.lifted();
          phase = Phase.LIFTED;
          fill();
        }
      }
      case LIFTED -> {}
    }
  }

  /// The side whose paste is melted next.
  private Optional<Step> reflow() {
    return work.plan().order().steps().stream()
        .filter(x -> x.action() == Step.Action.REFLOW)
        .filter(x -> !OrderFacts.of(work.state()).done(x))
        .findFirst();
  }

  private void start(PlateSchedule schedule) {
    if (drive != null) {
      return;
    }
    Optional<Step> step = reflow();
    Optional<String> hot =
        OrderFacts.of(work.state()).placed().stream()
            .flatMap(p -> HeatBudget.refusal(work.plan().revision(), work.state(), p).stream())
            .findFirst();
    if (step.isPresent() && hot.isPresent() && !work.state().overrides().containsKey("heat")) {
      desk.say(hot.get() + "; say why it is heated all the same");
      desk.tape().begin("override heat ");
      return;
    }
    String serial = work.board();
    ProfileWindow window = loaded.window();
    String side = step.map(x -> x.side().key()).orElse("");
    phase = Phase.HEATING;
    running = serial;
    look = Optional.empty();
    fill();
    desk.ask(_ -> {
      Plate plate;
      try {
        plate = desk.plate();
      } catch (IOException | ActException e) {
        desk.runner().ui().execute(() -> over());
        throw e;
      }
      PlateDrive d = new PlateDrive(plate, schedule, SAMPLE_S);
      drive = d;
      ended = new CountDownLatch(1);
      desk.runner().aside().execute(() -> run(d, plate, serial, side, window, step));
    });
  }

  private void run(
      PlateDrive d,
      Plate plate,
      String serial,
      String side,
      ProfileWindow window,
      Optional<Step> step) {
    try (plate) {
      PlateDrive.End end =
          d.run(
              l ->
                  desk.runner()
                      .ui()
                      .execute(() -> {
                        look = Optional.of(l);
                        fill();
                      }),
              HeatModel::pause);
      if (end.log().channels().getFirst().size() == 0) {
        desk.say(end.why());
        return;
      }
      desk.act(w -> {
        List<Entry> entries = new ArrayList<>();
        if (end.log().channels().getFirst().size() >= 5) {
          entries.add(
              Heating.entry(
                  end.log(), window, side, end.whole() ? "plate" : "plate, " + end.why()));
        } else {
          entries.add(new Entry.Note("plate run ended at once: " + end.why()));
        }
        if (end.whole()) {
          step.ifPresent(s -> entries.add(Tape.done(s, 0)));
        }
        w.logAll(serial, entries);
        desk.say(
            "board "
                + serial
                + ": "
                + ell.core.entry.EntryWords.of(entries.getFirst())
                + (end.whole() ? "" : " · plate off"));
      });
    } catch (IOException e) {
      desk.say("the plate: " + e.getMessage());
    } finally {
      ended.countDown();
      desk.runner().ui().execute(this::over);
    }
  }

  private static void pause() {
    try {
      Thread.sleep(10);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void over() {
    drive = null;
    phase = Phase.OFF;
    running = "";
    look = Optional.empty();
    fill();
  }

  /// Whether the plate is hot now.
  public boolean live() {
    return drive != null;
  }

  /// The heater off, now.
  public void off() {
    PlateDrive d = drive;
    if (d != null) {
      d.stop();
    }
  }

  /// Switches off and waits until the plate was told, at most three seconds; for when the window
  /// closes.
  public void close() throws InterruptedException {
    off();
    ended.await(3, TimeUnit.SECONDS);
  }

  /// Takes in a logged run of the board in hand.
  public void take(Path log) {
    String serial = work.board();
    String side = reflow().map(s -> s.side().key()).orElse(Side.FIRST.key());
    desk.act(w -> {
      Entry.HeatRun e = w.heating().entry(serial, log, side);
      w.log(serial, e);
      desk.say("logged to " + serial + ": " + ell.core.entry.EntryWords.of(e));
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
