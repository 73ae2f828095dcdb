package ell.cli.bring;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Revision;
import ell.files.Problem;
import ell.files.Source;
import ell.work.Workshop;
import ell.work.bring.FileAccount;
import ell.work.bring.ImportFiles;
import ell.work.bring.LayerKind;
import ell.work.bring.Layers;
import ell.work.bring.RevisionImport;
import ell.work.space.ActException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// Imports the files of a revision, whole or not at all.
@Command(name = "import", description = "import the files of a revision, whole or not at all")
public final class ImportCommand extends WorkspaceCommand {
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

  @Option(names = "--legend", description = "lines and letters of the first side, Gerber")
  Optional<Path> legend = Optional.empty();

  @Option(names = "--drill", description = "holes, XNC or Excellon")
  Optional<Path> drill = Optional.empty();

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

  @Override
  public Integer call() throws Exception {
    if (design.isBlank() || revision.isBlank()) {
      throw new ActException("design and revision need a name");
    }
    Map<LayerKind, Source> layers = layers();
    if (bom == null && placement == null && netlist == null) {
      return addLayers(layers);
    }
    List<String> lacking = new ArrayList<>();
    if (bom == null) {
      lacking.add("--bom");
    }
    if (placement == null) {
      lacking.add("--placement");
    }
    if (netlist == null) {
      lacking.add("--netlist");
    }
    if (!lacking.isEmpty()) {
      throw new ActException(
          "a new revision also needs "
              + String.join(", ", lacking)
              + "; to add layers to one that stands, give the layers only");
    }
    ImportFiles files =
        new ImportFiles(
            Source.of(bom),
            Source.of(placement),
            Source.of(netlist),
            outline.map(Source::of),
            shelf.map(Source::of),
            ladder.map(Source::of),
            placeFromJoints,
            layers);
    try (Workshop w = Workshop.open(file, Clock.systemDefaultZone())) {
      return switch (w.revisions().read(design, revision, files, columns)) {
        case RevisionImport.Outcome.Refused r -> {
          yield refused(r.problems());
        }
        case RevisionImport.Outcome.Whole whole -> {
          w.revisions().store(whole);
          done(whole.revision(), whole.files());
          yield Exit.DONE;
        }
      };
    }
  }

  private int refused(List<Problem> problems) {
    problems.forEach(p -> err().println(p));
    err().println("nothing was imported: " + count(problems.size(), "problem"));
    return Exit.BAD_INPUT;
  }

  private Map<LayerKind, Source> layers() {
    Map<LayerKind, Source> all = new EnumMap<>(LayerKind.class);
    paste.ifPresent(p -> all.put(LayerKind.PASTE_FIRST, Source.of(p)));
    pasteSecond.ifPresent(p -> all.put(LayerKind.PASTE_SECOND, Source.of(p)));
    legend.ifPresent(p -> all.put(LayerKind.LEGEND, Source.of(p)));
    drill.ifPresent(p -> all.put(LayerKind.DRILL, Source.of(p)));
    return all;
  }

  /// Adds layers to a revision that stands.
  private int addLayers(Map<LayerKind, Source> layers) throws Exception {
    outline.ifPresent(p -> layers.put(LayerKind.OUTLINE, Source.of(p)));
    if (shelf.isPresent() || ladder.isPresent()) {
      throw new ActException(
          "a shelf is taken in with: shelf WS --file F, and a ladder with: ladder WS --set F");
    }
    if (layers.isEmpty()) {
      throw new ActException(
          "nothing to import; a revision needs --bom, --placement and --netlist, and one that"
              + " stands takes --paste, --paste-second, --legend, --drill or --outline");
    }
    try (Workshop w = Workshop.open(file, Clock.systemDefaultZone())) {
      Revision r = w.revision(design, revision);
      Layers.Outcome got = Layers.read(layers, r);
      if (!got.errors().isEmpty()) {
        return refused(got.errors());
      }
      w.revisions().putLayers(design, revision, got.texts());
      done(w.revision(design, revision), got.files());
    }
    return Exit.DONE;
  }

  private void done(Revision r, List<FileAccount> files) {
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
    ImportWords.lines(files).forEach(out()::println);
  }

  private static String count(int n, String what) {
    return n + " " + what + (n == 1 ? "" : "s");
  }
}
