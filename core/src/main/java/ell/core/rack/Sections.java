package ell.core.rack;

import ell.core.beep.BeepFacts;
import ell.core.beep.BeepSection;
import ell.core.entry.BoardState;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.heat.HeatFacts;
import ell.core.heat.HeatSection;
import ell.core.jig.JigFacts;
import ell.core.jig.JigSection;
import ell.core.kit.KitFacts;
import ell.core.kit.KitSection;
import ell.core.look.LookSection;
import ell.core.order.OrderFacts;
import ell.core.order.OrderSection;
import ell.core.power.PowerFacts;
import ell.core.power.PowerSection;
import ell.core.print.PrintSection;
import ell.core.prove.ProveFacts;
import ell.core.prove.ProveSection;
import ell.core.pulse.PulseFacts;
import ell.core.pulse.PulseSection;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import ell.core.revise.ReviseFacts;
import ell.core.revise.ReviseSection;
import ell.core.talk.TalkFacts;
import ell.core.talk.TalkSection;
import ell.core.trace.TraceFacts;
import ell.core.trace.TraceSection;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;

/// The parts of a board's record: what each stage has to say, the latest question first.
///
/// @param stage that says it
/// @param of makes the section, empty when there is nothing to say
public record Sections(Stage stage, BiFunction<Plan, BoardState, Optional<Section>> of) {
  /// Of the stages that are built, in the order of the page.
  public static final List<Sections> ALL =
      List.of(
          new Sections(Stage.PROVE, (_, s) -> ProveSection.of(ProveFacts.of(s))),
          new Sections(Stage.REVISE, (_, s) -> ReviseSection.of(ReviseFacts.of(s))),
          new Sections(Stage.POWER, (p, s) -> PowerSection.rails(p.ladder(), PowerFacts.of(s))),
          new Sections(Stage.PULSE, (_, s) -> PulseSection.of(PulseFacts.of(s))),
          new Sections(Stage.TALK, (p, s) -> TalkSection.of(p.talk(), TalkFacts.of(s))),
          new Sections(Stage.TRACE, (_, s) -> TraceSection.of(TraceFacts.of(s))),
          new Sections(Stage.JIG, (_, s) -> JigSection.of(JigFacts.of(s))),
          new Sections(Stage.BEEP, (p, s) -> BeepSection.of(p.beep(), BeepFacts.of(s))),
          new Sections(Stage.POWER, (p, s) -> PowerSection.others(p.ladder(), PowerFacts.of(s))),
          new Sections(Stage.LOOK, (p, s) -> LookSection.of(p.revision(), s)),
          new Sections(Stage.HEAT, (p, s) -> HeatSection.of(p.revision(), HeatFacts.of(s))),
          new Sections(Stage.PRINT, (_, s) -> PrintSection.of(s)),
          new Sections(Stage.KIT, (_, s) -> KitSection.of(KitFacts.of(s))),
          new Sections(
              Stage.ORDER, (p, s) -> Optional.of(OrderSection.of(p.order(), OrderFacts.of(s)))));

  /// All sections of a board: open findings, what the stages say, the book.
  ///
  /// @param log every entry of the board, struck ones too, oldest first
  /// @param stages that have something to say, in the order of the page
  public static List<Section> of(
      Plan plan, BoardState state, List<Logged> log, List<Sections> stages) {
    List<Section> all = new ArrayList<>();
    all.add(findings(state));
    for (Sections s : stages) {
      s.of().apply(plan, state).ifPresent(all::add);
    }
    all.add(book(state, log));
    return all;
  }

  private static Section findings(BoardState s) {
    List<Row> rows = new ArrayList<>();
    s.findings().forEach(f -> rows.add(Section.cells(Tone.BAD, f.place() + " " + f.what())));
    if (rows.isEmpty()) {
      rows.add(Section.cells(Tone.GOOD, "none open"));
    }
    return new Section(
        "Findings",
        s.findings().isEmpty() ? "" : s.findings().size() + " open",
        List.of(1.0),
        rows);
  }

  private static Section book(BoardState s, List<Logged> log) {
    List<Row> rows = new ArrayList<>();
    for (Logged l : log) {
      rows.add(
          Section.cells(
              s.struck().contains(l.number()) ? Tone.STRUCK : Tone.PLAIN,
              String.valueOf(l.number()),
              Section.time(l.at()),
              EntryWords.of(l.entry())));
    }
    return new Section(
        "Book", log.size() + " entries of this board", List.of(0.07, 0.24, 0.69), rows);
  }
}
