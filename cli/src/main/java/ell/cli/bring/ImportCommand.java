package ell.cli.bring;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Revision;
import ell.files.Problem;
import ell.files.Source;
import ell.work.Workshop;
import ell.work.bring.Dropped;
import ell.work.bring.FileAccount;
import ell.work.bring.FileKind;
import ell.work.bring.ImportFiles;
import ell.work.bring.LayerKind;
import ell.work.bring.Layers;
import ell.work.bring.RevisionChange;
import ell.work.bring.RevisionImport;
import ell.work.space.ActException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ObjectNode;

/// Imports the files of a revision, whole or not at all.
@Command(name = "import", description = "import the files of a revision, whole or not at all")
public final class ImportCommand extends WorkspaceCommand {
  /// Problems of one kind that are shown.
  private static final int SHOWN = 5;

  @Option(names = "--design", required = true, description = "name of the design")
  String design;

  @Option(names = "--revision", required = true, description = "name of the revision")
  String revision;

  @Option(names = "--bom", description = "bill of materials, CSV")
  Path bom;

  @Option(names = "--placement", description = "placement, CSV")
  Path placement;

  @Option(names = "--netlist", description = "netlist, IPC-D-356A")
  Path netlist;

  @Option(names = "--paste", description = "paste of the first side, Gerber")
  Optional<Path> paste = Optional.empty();

  @Option(names = "--paste-second", description = "paste of the second side, Gerber")
  Optional<Path> pasteSecond = Optional.empty();

  @Option(names = "--copper", description = "copper of the first side, Gerber")
  Optional<Path> copper = Optional.empty();

  @Option(names = "--copper-second", description = "copper of the second side, Gerber")
  Optional<Path> copperSecond = Optional.empty();

  @Option(names = "--legend", description = "lines and letters of the first side, Gerber")
  Optional<Path> legend = Optional.empty();

  @Option(
      names = "--drill",
      description = "holes, XNC or Excellon; again for holes that are not plated, or slots")
  List<Path> drill = new ArrayList<>();

  @Option(names = "--outline", description = "edge of the board, CSV of corners or Gerber")
  Optional<Path> outline = Optional.empty();

  @Option(names = "--shelf", description = "what lies on the shelf, CSV; replaces the shelf")
  Optional<Path> shelf = Optional.empty();

  @Option(names = "--ladder", description = "corrected power ladder, JSON")
  Optional<Path> ladder = Optional.empty();

  @Option(
      names = "--column",
      paramLabel = "MEANING=HEADING",
      description = "which heading of the bill or the placement means what, such as value=Name")
  List<String> columns = new ArrayList<>();

  @Option(
      names = "--place-from-joints",
      description = "place parts that the placement lacks amid their joints")
  boolean placeFromJoints;

  @Parameters(
      index = "1..*",
      paramLabel = "FILE",
      description = "files told apart by what is in them, or a zip archive of them")
  List<Path> files = new ArrayList<>();

  @Override
  public Integer call() throws Exception {
    if (design.isBlank() || revision.isBlank()) {
      throw new ActException("design and revision need a name");
    }
    Dropped given = new GivenFiles(files).all();
    Optional<Source> bill = given(bom, FileKind.BOM, given);
    Optional<Source> places = given(placement, FileKind.PLACEMENT, given);
    Optional<Source> nets = given(netlist, FileKind.NETLIST, given);
    Map<LayerKind, List<Source>> layers = layers(given);
    if (bill.isEmpty() && places.isEmpty() && nets.isEmpty()) {
      return addLayers(layers, given);
    }
    List<String> lacking = new ArrayList<>();
    if (bill.isEmpty()) {
      lacking.add("--bom");
    }
    if (places.isEmpty()) {
      lacking.add("--placement");
    }
    if (nets.isEmpty()) {
      lacking.add("--netlist");
    }
    if (!lacking.isEmpty()) {
      // a file that was taken for something else is often the one that is missed
      given
          .found()
          .forEach((kind, all) ->
              all.forEach(s -> err().println(s.name() + ": taken as " + kind.words())));
      given.unknown().forEach(u -> err().println(u));
      throw new ActException(
          "a new revision also needs "
              + String.join(", ", lacking)
              + "; to add layers to one that stands, give the layers only");
    }
    layers.remove(LayerKind.OUTLINE);
    ImportFiles all =
        new ImportFiles(
            bill.get(),
            places.get(),
            nets.get(),
            given(outline.orElse(null), FileKind.OUTLINE, given),
            given(shelf.orElse(null), FileKind.SHELF, given),
            given(ladder.orElse(null), FileKind.LADDER, given),
            placeFromJoints,
            layers);
    try (Workshop w = open()) {
      return switch (w.revisions().read(design, revision, all, columns)) {
        case RevisionImport.Outcome.Refused r -> {
          yield refused(r.problems());
        }
        case RevisionImport.Outcome.Whole whole -> {
          Optional<RevisionChange> change = w.revisions().store(whole);
          done(whole.revision(), whole.files(), given, change);
          yield Exit.DONE;
        }
      };
    }
  }

  private int refused(List<Problem> problems) {
    // one cause may stand behind many lines: a few of each kind show it
    Map<String, Integer> kinds = new LinkedHashMap<>();
    for (Problem p : problems) {
      int before = kinds.merge(p.file() + ": " + kind(p.message()), 1, Integer::sum);
      if (before <= SHOWN) {
        err().println(p);
      }
    }
    kinds.forEach((kind, count) -> {
      if (count > SHOWN) {
        err().println("and " + (count - SHOWN) + " more of this kind: " + kind);
      }
    });
    err().println("nothing was imported: " + count(problems.size(), "problem"));
    return Exit.BAD_INPUT;
  }

  /// What a problem has in common with others: its words without what was found.
  private static String kind(String message) {
    int found = message.indexOf(", found");
    return (found < 0 ? message : message.substring(0, found)).replaceAll("\\d+", "n");
  }

  /// The file that an option names, or the one of its kind among those that were given.
  private static Optional<Source> given(Path option, FileKind kind, Dropped given)
      throws ActException {
    return option != null ? Optional.of(GivenFiles.one(option, kind)) : GivenFiles.one(given, kind);
  }

  private Map<LayerKind, List<Source>> layers(Dropped given) throws ActException {
    Map<LayerKind, List<Source>> all = new EnumMap<>(LayerKind.class);
    all.putAll(given.layers());
    put(all, paste, FileKind.PASTE_FIRST);
    put(all, pasteSecond, FileKind.PASTE_SECOND);
    put(all, legend, FileKind.LEGEND);
    put(all, copper, FileKind.COPPER_FIRST);
    put(all, copperSecond, FileKind.COPPER_SECOND);
    put(all, outline, FileKind.OUTLINE);
    List<Source> holes = new ArrayList<>();
    for (Path p : drill) {
      holes.addAll(GivenFiles.some(p, FileKind.DRILL));
    }
    if (!holes.isEmpty()) {
      all.put(LayerKind.DRILL, holes);
    }
    return all;
  }

  private static void put(Map<LayerKind, List<Source>> all, Optional<Path> option, FileKind kind)
      throws ActException {
    if (option.isPresent()) {
      all.put(kind.layer().orElseThrow(), List.of(GivenFiles.one(option.get(), kind)));
    }
  }

  /// Adds layers to a revision that stands.
  private int addLayers(Map<LayerKind, List<Source>> layers, Dropped given) throws Exception {
    if (shelf.isPresent() || ladder.isPresent()) {
      throw new ActException(
          "a shelf is taken in with: shelf WS --file F, and a ladder with: ladder WS --set F");
    }
    if (layers.isEmpty()) {
      given.unknown().forEach(u -> err().println(u));
      throw new ActException(
          "nothing to import; a revision needs --bom, --placement and --netlist, and one that"
              + " stands takes --paste, --paste-second, --legend, --copper, --copper-second, --drill"
              + " or --outline");
    }
    try (Workshop w = open()) {
      Revision r = w.revision(design, revision);
      Layers.Outcome got = Layers.read(layers, r);
      if (!got.errors().isEmpty()) {
        return refused(got.errors());
      }
      w.revisions().putLayers(design, revision, got.texts());
      done(w.revision(design, revision), got.files(), given, Optional.empty());
    }
    return Exit.DONE;
  }

  private void done(
      Revision r, List<FileAccount> files, Dropped given, Optional<RevisionChange> change) {
    if (json) {
      ObjectNode o =
          Json.object()
              .put("design", r.design())
              .put("revision", r.name())
              .put("parts", r.parts().size())
              .put("fitted", r.parts().stream().filter(p -> p.fitted()).count())
              .put("nets", r.nets().size())
              .put("joints", r.joints().size());
      ImportWords.json(o, files);
      Json.strings(o, "notUsed", given.unknown());
      change.ifPresent(
          c -> Json.strings(o, "changed", c.parts().keySet().stream().map(c::words).toList()));
      print(o);
      return;
    }
    out()
        .println(
            r.title()
                + ": "
                + count(r.parts().size(), "part")
                + ", "
                + count(r.nets().size(), "net")
                + ", "
                + count(r.joints().size(), "joint"));
    change.ifPresent(c -> {
      out()
          .println(
              c.parts().isEmpty()
                  ? "  was there already, and nothing of it changed"
                  : "  was there already; changed: " + count(c.parts().size(), "part"));
      c.parts().keySet().stream().limit(12).forEach(p -> out().println("    " + c.words(p)));
    });
    ImportWords.lines(files).forEach(out()::println);
    given.unknown().forEach(u -> out().println("  not used: " + u));
  }

  private static String count(int n, String what) {
    return n + " " + what + (n == 1 ? "" : "s");
  }
}
