package ell.files.csv;

import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// The row of a table that names its columns, and how cells are told apart.
///
/// @param line of the file
/// @param row the headings, stripped
/// @param columns what they mean
/// @param filled whether anything stands below a heading
record Heading(TableForm form, int line, List<String> row, Columns columns, List<Boolean> filled) {
  private static final int LOOKED = 60;
  private static final int SAMPLED = 100;

  /// So much of a cell tells what it is.
  private static final int TOLD = 120;

  /// The row under which most columns have a meaning.
  ///
  /// @param head the beginning of the file
  /// @return null when there is none
  static Heading find(
      String head, Set<ColumnMeaning> wanted, Set<ColumnMeaning> needed, Map<String, String> said) {
    Heading best = null;
    int most = 0;
    for (char separator : new char[] {',', ';', '\t', '|'}) {
      TableForm form = TableForm.separated(separator);
      List<Cells> rows = rows(form, head);
      int at = likeliest(rows, wanted, said);
      if (at >= 0) {
        int words = weight(strip(rows.get(at).fields()), wanted, said);
        if (words > most) {
          most = words;
          best = of(form, rows, at, wanted, said);
        }
      }
    }
    if (best != null && best.columns.at.keySet().containsAll(needed)) {
      return best;
    }
    Heading wide = wide(head, wanted, said);
    if (best == null && wide == null) {
      return first(head, wanted, said);
    }
    return wide != null && wide.columns.at.keySet().containsAll(needed) ? wide : best;
  }

  /// Where no word is known: the first row of the form that has most cells. What stands below may
  /// still tell the columns.
  private static Heading first(String head, Set<ColumnMeaning> wanted, Map<String, String> said) {
    Heading best = null;
    for (char separator : new char[] {',', ';', '\t', '|'}) {
      TableForm form = TableForm.separated(separator);
      List<Cells> rows = rows(form, head);
      int at = 0;
      while (at < rows.size() && rows.get(at).comment(form)) {
        at++;
      }
      if (at < rows.size() && rows.get(at).fields().size() > (best == null ? 1 : best.row.size())) {
        best = of(form, rows, at, wanted, said);
      }
    }
    return best;
  }

  private static int weight(List<String> row, Set<ColumnMeaning> wanted, Map<String, String> said) {
    int named =
        (int)
            said.values().stream().filter(h -> row.stream().anyMatch(h::equalsIgnoreCase)).count();
    return Columns.words(row, wanted) + 3 * named;
  }

  private static int likeliest(
      List<Cells> rows, Set<ColumnMeaning> wanted, Map<String, String> said) {
    int best = -1;
    int most = 2; // one plain word alone is no heading
    for (int i = 0; i < Math.min(LOOKED, rows.size()); i++) {
      int words = weight(strip(rows.get(i).fields()), wanted, said);
      if (words > most) {
        most = words;
        best = i;
      }
    }
    return best;
  }

  private static Heading wide(String head, Set<ColumnMeaning> wanted, Map<String, String> said) {
    WideText best = null;
    int at = -1;
    int most = 3;
    String[] lines = head.split("\\R", -1);
    for (int i = 0; i < Math.min(LOOKED, lines.length); i++) {
      WideText w = WideText.heading(lines[i]);
      int words = weight(w.headings(), wanted, said);
      if (words > most) {
        most = words;
        best = w;
        at = i;
      }
    }
    if (best == null) {
      return null;
    }
    List<Cells> rows = new ArrayList<>();
    rows.add(new Cells(at + 1, best.headings()));
    for (int i = at + 1; i < lines.length && rows.size() <= SAMPLED; i++) {
      if (!lines[i].isBlank()) {
        rows.add(new Cells(i + 1, best.split(lines[i])));
      }
    }
    return of(TableForm.wide(best::split), rows, 0, wanted, said);
  }

  private static List<Cells> rows(TableForm form, String head) {
    List<Cells> rows = new ArrayList<>();
    try {
      form.each(
          new StringReader(head),
          c -> {
            rows.add(c);
            return rows.size() < LOOKED + SAMPLED;
          },
          _ -> {}); // not readable with this separator: the others are tried
    } catch (IOException e) {
      throw new IllegalStateException("text in memory is read", e);
    }
    return rows;
  }

  private static Heading of(
      TableForm form,
      List<Cells> rows,
      int at,
      Set<ColumnMeaning> wanted,
      Map<String, String> said) {
    List<String> row = strip(rows.get(at).fields());
    List<List<String>> below = new ArrayList<>();
    for (int i = 0; i < row.size(); i++) {
      below.add(new ArrayList<>());
    }
    for (Cells c : rows.subList(at + 1, rows.size())) {
      if (c.comment(form) || c.fields().equals(rows.get(at).fields())) {
        continue;
      }
      for (int i = 0; i < Math.min(row.size(), c.fields().size()); i++) {
        String cell = c.fields().get(i).strip();
        if (!cell.isEmpty() && below.get(i).size() < SAMPLED) {
          below.get(i).add(cell.length() > TOLD ? cell.substring(0, TOLD) : cell);
        }
      }
    }
    return new Heading(
        form,
        rows.get(at).line(),
        row,
        Columns.of(row, below, wanted, said),
        below.stream().map(b -> !b.isEmpty() && !CellSense.running(b)).toList());
  }

  private static List<String> strip(List<String> row) {
    return row.stream().map(String::strip).toList();
  }

  /// Headings that mean nothing here, with something below them that is no running number.
  List<String> unused() {
    List<String> left = new ArrayList<>();
    for (int i = 0; i < row.size(); i++) {
      if (!row.get(i).isEmpty() && filled.get(i) && !columns.at.containsValue(i)) {
        left.add(row.get(i));
      }
    }
    return left;
  }
}
