package ell.work.send;

import ell.book.RevisionStore;
import ell.core.board.Revision;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.order.Method;
import ell.core.power.Ladder;
import ell.core.record.BoardRecord;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import ell.core.revise.BodgeDrawing;
import ell.core.revise.BodgeMatrix;
import ell.core.revise.BodgeStep;
import ell.core.revise.ChangeCheck;
import ell.core.revise.Ends;
import ell.core.revise.Erratum;
import ell.core.revise.Improvements;
import ell.core.revise.Severity;
import ell.core.revise.Stand;
import ell.core.revise.WorkOrder;
import ell.core.revise.difference.RevisionDifference;
import ell.files.Output;
import ell.files.csv.CsvFiles;
import ell.files.pdf.RecordPdf;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;

/// The change list of a revision as a file, with a card for each bodge and the work that is left.
public final class ChangeListFiles {
  private ChangeListFiles() {}

  /// Writes it: a page to print, a table, or data, by the ending of the file.
  ///
  /// @throws ActException when the ending is none of `.pdf`, `.csv` and `.json`
  public static void write(Workshop w, String design, String name, Path to, Output.Over over)
      throws IOException, ActException {
    String file = to.getFileName().toString().toLowerCase(Locale.ROOT);
    if (file.endsWith(".pdf")) {
      RecordPdf.write(record(w, design, name), w.book()::photograph, to, over);
    } else if (file.endsWith(".csv")) {
      Output.write(to, csv(w, design, name).getBytes(StandardCharsets.UTF_8), over);
    } else {
      throw new ActException(
          "the change list is written as .pdf or .csv, found '"
              + to.getFileName()
              + "'; as data: revise --changes --json");
    }
  }

  /// Revisions of the design that were brought in after one, oldest first.
  public static List<String> later(Workshop w, RevisionStore.Id id) throws IOException {
    List<String> all = w.revising().revisions(id.design());
    int at = all.indexOf(id.name());
    return at < 0 ? List.of() : all.subList(at + 1, all.size());
  }

  /// What the jig of a revision would want of the next one; empty where none can be planned.
  public static List<String> advice(Workshop w, RevisionStore.Id id) throws IOException {
    try {
      return w
          .jigs()
          .plan(w.plans().of(id.design(), id.name(), Method.of("stencil-plate"), "", 1), List.of())
          .advice()
          .stream()
          .filter(a -> a.contains("test point"))
          .toList();
    } catch (ActException | IllegalArgumentException e) {
      return List.of(); // no jig, no advice
    }
  }

  private static String csv(Workshop w, String design, String name)
      throws IOException, ActException {
    List<List<String>> rows = new ArrayList<>();
    rows.add(
        List.of(
            "Id",
            "Title",
            "Severity",
            "Places",
            "Fault",
            "Fix",
            "Bodge",
            "Proof",
            "State",
            "Taught by"));
    BodgeMatrix m = w.revising().matrix(Optional.of(design));
    for (Erratum e : w.revising().changes(design, name)) {
      rows.add(
          List.of(
              e.id(),
              e.title(),
              e.severity().key(),
              String.join(" ", e.places()),
              e.faultWords(),
              e.fixWords(),
              e.bodge().stream().map(BodgeStep::text).collect(Collectors.joining("; ")),
              e.shows().map(ell.core.revise.Proof::text).orElse(""),
              m.state(e),
              e.taughtBy().stream().map(String::valueOf).collect(Collectors.joining(" "))));
    }
    StringWriter text = new StringWriter();
    CsvFiles.table(rows.getFirst(), rows.subList(1, rows.size()), text);
    return text.toString();
  }

  /// The record behind the page.
  public static BoardRecord record(Workshop w, String design, String name)
      throws IOException, ActException {
    AsOf as = AsOf.of(w, OptionalLong.empty());
    Revision revision = w.revision(design, name);
    RevisionStore.Id id = new RevisionStore.Id(design, name);
    List<Erratum> items = w.revising().changes(design, name);
    BodgeMatrix m = w.revising().matrix(Optional.of(design));
    List<Section> sections = new ArrayList<>();
    sections.add(list(w, items, m));
    checked(w, id).ifPresent(sections::add);
    for (Erratum e : items) {
      if (e.severity() != Severity.WISH) {
        sections.add(card(e, revision, w.ladder(design, name), m));
      }
    }
    sections.add(left(w.revising().workOrder(m)));
    sections.add(suggested(w, id));
    long open = items.stream().filter(e -> e.severity() != Severity.WISH).count();
    return new BoardRecord(
        "change list",
        "After rev " + name,
        revision.title(),
        items.size() + (items.size() == 1 ? " item" : " items"),
        open
            + (open == 1 ? " mistake, " : " mistakes, ")
            + (items.size() - open)
            + (items.size() - open == 1 ? " wish" : " wishes"),
        as.words(),
        as.seal(),
        sections);
  }

  private static Section list(Workshop w, List<Erratum> items, BodgeMatrix m) throws IOException {
    List<Row> rows = new ArrayList<>();
    for (Erratum e : items) {
      rows.add(
          Section.cells(
              e.severity().holds() ? Tone.PLAIN : Tone.SOFT,
              e.id(),
              e.severity().key(),
              e.title(),
              m.state(e)));
      for (long n : e.taughtBy()) {
        Optional<Logged> l = w.book().entry(n);
        if (l.isPresent()) {
          rows.add(
              Section.cells(
                  Tone.SOFT,
                  "",
                  String.valueOf(n),
                  l.get().board() + ": " + EntryWords.of(l.get().entry())));
        }
      }
    }
    if (rows.isEmpty()) {
      rows.add(Section.cells(Tone.SOFT, "nothing is written down"));
    }
    return new Section(
        "What the next revision must have",
        items.size() + (items.size() == 1 ? " item" : " items"),
        List.of(0.08, 0.12, 0.68, 0.12),
        rows);
  }

  private static Optional<Section> checked(Workshop w, RevisionStore.Id id)
      throws IOException, ActException {
    List<String> later = later(w, id);
    if (later.isEmpty()) {
      return Optional.empty();
    }
    String to = later.getFirst();
    RevisionDifference d = w.revising().difference(id.design(), id.name(), to);
    ChangeCheck c = w.revising().check(d, id.design(), id.name(), to);
    List<Row> rows = new ArrayList<>();
    for (ChangeCheck.Change x : c.changes()) {
      Tone tone =
          switch (x.state()) {
            case DONE -> Tone.GOOD;
            case PARTLY -> Tone.PLAIN;
            case FORGOTTEN -> Tone.BAD;
          };
      rows.add(Section.cells(tone, x.item().id(), x.state().key(), x.item().title()));
      x.evidence().forEach(e -> rows.add(Section.cells(Tone.SOFT, "", "", e)));
    }
    c.unexplained().forEach(u -> rows.add(Section.cells(Tone.PLAIN, "", "unasked", u)));
    if (rows.isEmpty()) {
      rows.add(Section.cells(Tone.SOFT, "nothing was asked for, and nothing changed"));
    }
    return Optional.of(
        new Section("Held against revision " + to, "", List.of(0.08, 0.12, 0.8), rows));
  }

  private static Section card(Erratum e, Revision revision, Ladder ladder, BodgeMatrix m) {
    List<Row> rows = new ArrayList<>();
    BodgeDrawing.of(e, revision).ifPresent(rows::add);
    int n = 1;
    for (BodgeStep s : e.bodge()) {
      Optional<Ends.Wire> wire = Ends.wire(s, revision, ladder);
      rows.add(
          Section.cells(
              Tone.PLAIN,
              String.valueOf(n++),
              s.text(),
              wire.map(x ->
                      String.format(
                          Locale.ROOT,
                          "AWG %d, %.0f mm%s",
                          x.gauge(),
                          1000 * x.metres(),
                          x.guessed() ? " (current not known, a signal is taken)" : ""))
                  .orElse("")));
    }
    if (e.bodge().isEmpty()) {
      rows.add(Section.cells(Tone.BAD, "", "nobody has said how it is mended"));
    }
    e.shows().ifPresent(p -> rows.add(Section.cells(Tone.GOOD, "", "shown by", p.text())));
    for (Stand.State s : Stand.State.values()) {
      List<String> boards =
          m.boards().stream()
              .filter(b ->
                  e.of(b.revision().design(), b.revision().name())
                      && b.stands().get(e.id()).state() == s)
              .map(BodgeMatrix.Row::board)
              .toList();
      if (!boards.isEmpty()) {
        rows.add(Section.cells(Tone.SOFT, "", s.words(), String.join(" ", boards)));
      }
    }
    rows.add(
        Section.cells(
            Tone.SOFT,
            "",
            "Power off, cell out. Glasses on where leads are cut; fumes drawn off. Data sheets and"
                + " local rules come first."));
    return new Section(
        e.id() + " \u00b7 " + e.title(),
        String.format(Locale.ROOT, "%.0f min a board, typical", e.minutes()),
        List.of(0.06, 0.34, 0.6),
        rows);
  }

  private static Section left(WorkOrder o) {
    List<Row> rows = new ArrayList<>();
    for (WorkOrder.Job j : o.boards()) {
      rows.add(
          Section.cells(
              Tone.PLAIN,
              j.board(),
              String.format(Locale.ROOT, "%.0f min", j.minutes()),
              j.steps().stream()
                  .map(d -> d.erratum() + " " + d.step().text())
                  .collect(Collectors.joining("; "))));
    }
    for (Map.Entry<String, Integer> p : o.parts().entrySet()) {
      rows.add(Section.cells(Tone.SOFT, "", "parts", p.getValue() + " x " + p.getKey()));
    }
    for (Map.Entry<Integer, Double> x : o.wire().entrySet()) {
      rows.add(
          Section.cells(
              Tone.SOFT,
              "",
              "wire",
              String.format(Locale.ROOT, "%.2f m of AWG %d", x.getValue(), x.getKey())));
    }
    o.told().forEach(t -> rows.add(Section.cells(Tone.SOFT, "", "", t)));
    if (rows.isEmpty()) {
      rows.add(Section.cells(Tone.GOOD, "no board is left to be mended"));
    }
    return new Section(
        "Work that is left",
        String.format(Locale.ROOT, "%.0f min", o.minutes()),
        List.of(0.1, 0.12, 0.78),
        rows);
  }

  private static Section suggested(Workshop w, RevisionStore.Id id)
      throws IOException, ActException {
    List<Row> rows = new ArrayList<>();
    for (Improvements.Suggestion s :
        w.revising().suggestions(id.design(), id.name(), advice(w, id))) {
      rows.add(Section.cells(Tone.SOFT, s.title(), s.why()));
    }
    if (rows.isEmpty()) {
      rows.add(Section.cells(Tone.SOFT, "nothing beyond what is written down"));
    }
    return new Section("What the books suggest", "", List.of(0.55, 0.45), rows);
  }
}
