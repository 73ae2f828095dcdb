package ell.cli.prove;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Meter;
import ell.bench.instrument.Supply;
import ell.bench.line.LineAddress;
import ell.cli.bench.BenchOptions;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.prove.Expected;
import ell.core.prove.TestPlan;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.power.BeforePowerSo;
import ell.work.prove.ProofTold;
import ell.work.prove.Proofs;
import ell.work.prove.ProveBench;
import ell.work.prove.ProveRun;
import ell.work.space.ActException;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Takes boards through their test plan, and asks whoever sits at the terminal.
final class ProveGo {
  private final ProveCommand c;

  /// @param command what was asked for
  ProveGo(ProveCommand command) {
    this.c = command;
  }

  /// Proves the boards that were asked for.
  ///
  /// @return the exit code
  int run() throws Exception {
    if (c.boards.isEmpty()) {
      throw new ActException("which board? say --board B");
    }
    try (Workshop w = c.opened()) {
      for (String b : c.boards) {
        w.buildOf(b);
      }
      boolean supplied = c.bench.has(Supply.KIND) || c.bench.simulated();
      boolean laid = c.bench.has(Hands.KIND) || c.bench.simulated();
      if (c.boards.size() > 1 && c.json && !laid) {
        throw new ActException(
            "with --json nobody is asked to put the next board on the bench: prove one at a time");
      }
      try (BenchOptions.Opened b = c.bench.open(w, supplied ? Supply.KIND : Meter.KIND)) {
        ProveBench on = new ProveBench(b.bench(), address(), c.jig);
        ObjectNode last = Json.object();
        ArrayNode runs = Json.object().putArray("runs");
        boolean good = true;
        for (int i = 0; i < c.boards.size(); i++) {
          if (i > 0 && !laid) {
            next(c.boards.get(i));
          }
          ProveRun.Done d = one(w, on, c.boards.get(i));
          good &= d.run().verdict().filter(v -> v == Verdict.WITHIN).isPresent();
          last = ProveJson.run(c.boards.get(i), d.run());
          told(w, c.boards.get(i), last);
          runs.add(last);
        }
        if (c.json) {
          c.shape(c.boards.size() == 1 ? last : Json.object().set("runs", runs));
        }
        return good ? Exit.DONE : Exit.NOT_HELD;
      }
    }
  }

  private Optional<LineAddress> address() throws ActException {
    if (c.line.isPresent() && !c.line.get().matches("(tcp|serial):\\S.*")) {
      throw new ActException(
          "--line is tcp:host:port or serial:NAME@115200,8N1, found '" + c.line.get() + "'");
    }
    return c.line.map(LineAddress::new);
  }

  private void next(String board) throws IOException, ActException {
    c.output().println("put board " + board + " on the bench, then Enter");
    c.output().flush();
    if (typed().isEmpty()) {
      throw new ActException("nobody said that board " + board + " is on the bench");
    }
  }

  private BufferedReader in;

  private Optional<String> typed() throws IOException {
    if (in == null) {
      in = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
    }
    return Optional.ofNullable(in.readLine());
  }

  private void told(Workshop w, String board, ObjectNode o) throws Exception {
    Optional<ProofTold> t = ProofTold.of(w.state(board));
    if (t.isPresent()) {
      o.put("told", t.get().word());
      Json.strings(o, "ticket", t.get().ticket());
      if (!c.json) {
        c.output().println();
        c.output().println("    " + t.get().word());
        c.output().println("    " + t.get().todo());
        t.get().ticket().forEach(l -> c.output().println("    " + l));
      }
    }
  }

  private ProveRun.Done one(Workshop w, ProveBench on, String board) throws Exception {
    Plan p = w.plan(w.buildOf(board));
    if (c.helper.isPresent()) {
      w.log(board, List.of(new Entry.Operator(c.helper.get(), true))).orThrow();
    }
    if (c.so) {
      BeforePowerSo.log(w.acts(), p, board);
    }
    TestPlan t =
        c.plan.isPresent() ? Proofs.read(c.plan.get()) : w.proofs().of(p, Optional.of(on.kinds()));
    if (!c.json) {
      t.told().forEach(x -> c.output().println("mind: " + x));
    }
    for (String name : c.skips.keySet()) {
      if (t.step(name).isEmpty()) {
        throw new ActException(
            "--skip: no step '" + name + "' in plan " + t.name() + "; see it with --show");
      }
    }
    ProveRun[] run = {null};
    run[0] = new ProveRun(w.proving(), p, t, board, on, new Shown(run));
    Thread safety =
        new Thread(() -> {
          run[0].stop();
          for (int i = 0; i < 60 && run[0].on(); i++) {
            try {
              Thread.sleep(50);
            } catch (InterruptedException e) {
              return;
            }
          }
        });
    Runtime.getRuntime().addShutdownHook(safety);
    try {
      ProveRun.Done d = run[0].run(c.anew);
      if (!c.json) {
        Optional<Logged> end = d.run().ended();
        c.output()
            .println(
                "board "
                    + board
                    + ": "
                    + end.map(l -> EntryWords.of(l.entry()))
                        .orElse("stopped; the same command goes on where it was"));
      }
      return d;
    } finally {
      try {
        Runtime.getRuntime().removeShutdownHook(safety);
      } catch (IllegalStateException e) {
        // it is being shut down
      }
    }
  }

  /// What happens, as it happens; questions go to whoever sits at the terminal.
  private final class Shown implements ProveRun.Watcher {
    private final ProveRun[] run;

    Shown(ProveRun[] run) {
      this.run = run;
    }

    @Override
    public void begins(TestPlan.Turn turn, int at, int of, Expected expected) {
      String why = c.skips.get(turn.step().name());
      if (why != null) {
        try {
          run[0].skip(why);
        } catch (IOException | ActException e) {
          c.problems().println(e.getMessage());
          c.problems().flush();
        }
      }
      if (!c.json) {
        c.output().println(at + "/" + of + "  " + turn.step().act().words());
        c.output().flush();
      }
    }

    @Override
    public void ended(Entry.ProofStep s) {
      if (c.json) {
        return;
      }
      String mark =
          s.verdict()
              .map(v ->
                  switch (v) {
                    case WITHIN -> "\u25cf";
                    case CLOSE -> "\u25d0";
                    case OUT -> "\u00d7";
                  })
              .orElse("\u25cb");
      String value =
          s.value()
              .map(v -> Double.isInfinite(v) ? "open" : EngineeringNumber.print(v, s.unit(), 4))
              .orElse("");
      c.output()
          .println(
              "   "
                  + mark
                  + " "
                  + String.join(
                      "  ",
                      java.util.stream.Stream.of(
                              value,
                              s.limits().map(l -> "(" + l.text(s.unit(), 4) + ")").orElse(""),
                              s.words())
                          .filter(x -> !x.isEmpty())
                          .toList()));
      c.output().flush();
    }

    @Override
    public Optional<String> asks(String name, String question, String wants) {
      String said = c.answers.get(name);
      if (said != null) {
        return Optional.of(said);
      }
      if (c.json || System.console() == null) {
        return Optional.empty();
      }
      c.output().print("   " + question + " [" + wants + "] ");
      c.output().flush();
      try {
        return typed().filter(t -> !t.isBlank());
      } catch (IOException e) {
        return Optional.empty();
      }
    }
  }
}
