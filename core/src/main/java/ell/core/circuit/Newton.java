package ell.core.circuit;

import java.util.Arrays;

/// Finds the volts at which the currents of every node cancel: Newton's method, shortened where a
/// whole step would not bring them nearer. Source for the test of a step: Deuflhard, Newton Methods
/// for Nonlinear Problems, the natural monotonicity test.
final class Newton {
  /// Siemens from every node to the reference, so that no node is without any: 1 gigaohm.
  static final double LEAK = 1e-9;

  private static final int ROUNDS = 60;
  private static final int FEW = 25;
  private static final double SHORTEST = 1.0 / 512;
  private static final double SOFTER = 0.3;
  private static final double SOFTEST = 1e-7;
  private static final double SOFT_LEAK = 1e-2;
  private static final double ALIKE = 2e-3;
  private static final double HARDLY = 0.97;

  /// A step of so many volts leads nowhere.
  private static final double FAR = 1e4;

  /// Steps that shrink to this share of the one before, by the same factors, go on shrinking so.
  private static final double EVENLY = 0.01;

  /// A step that is taken without looking at what it leaves, and what it leaves at most, V.
  private static final double NEXT = 1e-8;

  private static final double REST = 1e-12;

  private static final double LEFT = 1e-11; // ampere
  private static final double ROUNDING = 1e-11;

  private final Straight[] straight;
  private final Straight[] charged;
  private final Element[] bent;
  private final Circuit circuit;
  private final int n;
  private final Stamp stamp;
  private final double[] residual;
  private final double[] step;
  private final double[] next;
  private final double[] trial;
  private SparseLu matrix;
  private double[] factored = {};
  private double leak = LEAK;
  private double laidLeak = -1;
  private double laidSlice = -1;

  Newton(Circuit circuit) {
    this.circuit = circuit;
    n = circuit.nodes().size();
    straight =
        circuit.elements().stream().filter(Straight.class::isInstance).toArray(Straight[]::new);
    charged = Arrays.stream(straight).filter(e -> e.memory() > 0).toArray(Straight[]::new);
    bent =
        circuit.elements().stream()
            .filter(e -> !(e instanceof Straight))
            .sorted(Element.BY_KIND)
            .toArray(Element[]::new);
    stamp = new Stamp(n, circuit.pattern());
    residual = new double[n];
    step = new double[n];
    next = new double[n];
    trial = new double[n];
  }

  /// Writes what does not change while a moment is solved.
  private void lay(double[] v, Element.Moment m) {
    if (matrix == null) {
      stamp.begin();
      conduct(m);
      for (Element e : bent) {
        e.stamp(stamp, v, m);
      }
      circuit.pattern(stamp.pattern());
      matrix = new SparseLu(stamp.pattern());
    }
    if (leak == laidLeak && m.slice() == laidSlice) {
      stamp.beginCurrents();
    } else {
      stamp.begin();
      conduct(m);
      laidLeak = leak;
      laidSlice = m.slice();
    }
    for (Straight e : charged) {
      stamp.pull(e.a, e.b, e.pulls(m));
    }
    stamp.hold();
  }

  private void conduct(Element.Moment m) {
    for (int i = 0; i < n; i++) {
      stamp.conduct(i, -1, leak);
    }
    for (Straight e : straight) {
      stamp.conduct(e.a, e.b, e.siemens(m));
    }
  }

  private void stamp(double[] v, Element.Moment m) {
    stamp.again();
    for (Element e : bent) {
      e.stamp(stamp, v, m);
    }
  }

  /// A step from the residual. Where the matrix has hardly changed and the step is small, the
  /// factors of the last one serve as well; what they miss is seen by the residual after it.
  private void step(double[] v) {
    boolean alike = alike();
    if (!alike) {
      factor();
    }
    matrix.solve(residual, step);
    if (alike && !near(step, v) && !Arrays.equals(stamp.values, factored)) {
      factor();
      matrix.solve(residual, step);
    }
  }

  private void factor() {
    matrix.factor(stamp.values);
    if (factored.length == 0) {
      factored = new double[stamp.values.length];
    }
    System.arraycopy(stamp.values, 0, factored, 0, factored.length);
  }

  private boolean alike() {
    if (factored.length == 0) {
      return false;
    }
    for (int i = 0; i < factored.length; i++) {
      if (Math.abs(stamp.values[i] - factored[i]) > ALIKE * Math.abs(factored[i])) {
        return false;
      }
    }
    return true;
  }

  /// The factors of the matrix at some volts.
  SparseLu factors(double[] v, Element.Moment m) {
    lay(v, m);
    stamp(v, m);
    factor();
    return matrix;
  }

  /// Solves one moment, whatever it takes.
  ///
  /// @param v where to begin; the result
  /// @return whether it settled
  boolean solve(double[] v, Element.Moment m) {
    return solve(v, m, true);
  }

  /// Solves one moment.
  ///
  /// @param patient whether the long way is taken where the short one fails
  boolean solve(double[] v, Element.Moment m, boolean patient) {
    if (n == 0) {
      return true;
    }
    double[] began = v.clone();
    leak = LEAK;
    if (rounds(v, m, patient ? ROUNDS : FEW)) {
      return true;
    }
    if (!patient) {
      return false;
    }
    // from a circuit whose corners are soft, which has one answer that is easy to find, to the real
    // one: the answer of each is where the next begins
    System.arraycopy(began, 0, v, 0, n);
    double[] held = v.clone();
    double soft = 1;
    double less = SOFTER;
    if (!rounds(v, m.soft(soft))) {
      Arrays.fill(v, 0);
      leak = SOFT_LEAK;
      rounds(v, m.soft(soft));
      leak = LEAK;
      if (!rounds(v, m.soft(soft))) {
        System.arraycopy(began, 0, v, 0, n);
        return false;
      }
    }
    while (soft > SOFTEST) {
      System.arraycopy(v, 0, held, 0, n);
      if (rounds(v, m.soft(soft * less))) {
        soft *= less;
        less = Math.max(SOFTER, less * less);
      } else {
        System.arraycopy(held, 0, v, 0, n);
        less = Math.sqrt(less);
        if (less > HARDLY) {
          break;
        }
      }
    }
    return rounds(v, m);
  }

  private boolean rounds(double[] v, Element.Moment m) {
    return rounds(v, m, ROUNDS);
  }

  private boolean rounds(double[] v, Element.Moment m, int most) {
    lay(v, m);
    stamp(v, m);
    stamp.residual(v, residual);
    step(v);
    for (int round = 0; round < most; round++) {
      double size = size(step);
      if (!(size < FAR)) {
        return false;
      }
      if (tiny(step, v)) {
        take(v, step, 1, v);
        return true; // what its square would add is below what rounding leaves
      }
      boolean small = near(step, v);
      double share = 1;
      double left;
      while (true) {
        take(v, step, share, trial);
        stamp(trial, m);
        stamp.residual(trial, residual);
        matrix.solve(residual, next);
        left = size(next);
        if (small || left <= (1 - share / 4) * size || share <= SHORTEST) {
          break;
        }
        share /= 2;
      }
      // steps from the same factors shrink evenly: by as much each time
      double shrinks = share == 1 ? left / size : 1;
      if (shrinks <= EVENLY && left <= NEXT && shrinks * left <= REST) {
        take(trial, next, 1, v);
        return true; // those to come no longer count
      }
      boolean evenly = shrinks <= EVENLY && shrinks * shrinks * left <= REST; // one more will do
      System.arraycopy(trial, 0, v, 0, n);
      if (small && !evenly && balanced(v)) {
        return true; // what rounding leaves does not shrink any more
      }
      if (evenly) {
        System.arraycopy(next, 0, step, 0, n);
      } else {
        step(v);
      }
    }
    return false;
  }

  private void take(double[] from, double[] step, double share, double[] to) {
    for (int i = 0; i < n; i++) {
      to[i] = from[i] - share * step[i];
    }
  }

  private static double size(double[] d) {
    double sum = 0;
    for (double x : d) {
      sum += x * x;
    }
    return Math.sqrt(sum);
  }

  /// Whether a step is so small that the next one, of Newton's order, no longer counts.
  private static boolean near(double[] step, double[] v) {
    return within(1e-7, step, v);
  }

  private static boolean tiny(double[] step, double[] v) {
    return within(1e-12, step, v);
  }

  private static boolean within(double share, double[] step, double[] v) {
    for (int i = 0; i < step.length; i++) {
      if (Math.abs(step[i]) > share + share * Math.abs(v[i])) {
        return false;
      }
    }
    return true;
  }

  /// Whether the currents of every node cancel, but for what rounding leaves.
  private boolean balanced(double[] v) {
    boolean sized = false;
    for (int i = 0; i < n; i++) {
      double left = Math.abs(residual[i]);
      if (!sized && !(left <= LEFT)) {
        stamp.sizes(v, next);
        sized = true;
      }
      if (!(left <= LEFT || left <= LEFT + ROUNDING * next[i])) {
        return false;
      }
    }
    return true;
  }

  /// How much of the current at the worst node does not cancel, as a share of what flows there.
  double worst(double[] v, Element.Moment m) {
    lay(v, m);
    stamp(v, m);
    stamp.residual(v, residual);
    stamp.sizes(v, next);
    double most = 0;
    for (int i = 0; i < n; i++) {
      most = Math.max(most, Math.abs(residual[i]) / Math.max(next[i], 1e-6));
    }
    return most;
  }
}
