package ell.core.pulse;

import ell.core.pulse.Wanted.Driven;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.series.Series;
import ell.core.statistic.CurveFit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// A line from what was measured on it. A step shows how the source compares with the line, how
/// long a pass takes, what a pass loses and how fast the driver's edge is, each with how well it is
/// known (two standard deviations). Impedance and source alone it does not show, only the one by
/// the other. Where it contradicts what was taken, it says so.
///
/// @param ratio of the source, driver and resistor together, to the impedance of the line
/// @param z0 Ω, if the source is as it was taken
/// @param source Ω, if the impedance is as it was taken
/// @param delay of one pass, s
/// @param loss share that one pass takes
/// @param rise from 10 to 90 % of the driver's edge, s
/// @param left V, standard deviation of what is left
/// @param edgeAt second at which the driver's edge begins
/// @param fitted the step with these values
/// @param told where it contradicts what was taken, a sentence each
public record LineFit(
    double ratio,
    double ratioU,
    double z0,
    double z0U,
    double source,
    double sourceU,
    double delay,
    double delayU,
    double loss,
    double lossU,
    double rise,
    double left,
    double edgeAt,
    Bounce fitted,
    List<String> told) {
  private static final double PASSES = 14;
  private static final int MOST_POINTS = 600;
  private static final double CONTRADICTS = 0.08;
  private static final double STEEP = 4;
  private static final double FOOT = 0.08;

  /// Beyond this share of the line a place is its far end.
  private static final double FAR_END = 0.95;

  /// What a pass may lose more than was taken; typical, no source.
  private static final double LOST = 0.03;

  /// How well a scope knows a level; typical, no source.
  private static final double LEVEL = 0.02;

  /// Farther off than so many times the uncertainty is a contradiction.
  private static final double FAR = 1.5;

  public LineFit {
    told = List.copyOf(told);
  }

  /// Fits a line to the first rising edge of a capture that has a level before it.
  ///
  /// @param s volts at a place of the line
  /// @param at the place, 0 for the source, 1 for the end
  /// @param taken what is taken of driver and line, to begin with
  /// @return empty where the capture has no rising edge, or nothing fits
  public static Optional<LineFit> of(Series s, double at, Driven taken) {
    Wave w = Wave.of(s);
    if (w.rising() == 0) {
      return Optional.empty();
    }
    double delay = taken.length() / (taken.velocity() * LineOnBoard.LIGHT);
    double edge = EdgeMarks.of(s, w, Optional.empty()).rising().getFirst();
    // a step that comes in two halves passes the middle with the second
    int foot = s.firstFrom(edge);
    while (foot > 0 && s.value(foot) > w.low() + FOOT * w.amplitude()) {
      foot--;
    }
    double begins = s.second(foot) - at * delay;
    double from = begins - delay;
    double to = edge + PASSES * delay;
    double next =
        EdgeMarks.of(s, w, Optional.empty()).falling().stream()
            .filter(t -> t > edge)
            .findFirst()
            .orElse(to);
    int first = s.firstFrom(from);
    int end = s.firstFrom(Math.min(to, next - delay / 2));
    if (end - first < 12) {
      return Optional.empty();
    }
    int every = Math.max(1, (end - first) / MOST_POINTS);
    int n = (end - first) / every;
    double[] t = new double[n];
    double[] v = new double[n];
    for (int i = 0; i < n; i++) {
      t[i] = s.second(first + i * every);
      v[i] = s.value(first + i * every);
    }
    double low = w.low();
    double swing = w.amplitude();
    double z0 = taken.z0();
    double[] start = {
      Math.log(Math.max(2, taken.ohms() + taken.series()) / z0),
      Math.log(delay),
      0.02,
      Math.log(Math.max(taken.edge(), s.step())),
      (begins - t[0]) / delay,
      1
    };
    // at the far end a loss looks like another source: it is taken there
    boolean end1 = at > FAR_END;
    int[] all = end1 ? new int[] {0, 1, 3, 4} : new int[] {0, 1, 2, 3, 4, 5};
    double[] fixed = start.clone();
    fixed[2] = taken.loss();
    Optional<CurveFit> best = Optional.empty();
    // several ways to begin: a local best is not always the best
    for (double r : new double[] {start[0], Math.log(0.2), Math.log(1)}) {
      double[] p = start.clone();
      p[0] = r;
      Optional<CurveFit> f = fitted(all, fixed, p, z0, t, v, at, low, swing, delay);
      if (f.isPresent() && (best.isEmpty() || f.get().rss() < best.get().rss())) {
        best = f;
      }
    }
    if (best.filter(f -> Double.isNaN(f.errors()[0])).isPresent()) {
      // a wave that is taken up at once does not show what a pass loses: what was taken, then
      double[] p = best.get().parameters();
      Optional<CurveFit> f =
          fitted(new int[] {0, 1, 3, 4}, fixed, p, z0, t, v, at, low, swing, delay);
      best = f.isPresent() ? f : best;
    }
    return best.map(f -> made(f, t[0], delay, swing, taken, end1));
  }

  /// Fits some of the parameters, the others stay as they are.
  private static Optional<CurveFit> fitted(
      int[] free,
      double[] fixed,
      double[] start,
      double z0,
      double[] t,
      double[] v,
      double at,
      double low,
      double swing,
      double delay) {
    double[] begin = new double[free.length];
    Arrays.setAll(begin, i -> start[free[i]]);
    try {
      CurveFit f =
          CurveFit.of(x -> modelled(whole(x, free, fixed), z0, t, at, low, swing, delay), v, begin);
      double[] errors = new double[fixed.length];
      Arrays.fill(errors, Double.NaN);
      for (int i = 0; i < free.length; i++) {
        errors[free[i]] = f.errors()[i];
      }
      return Optional.of(
          new CurveFit(whole(f.parameters(), free, fixed), errors, f.rss(), f.points()));
    } catch (IllegalArgumentException e) {
      return Optional.empty(); // another beginning may do
    }
  }

  private static double[] whole(double[] some, int[] free, double[] fixed) {
    double[] p = fixed.clone();
    for (int i = 0; i < free.length; i++) {
      p[free[i]] = some[i];
    }
    return p;
  }

  /// Logarithms of ratio and delay; the loss; the logarithm of the edge; when it begins, in passes;
  /// the swing by that which was measured.
  private static double[] modelled(
      double[] p, double z0, double[] t, double at, double low, double swing, double delay) {
    double[] v = new double[t.length];
    // a line that loses something settles below what drives it
    Bounce b = bounce(p, z0, swing * Math.clamp(p[5], 0.5, 2));
    if (!b.settles()) {
      Arrays.fill(v, 1e3 * swing);
      return v;
    }
    Bounce.Course c = b.at(List.of(at)).getFirst();
    double begins = t[0] + p[4] * delay;
    double[] seconds = c.seconds();
    double[] volts = c.volts();
    int k = 0;
    for (int i = 0; i < t.length; i++) {
      double x = t[i] - begins;
      if (x <= seconds[0]) {
        v[i] = low + volts[0];
        continue;
      }
      while (k + 1 < seconds.length && seconds[k + 1] < x) {
        k++;
      }
      if (k + 1 >= seconds.length) {
        v[i] = low + c.last();
        continue;
      }
      double wide = seconds[k + 1] - seconds[k];
      double f = wide > 0 ? (x - seconds[k]) / wide : 1;
      v[i] = low + volts[k] + f * (volts[k + 1] - volts[k]);
    }
    return v;
  }

  private static double loss(double p) {
    return Math.clamp(p, 0, 0.5);
  }

  private static Bounce bounce(double[] p, double z0, double swing) {
    return new Bounce(
        swing,
        z0 * Math.exp(Math.clamp(p[0], -6, 6)),
        z0,
        Math.exp(p[1]),
        loss(p[2]),
        Math.exp(p[3]),
        Double.POSITIVE_INFINITY,
        0,
        Double.POSITIVE_INFINITY);
  }

  private static LineFit made(
      CurveFit f, double t0, double delay, double swing, Driven taken, boolean end) {
    double[] p = f.parameters();
    double[] e = f.errors();
    Bounce b = bounce(p, taken.z0(), swing * Math.clamp(p[5], 0.5, 2));
    double ratio = b.source() / b.z0();
    // the plateau is as well known as a scope reads its levels, twice over
    double off = Math.hypot(2 * e[0], 2 * LEVEL);
    if (end) {
      // what it would be if a pass lost some more than was taken
      double back = (ratio - 1) / (ratio + 1) / ((1 - LOST) * (1 - LOST));
      off =
          Math.abs(back) < 1
              ? Math.hypot(off, Math.abs((1 + back) / (1 - back) / ratio - 1))
              : Math.hypot(off, 1);
    }
    double total = taken.ohms() + taken.series();
    double slope = Math.abs(loss(p[2] + 1e-4) - loss(p[2] - 1e-4)) / 2e-4;
    List<String> told = new ArrayList<>();
    double was = total / taken.z0();
    if (Math.abs(ratio - was) > Math.max(CONTRADICTS * Math.max(was, ratio), FAR * off * ratio)) {
      told.add(
          "the capture contradicts what was taken: the source has "
              + share(ratio)
              + " of the line's impedance, not "
              + share(was)
              + ": it is "
              + EngineeringNumber.print(ratio * taken.z0(), Unit.OHM, 3)
              + " in all, or Z0 is "
              + EngineeringNumber.print(total / ratio, Unit.OHM, 3));
    }
    contradicts(told, "one pass", delay, b.delay(), 2 * e[1] * b.delay(), Unit.SECOND);
    if (taken.edge() > 0 && b.rise() > STEEP * taken.edge()) {
      told.add(
          "its edge is "
              + EngineeringNumber.print(b.rise(), Unit.SECOND, 2)
              + ": that of the instrument, or of a load that was not reckoned with");
    }
    if (f.deviation() > 0.05 * swing) {
      told.add(
          String.format(
              Locale.ROOT,
              "it fits badly, %.0f %% of the swing is left: a stub, a load, or another line than this",
              100 * f.deviation() / swing));
    }
    return new LineFit(
        ratio,
        off * ratio,
        total / ratio,
        off * total / ratio,
        ratio * taken.z0(),
        off * ratio * taken.z0(),
        b.delay(),
        2 * e[1] * b.delay(),
        b.loss(),
        2 * e[2] * slope,
        b.rise(),
        f.deviation(),
        t0 + p[4] * delay,
        b,
        told);
  }

  private static String share(double r) {
    return String.format(Locale.ROOT, "%.3g", r);
  }

  private static void contradicts(
      List<String> told, String what, double taken, double found, double u, Unit unit) {
    double off = Math.abs(found - taken);
    if (off > CONTRADICTS * taken && !(off <= FAR * u)) {
      told.add(
          "the capture contradicts: "
              + what
              + " is "
              + EngineeringNumber.print(found, unit, 3)
              + (Double.isFinite(u) ? " ± " + EngineeringNumber.print(u, unit, 2) : "")
              + ", and "
              + EngineeringNumber.print(taken, unit, 3)
              + " was taken");
    }
  }
}
