package ell.core.beep;

import ell.core.board.Joint;
import ell.core.entry.Entry;
import ell.core.quantity.Accuracy;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;

/// One check with two tips on an unpowered board.
///
/// @param number 1-based
/// @param kind whether the two should be joined
/// @param a where the tip stays as long as possible
/// @param b where the other tip goes
/// @param netA net of `a`
/// @param netB net of `b`
/// @param expected ohms of a healthy board; the high end may be infinite
/// @param guards true when power waits for this check
/// @param why one sentence
/// @param beepsFor seconds for which a healthy board beeps while it charges, 0 for not at all
public record BeepCheck(
    int number,
    Kind kind,
    Joint a,
    Joint b,
    String netA,
    String netB,
    Limits expected,
    boolean guards,
    String why,
    double beepsFor) {
  /// What a check asks.
  public enum Kind {
    /// The two are joined.
    CONTINUITY("continuity"),
    /// The two are not joined.
    ISOLATION("isolation");

    private final String key;

    Kind(String key) {
      this.key = key;
    }

    /// The kind as a key in files.
    public String key() {
      return key;
    }
  }

  /// The key under which the book remembers the check: kind and the two places.
  public String key() {
    return key(kind.key(), a.place(), b.place());
  }

  /// The key of a check.
  public static String key(String kind, String placeA, String placeB) {
    return kind + " " + placeA + " " + placeB;
  }

  /// The entry that says what a meter showed, judged by what a healthy board shows.
  ///
  /// @param ohms 0 or more, infinite for an open loop
  public Entry.Check read(double ohms) {
    Verdict verdict;
    if (Double.isInfinite(ohms)) {
      verdict = Double.isInfinite(expected.high()) ? Verdict.WITHIN : Verdict.OUT;
    } else {
      // nothing lies below 0 ohm: that end needs no guard band
      Limits judged = expected.low() > 0 ? expected : Limits.atMost(expected.high());
      verdict = judged.judge(ohms, Accuracy.handheldOhms(ohms).uncertainty(ohms));
    }
    return new Entry.Check(kind.key(), a.place(), b.place(), netA, netB, ohms, expected, verdict);
  }
}
