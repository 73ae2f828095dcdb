package ell.core.power;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;

/// What a part bears of one thing.
///
/// @param part its reference
/// @param what it bears so much of
/// @param most in the unit of that
/// @param why where it is from: the words of the bill, the ladder, or `typical`
public record Rating(String part, What what, double most, String why) {
  /// What a part can have too much of.
  public enum What {
    /// Volts between its ends, or of a chip between its rail and its return.
    VOLTS(Unit.VOLT, "has", "over it"),
    /// Volts the wrong way round.
    REVERSE(Unit.VOLT, "has", "over it the wrong way round"),
    /// Amperes.
    AMPS(Unit.AMPERE, "carries", ""),
    /// Its own temperature.
    WARMTH(Unit.CELSIUS, "is at", "");

    private final Unit unit;
    private final String has;
    private final String how;

    What(Unit unit, String has, String how) {
      this.unit = unit;
      this.has = has;
      this.how = how;
    }

    /// The unit of the numbers.
    public Unit unit() {
      return unit;
    }
  }

  /// A rating that was passed.
  ///
  /// @param value what the part had, in the rating's unit
  public record Passed(Rating rating, double value) {
    /// A sentence: `C4 has 9.2 V over it and bears 6.3 V (its bill)`.
    public String words() {
      What w = rating.what;
      return rating.part
          + " "
          + w.has
          + " "
          + EngineeringNumber.print(value, w.unit, 3)
          + (w.how.isEmpty() ? "" : " " + w.how)
          + " and bears "
          + EngineeringNumber.print(rating.most, w.unit, 3)
          + " ("
          + rating.why
          + ")";
    }
  }
}
