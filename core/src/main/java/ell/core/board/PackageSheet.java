package ell.core.board;

import ell.core.board.PackageShape.Family;
import ell.core.board.PackageShape.Mark;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// What is known of packages by name: a sheet that ships, and the maker's own lines before it.
///
/// A line's name is compared with capitals, blanks, strokes and points left out of account; `*`
/// stands for any further characters, `|` parts several names.
///
/// @param lines the first that fits is taken
public record PackageSheet(List<Line> lines) {
  /// One line.
  ///
  /// @param names as written
  /// @param lengthMm along x at rotation 0
  /// @param widthMm along y at rotation 0
  /// @param heightMm above the board
  /// @param massGrams typical, NaN when not said
  /// @param joints how many it has, 0 when that varies
  /// @param mark how its first pin or its polarity is told
  /// @param heat whether it dislikes long heat
  /// @param source where the sizes are from
  public record Line(
      String names,
      Family family,
      double lengthMm,
      double widthMm,
      double heightMm,
      double massGrams,
      int joints,
      Mark mark,
      boolean heat,
      String source) {
    /// Whether a package name fits this line.
    boolean fits(String plain) {
      for (String name : names.split("\\|")) {
        String n = plain(name);
        if (n.endsWith("*") ? plain.startsWith(n.substring(0, n.length() - 1)) : plain.equals(n)) {
          return true;
        }
      }
      return false;
    }
  }

  /// The heading of a package sheet as a file.
  public static final List<String> HEADING =
      List.of(
          "Package",
          "Family",
          "Length (mm)",
          "Width (mm)",
          "Height (mm)",
          "Mass (g)",
          "Joints",
          "Mark",
          "Heat",
          "Source");

  /// The sheet that ships.
  public static final PackageSheet SHIPPED = new PackageSheet(parse(ShippedPackages.LINES));

  public PackageSheet {
    lines = List.copyOf(lines);
  }

  /// The line for a package name.
  public Optional<Line> find(String packageName) {
    String plain = plain(packageName);
    return plain.isEmpty()
        ? Optional.empty()
        : lines.stream().filter(l -> l.fits(plain)).findFirst();
  }

  /// This sheet with other lines before it.
  public PackageSheet with(List<Line> own) {
    List<Line> all = new ArrayList<>(own);
    all.addAll(lines);
    return new PackageSheet(all);
  }

  private static String plain(String name) {
    return name.toUpperCase(Locale.ROOT).replaceAll("[^A-Z0-9*]", "");
  }

  /// Lines from cells without quotes, as the shipped sheet has them.
  private static List<Line> parse(String text) {
    return text.lines().filter(l -> !l.isBlank()).map(l -> of(l.split(","))).toList();
  }

  /// A line from its cells, in the order of [#HEADING].
  ///
  /// @throws IllegalArgumentException saying what is wrong
  public static Line of(String... cells) {
    if (cells.length < 5) {
      throw new IllegalArgumentException(
          "expected " + String.join(", ", HEADING) + ", found " + cells.length + " cells");
    }
    return new Line(
        cells[0].strip(),
        Family.ofKey(cells[1]),
        size(cells[2], "length"),
        size(cells[3], "width"),
        size(cells[4], "height"),
        cells.length < 6 || cells[5].isBlank() ? Double.NaN : size(cells[5], "mass"),
        cells.length < 7 || cells[6].isBlank() || cells[6].strip().equals("0")
            ? 0
            : (int) size(cells[6], "number of joints"),
        cells.length < 8 ? Mark.NONE : Mark.ofKey(cells[7]),
        cells.length >= 9 && cells[8].strip().matches("(?i)yes|y|1|x|sensitive"),
        cells.length < 10 ? "" : cells[9].strip());
  }

  private static double size(String cell, String what) {
    try {
      double d = Double.parseDouble(cell.strip());
      if (d > 0 && d < 1000) {
        return d;
      }
    } catch (NumberFormatException e) {
      // said below
    }
    throw new IllegalArgumentException(
        "expected a " + what + " above 0 and below 1000, found '" + cell.strip() + "'");
  }
}
