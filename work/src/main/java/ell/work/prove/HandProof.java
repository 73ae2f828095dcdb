package ell.work.prove;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.prove.Expected;
import ell.core.prove.PlanKnown;
import ell.core.prove.ProveFacts;
import ell.core.prove.TestAct;
import ell.core.prove.TestPlan;
import ell.core.prove.TestStep;
import ell.core.quantity.Accuracy;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.work.act.Companion;
import ell.work.act.Situation;
import ell.work.power.Readings;
import ell.work.space.ActException;
import ell.work.tape.Places;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// A proof that is typed: with instruments that are not connected, or from paper. What is typed is
/// completed from the plan: limits, verdict, and the reading that belongs to it.
final class HandProof implements Companion {
  /// What a typed beginning, step or end has for the number of its run.
  static final long TYPED = 0;

  private final Proofs proofs;

  HandProof(Proofs proofs) {
    this.proofs = proofs;
  }

  @Override
  public List<Entry> with(Entry next, Situation s) throws IOException, ActException {
    return switch (next) {
      case Entry.ProofBegun b when b.sha256().isEmpty() -> List.of(begun(b, s));
      case Entry.ProofStep p when p.run() == TYPED -> step(p, s);
      case Entry.ProofEnded e when e.run() == TYPED -> List.of(ended(s));
      default -> List.of(next);
    };
  }

  private Entry begun(Entry.ProofBegun b, Situation s) throws IOException, ActException {
    Optional<ProveFacts.Run> open = ProveFacts.of(s.state()).open();
    if (open.isPresent()) {
      throw new ActException(
          "a proof of board "
              + s.board()
              + " is open (entry "
              + open.get().number()
              + "): go on with it, or end it: proof end");
    }
    TestPlan t = proofs.of(s.plan(), Optional.empty());
    return new Entry.ProofBegun(
        t.name(), proofs.keep(t), t.turns().size(), t.minutes(false), b.with());
  }

  private ProveFacts.Run open(Situation s) throws ActException {
    return ProveFacts.of(s.state())
        .open()
        .orElseThrow(
            () -> new ActException("no proof of board " + s.board() + " is open: proof begin"));
  }

  private List<Entry> step(Entry.ProofStep typed, Situation s) throws IOException, ActException {
    ProveFacts.Run run = open(s);
    TestPlan plan =
        proofs
            .plan(run.begun().sha256())
            .orElseThrow(() -> new ActException("the plan of this proof is not kept"));
    TestStep t =
        plan.step(typed.name())
            .orElseThrow(() ->
                new ActException(
                    "no step '"
                        + typed.name()
                        + "' in plan "
                        + plan.name()
                        + "; it has "
                        + String.join(", ", plan.steps().stream().map(TestStep::name).toList())));
    int number = plan.steps().indexOf(t) + 1;
    int made = (int) run.made().stream().filter(m -> m.number() == number).count();
    if (made >= plan.times(number)) {
      throw new ActException("'" + t.name() + "' is made already; strike it to make it again");
    }
    PlanKnown known = proofs.known(s.plan());
    Expected expected = Expected.of(known, t);
    List<Entry> all = new ArrayList<>();
    Shown is = shown(typed.words(), t, expected, known, s, all);
    all.add(
        new Entry.ProofStep(
            run.number(),
            number,
            made + 1,
            t.name(),
            is.place(),
            is.value(),
            is.unit(),
            is.limits(),
            is.uncertainty(),
            is.verdict(),
            is.words(),
            is.left(),
            0));
    return all;
  }

  private static Shown shown(
      String words, TestStep t, Expected e, PlanKnown known, Situation s, List<Entry> with)
      throws ActException {
    String w = words.strip();
    String low = w.toLowerCase(Locale.ROOT);
    if (low.startsWith("left")) {
      String why = w.substring(4).strip();
      if (why.isEmpty()) {
        throw new ActException(
            "a step is left out for a reason: test \"" + t.name() + "\" left WHY");
      }
      return Shown.leftOut("by hand: " + why);
    }
    String first = low.split("\\s+", 2)[0];
    String rest = w.length() > first.length() ? w.substring(first.length()).strip() : "";
    boolean good = List.of("good", "yes", "ok").contains(first);
    boolean bad = List.of("bad", "no", "failed").contains(first);
    if (t.act() instanceof TestAct.Ask a
        && a.wants().equals("no")
        && (first.equals("yes") || first.equals("no"))) {
      return Shown.seen("", first.equals("no") ? Verdict.WITHIN : Verdict.OUT, first);
    }
    if (good || bad) {
      return Shown.seen("", good ? Verdict.WITHIN : Verdict.OUT, rest.isEmpty() ? first : rest);
    }
    Unit unit =
        t.act()
            .reads()
            .orElseThrow(() ->
                new ActException(
                    "'" + t.name() + "' is good, bad or left WHY, found '" + words + "'"));
    double v;
    try {
      v =
          unit == Unit.OHM && List.of("open", "ol").contains(low)
              ? Double.POSITIVE_INFINITY
              : EngineeringNumber.parse(w, unit);
    } catch (NumberFormatException x) {
      throw new ActException("'" + t.name() + "': " + x.getMessage(), x);
    }
    return number(v, unit, t, e, known, s, with);
  }

  private static Shown number(
      double v, Unit unit, TestStep t, Expected e, PlanKnown known, Situation s, List<Entry> with) {
    Places places = new Places(s.plan().revision(), s.plan().ladder());
    double u =
        switch (unit) {
          case VOLT -> Accuracy.handheldVolts(v).uncertainty(v);
          case OHM -> Double.isInfinite(v) ? 0 : Accuracy.handheldOhms(v).uncertainty(v);
          case AMPERE -> Accuracy.handheldAmps(v).uncertainty(v);
          case CELSIUS -> ell.core.power.WarmParts.PROBE;
          default -> 0;
        };
    String place =
        switch (t.act()) {
          case TestAct.Volts x -> x.place();
          case TestAct.Feel x -> x.part();
          case TestAct.Amps x -> x.rail();
          default -> "";
        };
    Optional<Limits> limits = e.limits();
    if (t.act() instanceof TestAct.Ohms o) {
      Optional<BeepCheck> c =
          s.plan().beep().checks().stream()
              .filter(x ->
                  x.a().place().equals(known.tip(o.a())) && x.b().place().equals(known.tip(o.b())))
              .findFirst()
              .or(() ->
                  BeepList.between(
                      known.revision(), known.ladder(), known.tip(o.a()), known.tip(o.b())));
      c.ifPresent(x -> with.add(x.read(v)));
      place = c.map(x -> x.netA() + " to " + x.netB()).orElse("");
      limits = limits.map(l -> l.low() > 0 ? l : Limits.atMost(l.high()));
    } else if (!place.isEmpty()) {
      with.add(
          t.act() instanceof TestAct.Amps a
              ? Readings.inState(places, place, new Quantity(v, unit), a.state())
              : Readings.of(places, place, new Quantity(v, unit), "typed"));
    }
    return Shown.number(place, v, unit, limits, u, t.guard(), e.why());
  }

  private Entry ended(Situation s) throws IOException, ActException {
    ProveFacts.Run run = open(s);
    Optional<TestPlan> plan = proofs.plan(run.begun().sha256());
    List<String> missing = new ArrayList<>();
    plan.ifPresent(p ->
        p.turns().stream()
            .filter(t -> t.step().act().tests() && !run.has(t.number(), t.round()))
            .forEach(t -> missing.add(t.step().name())));
    Verdict v = missing.isEmpty() ? run.worst() : run.worst().and(Verdict.CLOSE);
    return new Entry.ProofEnded(
        run.number(),
        v,
        missing.isEmpty()
            ? ""
            : missing.size()
                + (missing.size() == 1 ? " step" : " steps")
                + " not made, the first is "
                + missing.getFirst(),
        minutes(run));
  }

  private static double minutes(ProveFacts.Run run) {
    Optional<Logged> last =
        run.steps().isEmpty() ? Optional.empty() : Optional.of(run.steps().getLast());
    return last.map(l -> Math.round(Duration.between(run.at(), l.at()).toMillis() / 60.0) / 1000.0)
        .orElse(0.0);
  }
}
