package ell.cli.bring;

import ell.files.Account;
import ell.files.Guess;
import ell.files.Problem;
import ell.work.bring.FileAccount;
import java.util.ArrayList;
import java.util.List;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What an import says of its files: one summary a file, in words and as JSON.
final class ImportWords {
  private ImportWords() {}

  /// Lines for a person: what was found, guessed, to be minded and passed over, grouped.
  static List<String> lines(List<FileAccount> files) {
    List<String> lines = new ArrayList<>();
    for (FileAccount f : files) {
      Account a = f.account();
      lines.add("  " + f.file() + (f.kind().isEmpty() ? "" : ", " + f.kind()));
      if (!a.found().isEmpty()) {
        lines.add("    found: " + String.join("; ", a.found()));
      }
      for (Guess g : a.guesses()) {
        lines.add("    guessed: " + g.words());
      }
      for (Account.Group g : Account.grouped(a.warnings())) {
        lines.add("    mind: " + g);
      }
      for (Account.Group g : a.grouped()) {
        lines.add("    passed over: " + g);
      }
    }
    return lines;
  }

  /// The same as JSON, beside the plain lists of what was passed over and is to be minded.
  static void json(ObjectNode o, List<FileAccount> files) {
    ArrayNode passed = o.putArray("passedOver");
    ArrayNode warnings = o.putArray("warnings");
    ArrayNode all = o.putArray("files");
    for (FileAccount f : files) {
      for (Problem p : f.account().passedOver()) {
        passed.addObject().put("file", p.file()).put("line", p.line()).put("what", p.message());
      }
      for (Problem p : f.account().warnings()) {
        ObjectNode one = warnings.addObject().put("file", p.file()).put("line", p.line());
        if (p.column() > 0) {
          one.put("column", p.column());
        }
        one.put("message", p.message());
      }
      for (Guess g : f.account().guesses()) {
        warnings.addObject().put("file", f.file()).put("line", 0).put("message", g.words());
      }
      ObjectNode one = all.addObject().put("file", f.file()).put("kind", f.kind());
      ArrayNode found = one.putArray("found");
      f.account().found().forEach(found::add);
      ArrayNode guesses = one.putArray("guesses");
      for (Guess g : f.account().guesses()) {
        ObjectNode x = guesses.addObject().put("what", g.what()).put("taken", g.taken());
        if (!g.answer().isEmpty()) {
          x.put("answer", g.answer());
        }
      }
      ArrayNode groups = one.putArray("passedOver");
      for (Account.Group g : f.account().grouped()) {
        ObjectNode x = groups.addObject().put("what", g.kind()).put("count", g.count());
        ArrayNode examples = x.putArray("examples");
        g.examples().forEach(examples::add);
      }
    }
  }
}
