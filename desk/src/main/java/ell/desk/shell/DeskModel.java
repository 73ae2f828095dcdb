package ell.desk.shell;

import ell.book.BookException;
import ell.book.Build;
import ell.book.Place;
import ell.book.ServerDoor;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.rack.Plan;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.files.Output;
import ell.work.Stages;
import ell.work.Workshop;
import ell.work.act.Outcome;
import ell.work.act.Refusal;
import ell.work.act.RefusedException;
import ell.work.demo.DemoWorkspace;
import ell.work.practice.Practice;
import ell.work.send.RecordMaker;
import ell.work.space.ActException;
import ell.work.tape.Tape;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleDoubleProperty;

/// The desk: the open workspace, what the window shows of it, and the acts on it. Work that may
/// wait runs on the worker; the snapshot that comes of it is shown on the interface thread.
public final class DeskModel {
  private final Runner run;
  private final Clock clock;
  private final Stages stages;
  private final ReadOnlyObjectWrapper<Snapshot> snapshot =
      new ReadOnlyObjectWrapper<>(this, "snapshot", Snapshot.NONE);
  private final ReadOnlyStringWrapper notice = new ReadOnlyStringWrapper(this, "notice", "");
  private final ReadOnlyStringWrapper busy = new ReadOnlyStringWrapper(this, "busy", "");
  private final BooleanProperty night = new SimpleBooleanProperty(this, "night");
  private final DoubleProperty size = new SimpleDoubleProperty(this, "size", 1);
  private final Map<Stage, StageModel> models = new LinkedHashMap<>();
  private final Navigation navigation;
  private final DeskBench bench = new DeskBench();
  private final Importing importing = new Importing(this);
  private final TapeModel tape;
  private final Sharing sharing = new Sharing(this);
  private final Phone phone;
  private Consumer<Place> opened = _ -> {};

  // used on the worker only
  private Workshop workshop;
  private String wanted = "";
  private long moments;
  private Plan planned;
  private Tape tapePlanned;

  /// A desk with nothing on it.
  public DeskModel(Runner run, Clock clock) {
    this(run, clock, Stages.SHIPPED);
  }

  /// A desk with nothing on it, for other stages than those that ship.
  public DeskModel(Runner run, Clock clock, Stages stages) {
    this.run = run;
    this.clock = clock;
    this.stages = stages;
    this.navigation = new Navigation(stages.all(), this::say);
    this.tape = new TapeModel(this);
    this.phone = new Phone(this, run);
  }

  /// Puts a stage's model on the desk.
  public void add(Stage s, StageModel model) {
    models.put(s, model);
    navigation.built(s);
    work().ifPresent(model::show);
  }

  /// Is told which workspace was opened.
  public void onOpened(Consumer<Place> listener) {
    opened = listener;
  }

  /// The lists of stages.
  public Stages stages() {
    return stages;
  }

  /// Where one is in the window.
  public Navigation navigation() {
    return navigation;
  }

  /// The instruments.
  public DeskBench bench() {
    return bench;
  }

  /// Other benches.
  public Sharing sharing() {
    return sharing;
  }

  /// Boards on a phone.
  public Phone phone() {
    return phone;
  }

  /// Takes files in.
  public Importing importing() {
    return importing;
  }

  /// The line to type into.
  public TapeModel tape() {
    return tape;
  }

  /// What is shown.
  public ReadOnlyObjectProperty<Snapshot> snapshotProperty() {
    return snapshot.getReadOnlyProperty();
  }

  /// The board in hand, when there is one.
  public Optional<Snapshot.Work> work() {
    return snapshot.get().bench();
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

  /// How large the whole interface is shown: 1, 1.25 or 1.5.
  public DoubleProperty sizeProperty() {
    return size;
  }

  /// The model of the stage that is shown, when there is one.
  public Optional<StageModel> current() {
    return work().isEmpty()
        ? Optional.empty()
        : Optional.ofNullable(models.get(navigation.stageProperty().get()));
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
    onWorker(
        () -> {
          if (workshop != null) {
            job.run(workshop);
          }
          look();
        },
        this::said);
  }

  /// Asks the open workspace something on the worker, without taking a fresh look at it afterwards.
  public void ask(Job job) {
    onWorker(
        () -> {
          if (workshop != null) {
            job.run(workshop);
          }
        },
        this::said);
  }

  /// What a loader works out from the open workspace, on the worker.
  ///
  /// @param from makes the answer
  public <T> Loader.Work<T> reading(Reading<T> from) {
    return cancelled -> {
      if (workshop == null) {
        throw new ActException("no workspace is open any more");
      }
      return from.of(workshop);
    };
  }

  /// Reads something out of the open workspace.
  public interface Reading<T> {
    /// Reads it.
    T of(Workshop w) throws IOException, ActException;
  }

  private interface Task {
    void run() throws IOException, ActException;
  }

  private void onWorker(Task task, Consumer<Exception> failed) {
    run.worker()
        .execute(() -> {
          try {
            task.run();
          } catch (IOException | ActException | RuntimeException e) {
            failed.accept(e);
          }
        });
  }

  /// A refusal is said, and the line that sets its rule aside is begun; any other problem is said.
  private void said(Exception e) {
    if (e instanceof RefusedException r) {
      run.ui().execute(() -> refused(r.refusal()));
    } else {
      say(Loader.words(e));
    }
  }

  /// Says why an act was refused, and begins the line that sets its rule aside.
  public void refused(Refusal r) {
    notice.set(r.text());
    if (r.how().contains("override")) {
      tape.begin("override " + r.rule() + " ");
    }
  }

  /// Work on the open workspace that takes its time: the window says what it is.
  ///
  /// @param failed is told a problem in words, on the interface thread
  void lengthy(String what, Job job, Consumer<String> failed) {
    busy.set(what);
    run.worker()
        .execute(() -> {
          try {
            if (workshop == null) {
              throw new ActException("no workspace is open");
            }
            job.run(workshop);
          } catch (IOException | ActException | RuntimeException e) {
            run.ui().execute(() -> failed.accept(Loader.words(e)));
          } finally {
            run.ui().execute(() -> busy.set(""));
          }
        });
  }

  /// Makes a new workspace and opens it.
  public void create(Path file) {
    replace(
        () -> {
          Workshop.create(file, clock).close();
          return Workshop.open(file, clock, stages);
        },
        new Place.OfFile(file),
        this::say);
  }

  /// Opens a workspace file.
  public void open(Path file) {
    open(new Place.OfFile(file));
  }

  /// Opens a workspace.
  public void open(Place place) {
    replace(() -> Workshop.open(place, clock, stages), place, this::say);
  }

  /// Opens a workspace by its address, or makes one there.
  ///
  /// @param password empty for none, or for what is known otherwise
  /// @param done is told what went wrong, empty when nothing did; on the interface thread
  public void openAt(String address, String password, boolean anew, Consumer<String> done) {
    Place[] place = new Place[1];
    replace(
        () -> {
          place[0] = Place.of(address);
          if (place[0] instanceof Place.OnServer s && !password.isEmpty()) {
            ServerDoor.typed(s, password);
          }
          if (anew) {
            Workshop.create(place[0], clock).close();
          }
          Workshop w = Workshop.open(place[0], clock, stages);
          run.ui().execute(() -> done.accept(""));
          run.ui().execute(() -> opened.accept(place[0]));
          return w;
        },
        null,
        why -> run.ui().execute(() -> done.accept(why)));
  }

  /// Makes the demo in a file and opens it.
  public void openDemo(Path file) {
    replace(
        () -> {
          DemoWorkspace.make(file).close();
          return Workshop.open(file, clock, stages);
        },
        null,
        this::say);
  }

  private interface Opening {
    Workshop get() throws IOException, ActException;
  }

  private void replace(Opening opening, Place remembered, Consumer<String> failed) {
    busy.set("opening");
    run.worker()
        .execute(() -> {
          try {
            Workshop next = opening.get();
            closeNow();
            workshop = next;
            wanted = "";
            sharing.begin(next);
            look();
            Practice.in(next)
                .ifPresent(p -> say("Practice: " + p.words() + " Ctrl+T tells how it goes."));
            if (remembered != null) {
              run.ui().execute(() -> opened.accept(remembered));
            }
          } catch (IOException | ActException | RuntimeException e) {
            failed.accept(Loader.words(e));
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
    bench.renew();
    phone.end();
    if (workshop != null) {
      try {
        workshop.close();
      } catch (BookException e) {
        say(Loader.words(e));
      }
      workshop = null;
    }
  }

  /// Takes another board in hand.
  public void select(String serial) {
    if (!serial.equals(navigation.boardProperty().get())) {
      act(_ -> wanted = serial);
    }
  }

  /// Walks the rack.
  public void walkRack(int by) {
    work()
        .ifPresent(w -> {
          List<String> all = w.build().boards();
          select(all.get(Math.clamp(all.indexOf(w.board()) + by, 0, all.size() - 1)));
        });
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

  /// Logs an act for the board in hand. A rule of the work may refuse it: the reason is said, and
  /// the line that sets the rule aside is begun.
  public void log(List<? extends Entry> entries) {
    log(entries, () -> {}, this::refused);
  }

  /// Logs an act for the board in hand.
  ///
  /// @param done is told when it is in the book, on the interface thread
  /// @param refused is told why it is not, on the interface thread
  public void log(List<? extends Entry> entries, Runnable done, Consumer<Refusal> refused) {
    String serial = navigation.boardProperty().get();
    act(w -> {
      switch (w.log(serial, entries)) {
        case Outcome.Done d -> {
          say("logged to " + serial + ": " + words(d.entries()));
          run.ui().execute(done);
        }
        case Outcome.Refused r -> run.ui().execute(() -> refused.accept(r.refusal()));
      }
    });
  }

  private static String words(List<Logged> logged) {
    return String.join(" · ", logged.stream().limit(2).map(l -> EntryWords.of(l.entry())).toList())
        + (logged.size() > 2 ? " and " + (logged.size() - 2) + " more" : "");
  }

  /// Strikes the last entry of the board in hand that stands.
  public void strikeLast() {
    String serial = navigation.boardProperty().get();
    act(w -> {
      Optional<Logged> last = w.space().lastStanding(serial);
      if (last.isEmpty()) {
        say("nothing to strike on board " + serial);
        return;
      }
      w.log(serial, List.of(new Entry.Strike(last.get().number(), "taken back"))).orThrow();
      say("struck " + last.get().number() + ": " + EntryWords.of(last.get().entry()));
    });
  }

  /// Writes the record of the board in hand as PDF.
  public void record(Path to) {
    String serial = navigation.boardProperty().get();
    act(w -> {
      RecordMaker.pdf(w, serial, java.util.OptionalLong.empty(), to, Output.Over.ANY);
      say("the record of board " + serial + " is in " + to);
    });
  }

  /// Takes a fresh look at the workspace. Runs on the worker.
  void look() throws IOException, ActException {
    Snapshot next = workshop == null ? Snapshot.NONE : snapshotOf(workshop);
    run.ui()
        .execute(() -> {
          navigation.inHand(next.bench().map(Snapshot.Work::board).orElse(""));
          snapshot.set(next);
          next.bench().ifPresent(this::shown);
        });
  }

  /// The stage in front first, the others behind it when there is time.
  private void shown(Snapshot.Work w) {
    StageModel front = models.get(navigation.stageProperty().get());
    if (front != null) {
      front.show(w);
    }
    run.ui()
        .execute(() ->
            models.values().stream()
                .filter(m -> m != front && work().filter(now -> now == w).isPresent())
                .forEach(m -> m.show(w)));
  }

  private Snapshot snapshotOf(Workshop w) throws IOException, ActException {
    List<String> revisions =
        w.book().revisions().stream().map(r -> r.design() + " rev " + r.name()).toList();
    List<Build> builds = w.book().builds();
    String name = w.book().place().shortName();
    if (builds.isEmpty()) {
      return new Snapshot(
          name, true, revisions, Optional.empty(), sharing.now(w), Optional.empty());
    }
    Build build =
        builds.stream()
            .filter(b -> b.boards().contains(wanted))
            .findFirst()
            .orElse(builds.getLast());
    Plan plan = w.plan(build);
    run.aside().execute(() -> readAhead(w, build, plan));
    Map<String, Standing> standings = new LinkedHashMap<>();
    for (String serial : build.boards()) {
      standings.put(serial, Standing.of(w.state(serial), plan, stages.progress()));
    }
    String serial = build.boards().contains(wanted) ? wanted : Navigation.first(standings);
    wanted = serial;
    return new Snapshot(
        name,
        true,
        revisions,
        Optional.of(
            new Snapshot.Work(
                ++moments,
                build,
                plan,
                serial,
                w.state(serial),
                w.entries(serial),
                standings,
                tapeOf(w, plan))),
        sharing.now(w),
        Practice.in(w).map(p -> p.title() + ". " + p.words()));
  }

  /// Works out the beep list and reads the boards' entries while the order is worked out; whoever
  /// comes second finds them kept.
  private static void readAhead(Workshop w, Build build, Plan plan) {
    try {
      plan.beep();
      for (String serial : build.boards()) {
        w.state(serial);
      }
    } catch (BookException | RuntimeException e) {
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
}
