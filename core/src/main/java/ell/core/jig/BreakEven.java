package ell.core.jig;

import ell.core.quantity.Check;
import java.util.Arrays;
import java.util.Random;

/// After how many boards a jig has paid for itself.
///
/// @param fixed cost of making it
/// @param saved by each board
/// @param boards after which it has paid, infinite when it never does
/// @param low a tenth of what may be needs fewer boards
/// @param high a tenth needs more
/// @param pays chance that it pays within the boards that are to come
/// @param coming boards that are to come
public record BreakEven(
    double fixed,
    double saved,
    double boards,
    double low,
    double high,
    double pays,
    double coming) {
  private static final int DRAWS = 20_000;

  /// What is counted. Money in the maker's own, times in minutes.
  ///
  /// @param parts price of what is bought
  /// @param hours to make it, at `rate`
  /// @param before minutes a board without it, at `rate`
  /// @param after minutes a board with it, at `helper`
  /// @param escapes share of boards whose fault it finds that would be missed without it
  /// @param escape price of a fault that is missed
  /// @param coming boards that are to come
  public record Costs(
      double parts,
      double hours,
      double rate,
      double helper,
      double before,
      double after,
      double escapes,
      double escape,
      double coming) {
    public Costs {
      Check.notNegative(parts, "parts");
      Check.notNegative(hours, "hours");
      Check.notNegative(rate, "hour rate");
      Check.notNegative(helper, "helper's rate");
      Check.notNegative(before, "minutes before");
      Check.notNegative(after, "minutes after");
      Check.inRange(escapes, 0, 1, "escapes");
      Check.notNegative(escape, "price of an escape");
      Check.notNegative(coming, "boards to come");
    }

    double fixed() {
      return parts + hours * rate;
    }

    double saved() {
      return (before * rate - after * helper) / 60 + escapes * escape;
    }

    /// Cost of testing some boards without a jig.
    public double without(double boards) {
      return boards * (before * rate / 60 + escapes * escape);
    }

    /// Cost of making a jig and testing some boards in it.
    public double with(double boards) {
      return fixed() + boards * after * helper / 60;
    }
  }

  /// The least whole count of boards n with n · saved ≥ fixed.
  ///
  /// @return infinite when nothing is saved
  /// @throws IllegalArgumentException when the fixed cost is below 0
  public static double boards(double fixed, double saved) {
    Check.notNegative(fixed, "fixed cost");
    Check.finite(saved, "saved by a board");
    return fixed == 0 ? 0 : saved <= 0 ? Double.POSITIVE_INFINITY : Math.ceil(fixed / saved - 1e-9);
  }

  /// Works it out, with the spread of what was only estimated: parts, hours, minutes and escapes
  /// are each drawn evenly from so much below to so much above what was said.
  ///
  /// @param spread 0...0.9
  /// @param seed of the draws
  /// @throws IllegalArgumentException when the spread is out of its range
  public static BreakEven of(Costs c, double spread, long seed) {
    Check.inRange(spread, 0, 0.9, "spread");
    Random r = new Random(seed);
    double[] all = new double[DRAWS];
    int pays = 0;
    for (int i = 0; i < DRAWS; i++) {
      Costs d =
          new Costs(
              drawn(c.parts, spread, r),
              drawn(c.hours, spread, r),
              c.rate,
              c.helper,
              drawn(c.before, spread, r),
              drawn(c.after, spread, r),
              Math.min(1, drawn(c.escapes, spread, r)),
              c.escape,
              c.coming);
      all[i] = boards(d.fixed(), d.saved());
      pays += all[i] <= c.coming ? 1 : 0;
    }
    Arrays.sort(all);
    return new BreakEven(
        c.fixed(),
        c.saved(),
        boards(c.fixed(), c.saved()),
        all[DRAWS / 10],
        all[DRAWS - DRAWS / 10],
        (double) pays / DRAWS,
        c.coming);
  }

  private static double drawn(double v, double spread, Random r) {
    return v * (1 + spread * (2 * r.nextDouble() - 1));
  }

  /// In a sentence.
  public String words() {
    if (Double.isInfinite(boards)) {
      return "a board costs no less in the jig: it never pays";
    }
    return String.format(
        java.util.Locale.ROOT,
        "pays after %.0f boards (%s to %s), and %.0f are to come: %s",
        boards,
        count(low),
        count(high),
        coming,
        pays > 0.9
            ? "build it"
            : pays > 0.5
                ? "it likely pays"
                : pays > 0.1 ? "it likely does not pay" : "do not build it for its minutes");
  }

  private static String count(double n) {
    return Double.isInfinite(n) ? "never" : String.format(java.util.Locale.ROOT, "%.0f", n);
  }
}
