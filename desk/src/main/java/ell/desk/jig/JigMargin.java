package ell.desk.jig;

import ell.core.jig.Bending;
import ell.core.jig.JigPlan;
import ell.core.jig.JigSheets;
import ell.core.jig.Probe;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// What the margin says of a jig: the sheet of what is turned to, what is not reached and why, what
/// to take care of.
final class JigMargin {
  private static final int MOST = 6;

  private JigMargin() {}

  static Margin say(JigModel.Shown s) {
    JigPlan p = s.plan();
    List<Margin.Note> notes = new ArrayList<>();
    if (s.finger() >= 0) {
      notes.add(Margin.Note.plain("This finger", finger(s)));
    }
    if (!p.unreachable().isEmpty()) {
      List<String> lines = new ArrayList<>();
      p.unreachable().stream().limit(MOST).forEach(u -> lines.add(u.net() + ": " + u.why()));
      if (p.unreachable().size() > MOST) {
        lines.add("and " + (p.unreachable().size() - MOST) + " more; see ./ell jig");
      }
      notes.add(Margin.Note.plain("Not reached", lines));
    }
    notes.add(
        Margin.Note.care(
            List.of(
                "Brittle sheet: clamp it, drill slowly, step the drill up, protect the eyes.",
                "Springs and plates pinch. Switch the supplies off before the board is laid in.")));
    if (!p.advice().isEmpty() || !p.bending().told().isEmpty()) {
      List<String> lines = new ArrayList<>(p.advice());
      p.bending().told().stream().filter(t -> !lines.contains(t)).forEach(lines::add);
      notes.add(Margin.Note.wrong(lines.stream().limit(MOST + 2L).toList()));
    }
    notes.add(
        Margin.Note.plain(
            "By key",
            List.of(
                "Up and Down: the next probe or finger; Left and Right: fingers, what it is worth",
                "Shift and an arrow move the finger by 1 mm; K keeps it, L lets Ell choose",
                "typical values are put right: ./ell jig WS --say thickness=1.0mm",
                "jig J1 built, jig J1 check good, jig J1 closed: the jig's own book")));
    return new Margin(p.probes().isEmpty() ? Optional.empty() : Optional.of(sheet(s)), notes);
  }

  private static Worked sheet(JigModel.Shown s) {
    Optional<Probe> probe = s.probe();
    return probe.isPresent()
        ? JigSheets.probe(s.plan(), probe.get())
        : s.finger() >= 0 ? JigSheets.bending(s.plan()) : JigSheets.worth(s.plan());
  }

  private static List<String> finger(JigModel.Shown s) {
    Bending b = s.plan().bending();
    Bending.Finger f = b.fingers().get(s.finger());
    List<String> lines = new ArrayList<>();
    lines.add(
        String.format(
            Locale.ROOT, "at %.1f, %.1f mm, bears %s", f.xMm(), f.yMm(), JigView.bears(b, f, 2)));
    b.brittle().stream()
        .limit(3)
        .forEach(x ->
            lines.add(
                String.format(
                    Locale.ROOT,
                    "under %s %.0f millionths, %.1f mm from a finger",
                    x.part(),
                    1e6 * x.strain(),
                    x.fingerMm())));
    return lines;
  }
}
