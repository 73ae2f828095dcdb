package ell.core.heat;

import ell.core.quantity.Check;

/// Type K thermocouple, reference junction at any temperature. Source: NIST Monograph 175, ITS-90
/// reference function of type K (coefficients from memory, held against the printed table).
public final class Thermocouple {
  /// Coldest that the function covers, degree Celsius.
  public static final double COLDEST = -270;

  /// Hottest, degree Celsius.
  public static final double HOTTEST = 1372;

  private static final double[] BELOW = {
    0,
    0.394501280250e-1,
    0.236223735980e-4,
    -0.328589067840e-6,
    -0.499048287770e-8,
    -0.675090591730e-10,
    -0.574103274280e-12,
    -0.310888728940e-14,
    -0.104516093650e-16,
    -0.198892668780e-19,
    -0.163226974860e-22
  };
  private static final double[] ABOVE = {
    -0.176004136860e-1,
    0.389212049750e-1,
    0.185587700320e-4,
    -0.994575928740e-7,
    0.318409457190e-9,
    -0.560728448890e-12,
    0.560750590590e-15,
    -0.320207200030e-18,
    0.971511471520e-22,
    -0.121047212750e-25
  };
  private static final double A0 = 0.118597600000;
  private static final double A1 = -0.118343200000e-3;
  private static final double A2 = 126.9686;

  private Thermocouple() {}

  /// Voltage of a junction against one at 0 °C, in volt.
  ///
  /// @param celsius -270...1372
  /// @throws IllegalArgumentException when temperature is out of its range
  public static double volts(double celsius) {
    Check.inRange(celsius, COLDEST, HOTTEST, "temperature");
    double[] k = celsius < 0 ? BELOW : ABOVE;
    double mv = 0;
    for (int i = k.length - 1; i >= 0; i--) {
      mv = mv * celsius + k[i];
    }
    if (celsius >= 0) {
      double d = celsius - A2;
      mv += A0 * Math.exp(A1 * d * d);
    }
    return mv * 1e-3;
  }

  /// Temperature of the hot junction, degree Celsius; the reference function inverted to 1 µK, so
  /// that there is no error beside the function's own.
  ///
  /// @param volts between the wires
  /// @param reference temperature of the cold junction, degree Celsius
  /// @throws IllegalArgumentException when the voltage is outside the range of the junction
  public static double celsius(double volts, double reference) {
    double e = Check.finite(volts, "voltage") + volts(reference);
    double lo = COLDEST;
    double hi = HOTTEST;
    Check.inRange(e, volts(lo), volts(hi), "voltage against a junction at 0 °C");
    for (int i = 0; i < 80 && hi - lo > 1e-7; i++) {
      double mid = (lo + hi) / 2;
      if (volts(mid) < e) {
        lo = mid;
      } else {
        hi = mid;
      }
    }
    return (lo + hi) / 2;
  }
}
