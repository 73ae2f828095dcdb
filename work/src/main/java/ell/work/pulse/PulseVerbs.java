package ell.work.pulse;

import ell.core.entry.Entry;
import ell.core.pulse.Measures;
import ell.core.pulse.Wanted;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.List;
import java.util.Optional;

/// Words of the tape about clocks and edges that were read off a screen.
public final class PulseVerbs {
  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.at(
                  "clock|rises|falls",
                  "PLACE clock FREQUENCY, rises or falls TIME",
                  "what a scope or a counter shows at a line, judged by what is wanted there",
                  PulseVerbs::read,
                  "XIN clock 12.0003MHz",
                  "SCL rises 240ns")
              .offering(t -> t.plan().pulse().places().stream().map(Wanted::place).toList())
              .of(Stage.PULSE));

  private PulseVerbs() {}

  private static Meaning read(Said said) {
    String measure =
        switch (said.word()) {
          case "clock" -> "frequency";
          case "rises" -> "rise";
          default -> "fall";
        };
    Unit unit = Measures.NAMES.get(measure);
    if (said.rest().isEmpty()) {
      return Meaning.unfinished(unit == Unit.HERTZ ? "hertz, such as 12.0003MHz" : "such as 240ns");
    }
    double v;
    try {
      v = EngineeringNumber.parse(said.rest(), unit);
    } catch (NumberFormatException e) {
      return Meaning.wrong(e.getMessage());
    }
    if (!(v > 0)) {
      return Meaning.wrong("what is read there is above 0, found '" + said.rest() + "'");
    }
    Wanted w;
    try {
      w = said.plan().pulse().at(said.place());
    } catch (IllegalArgumentException e) {
      return Meaning.wrong(e.getMessage());
    }
    Optional<Limits> limits = limits(w, measure);
    Optional<Verdict> verdict = limits.map(l -> l.judge(v, 0));
    return Meaning.ready(
        new Entry.Reading(said.place(), v, unit, limits, Optional.empty(), verdict, "read off"));
  }

  private static Optional<Limits> limits(Wanted w, String measure) {
    if (w.limits().containsKey(measure)) {
      return Optional.of(w.limits().get(measure));
    }
    return measure.equals("frequency") && w.clock() > 0 && w.within() > 0
        ? Optional.of(new Limits(w.clock() * (1 - w.within()), w.clock() * (1 + w.within())))
        : Optional.empty();
  }
}
