package ell.core.print;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.List;

/// How many boards one stencil sheet serves: fields upright or turned by a quarter, in one or two
/// blocks side by side or one above the other. Metre.
///
/// @param fields where each board's field lies
/// @param cuts lines along which the sheet is cut, `{x0, y0, x1, y1}`
/// @param left area of the sheet that no field takes
public record SheetFit(
    double sheetWidth, double sheetHeight, List<Field> fields, List<double[]> cuts, double left) {
  /// A board's field.
  ///
  /// @param turned whether the board lies turned by a quarter
  public record Field(double x, double y, double width, double height, boolean turned) {}

  public SheetFit {
    fields = List.copyOf(fields);
    cuts = List.copyOf(cuts);
  }

  /// Lays out as many fields as go on.
  ///
  /// @param boardWidth of what is cut for one board
  /// @param margin to every edge of the sheet, for hand and frame
  /// @param gap between fields, where it is cut
  /// @throws IllegalArgumentException when sheet width is not above 0, sheet height is not above 0,
  ///   board width is not above 0, board height is not above 0, margin is below 0 or gap is below 0
  public static SheetFit of(
      double sheetWidth,
      double sheetHeight,
      double boardWidth,
      double boardHeight,
      double margin,
      double gap) {
    Check.positive(sheetWidth, "sheet width");
    Check.positive(sheetHeight, "sheet height");
    Check.positive(boardWidth, "board width");
    Check.positive(boardHeight, "board height");
    Check.notNegative(margin, "margin");
    Check.notNegative(gap, "gap");
    double w = sheetWidth - 2 * margin;
    double h = sheetHeight - 2 * margin;
    List<Field> best = List.of();
    if (w > 0 && h > 0) {
      if (w * h / (boardWidth * boardHeight) > 100_000) {
        throw new IllegalArgumentException(
            "more than 100000 boards would go on a sheet; check the units");
      }
      for (boolean turned : new boolean[] {false, true}) {
        double bw = turned ? boardHeight : boardWidth;
        double bh = turned ? boardWidth : boardHeight;
        // the first block takes c columns (or r rows), the second, turned the other way, the rest
        for (int c = 0; c <= count(w, bw, gap); c++) {
          double used = c == 0 ? 0 : c * (bw + gap);
          List<Field> all =
              new ArrayList<>(block(0, 0, c * bw + (c - 1) * gap, h, bw, bh, gap, turned));
          all.addAll(block(used, 0, w - used, h, bh, bw, gap, !turned));
          best = all.size() > best.size() ? all : best;
        }
        for (int r = 0; r <= count(h, bh, gap); r++) {
          double used = r == 0 ? 0 : r * (bh + gap);
          List<Field> all =
              new ArrayList<>(block(0, 0, w, r * bh + (r - 1) * gap, bw, bh, gap, turned));
          all.addAll(block(0, used, w, h - used, bh, bw, gap, !turned));
          best = all.size() > best.size() ? all : best;
        }
      }
    }
    List<Field> placed =
        best.stream()
            .map(f -> new Field(f.x() + margin, f.y() + margin, f.width(), f.height(), f.turned()))
            .toList();
    return new SheetFit(
        sheetWidth,
        sheetHeight,
        placed,
        cuts(placed, gap),
        sheetWidth * sheetHeight - placed.size() * boardWidth * boardHeight);
  }

  private static int count(double room, double one, double gap) {
    return room < one - 1e-12 ? 0 : (int) Math.floor((room + gap) / (one + gap) + 1e-9);
  }

  private static List<Field> block(
      double x, double y, double w, double h, double bw, double bh, double gap, boolean turned) {
    List<Field> out = new ArrayList<>();
    int nx = count(w, bw, gap);
    int ny = count(h, bh, gap);
    for (int i = 0; i < nx; i++) {
      for (int k = 0; k < ny; k++) {
        out.add(new Field(x + i * (bw + gap), y + k * (bh + gap), bw, bh, turned));
      }
    }
    return out;
  }

  /// Around each field, half a gap away; shared lines once.
  private static List<double[]> cuts(List<Field> fields, double gap) {
    List<double[]> out = new ArrayList<>();
    java.util.Set<String> seen = new java.util.HashSet<>();
    double g = gap / 2;
    for (Field f : fields) {
      double x0 = f.x() - g;
      double x1 = f.x() + f.width() + g;
      double y0 = f.y() - g;
      double y1 = f.y() + f.height() + g;
      for (double[] l :
          new double[][] {{x0, y0, x1, y0}, {x0, y1, x1, y1}, {x0, y0, x0, y1}, {x1, y0, x1, y1}}) {
        StringBuilder key = new StringBuilder();
        for (double v : l) {
          key.append(Math.round(v * 1e7)).append(' ');
        }
        if (seen.add(key.toString())) {
          out.add(l);
        }
      }
    }
    return out;
  }

  /// Boards on one sheet.
  public int boards() {
    return fields.size();
  }
}
