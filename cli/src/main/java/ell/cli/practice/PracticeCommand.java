package ell.cli.practice;

import ell.book.Place;
import ell.book.RevisionStore;
import ell.cli.shell.Exit;
import ell.cli.shell.JsonText;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.practice.Account;
import ell.core.practice.BestRun;
import ell.core.practice.Level;
import ell.files.Output;
import ell.work.Workshop;
import ell.work.practice.CaseFile;
import ell.work.practice.Practice;
import ell.work.practice.Runs;
import ell.work.space.ActException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/// Practice: a fault that is hidden in a board, found with the same instruments, keys and book.
@Command(
    name = "practice",
    description =
        "practise: FILE is made with a fault hidden in a board, worked on like any workspace, and"
            + " asked again how it went; without FILE the course and how your runs went")
public final class PracticeCommand implements Callable<Integer> {
  @Parameters(
      index = "0",
      arity = "0..1",
      paramLabel = "FILE",
      description = "the practice; made when it is not there")
  Optional<Path> file = Optional.empty();

  @Option(
      names = "--on",
      paramLabel = "WS",
      description = "the workspace whose revision is practised on; the demo when none is said")
  Optional<Place> on = Optional.empty();

  @Option(names = "--design", description = "of that workspace, with --revision")
  Optional<String> design = Optional.empty();

  @Option(names = "--revision", description = "of the design")
  Optional<String> revision = Optional.empty();

  @Option(
      names = "--level",
      description =
          "1 beep before power, 2 a rail that is not there, 3 nearly right, 4 it comes and goes, 5"
              + " the drawing is wrong")
  Optional<Integer> level = Optional.empty();

  @Option(names = "--case", paramLabel = "CASE", description = "a case that a trainer handed on")
  Optional<Path> chosen = Optional.empty();

  @Option(names = "--seed", description = "the same seed hides the same fault")
  Optional<Long> seed = Optional.empty();

  @Option(names = "--give-up", description = "be told what it is")
  boolean giveUp;

  @Option(
      names = "--write-case",
      paramLabel = "CASE",
      description = "of a trainer: write a case of the revision of --on, with --fault and --words")
  Optional<Path> write = Optional.empty();

  @Option(names = "--fault", description = "of the case, such as \"open U3.4\"; several times")
  List<String> faults = new ArrayList<>();

  @Option(names = "--title", description = "of the case")
  String title = "a case";

  @Option(names = "--words", description = "with which the board of the case is handed over")
  String words = "";

  @Option(names = "--lesson", description = "what there is to learn from the case")
  String lesson = "";

  @Option(names = "--force", description = "write over a case that is there")
  boolean force;

  @Option(names = "--json", description = "one JSON object on standard output")
  boolean json;

  @Spec CommandSpec spec;

  private PrintWriter out() {
    return spec.commandLine().getOut();
  }

  @Override
  public Integer call() throws Exception {
    if (design.isPresent() != revision.isPresent()) {
      throw new ActException("--design and --revision go together");
    }
    if (write.isPresent()) {
      return written(write.get());
    }
    if (!faults.isEmpty()) {
      throw new ActException("--fault goes with --write-case");
    }
    if (file.isEmpty()) {
      return course();
    }
    if (Files.exists(file.get())) {
      if (on.isPresent() || level.isPresent() || chosen.isPresent() || seed.isPresent()) {
        throw new ActException(
            file.get() + " is there already: --on, --level, --case and --seed make a new one");
      }
      return asked(file.get());
    }
    if (giveUp) {
      throw new ActException("there is no practice " + file.get());
    }
    make(file.get());
    return asked(file.get());
  }

  private Optional<RevisionStore.Id> id() {
    return design.map(d -> new RevisionStore.Id(d, revision.orElseThrow()));
  }

  private void make(Path to) throws Exception {
    if (chosen.isPresent() && level.isPresent()) {
      throw new ActException("a case has no level: say --level or --case");
    }
    Level l;
    try {
      l = Level.of(level.orElse(2));
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    Optional<CaseFile> c = Optional.empty();
    if (chosen.isPresent()) {
      c = Optional.of(CaseFile.read(chosen.get()));
    }
    long s = seed.orElseGet(() -> (long) new java.security.SecureRandom().nextInt(1_000_000));
    if (on.isPresent()) {
      try (Workshop w = Workshop.look(on.get())) {
        Practice.make(to, new Practice.Wish(Optional.of(w), id(), l, c, s));
      }
    } else {
      Practice.make(to, new Practice.Wish(Optional.empty(), id(), l, c, s));
    }
  }

  private int written(Path to) throws Exception {
    if (on.isEmpty() || faults.isEmpty()) {
      throw new ActException("a case needs --on WS and --fault, such as --fault \"open U3.4\"");
    }
    List<Fault> all = new ArrayList<>();
    for (String f : faults) {
      try {
        all.add(FaultWords.parse(f));
      } catch (IllegalArgumentException e) {
        throw new ActException("--fault: " + e.getMessage(), e);
      }
    }
    try (Workshop w = Workshop.look(on.get())) {
      List<RevisionStore.Id> known = w.book().revisions();
      if (known.isEmpty()) {
        throw new ActException(on.get() + " holds no revision");
      }
      CaseFile c = Practice.caseOf(w, id().orElse(known.getLast()), all, title, words, lesson);
      if (Files.exists(to) && !force) {
        throw new ActException(to + " is there already; --force writes over it");
      }
      Output.write(to, c.text(), new Output.Over(force, List.of()));
    }
    out().println("wrote " + to + "; practise it with: practice FILE --case " + to);
    return Exit.DONE;
  }

  private int course() throws Exception {
    List<Runs.Run> runs = Runs.own().all();
    if (json) {
      out().println(JsonText.of(PracticeJson.course(runs)));
    } else {
      PracticeText.course(out(), runs);
    }
    return Exit.DONE;
  }

  private int asked(Path f) throws Exception {
    try (Workshop w = giveUp ? Workshop.open(f, Clock.systemDefaultZone()) : Workshop.look(f)) {
      Practice p =
          Practice.in(w)
              .orElseThrow(() -> new ActException(f + " is a real workspace, and no practice"));
      if (giveUp && !p.account().over()) {
        p = p.giveUp();
      }
      Account a = p.account();
      Optional<BestRun> best = a.over() ? Optional.of(p.best()) : Optional.empty();
      List<Practice.Better> better = a.over() ? p.better(a) : List.of();
      if (best.isPresent()) {
        Runs.own().add(p.run(a, best.get()));
      }
      if (json) {
        out().println(JsonText.of(PracticeJson.of(p, a, best, better)));
      } else {
        PracticeText.print(out(), f, p, a, best, better);
      }
      return Exit.DONE;
    }
  }

  /// Minutes in words.
  static String minutes(double m) {
    return String.format(Locale.ROOT, m < 10 ? "%.1f min" : "%.0f min", m);
  }
}
