package ell.files.csv;

import ell.core.kit.ShelfLine;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.format.ResolverStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/// Reads what lies on the shelf: code and quantity, and bin, on order, expected and expiry when
/// they are there. The same code may lie in several bins.
public final class ShelfReader {
  private static final List<DateTimeFormatter> DATES =
      List.of(
          DateTimeFormatter.ISO_LOCAL_DATE,
          DateTimeFormatter.ofPattern("d.M.uuuu", Locale.ROOT)
              .withResolverStyle(ResolverStyle.STRICT),
          DateTimeFormatter.ofPattern("d MMM uuuu", Locale.ROOT)
              .withResolverStyle(ResolverStyle.STRICT));

  private ShelfReader() {}

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<List<ShelfLine>> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    List<ShelfLine> lines = new ArrayList<>();
    Table table =
        Table.read(
            source,
            f,
            Set.of(
                ColumnMeaning.CODE,
                ColumnMeaning.QUANTITY,
                ColumnMeaning.BIN,
                ColumnMeaning.ON_ORDER,
                ColumnMeaning.EXPECTED,
                ColumnMeaning.EXPIRY,
                ColumnMeaning.KIND,
                ColumnMeaning.DESCRIPTION),
            Set.of(ColumnMeaning.CODE, ColumnMeaning.QUANTITY),
            (_, row) -> {
              String code = row.text(ColumnMeaning.CODE);
              if (code.isEmpty() || code.matches("(?i)(grand )?(sub)?total.*|sum:?")) {
                f.pass(row.line(), "no code: " + row.all());
                return;
              }
              Long quantity =
                  row.count(ColumnMeaning.QUANTITY, row.text(ColumnMeaning.QUANTITY), 0);
              Long onOrder = row.count(ColumnMeaning.ON_ORDER, row.text(ColumnMeaning.ON_ORDER), 0);
              Optional<LocalDate> expected = date(row, ColumnMeaning.EXPECTED);
              Optional<LocalDate> expiry = date(row, ColumnMeaning.EXPIRY);
              ShelfLine.Kind kind = kind(row);
              if (quantity != null && onOrder != null && kind != null) {
                lines.add(
                    new ShelfLine(
                        row.line(),
                        code,
                        quantity,
                        row.text(ColumnMeaning.BIN),
                        onOrder,
                        expected,
                        expiry,
                        kind,
                        0));
              }
            });
    table.account();
    return f.done(List.copyOf(lines));
  }

  private static ShelfLine.Kind kind(Table.Row row) {
    try {
      return ShelfLine.Kind.of(row.text(ColumnMeaning.KIND));
    } catch (IllegalArgumentException e) {
      row.error(ColumnMeaning.KIND, e.getMessage());
      return null;
    }
  }

  private static Optional<LocalDate> date(Table.Row row, ColumnMeaning m) {
    String text = row.text(m);
    if (text.isEmpty() || text.equals("-")) {
      return Optional.empty();
    }
    for (DateTimeFormatter d : DATES) {
      try {
        return Optional.of(LocalDate.parse(text, d));
      } catch (DateTimeParseException e) {
        // the next spelling is tried; none is guessed where day and month could be mistaken
      }
    }
    row.error(m, "expected a date such as 2026-12-03, found '" + text + "'");
    return Optional.empty();
  }
}
