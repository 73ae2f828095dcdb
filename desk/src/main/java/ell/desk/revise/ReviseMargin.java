package ell.desk.revise;

import ell.core.catalogue.Catalogue;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.Fault;
import ell.core.revise.Erratum;
import ell.core.revise.Lessons;
import ell.core.revise.Proof;
import ell.core.revise.RespinSaid;
import ell.core.revise.Severity;
import ell.core.revise.WayOut;
import ell.core.revise.WorkOrder;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// What the margin says at errata: what this one asks of other stages, the work that is left, what
/// is guessed; and the worked sheet of what to do about the boards.
final class ReviseMargin {
  private static final int MOST = 6;

  private ReviseMargin() {}

  static Margin say(ReviseModel.Shown s) {
    List<Margin.Note> notes = new ArrayList<>();
    switch (s.page()) {
      case BOARDS -> {
        s.erratum().ifPresent(e -> notes.add(asks(s, e)));
        WorkOrder o = s.answer().order();
        if (!o.boards().isEmpty() || !o.told().isEmpty()) {
          notes.add(left(o));
        }
        s.answer()
            .question()
            .filter(q -> !q.guessed().isEmpty())
            .ifPresent(q ->
                notes.add(Margin.Note.plain("Guessed; V says what you know", few(q.guessed()))));
        decisions(s, notes);
        notes.add(
            Margin.Note.care(
                List.of(
                    "Power off, cell out, glasses on where a lead or a track is cut; fumes drawn off."
                        + " What a wire may carry and where it may lie is for its data sheet and local"
                        + " rules to say.")));
      }
      case CHANGES -> {
        s.item().ifPresent(e -> notes.add(taught(s, e)));
        notes.add(
            Margin.Note.plain(
                "How it is held against the drawing",
                List.of(
                    "parts and nets are matched by what they join, whatever they are called",
                    "a fix in words cannot be held against files: say it in steps, key G",
                    "what changed and nothing asks for stands at the end")));
      }
      case LEARNED -> notes.add(learned(s));
    }
    return new Margin(s.page() == ReviseModel.Page.BOARDS ? sheet(s) : Optional.empty(), notes);
  }

  private static Margin.Note asks(ReviseModel.Shown s, Erratum e) {
    List<String> of = new ArrayList<>();
    of.add(e.severity().key() + ": " + e.severity().words());
    if (e.severity().holds()) {
      of.add("Order: its gate, and use, wait until it is mended");
    }
    e.shows()
        .ifPresent(
            p -> of.add((p.beeps() ? "Beep: " : "Proof: ") + p.text() + " shows that it is"));
    if (e.shows().isEmpty()) {
      of.add("nothing shows yet that a board is mended: key P says what does");
    }
    if (e.fault().isPresent() && !drawn(s, e)) {
      of.add("Trace: " + e.faultWords() + " is expected where it is not mended");
    }
    if (!e.taughtBy().isEmpty()) {
      of.add(
          "taught by "
              + (e.taughtBy().size() == 1 ? "entry " : "entries ")
              + String.join(", ", e.taughtBy().stream().map(String::valueOf).toList()));
    }
    return Margin.Note.plain(e.id(), of);
  }

  /// Whether the drawing itself has the fault: then Trace knows it from there.
  private static boolean drawn(ReviseModel.Shown s, Erratum e) {
    return e.fault().orElseThrow() instanceof Fault.Tied t
        && s.board()
            .flatMap(b -> b.revision().joint(t.part(), t.pin()))
            .filter(j -> j.net().equals(t.net()))
            .isPresent();
  }

  private static Margin.Note left(WorkOrder o) {
    List<String> of = new ArrayList<>();
    for (WorkOrder.Job j : o.boards().stream().limit(MOST).toList()) {
      of.add(
          String.format(
              Locale.ROOT,
              "%s: %s, %.0f min%s",
              j.board(),
              String.join(" ", j.errata()),
              j.minutes(),
              j.heats().isEmpty() ? "" : ", heats " + String.join(" ", j.heats().keySet())));
    }
    if (o.boards().size() > MOST) {
      of.add("and " + (o.boards().size() - MOST) + " more boards");
    }
    o.parts().forEach((code, n) -> of.add("parts: " + n + " x " + code));
    o.wire().forEach((g, m) -> of.add(String.format(Locale.ROOT, "wire: %.2f m of AWG %d", m, g)));
    of.addAll(o.told());
    return Margin.Note.plain(String.format(Locale.ROOT, "Left to mend, %.0f min", o.minutes()), of);
  }

  private static void decisions(ReviseModel.Shown s, List<Margin.Note> notes) {
    if (!s.answer().decided().isEmpty()) {
      notes.add(
          Margin.Note.plain(
              "Decided",
              few(
                  s.answer().decided().reversed().stream()
                      .map(
                          d -> d.decision().choice() + ", " + d.decision().why() + "; " + d.since())
                      .toList())));
    }
  }

  private static Margin.Note taught(ReviseModel.Shown s, Erratum e) {
    List<String> of = new ArrayList<>();
    for (Logged l : s.answer().work().log()) {
      if (e.taughtBy().contains(l.number())) {
        of.add(l.number() + " " + EntryWords.of(l.entry()));
      }
    }
    if (of.isEmpty()) {
      of.add(
          e.taughtBy().isEmpty()
              ? "nobody has named an entry that taught it"
              : "entries "
                  + String.join(", ", e.taughtBy().stream().map(String::valueOf).toList())
                  + " of other boards");
    }
    e.shows().map(Proof::text).ifPresent(p -> of.add("shown by " + p));
    return Margin.Note.plain("Taught by", few(of));
  }

  private static Margin.Note learned(ReviseModel.Shown s) {
    List<String> of = new ArrayList<>();
    if (s.learned().isEmpty()) {
      return Margin.Note.plain("How to read it", List.of("the books are being read"));
    }
    of.addAll(s.learned().get().lessons().told());
    of.add("a whisker is the interval that so many allow: 95 % for boards, 90 % for parts");
    of.add("what never went wrong in few is not known to be good");
    for (Lessons.Way w : Lessons.Way.values()) {
      int n = s.learned().get().lessons().by().getOrDefault(w, List.of()).size();
      of.add(n + (n == 1 ? " " : " different ") + w.key() + (n == 1 ? "" : "s") + " counted");
    }
    return Margin.Note.plain("How to read it", of);
  }

  private static List<String> few(List<String> all) {
    if (all.size() <= MOST) {
      return all;
    }
    List<String> some = new ArrayList<>(all.subList(0, MOST));
    some.add("and " + (all.size() - MOST) + " more");
    return some;
  }

  private static Optional<Worked> sheet(ReviseModel.Shown s) {
    Optional<WayOut> w = s.answer().way();
    if (w.isEmpty()) {
      return Optional.empty();
    }
    WayOut.Asked a = w.get().asked();
    Map<String, String> in = new LinkedHashMap<>();
    in.put("successChance", String.valueOf(a.successChance()));
    in.put("boards", String.valueOf(a.boards()));
    in.put("boardCost", String.valueOf(a.boardCost()));
    in.put("partsCost", String.valueOf(a.partsCost()));
    in.put("reworkHours", String.valueOf(a.reworkHours()));
    in.put("hourRate", String.valueOf(a.hourRate()));
    in.put("leadDays", String.valueOf(a.leadDays()));
    in.put("delayPerDay", String.valueOf(a.delayPerDay()));
    in.put("escapeChance", String.valueOf(a.escapeChance()));
    in.put("escapeCost", String.valueOf(a.escapeCost()));
    in.put("nextDays", String.valueOf(a.nextDays()));
    in.put("spent", String.valueOf(a.spent()));
    RespinSaid.Question q = s.answer().question().orElseThrow();
    if (q.tried() > 0) {
      in.put("succeeded", String.valueOf(q.succeeded()));
      in.put("tried", String.valueOf(q.tried()));
    }
    try {
      return Optional.of(Catalogue.work("revise.decide", in));
    } catch (SheetProblem e) {
      return Optional.empty(); // a number outside of what the sheet takes
    }
  }

  /// Whether a severity is bad enough to be set in bold.
  static boolean loud(Severity s) {
    return s == Severity.HARM;
  }
}
