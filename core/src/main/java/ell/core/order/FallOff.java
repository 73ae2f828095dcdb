package ell.core.order;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.quantity.Check;
import java.util.Optional;

/// Whether a part that hangs on the underside stays there when its solder melts again: surface
/// tension holds up to 30 g for each square inch of pad. Common practice, no source.
///
/// @param massGrams of the part
/// @param padAreaMm2 of all its pads together
public record FallOff(double massGrams, double padAreaMm2) {
  /// 30 g per square inch, in g/mm².
  public static final double LIMIT = 30 / (25.4 * 25.4);

  public FallOff {
    Check.notNegative(massGrams, "massGrams");
    Check.positive(padAreaMm2, "padAreaMm2");
  }

  /// Mass over pad area, g/mm².
  public double ratio() {
    return massGrams / padAreaMm2;
  }

  /// Whether it stays.
  public boolean holds() {
    return ratio() <= LIMIT;
  }

  /// Of a part, when its mass and its pads are known.
  public static Optional<FallOff> of(Revision revision, Part part) {
    double mass =
        Double.isNaN(part.massGrams()) ? revision.shape(part).massGrams() : part.massGrams();
    double area = revision.jointsOf(part.reference()).stream().mapToDouble(FallOff::area).sum();
    return Double.isNaN(mass) || area <= 0
        ? Optional.empty()
        : Optional.of(new FallOff(mass, area));
  }

  private static double area(Joint j) {
    double h = j.heightMm() > 0 ? j.heightMm() : j.widthMm();
    return j.hole() ? 0 : j.widthMm() * h;
  }
}
