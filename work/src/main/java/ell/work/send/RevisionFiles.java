package ell.work.send;

import ell.core.board.BomLine;
import ell.core.board.Netlist;
import ell.core.board.Part;
import ell.core.board.Placement;
import ell.core.board.Revision;
import ell.files.Problem;
import ell.files.Source;
import ell.files.csv.CsvFiles;
import ell.files.netlist.NetlistWriter;
import ell.work.bring.ImportFiles;
import ell.work.bring.RevisionImport;
import ell.work.space.ActException;
import java.io.IOException;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Writes a revision as the files that it can be imported from: bill, placement, netlist, outline.
public final class RevisionFiles {
  private RevisionFiles() {}

  /// Writes a revision into a folder of its own.
  public static void write(Revision r, Path own) throws IOException {
    Files.createDirectories(own);
    try (Writer out = Files.newBufferedWriter(own.resolve("bom.csv"))) {
      CsvFiles.bom(bom(r), out);
    }
    try (Writer out = Files.newBufferedWriter(own.resolve("placement.csv"))) {
      CsvFiles.placement(places(r), out);
    }
    try (Writer out = Files.newBufferedWriter(own.resolve("netlist.ipc"))) {
      NetlistWriter.write(new Netlist(r.joints(), List.of(), List.of()), out);
    }
    if (!r.outline().loops().isEmpty()) {
      try (Writer out = Files.newBufferedWriter(own.resolve("outline.csv"))) {
        CsvFiles.outline(r.outline(), out);
      }
    }
  }

  /// Parts that agree in everything but their reference and place share a line.
  private static List<BomLine> bom(Revision r) {
    record Alike(
        String value,
        String shape,
        String code,
        String words,
        boolean fitted,
        boolean key,
        List<String> alternates,
        String block,
        double mass,
        double cost,
        List<String> variants,
        int spares) {}
    Map<Alike, List<String>> groups = new LinkedHashMap<>();
    for (Part p : r.parts()) {
      groups
          .computeIfAbsent(
              new Alike(
                  p.value(),
                  p.packageName(),
                  p.code(),
                  p.description(),
                  p.fitted(),
                  p.key(),
                  p.alternates(),
                  p.block(),
                  p.massGrams(),
                  p.unitCost(),
                  p.variants(),
                  p.spares()),
              _ -> new ArrayList<>())
          .add(p.reference());
    }
    List<BomLine> lines = new ArrayList<>();
    groups.forEach((a, refs) ->
        lines.add(
            new BomLine(
                lines.size() + 2,
                refs,
                a.value(),
                a.shape(),
                a.code(),
                a.fitted(),
                a.alternates(),
                a.key(),
                a.block(),
                a.words(),
                a.cost(),
                a.mass(),
                a.variants(),
                a.spares())));
    return lines;
  }

  private static List<Placement> places(Revision r) {
    List<Placement> places = new ArrayList<>();
    for (Part p : r.parts()) {
      p.place()
          .ifPresent(s ->
              places.add(
                  new Placement(
                      places.size() + 2,
                      p.reference(),
                      s.xMm(),
                      s.yMm(),
                      s.rotationDeg(),
                      s.side(),
                      p.packageName())));
    }
    return places;
  }

  /// Reads a revision that was written.
  ///
  /// @throws ActException when the files are not as they were written, naming line and column
  public static Revision read(Path folder, String design, String name) throws ActException {
    ImportFiles files =
        new ImportFiles(
            Source.of(folder.resolve("bom.csv")),
            Source.of(folder.resolve("placement.csv")),
            Source.of(folder.resolve("netlist.ipc")),
            Optional.of(folder.resolve("outline.csv")).filter(Files::exists).map(Source::of),
            Optional.empty(),
            Optional.empty(),
            false,
            Map.of());
    return switch (RevisionImport.read(design, name, files)) {
      case RevisionImport.Outcome.Whole whole -> whole.revision();
      case RevisionImport.Outcome.Refused r ->
          throw new ActException(
              String.join("\n", r.problems().stream().map(Problem::toString).toList()));
    };
  }
}
