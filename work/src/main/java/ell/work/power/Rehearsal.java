package ell.work.power;

import ell.bench.dialect.Dialect;
import ell.bench.instrument.Supply;
import ell.bench.link.BenchException;
import ell.bench.link.DryLink;
import ell.core.power.PowerPlan;
import ell.core.power.PowerStep;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// First power without a supply: what would be sent, stage by stage, by the same hands that send
/// it.
public final class Rehearsal {
  private Rehearsal() {}

  /// What is sent for one thing.
  ///
  /// @param what in words
  /// @param step the stage of first power, empty before the first and after the last
  /// @param lines in their order
  public record Part(String what, Optional<PowerStep> step, List<String> lines) {
    public Part {
      lines = List.copyOf(lines);
    }
  }

  /// Goes through first power of a plan.
  ///
  /// @throws IllegalStateException when the supply's own client cannot be satisfied by an obedient
  ///   supply, which would be a mistake of this program
  public static List<Part> of(PowerPlan plan) {
    return of(plan, Dialect.generic("supply"));
  }

  /// Goes through it with a supply that wants to be told in its own way.
  public static List<Part> of(PowerPlan plan, Dialect says) {
    List<Part> parts = new ArrayList<>();
    DryLink link = new DryLink(says);
    try (Supply supply = new Supply(link, says)) {
      supply.outputs(plan.steps().stream().map(PowerStep::output).distinct().toList());
      supply.makeSafe();
      parts.add(new Part("made safe", Optional.empty(), link.take()));
      Set<Integer> on = new HashSet<>();
      int output = 0;
      for (PowerStep step : plan.steps()) {
        link.draws((step.band().low() + step.band().high()) / 2);
        if (step.output() != output) {
          output = step.output();
          supply.select(output);
        }
        supply.set(step.volts(), step.limit());
        if (on.add(output)) {
          supply.output(true);
        }
        supply.volts();
        supply.amps();
        parts.add(new Part("stage " + parts.size(), Optional.of(step), link.take()));
      }
      supply.off();
      parts.add(new Part("off", Optional.empty(), link.take()));
    } catch (BenchException e) {
      throw new IllegalStateException(e);
    }
    return parts;
  }
}
