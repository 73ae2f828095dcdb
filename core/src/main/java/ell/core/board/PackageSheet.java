package ell.core.board;

import ell.core.board.PackageShape.Family;
import ell.core.board.PackageShape.Mark;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// What is known of packages by name: a sheet that ships, and the maker's own lines before it.
///
/// A line's name is compared with capitals, blanks, strokes and points left out of account; `*`
/// stands for any further characters, `|` parts several names.
///
/// Immutable; names are brought to their plain form once.
public final class PackageSheet {
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
      String source) {}

  /// A line as the cells of a file, in the order of [#HEADING].
  public static List<String> cells(Line l) {
    return List.of(
        l.names(),
        l.family().name().toLowerCase(Locale.ROOT).replace('_', ' '),
        String.valueOf(l.lengthMm()),
        String.valueOf(l.widthMm()),
        String.valueOf(l.heightMm()),
        Double.isNaN(l.massGrams()) ? "" : String.valueOf(l.massGrams()),
        l.joints() == 0 ? "" : String.valueOf(l.joints()),
        l.mark().name().toLowerCase(Locale.ROOT),
        l.heat() ? "yes" : "",
        l.source());
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
  public static final PackageSheet SHIPPED = new PackageSheet(parse(ShippedPackages.LINES), 0);

  private static final int LETTERS = 3;

  private final List<Line> lines;
  private final int own;
  private final String[][] plainNames;
  private final Map<String, Optional<Line>> answered = new HashMap<>();

  /// A sheet whose first lines are the maker's own.
  private PackageSheet(List<Line> lines, int own) {
    this.lines = List.copyOf(lines);
    this.own = own;
    this.plainNames = new String[lines.size()][];
  }

  /// The lines, of which the first that fits is taken.
  public List<Line> lines() {
    return lines;
  }

  /// Whether a line is one of the maker's own.
  boolean own(Line line) {
    return own > 0 && lines.subList(0, own).contains(line);
  }

  /// Whether the maker has added lines.
  boolean extended() {
    return own > 0;
  }

  /// The line for a package name, which may have the name of a library before it and remarks of a
  /// drawing behind it: `Lib:SOT-23-5_HandSoldering`, `D_SMA`.
  public Optional<Line> find(String packageName) {
    String bare = packageName.substring(packageName.lastIndexOf(':') + 1);
    Optional<Line> found = exactly(bare);
    int from = 0;
    int cut = bare.indexOf('_');
    while (found.isEmpty() && cut >= 0) {
      found = exactly(bare.substring(from, cut));
      if (found.isEmpty() && from == 0 && cut <= LETTERS) {
        from = cut + 1; // a letter for the kind of part stands before the package
        found = exactly(bare.substring(from));
      }
      cut = bare.indexOf('_', cut + 1);
    }
    return found;
  }

  private Optional<Line> exactly(String packageName) {
    String plain = plain(packageName);
    if (plain.isEmpty()) {
      return Optional.empty();
    }
    synchronized (answered) {
      return answered.computeIfAbsent(plain, this::look);
    }
  }

  private Optional<Line> look(String plain) {
    for (int i = 0; i < lines.size(); i++) {
      for (String name : names(i)) {
        boolean fits =
            name.endsWith("*")
                ? plain.startsWith(name.substring(0, name.length() - 1))
                : plain.equals(name);
        if (fits) {
          return Optional.of(lines.get(i));
        }
      }
    }
    return Optional.empty();
  }

  private String[] names(int line) {
    if (plainNames[line] == null) {
      String[] names = lines.get(line).names().split("\\|");
      for (int k = 0; k < names.length; k++) {
        names[k] = plain(names[k]);
      }
      plainNames[line] = names;
    }
    return plainNames[line];
  }

  /// This sheet with other lines before it.
  public PackageSheet with(List<Line> more) {
    List<Line> all = new ArrayList<>(more);
    all.addAll(lines);
    return new PackageSheet(all, more.size() + own);
  }

  /// Capitals and digits, and the star; by hand, for it is asked often at the start.
  private static String plain(String name) {
    StringBuilder s = new StringBuilder(name.length());
    for (int i = 0; i < name.length(); i++) {
      char c = Character.toUpperCase(name.charAt(i));
      if (c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || c == '*') {
        s.append(c);
      }
    }
    return s.toString();
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
