package ell.desk.shell;

import ell.bench.instrument.Plate;
import ell.bench.sim.SimPlate;
import ell.book.BookException;
import ell.book.Build;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.kit.KitCheck;
import ell.core.kit.KitQuestion;
import ell.core.order.Method;
import ell.core.power.LadderState;
import ell.core.rack.Plan;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.files.pdf.RecordPdf;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import ell.work.bench.SocketBench;
import ell.work.bring.ImportFiles;
import ell.work.bring.RevisionImport;
import ell.work.demo.DemoWorkspace;
import ell.work.kit.Stockroom;
import ell.work.power.PowerRun;
import ell.work.send.RecordMaker;
import ell.work.space.ActException;
import ell.work.tape.Tape;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;



/// What the window holds: the open workspace, the board in hand, the stage, and the acts on them.
/// Work that may wait runs on the worker; the snapshot that comes of it is shown on the interface
/// thread.
public final class DeskModel {
  private final Runner run;
  private final Clock clock;
  private final ReadOnlyObjectWrapper<Snapshot> snapshot =
      new ReadOnlyObjectWrapper<>(this, "snapshot", Snapshot.NONE);
  private final ObjectProperty<Stage> stage = new SimpleObjectProperty<>(this, "stage", Stage.KIT);
  private final ReadOnlyStringWrapper board = new ReadOnlyStringWrapper(this, "board", "");
  private final ReadOnlyStringWrapper notice = new ReadOnlyStringWrapper(this, "notice", "");
  private final ReadOnlyStringWrapper busy = new ReadOnlyStringWrapper(this, "busy", "");
  private final BooleanProperty night = new SimpleBooleanProperty(this, "night");
  private final BooleanProperty big = new SimpleBooleanProperty(this, "big");
  private final ObjectProperty<String> bench =
      new SimpleObjectProperty<>(this, "bench", "simulated");
  private final Map<Stage, StageModel> stages = new EnumMap<>(Stage.class);
  private final TapeModel tape;
  private Consumer<Path> opened = _ -> {};

  // used on the worker only
  private Workshop workspace;
  private SimulatedBench simulated;
  private SimPlate simulatedPlate;
  private volatile double plateSpeed = 20;
  private String wanted = "";
  private Plan planned;
  private Tape tapePlanned;

  /// A desk with nothing on it.
  public DeskModel(Runner run, Clock clock) {
    this.run = run;
    this.clock = clock;
    this.tape = new TapeModel(this);
  }

  /// Puts a stage's model on the desk.
  public void add(Stage s, StageModel model) {
    stages.put(s, model);
    work().ifPresent(model::show);
  }

  /// Is told which file was opened.
  public void onOpened(Consumer<Path> listener) {
    opened = listener;
  }

  /// What is shown.
  public ReadOnlyObjectProperty<Snapshot> snapshotProperty() {
    return snapshot.getReadOnlyProperty();
  }

  /// The board in hand, when there is one.
  public Optional<Snapshot.Work> work() {
    return snapshot.get().bench();
  }

  /// The stage that is shown.
  public ObjectProperty<Stage> stageProperty() {
    return stage;
  }

  /// Serial of the board in hand.
  public ReadOnlyStringProperty boardProperty() {
    return board.getReadOnlyProperty();
  }

  /// The last thing that was said to the maker; empty when there is nothing to say.
  public ReadOnlyStringProperty noticeProperty() {
    return notice.getReadOnlyProperty();
  }

  /// What long work is under way; empty when none is.
  public ReadOnlyStringProperty busyProperty() {
    return busy.getReadOnlyProperty();
  }

  /// Whether the night palette is on.
  public BooleanProperty nightProperty() {
    return night;
  }

  /// Whether the step in hand fills the window.
  public BooleanProperty bigProperty() {
    return big;
  }

  /// The bench: `simulated`, or `SUPPLY`, `SUPPLY METER` or `SUPPLY METER PLATE`, each `host:port`.
  public ObjectProperty<String> benchProperty() {
    return bench;
  }

  /// The line to type into.
  public TapeModel tape() {
    return tape;
  }

  /// The model of the stage that is shown, when there is one.
  public Optional<StageModel> current() {
    return work().isEmpty() ? Optional.empty() : Optional.ofNullable(stages.get(stage.get()));
  }

  /// The executors.
  public Runner runner() {
    return run;
  }

  /// The clock.
  public Clock clock() {
    return clock;
  }

  /// Says something to the maker.
  public void say(String words) {
    run.ui().execute(() -> notice.set(words));
  }

  /// Work on the open workspace.
  public interface Job {
    /// Does it.
    void run(Workshop w) throws IOException, ActException;
  }

  /// Runs work on the worker, then shows what came of it; a problem is said in words.
  public void act(Job job) {
    run.worker()
        .execute(() -> {
          try {
            if (workspace != null) {
              job.run(workspace);
            }
            look();
          } catch (IOException | ActException | RuntimeException e) {
            say(words(e));
          }
        });
  }

  /// Asks the open workspace something on the worker, without taking a fresh look at it afterwards.
  public void ask(Job job) {
    run.worker()
        .execute(() -> {
          try {
            if (workspace != null) {
              job.run(workspace);
            }
          } catch (IOException | ActException | RuntimeException e) {
            say(words(e));
          }
        });
  }

  private static String words(Exception e) {
    return e.getMessage() == null ? e.toString() : e.getMessage();
  }

  /// Makes a new workspace and opens it.
  public void create(Path file) {
    replace(() -> Workshop.create(file, clock), file);
  }

  /// Opens a workspace.
  public void open(Path file) {
    replace(() -> Workshop.open(file, clock), file);
  }

  /// Makes the demo in a file and opens it.
  public void openDemo(Path file) {
    replace(() -> DemoWorkspace.make(file), null);
  }

  private interface Opening {
    Workshop get() throws IOException, ActException;
  }

  private void replace(Opening opening, Path remembered) {
    busy.set("opening");
    run.worker()
        .execute(() -> {
          try {
            Workshop next = opening.get();
            closeNow();
            workspace = next;
            wanted = "";
            look();
            if (remembered != null) {
              run.ui().execute(() -> opened.accept(remembered));
            }
          } catch (IOException | ActException | RuntimeException e) {
            say(words(e));
          } finally {
            run.ui().execute(() -> busy.set(""));
          }
        });
  }

  /// Closes the workspace; returns when that is done, when the worker is the calling thread's.
  public void close() {
    run.worker().execute(this::closeNow);
  }

  private void closeNow() {
    if (simulated != null) {
      simulated.close();
      simulated = null;
    }
    if (simulatedPlate != null) {
      simulatedPlate.close();
      simulatedPlate = null;
    }
    if (workspace != null) {
      try {
        workspace.close();
      } catch (BookException e) {
        say(words(e));
      }
      workspace = null;
    }
  }

  /// Takes another board in hand.
  public void select(String serial) {
    if (!serial.equals(board.get())) {
      act(_ -> wanted = serial);
    }
  }

  /// Walks the rack.
  public void walkRack(int by) {
    work()
        .ifPresent(w -> {
          List<String> all = w.build().boards();
          int at = Math.clamp(all.indexOf(w.board()) + by, 0, all.size() - 1);
          select(all.get(at));
        });
  }

  /// Goes to the next stage that is built, or back.
  public void walkStages(int by) {
    Stage[] all = Stage.values();
    for (int i = stage.get().ordinal() + by; i >= 0 && i < all.length; i += by) {
      if (all[i].built()) {
        stage.set(all[i]);
        return;
      }
    }
  }

  /// Goes to a stage, or says that it is not built yet.
  public void goTo(Stage s) {
    if (s.built()) {
      stage.set(s);
    } else {
      say(s.title() + " is not built yet");
    }
  }

  /// Logs entries for the board in hand.
  public void log(List<Entry> entries) {
    String serial = board.get();
    act(w -> {
      List<Logged> logged = w.logAll(serial, entries);
      say("logged to " + serial + ": " + EntryWords.of(logged.getLast().entry()));
    });
  }

  /// Strikes the last entry of the board in hand that stands.
  public void strikeLast() {
    String serial = board.get();
    act(w -> {
      Optional<Logged> last = w.lastStanding(serial);
      if (last.isEmpty()) {
        say("nothing to strike on board " + serial);
        return;
      }
      w.strike(serial, last.get().number(), "taken back");
      say("struck " + last.get().number() + ": " + EntryWords.of(last.get().entry()));
    });
  }

  /// Writes the record of the board in hand as PDF.
  public void record(Path to) {
    String serial = board.get();
    act(w -> {
      RecordPdf.write(RecordMaker.of(w, serial, OffsetDateTime.now(clock)), to);
      say("the record of board " + serial + " is in " + to);
    });
  }

  /// The build that is made with a new revision.
  ///
  /// @param boards 1...1000
  /// @param variant one that the bill speaks of, empty for the bill as it is
  public record Wanted(int boards, Method method, Alloy alloy, String variant) {}

  /// Imports the files of a revision, and makes a build of it.
  ///
  /// @param cancelled once it is true nothing will be stored
  /// @param refused is told the problems, on the interface thread
  public void importRevision(
      String design,
      String name,
      ImportFiles files,
      Wanted build,
      AtomicBoolean cancelled,
      Consumer<List<String>> refused) {
    busy.set("reading the files of " + design + " rev " + name);
    run.worker()
        .execute(() -> {
          try {
            switch (RevisionImport.read(design, name, files)) {
              case RevisionImport.Outcome.Refused r ->
                  run.ui()
                      .execute(() ->
                          refused.accept(r.problems().stream().map(Object::toString).toList()));
              case RevisionImport.Outcome.Whole whole -> {
                if (cancelled.get()) {
                  say("stopped: nothing was imported");
                } else {
                  Workshop.known(whole.revision(), build.variant());
                  workspace.store(whole);
                  workspace.build(
                      design,
                      name,
                      build.boards(),
                      build.method(),
                      build.alloy(),
                      "",
                      build.variant());
                  say(
                      whole.revision().title()
                          + " is in, with "
                          + whole.warnings().size()
                          + " things to mind and "
                          + whole.passedOver().size()
                          + " passed over");
                }
                look();
              }
            }
          } catch (IOException | ActException | RuntimeException e) {
            run.ui().execute(() -> refused.accept(List.of(words(e))));
          } finally {
            run.ui().execute(() -> busy.set(""));
          }
        });
  }

  /// The bench that is set, started if it is the simulated one. Runs on the worker.
  public PowerRun.Bench bench(Workshop w) throws IOException, ActException {
    String[] at = bench.get().strip().split("[\\s,]+");
    if (!at[0].equals("simulated")) {
      return new SocketBench(
          at[0],
          at.length > 1 ? Optional.of(at[1]) : Optional.empty(),
          Optional.empty(),
          "bench",
          1500);
    }
    if (simulated == null) {
      simulated = SimulatedBench.start(w, 1);
    }
    return simulated.sockets();
  }

  /// Seconds that the simulated plate lets go by in one.
  public void plateSpeed(double speed) {
    plateSpeed = speed;
  }

  /// The plate that is set, started if it is the simulated one. Runs on the worker.
  public Plate plate() throws IOException, ActException {
    String[] at = bench.get().strip().split("[\\s,]+");
    if (!at[0].equals("simulated")) {
      if (at.length < 3) {
        throw new ActException(
            "no plate on this bench: its address is the third, after supply and meter");
      }
      return SocketBench.plate(at[2], 1500);
    }
    if (simulatedPlate == null) {
      simulatedPlate = SimPlate.start(SimPlate.SMALL, 1, plateSpeed, 0);
    }
    return SocketBench.plate("127.0.0.1:" + simulatedPlate.port(), 1500);
  }

  /// Drops the simulated bench, so that the next use starts it anew with changed boards.
  public void renewBench() {
    if (simulated != null) {
      simulated.close();
      simulated = null;
    }
  }

  /// Takes a fresh look at the workspace. Runs on the worker.
  private void look() throws IOException, ActException {
    Snapshot next = workspace == null ? Snapshot.NONE : snapshotOf(workspace);
    run.ui()
        .execute(() -> {
          board.set(next.bench().map(Snapshot.Work::board).orElse(""));
          snapshot.set(next);
          next.bench().ifPresent(this::shown);
        });
  }

  /// The stage in front first, the others behind it when there is time.
  private void shown(Snapshot.Work w) {
    StageModel front = stages.get(stage.get());
    if (front != null) {
      front.show(w);
    }
    run.ui()
        .execute(() ->
            stages.values().stream()
                .filter(m -> m != front && work().filter(now -> now == w).isPresent())
                .forEach(m -> m.show(w)));
  }

  private Snapshot snapshotOf(Workshop w) throws IOException, ActException {
    List<String> revisions =
        w.book().revisions().stream().map(r -> r.design() + " rev " + r.name()).toList();
    List<Build> builds = w.book().builds();
    String name = w.book().file().getFileName().toString();
    if (builds.isEmpty()) {
      return new Snapshot(name, true, revisions, Optional.empty());
    }
    Build build =
        builds.stream()
            .filter(b -> b.boards().contains(wanted))
            .findFirst()
            .orElse(builds.getLast());
    run.aside().execute(() -> readAhead(w, build));
    Plan plan = w.plan(build);
    Map<String, Standing> standings = new LinkedHashMap<>();
    for (String serial : build.boards()) {
      standings.put(serial, Standing.of(w.state(serial), plan));
    }
    KitQuestion question =
        w.stockroom()
            .question(Optional.of(build), plan, Stockroom.Ask.today(build.boards().size()));
    String serial = build.boards().contains(wanted) ? wanted : first(standings);
    wanted = serial;
    return new Snapshot(
        name,
        true,
        revisions,
        Optional.of(
            new Snapshot.Work(
                build,
                plan,
                serial,
                w.state(serial),
                w.entries(serial),
                standings,
                KitCheck.of(question),
                question,
                w.stockroom().offers(),
                w.ordering().times(plan),
                tapeOf(w, plan),
                LadderState.of(plan.ladder(), "boot"),
                PowerRun.refusal(w, serial))));
  }

  /// Reads the boards' entries while the plan is worked out; whoever comes second finds them kept.
  private static void readAhead(Workshop w, Build build) {
    try {
      for (String serial : build.boards()) {
        w.state(serial);
      }
    } catch (BookException e) {
      // the same question is asked again right after, and its answer is told
    }
  }

  /// Made once for a plan.
  private Tape tapeOf(Workshop w, Plan plan) throws BookException {
    if (planned != plan) {
      planned = plan;
      tapePlanned = w.tape(plan);
    }
    return tapePlanned;
  }

  /// The board to begin with: one that is ready for first power, else the one that is furthest and
  /// not held.
  private static String first(Map<String, Standing> standings) {
    return standings.entrySet().stream()
        .filter(e -> e.getValue().mark() != Standing.Mark.OUT)
        .max((a, b) -> Double.compare(waitsForPower(a.getValue()), waitsForPower(b.getValue())))
        .map(Map.Entry::getKey)
        .orElse(standings.keySet().iterator().next());
  }

  private static double waitsForPower(Standing s) {
    return (s.stage() == Stage.POWER && s.stageProgress() == 0 ? 10 : 0) + s.progress();
  }

  /// Takes the next build of the workspace in hand, round and round.
  public void walkBuilds() {
    act(w -> {
      List<Build> builds = w.book().builds();
      for (int i = 0; i < builds.size(); i++) {
        if (builds.get(i).boards().contains(wanted)) {
          wanted = builds.get((i + 1) % builds.size()).boards().getFirst();
          return;
        }
      }
    });
  }
}
