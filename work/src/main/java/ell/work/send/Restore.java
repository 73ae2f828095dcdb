package ell.work.send;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import ell.book.Build;
import ell.book.Contents;
import ell.book.Written;
import ell.core.board.Revision;
import ell.core.entry.EntryJson;
import ell.core.json.JsonObject;
import ell.core.kit.ShelfLine;
import ell.files.csv.Spreadsheet;
import ell.work.Workshop;
import ell.work.space.ActException;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Makes the workspace of an export again, in a new workspace: the same entries with the same
/// numbers, times and hashes. All or nothing.
public final class Restore {
  private final Path folder;

  private Restore(Path folder) {
    this.folder = folder;
  }

  /// Reads an export into an empty workspace.
  ///
  /// @throws ActException when the folder is no export, or a file of it is not as it was written,
  ///   naming the file
  public static void read(Path folder, Workshop into) throws IOException, ActException {
    Contents all;
    try {
      all = new Restore(folder).contents();
    } catch (IllegalArgumentException | DateTimeParseException e) {
      throw new ActException(folder + ": " + e.getMessage(), e);
    }
    into.book().restore(all);
    into.space().refresh();
    into.space().tell(new Change.Everything());
  }

  private Contents contents() throws IOException, ActException {
    JsonObject root = JsonObject.parse(text(Kept.MANIFEST), Kept.MANIFEST);
    if (root.number("export") != 1) {
      throw new ActException(Kept.MANIFEST + " is of another version than this Ell knows");
    }
    List<Contents.Kept> revisions = new ArrayList<>();
    for (JsonObject r : root.objects("revisions")) {
      Map<String, String> documents = texts(r.object("documents"));
      revisions.add(
          new Contents.Kept(
              revision(r.text("design"), r.text("name"), r.text("folder")), documents));
    }
    List<Contents.Photograph> photographs = new ArrayList<>();
    for (JsonObject p : root.objects("photographs")) {
      photographs.add(
          new Contents.Photograph(
              p.text("sha256"), p.text("name"), Files.readAllBytes(inside(p.text("file")))));
    }
    Map<String, Map<String, String>> parameters = new LinkedHashMap<>();
    JsonObject known = root.object("parameters");
    for (String code : known.keys()) {
      Map<String, String> of = new LinkedHashMap<>();
      JsonObject values = known.object(code);
      values.keys().forEach(k -> of.put(k, values.text(k)));
      parameters.put(code, of);
    }
    return new Contents(
        revisions,
        root.objects("builds").stream().map(Restore::build).toList(),
        root.objects("shelf").stream().map(Restore::shelf).toList(),
        parameters,
        texts(root.object("keepsakes")),
        photographs,
        chain(),
        root.text("seal"));
  }

  /// A file of the export, never one outside it.
  private Path inside(String name) throws ActException {
    Path file = folder.resolve(name).normalize();
    if (!file.startsWith(folder.normalize())) {
      throw new ActException(Kept.MANIFEST + " names " + name + ", which is not in the export");
    }
    return file;
  }

  private String text(String name) throws IOException, ActException {
    try {
      return Files.readString(inside(name));
    } catch (NoSuchFileException e) {
      throw new ActException(folder + " is no export: there is no " + name + " in it", e);
    }
  }

  private Map<String, String> texts(JsonObject files) throws IOException, ActException {
    Map<String, String> all = new LinkedHashMap<>();
    for (String kind : files.keys()) {
      all.put(kind, text(files.text(kind)));
    }
    return all;
  }

  private Revision revision(String design, String name, String in) throws ActException {
    return RevisionFiles.read(inside(in), design, name);
  }

  private static Build build(JsonObject o) {
    return new Build(
        (long) o.number("build"),
        o.text("design"),
        o.text("revision"),
        o.text("method"),
        o.text("alloy"),
        o.text("variant"),
        o.words("boards"));
  }

  private static ShelfLine shelf(JsonObject o) {
    return new ShelfLine(
        (int) o.number("line"),
        o.text("code"),
        (long) o.number("quantity"),
        o.text("bin"),
        (long) o.number("onOrder"),
        o.has("expected") ? Optional.of(LocalDate.parse(o.text("expected"))) : Optional.empty(),
        o.has("expiry") ? Optional.of(LocalDate.parse(o.text("expiry"))) : Optional.empty(),
        ShelfLine.Kind.of(o.text("kind")),
        (long) o.number("since"));
  }

  private List<Written> chain() throws IOException, ActException {
    List<Written> all = new ArrayList<>();
    try (CsvReader<CsvRecord> rows = CsvReader.builder().ofCsvRecord(inside(Kept.CHAIN))) {
      for (CsvRecord row : rows) {
        if (row.getStartingLineNumber() == 1) {
          continue;
        }
        try {
          EntryJson.read(row.getField(3));
          all.add(
              new Written(
                  Long.parseLong(row.getField(0)),
                  row.getField(1),
                  Spreadsheet.bare(row.getField(2)),
                  row.getField(3)));
        } catch (IllegalArgumentException | IndexOutOfBoundsException e) {
          throw new ActException(
              Kept.CHAIN
                  + ", line "
                  + row.getStartingLineNumber()
                  + ": expected number, time, board and entry: "
                  + e.getMessage(),
              e);
        }
      }
    } catch (NoSuchFileException e) {
      throw new ActException(folder + " is no export: there is no " + Kept.CHAIN + " in it", e);
    }
    return all;
  }
}
