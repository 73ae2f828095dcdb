package ell.work.prove;

import ell.bench.link.BenchException;
import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.jig.Patterns;
import ell.core.power.Ladder;
import ell.core.prove.Expected;
import ell.core.prove.PlanKnown;
import ell.core.prove.TestAct;
import ell.core.prove.TestStep;
import ell.core.quantity.Accuracy;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.act.Refusal;
import ell.work.beep.BeepRun;
import ell.work.power.PowerRun;
import ell.work.pulse.ScopeRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;

/// Makes the steps of a test plan with what each of them takes: meter, supply, scope, line, person.
/// Holds what stays open between them, and lets go of it with the output off.
final class StepActs implements AutoCloseable {
  private static final int TICK_MILLIS = 40;
  private static final int WATCH_MILLIS = 200;

  /// So much longer a line is looked at where a few periods settle nothing.
  private static final double MOST_LONGER = 50;

  private static final int USUAL_POINTS = 10_000;

  /// Outputs have come to rest after so long, s; typical, no source.
  private static final double SETTLES = 0.05;

  private final ProveRooms rooms;
  private final Plan plan;
  private final PlanKnown known;
  private final String board;
  private final ProveBench bench;
  private final ProveRun.Watcher watcher;
  private final BooleanSupplier stopped;
  private final PersonActs person;
  private final LineActs line;
  private Optional<PowerRun> power = Optional.empty();
  private Optional<ScopeRun> scope = Optional.empty();
  private volatile Optional<String> surprise = Optional.empty();
  private volatile Optional<String> lame = Optional.empty();
  private volatile boolean closing;

  StepActs(
      ProveRooms rooms,
      Plan plan,
      PlanKnown known,
      String board,
      ProveBench bench,
      ProveRun.Watcher watcher,
      BooleanSupplier stopped,
      Supplier<String> skipped) {
    this.rooms = rooms;
    this.plan = plan;
    this.known = known;
    this.board = board;
    this.bench = bench;
    this.watcher = watcher;
    this.stopped = stopped;
    this.person = new PersonActs(rooms, known, board, watcher, skipped);
    this.line =
        new LineActs(
            rooms,
            plan,
            known,
            board,
            bench,
            watcher,
            person,
            () -> stopped.getAsBoolean() || surprise.isPresent());
  }

  /// Why the board was switched off by itself, empty when it was not.
  Optional<String> surprise() {
    return surprise;
  }

  /// Which instrument gave up, which says nothing about the board; empty when none did.
  Optional<String> lame() {
    return lame;
  }

  /// Whether the output is on.
  boolean on() {
    return power.filter(PowerRun::on).isPresent();
  }

  /// Makes a step.
  Shown make(TestStep step, Expected expected) throws IOException, ActException {
    try {
      if (step.act().powered() && !on()) {
        return Shown.leftOut("the board has no power");
      }
      return switch (step.act()) {
        case TestAct.Ohms o -> ohms(o, step, expected);
        case TestAct.Power _ -> powerUp();
        case TestAct.Off _ -> {
          off("the plan says so");
          yield Shown.seen("", Verdict.WITHIN, "off");
        }
        case TestAct.Level l -> level(l);
        case TestAct.Volts v -> volts(v, step, expected);
        case TestAct.Amps a -> amps(a, step, expected);
        case TestAct.Wave w -> wave(w, step, expected);
        case TestAct.Feel f -> feel(f, step, expected);
        case TestAct.Talk t -> {
          closeLines();
          yield line.talk(t);
        }
        case TestAct.Say s -> {
          Shown said = line.say(s);
          yield gone().orElse(said);
        }
        case TestAct.Ask a -> person.ask(a, step, expected);
        case TestAct.Pause p -> pause(p);
        case TestAct.Stand s -> person.stand(s, step);
        case TestAct.Vectors v -> vectors(v, step);
      };
    } catch (BenchException e) {
      lame = Optional.of("an instrument gave up: " + e.getMessage());
      return Shown.leftOut(lame.get());
    }
  }

  private Shown ohms(TestAct.Ohms o, TestStep step, Expected expected)
      throws IOException, ActException {
    BeepCheck c =
        plan.beep().checks().stream()
            .filter(x ->
                x.a().place().equals(known.tip(o.a())) && x.b().place().equals(known.tip(o.b())))
            .findFirst()
            .or(() ->
                BeepList.between(
                    known.revision(), known.ladder(), known.tip(o.a()), known.tip(o.b())))
            .orElseThrow(() ->
                new ActException("between " + o.a() + " and " + o.b() + " nothing is to be read"));
    Logged l;
    try (BeepRun run = new BeepRun(rooms.acts(), board, bench.bench())) {
      l = run.check(c);
    }
    watcher.logged(l);
    Entry.Check is = (Entry.Check) l.entry();
    double u =
        Double.isInfinite(is.ohms()) ? 0 : Accuracy.handheldOhms(is.ohms()).uncertainty(is.ohms());
    // nothing lies below 0 ohm: that end needs no guard band
    Optional<Limits> limits = expected.limits().map(x -> x.low() > 0 ? x : Limits.atMost(x.high()));
    return Shown.number(
        is.netA() + " to " + is.netB(),
        is.ohms(),
        Unit.OHM,
        limits,
        u,
        step.guard(),
        expected.why());
  }

  private Shown powerUp() throws IOException, ActException {
    if (on()) {
      return Shown.seen("", Verdict.WITHIN, "it has power already");
    }
    Optional<Refusal> no = PowerRun.refusal(rooms.acts(), board);
    if (no.isPresent()) {
      return Shown.leftOut("refused: " + no.get().why() + "; " + no.get().how());
    }
    String[] ended = {""};
    Entry.Supply[] last = {null};
    PowerRun run =
        new PowerRun(
            rooms.acts(),
            plan,
            board,
            bench.bench(),
            new PowerRun.Watcher() {
              @Override
              public void logged(Logged l) {
                if (l.entry() instanceof Entry.Supply s) {
                  last[0] = s;
                }
                watcher.logged(l);
              }

              @Override
              public void ended(String why, boolean unexpected, boolean mayBeOn) {
                ended[0] = why;
                if (!closing && unexpected) {
                  surprise = Optional.of(why);
                }
              }
            },
            bench.sampleMillis());
    boolean up = false;
    try {
      up = run.climb();
    } finally {
      if (!up) {
        run.close();
      }
    }
    if (!up) {
      boolean judged = last[0] != null && last[0].band().isPresent();
      if (!judged) {
        // it was an instrument, and not the board
        lame = Optional.of("the board was not powered: " + ended[0]);
        return Shown.leftOut(lame.get());
      }
      return Shown.seen("supply", Verdict.OUT, ended[0]);
    }
    power = Optional.of(run);
    Thread.ofVirtual().name("proof power").start(() -> watch(run));
    boolean asked = last[0] != null && last[0].band().isPresent() && last[0].verdict().isEmpty();
    boolean bad = last[0] != null && last[0].verdict().filter(v -> v == Verdict.OUT).isPresent();
    List<String> left = run.left();
    String words =
        bad
            ? last[0].why()
            : asked
                ? "up; what it draws is not judged, for loads are guessed"
                : left.isEmpty() ? "up, as predicted" : "up; " + String.join("; ", left);
    return Shown.seen("supply", bad ? Verdict.OUT : Verdict.WITHIN, words);
  }

  private void watch(PowerRun run) {
    try {
      while (!closing && run.watch()) {
        Thread.sleep(WATCH_MILLIS);
      }
    } catch (IOException e) {
      surprise = Optional.of("the book could not be written: " + e.getMessage());
    } catch (InterruptedException e) {
      // the run has ended
    }
  }

  private void off(String why) throws IOException, ActException {
    closeLines();
    if (power.isPresent()) {
      closing = true;
      try (PowerRun p = power.get()) {
        p.off(why);
      }
      power = Optional.empty();
      closing = false;
    }
  }

  private void closeLines() throws IOException, ActException {
    scope.ifPresent(ScopeRun::close);
    scope = Optional.empty();
    line.close();
  }

  private Shown level(TestAct.Level l) throws IOException, ActException {
    boolean held = power.orElseThrow().level(l.rail(), l.volts());
    return held
        ? Shown.seen("", Verdict.WITHIN, EngineeringNumber.print(l.volts(), Unit.VOLT, 4))
        : Shown.seen("supply", Verdict.OUT, surprise.orElse("it did not stay up"));
  }

  private Optional<Shown> gone() {
    return on()
        ? Optional.empty()
        : Optional.of(Shown.seen("supply", Verdict.OUT, surprise.orElse("the output went off")));
  }

  private Shown volts(TestAct.Volts v, TestStep step, Expected expected) throws IOException {
    Optional<Ladder.RailSpec> rail = known.ladder().rail(v.place());
    String tip = rail.map(Ladder.RailSpec::readAt).filter(t -> !t.isEmpty()).orElse(v.place());
    Optional<Logged> l = power.orElseThrow().volts(v.place(), tip);
    if (l.isEmpty()) {
      return gone().orElse(Shown.leftOut("there is no meter"));
    }
    Entry.Reading r = (Entry.Reading) l.get().entry();
    return Shown.number(
        r.place(),
        r.value(),
        Unit.VOLT,
        expected.limits(),
        r.uncertainty().orElse(0.0),
        step.guard(),
        expected.why());
  }

  private Shown amps(TestAct.Amps a, TestStep step, Expected expected) throws IOException {
    Optional<Logged> l = power.orElseThrow().amps(a.rail());
    if (l.isEmpty()) {
      return gone().orElse(Shown.leftOut(a.rail() + " is not raised by this supply"));
    }
    Entry.Reading r = (Entry.Reading) l.get().entry();
    double u = Accuracy.supplyAmps().uncertainty(r.value());
    return Shown.number(
        a.rail() + " current",
        r.value(),
        Unit.AMPERE,
        expected.limits(),
        u,
        step.guard(),
        expected.why());
  }

  private Shown wave(TestAct.Wave w, TestStep step, Expected expected)
      throws IOException, ActException {
    if (scope.isEmpty()) {
      scope = Optional.of(new ScopeRun(rooms.captures(), plan.pulse(), board, bench.bench()));
    }
    Logged l = scope.get().keep(w.place(), ScopeRun.Look.FOUND);
    watcher.logged(l);
    Optional<ScopeRun.Look> longer = longer((Entry.Capture) l.entry(), w, step, expected);
    if (longer.isPresent()) {
      l = scope.get().keep(w.place(), longer.get());
      watcher.logged(l);
    }
    Entry.Capture c = (Entry.Capture) l.entry();
    if (w.measure().isEmpty()) {
      return c.verdict().isPresent()
          ? Shown.seen(w.place() + " signal", c.verdict().get(), c.says())
          : new Shown(
              w.place() + " signal",
              Optional.empty(),
              Unit.ONE,
              Optional.empty(),
              Optional.empty(),
              Optional.empty(),
              "not judged: nothing is said of " + w.place() + "; it shows " + c.says(),
              false);
    }
    Optional<Entry.Capture.Measure> m = c.measure(w.measure());
    if (m.isEmpty() || !Double.isFinite(m.get().value())) {
      return expected.limits().isPresent()
          ? Shown.seen(w.place() + " signal", Verdict.OUT, "no " + w.measure() + ": " + c.says())
          : Shown.leftOut("no " + w.measure() + " in it: " + c.says());
    }
    double u = Double.isFinite(m.get().uncertainty()) ? m.get().uncertainty() : 0;
    return Shown.number(
        w.place() + " signal",
        m.get().value(),
        m.get().unit(),
        expected.limits(),
        u,
        step.guard(),
        expected.why());
  }

  /// What is too close to call over a few periods is settled by looking longer, as finely as
  /// before.
  private static Optional<ScopeRun.Look> longer(
      Entry.Capture c, TestAct.Wave w, TestStep step, Expected expected) {
    Optional<Entry.Capture.Measure> m = c.measure(w.measure());
    if (expected.limits().isEmpty()
        || m.isEmpty()
        || !List.of("frequency", "period").contains(w.measure())
        || !Double.isFinite(m.get().value())
        || !(m.get().uncertainty() > 0)) {
      return Optional.empty();
    }
    Limits l = expected.limits().get();
    double u = m.get().uncertainty();
    double room = l.settling(m.get().value()) - step.guard();
    if (l.judge(m.get().value(), u + step.guard()) != Verdict.CLOSE || !(room > 0)) {
      return Optional.empty();
    }
    double times = Math.min(MOST_LONGER, Math.max(2, 3 * u / room));
    return Optional.of(
        new ScopeRun.Look(
            c.outline().duration() * times, 0, (int) Math.rint(USUAL_POINTS * times), false));
  }

  private Shown feel(TestAct.Feel f, TestStep step, Expected expected)
      throws IOException, ActException {
    Optional<Logged> l = power.orElseThrow().feel(f.part());
    if (l.isPresent()) {
      Entry.Reading r = (Entry.Reading) l.get().entry();
      return Shown.number(
          f.part(),
          r.value(),
          Unit.CELSIUS,
          expected.limits(),
          r.uncertainty().orElse(0.0),
          step.guard(),
          expected.why());
    }
    if (gone().isPresent()) {
      return gone().get();
    }
    return person.number(
        f.part(),
        "How warm is " + f.part() + "?",
        Unit.CELSIUS,
        ell.core.power.WarmParts.PROBE,
        step,
        expected);
  }

  private Shown pause(TestAct.Pause p) {
    long end = System.nanoTime() + (long) (p.seconds() * 1e9);
    try {
      while (System.nanoTime() < end && !stopped.getAsBoolean() && surprise.isEmpty()) {
        Thread.sleep(Math.clamp((end - System.nanoTime()) / 1_000_000, 1, TICK_MILLIS));
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    return surprise.isPresent() && power.isPresent()
        ? Shown.seen("supply", Verdict.OUT, surprise.get())
        : Shown.seen("", Verdict.WITHIN, "waited");
  }

  private Shown vectors(TestAct.Vectors v, TestStep step) throws IOException, ActException {
    Patterns p = Patterns.of(v.kind(), v.nets().size());
    List<String> wrong = new ArrayList<>();
    boolean unknown = false;
    for (String vector : p.vectors()) {
      if (v.send().isEmpty()) {
        Optional<String> set =
            watcher.asks(
                step.name(), "Set " + String.join(", ", v.nets()) + " to " + vector, "yes");
        if (set.isEmpty()) {
          return person.unanswered(step);
        }
      } else {
        line.vector(v.send().replace("{vector}", vector));
        pause(new TestAct.Pause(SETTLES));
      }
      for (int i = 0; i < v.nets().size(); i++) {
        String net = v.nets().get(i);
        Optional<Logged> l = power.orElseThrow().volts(net, net);
        if (l.isEmpty()) {
          return gone().orElse(Shown.leftOut("there is no meter"));
        }
        double volts = ((Entry.Reading) l.get().entry()).value();
        var t = known.pulse().at(net).thresholds();
        if (t.isEmpty()) {
          unknown = true;
          continue;
        }
        boolean one = vector.charAt(i) == '1';
        boolean is = one ? volts >= t.get().vih() : volts <= t.get().vil();
        if (!is) {
          wrong.add(vector + ": " + net + " reads " + EngineeringNumber.print(volts, Unit.VOLT, 3));
        }
      }
    }
    if (!wrong.isEmpty()) {
      return Shown.seen(
          "",
          Verdict.OUT,
          wrong.getFirst() + (wrong.size() > 1 ? ", and " + (wrong.size() - 1) + " more" : ""));
    }
    return unknown
        ? new Shown(
            "",
            Optional.empty(),
            Unit.ONE,
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            "not judged: thresholds are not known; say them: NET family=NAME",
            false)
        : Shown.seen("", Verdict.WITHIN, p.vectors().size() + " patterns read back");
  }

  @Override
  public void close() throws IOException {
    try {
      off(stopped.getAsBoolean() ? "the proof was stopped" : "the proof is over");
    } catch (ActException e) {
      throw new IOException(e.getMessage(), e);
    } finally {
      closing = true;
      power.ifPresent(PowerRun::close);
    }
  }
}
