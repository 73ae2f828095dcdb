package ell.trials.power;

import ell.bench.Bench;
import ell.bench.sim.Mischief;
import ell.core.power.PowerPlan;
import ell.core.power.PowerStep;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import ell.work.demo.DemoWorkspace;
import ell.work.power.LeftOn;
import ell.work.power.PowerRun;
import ell.work.power.Rehearsal;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Queue;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;

/// First power of a healthy board with a supply that begins to misbehave at each of the commands
/// that it is sent, in each of the ways that there are: the output is off and an entry says so, or
/// the words that it could not be switched off are there, within some seconds.
public final class MischiefMatrix {
  /// Within so many seconds the output is off, or the words are said.
  public static final double MOST_SECONDS = 8;

  private static final String BOARD = "07";
  private static final int WORKERS = 6;
  private static final int TIMEOUT_MILLIS = 250;
  private static final int LOOK_MILLIS = 2;

  private MischiefMatrix() {}

  /// How one of them ended.
  public enum End {
    /// It went through: the misbehaviour did no harm, or did not come up.
    DONE("done"),
    /// The output is off, and confirmed to be, with an entry.
    OFF("off"),
    /// The maker is told that it may be on, and the book says it.
    TOLD("told"),
    /// It is on and nobody says so, or it is said to be on and the book does not know.
    WRONG("WRONG");

    private final String word;

    End(String word) {
      this.word = word;
    }

    /// As it stands in the table.
    public String word() {
      return word;
    }
  }

  /// One of them.
  ///
  /// @param on whether it began while the output was on
  /// @param command the first word of the line with which it began
  /// @param seconds from there to the output off or the words, 0 when it did not begin
  public record Case(
      boolean on, String command, Mischief mischief, End end, double seconds, String why) {}

  /// The commands of first power, each once, in their order.
  ///
  /// @param demo the folder with the files of the demo
  public static List<String> commands(Path demo) throws Exception {
    try (Workshop w = DemoWorkspace.make(fresh(), demo, true)) {
      Plan plan = w.plan(w.buildOf(BOARD));
      Set<String> words = new LinkedHashSet<>();
      PowerPlan steps = PowerPlan.of(plan.revision(), plan.ladder(), "boot").orElseThrow();
      for (Rehearsal.Part part : Rehearsal.of(steps)) {
        part.lines().forEach(l -> words.add(l.split("\\s", 2)[0]));
      }
      return List.copyOf(words);
    }
  }

  private static Path fresh() throws IOException {
    return Files.createTempDirectory("ell-mischief").resolve("demo.ell");
  }

  /// Tries those that are wanted, several at a time: most of it is waiting.
  ///
  /// @param demo the folder with the files of the demo
  public static List<Case> of(Path demo, Collection<String> commands, Predicate<Mischief> wanted)
      throws Exception {
    Queue<Case> all = new ConcurrentLinkedQueue<>();
    for (String command : commands) {
      for (Mischief m : Mischief.values()) {
        if (wanted.test(m)) {
          all.add(new Case(false, command, m, End.DONE, 0, ""));
          all.add(new Case(true, command, m, End.DONE, 0, ""));
        }
      }
    }
    List<Case> ended = new ArrayList<>();
    try (var workers = Executors.newFixedThreadPool(WORKERS)) {
      List<Future<List<Case>>> parts = new ArrayList<>();
      for (int i = 0; i < WORKERS; i++) {
        parts.add(workers.submit(() -> work(demo, all)));
      }
      for (Future<List<Case>> part : parts) {
        ended.addAll(part.get());
      }
    }
    return ended;
  }

  private static List<Case> work(Path demo, Queue<Case> all) throws Exception {
    List<Case> ended = new ArrayList<>();
    try (Workshop w = DemoWorkspace.make(fresh(), demo, true);
        SimulatedBench sim = SimulatedBench.start(w, 3)) {
      for (Case c = all.poll(); c != null; c = all.poll()) {
        ended.add(new Trial(w, sim, c).run());
      }
    }
    return ended;
  }

  private static final class Trial implements PowerRun.Watcher {
    private final Workshop w;
    private final SimulatedBench sim;
    private final Case c;
    private volatile long begun;
    private volatile long off;
    private String why = "";
    private boolean mayBeOn;
    private boolean armed;

    Trial(Workshop w, SimulatedBench sim, Case c) {
      this.w = w;
      this.sim = sim;
      this.c = c;
    }

    private void arm() {
      armed = true;
      sim.servers()
          .instrument("supply")
          .mischiefFrom(c.command(), c.mischief(), () -> begun = System.nanoTime());
    }

    @Override
    public void sample(double seconds, double volts, double amps, PowerStep step) {
      if (!armed) {
        arm();
      }
    }

    @Override
    public void ended(String what, boolean surprise, boolean unsure) {
      why = what;
      mayBeOn = unsure;
    }

    Case run() throws Exception {
      if (!c.on()) {
        arm();
      }
      Bench bench = new Bench("simulated bench", sim.bench().addresses(), TIMEOUT_MILLIS, false);
      try (ScheduledExecutorService eyes = Executors.newSingleThreadScheduledExecutor()) {
        eyes.scheduleAtFixedRate(this::look, 0, LOOK_MILLIS, TimeUnit.MILLISECONDS);
        try (PowerRun run =
            new PowerRun(w.acts(), w.plan(w.buildOf(BOARD)), BOARD, bench, this, 1)) {
          if (run.climb()) {
            run.watch();
            run.off("done");
          }
        }
        eyes.shutdownNow();
      }
      long end = System.nanoTime();
      boolean on = sim.servers().outputOn();
      boolean known = LeftOn.of(w.space()).size() == (mayBeOn ? 1 : 0);
      End how =
          why.isEmpty() || on && !mayBeOn || !known
              ? End.WRONG
              : mayBeOn ? End.TOLD : why.equals("done") ? End.DONE : End.OFF;
      long until = how == End.OFF && off > begun ? off : end;
      double seconds = begun == 0 || how == End.DONE ? 0 : (until - begun) / 1e9;
      sim.servers().instrument("supply").mischief(Mischief.NONE);
      w.type(BOARD, "off for the next").orThrow();
      return new Case(c.on(), c.command(), c.mischief(), how, seconds, why);
    }

    private void look() {
      if (sim.servers().outputOn()) {
        off = System.nanoTime();
      }
    }
  }

  /// The table: a line for each command, a word for each way.
  public static List<String> table(List<Case> cases) {
    TreeMap<String, TreeMap<Mischief, Case>> rows = new TreeMap<>();
    for (Case c : cases) {
      rows.computeIfAbsent((c.on() ? "on, " : "before, ") + c.command(), _ -> new TreeMap<>())
          .put(c.mischief(), c);
    }
    List<String> lines = new ArrayList<>();
    rows.forEach((command, row) -> {
      StringBuilder line = new StringBuilder(String.format(Locale.ROOT, "%-20s", command));
      row.forEach((m, c) ->
          line.append(
              String.format(Locale.ROOT, " %s %s %.1f s;", m, c.end().word(), c.seconds())));
      lines.add(line.toString());
    });
    return lines;
  }
}
