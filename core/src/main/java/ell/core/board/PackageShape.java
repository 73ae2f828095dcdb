package ell.core.board;

import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The body of a part seen from above, and how tall it stands. Millimetre.
///
/// @param family a word for the family: chip, two-terminal, chip with leads, connector, tall,
///   module
/// @param lengthMm along x at rotation 0
/// @param widthMm along y at rotation 0
/// @param heightMm above the board
/// @param chipCode the imperial size code such as `0603`, empty when the part is no chip
/// @param known false when the size was only guessed from the joints
public record PackageShape(
    Family family,
    double lengthMm,
    double widthMm,
    double heightMm,
    String chipCode,
    boolean known) {

  /// Families that are handled alike.
  public enum Family {
    /// Small block with two ends.
    CHIP,
    /// Moulded part with few leads.
    SMALL_OUTLINE,
    /// Leads on two sides.
    DUAL,
    /// Leads or lands on four sides.
    QUAD,
    /// Balls under the body.
    BALLS,
    /// Standing can, crystal can, coil.
    TALL,
    /// Connector, header, terminal, holder, switch.
    CONNECTOR,
    /// A board on the board.
    MODULE,
    /// Nothing is known.
    UNKNOWN
  }

  private record Known(Pattern name, Family family, double l, double w, double h) {
    Known(String name, Family family, double l, double w, double h) {
      this(Pattern.compile(name), family, l, w, h);
    }
  }

  private static final Pattern CHIP =
      Pattern.compile(
          "(?:^|[^0-9.])(01005|0201|0402|0603|0805|1008|1206|1210|1806|1812|2010|2512)(?:[^0-9.]|$)");

  /// A size that the name itself states: length, width and height as in `19X18X9MM`.
  private static final Pattern STATED =
      Pattern.compile(
          "(\\d{1,3}(?:\\.\\d+)?)X(\\d{1,3}(?:\\.\\d+)?)(?:X(\\d{1,3}(?:\\.\\d+)?))?MM");

  /// A standing can with its diameter in millimetre, as in `RADIAL-6.3`; heights are typical.
  private static final Pattern CAN =
      Pattern.compile("^(?:RAD(?:IAL)?|CAN|ELCO)[-_ ]?D?(\\d{1,2}(?:\\.\\d+)?)(?:MM)?$");

  /// Nominal body sizes; chip sizes from the EIA size codes, the others from JEDEC outlines, all
  /// from memory and rounded.
  private static final List<Known> TABLE =
      List.of(
          new Known("SOT-?23-?[3568]?|SOT-?323|SC-?70|TSOT.*", Family.SMALL_OUTLINE, 2.9, 1.6, 1.2),
          new Known("SOT-?223.*", Family.SMALL_OUTLINE, 6.5, 3.5, 1.7),
          new Known("SOT-?89.*", Family.SMALL_OUTLINE, 4.5, 2.5, 1.5),
          new Known("SOD-?(123|323|523).*", Family.SMALL_OUTLINE, 2.7, 1.6, 1.1),
          new Known("(DO-?214)?.*\\bSM[ABC]\\b.*", Family.SMALL_OUTLINE, 4.3, 2.6, 2.3),
          new Known("MSOP-?\\d+.*|VSSOP.*", Family.DUAL, 3.0, 3.0, 1.1),
          new Known("TSSOP-?(8|10|14|16).*", Family.DUAL, 4.4, 5.0, 1.2),
          new Known("T?SSOP-?(20|24|28).*", Family.DUAL, 4.4, 7.8, 1.2),
          new Known("(SOIC|SO|SOP)-?8.*", Family.DUAL, 3.9, 4.9, 1.75),
          new Known("(SOIC|SO|SOP)-?(14|16).*", Family.DUAL, 3.9, 9.9, 1.75),
          new Known("(SOIC|SO|SOP)-?\\d+.*", Family.DUAL, 7.5, 12.8, 2.65),
          new Known("[LTV]?QFP-?32.*", Family.QUAD, 7, 7, 1.6),
          new Known("[LTV]?QFP-?(44|48).*", Family.QUAD, 7, 7, 1.6),
          new Known("[LTV]?QFP-?64.*", Family.QUAD, 10, 10, 1.6),
          new Known("[LTV]?QFP-?\\d+.*", Family.QUAD, 14, 14, 1.6),
          new Known("[VUW]?[QD]FN-?(6|8|10|12|16).*", Family.QUAD, 3, 3, 0.9),
          new Known("[VUW]?[QD]FN-?\\d+.*", Family.QUAD, 5, 5, 0.9),
          new Known(".*BGA.*|.*CSP.*", Family.BALLS, 8, 8, 1.2));

  /// The shape of a part: from its package name, else from the room that its joints take.
  ///
  /// @param joints the joints of this part
  public static PackageShape of(Part part, List<Joint> joints) {
    String name = part.packageName().toUpperCase(Locale.ROOT).strip();
    PartKind kind = part.kind();
    Matcher chip = CHIP.matcher(name);
    boolean twoEnded = joints.size() <= 2;
    if (chip.find() && twoEnded) {
      return chip(chip.group(1), kind);
    }
    Matcher can = CAN.matcher(name);
    if (can.find()) {
      double d = Double.parseDouble(can.group(1));
      return new PackageShape(Family.TALL, d, d, Math.max(5, 1.8 * d), "", true);
    }
    Matcher stated = STATED.matcher(name);
    if (stated.find()) {
      return new PackageShape(
          kind == PartKind.MODULE ? Family.MODULE : Family.UNKNOWN,
          Double.parseDouble(stated.group(1)),
          Double.parseDouble(stated.group(2)),
          stated.group(3) == null ? height(kind, false) : Double.parseDouble(stated.group(3)),
          "",
          true);
    }
    for (Known k : TABLE) {
      if (k.name().matcher(name).matches()) {
        return new PackageShape(k.family(), k.l(), k.w(), k.h(), "", true);
      }
    }
    return fromJoints(part, joints, kind);
  }

  private static PackageShape chip(String code, PartKind kind) {
    double[] size =
        switch (code) {
          case "01005" -> new double[] {0.4, 0.2, 0.15};
          case "0201" -> new double[] {0.6, 0.3, 0.3};
          case "0402" -> new double[] {1.0, 0.5, 0.4};
          case "0603" -> new double[] {1.6, 0.8, 0.5};
          case "0805" -> new double[] {2.0, 1.25, 0.6};
          case "1008" -> new double[] {2.5, 2.0, 1.0};
          case "1206" -> new double[] {3.2, 1.6, 0.6};
          case "1210" -> new double[] {3.2, 2.5, 0.6};
          case "1806" -> new double[] {4.5, 1.6, 1.0};
          case "1812" -> new double[] {4.5, 3.2, 1.2};
          case "2010" -> new double[] {5.0, 2.5, 0.6};
          default -> new double[] {6.3, 3.2, 0.6};
        };
    // ceramic capacitors, beads and lamps stand taller than resistors of the same size
    double height = kind == PartKind.RESISTOR ? size[2] : Math.max(size[2], 0.5 * size[0]);
    return new PackageShape(Family.CHIP, size[0], size[1], height, code, true);
  }

  private static PackageShape fromJoints(Part part, List<Joint> joints, PartKind kind) {
    double[] box = box(joints);
    double l = Math.max(box[2] - box[0], 1);
    double w = Math.max(box[3] - box[1], 1);
    if (part.place().isPresent() && quarterTurned(part.place().get().rotationDeg())) {
      double swap = l;
      l = w;
      w = swap;
    }
    boolean through = joints.stream().anyMatch(Joint::hole);
    Family family =
        switch (kind) {
          case CONNECTOR, SWITCH, CELL -> Family.CONNECTOR;
          case MODULE -> Family.MODULE;
          case CRYSTAL, INDUCTOR, FUSE -> Family.TALL;
          case CAPACITOR -> through ? Family.TALL : Family.CHIP;
          default -> Family.UNKNOWN;
        };
    return new PackageShape(family, l, w, height(kind, through), "", false);
  }

  /// Typical heights by kind where no outline is known; no source.
  private static double height(PartKind kind, boolean through) {
    return switch (kind) {
      case CONNECTOR -> through ? 8.5 : 3.2;
      case MODULE -> 11;
      case CELL -> 5;
      case SWITCH -> 4;
      case CAPACITOR -> through ? 11 : 2;
      case CRYSTAL -> through ? 3.5 : 1.2;
      case INDUCTOR -> 3;
      case CHIP -> through ? 4 : 1.5;
      default -> through ? 3 : 1;
    };
  }

  private static boolean quarterTurned(double deg) {
    double turn = Math.abs(deg % 180);
    return turn > 45 && turn < 135;
  }

  private static double[] box(List<Joint> joints) {
    double[] b = {0, 0, 0, 0};
    boolean first = true;
    for (Joint j : joints) {
      double hw = Math.max(j.widthMm(), j.drillMm()) / 2;
      double hh = Math.max(j.heightMm(), j.drillMm()) / 2;
      b[0] = first ? j.xMm() - hw : Math.min(b[0], j.xMm() - hw);
      b[1] = first ? j.yMm() - hh : Math.min(b[1], j.yMm() - hh);
      b[2] = first ? j.xMm() + hw : Math.max(b[2], j.xMm() + hw);
      b[3] = first ? j.yMm() + hh : Math.max(b[3], j.yMm() + hh);
      first = false;
    }
    return b;
  }

  /// The room that a body takes on the board: `{x0, y0, x1, y1}` in millimetre, upright box.
  public double[] boxAt(Part.Spot spot) {
    double a = Math.toRadians(spot.rotationDeg());
    double c = Math.abs(Math.cos(a));
    double s = Math.abs(Math.sin(a));
    double hx = (lengthMm * c + widthMm * s) / 2;
    double hy = (lengthMm * s + widthMm * c) / 2;
    return new double[] {spot.xMm() - hx, spot.yMm() - hy, spot.xMm() + hx, spot.yMm() + hy};
  }
}
