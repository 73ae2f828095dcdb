package ell.cli.shell;

import ell.core.sheet.Worked;
import java.io.PrintWriter;

/// A worked sheet as text.
public final class SheetText {
  private SheetText() {}

  public static void print(Worked w, PrintWriter out) {
    out.println(w.title());
    int symbol = w.lines().stream().mapToInt(l -> l.symbol().length()).max().orElse(0);
    int value = w.lines().stream().mapToInt(l -> l.display().length()).max().orElse(0);
    for (Worked.Line l : w.lines()) {
      out.printf(
          "  %-" + Math.max(1, symbol) + "s = %" + Math.max(1, value) + "s   %s%n",
          l.symbol(),
          l.display(),
          l.formula());
    }
    w.verdict().ifPresent(v -> out.println("  verdict: " + v.words()));
    w.assumptions().forEach(a -> out.println("  assumed: " + a));
    w.sources().forEach(s -> out.println("  source: " + s));
    w.cautions().forEach(c -> out.println("  take care: " + c));
  }
}
