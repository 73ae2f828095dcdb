package ell.core.artwork;

import java.util.List;
import java.util.Optional;

/// The holes of a board. Millimetre.
public record Drilling(List<Hole> holes) {
  /// A hole, or a slot when its ends are apart.
  ///
  /// @param plated when the file says so
  public record Hole(
      double x, double y, double toX, double toY, double diameter, Optional<Boolean> plated) {
    /// Whether it is longer than wide.
    public boolean slot() {
      return x != toX || y != toY;
    }
  }

  public Drilling {
    holes = List.copyOf(holes);
  }
}
