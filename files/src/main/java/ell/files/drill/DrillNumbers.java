package ell.files.drill;

import ell.files.Findings;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// How the numbers of a drill file are written: unit, digits, which zeros are left out. What no
/// line states is decided once for the whole file from all its numbers, and told.
final class DrillNumbers {
  private static final Pattern FORMAT = Pattern.compile("(\\d)[:.](\\d)");
  private static final Pattern ZEROS = Pattern.compile("(0+)\\.(0+)");
  private static final Pattern PLACE = Pattern.compile("[XY]([+-]?[\\d.]+)");

  /// Drills below are measured in inches when no unit is stated: 0.25 mm is the finest common
  /// drill, 0.25 inch is thicker than most. Common practice, no source.
  private static final double INCH_BELOW = 0.2;

  /// What most boards are between, in millimetre; common practice, no source.
  private static final double LEAST_MM = 5;

  private static final double MOST_MM = 500;

  private double mm = Double.NaN;
  private int whole = -1;
  private int places = -1;
  private Boolean leadingKept;
  private boolean points;
  private int longest;

  /// Takes a statement such as `METRIC,LZ,000.000`, `INCH`, `M71`.
  void units(String u) {
    mm = u.startsWith("M") && !u.equals("M72") ? 1 : 25.4;
    if (u.contains("LZ")) {
      leadingKept = true;
    }
    if (u.contains("TZ")) {
      leadingKept = false;
    }
    Matcher m = ZEROS.matcher(u);
    if (m.find()) {
      format(m.group(1).length(), m.group(2).length());
    }
  }

  /// Takes a format out of a comment such as `FILE_FORMAT=4:4`.
  void format(String comment) {
    Matcher m = FORMAT.matcher(comment);
    if (m.find()) {
      format(Integer.parseInt(m.group(1)), Integer.parseInt(m.group(2)));
    }
  }

  private void format(int before, int behind) {
    whole = before;
    places = behind;
  }

  boolean unit() {
    return !Double.isNaN(mm);
  }

  /// Millimetre in a unit of the file.
  double mm() {
    return mm;
  }

  /// Decides what no line states.
  ///
  /// @param lines all of the file, in capitals, comments left out
  /// @param sizes of its tools, in its unit
  void decide(List<String> lines, List<Double> sizes, Findings f) {
    List<String> bare = new ArrayList<>();
    for (String l : lines) {
      Matcher m = PLACE.matcher(l);
      while (m.find()) {
        String n = m.group(1).replaceFirst("^[+-]", "");
        points |= n.indexOf('.') >= 0;
        longest = Math.max(longest, n.length());
        if (n.length() <= 15 && n.chars().allMatch(Character::isDigit)) {
          bare.add(n);
        }
      }
    }
    if (!unit() && !sizes.isEmpty()) {
      double largest = sizes.stream().mapToDouble(d -> d).max().orElseThrow();
      mm = largest < INCH_BELOW ? 25.4 : 1;
      f.guess(
          "the unit",
          (mm == 1 ? "millimetre" : "inch") + ", as its largest tool is " + largest + ",",
          "");
    }
    if (leadingKept == null && !points && longest > 3 && unit()) {
      leadingKept = leadingKept(bare);
      if (bare.stream().anyMatch(this::shortened)) {
        f.guess(
            "which zeros of its numbers are left out",
            (leadingKept ? "those at the end" : "those in front")
                + ", %d digits before and %d behind the point".formatted(before(), behind()),
            "");
      }
    }
  }

  private boolean shortened(String n) {
    return n.length() < before() + behind() && !n.matches("0*");
  }

  /// Numbers that are shorter than the format show it: one that begins with a zero kept those in
  /// front, one that ends with a zero kept those at the end. Where they show nothing, the reading
  /// that gives a board of common size.
  private boolean leadingKept(List<String> bare) {
    long front = bare.stream().filter(this::shortened).filter(n -> n.startsWith("0")).count();
    long end = bare.stream().filter(this::shortened).filter(n -> n.endsWith("0")).count();
    if (front != end) {
      return front > end;
    }
    double widest = bare.stream().mapToDouble(n -> value(n, false)).max().orElse(0) * mm;
    double padded = bare.stream().mapToDouble(n -> value(n, true)).max().orElse(0) * mm;
    return !common(widest) && common(padded);
  }

  private static boolean common(double mm) {
    return mm >= LEAST_MM && mm <= MOST_MM;
  }

  /// By custom, where nothing is said: inch 2.4, metric 3.3.
  private int before() {
    return whole >= 0 ? whole : mm == 1 ? 3 : 2;
  }

  private int behind() {
    return places >= 0 ? places : mm == 1 ? 3 : 4;
  }

  /// A coordinate in millimetre.
  ///
  /// @throws IllegalArgumentException when no unit is known
  double millimetre(String digits) {
    if (!unit()) {
      throw new NotStated();
    }
    // where one number has its point, all are plain; so are numbers too short for any format
    if (digits.indexOf('.') >= 0 || points || leadingKept == null && longest <= 3 && whole < 0) {
      return Double.parseDouble(digits) * mm;
    }
    boolean minus = digits.startsWith("-");
    String d = digits.replaceFirst("^[+-]", "");
    return (minus ? -1 : 1) * value(d, leadingKept != null && leadingKept) * mm;
  }

  /// @param pad whether zeros at the end were left out
  private double value(String digits, boolean pad) {
    if (digits.length() > 15) {
      throw new NumberFormatException(digits);
    }
    long n = Long.parseLong(digits);
    for (int i = digits.length(); pad && i < before() + behind(); i++) {
      n *= 10;
    }
    return n / Math.pow(10, behind());
  }

  /// No unit or number format, and nothing to tell it by: no number of the file can be read.
  static final class NotStated extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    NotStated() {
      this("no unit is stated; expected METRIC or INCH");
    }

    NotStated(String message) {
      super(message);
    }
  }
}
