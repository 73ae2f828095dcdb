package ell.desk.trace;

import ell.core.trace.Choice;
import ell.core.trace.Finding;
import ell.core.trace.Outcomes;
import ell.core.trace.Probe;
import ell.core.trace.Suspect;
import ell.core.trace.Traced;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// What the margin says of a search: the finding, what the measurement in hand is worth, what to
/// take care of, what is not used.
final class TraceMargin {
  private static final int OTHERS = 6;

  private TraceMargin() {}

  static Margin say(TraceModel.Shown s) {
    Traced t = s.traced();
    List<Margin.Note> notes = new ArrayList<>();
    t.finding().ifPresent(f -> notes.add(Margin.Note.plain("Finding", finding(f))));
    Optional<Suspect> turned = TraceModel.turnedTo(s);
    if (turned.isPresent()) {
      notes.add(Margin.Note.plain("This suspect", suspect(s)));
    } else {
      s.choice().ifPresent(c -> notes.add(Margin.Note.plain("What it takes", takes(c))));
    }
    s.choice().ifPresent(c -> notes.add(Margin.Note.care(care(c.probe().kind()))));
    if (!t.told().isEmpty()) {
      notes.add(Margin.Note.wrong(t.told()));
    }
    t.sister()
        .ifPresent(x ->
            notes.add(
                Margin.Note.plain(
                    "Board or design",
                    List.of("on board " + x.board() + ": " + x.line(), x.why()))));
    notes.add(
        Margin.Note.plain(
            "By key",
            List.of(
                "Up and Down: another measurement; every one of them can be taken",
                "Left and Right: a suspect, and what made its chance",
                "symptoms are typed: U3 hot, LED2 dark, fine while U4 is pressed, comes and goes 3"
                    + " of 10")));
    return new Margin(s.choice().map(c -> TraceModel.sheet(s, c)), notes);
  }

  private static List<String> finding(Finding f) {
    List<String> lines = new ArrayList<>();
    lines.add(
        f.suspect().words()
            + ", "
            + Traced.percent(f.chance())
            + " sure, by entries "
            + String.join(", ", f.evidence().stream().limit(8).map(String::valueOf).toList()));
    lines.addAll(f.todo());
    if (!f.again().isEmpty()) {
      lines.add("afterwards again: " + String.join(", ", f.again()));
    }
    return lines;
  }

  private static List<String> suspect(TraceModel.Shown s) {
    Traced.Group group = s.traced().groups().get(s.suspect());
    Traced.Ranked r = group.members().getFirst();
    List<String> lines = new ArrayList<>();
    lines.add(r.fault() + " has " + Traced.percent(r.chance()) + " now");
    group.members().stream()
        .skip(1)
        .limit(OTHERS)
        .forEach(m -> lines.add(m.fault() + " " + Traced.percent(m.chance())));
    if (group.members().size() > OTHERS + 1) {
      lines.add("and " + (group.members().size() - OTHERS - 1) + " more");
    }
    lines.addAll(r.why());
    lines.add(
        "another chance beforehand: ./ell trace WS --board "
            + s.work().board()
            + " --prior \""
            + r.fault()
            + "=0.01\"");
    return lines;
  }

  private static List<String> takes(Choice c) {
    List<String> lines = new ArrayList<>();
    lines.add(c.why());
    c.supply()
        .ifPresent(f ->
            lines.add(
                String.format(
                    Locale.ROOT, "%s at %.3g V, limit %.3g A", f.net(), f.volts(), f.limit())));
    List<String> words = Outcomes.words(c);
    for (int i = 0; i < words.size(); i++) {
      lines.add((i + 1) + "  " + words.get(i));
    }
    return lines;
  }

  /// What is to be heeded before a measurement of some kind.
  static List<String> care(Probe.Kind kind) {
    return switch (kind) {
      case OHMS ->
          List.of(
              "Power off, cells out, capacitors discharged before the tips touch.",
              "Hold the tip on the lead, not on the pad, and do not press.");
      case ALONG ->
          List.of(
              "Power off, cells out, capacitors discharged before the tips touch.",
              "Four wires, or leads that were zeroed; the other tip stays where it is.");
      case VOLTS, AMPS, WAVE, LIT, PRESS, TALK, SCOPE ->
          List.of(
              "Power only with its limit, and only where the rails were beeped.",
              "A tip that slips joins two pins: insulate all but its point.");
      case TOUCH -> List.of("Hot parts burn: come near with the back of the hand first.");
      case SWAP -> List.of("It heats the part and its neighbours once more; count the heatings.");
      case LOOK -> List.of("Tilt the board and the light; look at the lead, not at the solder.");
    };
  }
}
