package ell.core.power;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.entry.Entry;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Step;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What the supply's current and the volts of the rails together point to: where a rail that is out
/// hangs on one that is within, and whether more or less current flows than should. Common
/// practice, no source. Hints accuse nobody; they say where to look first.
public final class PowerHints {
  private static final double NOTHING = 0.1;
  private static final double NEAR = 0.08;

  private PowerHints() {}

  /// The hints of a board, a sentence each, the first to be followed first.
  public static List<String> of(Ladder ladder, PowerFacts facts) {
    List<String> hints = new ArrayList<>();
    Optional<Verdict> amps = facts.supply().flatMap(Entry.Supply::verdict);
    boolean more = more(facts);
    boolean less = less(facts);
    for (RailSpec r : ladder.supplied()) {
      Optional<Entry.Reading> read = facts.reading(r);
      if (read.isEmpty() || facts.verdict(r).filter(v -> v == Verdict.OUT).isEmpty()) {
        continue;
      }
      Optional<Step> step = ladder.feeding(r.net());
      if (step.isEmpty()) {
        hints.add(
            r.net()
                + " itself is out: the plug, its joints, or the supply's wires"
                + (more ? "; the supply gives all it may" : ""));
        continue;
      }
      Optional<Verdict> above = ladder.rail(step.get().from()).flatMap(facts::verdict);
      if (above.isEmpty()) {
        hints.add("read " + step.get().from() + " next: " + r.net() + " hangs on it");
      } else if (above.get() != Verdict.OUT) {
        hints.add(between(ladder, step.get(), r, read.get().value(), facts, more, less));
      }
    }
    if (hints.isEmpty() && amps.filter(v -> v == Verdict.OUT).isPresent()) {
      hints.add(
          less
              ? "the current is low and every rail that was read is within: a chip that does not run,"
                  + " a lamp that is missing"
              : "the current is high and every rail that was read is within: feel which part is warm");
    }
    return hints;
  }

  private static boolean more(PowerFacts facts) {
    return facts
        .supply()
        .filter(s -> s.amps().isPresent() && s.band().isPresent())
        .filter(s -> s.amps().get() > s.band().get().high())
        .isPresent();
  }

  private static boolean less(PowerFacts facts) {
    return facts
        .supply()
        .filter(s -> s.amps().isPresent() && s.band().isPresent())
        .filter(s -> s.amps().get() < s.band().get().low())
        .isPresent();
  }

  /// What stands between a rail that is out and one that is not.
  private static String between(
      Ladder ladder,
      Step s,
      RailSpec rail,
      double volts,
      PowerFacts facts,
      boolean more,
      boolean less) {
    String what = s.part();
    double in = ladder.rail(s.from()).flatMap(facts::reading).map(Entry.Reading::value).orElse(0.0);
    String reads =
        rail.net() + " reads " + print(volts, Unit.VOLT, 3) + " and " + s.from() + " is there: ";
    if (Math.abs(volts) < NOTHING * rail.volts()) {
      return reads
          + (more
              ? "more current than should flows, so look for a short on " + rail.net()
              : s.regulates()
                  ? what
                      + " gives nothing: its joints, its enable"
                      + (less ? "; less current than should flows" : "")
                  : what + " does not pass it on: its joints");
    }
    if (s.regulates() && Math.abs(volts - in) < NEAR * Math.max(in, 1) && volts > rail.high()) {
      return reads
          + what
          + " passes its input on: its ground joint or its divider is open, or it is bridged; switch"
          + " off, this harms what hangs on "
          + rail.net();
    }
    if (volts > rail.high()) {
      return reads + "more than it should be: what sets the output of " + what;
    }
    double left = in - volts;
    if (s.regulates() && left < s.dropout() + NEAR * rail.volts()) {
      return reads + what + " has too little input to hold it: look above it";
    }
    return reads
        + (more ? "it is pulled down: a load too many, a part turned, " : "it sags: ")
        + "a weak joint at "
        + what;
  }
}
