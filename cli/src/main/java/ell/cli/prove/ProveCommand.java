package ell.cli.prove;

import ell.book.BookException;
import ell.book.Build;
import ell.cli.bench.BenchOptions;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.prove.BuildProof;
import ell.core.prove.Expected;
import ell.core.prove.PlanCheck;
import ell.core.prove.PlanKnown;
import ell.core.prove.PlanProposal;
import ell.core.prove.PlanText;
import ell.core.prove.TestPlan;
import ell.core.prove.UseGate;
import ell.core.prove.UseRules;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.prove.Proofs;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What the proofs of a build say; with `--go`, a board goes through its test plan.
@Command(
    name = "prove",
    description =
        "what the proofs of a build say, and which boards may be used; with --go, boards go through"
            + " their test plan")
public final class ProveCommand extends WorkspaceCommand {
  @Mixin Which which;
  @Mixin BenchOptions bench;

  @Option(names = "--board", split = ",", description = "serial; several one after the other")
  List<String> boards = new ArrayList<>();

  @Option(names = "--go", description = "run the test plan")
  boolean go;

  @Option(
      names = "--plan",
      paramLabel = "FILE",
      description =
          "a test plan, a step a line; without it the one that is kept with the revision, else the"
              + " one that is proposed")
  Optional<Path> plan = Optional.empty();

  @Option(names = "--keep", description = "keep the plan of --plan with the revision")
  boolean keep;

  @Option(
      names = "--show",
      description = "print the plan, and what is wrong with it; nothing is run")
  boolean show;

  @Option(
      names = "--propose",
      description = "print the plan that is proposed, whatever is kept; nothing is run")
  boolean propose;

  @Option(
      names = "--order",
      description =
          "the plan's tests in the order that decides a board soonest, by what the book"
              + " says of them; with --keep it is kept so")
  boolean order;

  @Option(
      names = "--line",
      paramLabel = "ADDR",
      description = "the line to the board: tcp:host:port or serial:NAME@115200,8N1")
  Optional<String> line = Optional.empty();

  @Option(names = "--jig", paramLabel = "SERIAL", description = "the jig whose probes touch")
  String jig = "";

  @Option(
      names = "--answer",
      paramLabel = "NAME=WORDS",
      description = "an answer to a question of the plan; may be given several times")
  Map<String, String> answers = new LinkedHashMap<>();

  @Option(
      names = "--skip",
      paramLabel = "NAME=WHY",
      description = "leave a step out, for a reason; may be given several times")
  Map<String, String> skips = new LinkedHashMap<>();

  @Option(
      names = "--anew",
      description = "begin from the first step, though the last run was cut off")
  boolean anew;

  @Option(names = "--so", description = "what must be so before first power is so: you looked")
  boolean so;

  @Option(
      names = "--helper",
      paramLabel = "NAME",
      description = "a helper is at the bench, and is told one word and what to do")
  Optional<String> helper = Optional.empty();

  @Option(
      names = "--say",
      paramLabel = "WORD=VALUE",
      description =
          "what a board must have before it is used: use=flies,heats,charges,moves heats=3"
              + " confidence=0.99 proofs=3; nothing behind the = takes it back")
  List<String> says = new ArrayList<>();

  @Override
  public Integer call() throws Exception {
    if (go && (show || propose || order || !says.isEmpty()) || keep && plan.isEmpty() && !order) {
      throw new ActException(
          "--go runs, --show, --propose and --order print, --say keeps rules; --keep goes with"
              + " --plan or --order");
    }
    if (!go && (anew || so || helper.isPresent() || !skips.isEmpty() || !answers.isEmpty())) {
      throw new ActException("--anew, --so, --helper, --skip and --answer go with --go");
    }
    if (!jig.matches("[A-Za-z0-9_-]{0,12}")) {
      throw new ActException(
          "--jig: a jig has a serial number of up to 12 letters, digits, - or _, found '"
              + jig
              + "'");
    }
    if (go && keep) {
      throw new ActException("keep the plan first, then run it");
    }
    return go ? new ProveGo(this).run() : shown();
  }

  /// The workspace, open for a run.
  Workshop opened() throws BookException {
    return open();
  }

  private int shown() throws Exception {
    boolean writes = keep || !says.isEmpty();
    try (Workshop w = writes ? open() : look()) {
      Plan p = boards.isEmpty() ? which.plan(w) : w.plan(w.buildOf(boards.getFirst()));
      if (!says.isEmpty()) {
        return said(w.proofs().say(p.revision().design(), p.revision().name(), says));
      }
      if (order) {
        return new OrderAnswer(out(), json).print(w, p, chosen(w, p), keep);
      }
      if (keep) {
        TestPlan kept = w.proofs().keep(p, plan.orElseThrow());
        return shown(w, p, kept);
      }
      if (propose) {
        return shown(w, p, PlanProposal.of(w.proofs().known(p), Optional.empty()));
      }
      if (show || plan.isPresent()) {
        return shown(w, p, chosen(w, p));
      }
      return overview(w);
    }
  }

  private TestPlan chosen(Workshop w, Plan p) throws IOException, ActException {
    return plan.isPresent() ? Proofs.read(plan.get()) : w.proofs().of(p, Optional.empty());
  }

  private int said(UseRules r) {
    if (json) {
      ObjectNode o = Json.object();
      Json.strings(o, "use", List.copyOf(r.uses()));
      o.put("heats", r.heats()).put("confidence", r.sure()).put("proofs", r.clean());
      print(o);
    } else {
      out()
          .printf(
              java.util.Locale.ROOT,
              "used: %s; up to %d heat cycles, a fault gone with %.4g %%, %d clean %s in a row%n",
              r.uses().isEmpty() ? "nothing that may hurt" : String.join(", ", r.uses()),
              r.heats(),
              100 * r.sure(),
              r.clean(),
              r.clean() == 1 ? "proof" : "proofs");
    }
    return Exit.DONE;
  }

  private int shown(Workshop w, Plan p, TestPlan t) throws Exception {
    PlanKnown known = w.proofs().known(p);
    PlanCheck c = PlanCheck.of(t, known, Optional.empty());
    if (json) {
      ObjectNode o = Json.object().put("plan", t.name()).put("minutes", t.minutes(!jig.isEmpty()));
      ArrayNode steps = o.putArray("steps");
      for (int i = 0; i < t.steps().size(); i++) {
        var s = t.steps().get(i);
        ObjectNode x =
            steps
                .addObject()
                .put("number", i + 1)
                .put("name", s.name())
                .put("line", PlanText.line(s))
                .put("times", t.times(i + 1))
                .put("minutes", s.minutes(!jig.isEmpty()));
        if (c.blocks().isEmpty()) {
          Expected.of(known, s)
              .limits()
              .ifPresent(l -> {
                Json.number(x, "low", l.low());
                Json.number(x, "high", l.high());
              });
        }
      }
      Json.strings(o, "blocks", c.blocks());
      Json.strings(o, "mind", c.mind());
      Json.strings(o, "told", t.told());
      o.put("text", PlanText.of(t));
      print(o);
    } else {
      out().print(PlanText.of(t));
      out().printf(java.util.Locale.ROOT, "# %.1f min a board%n", t.minutes(!jig.isEmpty()));
      c.mind().forEach(m -> out().println("# mind: " + m));
      c.blocks().forEach(b -> out().println("# cannot run: " + b));
    }
    return c.blocks().isEmpty() ? Exit.DONE : Exit.NOT_HELD;
  }

  private int overview(Workshop w) throws Exception {
    Build b =
        boards.isEmpty()
            ? which.build(w).orElseThrow(() -> new ActException("there is no build yet"))
            : w.buildOf(boards.getFirst());
    Plan p = w.plan(b);
    BuildProof proof = w.proofs().build(p, b);
    Map<String, UseGate> gates = new LinkedHashMap<>();
    for (String board : boards.isEmpty() ? b.boards() : boards) {
      if (!b.boards().contains(board)) {
        throw new ActException("board " + board + " is of another build: ask for it alone");
      }
      gates.put(board, w.proofs().gate(p, w.state(board)));
    }
    if (json) {
      print(ProveJson.build(proof, gates));
    } else {
      new BuildText(out()).print(proof, gates);
    }
    return Exit.DONE;
  }

  /// Where results go.
  java.io.PrintWriter output() {
    return out();
  }

  /// Where problems go.
  java.io.PrintWriter problems() {
    return err();
  }

  /// Prints the one object of `--json`.
  void shape(tools.jackson.databind.JsonNode o) {
    print(o);
  }
}
