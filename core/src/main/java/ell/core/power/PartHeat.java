package ell.core.power;

import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.circuit.Warmth;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// How a part gets rid of its heat: from what is said of it, else from how large it is.
final class PartHeat {
  /// At which the watts of a resistor are rated, and at which none are left. Source: IEC 60115-8,
  /// from memory.
  private static final double RATED_AT = 70;

  private static final double NOTHING_AT = 155;

  /// Thermal resistance of a body on a board times the root of its area, K/W mm. It goes through
  /// SOT-23 250, SO-8 110, a quad of 7 mm 70 and TO-220 73 K/W; typical, no source.
  private static final double SPREADS = 490;

  /// Of mould, silicon and alumina, J/(mm³ K); handbook values 1.7 to 3, from memory.
  private static final double HOLDS = 2e-3;

  /// A rated current warms a coil or a bead by so much; common practice, no source.
  private static final double RATED_RISE = 40;

  private static final double LEAST_MM = 0.3;

  private static final Pattern WATTS =
      Pattern.compile(
          "(?<![\\w.])(?:(\\d)/(\\d{1,2})|(\\d{1,3}(?:[.,]\\d{1,3})?))\\s?(M?)W(?!\\w)");

  private PartHeat() {}

  /// A part as a body that gets warm.
  ///
  /// @param theta thermal resistance that is said, K/W; 0 when none is
  /// @param ohms through which its rated current goes, 0 when it does not matter
  static Warmth.Body body(Revision revision, Part p, double theta, double ohms) {
    PackageShape s = revision.shape(p);
    double area = Math.max(s.lengthMm(), LEAST_MM) * Math.max(s.widthMm(), LEAST_MM);
    double holds = HOLDS * area * Math.max(s.heightMm(), LEAST_MM);
    double k = theta > 0 ? theta : SPREADS / Math.sqrt(area);
    OptionalDouble amps = RatedAmps.of(p);
    if (theta == 0 && p.kind() == PartKind.RESISTOR) {
      k = (NOTHING_AT - RATED_AT) / watts(p, s);
    } else if (theta == 0 && ohms > 0 && amps.isPresent()) {
      k = RATED_RISE / (amps.getAsDouble() * amps.getAsDouble() * ohms);
    }
    return new Warmth.Body(p.reference(), k, k * holds);
  }

  /// Watts that a resistor is rated for: what the bill says, else by its size. Source of the sizes:
  /// common to the data sheets of thick film chips, from memory.
  static double watts(Part p, PackageShape s) {
    Matcher m = WATTS.matcher((p.value() + " " + p.description()).toUpperCase(Locale.ROOT));
    if (m.find()) {
      double w =
          m.group(1) != null
              ? Double.parseDouble(m.group(1)) / Math.max(1, Double.parseDouble(m.group(2)))
              : Double.parseDouble(m.group(3).replace(',', '.'))
                  * (m.group(4).isEmpty() ? 1 : 1e-3);
      if (w > 0) {
        return w;
      }
    }
    return switch (s.chipCode()) {
      case "0201" -> 0.05;
      case "0402" -> 0.063;
      case "0603" -> 0.1;
      case "0805" -> 0.125;
      case "1206", "" -> 0.25;
      case "1210" -> 0.5;
      case "2010" -> 0.75;
      case "2512" -> 1;
      default -> 0.1;
    };
  }
}
