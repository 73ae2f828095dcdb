package ell.desk.heat;

import ell.core.board.Joint;
import ell.core.heat.Alloy;
import ell.core.heat.FloorLife;
import ell.core.heat.HeatBudget;
import ell.core.heat.HeatFacts;
import ell.core.heat.JointDemand;
import ell.core.heat.PlateFit;
import ell.core.heat.PlateSchedule;
import ell.core.order.OrderFacts;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import ell.work.heat.Heating;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What the margin says at the heat: the run, the plate, the schedule or a pin, what to take care
/// of, what was heated and what lay open.
final class HeatMargin {
  private final HeatModel.Shown s;
  private final Alloy alloy;
  private final int sheet;
  private final Map<String, FloorLife> bags;
  private final List<Heating.Holed> holes;

  /// @param sheet 0 the run, 1 the plate, 2 the schedule
  /// @param bags parts that lay out of their dry bag, by code
  /// @param holes leads whose thickness is known
  HeatMargin(
      HeatModel.Shown s,
      Alloy alloy,
      int sheet,
      Map<String, FloorLife> bags,
      List<Heating.Holed> holes) {
    this.s = s;
    this.alloy = alloy;
    this.sheet = sheet;
    this.bags = bags;
    this.holes = holes;
  }

  /// Says it.
  Margin say() {
    List<Margin.Note> notes = new ArrayList<>();
    Optional<Worked> working;
    if (s.iron()) {
      working = ironSheet();
      notes.add(
          Margin.Note.plain(
              "In this order",
              List.of(
                  "Tack one light corner, check the seat, then the rest.",
                  "From the middle outwards while the board warms; the pins on planes last.",
                  "Iron on the joint first, then the wire; lowest dial that wets in time.")));
      hole().ifPresent(notes::add);
      notes.add(Margin.Note.care(ironCare()));
      notes.add(
          Margin.Note.wrong(
              List.of(
                  "does not wet in 4 s: a larger tip or a warmed board, not a hotter dial",
                  "the pad moves: stop, it has come loose; wire to the next point of the net",
                  "grey and grainy: it moved while it set; flux and melt it again")));
    } else {
      working =
          switch (sheet) {
            case 1 -> s.fit().map(PlateFit::sheet);
            case 2 -> s.schedule().map(HeatMargin::scheduleSheet);
            default ->
                s.track()
                    .flatMap(t -> s.line().map(t.check()::sheet))
                    .or(() -> s.schedule().map(HeatMargin::scheduleSheet));
          };
      notes.add(Margin.Note.care(plateCare()));
      notes.add(heated());
      outOfTheBag().ifPresent(notes::add);
      notes.add(
          Margin.Note.wrong(
              List.of(
                  "too long above liquidus: a hotter plate, lifted sooner",
                  "ramp too steep: a longer first set point",
                  "paste grainy at the edges: spread between channels, cover it, or turn the board")));
    }
    return new Margin(working, notes);
  }

  private List<String> plateCare() {
    List<String> care = new ArrayList<>();
    care.add("Fumes: extraction on. The plate stays hot: hands off until it is below 50 °C.");
    boolean cell =
        s.work().plan().revision().parts().stream()
            .anyMatch(p ->
                p.kind() == ell.core.board.PartKind.CELL
                    && OrderFacts.of(s.work().state()).placed().contains(p.reference()));
    if (cell) {
      care.add(
          "Never with a cell in its holder; not with electrolytics that are not rated for it.");
    }
    if (alloy.leaded()) {
      care.add(
          "Leaded paste: no food here, wash hands; never mixed with lead-free without a note.");
    }
    care.add("Mains and home-made heaters: data sheet, earth, local rules, a licensed person.");
    return care;
  }

  private List<String> ironCare() {
    List<String> care = new ArrayList<>();
    care.add("Tip near 350 °C: burns. Fumes: extraction on.");
    if (alloy.leaded()) {
      care.add("Leaded wire: no food here, wash hands.");
    }
    return care;
  }

  /// Parts that were heated most, against what they take.
  private Margin.Note heated() {
    List<String> lines =
        HeatFacts.of(s.work().state()).heatCycles().entrySet().stream()
            .sorted(Map.Entry.<String, Integer>comparingByValue().reversed())
            .filter(e -> s.work().plan().revision().part(e.getKey()).isPresent())
            .limit(4)
            .map(e ->
                e.getKey()
                    + ": "
                    + e.getValue()
                    + " of "
                    + HeatBudget.limit(
                        s.work().plan().revision(),
                        s.work().plan().revision().part(e.getKey()).orElseThrow())
                    + " heatings")
            .toList();
    return Margin.Note.plain(
        "Heated so far", lines.isEmpty() ? List.of("nothing on this board") : lines);
  }

  /// Parts that lay out of their dry bag, where somebody said so.
  private Optional<Margin.Note> outOfTheBag() {
    if (bags.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        Margin.Note.plain(
            "Out of the dry bag",
            bags.entrySet().stream()
                .map(e ->
                    e.getKey()
                        + ", level "
                        + e.getValue().level()
                        + ": "
                        + FloorLife.hours(e.getValue().open())
                        + (e.getValue().verdict() == Verdict.OUT
                            ? ", bake first: the label rules"
                            : Double.isInfinite(e.getValue().limit())
                                ? ""
                                : " of " + FloorLife.hours(e.getValue().limit())))
                .toList()));
  }

  /// The lead of the pin in hand in its hole, where its thickness is known.
  private Optional<Margin.Note> hole() {
    if (s.pins().isEmpty()) {
      return Optional.empty();
    }
    Joint j = s.pins().get(s.pin()).joint();
    return holes.stream()
        .filter(h -> h.joint().equals(j))
        .findFirst()
        .map(h ->
            Margin.Note.plain(
                "Lead and hole",
                List.of(
                    h.fit().words()
                        + ": "
                        + EngineeringNumber.print(h.fit().clearance(), Unit.METRE, 2)
                        + " clearance")));
  }

  private Optional<Worked> ironSheet() {
    if (s.pins().isEmpty()) {
      return Optional.empty();
    }
    JointDemand.Pin p = s.pins().get(s.pin());
    return Optional.of(
        p.demand()
            .on(
                Worked.of("heat.joint", "Heat for " + p.joint().place()),
                JointDemand.Tip.BEVEL,
                s.dial(),
                alloy)
            .source(JointDemand.SOURCE)
            .done());
  }

  private static Worked scheduleSheet(PlateSchedule s) {
    Worked.Builder b =
        Worked.of("heat.schedule", "Set points for this plate")
            .line("first", "set point", s.soakSet(), Unit.CELSIUS)
            .line("for", "then the second", s.soakFor(), Unit.SECOND)
            .line("second", "set point", s.peakSet(), Unit.CELSIUS)
            .line("lift off", "after", s.liftAt(), Unit.SECOND)
            .line("reads then", "the board", s.liftTemperature(), Unit.CELSIUS)
            .line("window index", "expected, inside below 100", s.pwi(), Unit.ONE);
    s.warnings().forEach(w -> b.line("cannot", "", w));
    return b.source("search over set points and times on the fitted plate")
        .assume("the board starts cold, and is lifted straight off")
        .done();
  }
}
