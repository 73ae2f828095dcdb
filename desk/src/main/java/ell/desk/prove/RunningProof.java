package ell.desk.prove;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.prove.Expected;
import ell.core.prove.TestPlan;
import ell.core.rack.Plan;
import ell.desk.shell.DeskModel;
import ell.work.prove.ProveBench;
import ell.work.prove.ProveRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;

/// The run of a test plan that is under way, and what it asks. Everything but the run itself
/// happens on the interface thread.
public final class RunningProof {
  private final DeskModel desk;
  private final Runnable changed;
  private final List<Entry.ProofStep> made = new ArrayList<>();
  private String board = "";
  private Optional<TestPlan> plan = Optional.empty();
  private Optional<Now> now = Optional.empty();
  private Optional<Question> question = Optional.empty();
  private String said = "";
  private volatile ProveRun run;
  private volatile boolean closing;

  /// The step that is made.
  ///
  /// @param at counted from 1
  public record Now(TestPlan.Turn turn, int at, int of, Expected expected) {}

  /// What the person is asked.
  ///
  /// @param wants `yes`, `no` or the unit of a number
  public record Question(
      String name, String words, String wants, CompletableFuture<Optional<String>> answer) {
    /// Whether it is answered with yes or no.
    public boolean yesOrNo() {
      return wants.equals("yes") || wants.equals("no");
    }
  }

  /// @param changed is told whenever something else is to be shown
  RunningProof(DeskModel desk, Runnable changed) {
    this.desk = desk;
    this.changed = changed;
  }

  /// The board that it runs on, empty when none does.
  String board() {
    return board;
  }

  /// Its plan, while it runs.
  Optional<TestPlan> plan() {
    return plan;
  }

  Optional<Now> now() {
    return now;
  }

  Optional<Question> question() {
    return question;
  }

  /// Why nothing could be begun, or why it ended; empty while it runs.
  String said() {
    return said;
  }

  /// Steps that were made since it began, or went on.
  List<Entry.ProofStep> made() {
    return List.copyOf(made);
  }

  boolean runs() {
    return !board.isEmpty();
  }

  boolean paused() {
    ProveRun r = run;
    return r != null && r.paused();
  }

  /// Whether the output is on.
  boolean on() {
    ProveRun r = run;
    return r != null && r.on();
  }

  /// Another board is in hand.
  void forget() {
    if (!runs()) {
      said = "";
      made.clear();
      plan = Optional.empty();
    }
  }

  /// Begins, or goes on where it was cut off.
  void begin(String serial) {
    if (runs()) {
      return;
    }
    board = serial;
    said = "";
    made.clear();
    plan = Optional.empty();
    now = Optional.empty();
    changed.run();
    desk.act(w -> {
      try {
        Plan p = w.plan(w.buildOf(serial));
        ProveBench bench = new ProveBench(desk.bench().open(w), Optional.empty(), "");
        TestPlan t = w.proofs().of(p, Optional.of(bench.kinds()));
        ProveRun r = new ProveRun(w.proving(), p, t, serial, bench, new Watch());
        run = r;
        desk.runner()
            .ui()
            .execute(() -> {
              plan = Optional.of(t);
              changed.run();
            });
        desk.runner().aside().execute(() -> drive(r));
      } catch (ActException | IOException e) {
        desk.runner().ui().execute(() -> over(e.getMessage()));
      }
    });
  }

  private void drive(ProveRun r) {
    String end = "";
    try {
      if (closing) {
        return;
      }
      ProveRun.Done d = r.run(false);
      end = d.ended() ? "" : "stopped; Space goes on where it was";
    } catch (ActException | IOException | RuntimeException e) {
      end = e.getMessage() == null ? e.toString() : e.getMessage();
    } finally {
      String why = end;
      desk.runner().ui().execute(() -> over(why));
      desk.act(_ -> {});
    }
  }

  private void over(String why) {
    board = "";
    now = Optional.empty();
    question = Optional.empty();
    run = null;
    said = why;
    if (!why.isEmpty()) {
      desk.say(why);
    }
    changed.run();
  }

  private final class Watch implements ProveRun.Watcher {
    @Override
    public void begins(TestPlan.Turn turn, int at, int of, Expected expected) {
      ui(() -> now = Optional.of(new Now(turn, at, of, expected)));
    }

    @Override
    public void ended(Entry.ProofStep step) {
      ui(() -> made.add(step));
    }

    @Override
    public void logged(Logged entry) {
      if (!(entry.entry() instanceof Entry.Supply)) {
        desk.act(_ -> {}); // a climb logs faster than anybody reads
      }
    }

    @Override
    public Optional<String> asks(String name, String words, String wants) {
      CompletableFuture<Optional<String>> answer = new CompletableFuture<>();
      ui(() -> question = Optional.of(new Question(name, words, wants, answer)));
      try {
        return answer.get();
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        return Optional.empty();
      } catch (ExecutionException e) {
        return Optional.empty();
      } finally {
        ui(() -> question = Optional.empty());
      }
    }
  }

  private void ui(Runnable what) {
    desk.runner()
        .ui()
        .execute(() -> {
          what.run();
          changed.run();
        });
  }

  /// Answers what is asked.
  void answer(String words) {
    question.ifPresent(q -> q.answer().complete(Optional.of(words)));
  }

  /// Leaves the step in hand out, for a reason.
  void skip(String why) throws IOException, ActException {
    ProveRun r = run;
    if (r != null) {
      r.skip(why);
      question.ifPresent(q -> q.answer().complete(Optional.empty()));
    }
  }

  /// Makes the last step once more.
  void repeat() throws IOException, ActException {
    ProveRun r = run;
    if (r != null) {
      r.repeat();
      desk.say("the last step is made again before the next one");
    }
  }

  /// Waits before the next step, or goes on.
  void pause() {
    ProveRun r = run;
    if (r != null) {
      r.pause(!r.paused());
      changed.run();
    }
  }

  /// Stops: the output goes off, and it can go on later.
  void stop() {
    ProveRun r = run;
    if (r != null) {
      r.stop();
      question.ifPresent(q -> q.answer().complete(Optional.empty()));
    }
  }

  /// The window closes: returns once the output is off.
  void close() throws InterruptedException {
    closing = true;
    ProveRun r = run;
    if (r != null) {
      stop();
      for (int i = 0; i < 200 && r.on(); i++) {
        Thread.sleep(25);
      }
    }
  }
}
