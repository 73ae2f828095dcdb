package ell.cli.talk;

import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.bench.sim.SimBench;
import ell.cli.bench.FaultOptions;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.core.talk.Script;
import ell.core.talk.Strip;
import ell.work.Workshop;
import ell.work.act.Refusal;
import ell.work.bench.SimulatedBench;
import ell.work.space.ActException;
import ell.work.talk.Scripts;
import ell.work.talk.TalkBench;
import ell.work.talk.TalkRun;
import ell.work.talk.Terminal;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// A line to a board: a script that is run over it, or a terminal. What is said is kept in the
/// book.
@Command(
    name = "talk",
    description =
        "run a script over a line to a board, or type over it; what was sent and heard is kept in the"
            + " book")
public final class TalkCommand extends WorkspaceCommand {

  @Option(names = "--board", split = ",", description = "serial; several one after the other")
  List<String> boards = new ArrayList<>();

  @Option(
      names = "--script",
      paramLabel = "FILE",
      description = "JSON: what is sent and expected; or the name of one that is kept")
  Optional<Path> script = Optional.empty();

  @Option(names = "--keep", description = "keep the script and its images with the revision")
  boolean keep;

  @Option(
      names = "--line",
      paramLabel = "ADDR",
      description = "tcp:host:port, serial:NAME@115200,8N1[,rtscts] or sim[@baud]")
  Optional<String> line = Optional.empty();

  @Option(
      names = "--answer",
      paramLabel = "KEY=WORDS",
      description = "an answer to a question of the script, kept for all boards of the revision")
  Map<String, String> answers = new LinkedHashMap<>();

  @Option(
      names = "--healthy",
      description = "keep what is heard as what a healthy board says while this script runs")
  boolean healthy;

  @Option(names = "--seconds", description = "without a script: listen so long, then close")
  double seconds;

  @Option(
      names = "--strip",
      paramLabel = "NUMBER",
      description = "show what was sent and heard, of an entry of the board; 0 for the latest")
  Optional<Long> strip = Optional.empty();

  @Option(
      names = "--fault",
      description =
          "with --line sim: what is wrong with the board that lies there, such as \"open U4.40\"; may"
              + " be given several times")
  List<String> faults = new ArrayList<>();

  @Option(names = "--seed", description = "of the simulated bench's small errors")
  long seed = 1;

  @Override
  public Integer call() throws Exception {
    if (strip.isPresent()) {
      try (Workshop w = look()) {
        return strip(w);
      }
    }
    if (boards.isEmpty()) {
      throw new ActException("which board? say --board N");
    }
    LineAddress address =
        new LineAddress(
            line.orElseThrow(() ->
                new ActException("which line? say --line tcp:host:port, serial:NAME@baud or sim")));
    if (script.isEmpty() && (json || boards.size() > 1 || healthy)) {
      throw new ActException("--json, --healthy and several boards are for a --script");
    }
    try (Workshop w = open()) {
      for (var l : w.recordings().recover()) {
        err()
            .println(
                "entry "
                    + l.number()
                    + ", board "
                    + l.board()
                    + ": "
                    + EntryWords.of(l.entry())
                    + "; it was cut off");
      }
      for (String b : boards) {
        w.buildOf(b);
      }
      for (Map.Entry<String, String> a : answers.entrySet()) {
        var build = w.buildOf(boards.getFirst());
        w.talks().answer(build.design(), build.revision(), a.getKey(), a.getValue());
      }
      return script.isPresent() ? scripted(w, address, opened(w)) : terminal(w, address);
    }
  }

  private Scripts.Opened opened(Workshop w) throws IOException, ActException {
    Path f = script.orElseThrow();
    var build = w.buildOf(boards.getFirst());
    if (keep) {
      w.scripts().keep(build.design(), build.revision(), f);
    }
    boolean word = f.getNameCount() == 1 && !Files.exists(f);
    return word
        ? w.scripts().kept(build.design(), build.revision(), f.toString())
        : Scripts.open(f);
  }

  private int scripted(Workshop w, LineAddress address, Scripts.Opened s) throws Exception {
    ArrayNode runs = Json.object().putArray("runs");
    boolean good = true;
    ObjectNode last = Json.object();
    for (int i = 0; i < boards.size(); i++) {
      if (i > 0 && !address.simulated() && !json) {
        out().println("put board " + boards.get(i) + " on the line, then Enter");
        out().flush();
        if (new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8)).readLine()
            == null) {
          throw new ActException("nobody said that board " + boards.get(i) + " is on the line");
        }
      }
      TalkRun.Done d = one(w, address, s, boards.get(i));
      good &= d.talk().verdict().filter(v -> v == Verdict.WITHIN).isPresent();
      last = shape(d);
      runs.add(last);
    }
    if (json) {
      print(boards.size() == 1 ? last : Json.object().set("runs", runs));
    }
    return good ? Exit.DONE : Exit.NOT_HELD;
  }

  private TalkRun.Done one(Workshop w, LineAddress address, Scripts.Opened opened, String board)
      throws Exception {
    Script s = opened.script();
    Plan plan = w.plan(w.buildOf(board));
    Optional<Refusal> no = TalkRun.refusal(w.acts(), board, s);
    if (no.isPresent()) {
      throw new ActException(no.get().text());
    }
    TalkRun run = new TalkRun(w.talks(), w.recordings(), w.acts(), plan, board, new Shown());
    try (Opened o = opened(w, address, plan, board, s.baud())) {
      Thread stop = new Thread(run::stop);
      Runtime.getRuntime().addShutdownHook(stop);
      try {
        TalkRun.Done d = run.run(opened, address, o.bench()::open, o.bench().notes());
        if (!json) {
          d.talk().told().forEach(t -> out().println("  " + t));
          out().println("entry " + d.entry().number() + " · " + EntryWords.of(d.talk()));
          out().flush();
        }
        if (healthy && !run.healthyText().isBlank()) {
          var build = w.buildOf(board);
          w.talks().keepHealthy(build.design(), build.revision(), s.name(), run.healthyText());
        }
        return d;
      } finally {
        removed(stop);
      }
    } catch (BenchException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  private static void removed(Thread hook) {
    try {
      Runtime.getRuntime().removeShutdownHook(hook);
    } catch (IllegalStateException e) {
      // it is being shut down
    }
  }

  /// A line, and the simulated bench behind it if there is one.
  private record Opened(TalkBench bench, Optional<SimulatedBench> own) implements AutoCloseable {
    @Override
    public void close() throws IOException {
      try {
        bench.close();
      } finally {
        own.ifPresent(SimulatedBench::close);
      }
    }
  }

  private Opened opened(Workshop w, LineAddress address, Plan plan, String board, int baud)
      throws IOException, ActException {
    if (!address.simulated() && !faults.isEmpty()) {
      throw new ActException("--fault is for --line sim: a board of your own has its own");
    }
    if (!address.simulated()) {
      return new Opened(TalkBench.own(address), Optional.empty());
    }
    SimulatedBench sim =
        SimulatedBench.start(
            w, seed, Map.of(), SimBench.PLATE_SPEED, Map.of(board, FaultOptions.parse(faults)));
    try {
      TalkBench t =
          TalkBench.simulated(
              w.acts(),
              plan,
              board,
              sim.bench(),
              address,
              baud,
              l -> {
                if (!json) {
                  out().println("entry " + l.number() + " · " + EntryWords.of(l.entry()));
                }
              });
      t.notes().forEach(err()::println);
      err().flush();
      return new Opened(t, Optional.of(sim));
    } catch (IOException | ActException | RuntimeException e) {
      sim.close();
      throw e;
    }
  }

  /// What happens, as it happens.
  private final class Shown implements TalkRun.Watcher {
    @Override
    public void begins(int number, Script.Step step) {
      if (!json) {
        out().println(number + "  " + step.words());
        out().flush();
      }
    }

    @Override
    public void ended(Entry.Talk.Step s) {
      if (!json) {
        out()
            .printf(
                Locale.ROOT,
                "   %s %.2f s  %s%n",
                s.verdict() == Verdict.WITHIN ? "●" : "×",
                s.seconds(),
                s.got());
        out().flush();
      }
    }
  }

  private static ObjectNode shape(TalkRun.Done d) {
    Entry.Talk t = d.talk();
    ObjectNode o = Json.object().put("board", d.entry().board()).put("entry", d.entry().number());
    ArrayNode steps = o.putArray("steps");
    for (Entry.Talk.Step s : t.steps()) {
      ObjectNode one = steps.addObject().put("number", s.number());
      if (!s.sent().isEmpty()) {
        one.put("sent", s.sent());
      }
      if (!s.expected().isEmpty()) {
        one.put("expected", s.expected());
      }
      one.put("got", s.got()).put("seconds", s.seconds()).put("verdict", s.verdict().key());
    }
    o.put("verdict", t.verdict().orElseThrow().key());
    o.put("restarts", t.restarts()).put("lost", t.lost());
    if (!t.firmware().isEmpty()) {
      o.put("firmware", t.firmware());
    }
    // half of the answers came faster
    double[] answers =
        t.steps().stream()
            .filter(s -> !s.sent().isEmpty() && !s.expected().isEmpty())
            .filter(s -> s.verdict() == Verdict.WITHIN)
            .mapToDouble(Entry.Talk.Step::seconds)
            .sorted()
            .toArray();
    if (answers.length > 0) {
      o.put("latency", answers[answers.length / 2]);
    }
    o.put("sentBytes", t.sent()).put("heardBytes", t.heard());
    Json.strings(o, "told", t.told());
    d.knows().ifPresent(k -> o.set("identity", Json.entry(k)));
    return o;
  }

  private int terminal(Workshop w, LineAddress address) throws Exception {
    String board = boards.getFirst();
    Plan plan = w.plan(w.buildOf(board));
    try (Opened o = opened(w, address, plan, board, 0);
        Terminal t =
            new Terminal(
                w.recordings(),
                w.acts(),
                board,
                address,
                o.bench()::open,
                new Terminal.Watcher() {
                  @Override
                  public void heard(String text) {
                    out().print(text);
                    out().flush();
                  }

                  @Override
                  public void line(boolean there, String words) {
                    err().println(there ? "the line is there again" : "the line is lost: " + words);
                    err().flush();
                  }
                })) {
      err()
          .println(
              "board "
                  + board
                  + " on "
                  + address.text()
                  + "; each line is sent; the end of"
                  + " the input closes it");
      err().flush();
      CountDownLatch over = new CountDownLatch(1);
      Thread closing =
          new Thread(() -> {
            over.countDown();
            t.closed();
          });
      Runtime.getRuntime().addShutdownHook(closing);
      Thread.ofVirtual().start(() -> type(t, over));
      if (seconds > 0) {
        over.await((long) (seconds * 1000), TimeUnit.MILLISECONDS);
      } else {
        over.await();
      }
      removed(closing);
      var l = t.end();
      out().println();
      out().println("entry " + l.number() + " · " + EntryWords.of(l.entry()));
      out().flush();
      return Exit.DONE;
    } catch (BenchException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  private void type(Terminal t, CountDownLatch over) {
    try {
      BufferedReader in =
          new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
      // a board that begins when the line is opened hears nothing before it said so
      for (int i = 0; i < 12 && !t.heard(); i++) {
        Thread.sleep(50);
      }
      String typed;
      while ((typed = in.readLine()) != null) {
        try {
          t.send(typed + "\r");
        } catch (BenchException e) {
          err().println(e.getMessage());
          err().flush();
        }
      }
      // what was asked last is given time to answer
      Thread.sleep(seconds > 0 ? Math.max(0, (long) (seconds * 1000)) : 1000);
    } catch (IOException | InterruptedException e) {
      // nothing more is typed
    } finally {
      over.countDown();
    }
  }

  private int strip(Workshop w) throws Exception {
    if (boards.size() != 1) {
      throw new ActException("whose strip? say --board N");
    }
    var found =
        w.entries(boards.getFirst()).reversed().stream()
            .filter(l -> l.entry() instanceof Entry.Talk)
            .filter(l -> strip.get() == 0 || l.number() == strip.get())
            .findFirst()
            .orElseThrow(() -> new ActException("the board has no such talk"));
    for (Strip.Row s : Strip.rows(w.recordings().pieces((Entry.Talk) found.entry()))) {
      out()
          .printf(
              Locale.ROOT,
              "%9.3f s %s %s%n",
              s.seconds(),
              s.kind() == '>' ? "sent " : s.kind() == '<' ? "heard" : "     ",
              s.text());
    }
    out().flush();
    return Exit.DONE;
  }
}
