package ell.cli.calc;

import ell.cli.shell.JsonText;
import ell.cli.shell.SheetJson;
import ell.cli.shell.SheetText;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import ell.work.calc.FileSheets;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/// Lists the worked sheets or works one, without the parser of the command line where the line is
/// plain: a sum should not wait for what it does not need.
public final class CalcDoor {
  private CalcDoor() {}

  /// Runs `calc` when its words are plain: a name, `key=value` and `--json`. Everything else, help
  /// and mistakes included, is left to the parser.
  ///
  /// @param args all words, `calc` first
  /// @return whether it was run
  /// @throws SheetProblem when there is no such sheet, or an input is not right
  public static boolean plain(PrintWriter out, String... args) {
    Optional<String> name = Optional.empty();
    List<String> given = new ArrayList<>();
    boolean json = false;
    for (int i = 1; i < args.length; i++) {
      String a = args[i];
      if (a.equals("--json")) {
        json = true;
      } else if (a.startsWith("-") || a.startsWith("@") || a.isEmpty()) {
        return false;
      } else if (name.isEmpty()) {
        name = Optional.of(a);
      } else {
        given.add(a);
      }
    }
    run(out, name, given, json);
    return true;
  }

  /// Lists the sheets, or works the one that is named.
  ///
  /// @param given `key=value` each
  static void run(PrintWriter out, Optional<String> name, List<String> given, boolean json) {
    if (name.isEmpty()) {
      if (json) {
        out.println(JsonText.of(SheetJson.catalogue(FileSheets.sheets())));
      } else {
        FileSheets.sheets().forEach(s -> list(out, s));
      }
      return;
    }
    Worked w = FileSheets.work(name.get(), pairs(given));
    if (json) {
      out.println(JsonText.of(SheetJson.worked(w)));
    } else {
      SheetText.print(w, out);
    }
  }

  private static Map<String, String> pairs(List<String> given) {
    Map<String, String> pairs = new LinkedHashMap<>();
    for (String g : given) {
      int eq = g.indexOf('=');
      if (eq < 1) {
        throw new SheetProblem("expected key=value, found '" + g + "'");
      }
      if (pairs.put(g.substring(0, eq), g.substring(eq + 1)) != null) {
        throw new SheetProblem("'" + g.substring(0, eq) + "' is given twice");
      }
    }
    return pairs;
  }

  private static void list(PrintWriter out, Sheet s) {
    out.println(s.name() + "  " + s.title());
    for (Input i : s.inputs()) {
      out.println(
          "    "
              + i.right()
              + i.byDefault().map(d -> " (" + d + " when not said)").orElse("")
              + (i.optional() ? " (may be left out)" : ""));
    }
    out.println(
        "    gives "
            + s.results().stream()
                .map(r -> r.name() + (r.unit().isEmpty() ? "" : " in " + r.unit()))
                .collect(Collectors.joining(", ")));
  }
}
