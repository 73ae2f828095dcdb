package ell.desk.power;

import ell.core.board.Folded;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.BeforePower;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.LadderState;
import ell.core.power.PowerFacts;
import ell.core.power.PowerJson;
import ell.core.power.PowerPlan;
import ell.core.power.PowerStep;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.act.Refusal;
import ell.work.power.LeftOn;
import ell.work.power.PowerRun;
import ell.work.power.SupplyOff;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// First power of the board in hand: what stands in its way, the climb as it happens, the rails.
public final class PowerModel extends StageModel {
  private static final long WATCH_MILLIS = 500;

  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final long sampleMillis;
  private final List<Sample> samples = new ArrayList<>();
  private Snapshot.Work work;
  private LadderState state;
  private Optional<PowerPlan> stages = Optional.empty();
  private final Loader<Optional<PowerPlan>> climbing;
  private final Loader<Optional<Refusal>> asking;
  private final Loader<List<LeftOn>> looking;
  private final EveryBoard everyBoard;
  private List<LeftOn> left = List.of();
  private Optional<Refusal> refusal = Optional.empty();
  private boolean asked;
  private Phase phase = Phase.OFF;
  private volatile String running = "";
  private String said = "";
  private volatile PowerRun run;

  /// Where a run is.
  public enum Phase {
    /// The output is off.
    OFF,
    /// Going up stage by stage.
    CLIMBING,
    /// On, as predicted; rails are read.
    ON
  }

  /// One look at the supply.
  public record Sample(double seconds, double volts, double amps, PowerStep stage) {}

  /// What is drawn.
  ///
  /// @param refusal what stands in the way of power, empty when nothing does
  /// @param asked whether the rules were asked since the board changed last
  /// @param next the rail to read next, when there is one
  /// @param said how the last run of this board ended, empty when there was none
  public record Shown(
      Snapshot.Work work,
      LadderState state,
      Optional<PowerPlan> stages,
      Phase phase,
      Optional<Refusal> refusal,
      boolean asked,
      Optional<RailSpec> next,
      List<Sample> samples,
      String said) {}

  /// A model for a desk.
  ///
  /// @param sampleMillis pause between two looks at the supply
  public PowerModel(DeskModel desk, long sampleMillis) {
    this.desk = desk;
    this.sampleMillis = sampleMillis;
    this.climbing =
        loader(
            desk,
            desk.runner().aside(),
            "the stages of first power",
            found -> {
              stages = found;
              fill();
            });
    this.asking =
        loader(
            desk,
            desk.runner().worker(),
            "what stands in the way of power",
            found -> {
              refusal = found;
              asked = true;
              fill();
            });
    this.looking =
        loader(
            desk,
            desk.runner().worker(),
            "whether an output may be on",
            found -> {
              left = found;
              fill();
            });
    this.everyBoard =
        new EveryBoard(desk, shows -> loader(desk, desk.runner().worker(), EveryBoard.WHAT, shows));
    whenShown(desk, ell.core.rack.Stage.POWER, this::load);
  }

  /// The rails of every board.
  public EveryBoard everyBoard() {
    return everyBoard;
  }

  /// What is drawn; null until a board is in hand.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work w) {
    if (work == null || !work.board().equals(w.board())) {
      if (phase != Phase.OFF) {
        off("another board was taken in hand");
      }
      samples.clear();
      said = "";
    }
    work = w;
    state = LadderState.of(w.plan().ladder(), "boot");
    asked = false;
    fill();
    looking.load(w, desk.reading(ws -> LeftOn.of(ws.space())));
    asking.load(w, desk.reading(ws -> PowerRun.refusal(ws.acts(), w.board())));
    if (desk.navigation().at(ell.core.rack.Stage.POWER)) {
      load();
    }
    everyBoard.show(w);
  }

  /// The stages of first power take a while on a large board: they are worked out aside, once for a
  /// plan, when somebody looks.
  private void load() {
    if (work == null) {
      return;
    }
    Snapshot.Work w = work;
    if (climbing.load(
        w.plan(), _ -> PowerPlan.of(w.plan().revision(), w.plan().ladder(), "boot"))) {
      stages = Optional.empty();
    }
  }

  private Optional<RailSpec> next() {
    PowerRun r0 = run;
    List<RailSpec> rails = r0 == null ? work.plan().ladder().raised() : r0.rails();
    return rails.stream().filter(r -> PowerFacts.of(work.state()).verdict(r).isEmpty()).findFirst();
  }

  private void fill() {
    if (work == null) {
      return;
    }
    boolean here = running.equals(work.board());
    shown.set(
        new Shown(
            work,
            state,
            stages,
            here ? phase : Phase.OFF,
            refusal,
            asked,
            next(),
            List.copyOf(samples),
            said));
    alarm(
        left.stream()
            .filter(l -> !l.board().equals(running))
            .map(l -> l.headline() + "\n" + l.detail())
            .findFirst()
            .orElse(""));
    margin(PowerMargin.say(shown.get()));
  }

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    if (s == null) {
      return "";
    }
    return switch (s.phase()) {
      case OFF ->
          s.refusal().isPresent() || !s.asked() || s.stages().isEmpty() || unsaid(s).isPresent()
              ? ""
              : "switch on, stage by stage";
      case CLIMBING -> "";
      case ON -> s.next().map(r -> "read " + r.net()).orElse("switch off");
    };
  }

  @Override
  public void primary() {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    switch (s.phase()) {
      case OFF -> start();
      case CLIMBING -> {}
      case ON -> {
        if (s.next().isPresent()) {
          readRail(s.next().get());
        } else {
          off("every rail is read");
        }
      }
    }
  }

  /// Whether something must be so before first power that the book does not have.
  boolean asksBefore() {
    return work != null
        && phase == Phase.OFF
        && !BeforePower.over(work.plan().ladder(), work.state())
        && before().stream().anyMatch(i -> i.state() != BeforePower.State.SO);
  }

  private List<BeforePower.Item> before() {
    return BeforePower.of(work.plan().revision(), work.plan().ladder(), work.state());
  }

  /// Logs that all of it is so.
  void allSo() {
    if (!asksBefore()) {
      return;
    }
    String serial = work.board();
    desk.act(w -> w.type(serial, "so").orThrow());
  }

  private void start() {
    if (phase != Phase.OFF) {
      return;
    }
    String serial = work.board();
    samples.clear();
    said = "";
    phase = Phase.CLIMBING;
    running = serial;
    fill();
    desk.act(w -> {
      PowerRun r;
      try {
        r =
            new PowerRun(
                w.acts(),
                w.plan(w.buildOf(serial)),
                serial,
                desk.bench().open(w),
                new Watch(serial),
                sampleMillis);
      } catch (ActException | IOException e) {
        desk.runner().ui().execute(() -> over(e.getMessage()));
        throw e;
      }
      run = r;
      desk.runner().aside().execute(() -> drive(r));
    });
  }

  private void drive(PowerRun r) {
    try {
      if (r.climb()) {
        desk.runner()
            .ui()
            .execute(() -> {
              phase = Phase.ON;
              fill();
            });
        while (r.watch()) {
          Thread.sleep(WATCH_MILLIS);
        }
      }
    } catch (IOException e) {
      desk.say(e.getMessage());
    } catch (InterruptedException e) {
      r.close();
      Thread.currentThread().interrupt();
    }
  }

  private final class Watch implements PowerRun.Watcher {
    private final String serial;

    Watch(String serial) {
      this.serial = serial;
    }

    @Override
    public void sample(double seconds, double volts, double amps, PowerStep stage) {
      desk.runner()
          .ui()
          .execute(() -> {
            samples.add(new Sample(seconds, volts, amps, stage));
            if (samples.size() > 4000) {
              samples.subList(0, 2000).clear();
            }
            fill();
          });
    }

    @Override
    public void logged(Logged entry) {
      desk.act(_ -> {});
    }

    @Override
    public void ended(String why, boolean surprise, boolean mayBeOn) {
      desk.say("board " + serial + (mayBeOn ? ": " : ": output off · ") + why);
      desk.runner().ui().execute(() -> over(why));
    }
  }

  private void over(String why) {
    String over = running;
    phase = Phase.OFF;
    running = "";
    said = why;
    run = null;
    // what the run had switched on is looked up anew; until then it raises no alarm
    left = left.stream().filter(l -> !l.board().equals(over)).toList();
    fill();
  }

  private void readRail(RailSpec rail) {
    PowerRun r = run;
    if (r != null) {
      desk.runner()
          .aside()
          .execute(() -> {
            try {
              if (r.read(rail).isEmpty() && r.on()) {
                desk.say(
                    "no meter on this bench: type the reading, such as " + rail.net() + " 3.3");
              }
            } catch (IOException e) {
              desk.say(e.getMessage());
            }
          });
    }
  }

  /// Switches off.
  public void off(String why) {
    PowerRun r = run;
    if (r != null) {
      r.stop();
      desk.runner()
          .aside()
          .execute(() -> {
            try {
              r.off(why);
            } catch (IOException e) {
              desk.say(e.getMessage());
            }
          });
    } else if (!alarmProperty().get().isEmpty()) {
      answerAlarm();
    }
  }

  /// Switches off for every board whose output may be on, and says what came of it.
  @Override
  public void answerAlarm() {
    List<LeftOn> all = left;
    desk.act(w -> {
      for (LeftOn l : all) {
        if (!l.board().equals(running)) {
          Logged off =
              SupplyOff.now(
                  w.acts(),
                  l.board(),
                  desk.bench().open(w),
                  w.plan(w.buildOf(l.board())).ladder().outputs());
          desk.say("board " + l.board() + ": " + EntryWords.of(off.entry()));
        }
      }
    });
  }

  /// Whether the output is on, or being switched on.
  public boolean live() {
    Shown s = shown.get();
    return s != null && s.phase() != Phase.OFF;
  }

  /// Switches off at once, on this thread; for when the window closes.
  public void close() {
    PowerRun r = run;
    if (r != null) {
      r.stop();
      r.close();
    }
  }

  /// The ladder as JSON, for editing.
  public String ladderJson() {
    return work == null ? "" : PowerJson.write(work.plan().ladder());
  }

  /// Keeps an edited ladder, or says what is wrong with it.
  public void keepLadder(String json, java.util.function.Consumer<String> wrong) {
    desk.act(w -> {
      try {
        int again = w.keepLadder(work.build().design(), work.build().revision(), json).size();
        desk.bench().renew();
        desk.say("the ladder of " + work.plan().revision().title() + " is kept" + held(again));
        desk.runner().ui().execute(() -> wrong.accept(""));
      } catch (ActException e) {
        desk.runner().ui().execute(() -> wrong.accept(e.getMessage()));
      }
    });
  }

  /// Keeps one answer on the ladder, such as `rail BAT+=3.0..4.25`.
  ///
  /// @param wrong takes what is wrong with it, or nothing when it is kept; on the interface thread
  public void say(String answer, java.util.function.Consumer<String> wrong) {
    desk.act(w -> {
      try {
        int again = w.say(work.build().design(), work.build().revision(), List.of(answer)).size();
        desk.bench().renew();
        desk.say("kept: " + answer + held(again));
        desk.runner().ui().execute(() -> wrong.accept(""));
      } catch (ActException e) {
        desk.runner().ui().execute(() -> wrong.accept(e.getMessage()));
      }
    });
  }

  private static String held(int again) {
    return again == 0 ? "" : "; " + again + " readings are judged anew";
  }

  /// What the ladder takes for granted, a sentence each.
  public List<String> assumptions() {
    return work == null ? List.of() : Folded.assumptions(work.plan().ladder().assumptions());
  }

  @Override
  public String readingLine() {
    return work == null
        ? ""
        : next()
            .or(() ->
                work.plan().ladder().supplied().stream()
                    .filter(r -> PowerFacts.of(work.state()).verdict(r).isEmpty())
                    .findFirst())
            .or(() -> work.plan().ladder().supplied().stream().findFirst())
            .map(r -> r.net() + " ")
            .orElse("");
  }

  @Override
  public String faultLine() {
    return readingLine();
  }

  /// A rail with its latest reading, for the drawing.
  public static Optional<Entry.Reading> reading(Shown s, RailSpec r) {
    return PowerFacts.of(s.work().state()).reading(r);
  }

  /// The rail by which power comes in, when nothing says how many volts it takes.
  static Optional<String> unsaid(Shown s) {
    return PowerPlan.unsaid(s.work().plan().ladder()).isEmpty()
        ? Optional.empty()
        : Optional.of(s.work().plan().ladder().sources().getFirst().rail());
  }

  /// The limits of a rail.
  public static Limits limits(RailSpec r) {
    return new Limits(r.low(), r.high());
  }

  /// Whether any rail is out.
  static boolean anyOut(Shown s) {
    return s.work().plan().ladder().supplied().stream()
        .anyMatch(r ->
            PowerFacts.of(s.work().state()).verdict(r).filter(v -> v == Verdict.OUT).isPresent());
  }
}
