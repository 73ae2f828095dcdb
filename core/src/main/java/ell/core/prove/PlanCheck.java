package ell.core.prove;

import ell.core.power.Ladder;
import ell.core.power.PowerPlan;
import ell.core.talk.Link;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// What is wrong with a test plan before anything is switched on.
///
/// @param blocks what must be put right before it can run, a sentence each
/// @param mind what it will not settle, a sentence each
public record PlanCheck(List<String> blocks, List<String> mind) {
  public PlanCheck {
    blocks = List.copyOf(blocks);
    mind = List.copyOf(mind);
  }

  /// Checks a plan.
  ///
  /// @param instruments kinds that the bench has, as it names them; empty when it is not known
  public static PlanCheck of(
      TestPlan plan, PlanKnown known, Optional<Collection<String>> instruments) {
    List<String> blocks = new ArrayList<>();
    List<String> mind = new ArrayList<>();
    boolean on = false;
    Set<String> missing = new HashSet<>();
    Set<String> fed = new HashSet<>();
    known.ladder().raised().forEach(r -> fed.add(r.net()));
    for (TestStep s : plan.steps()) {
      TestAct act = s.act();
      String at = at(s);
      unknown(s, known).forEach(u -> blocks.add(at + u));
      act.instrument()
          .filter(i -> instruments.isPresent() && !instruments.get().contains(i))
          .filter(missing::add)
          .ifPresent(i ->
              blocks.add(
                  at + "there is no " + i + " on this bench: connect one, or leave the step out"));
      if (act instanceof TestAct.Power) {
        PowerPlan.unsaid(known.ladder()).ifPresent(u -> blocks.add(at + u));
        if (known.ladder().raised().isEmpty()) {
          blocks.add(
              at + "no source of the ladder is raised: say where power comes in, see ladder");
        }
      }
      on = act instanceof TestAct.Power || on && !(act instanceof TestAct.Off);
      if (act.powered() && !on) {
        blocks.add(at + "the board has no power here: a line 'power' must come before it");
      }
      if (act instanceof TestAct.Ohms && on) {
        blocks.add(at + "ohms are read without power: a line 'off' must come before it");
      }
      if (act instanceof TestAct.Volts v
          && on
          && known
              .rail(v.place())
              .filter(r -> !fed.contains(r.net()) && feeds(known.ladder(), r))
              .isPresent()) {
        blocks.add(
            at
                + "nobody powers "
                + v.place()
                + ": its source is not raised; say which output of the supply feeds it, see ladder");
      }
      if (act.reads().isPresent() && blocks.stream().noneMatch(b -> b.startsWith(at))) {
        Expected e = Expected.of(known, s);
        if (e.limits().isEmpty()) {
          mind.add(at + "not judged: " + e.why());
        }
      }
    }
    if (on) {
      mind.add("the plan leaves the board with power: it is switched off at its end");
    }
    return new PlanCheck(blocks, mind);
  }

  /// Whether a rail hangs on any source at all.
  private static boolean feeds(Ladder ladder, Ladder.RailSpec rail) {
    return ladder.supplied().stream().anyMatch(r -> r.net().equals(rail.net()));
  }

  static String at(TestStep s) {
    return (s.line() > 0 ? "line " + s.line() + ", " : "") + "'" + s.name() + "': ";
  }

  private static List<String> unknown(TestStep s, PlanKnown known) {
    List<String> all = new ArrayList<>();
    switch (s.act()) {
      case TestAct.Ohms o -> {
        place(o.a(), known, all);
        place(o.b(), known, all);
      }
      case TestAct.Volts v -> place(v.place(), known, all);
      case TestAct.Wave w -> place(w.place(), known, all);
      case TestAct.Amps a -> source(a.rail(), known.ladder(), all);
      case TestAct.Level l -> {
        source(l.rail(), known.ladder(), all);
        known.ladder().sources().stream()
            .filter(x -> x.rail().equals(l.rail()))
            .filter(x -> l.volts() < x.low() || l.volts() > x.high())
            .forEach(x ->
                all.add(
                    l.rail()
                        + " bears "
                        + x.low()
                        + "..."
                        + x.high()
                        + " V, not "
                        + l.volts()
                        + " V"));
      }
      case TestAct.Feel f -> part(f.part(), known, all);
      case TestAct.Stand st -> {
        if (st.stand().equals("open") || st.stand().equals("closed")) {
          if (known.talk().links().stream().map(Link::part).noneMatch(st.place()::equals)) {
            all.add(
                st.place()
                    + " is no link; say it: link "
                    + st.place()
                    + " solder, jumper or switch");
          }
        } else {
          part(st.place(), known, all);
        }
      }
      case TestAct.Talk t -> {
        if (known.script(t.script()).isEmpty()) {
          all.add("no script '" + t.script() + "' is kept; keep it: talk WS --script FILE --keep");
        }
      }
      case TestAct.Vectors v ->
          v.nets()
              .forEach(n -> {
                if (known.revision().net(n).isEmpty()) {
                  all.add("no net '" + n + "' in " + known.revision().title());
                }
              });
      default -> {} // names nothing of the board
    }
    return all;
  }

  private static void place(String place, PlanKnown known, List<String> all) {
    if (!known.place(place)) {
      all.add(
          known.revision().part(place).isPresent()
              ? place + " has several nets: say which pin, such as " + place + ".1"
              : "no net, joint or test point '" + place + "' in " + known.revision().title());
    }
  }

  private static void part(String part, PlanKnown known, List<String> all) {
    if (known.revision().part(part).isEmpty()) {
      all.add("no part '" + part + "' in " + known.revision().title());
    }
  }

  private static void source(String rail, Ladder ladder, List<String> all) {
    if (ladder.sources().stream().noneMatch(s -> s.rail().equals(rail))) {
      all.add(
          rail
              + " is no source of the ladder; sources are "
              + String.join(", ", ladder.sources().stream().map(Ladder.Source::rail).toList()));
    }
  }
}
