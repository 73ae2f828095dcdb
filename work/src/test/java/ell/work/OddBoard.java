package ell.work;

import ell.files.Source;
import ell.work.bring.ImportFiles;
import ell.work.bring.RevisionImport;
import ell.work.send.Export;
import ell.work.send.Restore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Boards that are unlike the demo, imported from their files.
enum OddBoard {
  SHIELD,
  CELL,
  PANEL;

  private static final Path ODD = Path.of("../fixtures/odd");

  String design() {
    return name().toLowerCase(java.util.Locale.ROOT);
  }

  /// A workspace with the revision, without a build.
  Workshop workshop() throws Exception {
    Workshop w =
        Workshop.create(
            Files.createTempDirectory("ell-odd").resolve("ws.ell"), Clock.systemDefaultZone());
    Path folder = ODD.resolve(design());
    RevisionImport.Outcome read =
        w.revisions()
            .read(
                design(),
                "1",
                new ImportFiles(
                    Source.of(folder.resolve("bom.csv")),
                    Source.of(folder.resolve("placement.csv")),
                    Source.of(folder.resolve("netlist.ipc")),
                    Optional.of(Source.of(folder.resolve("outline.csv"))),
                    Optional.empty(),
                    Optional.empty(),
                    false,
                    Map.of()),
                List.of());
    w.revisions().store((RevisionImport.Outcome.Whole) read);
    return w;
  }

  /// The same workspace, exported and restored.
  static Workshop reopened(Workshop w) throws Exception {
    Path folder = Files.createTempDirectory("ell-odd").resolve("export");
    Export.write(w, folder);
    Workshop back =
        Workshop.create(
            Files.createTempDirectory("ell-odd").resolve("back.ell"), Clock.systemDefaultZone());
    Restore.read(folder, back);
    return back;
  }
}
