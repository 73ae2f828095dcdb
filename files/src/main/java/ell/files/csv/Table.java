package ell.files.csv;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.files.Findings;
import ell.files.Looks;
import ell.files.Source;
import ell.files.TextFile;
import ell.files.Tidy;
import java.io.IOException;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/// A CSV file as people really send it: separator and encoding found, preamble and comments passed
/// over, columns found by meaning. RFC 4180 with what is seen in the wild.
final class Table {
  private static final int HEAD = 1 << 16;
  private static final int MOST_ROWS = 500_000;
  private static final int MOST_CELL = 4000;
  private static final int MOST_REMARKS = 100;
  private static final double MOST_COUNT = 1e12;

  /// The references of hundreds of equal parts stand in one cell.
  private static final int MOST_LIST = 200_000;

  private final Findings findings;
  private final Map<ColumnMeaning, Integer> columns = new EnumMap<>(ColumnMeaning.class);
  private final Map<ColumnMeaning, String> headings = new EnumMap<>(ColumnMeaning.class);
  private final List<String> remarks = new ArrayList<>();
  private List<String> headingRow = List.of();
  private Heading heading;
  private Map<String, String> said = Map.of();

  private Table(Findings findings) {
    this.findings = findings;
  }

  /// One row below the heading.
  final class Row {
    private final Cells cells;

    private Row(Cells cells) {
      this.cells = cells;
    }

    int line() {
      return cells.line();
    }

    /// The cell of a meaning, stripped; empty when there is no such column or cell.
    String text(ColumnMeaning m) {
      Integer c = columns.get(m);
      return c == null || c >= cells.fields().size()
          ? ""
          : bounded(cells.fields().get(c), c, m == ColumnMeaning.REFERENCE);
    }

    /// The cell in a column by its place, stripped; empty when the row is shorter.
    String cell(int column) {
      return column < cells.fields().size()
          ? bounded(cells.fields().get(column), column, false)
          : "";
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
      return cells.blank();
    }

    String all() {
      return cells.all();
    }
  }

  /// The headings as they are written, in their order.
  List<String> headingRow() {
    return headingRow;
  }

  boolean has(ColumnMeaning m) {
    return columns.containsKey(m);
  }

  /// Whether a meaning was told by looks alone, or not at all.
  boolean guessed(ColumnMeaning m) {
    return heading == null || !has(m) || heading.columns().guessed.contains(m);
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
    return read(source, findings, Map.of(), wanted, needed, rows);
  }

  /// Reads a file.
  ///
  /// @param said meanings that somebody gave to headings, by the word of the meaning
  static Table read(
      Source source,
      Findings findings,
      Map<String, String> said,
      Set<ColumnMeaning> wanted,
      Set<ColumnMeaning> needed,
      TableRow rows)
      throws IOException {
    Optional<String> wrong = Looks.wrong(source, Looks.TEXT, "a table, CSV");
    if (wrong.isPresent()) {
      findings.error(0, 0, wrong.get());
      return new Table(findings);
    }
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
      heading = Heading.find(n < 0 ? "" : new String(head, 0, n), wanted, needed, said);
    }
    if (heading == null || !heading.columns().at.keySet().containsAll(needed)) {
      table.lacking(heading, needed);
      return table;
    }
    Columns columns = heading.columns();
    columns.strangers.forEach(x -> findings.error(heading.line(), 0, x));
    for (String twice : columns.twice) {
      findings.error(
          heading.line(),
          0,
          "two columns could be the "
              + twice
              + "; say which one: --column "
              + twice
              + "=HEADING, of "
              + Columns.quoted(heading.row()));
    }
    table.columns.putAll(columns.at);
    table.headings.putAll(columns.headings);
    table.headingRow = heading.row();
    table.heading = heading;
    table.said = said;
    try (Reader in = TextFile.open(source, encoding)) {
      table.rows(in, heading, rows);
    }
    return table;
  }

  /// What was found and what is wanted.
  private void lacking(Heading heading, Set<ColumnMeaning> needed) {
    List<String> missing =
        needed.stream()
            .sorted()
            .filter(m -> heading == null || !heading.columns().at.containsKey(m))
            .map(ColumnMeaning::word)
            .toList();
    findings.error(
        heading == null ? 1 : heading.line(),
        0,
        "expected a heading with columns for "
            + needed.stream().sorted().map(ColumnMeaning::word).collect(Collectors.joining(", "))
            + "; found "
            + (heading == null
                ? "none of them"
                : Columns.quoted(heading.row())
                    + ", of which none is the "
                    + String.join(" or the ", missing)
                    + " (say it: --column "
                    + missing.getFirst()
                    + "=HEADING)"));
  }

  /// Says which column was taken for what, and which were not used.
  void account() {
    if (heading == null) {
      return;
    }
    Columns c = heading.columns();
    findings.found(
        "columns: "
            + c.at.keySet().stream()
                .sorted()
                .map(m ->
                    m.word()
                        + " = "
                        + c.headings.get(m)
                        + (said.containsKey(m.word()) ? " (as said)" : ""))
                .collect(Collectors.joining(", ")));
    c.guessed.stream()
        .sorted()
        .forEach(m ->
            findings.guess(
                "the column of the " + m.word(),
                "'" + c.headings.get(m) + "'",
                "--column " + m.word() + "=HEADING"));
    List<String> unused = heading.unused();
    if (!unused.isEmpty()) {
      findings.pass(heading.line(), "columns not used: " + String.join(", ", unused));
    }
  }

  /// Takes a row of a table.
  interface TableRow {
    void take(Table table, Row row);
  }

  /// The text before the heading and in comments: it may say the units.
  List<String> remarks() {
    return remarks;
  }

  private void rows(Reader in, Heading heading, TableRow rows) throws IOException {
    int[] count = {0};
    heading
        .form()
        .each(
            in,
            cells -> {
              Row row = new Row(cells);
              if (cells.line() <= heading.line()) {
                if (cells.line() < heading.line() && !row.blank()) {
                  remark(row, "before the heading: ");
                }
                return true;
              }
              if (row.blank()) {
                return true;
              }
              if (cells.comment(heading.form())) {
                remark(row, "comment: ");
                return true;
              }
              if (cells.fields().equals(heading.row())) {
                findings.pass(row.line(), "the heading once more: " + row.all());
                return true;
              }
              if (++count[0] > MOST_ROWS) {
                findings.error(row.line(), 0, "more than " + MOST_ROWS + " rows");
                return false;
              }
              rows.take(this, row);
              return true;
            },
            message -> findings.error(0, 0, message));
  }

  private void remark(Row row, String what) {
    findings.pass(row.line(), what + row.all());
    if (remarks.size() < MOST_REMARKS) {
      remarks.add(row.all());
    }
  }
}
