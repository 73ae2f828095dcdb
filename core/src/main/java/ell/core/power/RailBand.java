package ell.core.power;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.ToDoubleFunction;
import java.util.function.UnaryOperator;

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

  /// A part's value, and between which it lies.
  public record Part(double value, double low, double high) {
    /// A part with a tolerance to both sides.
    ///
    /// @param tolerance share of the value, 0 or more
    public Part(double value, double tolerance) {
      this(value, value * (1 - tolerance), value * (1 + tolerance));
    }

    /// @param way -1 for the least, 1 for the greatest
    double end(double way) {
      return way < 0 ? value + way * (value - low) : value + way * (high - value);
    }
  }

  /// Works a band. The value must rise or fall with each part alone, as that of a divider does.
  ///
  /// @param of the value at some values of the parts, in their order
  public static RailBand of(ToDoubleFunction<double[]> of, Part... parts) {
    return all(x -> new double[] {of.applyAsDouble(x)}, List.of(parts), TRIES).getFirst();
  }

  /// Works the bands of several values of the same parts.
  ///
  /// @param of the values at some values of the parts, always as many
  static List<RailBand> all(UnaryOperator<double[]> of, List<Part> parts, int tries) {
    double[] x = parts.stream().mapToDouble(Part::value).toArray();
    double[] nominal = of.apply(x);
    int n = nominal.length;
    double[][] lowest = new double[n][parts.size()];
    double[][] highest = new double[n][parts.size()];
    for (int i = 0; i < parts.size(); i++) {
      double[] moved = x.clone();
      moved[i] = parts.get(i).end(1);
      double[] up = of.apply(moved);
      moved[i] = parts.get(i).end(-1);
      double[] down = of.apply(moved);
      for (int k = 0; k < n; k++) {
        boolean rises = up[k] >= down[k];
        lowest[k][i] = parts.get(i).end(rises ? -1 : 1);
        highest[k][i] = parts.get(i).end(rises ? 1 : -1);
      }
    }
    double[][] tried = new double[n][tries];
    Random random = new Random(SEED);
    double[] at = new double[parts.size()];
    for (int t = 0; t < tries; t++) {
      for (int i = 0; i < at.length; i++) {
        at[i] = parts.get(i).end(2 * random.nextDouble() - 1);
      }
      double[] y = of.apply(at);
      for (int k = 0; k < n; k++) {
        tried[k][t] = y[k];
      }
    }
    List<RailBand> bands = new ArrayList<>();
    for (int k = 0; k < n; k++) {
      Arrays.sort(tried[k]);
      bands.add(
          new RailBand(
              nominal[k],
              of.apply(lowest[k])[k],
              of.apply(highest[k])[k],
              tried[k][(int) (TAIL * tries)],
              tried[k][(int) ((1 - TAIL) * tries)]));
    }
    return bands;
  }
}
