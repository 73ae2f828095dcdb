package ell.core.prove;

import ell.core.beep.BeepCheck;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.power.Ladder;
import ell.core.power.WarmParts;
import ell.core.pulse.Wanted;
import ell.core.talk.Operation;
import ell.core.talk.Script;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Proposes a test plan from what is known of a revision: shorts before power, first power, every
/// rail, currents, warmth, clocks and lines, scripts. What it cannot propose it tells.
public final class PlanProposal {
  private static final String POWER = "power";

  private final PlanKnown known;
  private final Optional<Collection<String>> instruments;
  private final List<TestStep> steps = new ArrayList<>();
  private final List<String> told = new ArrayList<>();

  private PlanProposal(PlanKnown known, Optional<Collection<String>> instruments) {
    this.known = known;
    this.instruments = instruments;
  }

  /// A plan for a bench.
  ///
  /// @param instruments kinds that it has, empty when it is not known: then all are taken to be
  ///   there
  public static TestPlan of(PlanKnown known, Optional<Collection<String>> instruments) {
    PlanProposal p = new PlanProposal(known, instruments);
    p.shorts();
    if (p.powers()) {
      p.steps.add(TestStep.of(new TestAct.Power(), true));
      p.rails();
      p.currents();
      p.lines();
      p.warm();
      p.scripts();
      p.steps.add(TestStep.of(new TestAct.Off(), false));
    }
    p.untested();
    return new TestPlan("proposed", p.steps, List.of(), p.told);
  }

  private boolean has(String kind, String what) {
    boolean is = instruments.isEmpty() || instruments.get().contains(kind);
    if (!is) {
      told.add("there is no " + kind + " on this bench: " + what + " is not in the plan");
    }
    return is;
  }

  private void shorts() {
    List<BeepCheck> guards = known.beep().guarding();
    if (guards.isEmpty() || !has("meter", "what must not be shorted before power")) {
      return;
    }
    for (BeepCheck c : guards) {
      String nets = c.netB() + " to " + c.netA();
      boolean taken = steps.stream().anyMatch(s -> s.name().equals(nets));
      TestStep t = TestStep.of(new TestAct.Ohms(c.a().place(), c.b().place()), true);
      steps.add(taken ? t : t.named(nets));
    }
  }

  private boolean powers() {
    if (known.ladder().raised().isEmpty()) {
      told.add("no source of the ladder is raised: nothing is tested with power; see ladder");
      return false;
    }
    Optional<String> unsaid = ell.core.power.PowerPlan.unsaid(known.ladder());
    unsaid.ifPresent(u -> told.add(u + "; nothing is tested with power before"));
    return unsaid.isEmpty() && has("supply", "everything with power");
  }

  private void rails() {
    if (!has("meter", "the volts of the rails")) {
      return;
    }
    List<String> raised = known.ladder().raised().stream().map(Ladder.RailSpec::net).toList();
    for (Ladder.RailSpec r : known.ladder().supplied()) {
      if (!raised.contains(r.net())) {
        told.add(r.net() + " is not in the plan: its source is raised by nobody");
        continue;
      }
      if (r.guessed()) {
        told.add(
            "the volts of "
                + r.net()
                + " are a guess, and judge nothing; say them: ladder WS --rail "
                + r.net()
                + "=VOLTS");
      }
      // a board with a wrong rail is switched off, and nothing is loaded into it
      steps.add(TestStep.of(new TestAct.Volts(r.net()), true, POWER));
    }
  }

  private void currents() {
    Ladder l = known.ladder();
    List<String> raised = l.raised().stream().map(Ladder.RailSpec::net).toList();
    for (Ladder.Source s : l.sources()) {
      if (raised.contains(s.rail())) {
        TestStep t = TestStep.of(new TestAct.Amps(s.rail(), "boot"), false, POWER);
        if (Expected.of(known, t).limits().isPresent()) {
          steps.add(t);
        } else {
          told.add(
              "the current of " + s.rail() + " is not in the plan: " + Expected.of(known, t).why());
        }
      }
    }
    boolean sleeps =
        l.loads().stream()
            .anyMatch(x -> x.amps().containsKey("idle") && x.in("idle") < x.in("boot"));
    if (sleeps) {
      told.add(
          "the current of a board that sleeps is not in the plan: put it to sleep by a script or a"
              + " line, then read it, such as: amps "
              + (l.sources().isEmpty() ? "RAIL" : l.sources().getFirst().rail())
              + " idle");
    }
  }

  private void lines() {
    List<TestStep> waves = new ArrayList<>();
    for (Wanted w : known.pulse().places()) {
      if (w.clock() > 0) {
        TestStep t = TestStep.of(new TestAct.Wave(w.place(), "frequency"), false, POWER);
        if (Expected.of(known, t).limits().isPresent()) {
          waves.add(t);
        } else {
          told.add(
              "the clock at " + w.place() + " is not in the plan: " + Expected.of(known, t).why());
        }
      }
      w.limits().keySet().stream()
          .sorted()
          .filter(m -> TestAct.measure(m).isPresent() && !(w.clock() > 0 && m.equals("frequency")))
          .forEach(m -> waves.add(TestStep.of(new TestAct.Wave(w.place(), m), false, POWER)));
      if (!known.pulse().signatures(w.place()).isEmpty()) {
        waves.add(TestStep.of(new TestAct.Wave(w.place(), ""), false, POWER));
      }
    }
    if (!waves.isEmpty() && has("scope", "what is wanted of " + waves.size() + " captures")) {
      steps.addAll(waves);
    }
  }

  private void warm() {
    for (WarmParts.Warm w : WarmParts.of(known.ladder(), "worst")) {
      if (w.limits().isPresent()) {
        steps.add(TestStep.of(new TestAct.Feel(w.part()), false, POWER));
      }
    }
  }

  /// Scripts in the order of their operations; what an operation wants of links and plugs stands
  /// before it, and what another wants otherwise is left to whoever writes a plan.
  private void scripts() {
    List<Script> all = new ArrayList<>(known.scripts());
    List<String> order = operations();
    all.sort(
        java.util.Comparator.comparingInt(
            (Script s) -> s.operation().isEmpty() ? order.size() : order.indexOf(s.operation())));
    if (all.isEmpty()) {
      if (known.talk().port().isPresent()) {
        told.add(
            "nothing is said to the board in this plan: keep a script, talk WS --script FILE --keep");
      }
      return;
    }
    if (!has("line", "the scripts")) {
      return;
    }
    String before = POWER;
    Map<String, String> stands = new HashMap<>();
    for (Script s : all) {
      Optional<Operation> o =
          known.talk().operations().stream()
              .filter(x -> x.name().equals(s.operation()))
              .findFirst();
      List<String> needs = new ArrayList<>(List.of(before));
      if (o.isPresent()) {
        o.get()
            .links()
            .forEach(
                (l, closed) -> stand(l, closed ? "closed" : "open", stands).ifPresent(needs::add));
        o.get()
            .plugs()
            .forEach((p, in) -> stand(p, in ? "in" : "out", stands).ifPresent(needs::add));
      }
      steps.add(TestStep.of(new TestAct.Talk(s.name()), false).needing(needs));
      before = s.name();
    }
  }

  /// What the book has so already is not asked for when the plan runs.
  private Optional<String> stand(String place, String stand, Map<String, String> stands) {
    if (stand.equals(stands.put(place, stand))) {
      return Optional.empty();
    }
    TestStep t = TestStep.of(new TestAct.Stand(place, stand), false);
    long again = steps.stream().filter(s -> s.act().equals(t.act())).count();
    TestStep named = again == 0 ? t : t.named(t.name() + " " + (again + 1));
    steps.add(named);
    return Optional.of(named.name());
  }

  private List<String> operations() {
    List<String> done = new ArrayList<>();
    List<Operation> left = new ArrayList<>(known.talk().operations());
    while (!left.isEmpty()) {
      Operation next =
          left.stream()
              .filter(o -> done.containsAll(o.after()))
              .findFirst()
              .orElse(left.getFirst());
      done.add(next.name());
      left.remove(next);
    }
    return done;
  }

  private void untested() {
    List<String> keys = new ArrayList<>();
    List<String> lamps = new ArrayList<>();
    for (Part p : known.revision().parts()) {
      PartKind kind = PartKind.of(p);
      if (p.fitted() && kind == PartKind.SWITCH) {
        keys.add(p.reference());
      } else if (p.fitted() && kind == PartKind.LED) {
        lamps.add(p.reference());
      }
    }
    asks(lamps, "lamp", "Is %s lit?");
    asks(keys, "switch", "Press %s: does it do what it should?");
    known.ladder().sources().stream()
        .filter(s -> known.revision().jointsOf(s.rail()).isEmpty())
        .filter(s ->
            known.revision().net(s.rail()).stream()
                .anyMatch(j -> PartKind.of(j.part()) == PartKind.CELL))
        .forEach(s ->
            told.add(
                "how the cell on "
                    + s.rail()
                    + " charges is not in the plan: charge WS --board B"));
  }

  private void asks(List<String> parts, String what, String question) {
    if (!parts.isEmpty()) {
      told.add(
          parts.size()
              + (parts.size() == 1
                  ? " " + what + " is"
                  : " " + what + (what.endsWith("ch") ? "es are" : "s are"))
              + " not in the plan, for nothing says what should be seen; write it: ask \""
              + String.format(java.util.Locale.ROOT, question, parts.getFirst())
              + "\" yes");
    }
  }
}
