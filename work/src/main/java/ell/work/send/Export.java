package ell.work.send;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import ell.files.csv.CsvFiles;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.io.Writer;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Writes everything that a workspace holds into a new folder: tables for people (boards, entries,
/// readings, the shelf as it stands), the book as JSON, and in open formats all that is needed to
/// make the same workspace again (see [Kept]). The folder appears whole or not at all.
public final class Export {
  /// The file that says what an export holds, and the head of its book.
  public static final String MANIFEST = Kept.MANIFEST;

  private static final JsonMapper MAPPER = JsonMapper.builder().build();

  private Export() {}

  /// Writes the folder.
  ///
  /// @return the files, in the folder's own terms
  /// @throws ActException when the folder is there and holds something
  public static List<String> write(Workshop w, Path folder) throws IOException, ActException {
    if (Files.exists(folder)) {
      try (Stream<Path> held = Files.isDirectory(folder) ? Files.list(folder) : Stream.of(folder)) {
        if (held.findAny().isPresent()) {
          throw new ActException(folder + " is there and not empty; choose another folder");
        }
      }
    }
    Path parent = folder.toAbsolutePath().getParent();
    if (!Files.isDirectory(parent)) {
      throw new ActException("there is no folder " + parent);
    }
    Path part = Files.createTempDirectory(parent, ".export");
    try {
      book(w, part);
      Kept.write(w, part);
      Files.deleteIfExists(folder);
      Files.move(part, folder, StandardCopyOption.ATOMIC_MOVE);
    } finally {
      remove(part);
    }
    try (Stream<Path> all = Files.walk(folder)) {
      return all.filter(Files::isRegularFile)
          .map(p -> folder.relativize(p).toString())
          .sorted()
          .toList();
    }
  }

  private static void remove(Path folder) throws IOException {
    if (!Files.exists(folder)) {
      return;
    }
    Files.walkFileTree(
        folder,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult visitFile(Path f, BasicFileAttributes a) throws IOException {
            Files.delete(f);
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult postVisitDirectory(Path d, IOException e) throws IOException {
            Files.delete(d);
            return FileVisitResult.CONTINUE;
          }
        });
  }

  private static void book(Workshop w, Path folder) throws IOException, ActException {
    List<List<String>> lines = new ArrayList<>();
    List<List<String>> readings = new ArrayList<>();
    List<List<String>> boards = new ArrayList<>();
    ObjectNode root = MAPPER.createObjectNode().put("seal", w.book().seal());
    Kept.builds(w, root);
    ArrayNode entries = root.putArray("entries");
    List<String> serials = new ArrayList<>(List.of(""));
    for (Build b : w.book().builds()) {
      for (String serial : b.boards()) {
        serials.add(serial);
        boards.add(
            List.of(
                serial,
                b.design(),
                b.revision(),
                String.valueOf(b.id()),
                w.standing(serial).stage().key(),
                w.standing(serial).phrase()));
      }
    }
    for (String serial : serials) {
      List<Logged> log = w.entries(serial);
      Set<Long> struck = BoardState.struck(log);
      for (Logged l : log) {
        boolean gone = struck.contains(l.number());
        ObjectNode e = EntryJson.tree(l.entry());
        e.put("entry", l.number()).put("at", l.at().toString()).put("board", serial);
        e.put("struck", gone);
        entries.add(e);
        lines.add(
            List.of(
                String.valueOf(l.number()),
                l.at().toString(),
                serial,
                EntryJson.kind(l.entry()),
                EntryWords.of(l.entry()),
                gone ? "struck" : ""));
        if (l.entry() instanceof Entry.Reading r && !gone) {
          readings.add(
              List.of(
                  l.at().toString(),
                  serial,
                  r.place(),
                  Double.toString(r.value()),
                  r.unit().symbol(),
                  r.limits().map(x -> Double.toString(x.low())).orElse(""),
                  r.limits().map(x -> Double.toString(x.high())).orElse(""),
                  r.uncertainty().map(x -> Double.toString(x)).orElse(""),
                  r.verdict().map(Verdict::key).orElse("")));
        }
      }
    }
    table(folder, "entries.csv", List.of("Entry", "At", "Board", "Kind", "Words", "Struck"), lines);
    table(
        folder,
        "readings.csv",
        List.of("At", "Board", "Place", "Value", "Unit", "Low", "High", "Uncertainty", "Verdict"),
        readings);
    table(
        folder,
        "boards.csv",
        List.of("Board", "Design", "Revision", "Build", "Stage", "State"),
        boards);
    try (Writer out = Files.newBufferedWriter(folder.resolve("shelf.csv"))) {
      CsvFiles.shelf(w.stockroom().now().lines(), out);
    }
    Files.writeString(folder.resolve("book.json"), root.toPrettyString() + "\n");
  }

  private static void table(Path folder, String name, List<String> heading, List<List<String>> rows)
      throws IOException {
    try (Writer out = Files.newBufferedWriter(folder.resolve(name))) {
      CsvFiles.table(heading, rows, out);
    }
  }
}
