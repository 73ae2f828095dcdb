package ell.desk.power;

import ell.core.entry.EntryWords;
import ell.core.power.BeforePower;
import ell.core.power.ChargeWatch;
import ell.core.power.ChargedCell;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.LadderFinding;
import ell.core.power.LadderState;
import ell.core.power.PowerFacts;
import ell.core.power.PowerHints;
import ell.core.power.WarmParts;
import ell.core.quantity.Accuracy;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What the margin says at power: what stands in the way, what to read the next rail with, what to
/// take care of, the heat of the regulators, where to look.
final class PowerMargin {
  private PowerMargin() {}

  /// Says it.
  static Margin say(PowerModel.Shown s) {
    Snapshot.Work work = s.work();
    List<Margin.Note> notes = new ArrayList<>();
    Optional<RailSpec> rail = s.next();
    if (s.refusal().isPresent()) {
      notes.add(
          Margin.Note.plain(
              "No power yet", List.of(s.refusal().get().why(), s.refusal().get().how())));
    }
    for (RailSpec r : work.plan().ladder().supplied()) {
      PowerFacts.of(work.state())
          .reading(r)
          .map(EntryWords::settling)
          .filter(t -> !t.isEmpty())
          .ifPresent(
              t -> notes.add(Margin.Note.plain(r.net() + " is too close to call", List.of(t))));
    }
    rail.ifPresent(r -> {
      double u = Accuracy.handheldVolts(r.volts()).uncertainty(r.volts());
      notes.add(
          Margin.Note.plain(
              "Read " + r.net() + " with",
              List.of(
                  "meter on direct volts, " + Accuracy.handheldVolts(r.volts()),
                  "so "
                      + EngineeringNumber.print(r.volts(), Unit.VOLT, 4)
                      + " is known to ±"
                      + EngineeringNumber.print(u, Unit.VOLT, 2),
                  "tip on " + r.readAt() + ", ground near it",
                  "0 V on a lit board: look at the probe and its coupling first")));
    });
    notes.add(
        Margin.Note.plain(
            "Before you switch on",
            BeforePower.of(work.plan().revision(), work.plan().ladder(), work.state()).stream()
                .map(BeforePower.Item::words)
                .toList()));
    notes.add(
        Margin.Note.care(
            List.of(
                "Cell and modules off the board. Isolated supply only; for mains, local rules and a licensed person.",
                "Eyes covered: a reversed electrolytic bursts. Fingers off: cut the supply first, then touch.")));
    List<String> heat = new ArrayList<>();
    for (LadderState.RegulatorHeat r : s.state().regulators()) {
      heat.add(
          r.step().part()
              + ": "
              + EngineeringNumber.print(r.dissipation(), Unit.WATT, 2)
              + (Double.isFinite(r.junction())
                  ? ", junction " + EngineeringNumber.print(r.junction(), Unit.CELSIUS, 2)
                  : "")
              + ", headroom "
              + EngineeringNumber.print(r.headroomLow(), Unit.VOLT, 3)
              + " at the lowest input");
    }
    for (WarmParts.Warm p : WarmParts.of(work.plan().ladder(), "worst")) {
      p.limits()
          .ifPresent(l ->
              heat.add(
                  p.part()
                      + " feels no warmer than "
                      + EngineeringNumber.print(l.high(), Unit.CELSIUS, 2)
                      + "; log what it is: "
                      + p.part()
                      + " 30 °C"));
    }
    if (!heat.isEmpty()) {
      notes.add(Margin.Note.plain("Regulators at first power", heat));
    }
    List<String> cells = cells(work);
    if (!cells.isEmpty()) {
      notes.add(Margin.Note.plain("Charging", cells));
    }
    List<String> hints = PowerHints.of(work.plan().ladder(), PowerFacts.of(work.state()));
    if (!hints.isEmpty()) {
      notes.add(Margin.Note.plain("What this points to", hints));
    }
    List<String> mind = new ArrayList<>();
    for (LadderFinding f : s.state().findings(work.plan().ladder())) {
      mind.add((f.asks() ? "Is it so? " : "") + f.text());
    }
    if (!mind.isEmpty()) {
      notes.add(Margin.Note.plain("Does not add up", mind));
    }
    notes.add(
        Margin.Note.wrong(
            List.of(
                "at the limit, no volts: a short; beep the rails to ground",
                "right current, one rail dead: an open joint on its way, or a regulator that is not enabled",
                "no current: fuse, reverse protection, cable")));
    return new Margin(Optional.of(s.state().sheet()), notes);
  }

  /// Cells of which somebody said how they act and the book has readings.
  private static List<String> cells(Snapshot.Work work) {
    List<String> lines = new ArrayList<>();
    work.plan()
        .ladder()
        .parts()
        .forEach((part, said) -> {
          if (said.kind().equals("cell") && work.plan().revision().part(part).isPresent()) {
            try {
              ChargedCell c =
                  ChargedCell.of(work.plan().revision(), work.plan().ladder(), part, Map.of());
              List<ChargeWatch.Sample> all = ChargeWatch.samples(work.state(), c.places());
              if (!all.isEmpty()) {
                lines.add(part + ": " + ChargeWatch.of(all, c.expected()).words());
              }
            } catch (IllegalArgumentException e) {
              lines.add(e.getMessage());
            }
          }
        });
    return lines;
  }
}
