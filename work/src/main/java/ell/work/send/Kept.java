package ell.work.send;

import ell.book.Build;
import ell.book.RevisionStore;
import ell.book.Written;
import ell.core.kit.ShelfLine;
import ell.core.power.PowerJson;
import ell.files.csv.CsvFiles;
import ell.work.Workshop;
import ell.work.act.StageWork;
import ell.work.space.ActException;
import java.io.IOException;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The part of an export from which the same workspace can be made again: revisions with everything
/// that is kept with them, builds, the shelf as it was counted, parameters, whatever else is kept,
/// photographs, and `chain.csv`, the entries letter for letter. `workspace.json` says which file is
/// what. Nothing is picked out by name: what a stage keeps is here because it is kept.
final class Kept {
  /// The file that says which file is what.
  static final String MANIFEST = "workspace.json";

  /// The entries letter for letter.
  static final String CHAIN = "chain.csv";

  private static final String LADDER = "ladder";
  private static final JsonMapper MAPPER = JsonMapper.builder().build();

  private final Workshop w;
  private final Path folder;
  private final Map<String, String> endings = new java.util.HashMap<>();
  private final Set<Path> taken = new HashSet<>();

  private Kept(Workshop w, Path folder) {
    this.w = w;
    this.folder = folder;
    for (StageWork s : w.works()) {
      endings.putAll(s.keeps());
    }
    endings.put("packages", "csv");
    endings.put("drill", "xnc");
    endings.put("outline", "gbr");
  }

  /// Writes it into a folder that is there.
  static void write(Workshop w, Path folder) throws IOException, ActException {
    new Kept(w, folder).write();
  }

  private void write() throws IOException, ActException {
    ObjectNode root = MAPPER.createObjectNode().put("export", 1).put("seal", w.book().seal());
    root.put("head", w.book().head().toString());
    builds(w, root);
    shelf(root.putArray("shelf"));
    parameters(root);
    ObjectNode keepsakes = root.putObject("keepsakes");
    for (Map.Entry<String, String> k : w.book().keepsakes().entrySet()) {
      keepsakes.put(k.getKey(), text(folder.resolve("kept"), k.getKey(), k.getValue()));
    }
    ArrayNode revisions = root.putArray("revisions");
    for (RevisionStore.Id id : w.book().revisions()) {
      revision(id, revisions.addObject());
    }
    photographs(root.putArray("photographs"));
    chain();
    Files.writeString(folder.resolve(MANIFEST), root.toPrettyString() + "\n");
  }

  /// Puts every build with its boards under `builds`, in their order.
  static void builds(Workshop w, ObjectNode root) throws IOException {
    ArrayNode builds = root.putArray("builds");
    for (Build b : w.book().builds()) {
      ObjectNode o =
          builds
              .addObject()
              .put("build", b.id())
              .put("design", b.design())
              .put("revision", b.revision())
              .put("method", b.method())
              .put("alloy", b.alloy())
              .put("variant", b.variant());
      b.boards().forEach(o.putArray("boards")::add);
    }
  }

  private void shelf(ArrayNode lines) throws IOException {
    for (ShelfLine l : w.book().shelf()) {
      ObjectNode o =
          lines
              .addObject()
              .put("line", l.line())
              .put("code", l.code())
              .put("quantity", l.quantity())
              .put("bin", l.bin())
              .put("onOrder", l.onOrder())
              .put("kind", l.kind().key())
              .put("since", l.since());
      l.expected().ifPresent(d -> o.put("expected", d.toString()));
      l.expiry().ifPresent(d -> o.put("expiry", d.toString()));
    }
  }

  private void parameters(ObjectNode root) throws IOException {
    ObjectNode all = root.putObject("parameters");
    for (String code : w.book().codesWithParameters()) {
      ObjectNode o = all.putObject(code);
      w.book().parameters(code).forEach(o::put);
    }
  }

  private void revision(RevisionStore.Id id, ObjectNode o) throws IOException, ActException {
    String name = free(folder, id.design() + "-" + id.name(), "");
    Path own = folder.resolve(name);
    // as it was imported: what was kept with it since is written beside it
    RevisionFiles.write(w.book().revision(id.design(), id.name()).orElseThrow(), own);
    o.put("design", id.design()).put("name", id.name()).put("folder", name);
    ObjectNode documents = o.putObject("documents");
    if (!w.book().documents(id.design(), id.name()).containsKey(LADDER)) {
      // a proposal is worked out again where it is wanted: it is written for people only
      Files.writeString(
          own.resolve(LADDER + ".json"), PowerJson.write(w.ladder(id.design(), id.name())));
    }
    for (Map.Entry<String, String> d : w.book().documents(id.design(), id.name()).entrySet()) {
      documents.put(d.getKey(), text(own, d.getKey(), d.getValue()));
    }
  }

  /// Writes a text under a name that tells what it is.
  ///
  /// @return where, in the export's own terms
  private String text(Path in, String kind, String body) throws IOException {
    Files.createDirectories(in);
    String ending = endings.getOrDefault(kind, endings.getOrDefault(kind.split(" ", 2)[0], "txt"));
    String name = free(in, kind, "." + ending);
    Files.writeString(in.resolve(name), body);
    return folder.relativize(in.resolve(name)).toString().replace('\\', '/');
  }

  /// A name for a file that no other one has, whatever its words are made of.
  private String free(Path in, String words, String ending) {
    String clean = words.replaceAll("[^A-Za-z0-9._-]+", "_");
    String name = clean + ending;
    for (int n = 2; Files.exists(in.resolve(name)) || !taken.add(in.resolve(name)); n++) {
      name = clean + "-" + n + ending;
    }
    return name;
  }

  private void photographs(ArrayNode list) throws IOException {
    Path in = folder.resolve("photographs");
    for (Map.Entry<String, String> p : w.book().photographs().entrySet()) {
      Files.createDirectories(in);
      byte[] body = w.book().photograph(p.getKey()).orElseThrow();
      String name = free(in, p.getKey().substring(0, 12) + "-" + p.getValue(), "");
      Files.write(in.resolve(name), body);
      list.addObject()
          .put("sha256", p.getKey())
          .put("name", p.getValue())
          .put("file", "photographs/" + name);
    }
  }

  private void chain() throws IOException {
    List<List<String>> rows = new ArrayList<>();
    for (Written e : w.book().written()) {
      rows.add(List.of(String.valueOf(e.number()), e.at(), e.board(), e.body()));
    }
    try (Writer out = Files.newBufferedWriter(folder.resolve(CHAIN))) {
      CsvFiles.table(List.of("Number", "At", "Board", "Body"), rows, out);
    }
  }
}
