package ell.work.prove;

import ell.bench.instrument.Supply;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.PowerFacts;
import ell.core.prove.Expected;
import ell.core.prove.PlanCheck;
import ell.core.prove.PlanKnown;
import ell.core.prove.ProveFacts;
import ell.core.prove.TestAct;
import ell.core.prove.TestPlan;
import ell.core.prove.TestStep;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.act.Refusal;
import ell.work.act.RefusedException;
import ell.work.power.Helping;
import ell.work.power.SupplyOff;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicReference;

/// A run of a test plan over one board: step after step, each in the book before the next begins.
/// Any surprise ends with the output off. A run that was cut off goes on where it was. Methods may
/// be called from several threads; [#run] blocks.
public final class ProveRun {
  private static final int TICK_MILLIS = 50;

  private final ProveRooms rooms;
  private final Plan plan;
  private final PlanKnown known;
  private final TestPlan tests;
  private final String board;
  private final ProveBench bench;
  private final Watcher watcher;
  private final AtomicReference<String> skip = new AtomicReference<>("");
  private final Map<String, Verdict> shown = new HashMap<>();
  private final AtomicBoolean again = new AtomicBoolean();
  private volatile boolean stopped;
  private volatile boolean paused;
  private volatile StepActs acts;

  /// Is told what happens, on the thread of the run; answers what is asked.
  public interface Watcher {
    /// A step begins.
    ///
    /// @param of how many turns, counted from 1
    default void begins(TestPlan.Turn turn, int at, int of, Expected expected) {}

    /// A step is in the book.
    default void ended(Entry.ProofStep step) {}

    /// Something else is in the book.
    default void logged(Logged entry) {}

    /// Asks the person; empty when nobody answers.
    ///
    /// @param name of the step
    /// @param wants `yes`, `no`, or the unit of a number
    default Optional<String> asks(String name, String question, String wants) {
      return Optional.empty();
    }
  }

  /// What came of a run.
  ///
  /// @param run as the book has it now
  /// @param ended whether it came to its end; one that was stopped goes on when it is run again
  public record Done(ProveFacts.Run run, boolean ended) {}

  /// A run for a board; nothing is connected yet.
  ///
  /// @throws ActException when the plan cannot run on this bench, with every reason
  public ProveRun(
      ProveRooms rooms, Plan plan, TestPlan tests, String board, ProveBench bench, Watcher watcher)
      throws IOException, ActException {
    this.rooms = rooms;
    this.plan = plan;
    this.known = rooms.proofs().known(plan);
    this.tests = tests;
    this.board = board;
    this.bench = bench;
    this.watcher = watcher;
    PlanCheck check = PlanCheck.of(tests, known, Optional.of(bench.kinds()));
    if (!check.blocks().isEmpty()) {
      throw new ActException(
          "the plan " + tests.name() + " cannot run: " + String.join("; ", check.blocks()));
    }
  }

  /// Ends the run after what it is at; it can go on later.
  public void stop() {
    stopped = true;
  }

  /// Waits before the next step, or goes on. The output stays as it is, and is watched.
  public void pause(boolean on) {
    paused = on;
  }

  /// Makes the step that was made last once more, before the next one; what it showed is struck.
  ///
  /// @throws ActException when a helper is at the bench, who strikes nothing
  public void repeat() throws IOException, ActException {
    Optional<String> helper = Helping.at(rooms.acts().state(board));
    if (helper.isPresent()) {
      throw new ActException(helper.get() + " helps, and takes no entry back: call the maker");
    }
    again.set(true);
  }

  /// Whether it waits.
  public boolean paused() {
    return paused;
  }

  /// Leaves the next step out, or the one that waits for an answer.
  ///
  /// @param why in words
  /// @throws ActException when nothing is said, or a helper is at the bench
  public void skip(String why) throws IOException, ActException {
    if (why.isBlank()) {
      throw new ActException("a step is left out for a reason: say it");
    }
    Optional<String> helper = Helping.at(rooms.acts().state(board));
    if (helper.isPresent()) {
      throw new ActException(helper.get() + " helps, and leaves no step out: call the maker");
    }
    skip.set(why.strip());
  }

  /// Runs, from where the last run was cut off if it was of this plan.
  ///
  /// @param anew whether to begin from the first step all the same
  /// @throws ActException when a rule of the work refuses it; nothing was done then
  public Done run(boolean anew) throws IOException, ActException {
    String sha = rooms.proofs().keep(tests);
    BoardState state = rooms.acts().state(board);
    Optional<ProveFacts.Run> open = ProveFacts.of(state).open();
    Optional<ProveFacts.Run> goOn = open.filter(r -> !anew && r.begun().sha256().equals(sha));
    long number;
    if (goOn.isPresent()) {
      number = goOn.get().number();
      refused(goOn.get().begun());
    } else {
      if (open.isPresent()) {
        log(
            new Entry.ProofEnded(
                open.get().number(),
                open.get().worst().and(Verdict.CLOSE),
                "cut off, and begun anew",
                spent(open.get())));
      }
      number =
          log(new Entry.ProofBegun(
                  tests.name(),
                  sha,
                  tests.turns().size(),
                  tests.minutes(!bench.jig().isEmpty()),
                  bench.words()))
              .number();
      if (!bench.jig().isEmpty()) {
        log(new Entry.Jig(bench.jig(), "closed", "", 1, true, ""));
      }
    }
    Optional<ProveFacts.Run> before = goOn;
    before.ifPresent(r -> r.made().forEach(this::remember));
    double spent = before.map(ProveRun::spent).orElse(0.0);
    long began = System.nanoTime();
    boolean ended;
    String why;
    try (StepActs a =
        new StepActs(
            rooms, plan, known, board, bench, watcher, () -> stopped, () -> skip.getAndSet(""))) {
      acts = a;
      bench.lay(board);
      confirmOff();
      why = walk(number, before, a);
      ended = !stopped;
    }
    if (ended) {
      ProveFacts.Run now = current(number);
      double minutes = spent + (System.nanoTime() - began) / 60e9;
      log(
          new Entry.ProofEnded(
              number,
              why.isEmpty() ? now.worst() : now.worst().and(Verdict.CLOSE),
              why,
              Math.round(minutes * 1000) / 1000.0));
    }
    return new Done(current(number), ended);
  }

  /// A run that was killed may have left the output on: it is switched off, and the book says so,
  /// before anything else is done.
  private void confirmOff() throws IOException, ActException {
    if (PowerFacts.of(rooms.acts().state(board)).mayBeOn()
        && bench.kinds().contains(Supply.KIND.word())) {
      watcher.logged(SupplyOff.now(rooms.acts(), board, bench.bench(), plan.ladder().outputs()));
    }
  }

  private void refused(Entry.ProofBegun begun) throws IOException, ActException {
    Optional<Refusal> no = rooms.acts().refusal(board, List.of(begun));
    if (no.isPresent()) {
      throw new RefusedException(no.get());
    }
  }

  private ProveFacts.Run current(long number) throws IOException {
    return ProveFacts.of(rooms.acts().state(board)).runs().stream()
        .filter(r -> r.number() == number)
        .findFirst()
        .orElseThrow(
            () -> new IOException("the run that began with entry " + number + " was struck"));
  }

  private static double spent(ProveFacts.Run r) {
    return r.made().stream().mapToDouble(Entry.ProofStep::seconds).sum() / 60;
  }

  /// Goes through the steps that are not in the book yet.
  ///
  /// @return why it ended before its last step, empty when it did not
  private String walk(long number, Optional<ProveFacts.Run> before, StepActs a)
      throws IOException, ActException {
    List<TestPlan.Turn> turns = tests.turns();
    long last = 0;
    for (int i = 0; i < turns.size(); i++) {
      TestPlan.Turn t = turns.get(i);
      if (before.filter(r -> r.has(t.number(), t.round())).isPresent()) {
        // what prepares the board is made again, for the board was without power since
        prepare(t, a, turns, i, before.get());
        continue;
      }
      waiting();
      if (stopped) {
        return "";
      }
      if (again.getAndSet(false) && last > 0) {
        log(new Entry.Strike(last, "made again"));
        shown.clear();
        current(number).made().forEach(this::remember);
        last = 0;
        i -= 2;
        continue;
      }
      Expected expected = Expected.of(known, t.step());
      watcher.begins(t, i + 1, turns.size(), expected);
      long began = System.nanoTime();
      Optional<String> needs = missing(t.step());
      String skipped = skip.getAndSet("");
      Shown s =
          needs.isPresent()
              ? Shown.leftOut(needs.get())
              : skipped.isEmpty()
                  ? tried(t.step(), expected, a)
                  : Shown.leftOut("by hand: " + skipped);
      if (stopped && s.left()) {
        return ""; // it was asked for an answer when somebody stopped: it is made when it goes on
      }
      Entry.ProofStep step =
          new Entry.ProofStep(
              number,
              t.number(),
              t.round(),
              t.step().name(),
              s.place(),
              s.value(),
              s.unit(),
              s.limits(),
              s.uncertainty(),
              s.verdict(),
              s.words(),
              s.left(),
              Math.round((System.nanoTime() - began) / 1e6) / 1000.0);
      last = log(step).number();
      remember(step);
      watcher.ended(step);
      if (a.surprise().isPresent()) {
        return a.surprise().get();
      }
      if (a.lame().isPresent()) {
        return a.lame().get();
      }
      if (t.step().stops() && s.verdict().filter(v -> v == Verdict.OUT).isPresent()) {
        return i + 1 < turns.size() ? "ended at " + t.step().name() + ", as the plan says" : "";
      }
    }
    return "";
  }

  /// A step of before a run was cut off: power is raised again when what is still to come needs it,
  /// and set as it was.
  private void prepare(
      TestPlan.Turn t, StepActs a, List<TestPlan.Turn> turns, int at, ProveFacts.Run before)
      throws IOException, ActException {
    boolean left = false;
    for (int i = at + 1; i < turns.size(); i++) {
      TestPlan.Turn later = turns.get(i);
      if (later.step().act() instanceof TestAct.Off) {
        break;
      }
      left |= !before.has(later.number(), later.round());
    }
    boolean worked =
        before.made().stream()
            .anyMatch(s ->
                s.number() == t.number()
                    && s.verdict().filter(v -> v == Verdict.WITHIN).isPresent());
    if (left && worked) {
      switch (t.step().act()) {
        case TestAct.Power _, TestAct.Level _ -> a.make(t.step(), Expected.of(known, t.step()));
        default -> {} // it has told what it tells
      }
    }
  }

  private void waiting() {
    while (paused && !stopped && !again.get() && acts.surprise().isEmpty()) {
      try {
        Thread.sleep(TICK_MILLIS);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        stopped = true;
      }
    }
  }

  private Shown tried(TestStep step, Expected expected, StepActs a)
      throws IOException, ActException {
    Shown s = a.make(step, expected);
    int tries = 1;
    while (tries <= step.retries()
        && !stopped
        && a.surprise().isEmpty()
        && s.verdict().filter(v -> v == Verdict.OUT).isPresent()) {
      s = a.make(step, expected);
      tries++;
    }
    return tries == 1
        ? s
        : new Shown(
            s.place(),
            s.value(),
            s.unit(),
            s.limits(),
            s.uncertainty(),
            s.verdict(),
            (s.words() + " at try " + tries).strip(),
            s.left());
  }

  private Optional<String> missing(TestStep step) {
    return step.needs().stream()
        .filter(n -> shown.get(n) != Verdict.WITHIN)
        .findFirst()
        .map(n -> "it needs " + n + ", which did not hold");
  }

  /// The worst of all rounds is what other steps rest on.
  private void remember(Entry.ProofStep s) {
    Verdict v = s.left() ? Verdict.CLOSE : s.verdict().orElse(Verdict.CLOSE);
    shown.merge(s.name(), v, Verdict::and);
  }

  private Logged log(Entry entry) throws IOException, ActException {
    Logged l = rooms.acts().log(board, List.of(entry)).orThrow().getLast();
    watcher.logged(l);
    return l;
  }

  /// Whether the output is on, as far as this run knows.
  public boolean on() {
    StepActs a = acts;
    return a != null && a.on();
  }
}
