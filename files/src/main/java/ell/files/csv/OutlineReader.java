package ell.files.csv;

import ell.core.board.Outline;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Reads the edge of a board from CSV: x and y of each corner in order, and a column `loop` when
/// there are cut-outs (the first loop is the outside).
public final class OutlineReader {
  private OutlineReader() {}

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<Outline> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    Map<String, List<Outline.Point>> loops = new LinkedHashMap<>();
    Table table =
        Table.read(
            source,
            f,
            Set.of(ColumnMeaning.X, ColumnMeaning.Y, ColumnMeaning.LOOP),
            Set.of(ColumnMeaning.X, ColumnMeaning.Y),
            (t, row) -> {
              Double x = mm(t, row, ColumnMeaning.X);
              Double y = mm(t, row, ColumnMeaning.Y);
              if (x != null && y != null) {
                loops
                    .computeIfAbsent(row.text(ColumnMeaning.LOOP), _ -> new ArrayList<>())
                    .add(new Outline.Point(x, y));
              }
            });
    table.account();
    loops.forEach((name, points) -> {
      if (points.size() < 3) {
        f.error(0, 0, "loop '" + name + "' has " + points.size() + " corners, expected at least 3");
      }
    });
    if (!f.failed() && loops.isEmpty()) {
      f.error(0, 0, "no corners found; expected x and y of each corner in order");
    }
    if (f.failed()) {
      return f.flawed();
    }
    Outline outline = new Outline(List.copyOf(loops.values()));
    if (table.unit(ColumnMeaning.X).isEmpty()) {
      f.guess("the unit of x and y", "millimetre", "");
    }
    return f.done(outline);
  }

  private static Double mm(Table t, Table.Row row, ColumnMeaning m) {
    String text = row.text(m);
    try {
      boolean own = text.matches(".*[A-Za-zµμ]+$") && !text.matches(".*[eE]");
      double scale =
          switch (t.unit(m)) {
            case "mil", "mils" -> 0.0254;
            case "in", "inch" -> 25.4;
            default -> 1.0;
          };
      return own
          ? EngineeringNumber.parse(text, Unit.METRE) * 1000
          : EngineeringNumber.parse(text, Unit.ONE) * scale;
    } catch (NumberFormatException e) {
      row.error(m, e.getMessage());
      return null;
    }
  }
}
