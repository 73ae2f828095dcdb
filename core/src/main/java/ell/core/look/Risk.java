package ell.core.look;

import ell.core.board.Joint;
import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.PasteLook;
import ell.core.heat.Alloy;
import ell.core.heat.JointDemand;
import ell.core.order.Method;
import java.util.Map;
import java.util.Set;

/// The chance of a defect at a joint: from pitch and package, the method, what the print looked
/// like, the heat that it wants, and what this bench has seen of this part so far.
///
/// The first guesses are typical, no source. What was seen is mixed in as if the guess had been
/// seen on [#GUESS_WEIGHT] joints: `(guess·weight + defects) / (weight + joints)`.
public final class Risk {
  /// Joints that a first guess weighs.
  public static final double GUESS_WEIGHT = 400;

  private final Revision revision;
  private final Pitch pitch;
  private final Method method;
  private final Alloy alloy;
  private final Map<String, PasteLook> paste;
  private final Set<String> planes;
  private final Map<String, int[]> seen;

  /// The risk on one board.
  ///
  /// @param paste how it lies, by place; places that are good are left out
  /// @param planes nets that are planes
  /// @param seen by part: defects and joints looked at, on all boards of the build
  public Risk(
      Revision revision,
      Pitch pitch,
      Method method,
      Alloy alloy,
      Map<String, PasteLook> paste,
      Set<String> planes,
      Map<String, int[]> seen) {
    this.revision = revision;
    this.pitch = pitch;
    this.method = method;
    this.alloy = alloy;
    this.paste = Map.copyOf(paste);
    this.planes = Set.copyOf(planes);
    this.seen = Map.copyOf(seen);
  }

  /// Whether a part is looked at before the others: fine pitch, or defects on this bench.
  boolean comesFirst(Part p) {
    int[] s = seen.get(p.reference());
    return pitch.of(p.reference()) <= 0.805 || s != null && s[0] > 0;
  }

  /// The chance at a joint, 0...0.5.
  public double of(Part p, Joint j) {
    double guess = guess(p, j);
    int[] s = seen.getOrDefault(p.reference(), new int[2]);
    double rate = (guess * GUESS_WEIGHT + s[0]) / (GUESS_WEIGHT + s[1]);
    PasteLook look = paste.get(j.place());
    if (look != null) {
      rate *= look == PasteLook.THIN ? 8 : 25;
    }
    return Math.min(rate, 0.5);
  }

  private double guess(Part p, Joint j) {
    PackageShape shape = revision.shape(p);
    double d = pitch.of(p.reference());
    double base = d <= 0.505 ? 1500e-6 : d <= 0.805 ? 700e-6 : d <= 1.305 ? 250e-6 : 120e-6;
    if (shape.family() == PackageShape.Family.CHIP) {
      base =
          switch (shape.chipCode()) {
            case "01005", "0201" -> 1500e-6;
            case "0402" -> 500e-6;
            default -> 150e-6;
          };
    }
    if (j.hole()) {
      base = 250e-6;
    }
    base *=
        switch (method) {
          case STENCIL_PLATE -> 1;
          case HOT_AIR -> 1.6;
          case IRON -> 2;
        };
    boolean byIron = method == Method.IRON || j.hole();
    if (byIron) {
      JointDemand want =
          JointDemand.of(
              JointDemand.body(revision, j, planes),
              alloy,
              JointDemand.Tip.BEVEL,
              JointDemand.dial(alloy, 0),
              25);
      base *=
          switch (want.need()) {
            case LIGHT -> 1;
            case NORMAL -> 1.5;
            case HEAVY -> 3;
            case PREHEAT -> 6;
          };
    }
    return base;
  }
}
