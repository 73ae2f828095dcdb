package ell.files.csv;

import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Reads what is known of parts: either a line for each parameter (code, parameter, value), or a
/// line for each code with a column for each parameter, whose heading may state a unit in brackets.
/// NamePool are kept in lower case.
public final class ParametersReader {
  private static final Pattern BRACKETS = Pattern.compile("[(\\[][^()\\[\\]]*+[)\\]]");

  private ParametersReader() {}

  /// Reads a file.
  ///
  /// @return parameters by name, by code
  /// @throws IOException when it cannot be read at all
  public static Read<Map<String, Map<String, String>>> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    Map<String, Map<String, String>> found = new LinkedHashMap<>();
    Table.read(
        source,
        f,
        Set.of(
            ColumnMeaning.CODE,
            ColumnMeaning.PARAMETER,
            ColumnMeaning.VALUE,
            ColumnMeaning.PACKAGE,
            ColumnMeaning.KIND),
        Set.of(ColumnMeaning.CODE),
        (table, row) -> {
          String code = row.text(ColumnMeaning.CODE);
          if (code.isEmpty()) {
            f.pass(row.line(), "no code: " + row.all());
            return;
          }
          Map<String, String> own = found.computeIfAbsent(code, _ -> new LinkedHashMap<>());
          if (table.has(ColumnMeaning.PARAMETER)) {
            put(own, row, row.text(ColumnMeaning.PARAMETER), row.text(ColumnMeaning.VALUE));
          } else {
            for (int c = 0; c < table.headingRow().size(); c++) {
              String heading = table.headingRow().get(c);
              if (c != row.column(ColumnMeaning.CODE) - 1 && !heading.isEmpty()) {
                put(own, row, heading, withUnit(heading, row.cell(c)));
              }
            }
          }
        });
    return f.done(found);
  }

  private static void put(Map<String, String> own, Table.Row row, String name, String value) {
    String key =
        BRACKETS
            .matcher(name)
            .replaceAll("")
            .strip()
            .toLowerCase(Locale.ROOT)
            .replaceAll("[_\\s]+", " ");
    if (key.isEmpty() || value.isEmpty() || value.equals("-")) {
      return;
    }
    String before = own.putIfAbsent(key, value);
    if (before != null && !before.equals(value)) {
      row.error(
          ColumnMeaning.PARAMETER,
          "the " + key + " of " + row.text(ColumnMeaning.CODE) + " is " + before + " already");
    }
  }

  /// A bare number below a heading with a unit is in that unit.
  private static String withUnit(String heading, String value) {
    String unit = "";
    for (Matcher m = BRACKETS.matcher(heading); m.find(); ) {
      unit = m.group().substring(1, m.group().length() - 1);
    }
    return unit.isEmpty() || !value.matches("[-+]?+[\\d.,]++") ? value : value + " " + unit;
  }
}
