package ell.core.print;

import ell.core.artwork.Island;
import ell.core.board.Joint;
import java.util.Optional;

/// One opening of a stencil and the joint that it pastes.
///
/// @param island its outline, millimetre
/// @param part reference, empty when it belongs to none that is known
/// @param pin empty when it belongs to none that is known
/// @param joint of the netlist, when the netlist has it
/// @param told true when the layer itself says what it pastes, false when its place does
public record Opening(Island island, String part, String pin, Optional<Joint> joint, boolean told) {
  /// Its measures, in metre.
  public Aperture aperture() {
    var t = island.template();
    return new Aperture(
        t.area() * 1e-6, t.perimeter() * 1e-3, t.narrowest() * 1e-3, t.longest() * 1e-3);
  }

  /// `part.pin`, the part alone, or where it lies.
  public String name() {
    if (!part.isEmpty()) {
      return pin.isEmpty() ? part : part + "." + pin;
    }
    double[] at = island.middle();
    return String.format(java.util.Locale.ROOT, "at %.2f, %.2f mm", at[0], at[1]);
  }
}
