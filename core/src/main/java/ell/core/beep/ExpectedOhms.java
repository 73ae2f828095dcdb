package ell.core.beep;

import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.quantity.Limits;
import java.util.List;

/// What a meter should show between any two places of a healthy board without power.
///
/// @param netA net of the one
/// @param netB net of the other
/// @param limits ohms between which a healthy board lies; the high end may be infinite
/// @param nominal ohms that resistors and wires make by their values, infinite where nothing but
///   chips and capacitors is between
/// @param beeps whether a beeper sounds on a healthy board, and goes on sounding
/// @param beepsFor seconds for which it sounds while capacitors charge
/// @param why sentences
public record ExpectedOhms(
    String netA,
    String netB,
    Limits limits,
    double nominal,
    boolean beeps,
    double beepsFor,
    List<String> why) {
  public ExpectedOhms {
    why = List.copyOf(why);
  }

  /// What it should show.
  ///
  /// @param a a net or a joint
  /// @param b another, or one of the same net
  /// @throws IllegalArgumentException when one of them is on no net of the board as it is fitted,
  ///   or both are the same place
  public static ExpectedOhms between(Revision revision, Ladder ladder, String a, String b) {
    return new BeepMaker(revision, ladder).expected(a, b);
  }
}
