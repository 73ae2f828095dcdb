package ell.core.prove;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder;
import ell.core.quantity.Accuracy;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.time.OffsetDateTime;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/// What each test of a plan showed on a board the first time: what the process made, before anybody
/// mended it. A reading that was logged by hand counts as the step of a plan does.
public final class FirstResults {
  private FirstResults() {}

  /// What a test showed.
  ///
  /// @param entry its number
  /// @param value if it was a number
  /// @param uncertainty of it, 0 where it is not known
  /// @param verdict empty when it was not judged
  public record Result(
      long entry,
      OffsetDateTime at,
      Optional<Double> value,
      double uncertainty,
      Optional<Verdict> verdict) {
    Result with(Verdict other) {
      return new Result(entry, at, value, uncertainty, Optional.of(other));
    }
  }

  /// The first results of a board, by name of the test.
  ///
  /// @param expected limits by name of the test, as they are now
  public static Map<String, Result> of(
      TestPlan plan, PlanKnown known, Map<String, Expected> expected, BoardState state) {
    Map<String, Result> all = new LinkedHashMap<>();
    for (TestStep t : plan.steps()) {
      if (!t.act().tests()) {
        continue;
      }
      Optional<Logged> step = step(state, t.name());
      Optional<Logged> direct = direct(state, known, t);
      boolean stepFirst =
          step.isPresent()
              && direct
                  .filter(d -> d.number() < ((Entry.ProofStep) step.get().entry()).run())
                  .isEmpty();
      Expected e = expected.get(t.name());
      Optional<Verdict> rounds = stepFirst ? rounds(state, step.orElseThrow()) : Optional.empty();
      (stepFirst ? step : direct)
          .flatMap(l -> result(l, t, e))
          .map(r -> rounds.isEmpty() ? r : r.with(rounds.get()))
          .ifPresent(r -> all.put(t.name(), r));
    }
    return all;
  }

  private static Optional<Logged> step(BoardState s, String name) {
    return s.standing().stream()
        .filter(l -> l.entry() instanceof Entry.ProofStep p && p.name().equals(name) && !p.left())
        .findFirst();
  }

  /// The worst of the rounds of a loop, empty when it was made once.
  private static Optional<Verdict> rounds(BoardState s, Logged first) {
    Entry.ProofStep f = (Entry.ProofStep) first.entry();
    java.util.List<Verdict> all =
        s.standing().stream()
            .map(Logged::entry)
            .filter(e ->
                e instanceof Entry.ProofStep p
                    && p.run() == f.run()
                    && p.name().equals(f.name())
                    && !p.left())
            .flatMap(e -> ((Entry.ProofStep) e).verdict().stream())
            .toList();
    return all.size() < 2 ? Optional.empty() : all.stream().reduce(Verdict::and);
  }

  private static Optional<Logged> direct(BoardState s, PlanKnown known, TestStep t) {
    return s.standing().stream().filter(l -> of(l.entry(), known, t.act())).findFirst();
  }

  private static boolean of(Entry e, PlanKnown known, TestAct act) {
    return switch (act) {
      case TestAct.Volts v ->
          e instanceof Entry.Reading r && r.unit() == Unit.VOLT && at(r.place(), v.place(), known);
      case TestAct.Amps a ->
          e instanceof Entry.Reading r
              && r.unit() == Unit.AMPERE
              && r.place().equals(a.rail())
              && state(r.with()).equals(a.state());
      case TestAct.Feel f ->
          e instanceof Entry.Reading r && r.unit() == Unit.CELSIUS && r.place().equals(f.part());
      case TestAct.Ohms o ->
          e instanceof Entry.Check c
              && (c.a().equals(known.tip(o.a())) && c.b().equals(known.tip(o.b()))
                  || c.a().equals(known.tip(o.b())) && c.b().equals(known.tip(o.a())));
      case TestAct.Wave w ->
          e instanceof Entry.Capture c
              && c.place().equals(w.place())
              && (w.measure().isEmpty() || c.measure(w.measure()).isPresent());
      case TestAct.Talk t -> e instanceof Entry.Talk x && x.script().equals(t.script());
      default -> false;
    };
  }

  private static String state(String with) {
    String in = "in the state ";
    return with.startsWith(in) ? with.substring(in.length()) : "boot";
  }

  private static boolean at(String place, String wanted, PlanKnown known) {
    if (place.equals(wanted)) {
      return true;
    }
    Optional<Ladder.RailSpec> rail = known.ladder().rail(wanted);
    return rail.isPresent()
        && !rail.get().readAt().isEmpty()
        && (place.equals(rail.get().readAt())
            || place.equals(BoardState.part(rail.get().readAt())));
  }

  private static Optional<Result> result(Logged l, TestStep t, Expected expected) {
    return switch (l.entry()) {
      case Entry.ProofStep p ->
          Optional.of(judged(l, p.value(), p.uncertainty().orElse(0.0), p.verdict(), t, expected));
      case Entry.Reading r -> {
        double u =
            r.uncertainty()
                .orElse(
                    r.unit() == Unit.AMPERE ? Accuracy.supplyAmps().uncertainty(r.value()) : 0.0);
        yield Optional.of(judged(l, Optional.of(r.value()), u, r.verdict(), t, expected));
      }
      case Entry.Check c ->
          Optional.of(
              new Result(l.number(), l.at(), Optional.of(c.ohms()), 0, Optional.of(c.verdict())));
      case Entry.Capture c -> {
        TestAct.Wave w = (TestAct.Wave) t.act();
        Optional<Entry.Capture.Measure> m = c.measure(w.measure());
        yield Optional.of(
            m.isPresent()
                ? judged(
                    l,
                    Optional.of(m.get().value()),
                    Double.isFinite(m.get().uncertainty()) ? m.get().uncertainty() : 0,
                    m.get().verdict(),
                    t,
                    expected)
                : new Result(l.number(), l.at(), Optional.empty(), 0, c.verdict()));
      }
      case Entry.Talk k ->
          Optional.of(new Result(l.number(), l.at(), Optional.empty(), 0, k.verdict()));
      default -> Optional.empty();
    };
  }

  /// A number is held against the limits as they are now; what is none keeps its verdict.
  private static Result judged(
      Logged l,
      Optional<Double> value,
      double u,
      Optional<Verdict> was,
      TestStep t,
      Expected expected) {
    boolean number = value.filter(Double::isFinite).isPresent() && expected.limits().isPresent();
    boolean ohms = t.act() instanceof TestAct.Ohms;
    Optional<Verdict> v =
        number && !ohms
            ? expected.limits().map(x -> x.judge(value.orElseThrow(), u + t.guard()))
            : number || value.isEmpty() || ohms ? was : Optional.empty();
    return new Result(l.number(), l.at(), value, u, v);
  }
}
