package ell.cli.revise;

import ell.cli.shell.Exit;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.NetDifference;
import ell.core.revise.ChangeCheck;
import ell.core.revise.difference.LayerDifference;
import ell.core.revise.difference.RevisionDifference;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/// What really differs between two revisions, and what of the change list was done.
@Command(
    name = "diff",
    description =
        "what really differs between two revisions, whatever parts and nets are called, and what of"
            + " the change list was done, forgotten, or never asked for")
public final class DiffCommand extends WorkspaceCommand {
  @Option(names = "--from", required = true, description = "name of the earlier revision")
  String from;

  @Option(names = "--to", required = true, description = "name of the later revision")
  String to;

  @Option(
      names = "--design",
      description = "name of the design; the one that has both revisions when not said")
  Optional<String> design = Optional.empty();

  @Override
  public Integer call() throws Exception {
    try (Workshop w = look()) {
      String of = design(w);
      RevisionDifference d = w.revising().difference(of, from, to);
      ChangeCheck c = w.revising().check(d, of, from, to);
      List<LayerDifference> layers = w.revising().layers(d, of, from, to);
      if (json) {
        print(DiffJson.of(d, layers, c));
      } else {
        text(d, layers, c);
      }
    }
    return Exit.DONE;
  }

  private String design(Workshop w) throws IOException, ActException {
    if (design.isPresent()) {
      return design.get();
    }
    List<String> both =
        w.revising().designs().stream()
            .filter(x -> {
              try {
                return w.revising().revisions(x).containsAll(List.of(from, to));
              } catch (IOException e) {
                return false;
              }
            })
            .toList();
    if (both.size() == 1) {
      return both.getFirst();
    }
    throw new ActException(
        both.isEmpty()
            ? "no design has both revisions " + from + " and " + to + "; " + all(w)
            : "several designs have both: say --design " + String.join(" or --design ", both));
  }

  private static String all(Workshop w) throws IOException {
    List<String> all =
        w.book().revisions().stream().map(r -> r.design() + " rev " + r.name()).toList();
    return all.isEmpty() ? "nothing is imported yet" : "there are " + String.join(", ", all);
  }

  private void text(RevisionDifference d, List<LayerDifference> layers, ChangeCheck c) {
    out().println(d.first() + " to " + d.second());
    if (d.same() && layers.isEmpty()) {
      out().println("nothing changed but names");
    }
    lines("added", d.added());
    lines("removed", d.removed());
    for (RevisionDifference.Changed v : d.value()) {
      out().println("value    " + v.part() + ": " + v.from() + " to " + v.to());
    }
    for (RevisionDifference.Changed v : d.packages()) {
      out().println("package  " + v.part() + ": " + v.from() + " to " + v.to());
    }
    for (RevisionDifference.Changed v : d.fitted()) {
      out().println("fitted   " + v.part() + ": " + v.from() + " to " + v.to());
    }
    for (RevisionDifference.Moved m : d.moved()) {
      out().println("moved    " + ChangeCheck.moved(m));
    }
    for (NetDifference.Moved j : d.joints()) {
      out()
          .println(
              "joint    "
                  + j.place()
                  + ": "
                  + (j.from().isEmpty() ? "nothing" : j.from())
                  + " to "
                  + (j.to().isEmpty() ? "nothing" : j.to()));
    }
    lines("nets added", d.netsAdded());
    lines("nets removed", d.netsRemoved());
    names("renamed", d.renamed());
    names("renumbered", d.renumbered());
    layers.forEach(l -> out().println("layer    " + l.words()));
    for (ChangeCheck.Change x : c.changes()) {
      out()
          .println(
              (switch (x.state()) {
                    case DONE -> "done       ";
                    case PARTLY -> "partly     ";
                    case FORGOTTEN -> "forgotten  ";
                  })
                  + x.item().id()
                  + " "
                  + x.item().title());
      x.evidence().forEach(e -> out().println("             " + e));
    }
    if (!c.unexplained().isEmpty()) {
      out().println("changed, and nothing on the list asks for it:");
      c.unexplained().forEach(u -> out().println("  " + u));
    }
    d.told().forEach(t -> out().println("\u00b7 " + t));
    out().flush();
  }

  private void lines(String what, List<String> names) {
    if (!names.isEmpty()) {
      out().printf("%-8s %s%n", what, String.join(" ", names));
    }
  }

  private void names(String what, java.util.Map<String, String> by) {
    if (!by.isEmpty()) {
      out()
          .println(
              what
                  + ": "
                  + String.join(
                      ", ",
                      by.entrySet().stream()
                          .map(e -> e.getKey() + " is now " + e.getValue())
                          .toList()));
    }
  }
}
