package ell.core.power;

import java.util.Arrays;
import java.util.Random;
import java.util.function.ToDoubleFunction;

/// Where a value lies when its parts lie anywhere in their tolerances: at the very most, by
/// intervals, and in all but a few of a hundred boards, by trying many from a seed.
///
/// @param nominal with every part as stated
/// @param low at the least
/// @param high at the most
/// @param likelyLow below which one board of forty lies
/// @param likelyHigh above which one board of forty lies
public record RailBand(
    double nominal, double low, double high, double likelyLow, double likelyHigh) {
  private static final int TRIES = 20_000;
  private static final double TAIL = 0.025;
  private static final long SEED = 20_021;

  /// A part's value and its tolerance.
  ///
  /// @param tolerance share of the value, 0 or more
  public record Part(double value, double tolerance) {
    double end(double way) {
      return value * (1 + way * tolerance);
    }
  }

  /// Works a band. The value must rise or fall with each part alone, as that of a divider does.
  ///
  /// @param of the value at some values of the parts, in their order
  public static RailBand of(ToDoubleFunction<double[]> of, Part... parts) {
    double[] x = Arrays.stream(parts).mapToDouble(Part::value).toArray();
    double nominal = of.applyAsDouble(x);
    double[] lowest = new double[parts.length];
    double[] highest = new double[parts.length];
    for (int i = 0; i < parts.length; i++) {
      double[] up = x.clone();
      up[i] = parts[i].end(1);
      double[] down = x.clone();
      down[i] = parts[i].end(-1);
      boolean rises = of.applyAsDouble(up) >= of.applyAsDouble(down);
      lowest[i] = parts[i].end(rises ? -1 : 1);
      highest[i] = parts[i].end(rises ? 1 : -1);
    }
    Random random = new Random(SEED);
    double[] tried = new double[TRIES];
    double[] at = new double[parts.length];
    for (int n = 0; n < TRIES; n++) {
      for (int i = 0; i < parts.length; i++) {
        at[i] = parts[i].end(2 * random.nextDouble() - 1);
      }
      tried[n] = of.applyAsDouble(at);
    }
    Arrays.sort(tried);
    return new RailBand(
        nominal,
        of.applyAsDouble(lowest),
        of.applyAsDouble(highest),
        tried[(int) (TAIL * TRIES)],
        tried[(int) ((1 - TAIL) * TRIES)]);
  }
}
