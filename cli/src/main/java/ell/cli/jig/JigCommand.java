package ell.cli.jig;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.Replacing;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Revision;
import ell.core.jig.JigBook;
import ell.core.jig.JigPlan;
import ell.core.jig.OutputNets;
import ell.core.jig.Patterns;
import ell.core.jig.Probe;
import ell.core.jig.Shared;
import ell.core.order.Method;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.jig.JigFiles;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// A test jig for a revision.
@Command(
    name = "jig",
    description = "a test jig: which probes where, what presses, how the board bends, does it pay")
public final class JigCommand extends WorkspaceCommand {
  @Mixin Which which;
  @Mixin Replacing replacing;

  @Option(
      names = "--reach",
      description =
          "power, all, tests, a file with a net a line, or nets apart by commas; tests when not said")
  Optional<String> reach = Optional.empty();

  @Option(
      names = "--targets",
      description = "what probes may land on: points,holes,pads,vias; all of them when not said")
  Optional<String> targets = Optional.empty();

  @Option(names = "--top-ok", description = "probes may come from the first side as well")
  boolean topOk;

  @Option(
      names = "--say",
      description =
          "keeps what you know of the jig with the revision, such as thickness=1.0mm; nothing"
              + " behind the = takes it back; may be given several times")
  List<String> say = new ArrayList<>();

  @Option(names = "--out", description = "folder to write plates, wiring and parts into")
  Optional<Path> out = Optional.empty();

  @Option(
      names = "--patterns",
      description = "walking, counting, complement or all-together, over --outputs")
  Optional<String> patterns = Optional.empty();

  @Option(names = "--outputs", description = "nets that are set, apart by commas")
  Optional<String> outputs = Optional.empty();

  @Option(
      names = "--inputs",
      description = "nets that are read, apart by commas: what they should read at each vector")
  Optional<String> inputs = Optional.empty();

  @Option(
      names = "--also",
      description = "another product for the same jig, DESIGN:REVISION; may be given several times")
  List<String> also = new ArrayList<>();

  @Override
  public Integer call() throws Exception {
    try (Workshop w = say.isEmpty() ? look() : open()) {
      Plan plan = which.plan(w);
      if (patterns.isPresent() || outputs.isPresent()) {
        patterns(plan);
        keep(w, plan);
        return Exit.DONE;
      }
      List<String> words = new ArrayList<>(say);
      reach.ifPresent(r -> words.add("reach=" + r));
      targets.ifPresent(t -> words.add("targets=" + t));
      if (topOk) {
        words.add("top=yes");
      }
      JigPlan p = w.jigs().plan(plan, words);
      List<JigPlan> all = products(w, p, words);
      List<String> written =
          out.isPresent() ? JigFiles.write(p, out.get(), replacing.over(file)) : List.of();
      keep(w, plan); // only once everything else was right
      show(p, all, w.jigs().books().values(), written);
    }
    return Exit.DONE;
  }

  private void keep(Workshop w, Plan plan) throws IOException, ActException {
    if (!say.isEmpty()) {
      w.jigs().say(plan.revision(), say);
    }
  }

  private void show(JigPlan p, List<JigPlan> all, Collection<JigBook> books, List<String> written) {
    if (json) {
      ObjectNode o = JigJson.of(p);
      JigJson.proof(o, p);
      JigJson.books(o, books);
      if (all.size() > 1) {
        JigJson.shared(o, Shared.of(all));
      }
      if (out.isPresent()) {
        Json.strings(o, "files", written);
      }
      print(o);
    } else if (out.isPresent()) {
      out().println("wrote " + String.join(" ", written) + " to " + out.get());
      p.advice().forEach(a -> out().println("· " + a));
    } else {
      text(p);
      if (all.size() > 1) {
        shared(Shared.of(all));
      }
      books.stream().flatMap(b -> b.told().stream()).forEach(t -> out().println("· " + t));
    }
    out().flush();
  }

  private static List<String> nets(Revision r, String words, String what) throws ActException {
    Set<String> nets = new LinkedHashSet<>();
    for (String n : Arrays.stream(words.split(",")).map(String::strip).toList()) {
      if (n.isEmpty()) {
        continue;
      }
      if (r.net(n).isEmpty()) {
        throw new ActException("no net '" + n + "' in " + r.title());
      }
      if (!nets.add(n)) {
        throw new ActException(what + " " + n + " is named twice");
      }
    }
    return List.copyOf(nets);
  }

  private void patterns(Plan plan) throws ActException {
    Revision r = plan.revision();
    List<String> set = nets(r, outputs.orElse(""), "output");
    List<String> read = nets(r, inputs.orElse(""), "input");
    if (set.isEmpty()) {
      throw new ActException("--patterns needs --outputs, nets apart by commas");
    }
    Patterns p;
    try {
      p = Patterns.of(Patterns.Kind.of(patterns.orElse("counting")), set.size());
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    List<OutputNets.Pair> near = OutputNets.neighbours(r, set);
    int caught = (int) near.stream().filter(x -> p.catches(x.a(), x.b())).count();
    List<String> answers = OutputNets.answers(r, plan.ladder(), set, read, p);
    if (json) {
      ObjectNode o = JigJson.patterns(p, set);
      JigJson.caught(o.putObject("neighbours"), new Patterns.Caught(caught, near.size()));
      if (!read.isEmpty()) {
        Json.strings(o, "inputs", read);
        Json.strings(o, "answers", answers);
      }
      print(o);
      return;
    }
    for (int i = 0; i < p.vectors().size(); i++) {
      out().println(p.vectors().get(i) + (read.isEmpty() ? "" : "  " + answers.get(i)));
    }
    out()
        .printf(
            "shorts between two outputs: %d of %d show, of those beside each other %d of %d;"
                + " lines that are stuck: %d of %d%n",
            p.shorts().caught(),
            p.shorts().total(),
            caught,
            near.size(),
            p.stuck().caught(),
            p.stuck().total());
    if (p.shorts().caught() == 0 && p.shorts().total() > 0) {
      out().println("! two outputs that are joined agree all the time: take another kind");
    }
    out().flush();
  }

  private List<JigPlan> products(Workshop w, JigPlan first, List<String> words)
      throws IOException, ActException {
    List<JigPlan> all = new ArrayList<>(List.of(first));
    for (String a : also) {
      String[] id = a.split(":", 2);
      if (id.length < 2) {
        throw new ActException("expected DESIGN:REVISION such as MG-1:A, found '" + a + "'");
      }
      all.add(
          w.jigs()
              .plan(
                  w.plans().of(id[0].strip(), id[1].strip(), Method.of("stencil-plate"), "", 1),
                  words));
    }
    return all;
  }

  private void shared(Shared s) {
    out().println("in the base: " + String.join(" ", s.common()));
    for (Shared.Own o : s.personality()) {
      out()
          .println(
              "on the board of "
                  + o.product()
                  + ": "
                  + o.probes()
                  + " probes at places of its own"
                  + (o.nets().isEmpty() ? "" : ", and " + String.join(" ", o.nets())));
    }
  }

  private void text(JigPlan p) {
    for (Probe x : p.probes()) {
      out()
          .printf(
              Locale.ROOT,
              "%3d  %-14s %-10s %8.2f %8.2f mm  %-6s %-6s %-6s %s  misses %.2g %%%n",
              x.number(),
              x.target().net(),
              x.target().place(),
              x.target().xMm(),
              x.target().yMm(),
              x.target().side().key(),
              x.target().kind().key(),
              x.target().kind().head(),
              x.of().name(),
              100 * x.miss());
    }
    p.unreachable()
        .forEach(u -> out().println("! " + u.net() + ": " + u.why() + "; " + u.remedy()));
    out()
        .printf(
            Locale.ROOT,
            "%d probes, %d from the first side, least spacing %s; %s%n",
            p.probes().size(),
            p.topProbes(),
            Double.isInfinite(p.minGapMm())
                ? "none"
                : String.format(Locale.ROOT, "%.2f mm", p.minGapMm()),
            p.choice().optimal() ? "proven" : "not proven");
    if (p.bending().held()) {
      out()
          .printf(
              Locale.ROOT,
              "%.1f N, closed %s; %d fingers, the board bends by %.3f mm, strain %.0f millionths%n",
              p.force(),
              p.press(),
              p.bending().fingers().size(),
              1e3 * p.bending().deflection(),
              1e6 * p.bending().strain());
    }
    out().println(p.verdict());
    p.advice().forEach(a -> out().println("· " + a));
    out().flush();
  }
}
