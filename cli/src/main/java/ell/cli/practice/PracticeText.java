package ell.cli.practice;

import ell.core.power.FaultWords;
import ell.core.practice.Account;
import ell.core.practice.BestRun;
import ell.core.practice.Level;
import ell.core.trace.Choice;
import ell.work.practice.Practice;
import ell.work.practice.Runs;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// Practice in words.
final class PracticeText {
  private PracticeText() {}

  static void course(PrintWriter out, List<Runs.Run> runs) {
    for (Level l : Level.course()) {
      List<Runs.Run> own = runs.stream().filter(r -> r.level() == l.number()).toList();
      long right = own.stream().filter(Runs.Run::right).count();
      out.println(
          l.number()
              + "  "
              + l.title()
              + (own.isEmpty()
                  ? ""
                  : "  ·  "
                      + own.size()
                      + (own.size() == 1 ? " run, " : " runs, ")
                      + right
                      + " right"
                      + ratio(own)));
      out.println("   " + l.lesson());
    }
    if (runs.isEmpty()) {
      out.println("begin with: practice FILE --level 1");
      return;
    }
    out.println();
    for (Runs.Run r : runs.subList(Math.max(0, runs.size() - 12), runs.size())) {
      out.println(
          r.at().toLocalDate()
              + "  "
              + r.board()
              + "  "
              + (r.level() == 0 ? "a case" : "level " + r.level())
              + "  "
              + (r.right() ? "found" : "not found")
              + "  "
              + PracticeCommand.minutes(r.minutes())
              + ", the best takes "
              + PracticeCommand.minutes(r.best())
              + (r.parts() > 0 ? ", " + r.parts() + " parts" : ""));
    }
  }

  private static String ratio(List<Runs.Run> own) {
    return own.stream()
        .filter(r -> r.right() && r.best() > 0)
        .mapToDouble(r -> r.minutes() / r.best())
        .average()
        .stream()
        .mapToObj(x -> String.format(Locale.ROOT, ", %.1f times the best run's minutes", x))
        .findFirst()
        .orElse("");
  }

  static void print(
      PrintWriter out,
      Path file,
      Practice p,
      Account a,
      Optional<BestRun> best,
      List<Practice.Better> better)
      throws Exception {
    out.println(
        "practice · board "
            + p.board()
            + " · "
            + (p.level() == 0 ? "" : "level " + p.level() + ", ")
            + p.title());
    out.println(p.words());
    if (!a.over()) {
      out.println(
          Account.measurements(a.looks().size())
              + ", "
              + PracticeCommand.minutes(a.minutes())
              + parts(a)
              + " so far");
      out.println(
          "go on with: open "
              + file
              + ", or: trace "
              + file
              + " --board "
              + p.board()
              + " --measure --sim");
      out.println(
          "when you know it: log "
              + file
              + " --board "
              + p.board()
              + " \"found open PART.PIN\"; or: practice "
              + file
              + " --give-up");
      return;
    }
    out.println();
    out.println("it is: " + String.join(", ", p.faults().stream().map(FaultWords::words).toList()));
    out.println(
        a.found().isEmpty()
            ? "given up after " + Account.measurements(a.looks().size())
            : (a.right() ? "found: " : "not found; you said: ") + a.found());
    out.println(
        Account.measurements(a.looks().size())
            + ", "
            + PracticeCommand.minutes(a.minutes())
            + parts(a));
    out.println();
    for (Account.Look k : a.looks()) {
      Optional<Choice> c =
          better.stream()
              .filter(b -> b.entry() == k.entry())
              .findFirst()
              .flatMap(Practice.Better::choice);
      out.println(
          String.format(
              Locale.ROOT,
              "%5d  %-38s %+5.2f bit, %5.2f left, %s%s",
              k.entry(),
              k.words().length() > 38 ? k.words().substring(0, 37) + "…" : k.words(),
              k.bits(),
              k.left(),
              PracticeCommand.minutes(k.minutes()),
              c.map(x ->
                      String.format(
                          Locale.ROOT,
                          "; best then: %s, %.2f bit expected",
                          x.probe().line(),
                          x.information()))
                  .orElse("")));
    }
    BestRun b = best.orElseThrow();
    out.println();
    out.println(
        String.format(
            Locale.ROOT,
            "the best run: %s, %s%s; %.1f bit were not known, which takes at least %.1f"
                + " of the most telling ones",
            Account.measurements(b.steps().size()),
            PracticeCommand.minutes(b.minutes()),
            b.right()
                ? b.sure() ? ", sure" : ", and it is the likeliest then"
                : ", and it takes " + b.found() + " for likelier",
            b.begin(),
            b.bound()));
    for (BestRun.Step s : b.steps()) {
      out.println(
          String.format(
              Locale.ROOT,
              "       %-24s %-34s %+5.2f bit, %s",
              s.line(),
              s.showed(),
              s.bits(),
              PracticeCommand.minutes(s.minutes())));
    }
    a.risks().forEach(r -> out.println("risky: " + r));
    a.habits().forEach(h -> out.println("habit: " + h));
    if (!p.lesson().isBlank()) {
      out.println();
      out.println(p.lesson());
    }
  }

  private static String parts(Account a) {
    return a.parts().isEmpty()
        ? ""
        : ", parts put in: "
            + String.join(", ", a.parts())
            + (Double.isNaN(a.cost()) ? "" : String.format(Locale.ROOT, " (%.2f)", a.cost()));
  }
}
