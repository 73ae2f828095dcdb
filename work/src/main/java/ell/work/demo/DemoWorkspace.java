package ell.work.demo;

import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.files.Problem;
import ell.files.Source;
import ell.files.csv.PinTables;
import ell.work.Workshop;
import ell.work.bring.ImportFiles;
import ell.work.bring.LayerKind;
import ell.work.bring.RevisionImport;
import ell.work.bring.ShelfFiles;
import ell.work.kit.Buying;
import ell.work.space.ActException;
import ell.work.talk.PinFiles;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Makes the demo: imports its files through the readers that a maker uses, and replays a script of
/// lines as they are typed on the tape.
///
/// A line of the script is `DATE TIME BOARD LINE`, where LINE may be `run FILE SIDE` for a logged
/// profile, or `capture FILE PLACE`, or `build DESIGN REVISION BOARDS METHOD ALLOY [PREFIX]`, or
/// `shelf`, `offers` or `parameters` and a file, taken in as of there; `#` begins a comment.
public final class DemoWorkspace {
  private DemoWorkspace() {}

  /// The folder of the demo's files: the system property `ell.demo`, else `demo` beside the
  /// program.
  public static Path folder() {
    return Path.of(System.getProperty("ell.demo", "demo"));
  }

  /// Makes a workspace file with the demo in it and opens it.
  ///
  /// @throws ActException when the demo's files are not as they should be, naming the line
  public static Workshop make(Path file) throws IOException, ActException {
    return make(file, folder(), true);
  }

  /// Makes a workspace file from the files of a folder.
  ///
  /// @param replay whether the script is replayed, or only the files imported
  public static Workshop make(Path file, Path demo, boolean replay)
      throws IOException, ActException {
    if (!Files.isDirectory(demo)) {
      throw new ActException("the demo's files are not at " + demo.toAbsolutePath());
    }
    Workshop w = Workshop.create(file, Clock.systemDefaultZone());
    try {
      if (Files.isDirectory(demo.resolve("ms-1"))) {
        importRevision(w, demo, "MS-1", "A", "ms-1");
      }
      importRevision(w, demo, "MG-1", "A", "mg-1-a");
      importRevision(w, demo, "MG-1", "B", "mg-1-b");
      w.ladders().keepFaults("MG-1", "B", Files.readString(demo.resolve("mg-1-b/faults.json")));
      // how this maker wants the order: the foil for the first side is the one that was tried
      w.wishes().keep("MG-1", "B", Files.readString(demo.resolve("mg-1-b/wishes.txt")).strip());
      if (replay) {
        replay(w, demo.resolve("script.txt"));
      } else {
        w.stockroom().replace(ShelfFiles.shelf(demo.resolve("shelf.csv")));
      }
      return w;
    } catch (IOException | ActException | RuntimeException e) {
      w.close();
      throw e;
    }
  }

  private static void importRevision(
      Workshop w, Path demo, String design, String name, String folder)
      throws IOException, ActException {
    Path f = demo.resolve(folder);
    ImportFiles files =
        new ImportFiles(
            Source.of(f.resolve("bom.csv")),
            Source.of(f.resolve("placement.csv")),
            Source.of(f.resolve("netlist.ipc")),
            Optional.of(Source.of(f.resolve("outline.csv"))),
            Optional.empty(),
            Optional.of(f.resolve("ladder.json")).filter(Files::exists).map(Source::of),
            false,
            layers(f));
    switch (RevisionImport.read(design, name, files)) {
      case RevisionImport.Outcome.Whole whole -> w.revisions().store(whole);
      case RevisionImport.Outcome.Refused r ->
          throw new ActException(
              String.join("\n", r.problems().stream().map(Problem::toString).toList()));
    }
    if (Files.exists(f.resolve("lines.txt"))) {
      w.pulses().say(design, name, Files.readAllLines(f.resolve("lines.txt")));
    }
    if (Files.exists(f.resolve("jig.txt"))) {
      w.jigs().say(w.revision(design, name), Files.readAllLines(f.resolve("jig.txt")));
    }
    if (Files.exists(f.resolve("talk.txt"))) {
      w.talks().say(design, name, Files.readAllLines(f.resolve("talk.txt")));
      for (String script : List.of("first-load.json", "number.json")) {
        w.scripts().keep(design, name, f.resolve(script));
      }
      w.modules().keepNeeds(design, name, f.resolve("needs.csv"), _ -> {});
      for (String module : List.of("MCU48", "MCU32")) {
        w.modules()
            .keep(module, PinFiles.read(f.resolve(module + ".csv"), PinTables::offers, _ -> {}));
      }
    }
    if (Files.exists(f.resolve("proof.txt"))) {
      w.proofs().keep(design, name, Files.readString(f.resolve("proof.txt")));
    }
  }

  private static Map<LayerKind, List<Source>> layers(Path folder) {
    Map<LayerKind, List<Source>> all = new EnumMap<>(LayerKind.class);
    Map.of(
            LayerKind.PASTE_FIRST, "paste-first.gbr",
            LayerKind.PASTE_SECOND, "paste-second.gbr",
            LayerKind.LEGEND, "legend.gbr",
            LayerKind.COPPER_FIRST, "copper-first.gbr",
            LayerKind.DRILL, "drill.xnc")
        .forEach((kind, name) -> {
          Path file = folder.resolve(name);
          if (Files.exists(file)) {
            all.put(kind, List.of(Source.of(file)));
          }
        });
    return all;
  }

  private static void replay(Workshop w, Path script) throws IOException, ActException {
    List<String> lines = Files.readAllLines(script);
    for (int i = 0; i < lines.size(); i++) {
      String line = lines.get(i).strip();
      if (!line.isEmpty() && !line.startsWith("#")) {
        try {
          one(w, line, script.resolveSibling("."));
        } catch (ActException | DateTimeParseException | IllegalArgumentException e) {
          throw new ActException(
              script.getFileName() + ", line " + (i + 1) + ": " + e.getMessage(), e);
        }
      }
    }
  }

  private static void one(Workshop w, String line, Path folder) throws IOException, ActException {
    String[] words = line.split("\\s+");
    if (words.length == 2) {
      Path file = folder.resolve(words[1]);
      switch (words[0]) {
        case "shelf" -> w.stockroom().replace(ShelfFiles.shelf(file));
        case "offers" -> Buying.keep(w.space(), file);
        case "parameters" -> w.book().putParameters(ShelfFiles.parameters(file));
        default -> throw new ActException("expected shelf, offers or parameters, found " + line);
      }
      return;
    }
    if (words[0].equals("build")) {
      if (words.length < 6) {
        throw new ActException("expected build DESIGN REVISION BOARDS METHOD ALLOY [PREFIX]");
      }
      w.revisions()
          .build(
              words[1],
              words[2],
              Integer.parseInt(words[3]),
              Method.of(words[4]),
              Alloy.of(words[5]),
              words.length > 6 ? words[6] : "",
              "");
      return;
    }
    String[] parts = line.split("\\s+", 4);
    if (parts.length < 4) {
      throw new ActException("expected DATE TIME BOARD LINE, found '" + line + "'");
    }
    OffsetDateTime at =
        OffsetDateTime.of(LocalDate.parse(parts[0]), LocalTime.parse(parts[1]), ZoneOffset.UTC);
    String board = parts[2];
    String[] run = parts[3].split("\\s+");
    if (run[0].equals("run") && run.length == 3) {
      w.acts()
          .log(board, List.of(w.heating().entry(board, folder.resolve(run[1]), run[2])), at)
          .orThrow();
      return;
    }
    if (run[0].equals("capture") && run.length == 3) {
      w.captures()
          .keep(w.plan(w.buildOf(board)).pulse(), board, run[2], folder.resolve(run[1]), at);
      return;
    }
    w.type(board, parts[3], at).orThrow();
  }
}
