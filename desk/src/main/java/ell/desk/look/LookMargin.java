package ell.desk.look;

import ell.core.board.Joint;
import ell.core.entry.BoardState;
import ell.core.heat.HeatBudget;
import ell.core.heat.HeatFacts;
import ell.core.look.DefectKind;
import ell.core.look.Rates;
import ell.core.look.Walk;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// What the margin says on the walk: why a joint is looked at, what a finding may come from, what
/// good looks like, what no lens sees.
final class LookMargin {
  private final LookModel.Shown s;

  LookMargin(LookModel.Shown s) {
    this.s = s;
  }

  /// Says it.
  ///
  /// @param sheet 0 the joint, 1 the rates of the build
  Margin say(int sheet) {
    List<Margin.Note> notes = new ArrayList<>();
    for (BoardState.Finding f : s.findings()) {
      DefectKind.of(f.what())
          .ifPresent(k -> {
            List<String> lines = new ArrayList<>();
            k.causes().forEach(c -> lines.add("perhaps: " + c));
            lines.add("do: " + k.remedy());
            lines.add(
                k.heats()
                    ? "counts a heating of " + BoardState.part(f.place()) + heated(f.place())
                    : "counts no heating");
            notes.add(new Margin.Note(Margin.Kind.WRONG, f.place() + " · " + k.word(), lines));
          });
    }
    Optional<Worked> working =
        sheet == 1 && s.rates().isPresent()
            ? s.rates().map(Rates::sheet)
            : s.stop().map(this::risk);
    notes.add(
        Margin.Note.plain(
            "What good looks like",
            List.of(
                "Solder flows concave from the tip of the pin to the pad and wets both.",
                "Shine is not the point: lead-free is dull.",
                "Nudge each pin with a needle: it must not move.")));
    if (!s.hidden().isEmpty()) {
      notes.add(
          Margin.Note.plain(
              "Not seen by any lens",
              List.of(
                  s.hidden().size()
                      + " joints under bodies: "
                      + String.join(" ", s.hidden().stream().limit(8).map(Joint::place).toList()),
                  "Beep and Prove cover them.")));
    }
    notes.add(
        Margin.Note.care(
            List.of(
                "Alcohol burns: not near the hot plate or the iron.",
                "Eyes: look away every few minutes; the lamp low.")));
    return new Margin(working, notes);
  }

  private String heated(String place) {
    String part = BoardState.part(place);
    return s.work()
        .plan()
        .revision()
        .part(part)
        .map(p ->
            ": "
                + HeatFacts.of(s.work().state()).heatCycles().getOrDefault(part, 0)
                + " of "
                + HeatBudget.limit(s.work().plan().revision(), p)
                + " so far")
        .orElse("");
  }

  private Worked risk(Walk.Stop stop) {
    Worked.Builder b =
        Worked.of("look.joint", "Why " + stop.joint().place() + " is looked at")
            .line("risk", "chance of a defect, in a million", stop.risk() * 1e6, Unit.ONE)
            .line(
                "pad",
                "by the netlist",
                String.format(
                    Locale.ROOT, "%.2f × %.2f mm", stop.joint().widthMm(), stop.joint().heightMm()))
            .line("net", "", stop.joint().net().isEmpty() ? "none" : stop.joint().net());
    s
        .rates()
        .map(r -> r.by().getOrDefault(Rates.Sorting.PART, List.of()))
        .orElse(List.of())
        .stream()
        .filter(g -> g.name().equals(stop.joint().part()))
        .findFirst()
        .ifPresent(g ->
            b.line(
                "this bench",
                "defects of " + stop.joint().part() + " over opportunities",
                g.defects() + " of " + g.opportunities()));
    return b.source(
            "pitch, package, method and print: typical, no source; mixed with what this bench saw")
        .assume("acceptance by IPC-A-610 class 2, from memory; the maker decides")
        .done();
  }
}
