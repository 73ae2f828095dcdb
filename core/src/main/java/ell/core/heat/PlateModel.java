package ell.core.heat;

import ell.core.quantity.Check;

/// A hot plate and the board on it: two bodies, a heater of limited power, losses to the air.
///
/// ```
/// u   = clamp((set(t − delay) − Tp) / 10 K, 0, 1)
/// Tp' = gain·u − (Tp − Ta)/loss − ratio·(Tp − Tb)/board
/// Tb' = (Tp − Tb)/board − (Tb − Ta)/air          on the plate
/// Tb' = −(Tb − Ta)/cool                          lifted off
/// ```
///
/// Stepped by the classic fourth-order method of Runge and Kutta at 0.25 s, far below every time
/// constant that a fit may find.
///
/// @param gain K/s of the bare plate at full power
/// @param loss time constant of the plate to the air, s
/// @param board time constant from plate to board, s
/// @param ratio heat capacity of the board over the plate's
/// @param air time constant of the board to the air while it lies on the plate, s
/// @param cool time constant of the board to the air once it is lifted, s
/// @param delay between a set point and what the heater does, s
/// @param ambient degree Celsius
public record PlateModel(
    double gain,
    double loss,
    double board,
    double ratio,
    double air,
    double cool,
    double delay,
    double ambient) {
  /// A step of the integration, second.
  public static final double STEP = 0.25;

  /// Kelvin below the set point from which on the heater gives all.
  public static final double BAND = 10;

  /// Where no run was recorded yet; typical of a small plate, no source.
  public static final PlateModel TYPICAL = new PlateModel(2.5, 180, 25, 0.25, 250, 60, 2, 23);

  public PlateModel {
    Check.inRange(gain, 1e-3, 100, "gain");
    Check.inRange(loss, 1, 1e6, "loss");
    Check.inRange(board, 0.5, 1e5, "board");
    Check.inRange(ratio, 0, 100, "ratio");
    Check.inRange(air, 1, 1e6, "air");
    Check.inRange(cool, 1, 1e6, "cool");
    Check.inRange(delay, 0, 120, "delay");
    Check.inRange(ambient, -20, 60, "ambient");
  }

  /// What happened: values at [#STEP].
  ///
  /// @param plate degree Celsius, from time 0
  /// @param boardAt degree Celsius, from time 0
  public record Curve(double[] plate, double[] boardAt) {
    /// Value at a time, between steps along a straight line.
    public static double at(double[] values, double t) {
      double i = Math.clamp(t / STEP, 0, values.length - 1.0);
      int k = (int) Math.min(i, values.length - 2.0);
      return values.length < 2 ? values[0] : values[k] + (i - k) * (values[k + 1] - values[k]);
    }

    @Override
    public boolean equals(Object o) {
      return o instanceof Curve c
          && java.util.Arrays.equals(plate, c.plate)
          && java.util.Arrays.equals(boardAt, c.boardAt);
    }

    @Override
    public int hashCode() {
      return java.util.Arrays.hashCode(plate) * 31 + java.util.Arrays.hashCode(boardAt);
    }

    @Override
    public String toString() {
      return "curve of " + plate.length + " steps";
    }
  }

  /// What is asked of the plate over time.
  public interface Wanted {
    /// Set point at a time, degree Celsius; 0 or less means off.
    double set(double seconds);
  }

  /// Predicts a run.
  ///
  /// @param liftAt when the board is lifted off, infinite when it is not
  /// @param until how long, second, up to a day
  /// @throws IllegalArgumentException when until is out of its range
  public Curve run(
      Wanted wanted, double plateStart, double boardStart, double liftAt, double until) {
    Check.inRange(until, STEP, 86_400, "until");
    int n = (int) Math.ceil(until / STEP) + 1;
    double[] p = new double[n];
    double[] b = new double[n];
    p[0] = plateStart;
    b[0] = boardStart;
    for (int i = 1; i < n; i++) {
      double t = (i - 1) * STEP;
      double set = t < delay ? 0 : wanted.set(t - delay);
      boolean lifted = t >= liftAt;
      double[] next = step(p[i - 1], b[i - 1], set, lifted, STEP);
      p[i] = next[0];
      b[i] = next[1];
    }
    return new Curve(p, b);
  }

  /// One step of the two bodies, `{plate, board}`.
  public double[] step(double tp, double tb, double set, boolean lifted, double dt) {
    double[] k1 = slope(tp, tb, set, lifted);
    double[] k2 = slope(tp + dt / 2 * k1[0], tb + dt / 2 * k1[1], set, lifted);
    double[] k3 = slope(tp + dt / 2 * k2[0], tb + dt / 2 * k2[1], set, lifted);
    double[] k4 = slope(tp + dt * k3[0], tb + dt * k3[1], set, lifted);
    return new double[] {
      tp + dt / 6 * (k1[0] + 2 * k2[0] + 2 * k3[0] + k4[0]),
      tb + dt / 6 * (k1[1] + 2 * k2[1] + 2 * k3[1] + k4[1])
    };
  }

  private double[] slope(double tp, double tb, double set, boolean lifted) {
    double u = set <= 0 ? 0 : Math.clamp((set - tp) / BAND, 0, 1);
    double into = (tp - tb) / board;
    return lifted
        ? new double[] {gain * u - (tp - ambient) / loss, -(tb - ambient) / cool}
        : new double[] {
          gain * u - (tp - ambient) / loss - ratio * into, into - (tb - ambient) / air
        };
  }

  /// Where the plate would settle at full power with a board on it, degree Celsius.
  public double hottest() {
    // both slopes are zero: (Tp − Tb)/board = (Tb − Ta)/air, gain = (Tp − Ta)/loss + ratio·(Tp −
    // Tb)/board
    double share = board / (board + air); // (Tp − Tb)/(Tp − Ta)
    return ambient + gain / (1 / loss + ratio * share / board);
  }
}
