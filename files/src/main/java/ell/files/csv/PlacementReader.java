package ell.files.csv;

import ell.core.board.Placement;
import ell.core.board.Side;
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

/// Reads a placement file: reference, x, y, and rotation, side and package when they are there.
/// Units from the heading or the cell; millimetre, with a warning, when neither states one.
public final class PlacementReader {
  private PlacementReader() {}

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<List<Placement>> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    List<Placement> found = new ArrayList<>();
    Map<String, Integer> seen = new HashMap<>();
    boolean[] unitless = {false};
    Table table =
        Table.read(
            source,
            f,
            Set.of(
                ColumnMeaning.REFERENCE,
                ColumnMeaning.X,
                ColumnMeaning.Y,
                ColumnMeaning.ROTATION,
                ColumnMeaning.SIDE,
                ColumnMeaning.PACKAGE,
                ColumnMeaning.VALUE),
            Set.of(ColumnMeaning.REFERENCE, ColumnMeaning.X, ColumnMeaning.Y),
            (t, row) -> {
              String reference = row.text(ColumnMeaning.REFERENCE);
              if (reference.isEmpty()) {
                f.pass(row.line(), "no reference: " + row.all());
                return;
              }
              Double x = length(t, row, ColumnMeaning.X, unitless);
              Double y = length(t, row, ColumnMeaning.Y, unitless);
              double rotation = rotation(row);
              Side side = side(row);
              if (x == null || y == null) {
                return;
              }
              Integer before = seen.putIfAbsent(reference, row.line());
              if (before != null) {
                row.error(
                    ColumnMeaning.REFERENCE,
                    "reference "
                        + reference
                        + " is already on line "
                        + before
                        + "; expected each reference once");
                return;
              }
              found.add(
                  new Placement(
                      row.line(),
                      reference,
                      x,
                      y,
                      rotation,
                      side,
                      row.text(ColumnMeaning.PACKAGE)));
            });
    if (!f.failed()) {
      if (found.isEmpty()) {
        f.error(0, 0, "no placements found; expected at least one line with reference, x and y");
      }
      if (unitless[0]) {
        f.warn(0, 0, "no unit is stated for x and y: millimetre was taken");
      }
      if (!table.has(ColumnMeaning.SIDE)) {
        f.warn(0, 0, "no side is stated: the first side was taken for every part");
      }
    }
    return f.done(List.copyOf(found));
  }

  private static Double length(Table t, Table.Row row, ColumnMeaning m, boolean[] unitless) {
    String text = row.text(m);
    try {
      if (text.matches(".*[A-Za-zµμ]+$") && !text.matches(".*[eE]")) {
        return EngineeringNumber.parse(text, Unit.METRE) * 1000;
      }
      double number = EngineeringNumber.parse(text, Unit.ONE);
      Double scale =
          switch (t.unit(m)) {
            case "mm", "millimeter", "millimetre", "millimeters" -> 1.0;
            case "mil", "mils", "thou" -> 0.0254;
            case "in", "inch", "inches" -> 25.4;
            case "um", "µm" -> 0.001;
            case "cm" -> 10.0;
            case "m" -> 1000.0;
            case "" -> null;
            default -> Double.NaN;
          };
      if (scale == null) {
        unitless[0] = true;
        return number;
      }
      if (scale.isNaN()) {
        row.error(m, "unknown unit '" + t.unit(m) + "' in the heading, expected mm, mil, in or um");
        return null;
      }
      return number * scale;
    } catch (NumberFormatException e) {
      row.error(m, e.getMessage());
      return null;
    }
  }

  private static double rotation(Table.Row row) {
    String text = row.text(ColumnMeaning.ROTATION).replaceAll("(?i)\\s*(°|deg|degrees)$", "");
    if (text.isEmpty()) {
      return 0;
    }
    try {
      double deg = EngineeringNumber.parse(text, Unit.ONE) % 360;
      return deg < 0 ? deg + 360 : deg;
    } catch (NumberFormatException e) {
      row.error(ColumnMeaning.ROTATION, e.getMessage());
      return 0;
    }
  }

  private static Side side(Table.Row row) {
    String text = row.text(ColumnMeaning.SIDE).toLowerCase(Locale.ROOT);
    return switch (text) {
      case "",
          "top",
          "t",
          "f",
          "front",
          "1",
          "first",
          "toplayer",
          "top layer",
          "f.cu",
          "component",
          "primary",
          "no",
          "n" ->
          Side.FIRST;
      case "bottom",
          "b",
          "bot",
          "back",
          "2",
          "second",
          "bottomlayer",
          "bottom layer",
          "b.cu",
          "solder",
          "secondary",
          "yes",
          "y" ->
          Side.SECOND;
      default -> {
        row.error(
            ColumnMeaning.SIDE,
            "expected a side such as top or bottom, T or B, 1 or 2, found '" + text + "'");
        yield Side.FIRST;
      }
    };
  }
}
