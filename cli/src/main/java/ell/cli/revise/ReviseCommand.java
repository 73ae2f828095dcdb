package ell.cli.revise;

import ell.book.RevisionStore;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.Replacing;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Revision;
import ell.core.revise.BodgeMatrix;
import ell.core.revise.Erratum;
import ell.core.revise.RespinSaid;
import ell.core.revise.WayOut;
import ell.core.revise.WorkOrder;
import ell.work.Workshop;
import ell.work.revise.Revising;
import ell.work.send.ChangeListFiles;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Errata against boards, and what the next revision must know.
@Command(
    name = "revise",
    description =
        "errata against boards and the work that is left; what to do about it, what the next"
            + " revision must have, what the bench has learned")
public final class ReviseCommand extends WorkspaceCommand {
  @Mixin Replacing replacing;

  @Option(names = "--design", description = "of one design only; of all when not said")
  Optional<String> design = Optional.empty();

  @Option(
      names = "--revision",
      description = "for --changes, --decide and --say; the latest with boards when not said")
  Optional<String> revision = Optional.empty();

  @Option(
      names = "--changes",
      description = "the change list for the next revision, and what the books suggest for it")
  boolean changes;

  @Option(
      names = "--decide",
      description = "mend the boards that are left, order new ones, or wait")
  boolean decide;

  @Option(names = "--about", paramLabel = "ID", description = "for --decide: one erratum only")
  String about = "";

  @Option(names = "--compare", description = "revisions of the design held against each other")
  boolean compare;

  @Option(names = "--by-build", description = "for --compare: each build by itself")
  boolean byBuild;

  @Option(names = "--stacks", description = "boards that were tried together")
  boolean stacks;

  @Option(names = "--lessons", description = "what the book says over all designs")
  boolean lessons;

  @Option(
      names = "--say",
      paramLabel = "NAME=VALUE",
      description =
          "keeps prices and times with the revision, such as board-cost=12 lead-days=14; nothing"
              + " behind the = takes it back; may be given several times")
  List<String> say = new ArrayList<>();

  @Option(
      names = "--out",
      paramLabel = "FILE",
      description = "write the change list with a card for each bodge: .pdf or .csv")
  Optional<Path> out = Optional.empty();

  @Override
  public Integer call() throws Exception {
    long asked =
        java.util.stream.Stream.of(changes, decide, compare, stacks, lessons)
            .filter(x -> x)
            .count();
    if (asked > 1) {
      throw new ActException(
          "one at a time: --changes, --decide, --compare, --stacks or --lessons");
    }
    try (Workshop w = say.isEmpty() ? look() : open()) {
      if (design.isPresent() && !w.revising().designs().contains(design.get())) {
        throw new ActException(
            "there is no design '"
                + design.get()
                + "'; there are "
                + String.join(", ", w.revising().designs()));
      }
      if (!say.isEmpty()) {
        RevisionStore.Id id = meant(w);
        w.revising().say(id.design(), id.name(), say);
      }
      if (out.isPresent()) {
        RevisionStore.Id id = meant(w);
        ChangeListFiles.write(w, id.design(), id.name(), out.get(), replacing.over(file));
        if (json) {
          print(Json.object().put("file", out.get().toString()));
        } else {
          out().println("wrote " + out.get());
        }
        return Exit.DONE;
      }
      answer(w);
    }
    out().flush();
    return Exit.DONE;
  }

  private void answer(Workshop w) throws Exception {
    ReviseText text = new ReviseText(out());
    if (lessons) {
      show(ReviseJson.lessons(w.revising().lessons()), () -> text.lessons(w.revising().lessons()));
    } else if (stacks) {
      show(ReviseJson.stacks(w.revising().stacks()), () -> text.stacks(w.revising().stacks()));
    } else if (compare) {
      var c = w.revising().compared(meant(w).design(), byBuild);
      show(ReviseJson.compared(c), () -> text.compared(c));
    } else if (decide || !say.isEmpty() && !changes) {
      way(w, text);
    } else if (changes) {
      list(w, text);
    } else {
      BodgeMatrix m = w.revising().matrix(design);
      WorkOrder order = w.revising().workOrder(m);
      show(ReviseJson.of(m, order, in(w)), () -> text.matrix(m, order));
    }
  }

  /// Something that may fail while it is shown.
  private interface Telling {
    void tell() throws Exception;
  }

  private void show(ObjectNode shape, Telling otherwise) throws Exception {
    if (json) {
      print(shape);
    } else {
      otherwise.tell();
    }
  }

  /// The revision in which an erratum was found.
  private static Function<Erratum, Revision> in(Workshop w) {
    return e -> {
      try {
        return w.revision(e.design(), e.revisions().getFirst());
      } catch (IOException | ActException x) {
        throw new IllegalStateException(x.getMessage(), x);
      }
    };
  }

  /// The revision that is meant: as said, else that of the latest open erratum, else that of the
  /// latest build, else the latest one.
  private RevisionStore.Id meant(Workshop w) throws IOException, ActException {
    List<Erratum> errata =
        w.errata().all().all().stream()
            .filter(Erratum::open)
            .filter(e -> design.isEmpty() || design.get().equals(e.design()))
            .toList();
    String d =
        design.isPresent()
            ? design.get()
            : !errata.isEmpty()
                ? errata.getLast().design()
                : w.book().builds().isEmpty()
                    ? w.revisions().latest().design()
                    : w.build(Optional.empty()).design();
    if (revision.isPresent()) {
      w.revision(d, revision.get());
      return new RevisionStore.Id(d, revision.get());
    }
    Optional<String> r =
        errata.reversed().stream()
            .filter(e -> e.design().equals(d))
            .map(e -> e.revisions().getLast())
            .findFirst();
    return new RevisionStore.Id(d, r.isPresent() ? r.get() : w.revising().revisions(d).getLast());
  }

  private void way(Workshop w, ReviseText text) throws Exception {
    if (!about.isEmpty() && w.errata().all().named(about).isEmpty()) {
      throw new ActException("there is no erratum " + about);
    }
    RevisionStore.Id id = meant(w);
    List<Revising.Decided> decided = w.revising().decisions(id.design(), id.name());
    Optional<RespinSaid.Question> q =
        w.revising().question(id.design(), id.name(), about.toUpperCase(java.util.Locale.ROOT));
    String title = id.design() + " rev " + id.name();
    if (q.isEmpty()) {
      ObjectNode o = Json.object().put("revision", title).put("boards", 0);
      ReviseJson.decisions(o, decided);
      show(
          o,
          () -> {
            out()
                .println(
                    "no board of "
                        + title
                        + " is left to be mended; to work it out all the same, say --say boards=N");
            text.decisions(decided);
          });
      return;
    }
    WayOut way = WayOut.of(q.get().asked());
    ObjectNode o = ReviseJson.way(q.get(), way, decided);
    o.put("revision", title);
    show(o, () -> text.way(title, q.get(), way, decided));
  }

  private void list(Workshop w, ReviseText text) throws Exception {
    RevisionStore.Id id = meant(w);
    List<Erratum> items = w.revising().changes(id.design(), id.name());
    var suggestions =
        w.revising().suggestions(id.design(), id.name(), ChangeListFiles.advice(w, id));
    ObjectNode o = Json.object().put("revision", id.design() + " rev " + id.name());
    ArrayNode a = o.putArray("changes");
    BodgeMatrix m = w.revising().matrix(Optional.of(id.design()));
    for (Erratum e : items) {
      ReviseJson.erratum(a.addObject(), e, w.revision(id.design(), id.name()), m.state(e));
    }
    ReviseJson.suggestions(o, suggestions);
    List<String> later = ChangeListFiles.later(w, id);
    if (!later.isEmpty()) {
      String to = later.getFirst();
      var d = w.revising().difference(id.design(), id.name(), to);
      ObjectNode c = o.putObject("checked").put("against", to);
      DiffJson.check(c, w.revising().check(d, id.design(), id.name(), to));
    }
    show(o, () -> text.changes(id.design() + " rev " + id.name(), items, suggestions, later));
  }
}
