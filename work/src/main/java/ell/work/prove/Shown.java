package ell.work.prove;

import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.Optional;

/// What a step of a test plan showed.
///
/// @param place where it was measured, empty when it was not
/// @param value in `unit`, if it is a number
/// @param uncertainty expanded, if known
/// @param verdict empty when there was nothing to hold it against, or it was left out
/// @param words what was seen or heard, or why it was left out
/// @param left whether it was left out
record Shown(
    String place,
    Optional<Double> value,
    Unit unit,
    Optional<Limits> limits,
    Optional<Double> uncertainty,
    Optional<Verdict> verdict,
    String words,
    boolean left) {
  /// Something was done, or seen, that is no number.
  static Shown seen(String place, Verdict verdict, String words) {
    return new Shown(
        place,
        Optional.empty(),
        Unit.ONE,
        Optional.empty(),
        Optional.empty(),
        Optional.of(verdict),
        words,
        false);
  }

  /// It was left out.
  static Shown leftOut(String why) {
    return new Shown(
        "",
        Optional.empty(),
        Unit.ONE,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        why,
        true);
  }

  /// A number, judged where there are limits.
  ///
  /// @param guard that is kept beside the uncertainty
  /// @param how limits are had, where there are none
  static Shown number(
      String place,
      double value,
      Unit unit,
      Optional<Limits> limits,
      double uncertainty,
      double guard,
      String how) {
    Optional<Verdict> v = limits.map(l -> judged(l, value, uncertainty + guard));
    return new Shown(
        place,
        Optional.of(value),
        unit,
        limits,
        uncertainty > 0 ? Optional.of(uncertainty) : Optional.empty(),
        v,
        v.isPresent() ? "" : "not judged: " + how,
        false);
  }

  private static Verdict judged(Limits l, double value, double band) {
    if (Double.isInfinite(value)) {
      return Double.isInfinite(l.high()) ? Verdict.WITHIN : Verdict.OUT;
    }
    return l.judge(value, band);
  }
}
