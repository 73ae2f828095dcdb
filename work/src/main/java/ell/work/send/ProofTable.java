package ell.work.send;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.prove.ProveFacts;
import ell.files.Output;
import ell.files.csv.CsvFiles;
import ell.work.Workshop;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/// Every step of every proof as a table, in SI units: the raw data behind what is said of a build.
public final class ProofTable {
  /// Its heading.
  public static final List<String> HEADING =
      List.of(
          "board",
          "run",
          "plan",
          "number",
          "round",
          "test",
          "value",
          "unit",
          "low",
          "high",
          "uncertainty",
          "verdict",
          "left",
          "words",
          "seconds",
          "at",
          "entry");

  private ProofTable() {}

  /// The rows of some boards, in their order.
  public static List<List<String>> rows(Workshop w, List<String> boards) throws IOException {
    List<List<String>> rows = new ArrayList<>();
    for (String b : boards) {
      for (ProveFacts.Run r : ProveFacts.of(w.state(b)).runs()) {
        for (Logged l : r.steps()) {
          Entry.ProofStep s = (Entry.ProofStep) l.entry();
          rows.add(
              List.of(
                  b,
                  String.valueOf(r.number()),
                  r.begun().plan(),
                  String.valueOf(s.number()),
                  String.valueOf(s.round()),
                  s.name(),
                  s.value().map(v -> Double.isInfinite(v) ? "open" : String.valueOf(v)).orElse(""),
                  s.unit().symbol(),
                  s.limits().map(x -> finite(x.low())).orElse(""),
                  s.limits().map(x -> finite(x.high())).orElse(""),
                  s.uncertainty().map(String::valueOf).orElse(""),
                  s.verdict().map(v -> v.key()).orElse(""),
                  s.left() ? "left out" : "",
                  s.words(),
                  String.valueOf(s.seconds()),
                  l.at().toString(),
                  String.valueOf(l.number())));
        }
      }
    }
    return rows;
  }

  private static String finite(double d) {
    return Double.isFinite(d) ? String.valueOf(d) : "";
  }

  /// Writes them as CSV; the file appears whole or not at all.
  public static void csv(Workshop w, List<String> boards, Path to, Output.Over over)
      throws IOException {
    StringWriter out = new StringWriter();
    CsvFiles.table(HEADING, rows(w, boards), out);
    Output.write(to, out.toString().getBytes(StandardCharsets.UTF_8), over);
  }
}
