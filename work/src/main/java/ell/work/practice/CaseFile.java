package ell.work.practice;

import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// A case that a trainer hands on: one JSON file with a title, the words with which the board is
/// handed over, what there is to learn, the faults, and the files of the revision, so that nothing
/// else is needed.
///
/// @param files of the revision by name, as text; empty when the revision is the demo's or one of a
///   workspace
/// @param faults in the words of faults, of every board of the case
public record CaseFile(
    String title,
    String words,
    String lesson,
    String design,
    String revision,
    List<Fault> faults,
    Map<String, String> files) {
  private static final ObjectMapper MAPPER = new ObjectMapper();
  private static final int MOST_BYTES = 64 << 20;

  public CaseFile {
    faults = List.copyOf(faults);
    files = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(files));
  }

  /// Reads one.
  ///
  /// @throws ActException when it is none, saying what was expected
  public static CaseFile read(Path file) throws IOException, ActException {
    if (!Files.isRegularFile(file)) {
      throw new ActException(file + ": there is no such file");
    }
    if (Files.size(file) > MOST_BYTES) {
      throw new ActException(file + " is larger than a case can be");
    }
    JsonNode n;
    try {
      n = MAPPER.readTree(Files.readString(file));
    } catch (JacksonException e) {
      throw new ActException(
          file
              + ":"
              + (e.getLocation() == null ? 1 : e.getLocation().getLineNr())
              + ": this is no JSON: "
              + e.getOriginalMessage(),
          e);
    }
    if (n == null || !n.isObject() || n.path("case").asInt(0) != 1) {
      throw new ActException(
          file
              + ": a case is a JSON object with \"case\": 1, \"design\", \"revision\", \"faults\"");
    }
    List<Fault> faults = new ArrayList<>();
    for (JsonNode f : n.path("faults")) {
      try {
        faults.add(FaultWords.parse(f.asString("")));
      } catch (IllegalArgumentException e) {
        throw new ActException(file + ": faults: " + e.getMessage(), e);
      }
    }
    if (faults.isEmpty()) {
      throw new ActException(file + ": a case has one fault or more, such as \"open U3.4\"");
    }
    Map<String, String> files = new LinkedHashMap<>();
    for (Map.Entry<String, JsonNode> f : n.path("files").properties()) {
      if (!f.getKey().matches("[A-Za-z0-9][A-Za-z0-9._-]{0,79}")) {
        throw new ActException(file + ": '" + f.getKey() + "' is no name of a file in a case");
      }
      files.put(f.getKey(), f.getValue().asString(""));
    }
    return new CaseFile(
        n.path("title").asString("a case"),
        n.path("words").asString(""),
        n.path("lesson").asString(""),
        said(file, n, "design"),
        said(file, n, "revision"),
        faults,
        files);
  }

  private static String said(Path file, JsonNode n, String what) throws ActException {
    String s = n.path(what).asString("").strip();
    return Optional.of(s)
        .filter(x -> !x.isEmpty())
        .orElseThrow(() -> new ActException(file + ": a case says its " + what));
  }

  /// As it is written.
  public String text() {
    ObjectNode n = MAPPER.createObjectNode().put("case", 1);
    n.put("title", title).put("words", words).put("lesson", lesson);
    n.put("design", design).put("revision", revision);
    ArrayNode all = n.putArray("faults");
    faults.forEach(f -> all.add(FaultWords.words(f)));
    ObjectNode own = n.putObject("files");
    files.forEach(own::put);
    return MAPPER.writerWithDefaultPrettyPrinter().writeValueAsString(n) + "\n";
  }
}
