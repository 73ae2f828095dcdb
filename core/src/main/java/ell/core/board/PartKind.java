package ell.core.board;

import java.util.Locale;

/// Kinds of part, told by the letters of the reference (IEEE 315 class letters, with the variants
/// that are common practice) and by telling words in value, code or description.
public enum PartKind {
  /// Resistor.
  RESISTOR,
  /// Capacitor.
  CAPACITOR,
  /// Inductor.
  INDUCTOR,
  /// Ferrite bead.
  FERRITE,
  /// Diode.
  DIODE,
  /// Indicator lamp.
  LED,
  /// Transistor.
  TRANSISTOR,
  /// Integrated circuit.
  CHIP,
  /// Crystal or resonator.
  CRYSTAL,
  /// Connector, header, terminal.
  CONNECTOR,
  /// Switch or button.
  SWITCH,
  /// Fuse.
  FUSE,
  /// Cell or holder.
  CELL,
  /// A board of its own that is plugged or soldered on.
  MODULE,
  /// Bare copper to touch with a tip.
  TEST_POINT,
  /// Bare copper or a hole that is no part: fiducial, mounting hole.
  MARK,
  /// Two pads that solder joins or not.
  LINK,
  /// Anything else.
  OTHER;

  private static final String LAMP = ".*\\bLED([A-Z]{0,3}[-_ ]?\\d.*|[-_ ].*|\\b.*)";

  /// A diode whose value is a colour gives light of it.
  private static final String COLOUR =
      "(?i)(ultra |bright |super )?(red|green|blue|white|warm white|yellow|amber|orange|rgb|uv|ir)";

  /// Whether the words of a bill speak of a socket, whatever sits in it.
  ///
  /// @param words value, package, code and description
  public static boolean socket(String... words) {
    return String.join(" ", words)
        .toUpperCase(Locale.ROOT)
        .matches(".*(SOCKET|SOCK\\b|\\bSKT|FEMALE).*");
  }

  /// The letters before the digits of a reference, upper case.
  public static String letters(String reference) {
    int i = 0;
    while (i < reference.length() && Character.isLetter(reference.charAt(i))) {
      i++;
    }
    return reference.substring(0, i).toUpperCase(Locale.ROOT);
  }

  /// The kind of a part.
  public static PartKind of(Part part) {
    PartKind kind = of(part.reference());
    String words =
        (part.value() + " " + part.code() + " " + part.description() + " " + part.packageName())
            .toUpperCase(Locale.ROOT);
    if (kind == DIODE && (words.matches(LAMP) || part.value().strip().matches(COLOUR))) {
      return LED;
    }
    if (kind == INDUCTOR && words.matches(".*(BEAD|FERRITE).*")) {
      return FERRITE;
    }
    return kind;
  }

  /// The kind that a bare reference suggests.
  public static PartKind of(String reference) {
    return switch (letters(reference)) {
      case "R", "RN", "RA", "RV", "VR", "POT", "RT" -> RESISTOR;
      case "C", "CP" -> CAPACITOR;
      case "L" -> INDUCTOR;
      case "FB", "FL", "BEAD" -> FERRITE;
      case "D", "CR", "Z", "ZD", "TVS" -> DIODE;
      case "LED", "DS" -> LED;
      case "Q", "T", "VT" -> TRANSISTOR;
      case "U", "IC", "REG", "PS" -> CHIP;
      case "Y", "X", "XTAL", "OSC" -> CRYSTAL;
      case "J", "P", "CN", "CON", "JP", "H", "HDR", "USB" -> CONNECTOR;
      case "S", "SW", "BTN", "PB" -> SWITCH;
      case "F" -> FUSE;
      case "BT", "BAT", "B" -> CELL;
      case "M", "MOD", "A" -> MODULE;
      case "SJ", "SB", "LK", "LINK", "BR" -> LINK;
      case "TP" -> TEST_POINT;
      case "FID", "MH", "MK", "HOLE" -> MARK;
      default -> OTHER;
    };
  }

  /// Whether a part of this kind is copper or a hole only, so that no bill lists it.
  public boolean bare() {
    return this == TEST_POINT || this == MARK || this == LINK;
  }
}
