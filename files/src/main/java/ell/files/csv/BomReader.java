package ell.files.csv;

import ell.core.board.BomLine;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/// Reads a bill of materials. Needs a column of references; takes quantity, value, package, code,
/// fitted or not, alternates, key part, block, description, cost and mass when they are there.
public final class BomReader {

  private BomReader() {}

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<List<BomLine>> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    List<BomLine> lines = new ArrayList<>();
    Map<String, Integer> seen = new HashMap<>();
    Currency currency = new Currency();
    Table.read(
        source,
        f,
        Set.of(
            ColumnMeaning.REFERENCE,
            ColumnMeaning.QUANTITY,
            ColumnMeaning.VALUE,
            ColumnMeaning.PACKAGE,
            ColumnMeaning.CODE,
            ColumnMeaning.FITTED,
            ColumnMeaning.NOT_FITTED,
            ColumnMeaning.ALTERNATES,
            ColumnMeaning.KEY,
            ColumnMeaning.BLOCK,
            ColumnMeaning.DESCRIPTION,
            ColumnMeaning.COST,
            ColumnMeaning.MASS,
            ColumnMeaning.VARIANTS,
            ColumnMeaning.SPARES),
        Set.of(ColumnMeaning.REFERENCE),
        (_, row) -> {
          BomLine line = line(row, f);
          currency.seen(row, ColumnMeaning.COST);
          if (line != null) {
            for (String r : line.references()) {
              Integer before = seen.putIfAbsent(r, line.line());
              if (before != null) {
                row.error(
                    ColumnMeaning.REFERENCE,
                    "reference "
                        + r
                        + " is already on line "
                        + before
                        + "; expected each reference once");
              }
            }
            lines.add(line);
          }
        });
    if (!f.failed() && lines.isEmpty()) {
      f.error(0, 0, "no parts found; expected at least one line with a reference");
    }
    return f.done(List.copyOf(lines));
  }

  private static BomLine line(Table.Row row, Findings f) {
    String cell = row.text(ColumnMeaning.REFERENCE);
    if (cell.isEmpty() || cell.matches("(?i)(grand )?(sub)?total.*|sum:?")) {
      f.pass(row.line(), "no reference: " + row.all());
      return null;
    }
    List<String> references;
    try {
      references = References.parse(cell);
    } catch (IllegalArgumentException e) {
      row.error(ColumnMeaning.REFERENCE, e.getMessage());
      return null;
    }
    String quantity = row.text(ColumnMeaning.QUANTITY);
    if (!quantity.isEmpty()) {
      try {
        double q = EngineeringNumber.parse(quantity, Unit.ONE);
        if (q != references.size() && !(q == 0 && !fitted(row))) {
          row.error(
              ColumnMeaning.QUANTITY,
              "quantity "
                  + quantity
                  + " does not match the "
                  + references.size()
                  + " references on the line");
        }
      } catch (NumberFormatException e) {
        row.error(ColumnMeaning.QUANTITY, e.getMessage());
      }
    }
    String value = row.text(ColumnMeaning.VALUE);
    return new BomLine(
        row.line(),
        references,
        value,
        row.text(ColumnMeaning.PACKAGE),
        row.text(ColumnMeaning.CODE),
        fitted(row),
        alternates(row.text(ColumnMeaning.ALTERNATES)),
        yes(row.text(ColumnMeaning.KEY)),
        row.text(ColumnMeaning.BLOCK),
        row.text(ColumnMeaning.DESCRIPTION),
        number(row, ColumnMeaning.COST, Unit.ONE),
        number(row, ColumnMeaning.MASS, Unit.ONE),
        alternates(row.text(ColumnMeaning.VARIANTS)),
        spares(row));
  }

  private static int spares(Table.Row row) {
    double d = number(row, ColumnMeaning.SPARES, Unit.ONE);
    if (!Double.isNaN(d) && (d != Math.rint(d) || d > 1e6)) {
      row.error(ColumnMeaning.SPARES, "expected a whole number of spares, found '" + d + "'");
      return 0;
    }
    return Double.isNaN(d) ? 0 : (int) d;
  }

  private static boolean fitted(Table.Row row) {
    String fitted = row.text(ColumnMeaning.FITTED).toLowerCase(Locale.ROOT);
    boolean no = fitted.matches("no|n|0|false|dnp|dnf|nf|not fitted|-|none");
    return !no
        && !yes(row.text(ColumnMeaning.NOT_FITTED))
        && !row.text(ColumnMeaning.VALUE)
            .matches("(?i)dnp|dnf|do not (fit|place|populate)|not fitted");
  }

  private static boolean yes(String text) {
    return text.toLowerCase(Locale.ROOT)
        .matches("yes|y|1|true|x|dnp|dnf|key|do not (fit|place|populate)");
  }

  private static List<String> alternates(String text) {
    return text.isEmpty() ? List.of() : List.of(text.split("\\s*[,;|]\\s*|\\s+"));
  }

  private static double number(Table.Row row, ColumnMeaning m, Unit unit) {
    String text = Currency.without(row.text(m)).replaceAll("(?i)\\s*g$", "").strip();
    if (text.isEmpty()) {
      return Double.NaN;
    }
    try {
      double d = EngineeringNumber.parse(text, unit);
      if (d < 0) {
        throw new NumberFormatException("expected a number not below 0, found '" + text + "'");
      }
      return d;
    } catch (NumberFormatException e) {
      row.error(m, e.getMessage());
      return Double.NaN;
    }
  }
}
