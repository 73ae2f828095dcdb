package ell.core.board;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The body of a part seen from above, and how tall it stands. Millimetre.
///
/// @param family packages that are handled alike
/// @param lengthMm along x at rotation 0
/// @param widthMm along y at rotation 0
/// @param heightMm above the board
/// @param chipCode the imperial size code such as `0603`, empty when the part is no chip
/// @param known false when the size was only guessed from the joints
/// @param massGrams typical mass, NaN when none is known
/// @param mark how its first pin or its polarity is told
/// @param heat whether it dislikes long heat
/// @param source where the size is from
public record PackageShape(
    Family family,
    double lengthMm,
    double widthMm,
    double heightMm,
    String chipCode,
    boolean known,
    double massGrams,
    Mark mark,
    boolean heat,
    String source) {

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
    UNKNOWN;

    /// The family that a word of a package sheet means.
    ///
    /// @throws IllegalArgumentException when it means none
    public static Family ofKey(String word) {
      String w = word.strip().toUpperCase(Locale.ROOT).replace(' ', '_');
      for (Family f : values()) {
        if (f.name().equals(w)) {
          return f;
        }
      }
      throw new IllegalArgumentException(
          "expected a family: chip, small outline, dual, quad, balls, tall, connector or module, found '"
              + word.strip()
              + "'");
    }
  }

  /// How a body tells its first pin or its polarity.
  public enum Mark {
    /// It does not: it goes either way, or in one way only.
    NONE,
    /// A dot at pin 1.
    DOT,
    /// A bar at the cathode.
    BAR,
    /// A stripe at the minus lead.
    STRIPE,
    /// A notch at the end of pin 1.
    NOTCH,
    /// A flat side.
    FLAT;

    /// The mark that a word of a package sheet means.
    ///
    /// @throws IllegalArgumentException when it means none
    public static Mark ofKey(String word) {
      String w = word.strip().toUpperCase(Locale.ROOT);
      if (w.isEmpty()) {
        return NONE;
      }
      for (Mark m : values()) {
        if (m.name().equals(w)) {
          return m;
        }
      }
      throw new IllegalArgumentException(
          "expected a mark: none, dot, bar, stripe, notch or flat, found '" + word.strip() + "'");
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
      Pattern.compile(
          "^(?:CP?_)?(?:RAD(?:IAL)?|CAN|ELCO)[-_ ]?D?(\\d{1,2}(?:\\.\\d+)?)(?:MM)?(?:_.*+)?$");

  /// A body that lies although its kind stands.
  private static final Pattern LYING = Pattern.compile("HORIZ|LYING|LAYDOWN|TABDOWN|TABUP");

  /// Length and width in tenths of a millimetre, as in `XTAL-5032` or `IND-6060`.
  private static final Pattern TENTHS =
      Pattern.compile(
          "^(?:XTAL|CRYSTAL|OSC|TCXO|IND|L|LED|SMD|TACT)[-_ ]?(\\d{2})(\\d{2})(?:[^0-9].*)?$");

  /// The shape of a part by the sheet that ships.
  ///
  /// @param joints the joints of this part
  public static PackageShape of(Part part, List<Joint> joints) {
    return of(part, joints, PackageSheet.SHIPPED);
  }

  /// The shape of a part: from its package name, else from the room that its joints take.
  ///
  /// @param joints the joints of this part
  public static PackageShape of(Part part, List<Joint> joints, PackageSheet sheet) {
    String named = part.packageName().toUpperCase(Locale.ROOT).strip();
    String name = named.substring(named.lastIndexOf(':') + 1);
    PartKind kind = part.kind();
    if (sheet.extended()) {
      Optional<PackageSheet.Line> own = sheet.find(name).filter(sheet::own);
      if (own.isPresent()) {
        return of(own.get(), kind);
      }
    }
    Matcher chip = CHIP.matcher(name);
    boolean twoEnded = joints.size() <= 2;
    if (chip.find() && twoEnded) {
      return chip(chip.group(1), kind);
    }
    Matcher can = CAN.matcher(name);
    if (can.find()) {
      double d = Double.parseDouble(can.group(1));
      double h = Math.max(5, 1.8 * d);
      // a can is about twice as heavy as water; typical
      double mass = Math.PI / 4 * d * d * h * 1.8e-3;
      return new PackageShape(
          Family.TALL, d, d, h, "", true, mass, Mark.STRIPE, true, "diameter in the name");
    }
    Matcher stated = STATED.matcher(name);
    Optional<PackageSheet.Line> line = sheet.find(name);
    // a name that states no height is better known to the sheet
    if (stated.find() && (stated.group(3) != null || line.isEmpty())) {
      return new PackageShape(
          kind == PartKind.MODULE ? Family.MODULE : Family.UNKNOWN,
          Double.parseDouble(stated.group(1)),
          Double.parseDouble(stated.group(2)),
          stated.group(3) == null ? height(kind, false) : Double.parseDouble(stated.group(3)),
          "",
          true,
          Double.NaN,
          mark(kind),
          kind == PartKind.CONNECTOR || kind == PartKind.MODULE,
          "size in the name");
    }
    if (line.isPresent()) {
      return LYING.matcher(name).find() ? of(line.get(), kind).lying() : of(line.get(), kind);
    }
    Matcher tenths = TENTHS.matcher(name);
    if (tenths.find()) {
      return new PackageShape(
          Family.TALL,
          Integer.parseInt(tenths.group(1)) / 10.0,
          Integer.parseInt(tenths.group(2)) / 10.0,
          height(kind, false),
          "",
          true,
          Double.NaN,
          mark(kind),
          kind == PartKind.LED,
          "size in the name");
    }
    return fromJoints(part, joints, kind);
  }

  /// The same body laid down: it takes the room that it stood tall.
  private PackageShape lying() {
    return heightMm <= Math.min(lengthMm, widthMm)
        ? this
        : new PackageShape(
            family, lengthMm, heightMm, widthMm, chipCode, known, massGrams, mark, heat, source);
  }

  private static PackageShape of(PackageSheet.Line l, PartKind kind) {
    return new PackageShape(
        l.family(),
        l.lengthMm(),
        l.widthMm(),
        l.heightMm(),
        "",
        true,
        l.massGrams(),
        l.mark() == Mark.NONE ? mark(kind) : l.mark(),
        l.heat() || kind == PartKind.LED,
        l.source());
  }

  /// The mark that is common for a kind of part where its package says none.
  private static Mark mark(PartKind kind) {
    return switch (kind) {
      case CHIP, MODULE, TRANSISTOR -> Mark.DOT;
      case DIODE, LED -> Mark.BAR;
      default -> Mark.NONE;
    };
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
    // alumina of a resistor 3.9 g/cm³, a ceramic capacitor 5.5 g/cm³, about; typical
    double mass = size[0] * size[1] * height * (kind == PartKind.RESISTOR ? 3.9e-3 : 5.5e-3);
    return new PackageShape(
        Family.CHIP,
        size[0],
        size[1],
        height,
        code,
        true,
        mass,
        mark(kind),
        kind == PartKind.LED,
        "EIA size code, from memory");
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
    boolean plastic =
        kind == PartKind.CONNECTOR || kind == PartKind.SWITCH || kind == PartKind.CELL;
    double[] row = row(part.packageName().toUpperCase(Locale.ROOT));
    return new PackageShape(
        family,
        l,
        w,
        row[0] > 0
            ? row[0]
            : flat(part, kind) ? DISC_MM : tall(part) > 0 ? tall(part) : height(kind, through),
        "",
        false,
        row[1] > 0 && !joints.isEmpty() ? row[1] * joints.size() : Double.NaN,
        kind == PartKind.CAPACITOR && through && !flat(part, kind) ? Mark.STRIPE : mark(kind),
        plastic || kind == PartKind.LED,
        "guessed from the joints");
  }

  /// How tall a disc or film capacitor stands; typical, no source.
  private static final double DISC_MM = 6;

  private static final Pattern FLAT =
      Pattern.compile(".*(DISC|DISK|CERAMIC|CERM|MLCC|FILM|FOIL|MKT|MKP|X7R|X5R|C0G|NP0).*");

  private static final Pattern CANNED =
      Pattern.compile(".*(ELEC|ELKO|TANT|POLAR|ALU|RADIAL|CP_|CAN\\b).*");

  /// A value in picofarad or nanofarad: no electrolytic is that small. Common practice, no source.
  private static final Pattern SMALL =
      Pattern.compile(
          "^\\s*(\\d+[.,]?\\d*\\s*[PN]F?(\\d|\\b|[^A-Z]).*|0?[.,]\\d+\\s*[UµΜ]F?\\b.*)");

  /// Whether a leaded capacitor is a disc or a film, which may be turned, and no can.
  private static boolean flat(Part part, PartKind kind) {
    if (kind != PartKind.CAPACITOR) {
      return false;
    }
    String words = (part.packageName() + " " + part.description()).toUpperCase(Locale.ROOT);
    String value = part.value().toUpperCase(Locale.ROOT);
    return FLAT.matcher(words + " " + value).matches()
        || !CANNED.matcher(words).matches() && SMALL.matcher(value).matches();
  }

  /// Height of parts that words tell, 0 of others; typical, no source.
  private static double tall(Part part) {
    String words =
        (part.packageName() + " " + part.value() + " " + part.description())
            .toUpperCase(Locale.ROOT);
    if (words.matches(".*RELAY.*")) {
      return 15;
    }
    return words.matches(".*(BUZZ|SPEAKER|SOUNDER).*") ? 9 : 0;
  }

  /// Height in millimetre and mass of a pin in gram of parts that come in rows of any length, by
  /// the beginning of their name; typical, no source. Zeros for all others.
  private static double[] row(String name) {
    if (name.matches("(TERM|SCREW).*")) {
      return new double[] {10, 1.3};
    }
    if (name.matches("(HDR|HEADER|PIN(HD|HEADER)?|SOCKET|SOCK).*")) {
      return new double[] {8.5, 0.15};
    }
    return new double[] {0, 0};
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

  /// Whether the body is round, as a standing can is.
  public boolean round() {
    return family == Family.TALL && mark == Mark.STRIPE && lengthMm == widthMm;
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
