package ell.files.csv;

import ell.core.board.PackageSheet;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/// Reads a package sheet: package, family, length, width and height, and mass, joints, mark, heat
/// and source when they are there, in the order and with the headings of the sheet that ships.
public final class PackagesReader {
  private PackagesReader() {}

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<List<PackageSheet.Line>> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    List<PackageSheet.Line> lines = new ArrayList<>();
    Table.read(
        source,
        f,
        Set.of(
            ColumnMeaning.PACKAGE,
            ColumnMeaning.FAMILY,
            ColumnMeaning.LENGTH,
            ColumnMeaning.WIDTH,
            ColumnMeaning.HEIGHT),
        Set.of(
            ColumnMeaning.PACKAGE,
            ColumnMeaning.FAMILY,
            ColumnMeaning.LENGTH,
            ColumnMeaning.WIDTH,
            ColumnMeaning.HEIGHT),
        (table, row) -> {
          String[] cells = new String[PackageSheet.HEADING.size()];
          for (int i = 0; i < cells.length; i++) {
            String key = ColumnMeaning.key(PackageSheet.HEADING.get(i));
            int at = -1;
            for (int c = 0; c < table.headingRow().size(); c++) {
              at = ColumnMeaning.key(table.headingRow().get(c)).equals(key) ? c : at;
            }
            cells[i] = at < 0 ? "" : row.cell(at);
          }
          if (cells[0].isBlank()) {
            f.pass(row.line(), "no package: " + row.all());
            return;
          }
          try {
            lines.add(PackageSheet.of(cells));
          } catch (IllegalArgumentException e) {
            f.error(row.line(), 0, e.getMessage());
          }
        });
    return f.done(List.copyOf(lines));
  }
}
