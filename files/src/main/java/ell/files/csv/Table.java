package ell.files.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.files.Findings;
import ell.files.Source;
import ell.files.TextFile;
import ell.files.Tidy;
import java.io.IOException;
import java.io.Reader;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/// A CSV file as people really send it: separator and encoding found, preamble and comments passed
/// over, columns found by meaning. RFC 4180 with what is seen in the wild.
final class Table {
  private static final int HEAD = 1 << 16;
  private static final int MOST_ROWS = 500_000;
  private static final int MOST_CELL = 4000;
  private static final double MOST_COUNT = 1e12;

  /// The references of hundreds of equal parts stand in one cell.
  private static final int MOST_LIST = 200_000;

  private final Findings findings;
  private final Map<ColumnMeaning, Integer> columns = new EnumMap<>(ColumnMeaning.class);
  private final Map<ColumnMeaning, String> headings = new EnumMap<>(ColumnMeaning.class);
  private List<String> headingRow = List.of();

  private Table(Findings findings) {
    this.findings = findings;
  }

  /// One row below the heading.
  final class Row {
    private final CsvRecord record;

    private Row(CsvRecord record) {
      this.record = record;
    }

    int line() {
      return (int) record.getStartingLineNumber();
    }

    /// The cell of a meaning, stripped; empty when there is no such column or cell.
    String text(ColumnMeaning m) {
      Integer c = columns.get(m);
      return c == null || c >= record.getFieldCount()
          ? ""
          : bounded(record.getField(c), c, m == ColumnMeaning.REFERENCE);
    }

    /// The cell in a column by its place, stripped; empty when the row is shorter.
    String cell(int column) {
      return column < record.getFieldCount() ? bounded(record.getField(column), column, false) : "";
    }

    /// A whole number.
    ///
    /// @param text of the cell, without what stands behind the number
    /// @param otherwise when nothing is there
    /// @return null when it is none; the problem is told
    Long count(ColumnMeaning m, String text, long otherwise) {
      if (text.isEmpty()) {
        return otherwise;
      }
      try {
        double d = EngineeringNumber.parse(text, Unit.ONE);
        if (d < 0 || d != Math.rint(d) || d > MOST_COUNT) {
          throw new NumberFormatException(
              "expected a whole number not below 0, found '" + text + "'");
        }
        return (long) d;
      } catch (NumberFormatException e) {
        error(m, e.getMessage());
        return null;
      }
    }

    private String bounded(String cell, int column, boolean list) {
      String text = Tidy.cell(cell);
      int most = list ? MOST_LIST : MOST_CELL;
      if (text.length() > most) {
        findings.error(
            line(),
            column + 1,
            "a cell of " + text.length() + " characters; at most " + most + " can be meant");
        return "";
      }
      return Spreadsheet.bare(text);
    }

    /// 1-based number of the cell.
    int column(ColumnMeaning m) {
      return columns.getOrDefault(m, -1) + 1;
    }

    void error(ColumnMeaning m, String message) {
      findings.error(line(), column(m), message);
    }

    boolean blank() {
      return record.getFields().stream().allMatch(String::isBlank);
    }

    String all() {
      String s =
          record.getFields().stream().filter(f -> !f.isBlank()).collect(Collectors.joining(" "));
      return s.length() > 60 ? s.substring(0, 60) + "..." : s;
    }
  }

  /// The headings as they are written, in their order.
  List<String> headingRow() {
    return headingRow;
  }

  boolean has(ColumnMeaning m) {
    return columns.containsKey(m);
  }

  /// The unit that the heading of a column states, empty when none.
  String unit(ColumnMeaning m) {
    return ColumnMeaning.unit(headings.getOrDefault(m, ""));
  }

  /// Reads a file.
  ///
  /// @param wanted meanings to look for
  /// @param needed of which these must be there
  /// @param rows called for each row below the heading that is not blank or a comment
  static Table read(
      Source source,
      Findings findings,
      Set<ColumnMeaning> wanted,
      Set<ColumnMeaning> needed,
      TableRow rows)
      throws IOException {
    TextFile.Encoding encoding = TextFile.encoding(source);
    if (encoding.charset().equals(StandardCharsets.ISO_8859_1)) {
      findings.warn(0, 0, "not UTF-8: read as Latin-1");
    }
    Table table = new Table(findings);
    Heading heading;
    try (Reader in = TextFile.open(source, encoding)) {
      char[] head = new char[HEAD];
      int n = in.read(head, 0, HEAD);
      for (int more = n; more >= 0 && n < HEAD; ) {
        more = in.read(head, n, HEAD - n);
        n += Math.max(more, 0);
      }
      heading = Heading.find(n < 0 ? "" : new String(head, 0, n), wanted);
    }
    if (heading == null || !heading.columns.keySet().containsAll(needed)) {
      String found =
          heading == null
              ? "none of them"
              : heading.columns.keySet().stream()
                  .map(Table::word)
                  .collect(Collectors.joining(", "));
      findings.error(
          heading == null ? 1 : heading.line,
          0,
          "expected a heading with columns for "
              + needed.stream().sorted().map(Table::word).collect(Collectors.joining(", "))
              + "; found "
              + found);
      return table;
    }
    for (String twice : heading.twice) {
      findings.error(
          heading.line, 0, "two columns could be the " + twice + "; name one of them otherwise");
    }
    table.columns.putAll(heading.columns);
    table.headings.putAll(heading.headings);
    table.headingRow = heading.row;
    try (Reader in = TextFile.open(source, encoding)) {
      table.rows(in, heading, rows);
    }
    return table;
  }

  /// Takes a row of a table.
  interface TableRow {
    void take(Table table, Row row);
  }

  private static String word(ColumnMeaning m) {
    return m.name().toLowerCase(java.util.Locale.ROOT).replace('_', ' ');
  }

  private void rows(Reader in, Heading heading, TableRow rows) throws IOException {
    int[] count = {0};
    records(
        in,
        heading.separator,
        r -> {
          if (r.getStartingLineNumber() <= heading.line) {
            if (r.getStartingLineNumber() < heading.line
                && r.getFields().stream().anyMatch(f -> !f.isBlank())) {
              findings.pass(
                  (int) r.getStartingLineNumber(), "before the heading: " + new Row(r).all());
            }
            return true;
          }
          Row row = new Row(r);
          if (row.blank()) {
            return true;
          }
          if (r.getField(0).startsWith("#") || r.getField(0).startsWith("//")) {
            findings.pass(row.line(), "comment: " + row.all());
            return true;
          }
          if (++count[0] > MOST_ROWS) {
            findings.error(row.line(), 0, "more than " + MOST_ROWS + " rows");
            return false;
          }
          rows.take(this, row);
          return true;
        });
  }

  private void records(Reader in, char separator, java.util.function.Predicate<CsvRecord> take)
      throws IOException {
    try {
      for (CsvRecord r : reader(separator, in)) {
        if (!take.test(r)) {
          return;
        }
      }
    } catch (CsvParseException e) {
      findings.error(0, 0, "not readable as CSV: " + e.getMessage());
    } catch (UncheckedIOException e) {
      throw e.getCause();
    }
  }

  private static Iterable<CsvRecord> reader(char separator, Reader in) {
    return CsvReader.builder()
        .fieldSeparator(separator)
        .skipEmptyLines(true)
        .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
        .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
        .trimWhitespacesAroundQuotes(true)
        .ofCsvRecord(in);
  }

  private static final class Heading {
    /// Several origins, counts or names are often given; the first is the one by custom.
    private static final Set<ColumnMeaning> MAY_BE_TWICE =
        Set.of(
            ColumnMeaning.X,
            ColumnMeaning.Y,
            ColumnMeaning.QUANTITY,
            ColumnMeaning.REFERENCE,
            ColumnMeaning.DESCRIPTION,
            ColumnMeaning.VALUE,
            ColumnMeaning.CODE,
            ColumnMeaning.PACKAGE);

    final char separator;
    final int line;
    final Map<ColumnMeaning, Integer> columns = new EnumMap<>(ColumnMeaning.class);
    final Map<ColumnMeaning, String> headings = new EnumMap<>(ColumnMeaning.class);
    final List<String> twice = new ArrayList<>();
    final List<String> row;

    private Heading(char separator, CsvRecord record, Set<ColumnMeaning> wanted) {
      this.separator = separator;
      this.line = (int) record.getStartingLineNumber();
      this.row = record.getFields().stream().map(String::strip).toList();
      for (int i = 0; i < record.getFieldCount(); i++) {
        String h = record.getField(i).strip();
        String key = ColumnMeaning.key(h);
        if (key.isEmpty()) {
          continue;
        }
        for (ColumnMeaning m : ColumnMeaning.values()) {
          if (wanted.contains(m) && m.isKey(key)) {
            Integer before = columns.putIfAbsent(m, i);
            if (before == null) {
              headings.put(m, h);
            } else if (m == ColumnMeaning.REFERENCE
                && ColumnMeaning.key(headings.get(m)).startsWith("part")
                && !ColumnMeaning.key(h).startsWith("part")) {
              columns.put(m, i); // a plainer word for it is there as well
              headings.put(m, h);
            } else if (!MAY_BE_TWICE.contains(m)) {
              twice.add(word(m));
            }
          }
        }
      }
    }

    /// The row and separator under which most columns have a meaning.
    static Heading find(String head, Set<ColumnMeaning> wanted) {
      Heading best = null;
      for (char separator : new char[] {',', ';', '\t', '|'}) {
        try {
          int looked = 0;
          for (CsvRecord r : reader(separator, new StringReader(head))) {
            if (looked++ > 60) {
              break;
            }
            Heading h = new Heading(separator, r, wanted);
            if (h.columns.size() >= 2 && (best == null || h.columns.size() > best.columns.size())) {
              best = h;
            }
          }
        } catch (CsvParseException | UncheckedIOException e) {
          // not readable with this separator; the others are tried
        }
      }
      return best;
    }
  }
}
