package ell.core.prove;

import ell.core.beep.BeepList;
import ell.core.power.Ladder;
import ell.core.power.LadderBands;
import ell.core.power.WarmParts;
import ell.core.pulse.Wanted;
import ell.core.quantity.Limits;
import java.util.List;
import java.util.Optional;

/// What a step is held against: its own limits, else those that the revision has for the place.
///
/// @param limits empty when there is nothing to hold it against
/// @param why where they come from; without limits what must be said to have them
public record Expected(Optional<Limits> limits, String why) {
  /// The display of a supply shows no less, A; typical, no source.
  private static final double LEAST = 1e-4;

  /// Of a step.
  ///
  /// @throws IllegalArgumentException when the revision has no such place
  public static Expected of(PlanKnown known, TestStep step) {
    if (step.limits().isPresent()) {
      return new Expected(step.limits(), "limits of the plan");
    }
    return switch (step.act()) {
      case TestAct.Ohms o ->
          BeepList.between(known.revision(), known.ladder(), known.tip(o.a()), known.tip(o.b()))
              .map(c -> new Expected(Optional.of(c.expected()), c.why()))
              .orElse(nothing("give it limits: ohms " + o.a() + " " + o.b() + " LOW..HIGH"));
      case TestAct.Volts v -> volts(known, v.place());
      case TestAct.Amps a -> amps(known.ladder(), a);
      case TestAct.Wave w when !w.measure().isEmpty() -> wave(known.pulse().at(w.place()), w);
      case TestAct.Feel f ->
          WarmParts.of(known.ladder(), "worst", f.part())
              .flatMap(WarmParts.Warm::limits)
              .map(l -> new Expected(Optional.of(l), "what its heat makes of it"))
              .orElse(
                  nothing(
                      "nothing says how warm " + f.part() + " gets: feel " + f.part() + " ..60"));
      default -> new Expected(Optional.empty(), "");
    };
  }

  private static Expected volts(PlanKnown known, String place) {
    Optional<Ladder.RailSpec> rail = known.rail(place);
    if (rail.isEmpty()) {
      return nothing(place + " is no rail: give it limits, volts " + place + " LOW..HIGH");
    }
    Ladder.RailSpec r = rail.get();
    return r.guessed()
        ? nothing(
            "the volts of "
                + r.net()
                + " are a guess; say them: ladder WS --rail "
                + r.net()
                + "=VOLTS")
        : new Expected(Optional.of(new Limits(r.low(), r.high())), "limits of the rail");
  }

  private static Expected amps(Ladder ladder, TestAct.Amps a) {
    List<Ladder.Source> here =
        ladder.sources().stream().filter(s -> s.rail().equals(a.rail())).toList();
    if (here.isEmpty()) {
      return nothing(a.rail() + " is no source of the ladder");
    }
    List<Ladder.Load> guessed = ladder.guessedLoads(here);
    if (!guessed.isEmpty()) {
      return nothing(
          "what "
              + guessed.getFirst().name()
              + (guessed.size() > 1 ? " and " + (guessed.size() - 1) + " more draw" : " draws")
              + " is a guess: give the current limits, amps "
              + a.rail()
              + " "
              + a.state()
              + " LOW..HIGH");
    }
    return LadderBands.of(ladder, a.state()).rails().stream()
        .filter(r -> r.rail().net().equals(a.rail()))
        .filter(r -> r.amps().high() > LEAST)
        .map(r ->
            new Expected(
                Optional.of(new Limits(r.amps().low(), r.amps().high())),
                "loads of the ladder, parts anywhere in their tolerances"))
        .findFirst()
        .orElse(
            nothing(
                a.rail()
                    + " gives nothing that a supply shows, as far as is known: give it limits, amps "
                    + a.rail()
                    + " "
                    + a.state()
                    + " LOW..HIGH"));
  }

  private static Expected wave(Wanted w, TestAct.Wave act) {
    Limits said = w.limits().get(act.measure());
    if (said != null) {
      return new Expected(Optional.of(said), "said of " + act.place());
    }
    if (act.measure().equals("frequency") && w.clock() > 0 && !w.clockGuessed() && w.within() > 0) {
      return new Expected(
          Optional.of(new Limits(w.clock() * (1 - w.within()), w.clock() * (1 + w.within()))),
          "clock of " + act.place());
    }
    return nothing(
        "nothing is said of "
            + act.measure()
            + " at "
            + act.place()
            + ": wave "
            + act.place()
            + " "
            + act.measure()
            + " LOW..HIGH");
  }

  private static Expected nothing(String how) {
    return new Expected(Optional.empty(), how);
  }
}
