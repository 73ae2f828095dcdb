package ell.cli.book;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.cli.shell.Replacing;
import ell.cli.shell.WorkspaceCommand;
import ell.core.record.BoardRecord;
import ell.files.Output;
import ell.files.pdf.RecordPdf;
import ell.work.Workshop;
import ell.work.send.BoardLabels;
import ell.work.send.BuildRecords;
import ell.work.send.ProofTable;
import ell.work.send.RecordMaker;
import ell.work.space.ActException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// Records: of a board, of a build, a certificate of a lot, labels, the raw table.
@Command(
    name = "report",
    description =
        "the record of a board or of a build as PDF, a certificate of a lot, labels for boards; as"
            + " .csv every step of their proofs, as .json the record")
public final class ReportCommand extends WorkspaceCommand {
  @Option(names = "--board", split = ",", description = "serial; several for labels and tables")
  List<String> boards = new ArrayList<>();

  @Option(
      names = "--build",
      paramLabel = "NUMBER",
      arity = "0..1",
      fallbackValue = "0",
      description = "a build, the latest when no number is said")
  Optional<Long> build = Optional.empty();

  @Option(names = "--lot", description = "what the tested boards of the build say of all of it")
  boolean lot;

  @Option(names = "--labels", description = "labels with the serial as QR code")
  boolean labels;

  @Option(
      names = "--as-of",
      paramLabel = "NUMBER",
      description = "as the book stood after this entry: made again, it is the same again")
  Optional<Long> until = Optional.empty();

  @Option(names = "--out", required = true, description = "the file to write: .pdf, .csv or .json")
  Path to;

  @Mixin Replacing replacing;

  @Override
  public Integer call() throws Exception {
    if (boards.isEmpty() == build.isEmpty()) {
      throw new ActException("say --board B for a board, or --build for a build");
    }
    String ending = to.getFileName().toString().toLowerCase(java.util.Locale.ROOT);
    if (until.isPresent() && (labels || ending.endsWith(".csv"))) {
      throw new ActException(
          "--as-of is for records; labels and tables speak for the book as it is");
    }
    if (lot && build.isEmpty()) {
      throw new ActException("--lot goes with --build");
    }
    try (Workshop w = look()) {
      Optional<Build> b =
          build.isEmpty() ? Optional.empty() : Optional.of(w.build(build.filter(n -> n > 0)));
      List<String> all = b.map(Build::boards).orElse(boards);
      for (String board : all) {
        w.buildOf(board);
      }
      String what = write(w, b, all);
      if (json) {
        ObjectNode o = Json.object();
        if (b.isPresent()) {
          o.put("build", b.get().id());
        } else if (boards.size() == 1) {
          o.put("board", boards.getFirst());
        }
        print(o.put("file", to.toString()).put("what", what));
      } else {
        out().println("wrote " + to);
      }
    }
    return Exit.DONE;
  }

  private String write(Workshop w, Optional<Build> b, List<String> all) throws Exception {
    String name = to.getFileName().toString().toLowerCase(java.util.Locale.ROOT);
    if (labels) {
      BoardLabels.write(w, all, to, replacing.over(file));
      return "labels";
    }
    if (name.endsWith(".csv")) {
      ProofTable.csv(w, all, to, replacing.over(file));
      return "proofs";
    }
    if (b.isEmpty() && boards.size() > 1) {
      throw new ActException("a record is of one board; several go into labels and tables");
    }
    OptionalLong asOf = until.map(OptionalLong::of).orElse(OptionalLong.empty());
    BoardRecord r =
        b.isEmpty()
            ? RecordMaker.of(w, boards.getFirst(), asOf)
            : lot ? BuildRecords.lot(w, b.get(), asOf) : BuildRecords.build(w, b.get(), asOf);
    if (name.endsWith(".json")) {
      Output.write(
          to,
          JsonText.of(RecordJson.of(r)).getBytes(java.nio.charset.StandardCharsets.UTF_8),
          replacing.over(file));
    } else {
      RecordPdf.write(r, w.book()::photograph, to, replacing.over(file));
    }
    return r.kind();
  }
}
