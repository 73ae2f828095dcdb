package ell.core.power;

import ell.core.board.Part;

/// Which capacitors have a plus end.
public final class Polarised {
  private Polarised() {}

  /// Whether a part is a capacitor with a plus end, which is its first by common practice.
  public static boolean of(Part p) {
    return PartModel.polarised(p);
  }
}
