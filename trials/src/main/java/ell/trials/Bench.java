package ell.trials;

import ell.bench.sim.Mischief;
import ell.book.Book;
import ell.core.artwork.Artwork;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.circuit.Circuit;
import ell.core.circuit.Run;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.heat.Alloy;
import ell.core.heat.ProfileCheck;
import ell.core.heat.ProfileLog;
import ell.core.heat.ProfileWindow;
import ell.core.kit.KitCheck;
import ell.core.kit.KitQuestion;
import ell.core.kit.ShelfLine;
import ell.core.kit.buy.Offer;
import ell.core.kit.buy.OrderSplit;
import ell.core.kit.buy.Splitter;
import ell.core.kit.buy.Want;
import ell.core.order.BuildOrder;
import ell.core.print.Paste;
import ell.core.print.PasteLayer;
import ell.core.print.StencilCheck;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Standing;
import ell.core.trace.BenchKnowledge;
import ell.files.Read;
import ell.files.Source;
import ell.files.gerber.GerberReader;
import ell.files.netlist.NetlistReader;
import ell.files.series.ProfileReader;
import ell.trials.jig.JigBench;
import ell.trials.power.FirstPowers;
import ell.trials.power.MadeBoards;
import ell.trials.power.MischiefMatrix;
import ell.trials.prove.ProveBench;
import ell.trials.pulse.CaptureTrial;
import ell.trials.revise.ReviseBench;
import ell.trials.share.BenchesTrial;
import ell.trials.talk.FaultTrial;
import ell.trials.talk.LineTrial;
import ell.trials.trace.TraceBench;
import ell.trials.trace.TraceSpeed;
import ell.trials.trace.TraceTrial;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.jar.JarOutputStream;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/// Runs the benchmarks and prints each as a ratio to its reference of the same run, with its limit.
/// Words on the command line pick some of: `calc`, `window`, `circuit`, `mischief`, `netlist`,
/// `appends`, `million`, `order`, `beep`, `kit`, `layers`, `profile`, `pulse`, `talk`, `trace`,
/// `jig`, `benches`, and `many`, which also makes a book of ten million entries. `break` tries to
/// break it instead.
public final class Bench {
  private static final int PAIRS = 7;
  private final Path root = Path.of(System.getProperty("ell.root", "."));
  private final Collection<String> only;
  private boolean held = true;

  private Bench(Collection<String> only) {
    this.only = only;
  }

  /// Runs them; ends with 1 when one does not hold its limit.
  public static void main(String[] args) throws Exception {
    if (args.length > 0 && args[0].equals("break")) {
      List<String> words = Arrays.asList(args).subList(1, args.length);
      System.exit(Breaking.run(Path.of(System.getProperty("ell.root", ".")), words) ? 0 : 1);
    }
    Bench b = new Bench(Arrays.asList(args));
    b.run();
    System.exit(b.held ? 0 : 1);
  }

  private boolean wanted(String name) {
    return only.isEmpty() || only.contains(name);
  }

  private void run() throws Exception {
    if (wanted("calc")) {
      calc();
    }
    if (wanted("window")) {
      window();
    }
    if (wanted("circuit")) {
      circuit();
    }
    if (wanted("first-power")) {
      firstPower();
    }
    if (wanted("mischief")) {
      mischief();
    }
    if (wanted("netlist")) {
      netlist();
    }
    if (wanted("appends")) {
      Collection<RunResult> r = jmh(".*(appendsToTheBook|insertsIntoABareTable)");
      ratio(
          "200 durable appends / bare inserts, same sync",
          score(r, "appendsToTheBook", ""),
          score(r, "insertsIntoABareTable", ""),
          1.2);
    }
    if (wanted("million")) {
      million();
    }
    if (wanted("order")) {
      Collection<RunResult> r = jmh(".*orderPlanned");
      seconds("order of 5,000 placements", score(r, "orderPlanned", "5000") / 1000, 10);
      growth(
          "order, 10,000 / 5,000 placements",
          score(r, "orderPlanned", "10000"),
          score(r, "orderPlanned", "5000"),
          10_000);
    }
    if (wanted("order")) {
      BuildOrder.Effort e =
          BuildOrder.of(Samples.revision(5000, 5), ell.core.order.Method.STENCIL_PLATE, List.of())
              .effort();
      say(
          String.format(
              Locale.ROOT,
              "%-58s %8.2f %%  (at most 5 %%, or shown)",
              "order of 5,000 placements over its lower bound",
              100 * e.gap()),
          e.gap() <= 0.05);
    }
    if (wanted("kit")) {
      kit();
    }
    if (wanted("layers")) {
      layers();
    }
    if (wanted("profile")) {
      profile();
    }
    if (wanted("pulse")) {
      pulse();
    }
    if (wanted("talk")) {
      talk();
    }
    if (wanted("trace")) {
      trace();
    }
    if (wanted("jig")) {
      JigBench.run().forEach(l -> say(l.text(), l.held()));
    }
    if (wanted("benches") || only.contains("many")) {
      BenchesTrial.run(only.contains("many") ? 10 : 0).forEach(l -> say(l.text(), l.held()));
    }
    if (wanted("revise")) {
      ReviseBench.run().forEach(l -> say(l.text(), l.held()));
    }
    if (wanted("prove")) {
      ProveBench.run().forEach(l -> say(l.text(), l.held()));
    }
    if (wanted("beep")) {
      Collection<RunResult> r = jmh(".*beepListMade");
      seconds("beep list of 200,000 joints", score(r, "beepListMade", "200000") / 1000, 10);
      growth(
          "beep list, 200,000 / 100,000 joints",
          score(r, "beepListMade", "200000"),
          score(r, "beepListMade", "100000"),
          200_000);
    }
  }

  /// A board of 300 parts at rest and in time, against one dense solve of a library of as many
  /// nodes.
  private void circuit() throws IOException {
    Circuit c = Samples.circuit(300);
    int nodes = c.rest().volts().size() - 1;
    double rest =
        fastest(() -> {
          if (!c.rest().settled()) {
            throw new IOException("it did not settle");
          }
        });
    Array2DRowRealMatrix dense = new Array2DRowRealMatrix(nodes, nodes);
    for (int i = 0; i < nodes; i++) {
      dense.setEntry(i, i, 4);
      dense.setEntry(i, (i + 1) % nodes, -1);
      dense.setEntry((i + 7) % nodes, i, -1);
    }
    ArrayRealVector right = new ArrayRealVector(nodes, 1);
    double bare = fastest(() -> new LUDecomposition(dense).getSolver().solve(right));
    ratio("300 parts at rest / one dense solve of " + nodes + " nodes", rest, bare, 10);
    seconds("300 parts at rest", rest / 1000, 0.005);
    double time =
        fastest(() -> {
          Run r = c.run();
          if (r.on(0.01).on(0.02, 1e-5).steps() < 2000) {
            throw new IOException("the steps were longer than asked for");
          }
        });
    ratio("300 parts for 0.03 s, most of it in steps of 10 us / that time", time, 30, 1);
  }

  /// Faults and healthy boards at first power: what is harmed before the output is off, and who is
  /// accused.
  private void firstPower() throws Exception {
    FirstPowers faults = new FirstPowers();
    FirstPowers healthy = new FirstPowers();
    for (int seed = 1; seed <= 20; seed++) {
      MadeBoards.Made m = MadeBoards.of(seed);
      faults.faults(m.revision(), m.ladder(), 15, seed);
      healthy.healthy(m.revision(), m.ladder(), 45, seed);
    }
    FirstPowers demo = new FirstPowers();
    Path at = Files.createTempDirectory("ell-first-power").resolve("demo.ell");
    try (Workshop w = DemoWorkspace.make(at)) {
      var plan = w.plan(w.buildOf("07"));
      demo.faults(plan.revision(), plan.ladder(), 300, 7);
      healthy.healthy(plan.revision(), plan.ladder(), 100, 8);
    }
    told("faults of 20 made boards", faults);
    told("faults of the demo", demo);
    say(
        healthy.accused().size() + " of " + healthy.tried() + " healthy boards stopped or accused",
        healthy.accused().isEmpty());
    healthy.accused().forEach(w -> System.out.println("         " + w));
  }

  /// A supply that misbehaves in every way at every command of first power.
  private void mischief() throws Exception {
    List<MischiefMatrix.Case> cases =
        MischiefMatrix.of(
            root.resolve("demo"),
            MischiefMatrix.commands(root.resolve("demo")),
            m -> m != Mischief.NONE);
    MischiefMatrix.table(cases).forEach(l -> System.out.println("         " + l));
    for (MischiefMatrix.End end : MischiefMatrix.End.values()) {
      say(
          String.format(
              Locale.ROOT,
              "%d of %d times a misbehaving supply ended in: %s",
              cases.stream().filter(c -> c.end() == end).count(),
              cases.size(),
              end.word()),
          end != MischiefMatrix.End.WRONG || cases.stream().noneMatch(c -> c.end() == end));
    }
    seconds(
        "output off or the words, after it began to misbehave",
        cases.stream().mapToDouble(MischiefMatrix.Case::seconds).max().orElseThrow(),
        MischiefMatrix.MOST_SECONDS);
  }

  private void told(String what, FirstPowers p) {
    say(
        String.format(
            Locale.ROOT,
            "%s: %d tried, %d stopped in time, %d seen at the rails, %d show nothing, %d with a part"
                + " past its rating, %d not settled",
            what,
            p.tried(),
            p.stopped(),
            p.railsOut(),
            p.quiet(),
            p.harmed().size(),
            p.unsettled()),
        p.harmed().size() <= 0.05 * p.tried());
    p.harmed().forEach(w -> System.out.println("         " + w));
  }

  /// Kits and order splits of the sizes that were asked for.
  private void kit() {
    LocalDate today = LocalDate.parse("2026-11-25");
    List<Double> small = new ArrayList<>();
    boolean proven = true;
    for (int seed = 1; seed <= 5; seed++) {
      List<Want> wants = Samples.wants(40, seed);
      List<Offer> offers = Samples.offers(wants, 6, 6, seed);
      long start = System.nanoTime();
      OrderSplit s = new Splitter(today, wants, offers, () -> false).by(today.plusDays(30));
      small.add((System.nanoTime() - start) / 1e9);
      proven &= s.proven();
    }
    seconds(
        "order split, 40 lines x 6 sellers, slowest of five",
        small.stream().max(Double::compare).orElseThrow(),
        5);
    say(String.format(Locale.ROOT, "%-58s", "  each of them proven to be the cheapest"), proven);
    List<Want> many = Samples.wants(5000, 7);
    List<Offer> all = Samples.offers(many, 50, 50, 7);
    long start = System.nanoTime();
    long end = start + 10_000_000_000L;
    OrderSplit big =
        new Splitter(today, many, all, () -> System.nanoTime() > end).by(today.plusDays(30));
    seconds(
        String.format(
            Locale.ROOT,
            "order split, 5,000 lines x 50 offers, stopped at 10 s, gap %.2f %%",
            100 * big.gap()),
        (System.nanoTime() - start) / 1e9,
        20);
    Revision revision = Samples.codes(5000);
    List<ShelfLine> shelf = Samples.shelf(5000, today);
    long from = System.nanoTime();
    KitCheck k =
        KitCheck.of(
            KitQuestion.fresh(
                revision, 20, shelf, today, KitQuestion.byBlocks(List.of()), Set.of()));
    double took = (System.nanoTime() - from) / 1e9;
    seconds(
        "kit of 5,000 lines, goods coming on 30 days, " + k.lines().size() + " judged", took, 2);
  }

  private interface Work {
    void run() throws IOException;
  }

  /// The fastest of five or more, after one to warm up, milliseconds. What is short is done again
  /// for a while: it is compiled by then, as what it is compared with is.
  private static double fastest(Work work) throws IOException {
    double best = Double.POSITIVE_INFINITY;
    long began = System.nanoTime();
    for (int i = 0; i < 6 || i < 1000 && System.nanoTime() - began < 1_500_000_000L; i++) {
      long start = System.nanoTime();
      work.run();
      double took = (System.nanoTime() - start) / 1e6;
      best = i == 0 ? best : Math.min(best, took);
    }
    return best;
  }

  private void netlist() throws IOException {
    Path file = Samples.netlist(200_000);
    ratio(
        "netlist of 200,000 records read / its lines read",
        AgainstLines.of(file, () -> NetlistReader.read(Source.of(file))),
        1.7);
  }

  /// 100,000 openings read, told and judged.
  private void layers() throws IOException {
    Revision revision = Samples.revision(15_000, 5);
    Path file = Files.createTempFile("paste", ".gbr");
    Files.writeString(file, Samples.paste(revision, 100_000));
    AgainstLines both =
        AgainstLines.of(
            file,
            () -> {
              var read = (Read.Whole<Artwork>) GerberReader.read(Source.of(file));
              PasteLayer layer = PasteLayer.of(read.value(), revision, Side.FIRST);
              StencilCheck c = StencilCheck.of(layer, revision, 0.12e-3, Paste.of(Alloy.SAC305));
              if (c.lines().size() < 50_000) {
                throw new IOException("only " + c.lines().size() + " openings");
              }
            });
    ratio("100,000 openings read and judged / its lines read", both, 30);
    seconds("100,000 openings read and judged", both.own() / 1000, 1);
    Files.delete(file);
  }

  /// A million rows of ten channels read; and held against a window.
  private void profile() throws IOException {
    Path file = Files.createTempFile("log", ".csv");
    Files.writeString(file, Samples.log(1_000_000, 10));
    AgainstLines both = AgainstLines.of(file, () -> ProfileReader.read(Source.of(file)));
    ratio("log of 10 x 1,000,000 read / its lines read", both, 5);
    seconds("log of 10 x 1,000,000 read", both.own() / 1000, 2);
    var log = (Read.Whole<ProfileLog>) ProfileReader.read(Source.of(file));
    double judged = fastest(() -> ProfileCheck.of(log.value(), ProfileWindow.SAC305, 0));
    seconds("and held against a window", judged / 1000, 5);
    Files.delete(file);
  }

  /// Captures: read against a library, measured, drawn while they are panned.
  private void pulse() throws IOException {
    CaptureTrial t = CaptureTrial.of(10_000_000);
    ratio(
        "capture of 10,000,000 rows read / by a CSV library",
        1000 * t.reader(),
        1000 * t.library(),
        0.25);
    say(
        String.format(Locale.ROOT, "%-58s %8.2f s  (at most 1 s)", "and measured", t.measured()),
        t.measured() <= 1);
    say(
        String.format(
            Locale.ROOT,
            "%-58s %8.2f s  (at most 1 s)",
            "kept beside the workspace, to the first picture",
            t.firstPicture()),
        t.firstPicture() <= 1);
    seconds("and to the last of it", t.stored(), 5);
    say(
        String.format(
            Locale.ROOT,
            "%-58s %8.1f ms (at most 16 ms)",
            "one picture of it, panned and zoomed",
            1000 * t.frame()),
        t.frame() <= 0.016);
    say(
        String.format(
            Locale.ROOT,
            "%-58s %8.0f MB (at most 100 MB)",
            "memory held while it is looked at",
            t.heap() / 1e6),
        t.heap() <= 100e6);
  }

  private void talk() throws Exception {
    LineTrial t = LineTrial.of(root.resolve("demo"));
    ratio("line of 64 MB kept and shown / its socket read", 1000 * t.kept(), 1000 * t.bare(), 40);
    double mb = t.bytes() / t.kept() / (1 << 20);
    say(
        String.format(Locale.ROOT, "%-58s %8.0f MB/s (at least 1)", "so a line may bring", mb),
        mb >= 1);
    seconds("12 operations over 12 links, exact", t.ordered(), 5);
    seconds("100 signals on 200 pins", t.matched(), 5);
    FaultTrial f = FaultTrial.of(root.resolve("demo"));
    say(
        String.format(
            Locale.ROOT,
            "%-58s %d do not hinder, %d are told (at most 0 otherwise: %d)",
            f.faults() + " faults of the demo's line",
            f.through(),
            f.told(),
            f.missed().size()),
        f.missed().isEmpty());
    f.missed().forEach(m -> System.out.println("  " + m));
  }

  private void trace() throws Exception {
    TraceSpeed.lines().forEach(l -> say(l.text(), l.held()));
    // what a list and the nearest first take is tried on fewer: each takes four times as long
    List<TraceTrial.Way> all = List.of(TraceTrial.Way.values());
    List<TraceTrial.Way> own = List.of(TraceTrial.Way.PROPOSED, TraceTrial.Way.FEWEST);
    BenchKnowledge first = BenchKnowledge.none(BenchKnowledge::usual);
    BenchKnowledge counted = TraceBench.counted();
    for (String revision : List.of("A", "B")) {
      System.out.println("revision " + revision + " of the demo, chances as first guessed");
      TraceBench.demo(root.resolve("demo"), revision, 100, first, all)
          .lines(false)
          .forEach(this::say);
    }
    for (String odd : List.of("shield", "cell", "panel")) {
      System.out.println("the odd board " + odd + ", chances as first guessed");
      TraceBench.odd(root.resolve("fixtures/odd").resolve(odd), 400, first, all)
          .lines(false)
          .forEach(this::say);
    }
    System.out.println("30 made boards, chances as first guessed");
    TraceBench.made(30, 12, first, all).lines(false).forEach(this::say);
    System.out.println(
        "30 made boards, about 2,000 faults that show, chances as a bench has counted them");
    TraceBench.made(30, 134, counted, own).lines(true).forEach(this::say);
  }

  private void say(TraceBench.Line l) {
    say(l.text(), l.held());
  }

  private void ratio(String what, AgainstLines both, double limit) {
    ratio(what, both.own(), both.lines(), limit);
  }

  private void ratio(String what, double own, double reference, double most) {
    double r = own / reference;
    say(
        String.format(
            Locale.ROOT,
            "%-58s %8.0f ms / %8.0f ms = %5.2f  (at most %.1f)",
            what,
            own,
            reference,
            r,
            most),
        r <= most);
  }

  private void seconds(String what, double s, double most) {
    say(String.format(Locale.ROOT, "%-58s %8.2f s  (at most %.0f s)", what, s, most), s <= most);
  }

  /// Twice the work may take a little over twice as long: n log n, with a fifth for noise and
  /// caches.
  private void growth(String what, double twice, double once, double n) {
    double most = 2 * Math.log(n) / Math.log(n / 2) * 1.25;
    double r = twice / once;
    say(
        String.format(Locale.ROOT, "%-58s %8.2f x  (n log n and a quarter: %.2f)", what, r, most),
        r <= most);
  }

  private void say(String line, boolean holds) {
    System.out.println((holds ? "holds  " : "FAILS  ") + line);
    held &= holds;
  }

  private static Collection<RunResult> jmh(String include) throws RunnerException {
    return new Runner(
            new OptionsBuilder()
                .include(Timed.class.getSimpleName() + "\\." + include)
                .verbosity(org.openjdk.jmh.runner.options.VerboseMode.SILENT)
                .build())
        .run();
  }

  private static double score(Collection<RunResult> results, String name, String param) {
    for (RunResult r : results) {
      boolean same =
          param.isEmpty()
              || r.getParams().getParamsKeys().stream()
                  .anyMatch(k -> r.getParams().getParam(k).equals(param));
      if (r.getParams().getBenchmark().endsWith("." + name) && same) {
        return r.getPrimaryResult().getStatistics().getPercentile(50);
      }
    }
    throw new IllegalStateException("no result for " + name + " " + param);
  }

  /// Whole processes from start to the first frame that shows the board, in pairs.
  private void window() throws Exception {
    Path demo = Files.createTempDirectory("bench").resolve("demo.ell");
    DemoWorkspace.make(demo, root.resolve("demo"), true).close();
    List<String> flags =
        List.of(
            "--enable-native-access=ALL-UNNAMED",
            "-XX:+IgnoreUnrecognizedVMOptions",
            "-XX:+UnlockDiagnosticVMOptions",
            "-XX:-AOTRecordTraining",
            "-XX:-AOTReplayTraining",
            "-XX:Tier4InvocationThreshold=50000",
            "-XX:Tier4MinInvocationThreshold=20000",
            "-XX:Tier4CompileThreshold=100000",
            "-XX:Tier4BackEdgeThreshold=400000",
            "-XX:+UseSerialGC",
            "-Xss4m",
            "-Dfile.encoding=UTF-8",
            "-Dstdout.encoding=UTF-8",
            "-Dstderr.encoding=UTF-8",
            "-Dell.demo=" + root.resolve("demo"),
            "-Dglass.platform=Headless",
            "-Dprism.order=sw",
            "-Djava.awt.headless=true",
            "-Dell.style=" + root.resolve("target/ell.bss"),
            "-Dorg.sqlite.lib.path=" + root.resolve("target/native"),
            "-Dorg.sqlite.lib.name=libsqlitejdbc.so");
    String cp;
    try (Stream<Path> jars = Files.list(root.resolve("target/lib"))) {
      cp =
          jars.filter(j -> j.toString().endsWith(".jar"))
              .sorted()
              .map(Path::toString)
              .collect(Collectors.joining(File.pathSeparator));
    }
    List<String> ell = List.of("-cp", cp, "ell.desk.Launcher", "--first-look", demo.toString());
    List<String> bare =
        List.of("-cp", System.getProperty("java.class.path"), BareWindow.Start.class.getName());
    List<Double> plain = new ArrayList<>();
    List<Double> cached = new ArrayList<>();
    List<Double> reference = new ArrayList<>();
    for (int i = 0; i < PAIRS + 1; i++) {
      double b = process(flags, List.of(), bare);
      double p = process(flags, List.of(), ell);
      double c = process(flags, List.of("-XX:AOTCache=" + root.resolve("target/ell.aot")), ell);
      if (i > 0) { // the first round warms the disk
        reference.add(b);
        plain.add(p);
        cached.add(c);
      }
    }
    ratio(
        "window with the demo / bare window, both without a cache",
        median(plain),
        median(reference),
        1.6);
    ratio(
        "window with the demo and its cache / bare window", median(cached), median(reference), 0.9);
    say(
        String.format(
            Locale.ROOT,
            "%-58s %8.2f s  (at most 3 s)",
            "window with the demo and its cache",
            median(cached) / 1000),
        median(cached) < 3000);
  }

  /// Whole processes, a sum through the door that makers use, and an empty program with a cache of
  /// its own, in pairs.
  private void calc() throws Exception {
    Path dir = Files.createTempDirectory("bench");
    Path cache = dir.resolve("nothing.aot");
    Path jar = dir.resolve("nothing.jar");
    String name = Nothing.class.getName();
    try (JarOutputStream out = new JarOutputStream(Files.newOutputStream(jar));
        InputStream in = Nothing.class.getResourceAsStream("Nothing.class")) {
      out.putNextEntry(new ZipEntry(name.replace('.', '/') + ".class"));
      in.transferTo(out);
    }
    String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
    List<String> bare = List.of(java, "-XX:+UseSerialGC");
    List<String> what = List.of("-cp", jar.toString(), name);
    wall(joined(bare, List.of("-XX:AOTCacheOutput=" + cache), what));
    List<String> nothing = joined(bare, List.of("-XX:AOTCache=" + cache), what);
    String door = root.resolve("ell").toString();
    List<String> sum = List.of(door, "calc", "power.trace-width", "current=1A", "rise=10");
    List<Double> sums = new ArrayList<>();
    List<Double> trees = new ArrayList<>();
    List<Double> reference = new ArrayList<>();
    for (int i = 0; i < 3 * PAIRS + 1; i++) {
      double b = wall(nothing);
      double s = wall(sum);
      double j = wall(joined(sum, List.of("--json"), List.of()));
      if (i > 0) {
        reference.add(b);
        sums.add(s);
        trees.add(j);
      }
    }
    ratio("a sum / an empty program with its own cache", median(sums), median(reference), 2.5);
    ratio("a sum as JSON / likewise", median(trees), median(reference), 2.5);
  }

  private static List<String> joined(List<String> a, List<String> b, List<String> c) {
    return Stream.of(a, b, c).flatMap(List::stream).toList();
  }

  private static double wall(List<String> command) throws IOException, InterruptedException {
    long start = System.nanoTime();
    Process p =
        new ProcessBuilder(command)
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .redirectOutput(ProcessBuilder.Redirect.DISCARD)
            .start();
    if (p.waitFor() != 0) {
      throw new IllegalStateException("did not run: " + command);
    }
    return (System.nanoTime() - start) / 1e6;
  }

  private static double median(List<Double> values) {
    return values.stream().sorted().toList().get(values.size() / 2);
  }

  private static double process(List<String> flags, List<String> more, List<String> what)
      throws IOException, InterruptedException {
    List<String> command =
        new ArrayList<>(
            List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString()));
    command.addAll(flags);
    command.addAll(more);
    command.addAll(what);
    long start = System.nanoTime();
    Process p = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
    double shown = Double.NaN;
    try (BufferedReader said = p.inputReader()) {
      String line;
      while ((line = said.readLine()) != null) {
        if (line.equals("shown")) {
          shown = (System.nanoTime() - start) / 1e6;
        }
      }
    }
    if (p.waitFor() != 0 || Double.isNaN(shown)) {
      throw new IllegalStateException("a window did not show: " + command);
    }
    return shown;
  }

  /// A book of a million entries over twelve boards: opened, one board folded and its standing
  /// worked out.
  private void million() throws Exception {
    Path file = Files.createTempDirectory("million").resolve("ws.ell");
    DemoWorkspace.make(file, root.resolve("demo"), false).close();
    try (Workshop w = Workshop.open(file, Clock.systemUTC())) {
      w.revisions()
          .build(
              "MG-1",
              "B",
              12,
              ell.core.order.Method.STENCIL_PLATE,
              ell.core.heat.Alloy.SAC305,
              "",
              "");
    }
    try (Book b = Book.open(file, Clock.systemUTC())) {
      List<Entry> batch = new ArrayList<>();
      OffsetDateTime at = OffsetDateTime.now(java.time.ZoneOffset.UTC);
      for (int i = 0; i < 1_000_000; i++) {
        batch.add(
            i % 3 == 0
                ? new Entry.Note("a line of ordinary length, number " + i)
                : new Entry.Reading(
                    "3V3",
                    3.3,
                    Unit.VOLT,
                    Optional.of(new Limits(3.2, 3.4)),
                    Optional.of(0.018),
                    Optional.of(Verdict.WITHIN),
                    ""));
        if (batch.size() == 5000) {
          b.appendAll(String.format(Locale.ROOT, "%02d", 1 + i / 5000 % 12), batch, at);
          batch.clear();
        }
      }
    }
    List<Double> times = new ArrayList<>();
    for (int i = 0; i < 4; i++) {
      long start = System.nanoTime();
      try (Workshop w = Workshop.look(file)) {
        BoardState s = w.state("07");
        Standing standing = Standing.of(s, w.plan(w.buildOf("07")));
        if (s.entries() < 80_000 || standing.phrase().isBlank()) {
          throw new IllegalStateException("the book was not read: " + s.entries());
        }
      }
      times.add((System.nanoTime() - start) / 1e9);
    }
    seconds("1,000,000 entries: open, fold and show a board", median(times), 2);
    Files.delete(file);
  }
}
