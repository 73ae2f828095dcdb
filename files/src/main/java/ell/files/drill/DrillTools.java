package ell.files.drill;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The tools of a drill file: how thick each is, and whether its holes are plated. Sizes stand
/// behind the tool, or where no line states one, in a comment.
final class DrillTools {
  static final Pattern TOOL = Pattern.compile("T0*(\\d+)((?:[A-Z][+-]?[\\d.]+)*)");
  private static final Pattern SIZE = Pattern.compile("C([\\d.]+)");

  /// `T01 0.8mm`, `TOOL 1 DIAMETER 0.031 INCH`, `HOLESIZE 1. = 31.5 ... MILS`.
  private static final Pattern REMARK =
      Pattern.compile(
          "^\\W*(?:T|TOOL|HOLE\\s?SIZE|DRILL|BIT)\\s*#?0*(\\d{1,6})\\b[^\\d]{0,24}?(\\d{0,9}\\.?\\d{1,9})(?!\\d)(.*)$");

  private static final Pattern UNIT = Pattern.compile("\\b(MM|MILS?|INCH(?:ES)?|IN|THOU)\\b|\"");

  private final Map<Integer, Double> sizes = new HashMap<>();
  private final Map<Integer, Double> remarked = new HashMap<>();
  private final Map<Integer, Boolean> plated = new HashMap<>();
  private final Set<Integer> told = new HashSet<>();

  /// Looks at a line for the size of a tool, in the file's unit.
  static Optional<Double> size(String u) {
    Matcher m = TOOL.matcher(u);
    Matcher c = m.matches() ? SIZE.matcher(m.group(2)) : null;
    try {
      return c != null && c.find() ? Optional.of(Double.parseDouble(c.group(1))) : Optional.empty();
    } catch (NumberFormatException e) {
      return Optional.empty();
    }
  }

  void define(int n, double diameterMm) {
    if (!(diameterMm > 0 && diameterMm < 100)) {
      throw new IllegalArgumentException("expected a diameter above 0 and below 100 mm");
    }
    sizes.put(n, diameterMm);
  }

  /// Takes the size of a tool out of a comment.
  ///
  /// @param mm millimetre in a unit of the file, NaN when not known
  void remark(String comment, double mm) {
    Matcher m = REMARK.matcher(comment);
    if (!m.matches()) {
      return;
    }
    Matcher u = UNIT.matcher(m.group(3));
    double unit = mm;
    if (u.find()) {
      unit =
          switch (u.group()) {
            case "MM" -> 1;
            case "MIL", "MILS", "THOU" -> 0.0254;
            default -> 25.4;
          };
    }
    double d = Double.parseDouble(m.group(2)) * unit;
    if (d > 0 && d < 100) {
      remarked.putIfAbsent(Integer.parseInt(m.group(1)), d);
    }
  }

  void plated(int n, boolean is) {
    plated.put(n, is);
  }

  Boolean plated(int n) {
    return plated.get(n);
  }

  boolean none() {
    return sizes.isEmpty() && remarked.isEmpty();
  }

  /// Diameter in millimetre; empty when none is known.
  Optional<Double> diameter(int n) {
    Double d = sizes.get(n);
    return Optional.ofNullable(d != null ? d : remarked.get(n));
  }

  /// Whether a tool without a size is met for the first time.
  boolean firstLack(int n) {
    return told.add(n);
  }

  /// Tools whose size stood in a comment only.
  List<Integer> fromRemarks() {
    List<Integer> all = new ArrayList<>(remarked.keySet());
    all.removeAll(sizes.keySet());
    return all;
  }
}
