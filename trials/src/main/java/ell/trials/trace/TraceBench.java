package ell.trials.trace;

import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.pulse.PulsePlan;
import ell.core.talk.TalkPlan;
import ell.core.trace.BenchKnowledge;
import ell.core.trace.Board;
import ell.core.trace.Tracer;
import ell.files.Source;
import ell.trials.power.MadeBoards;
import ell.trials.trace.TraceTrial.Run;
import ell.trials.trace.TraceTrial.Way;
import ell.work.Workshop;
import ell.work.bring.ImportFiles;
import ell.work.bring.RevisionImport;
import ell.work.demo.DemoWorkspace;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;

/// How well and how fast faults are found, against what it takes at least, a fixed list, and the
/// nearest first.
public final class TraceBench {
  private TraceBench() {}

  /// One line of a report.
  ///
  /// @param held whether it is as it is wanted
  public record Line(String text, boolean held) {}

  /// What faults came to.
  ///
  /// @param runs by how the next measurement was chosen
  public record Found(Map<Way, List<Run>> runs) {
    /// Measurements are at most so many times what they must be.
    private static final double BOUND = 1.25;

    private List<Run> right(Way w) {
      return runs.get(w).stream().filter(Run::right).toList();
    }

    /// What all runs took, for each that came to the right finding: a way that gives up on what is
    /// hard is not quick.
    private double each(Way w, ToDoubleFunction<Run> of) {
      return runs.get(w).stream().mapToDouble(of).sum() / Math.max(1, right(w).size());
    }

    /// Measurements over what it takes at least: what was not known at first, by what the most
    /// telling measurement gave on the average of all. It is a bound where the faults come as often
    /// as they are thought to.
    ///
    /// @param most that it may be, infinite where it is told only
    private Line bound(Way w, String words, double most) {
      double begin = 0;
      double best = 0;
      int n = 0;
      for (Run r : right(w)) {
        begin += r.begin();
        best += r.best();
        n += r.measurements();
      }
      double least = begin * n / Math.max(best, 1e-9);
      int of = Math.max(1, right(w).size());
      return new Line(
          String.format(
              Locale.ROOT,
              "%-58s %.2f / %.2f = %.2f%s",
              words,
              n / (double) of,
              least / of,
              n / least,
              most < Double.POSITIVE_INFINITY ? "  (at most " + most + ")" : ""),
          n <= most * least);
    }

    /// The report.
    ///
    /// @param counted whether the faults come as often as the bench has counted them
    public List<Line> lines(boolean counted) {
      List<Line> lines = new ArrayList<>();
      List<Run> all = runs.get(Way.PROPOSED);
      List<Run> given = all.stream().filter(r -> r.chance() >= Tracer.SURE).toList();
      double said = given.stream().mapToDouble(Run::chance).average().orElse(0);
      double was = given.stream().filter(Run::right).count() / (double) Math.max(1, given.size());
      long wrong = wrong(all);
      lines.add(
          new Line(
              String.format(
                  Locale.ROOT,
                  "%-58s %d right, %d wrong, %d not settled",
                  all.size() + " faults that show, put into boards",
                  right(Way.PROPOSED).size(),
                  wrong,
                  all.size() - wrong - right(Way.PROPOSED).size()),
              wrong <= 0.02 * all.size()));
      for (Trouble.Kind k : Trouble.Kind.values()) {
        List<Run> of = all.stream().filter(r -> r.kind() == k).toList();
        lines.add(
            new Line(
                String.format(
                    Locale.ROOT,
                    "%-58s %d right, %d wrong, %d not settled",
                    "  of which " + k.name().toLowerCase(Locale.ROOT) + ", " + of.size(),
                    of.stream().filter(Run::right).count(),
                    wrong(of),
                    of.stream().filter(r -> r.found().isEmpty()).count()),
                true));
      }
      lines.add(
          new Line(
              String.format(
                  Locale.ROOT,
                  "%-58s %.3f given, %.3f were right (at most 0.03 apart)",
                  "findings of at least " + Tracer.SURE,
                  said,
                  was),
              Math.abs(said - was) <= 0.03));
      for (Way w : Way.values()) {
        if (w == Way.PROPOSED || !runs.containsKey(w)) {
          continue;
        }
        if (w == Way.FEWEST) {
          lines.add(
              bound(
                  w,
                  "measurements, most telling first / entropy bound",
                  counted ? BOUND : Double.POSITIVE_INFINITY));
          continue;
        }
        double own = each(Way.PROPOSED, Run::minutes);
        double theirs = each(w, Run::minutes);
        lines.add(
            new Line(
                String.format(
                    Locale.ROOT,
                    "%-58s %.1f min / %.1f min = %.2f, %.1f / %.1f measurements, %d / %d right",
                    "minutes as proposed / " + (w == Way.LIST ? "by a list" : "nearest first"),
                    own,
                    theirs,
                    own / theirs,
                    each(Way.PROPOSED, Run::measurements),
                    each(w, Run::measurements),
                    right(Way.PROPOSED).size(),
                    right(w).size()),
                w != Way.LIST || own <= 0.5 * theirs));
      }
      lines.add(
          bound(
              Way.PROPOSED,
              "measurements, most a minute first / entropy bound",
              Double.POSITIVE_INFINITY));
      return lines;
    }

    private static long wrong(List<Run> of) {
      return of.stream().filter(r -> !r.found().isEmpty() && !r.right()).count();
    }
  }

  /// What a bench of the trials knows that has built many boards before.
  public static BenchKnowledge counted() {
    return new Counted(40, 100).knowledge();
  }

  /// Faults on made boards.
  ///
  /// @param boards how many
  /// @param each faults of each that are tried
  /// @param ways how the next measurement is chosen
  public static Found made(int boards, int each, BenchKnowledge knows, List<Way> ways) {
    // boards have nothing to do with each other: as many at once as there are processors
    List<Map<Way, List<Run>>> ofBoards =
        IntStream.range(0, boards).parallel().mapToObj(b -> board(b, each, knows, ways)).toList();
    Map<Way, List<Run>> runs = none(ways);
    ofBoards.forEach(m -> m.forEach((w, r) -> runs.get(w).addAll(r)));
    return new Found(runs);
  }

  private static Map<Way, List<Run>> board(int b, int each, BenchKnowledge knows, List<Way> ways) {
    Map<Way, List<Run>> runs = none(ways);
    MadeBoards.Made m = MadeBoards.of(1000 + b);
    TraceTrial trial = new TraceTrial(board(m.revision(), m.ladder()), knows);
    Random random = new Random(b);
    for (int i = 0; i < each; i++) {
      Trouble f = Trouble.of(m.revision(), m.ladder(), random);
      for (Way w : ways) {
        trial.run(f, 1000L * b + i, w).ifPresent(runs.get(w)::add);
      }
    }
    return runs;
  }

  private static Map<Way, List<Run>> none(List<Way> ways) {
    Map<Way, List<Run>> runs = new EnumMap<>(Way.class);
    ways.forEach(w -> runs.put(w, new ArrayList<>()));
    return runs;
  }

  /// Faults on a revision of the demo; what is known of its lines is left out, for the simulator of
  /// this trial does not speak.
  ///
  /// @param demo the folder with the demo's files
  public static Found demo(
      Path demo, String revision, int faults, BenchKnowledge knows, List<Way> ways)
      throws IOException, ActException {
    Path file = Files.createTempDirectory("ell-trace").resolve("demo.ell");
    try (Workshop w = DemoWorkspace.make(file, demo, false)) {
      return tried(w.revision("MG-1", revision), w.ladder("MG-1", revision), faults, knows, ways);
    }
  }

  /// Faults on a board that is unlike the demo, from its files.
  ///
  /// @param folder with parts, places, nets and outline
  public static Found odd(Path folder, int faults, BenchKnowledge knows, List<Way> ways)
      throws IOException, ActException {
    Path file = Files.createTempDirectory("ell-trace").resolve("odd.ell");
    try (Workshop w = Workshop.create(file, Clock.systemUTC())) {
      RevisionImport.Outcome read =
          w.revisions()
              .read(
                  "odd",
                  "1",
                  new ImportFiles(
                      Source.of(folder.resolve("bom.csv")),
                      Source.of(folder.resolve("placement.csv")),
                      Source.of(folder.resolve("netlist.ipc")),
                      Optional.of(Source.of(folder.resolve("outline.csv"))),
                      Optional.empty(),
                      Optional.empty(),
                      false,
                      Map.of()),
                  List.of());
      w.revisions().store((RevisionImport.Outcome.Whole) read);
      return tried(w.revision("odd", "1"), w.ladder("odd", "1"), faults, knows, ways);
    }
  }

  private static Found tried(
      Revision r, Ladder l, int faults, BenchKnowledge knows, List<Way> ways) {
    Map<Way, List<Run>> runs = none(ways);
    Random random = new Random(r.title().hashCode());
    List<Trouble> troubles =
        IntStream.range(0, faults).mapToObj(_ -> Trouble.of(r, l, random)).toList();
    ways.parallelStream()
        .forEach(way -> {
          TraceTrial trial = new TraceTrial(board(r, l), knows);
          for (int i = 0; i < faults; i++) {
            trial.run(troubles.get(i), i, way).ifPresent(runs.get(way)::add);
          }
        });
    return new Found(runs);
  }

  private static Board board(Revision r, Ladder l) {
    return new Board(
        r,
        l,
        PulsePlan.of(r, l, List.of(), List.of()),
        TalkPlan.of(r, List.of()),
        List.of(),
        Map.of());
  }
}
