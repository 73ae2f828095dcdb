package ell.desk.prove;

import ell.core.prove.BuildProof;
import ell.core.prove.PlanCheck;
import ell.core.prove.PlanText;
import ell.core.prove.ProveFacts;
import ell.core.prove.TestPlan;
import ell.core.prove.UseGate;
import ell.core.prove.UseRules;
import ell.core.rack.Stage;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.power.Helping;
import ell.work.prove.ProofTold;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// The proof of the board in hand: its plan, the run as it goes, what may be missing before it is
/// used; or what the proofs of the whole build say.
public final class ProveModel extends StageModel {
  private final DeskModel desk;
  private final RunningProof running;
  private final Loader<OfBoard> planning;
  private final Loader<BuildProof> comparing;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private Snapshot.Work work;
  private Optional<OfBoard> board = Optional.empty();
  private Optional<BuildProof> build = Optional.empty();
  private boolean every;
  private int test;

  /// What is worked out for a board.
  ///
  /// @param check what is wrong with the plan, and what it will not settle
  /// @param text of the plan as it was written, or as it would be
  record OfBoard(
      String serial, TestPlan plan, String text, PlanCheck check, UseGate gate, UseRules rules) {}

  /// What is drawn.
  ///
  /// @param plan of the run that is under way, else of the revision; empty until it is worked out
  /// @param gate what is missing before the board is used
  /// @param facts what the book says of its proofs
  /// @param now the step that is made
  /// @param question what the person is asked
  /// @param runs whether this board's plan is run now
  /// @param told what is said of the board, one word that reads across the room
  /// @param helper whether a helper is at the bench
  /// @param every whether the build is shown
  /// @param build what its proofs say, once they were worked out
  /// @param test which row of the build is turned to
  /// @param said why nothing could be begun, or why the run ended
  public record Shown(
      Snapshot.Work work,
      Optional<TestPlan> plan,
      List<String> blocks,
      List<String> mind,
      Optional<UseGate> gate,
      UseRules rules,
      ProveFacts facts,
      Optional<RunningProof.Now> now,
      Optional<RunningProof.Question> question,
      boolean runs,
      boolean paused,
      boolean on,
      Optional<ProofTold> told,
      boolean helper,
      boolean every,
      Optional<BuildProof> build,
      int test,
      String said) {
    /// The tests of the build that were made on some board.
    List<BuildProof.OfTest> rows() {
      return build.map(BuildProof::tests).orElse(List.of());
    }

    /// Number of the build.
    long buildId() {
      return work.build().id();
    }

    /// The row that is turned to.
    Optional<BuildProof.OfTest> row() {
      return rows().isEmpty() ? Optional.empty() : Optional.of(rows().get(test));
    }
  }

  /// A model for a desk.
  public ProveModel(DeskModel desk) {
    this.desk = desk;
    this.running = new RunningProof(desk, this::fill);
    this.planning =
        loader(
            desk,
            desk.runner().worker(),
            "the test plan",
            found -> {
              board = Optional.of(found);
              fill();
            });
    this.comparing =
        loader(
            desk,
            desk.runner().worker(),
            "what the proofs of the build say",
            found -> {
              build = Optional.of(found);
              test = Math.clamp(test, 0, Math.max(0, found.tests().size() - 1));
              fill();
            });
    whenShown(desk, Stage.PROVE, this::load);
  }

  /// What is drawn; null until a board is in hand.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work w) {
    if (work == null || !work.board().equals(w.board())) {
      if (running.runs() && !running.board().equals(w.board())) {
        running.stop();
      }
      running.forget();
      board = Optional.empty();
    }
    if (work != null && work.build().id() != w.build().id()) {
      build = Optional.empty();
      test = 0;
    }
    work = w;
    fill();
    load();
  }

  private void load() {
    if (work == null || !desk.navigation().at(Stage.PROVE)) {
      return;
    }
    Snapshot.Work w = work;
    planning.load(
        List.of(w.board(), w.log().size(), System.identityHashCode(w.plan())),
        desk.reading(x -> {
          TestPlan plan = x.proofs().of(w.plan(), Optional.empty());
          return new OfBoard(
              w.board(),
              plan,
              x.proofs().written(w.plan()).orElse(PlanText.of(plan)),
              PlanCheck.of(plan, x.proofs().known(w.plan()), Optional.empty()),
              x.proofs().gate(w.plan(), w.state()),
              x.proofs().rules(w.plan().revision().design(), w.plan().revision().name()));
        }));
    if (every) {
      comparing.load(
          List.of(w.build().id(), w.moment(), System.identityHashCode(w.plan())),
          desk.reading(x -> x.proofs().build(w.plan(), w.build())));
    }
  }

  private void fill() {
    if (work == null) {
      return;
    }
    boolean here = running.board().equals(work.board());
    Optional<OfBoard> b = board.filter(x -> x.serial().equals(work.board()));
    shown.set(
        new Shown(
            work,
            here && running.plan().isPresent() ? running.plan() : b.map(OfBoard::plan),
            b.map(x -> x.check().blocks()).orElse(List.of()),
            b.map(x -> x.check().mind()).orElse(List.of()),
            b.map(OfBoard::gate),
            b.map(OfBoard::rules).orElse(UseRules.USUAL),
            ProveFacts.of(work.state()),
            here ? running.now() : Optional.empty(),
            here ? running.question() : Optional.empty(),
            here,
            here && running.paused(),
            here && running.on(),
            here ? Optional.empty() : ProofTold.of(work.state()),
            Helping.at(work.state()).isPresent(),
            every,
            build,
            test,
            running.said()));
    margin(ProveMargin.say(shown.get()));
  }

  /// From the board to the build, and back.
  public void turn() {
    every = !every;
    fill();
    load();
  }

  @Override
  public void move(int by) {
    if (every && build.isPresent()) {
      test = Math.clamp(test + by, 0, Math.max(0, build.get().tests().size() - 1));
      fill();
    }
  }

  /// Turns to a row of the build.
  void row(int at) {
    test = at;
    move(0);
  }

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    if (s == null || s.every()) {
      return "";
    }
    if (s.question().isPresent()) {
      return s.question().get().yesOrNo() ? "yes" : "";
    }
    if (s.runs()) {
      return s.paused() ? "go on" : "";
    }
    if (s.plan().isEmpty() || !s.blocks().isEmpty()) {
      return "";
    }
    return s.facts().open().isPresent() ? "go on with the proof" : "prove this board";
  }

  @Override
  public void primary() {
    Shown s = shown.get();
    if (s == null || s.every()) {
      return;
    }
    if (s.question().isPresent()) {
      if (s.question().get().yesOrNo()) {
        running.answer("yes");
      }
    } else if (s.runs()) {
      if (s.paused()) {
        running.pause();
      }
    } else if (!primaryWords().isEmpty()) {
      running.begin(work.board());
    }
  }

  /// Whether yes or no is asked.
  boolean asked() {
    Shown s = shown.get();
    return s != null && s.question().filter(RunningProof.Question::yesOrNo).isPresent();
  }

  /// Answers no.
  void no() {
    if (asked()) {
      running.answer("no");
    }
  }

  /// Answers with a number.
  void number(String words) {
    running.answer(words);
  }

  /// Waits, or goes on.
  void pause() {
    running.pause();
  }

  /// Leaves the step in hand out.
  ///
  /// @param wrong takes why it may not be, or nothing
  void skip(String why, Consumer<String> wrong) {
    desk.ask(_ -> {
      try {
        running.skip(why);
        desk.runner().ui().execute(() -> wrong.accept(""));
      } catch (ActException | IOException e) {
        desk.runner().ui().execute(() -> wrong.accept(e.getMessage()));
      }
    });
  }

  /// Makes the last step once more, before the next one.
  void repeat() {
    desk.ask(_ -> running.repeat());
  }

  /// Stops, with the output off.
  void stop() {
    running.stop();
  }

  /// Whether a run is under way on the board in hand.
  boolean live() {
    Shown s = shown.get();
    return s != null && s.runs();
  }

  /// Says what a board must have before it is used.
  void say(String line, Consumer<String> wrong) {
    Snapshot.Work w = work;
    desk.act(x -> {
      try {
        x.proofs()
            .say(
                w.plan().revision().design(),
                w.plan().revision().name(),
                List.of(line.split("\\s+")));
        desk.say("kept: " + line);
        desk.runner().ui().execute(() -> wrong.accept(""));
      } catch (ActException e) {
        desk.runner().ui().execute(() -> wrong.accept(e.getMessage()));
      }
    });
  }

  /// The text of the plan, with the remarks of whoever wrote it; empty until it is known.
  Optional<String> planText() {
    return board.map(OfBoard::text);
  }

  /// Keeps the whole plan as it was edited.
  void keepPlan(String text, Consumer<String> wrong) {
    Snapshot.Work w = work;
    desk.act(x -> {
      try {
        x.proofs().keep(w.plan(), text);
        desk.say("the plan of " + w.plan().revision().title() + " is kept");
        desk.runner().ui().execute(() -> wrong.accept(""));
      } catch (ActException e) {
        desk.runner().ui().execute(() -> wrong.accept(e.getMessage()));
      }
    });
  }

  void close() throws InterruptedException {
    running.close();
  }

  @Override
  public boolean canBeBig() {
    return shown.get() != null && !shown.get().every();
  }

  @Override
  public String faultLine() {
    return "";
  }

  /// Begins the line that lets the board leave the bench.
  void release() {
    desk.tape().begin("released ");
  }
}
