package ell.core.heat;

import ell.core.quantity.Check;
import ell.core.quantity.Verdict;

/// Whether a wire or lead goes through a hole and fills it. Source: IPC-2222, lead + 0.15...0.25
/// mm, not more than about 0.7 mm over, from memory. Stranded and tinned wire is about 1.15 times
/// as thick: common practice, no source.
///
/// @param lead as thick as it really is, metre
/// @param clearance hole − lead, metre
public record HoleFit(double lead, double clearance) {
  /// Least clearance, metre.
  public static final double TIGHT = 0.15e-3;

  /// Clearance of an easy fit, metre.
  public static final double EASY = 0.25e-3;

  /// Above this the joint is hard to fill, metre.
  public static final double LOOSE = 0.70e-3;

  private static final double STRANDED = 1.15;
  private static final double HAIR = 1e-9;

  /// Works it out.
  ///
  /// @param hole finished, metre
  /// @throws IllegalArgumentException when lead or hole is not above 0
  public static HoleFit of(double lead, double hole, boolean stranded) {
    double thick = Check.positive(lead, "lead") * (stranded ? STRANDED : 1);
    return new HoleFit(thick, Check.positive(hole, "hole") - thick);
  }

  /// In words, with the way out.
  public String words() {
    return clearance <= 0
        ? "the wire does not go through; lay it flat on a tinned pad"
        : clearance < TIGHT - HAIR
            ? "tighter than the tightest fit"
            : clearance <= EASY + HAIR
                ? "a good fit"
                : clearance <= LOOSE + HAIR ? "easy, takes more solder" : "too loose to fill well";
  }

  /// Out when it does not go through or is too loose, close when it is tighter than tight.
  public Verdict verdict() {
    return clearance <= 0 || clearance > LOOSE + HAIR
        ? Verdict.OUT
        : clearance < TIGHT - HAIR ? Verdict.CLOSE : Verdict.WITHIN;
  }
}
