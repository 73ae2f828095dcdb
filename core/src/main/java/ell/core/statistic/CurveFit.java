package ell.core.statistic;

import java.util.Arrays;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresOptimizer.Optimum;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.util.Pair;

/// Parameters of a curve by least squares (Levenberg and Marquardt, in Hipparchus), with slopes by
/// differences.
///
/// @param parameters as they fit best
/// @param errors standard error of each, as large as the scatter makes it; NaN where the data say
///   nothing of one
/// @param rss sum of squares of what is left
/// @param points how many were fitted
public record CurveFit(double[] parameters, double[] errors, double rss, int points) {
  private static final int MOST_STEPS = 2000;
  private static final double TIGHT = 1e-12;
  private static final double NUDGE = 6e-6;

  /// The curve.
  public interface Curve {
    /// Its values at all points.
    double[] at(double[] parameters);
  }

  public CurveFit {
    parameters = parameters.clone();
    errors = errors.clone();
  }

  @Override
  public double[] parameters() {
    return parameters.clone();
  }

  @Override
  public double[] errors() {
    return errors.clone();
  }

  /// Standard deviation of a point about the curve; NaN with no more points than parameters.
  public double deviation() {
    int free = points - parameters.length;
    return free > 0 ? Math.sqrt(rss / free) : Double.NaN;
  }

  /// Fits a curve.
  ///
  /// @param y what was measured, more points than parameters
  /// @param start parameters to begin with
  /// @throws IllegalArgumentException when there are too few points, or nothing fits
  public static CurveFit of(Curve curve, double[] y, double[] start) {
    if (y.length <= start.length) {
      throw new IllegalArgumentException(
          "a fit of " + start.length + " parameters takes more points than " + y.length);
    }
    double[] scale = new double[start.length];
    Arrays.setAll(scale, i -> start[i] == 0 ? 1 : Math.abs(start[i]));
    double[] ones = new double[start.length];
    Arrays.setAll(ones, i -> start[i] / scale[i]);
    try {
      Optimum o =
          new LevenbergMarquardtOptimizer()
              .withCostRelativeTolerance(TIGHT)
              .withParameterRelativeTolerance(TIGHT)
              .optimize(
                  new LeastSquaresBuilder()
                      .start(ones)
                      .target(y)
                      .model(p -> valued(curve, p.toArray(), scale))
                      .maxEvaluations(MOST_STEPS)
                      .maxIterations(MOST_STEPS)
                      .lazyEvaluation(false)
                      .build());
      double[] best = o.getPoint().toArray();
      double rss = o.getResiduals().dotProduct(o.getResiduals());
      double[] errors = new double[best.length];
      Arrays.fill(errors, Double.NaN);
      try {
        RealVector sigma = o.getSigma(1e-14);
        double about = Math.sqrt(rss / (y.length - best.length));
        for (int i = 0; i < errors.length; i++) {
          errors[i] = sigma.getEntry(i) * about * scale[i];
        }
      } catch (MathRuntimeException e) {
        // the points say nothing of one of the parameters: no error can be told
      }
      for (int i = 0; i < best.length; i++) {
        best[i] *= scale[i];
      }
      return new CurveFit(best, errors, rss, y.length);
    } catch (MathRuntimeException e) {
      throw new IllegalArgumentException("nothing fits: " + e.getMessage(), e);
    }
  }

  private static Pair<RealVector, RealMatrix> valued(Curve curve, double[] p, double[] scale) {
    double[] real = new double[p.length];
    Arrays.setAll(real, i -> p[i] * scale[i]);
    double[] v = curve.at(real);
    double[][] slopes = new double[v.length][p.length];
    for (int k = 0; k < p.length; k++) {
      double h = NUDGE * Math.max(Math.abs(p[k]), 1e-3);
      double was = real[k];
      real[k] = (p[k] + h) * scale[k];
      double[] up = curve.at(real);
      real[k] = (p[k] - h) * scale[k];
      double[] down = curve.at(real);
      real[k] = was;
      for (int i = 0; i < v.length; i++) {
        slopes[i][k] = (up[i] - down[i]) / (2 * h);
      }
    }
    return new Pair<>(new ArrayRealVector(v, false), new Array2DRowRealMatrix(slopes, false));
  }
}
