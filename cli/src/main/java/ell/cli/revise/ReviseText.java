package ell.cli.revise;

import ell.core.revise.BodgeMatrix;
import ell.core.revise.BodgeStep;
import ell.core.revise.Compared;
import ell.core.revise.Erratum;
import ell.core.revise.Improvements;
import ell.core.revise.Lessons;
import ell.core.revise.RespinSaid;
import ell.core.revise.Stacks;
import ell.core.revise.Stand;
import ell.core.revise.WayOut;
import ell.core.revise.WorkOrder;
import ell.work.revise.Revising;
import java.io.PrintWriter;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/// What `revise` says to people.
final class ReviseText {
  private static final int MOST = 12;

  private final PrintWriter out;

  ReviseText(PrintWriter out) {
    this.out = out;
  }

  private void line(String format, Object... args) {
    out.printf(Locale.ROOT, format + "%n", args);
  }

  void matrix(BodgeMatrix m, WorkOrder order) {
    if (m.errata().isEmpty()) {
      line(
          "no erratum is written down; on the tape: erratum, erratum from N, or erratum WORDS; see"
              + " revise --changes for what the books suggest");
      return;
    }
    for (Erratum e : m.errata()) {
      line(
          "%-4s %-7s %s rev %s: %s (%s)",
          e.id(),
          m.state(e),
          e.design(),
          String.join(", ", e.revisions()),
          e.title(),
          e.severity().key());
      if (!e.bodge().isEmpty()) {
        line(
            "       mended by %s",
            e.bodge().stream().map(BodgeStep::text).collect(Collectors.joining("; ")));
        if (e.proposed()) {
          line("       (proposed: erratum %s bodge STEPS says it otherwise)", e.id());
        }
      }
      e.shows().ifPresent(p -> line("       shown by %s", p.text()));
      for (Stand.State s : Stand.State.values()) {
        List<String> boards =
            m.boards().stream()
                .filter(b -> b.stands().get(e.id()).state() == s)
                .filter(b -> e.of(b.revision().design(), b.revision().name()))
                .map(BodgeMatrix.Row::board)
                .toList();
        if (!boards.isEmpty()) {
          line("       %-18s %s", s.words(), String.join(" ", boards));
        }
      }
    }
    if (!order.boards().isEmpty()) {
      line("");
      line("to be done, each board once:");
    }
    for (WorkOrder.Job j : order.boards()) {
      line(
          "  %-6s %s: %s; %.0f min%s",
          j.board(),
          String.join(" ", j.errata()),
          j.steps().stream().map(s -> s.step().text()).collect(Collectors.joining("; ")),
          j.minutes(),
          j.heats().isEmpty()
              ? ""
              : ", heats "
                  + j.heats().entrySet().stream()
                      .map(
                          h -> h.getKey() + (h.getValue() > 1 ? " " + h.getValue() + " times" : ""))
                      .collect(Collectors.joining(", ")));
    }
    if (!order.boards().isEmpty()) {
      line("  %.0f min in all", order.minutes());
    }
    order.parts().forEach((code, n) -> line("  parts: %d x %s", n, code));
    order.wire().forEach((gauge, metres) -> line("  wire: %.2f m of AWG %d", metres, gauge));
    order.told().forEach(t -> line("\u00b7 %s", t));
  }

  void way(String title, RespinSaid.Question q, WayOut w, List<Revising.Decided> decided) {
    line(
        "%s, %d boards left%s",
        title,
        w.asked().boards(),
        w.asked().spent() > 0 ? ", " + w.asked().spent() + " of them bear no more heat" : "");
    for (WayOut.Way y : List.of(w.rework(), w.respin(), w.pause())) {
      line(
          "  %-7s %10.2f  %6.1f days%s",
          y.name(), y.cost(), y.days(), y.name().equals(w.choice().name()) ? "  <- cheapest" : "");
    }
    line("  %s", w.turns());
    if (q.tried() > 0) {
      line(
          "  by %d of %d bodges that held, %.0f %% sure",
          q.succeeded(), q.tried(), 100 * w.sure(q.succeeded(), q.tried()));
    }
    q.guessed().forEach(g -> line("\u00b7 %s", g));
    if (!q.guessed().isEmpty()) {
      line("\u00b7 say what you know: --say NAME=VALUE");
    }
    decisions(decided);
  }

  void decisions(List<Revising.Decided> decided) {
    for (Revising.Decided d : decided) {
      line(
          "%d decided: %s%s, %s; %s",
          d.entry().number(),
          d.decision().choice(),
          d.decision().about().isEmpty() ? "" : " for " + d.decision().about(),
          d.decision().why(),
          d.since());
    }
  }

  void changes(
      String title,
      List<Erratum> items,
      List<Improvements.Suggestion> suggestions,
      List<String> later) {
    line("for the revision after %s:", title);
    for (Erratum e : items) {
      line(
          "  %-4s %-6s %s%s",
          e.id(), e.severity().key(), e.title(), e.fixWords().isBlank() ? "" : ": " + e.fixWords());
      if (!e.taughtBy().isEmpty()) {
        line(
            "         taught by entries %s",
            e.taughtBy().stream().map(String::valueOf).collect(Collectors.joining(", ")));
      }
    }
    if (items.isEmpty()) {
      line("  nothing is written down");
    }
    if (!suggestions.isEmpty()) {
      line("the books suggest (take one with: wish WORDS, or erratum from N):");
      for (Improvements.Suggestion s : suggestions) {
        line(
            "  %s; %s%s",
            s.title(),
            s.why(),
            s.taughtBy().isEmpty() ? "" : " (entry " + s.taughtBy().getFirst() + ")");
      }
    }
    if (!later.isEmpty()) {
      line("held against revision %s: diff --from ... --to %s", later.getFirst(), later.getFirst());
    }
  }

  void compared(Compared c) {
    for (Compared.Group g : c.groups()) {
      line(
          "%-18s %d of %d judged good at first%s; %d defects on %d joints%s",
          g.name(),
          g.good(),
          g.judged(),
          g.yield()
              .map(i ->
                  String.format(Locale.ROOT, " (%.0f to %.0f %%)", 100 * i.low(), 100 * i.high()))
              .orElse(""),
          g.all(),
          g.joints(),
          g.timed() > 0
              ? String.format(Locale.ROOT, "; %.0f min a board (%d timed)", g.minutes(), g.timed())
              : "");
      if (!Double.isNaN(g.cost())) {
        line("    parts and timed work %.2f a board", g.cost());
      }
      g.defects().forEach((k, n) -> line("    %-12s %d", k, n));
    }
    c.pairs().forEach(p -> line("%s to %s: %s", p.before(), p.after(), p.words()));
    if (c.groups().isEmpty()) {
      line("no board was made yet");
    }
  }

  void stacks(Stacks s) {
    for (Stacks.Tried t : s.tried()) {
      line(
          "%-10s %s: %s%s",
          t.name(),
          t.members().stream()
              .map(m -> m.name() + (m.revision().isEmpty() ? "" : " (" + m.revision() + ")"))
              .collect(Collectors.joining(" + ")),
          t.verdict().words(),
          t.mayShip() ? ", may be shipped together" : "");
      t.changed().forEach(x -> line("           %s", x));
    }
    s.words().forEach((k, v) -> line("%s: %s", k, v));
    if (s.tried().isEmpty()) {
      line("no boards were tried together; on the tape: stack NAME with BOARD: works");
    }
  }

  void lessons(Lessons l) {
    for (Lessons.Way w : Lessons.Way.values()) {
      List<Lessons.Count> all = l.by().getOrDefault(w, List.of());
      if (!all.isEmpty()) {
        line("by %s:", w.key());
      }
      all.stream()
          .limit(MOST)
          .forEach(c ->
              line(
                  "  %-18s %d of %d, expect %.2g (%.2g to %.2g)%s",
                  c.name(),
                  c.wrong(),
                  c.of(),
                  c.rate(),
                  c.interval().low(),
                  c.interval().high(),
                  c.designs() > 1 ? ", " + c.designs() + " designs" : ""));
      if (all.size() > MOST) {
        line("  and %d more (--json has all)", all.size() - MOST);
      }
    }
    if (l.by().values().stream().allMatch(List::isEmpty)) {
      line("no part was placed on any board yet: nothing was learned");
    }
    l.told().forEach(t -> line("\u00b7 %s", t));
  }
}
