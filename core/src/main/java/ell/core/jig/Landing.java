package ell.core.jig;

import ell.core.quantity.Check;

/// Where a probe comes down beside where it should: errors of the drilled plates, of the board, of
/// the tooling pins and of the probe itself, and the chance that it misses.
///
/// Each error is known as the most that it is, either way, and is taken as equally likely up to
/// there, in both directions on their own: its standard deviation is the limit over the square root
/// of three (JCGM 100:2008, 4.3.7). The chance to miss is that of their sum, without taking it for
/// normal.
public final class Landing {
  private Landing() {}

  /// The errors of a jig, each the most that it is either way, millimetre.
  ///
  /// @param drill of the holes in the plates against each other
  /// @param hole of the tooling holes of the board against its copper
  /// @param artwork of the copper against the drawing
  /// @param pin play of a tooling pin in its hole, radial
  /// @param guide play of the probe in the guide plate, radial
  public record Errors(double drill, double hole, double artwork, double pin, double guide) {
    public Errors {
      Check.notNegative(drill, "drill error");
      Check.notNegative(hole, "hole error");
      Check.notNegative(artwork, "artwork error");
      Check.notNegative(pin, "pin play");
      Check.notNegative(guide, "guide play");
    }

    /// The same with other play of the pins.
    Errors pinned(double play) {
      return new Errors(drill, hole, artwork, play, guide);
    }
  }

  /// The error at a place, millimetre: standard deviations and worst cases along and across the
  /// line of the tooling pins.
  ///
  /// @param angle of that line, rad
  /// @param rss root sum square of the limits, the greater of both directions
  public record Error(
      double along,
      double across,
      double worstAlong,
      double worstAcross,
      double angle,
      double rss) {
    /// The worst case, the greater of both directions.
    public double worst() {
      return Math.max(worstAlong, worstAcross);
    }
  }

  /// The two tooling pins: the round one holds the board, the slotted one keeps it from turning.
  public record Pins(double roundX, double roundY, double slotX, double slotY) {
    double length() {
      return Math.hypot(slotX - roundX, slotY - roundY);
    }
  }

  /// The error at a place.
  ///
  /// The round pin gives the board its play in both directions. The slotted one gives it play
  /// across the line of the pins only, so that at a share s of the way between them the play across
  /// is that of both, weighed with 1 − s and s; at a height h beside the line the board's turning
  /// moves it along the line by h times the difference of both over their distance.
  ///
  /// @param tilt of the probe, millimetre
  /// @throws IllegalArgumentException when both pins are at one place
  public static Error at(double x, double y, Pins pins, Errors e, double tilt) {
    double length = Check.positive(pins.length(), "distance of the tooling pins");
    double ux = (pins.slotX - pins.roundX) / length;
    double uy = (pins.slotY - pins.roundY) / length;
    double dx = x - pins.roundX;
    double dy = y - pins.roundY;
    double share = (dx * ux + dy * uy) / length;
    double beside = (-dx * uy + dy * ux) / length;
    double common =
        e.drill * e.drill
            + e.hole * e.hole
            + e.artwork * e.artwork
            + e.guide * e.guide
            + tilt * tilt;
    double straight = e.drill + e.hole + e.artwork + e.guide + tilt;
    double p2 = e.pin * e.pin;
    double along2 = common + p2 * (1 + 2 * beside * beside);
    double across2 = common + p2 * ((1 - share) * (1 - share) + share * share);
    return new Error(
        Math.sqrt(along2 / 3),
        Math.sqrt(across2 / 3),
        straight + e.pin * (1 + 2 * Math.abs(beside)),
        straight + e.pin * (Math.abs(1 - share) + Math.abs(share)),
        Math.atan2(uy, ux),
        Math.sqrt(Math.max(along2, across2)));
  }

  /// The chance that a probe misses copper of some size at a place.
  ///
  /// @param width along its own x, height along its own y, millimetre
  /// @param rotation of the copper, rad
  /// @param tilt of the probe, millimetre
  /// @throws IllegalArgumentException when the copper has no size, or both pins are at one place
  public static double miss(
      double x,
      double y,
      Pins pins,
      Errors e,
      double tilt,
      double width,
      double height,
      boolean round,
      double rotation) {
    Check.positive(width, "width of the target");
    Check.positive(height, "height of the target");
    double length = Check.positive(pins.length(), "distance of the tooling pins");
    double ux = (pins.slotX - pins.roundX) / length;
    double uy = (pins.slotY - pins.roundY) / length;
    double dx = x - pins.roundX;
    double dy = y - pins.roundY;
    double share = (dx * ux + dy * uy) / length;
    double beside = (-dx * uy + dy * ux) / length;
    double turn = (round ? 0 : rotation) - Math.atan2(uy, ux);
    double c = Math.cos(turn);
    double s = Math.sin(turn);
    double half = Math.min(width, height) / 2;
    double common = e.drill + e.hole + e.artwork + e.guide + tilt;
    double pin = e.pin * (2 + 2 * Math.abs(beside) + Math.abs(1 - share) + Math.abs(share));
    if ((round ? Math.sqrt(2) : 1) * (common + pin) <= half) {
      return 0; // not even the worst of all misses it
    }
    EvenSum u = sum(e, tilt, c, c * beside + s * (1 - share), -c * beside + s * share);
    EvenSum v = sum(e, tilt, -s, -s * beside + c * (1 - share), s * beside + c * share);
    return Math.clamp(
        1 - (round ? u.within(v, half) : u.within(width / 2) * v.within(height / 2)), 0, 1);
  }

  private static EvenSum sum(Errors e, double tilt, double pin, double other, double slot) {
    return new EvenSum(
        e.drill, e.hole, e.artwork, e.guide, tilt, pin * e.pin, other * e.pin, slot * e.pin);
  }
}
