package ell.cli.bring;

import ell.book.Place;
import ell.book.RevisionStore;
import ell.cli.shell.Exit;
import ell.cli.shell.Which;
import ell.core.board.PackageSheet;
import ell.files.csv.CsvFiles;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/// The package sheet as CSV; keeps a maker's own lines with a revision.
@Command(
    name = "packages",
    description = "the package sheet as CSV; with --set, own lines for a revision, before those")
public final class PackagesCommand implements Callable<Integer> {
  @Parameters(index = "0", arity = "0..1", paramLabel = "WS", description = "the workspace")
  Optional<Place> file = Optional.empty();

  @Mixin Which which;

  @Option(names = "--set", description = "lines with the headings of the sheet, CSV")
  Optional<Path> set = Optional.empty();

  @Option(
      names = "--set-one",
      paramLabel = "PACKAGE=HEIGHT",
      description = "how tall a package stands, such as TO-220-3=19.5mm; others stay as they are")
  List<String> heights = new ArrayList<>();

  @Spec CommandSpec spec;

  private static String text(Path file) throws IOException, ActException {
    try {
      return Files.readString(file);
    } catch (NoSuchFileException e) {
      throw new ActException(file + ": there is no such file", e);
    }
  }

  @Override
  public Integer call() throws Exception {
    var out = spec.commandLine().getOut();
    if (set.isPresent() || !heights.isEmpty()) {
      try (Workshop w =
          Workshop.open(
              file.orElseThrow(() -> new ActException("--set and --set-one need a workspace")),
              Clock.systemDefaultZone())) {
        RevisionStore.Id id = which.id(w);
        w.space()
            .whole(() -> {
              if (set.isPresent()) {
                w.revisions().setPackages(id.design(), id.name(), text(set.get()));
              }
              for (String h : heights) {
                w.revisions().setHeight(id.design(), id.name(), h);
              }
            });
        out.println("kept with " + id.design() + " rev " + id.name());
      }
      return Exit.DONE;
    }
    PackageSheet sheet = PackageSheet.SHIPPED;
    if (file.isPresent()) {
      try (Workshop w = Workshop.look(file.get())) {
        RevisionStore.Id id = which.id(w);
        sheet = w.revision(id.design(), id.name()).packages();
      }
    }
    List<List<String>> rows = new ArrayList<>();
    for (PackageSheet.Line l : sheet.lines()) {
      rows.add(PackageSheet.cells(l));
    }
    CsvFiles.table(PackageSheet.HEADING, rows, out);
    out.flush();
    return Exit.DONE;
  }
}
