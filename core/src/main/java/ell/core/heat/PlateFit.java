package ell.core.heat;

import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.List;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresOptimizer.Optimum;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;
import org.hipparchus.util.Pair;

/// A plate model fitted to recorded runs by least squares (Levenberg and Marquardt), over the
/// logarithms of its seven parameters so that none goes below zero.
///
/// @param rms what is left between model and log, °C
/// @param error relative standard error of each parameter, in the order of the model's
/// @param runs how many went in
/// @param partLag by how much a part follows its board, s: `Tq' = (Tb − Tq)/lag`; NaN when no part
///   was measured
public record PlateFit(PlateModel model, double rms, List<Double> error, int runs, double partLag) {
  private static final String[] NAMES = {"gain", "loss", "board", "ratio", "air", "cool", "delay"};
  private static final double SAMPLE = 2;

  public PlateFit {
    error = List.copyOf(error);
  }

  /// The model that ships, with nothing fitted.
  public static PlateFit typical() {
    return new PlateFit(PlateModel.TYPICAL, Double.NaN, List.of(), 0, Double.NaN);
  }

  /// Fits a model.
  ///
  /// @param runs at least one
  /// @return the typical model when the runs say too little
  public static PlateFit of(List<PlateRun> runs) {
    if (runs.isEmpty()) {
      return typical();
    }
    double ambient =
        runs.stream().mapToDouble(r -> Math.clamp(r.board().getFirst(), 0, 50)).min().orElse(23);
    double[] start = logs(PlateModel.TYPICAL);
    double[] target = measured(runs);
    try {
      Optimum o =
          new LevenbergMarquardtOptimizer()
              .optimize(
                  new LeastSquaresBuilder()
                      .start(start)
                      .model(p -> jacobian(p, runs, ambient, target.length))
                      .target(target)
                      .maxEvaluations(200)
                      .maxIterations(60)
                      .build());
      double[] p = o.getPoint().toArray();
      double rms = o.getRMS();
      List<Double> error = new ArrayList<>();
      RealMatrix j = o.getJacobian();
      RealMatrix square = j.transposeMultiply(j);
      for (int i = 0; i < p.length; i++) {
        // what the runs say nothing of stays unknown, and must not hide what they do say
        square.addToEntry(i, i, 1e-9 * (1 + square.getEntry(i, i)));
      }
      RealMatrix covariance = new LUDecomposition(square).getSolver().getInverse();
      double spread =
          rms * Math.sqrt((double) target.length / Math.max(1, target.length - p.length));
      for (int i = 0; i < p.length; i++) {
        error.add(Math.sqrt(Math.max(0, covariance.getEntry(i, i))) * spread);
      }
      return new PlateFit(model(p, ambient), rms, error, runs.size(), partLag(runs));
    } catch (MathRuntimeException | IllegalArgumentException e) {
      return typical();
    }
  }

  /// The lag that fits best, between 0.1 s and 120 s; a part that hangs over its board by some
  /// degrees all the time is taken to be offset by them.
  private static double partLag(List<PlateRun> runs) {
    List<PlateRun> told = runs.stream().filter(r -> r.part().size() > 20).toList();
    if (told.isEmpty()) {
      return Double.NaN;
    }
    double log =
        new BrentOptimizer(1e-9, 1e-9)
            .optimize(
                new MaxEval(200),
                GoalType.MINIMIZE,
                new UnivariateObjectiveFunction(x -> lagError(told, Math.exp(x))),
                new SearchInterval(Math.log(0.1), Math.log(120)))
            .getPoint();
    return Math.exp(log);
  }

  private static double lagError(List<PlateRun> runs, double lag) {
    double sum = 0;
    for (PlateRun r : runs) {
      int n = Math.min(r.part().size(), r.board().size());
      double q = r.board().getFirst();
      double mean = 0;
      double square = 0;
      double keep = Math.exp(-r.step() / lag);
      for (int i = 0; i < n; i++) {
        q = i == 0 ? q : r.board().get(i) + (q - r.board().get(i)) * keep;
        double d = r.part().get(i) - q;
        mean += d;
        square += d * d;
      }
      sum += square - mean * mean / n;
    }
    return sum;
  }

  private static double[] logs(PlateModel m) {
    return new double[] {
      Math.log(m.gain()),
      Math.log(m.loss()),
      Math.log(m.board()),
      Math.log(m.ratio()),
      Math.log(m.air()),
      Math.log(m.cool()),
      Math.log(m.delay())
    };
  }

  private static PlateModel model(double[] p, double ambient) {
    return new PlateModel(
        bounded(p[0], 0.01, 50),
        bounded(p[1], 5, 1e5),
        bounded(p[2], 1, 1e4),
        bounded(p[3], 1e-4, 50),
        bounded(p[4], 5, 1e5),
        bounded(p[5], 2, 1e4),
        bounded(p[6], 0.01, 60),
        ambient);
  }

  private static double bounded(double log, double least, double most) {
    return Math.clamp(Math.exp(Math.clamp(log, -20, 20)), least, most);
  }

  private static double[] measured(List<PlateRun> runs) {
    List<Double> all = new ArrayList<>();
    runs.forEach(r -> samples(r, all, null));
    return all.stream().mapToDouble(Double::doubleValue).toArray();
  }

  /// Plate until it is lifted, board all the way; from the log, or from a curve of the model.
  private static void samples(PlateRun r, List<Double> into, PlateModel.Curve curve) {
    double end = r.step() * (r.board().size() - 1);
    double lift = r.liftAt();
    for (double t = 0; t <= end; t += SAMPLE) {
      int i = (int) Math.min(Math.round(t / r.step()), r.board().size() - 1L);
      double at = i * r.step();
      if (!r.plate().isEmpty() && at < lift && i < r.plate().size()) {
        into.add(curve == null ? r.plate().get(i) : PlateModel.Curve.at(curve.plate(), at));
      }
      into.add(curve == null ? r.board().get(i) : PlateModel.Curve.at(curve.boardAt(), at));
    }
  }

  private static double[] predicted(double[] p, List<PlateRun> runs, double ambient) {
    PlateModel m = model(p, ambient);
    List<Double> all = new ArrayList<>();
    for (PlateRun r : runs) {
      double end = r.step() * (r.board().size() - 1);
      double plate0 = r.plate().isEmpty() ? r.board().getFirst() : r.plate().getFirst();
      samples(r, all, m.run(r::setAt, plate0, r.board().getFirst(), r.liftAt(), Math.max(end, 1)));
    }
    return all.stream().mapToDouble(Double::doubleValue).toArray();
  }

  private static Pair<RealVector, RealMatrix> jacobian(
      RealVector at, List<PlateRun> runs, double ambient, int n) {
    double[] p = at.toArray();
    double[] y = predicted(p, runs, ambient);
    double[][] j = new double[n][p.length];
    for (int k = 0; k < p.length; k++) {
      double[] q = p.clone();
      // the delay goes by steps of the integration: a smaller change than one would show nothing
      double h = k == p.length - 1 ? 0.3 : 1e-3;
      q[k] += h;
      double[] z = predicted(q, runs, ambient);
      for (int i = 0; i < n; i++) {
        j[i][k] = (z[i] - y[i]) / h;
      }
    }
    return new Pair<>(new ArrayRealVector(y, false), new Array2DRowRealMatrix(j, false));
  }

  /// The working.
  public Worked sheet() {
    Worked.Builder s = Worked.of("heat.plate", "How this plate heats a board");
    double[] v = {
      model.gain(),
      model.loss(),
      model.board(),
      model.ratio(),
      model.air(),
      model.cool(),
      model.delay()
    };
    String[] what = {
      "K/s at full power",
      "plate to air, s",
      "plate to board, s",
      "heat capacities, board / plate",
      "board to air, s",
      "lifted board to air, s",
      "set point to heater, s"
    };
    for (int i = 0; i < v.length; i++) {
      s.line(
          NAMES[i],
          what[i]
              + (error.isEmpty() || error.get(i) > 10
                  ? ""
                  : String.format(java.util.Locale.ROOT, ", ±%.0f %%", 200 * error.get(i))),
          v[i],
          Unit.ONE);
    }
    if (!Double.isNaN(partLag)) {
      s.line("part", "follows the board by, s", partLag, Unit.ONE);
    }
    s.line("hottest", "where it settles at full power", model.hottest(), Unit.CELSIUS);
    if (runs > 0) {
      s.line("left over", "model − log, root of the mean square", rms, Unit.CELSIUS);
    }
    return s.source(
            runs == 0
                ? "typical of a small plate, no source: no run with a set point is in the book"
                : "least squares over " + runs + (runs == 1 ? " recorded run" : " recorded runs"))
        .assume(
            "two bodies; the heater gives all from 10 °C below the set point; ± is two standard errors")
        .caution("Home-made and mains heaters: data sheet, earth, local rules, a licensed person.")
        .done();
  }
}
