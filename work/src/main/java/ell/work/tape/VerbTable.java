package ell.work.tape;

import ell.core.rack.Stage;
import java.util.List;

/// The words of the tape as a table for the documentation, in Markdown.
public final class VerbTable {
  private VerbTable() {}

  /// A row a verb: the line, examples, what it logs, the stage.
  public static String of(List<Verb> verbs) {
    StringBuilder s =
        new StringBuilder("| line | for example | logs | stage |\n|---|---|---|---|\n");
    for (Verb v : verbs) {
      s.append("| `")
          .append(v.grammar())
          .append("` | ")
          .append(String.join(" · ", v.examples().stream().map(e -> "`" + e + "`").toList()))
          .append(" | ")
          .append(v.means())
          .append(" | ")
          .append(v.stage().map(Stage::title).orElse(""))
          .append(" |\n");
    }
    return s.toString();
  }
}
