package ell.files.csv;

import java.util.List;
import java.util.stream.Collectors;

/// The cells of one row, and the line of the file at which it begins.
record Cells(int line, List<String> fields) {
  private static final int SHOWN = 60;

  boolean blank() {
    return fields.stream().allMatch(String::isBlank);
  }

  /// Whether the row is a remark of the writer: `#`, `//`, or `;` where that parts no cells.
  boolean comment(TableForm form) {
    String first = fields.isEmpty() ? "" : fields.getFirst().stripLeading();
    return first.startsWith("#")
        || first.startsWith("//")
        || first.startsWith(";") && !form.parts(';')
        || form.wide() && first.matches("[-=_*]{3,}+");
  }

  /// All that is in it, shortened.
  String all() {
    String s = fields.stream().filter(f -> !f.isBlank()).collect(Collectors.joining(" "));
    return s.length() > SHOWN ? s.substring(0, SHOWN) + "..." : s;
  }
}
