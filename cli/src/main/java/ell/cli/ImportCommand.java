package ell.cli;

import ell.core.board.Revision;
import ell.files.Problem;
import ell.files.Source;
import ell.work.ActException;
import ell.work.ImportFiles;
import ell.work.RevisionImport;
import ell.work.Workspace;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Imports the files of a revision, whole or not at all.
@Command(name = "import", description = "import the files of a revision, whole or not at all")
final class ImportCommand extends Act {
  @Option(names = "--design", required = true, description = "name of the design")
  String design;

  @Option(names = "--revision", required = true, description = "name of the revision")
  String revision;

  @Option(names = "--bom", required = true, description = "bill of materials, CSV")
  Path bom;

  @Option(names = "--placement", required = true, description = "placement, CSV")
  Path placement;

  @Option(names = "--netlist", required = true, description = "netlist, IPC-D-356A")
  Path netlist;

  @Option(names = "--outline", description = "edge of the board, CSV of corners")
  Optional<Path> outline = Optional.empty();

  @Option(names = "--shelf", description = "what lies on the shelf, CSV; replaces the shelf")
  Optional<Path> shelf = Optional.empty();

  @Option(names = "--ladder", description = "corrected power ladder, JSON")
  Optional<Path> ladder = Optional.empty();

  @Option(
      names = "--place-from-joints",
      description = "place parts that the placement lacks amid their joints")
  boolean placeFromJoints;

  @Override
  public Integer call() throws Exception {
    if (design.isBlank() || revision.isBlank()) {
      throw new ActException("design and revision need a name");
    }
    ImportFiles files =
        new ImportFiles(
            Source.of(bom),
            Source.of(placement),
            Source.of(netlist),
            outline.map(Source::of),
            shelf.map(Source::of),
            ladder.map(Source::of),
            placeFromJoints);
    try (Workspace w = Workspace.open(file, Clock.systemDefaultZone())) {
      return switch (RevisionImport.read(design, revision, files)) {
        case RevisionImport.Outcome.Refused r -> {
          r.problems().forEach(p -> err().println(p));
          err().println("nothing was imported: " + count(r.problems().size(), "problem"));
          yield Main.BAD_INPUT;
        }
        case RevisionImport.Outcome.Whole whole -> {
          w.store(whole);
          done(whole);
          yield Main.DONE;
        }
      };
    }
  }

  private void done(RevisionImport.Outcome.Whole whole) {
    Revision r = whole.revision();
    if (json) {
      ObjectNode o =
          Shapes.object()
              .put("design", r.design())
              .put("revision", r.name())
              .put("parts", r.parts().size())
              .put("fitted", r.parts().stream().filter(p -> p.fitted()).count())
              .put("nets", r.nets().size())
              .put("joints", r.joints().size());
      ArrayNode passed = o.putArray("passedOver");
      for (Problem p : whole.passedOver()) {
        passed.addObject().put("file", p.file()).put("line", p.line()).put("what", p.message());
      }
      ArrayNode warnings = o.putArray("warnings");
      for (Problem p : whole.warnings()) {
        ObjectNode one = warnings.addObject().put("file", p.file()).put("line", p.line());
        if (p.column() > 0) {
          one.put("column", p.column());
        }
        one.put("message", p.message());
      }
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
    whole.passedOver().forEach(p -> out().println("  passed over: " + p));
    whole.warnings().forEach(p -> out().println("  mind: " + p));
  }

  private static String count(int n, String what) {
    return n + " " + what + (n == 1 ? "" : "s");
  }
}
