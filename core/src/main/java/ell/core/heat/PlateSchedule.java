package ell.core.heat;

import ell.core.quantity.Limits;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;

/// Set points over time, and when to lift the board off: the ones that bring the board nearest to
/// the middle of a window, by a plate model.
///
/// @param soakSet first set point, degree Celsius
/// @param soakFor how long, second
/// @param peakSet second set point, degree Celsius
/// @param liftAt when to lift the board off, second
/// @param liftTemperature what the board reads then, degree Celsius
/// @param pwi process window index that is expected, below 100 is inside
/// @param check the expected curve held against the window
/// @param warnings what this plate cannot do
public record PlateSchedule(
    double soakSet,
    double soakFor,
    double peakSet,
    double liftAt,
    double liftTemperature,
    double pwi,
    ProfileCheck check,
    PlateModel.Curve expected,
    List<String> warnings) {
  private static final double AFTER = 90;
  private static final double LONGEST = 600;
  private static final int BEGINNINGS = 8;

  /// The board should still rise by so much when it is lifted, K/s.
  private static final double BRISK = 0.5;

  public PlateSchedule {
    warnings = List.copyOf(warnings);
  }

  /// Set point at a time, 0 once it is lifted.
  public double set(double t) {
    return t >= liftAt ? 0 : t < soakFor ? soakSet : peakSet;
  }

  /// The best schedule that a search over set points and times finds.
  public static PlateSchedule of(PlateModel m, ProfileWindow w) {
    Limits peak =
        w.limits().getOrDefault(ProfileStatistic.PEAK, new Limits(w.above() + 15, w.above() + 35));
    double top = (low(peak, w.above() + 15) + high(peak, w.above() + 35)) / 2;
    // the valley is narrow: a grid finds where to begin, and several beginnings are followed down
    List<double[]> found = new ArrayList<>();
    for (double soak = w.soakFrom() - 10; soak <= w.soakTo() + 40; soak += 10) {
      for (double time = 40; time <= 280; time += 20) {
        for (double hot = top; hot <= top + 90; hot += 10) {
          double x = cheap(m, w, soak, time, hot, top);
          if (Double.isFinite(x)) {
            found.add(new double[] {x, soak, time, hot});
          }
        }
      }
    }
    if (found.isEmpty()) {
      return cannot(m, w, top);
    }
    found.sort(Comparator.comparingDouble(f -> f[0]));
    double[] best = null;
    double least = Double.POSITIVE_INFINITY;
    for (int k = 0; k < Math.min(BEGINNINGS, found.size()); k++) {
      double[] f = found.get(k * Math.max(1, Math.min(found.size(), 80) / BEGINNINGS));
      double[] end = down(m, w, top, new double[] {f[1], f[2], f[3]}, f[0]);
      if (end[0] < least) {
        least = end[0];
        best = new double[] {end[1], end[2], end[3]};
      }
    }
    return made(m, w, best[0], best[1], best[2], top);
  }

  /// Follows one beginning down, `{index, soak, time, hot}`: one number at a time, and the two that
  /// pull against each other together.
  private static double[] down(
      PlateModel m, ProfileWindow w, double top, double[] from, double value) {
    double[] best = from;
    double least = value;
    double[][] ways = {
      {1, 0, 0}, {0, 2, 0}, {0, 0, 1}, {1, -2, 0}, {1, 2, 0}, {0, 2, 1}, {0, -2, 1}
    };
    for (double size : new double[] {8, 4, 2, 1, 0.5}) {
      boolean better = true;
      while (better) {
        better = false;
        for (double[] way : ways) {
          for (int sign = -1; sign <= 1; sign += 2) {
            double[] q = best.clone();
            for (int k = 0; k < 3; k++) {
              q[k] += sign * size * way[k];
            }
            double x = q[1] < 10 ? Double.POSITIVE_INFINITY : cheap(m, w, q[0], q[1], q[2], top);
            if (x < least - 1e-6) {
              least = x;
              best = q;
              better = true;
            }
          }
        }
      }
    }
    return new double[] {least, best[0], best[1], best[2]};
  }

  private static double low(Limits l, double otherwise) {
    return Double.isInfinite(l.low()) ? otherwise : l.low();
  }

  private static double high(Limits l, double otherwise) {
    return Double.isInfinite(l.high()) ? otherwise : l.high();
  }

  private static PlateModel.Wanted wanted(double soak, double time, double hot, double lift) {
    return t -> t >= lift ? 0 : t < time ? soak : hot;
  }

  /// A board that is never lifted off.
  private static PlateModel.Curve up(PlateModel m, double soak, double time, double hot) {
    double never = Double.POSITIVE_INFINITY;
    return m.run(wanted(soak, time, hot, never), m.ambient(), m.ambient(), never, LONGEST);
  }

  /// When the board gets to a temperature, infinite when it does not.
  private static double reach(PlateModel.Curve c, double celsius) {
    for (int i = 0; i < c.boardAt().length; i++) {
      if (c.boardAt()[i] >= celsius) {
        return i * PlateModel.STEP;
      }
    }
    return Double.POSITIVE_INFINITY;
  }

  /// The index of a schedule from plain crossings and ten-second slopes; it steers the search only.
  private static double cheap(
      PlateModel m, ProfileWindow w, double soak, double time, double hot, double top) {
    PlateModel.Curve up = up(m, soak, time, hot);
    double lift = reach(up, top);
    if (Double.isInfinite(lift) || lift < time) {
      return Double.POSITIVE_INFINITY;
    }
    double ramp = 0;
    int span = (int) (10 / PlateModel.STEP);
    int end = (int) (lift / PlateModel.STEP);
    for (int i = 0; i + span <= end; i += 4) {
      ramp = Math.max(ramp, (up.boardAt()[i + span] - up.boardAt()[i]) / 10);
    }
    double fall = (top - m.ambient()) / m.cool();
    double after =
        top > w.above() ? m.cool() * Math.log((top - m.ambient()) / (w.above() - m.ambient())) : 0;
    double above = Math.max(0, lift - reach(up, w.above())) + after;
    Map<ProfileStatistic, Double> v =
        Map.of(
            ProfileStatistic.RAMP_UP, ramp,
            ProfileStatistic.SOAK_TIME, reach(up, w.soakTo()) - reach(up, w.soakFrom()),
            ProfileStatistic.TIME_ABOVE, above,
            ProfileStatistic.PEAK, top,
            ProfileStatistic.RAMP_DOWN, fall,
            ProfileStatistic.TIME_TO_PEAK, lift - reach(up, 25));
    double worst = 0;
    double sum = 0;
    for (Map.Entry<ProfileStatistic, Limits> e : w.limits().entrySet()) {
      Limits l = e.getValue();
      if (Double.isFinite(l.low()) && Double.isFinite(l.high())) {
        double x =
            100
                * Math.abs(v.get(e.getKey()) - (l.low() + l.high()) / 2)
                / ((l.high() - l.low()) / 2);
        worst = Math.max(worst, x);
        sum += x;
      }
    }
    // a board that creeps towards its peak is lifted late by every small error of the model
    int last = Math.max(1, end - (int) (10 / PlateModel.STEP));
    double creep =
        (up.boardAt()[end] - up.boardAt()[last]) / Math.max((end - last) * PlateModel.STEP, 1);
    return worst + 0.02 * sum + 60 * Math.max(0, BRISK - creep);
  }

  private static PlateSchedule made(
      PlateModel m, ProfileWindow w, double soak, double time, double hot, double top) {
    PlateModel.Curve up = up(m, soak, time, hot);
    double lift = reach(up, top);
    lift = Double.isInfinite(lift) ? LONGEST - AFTER : lift;
    PlateModel.Curve c =
        m.run(wanted(soak, time, hot, lift), m.ambient(), m.ambient(), lift, lift + AFTER);
    int n = (int) ((lift + AFTER) / 1.0);
    double[] t = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      t[i] = i;
      y[i] = PlateModel.Curve.at(c.boardAt(), i);
    }
    ProfileCheck check =
        ProfileCheck.of(
            new ProfileLog(List.of(new ProfileLog.Channel("expected board", t, y))), w, 0);
    List<String> warnings = new ArrayList<>();
    for (ProfileCheck.Line l : check.channels().getFirst().lines()) {
      if (l.limits().isPresent() && l.verdict() != ell.core.quantity.Verdict.WITHIN) {
        warnings.add(
            "this plate cannot keep "
                + l.statistic().words()
                + " in "
                + ProfileCheck.text(l.limits().get(), l.statistic().unit())
                + (Double.isNaN(l.value())
                    ? ": it is not reached"
                    : String.format(
                        java.util.Locale.ROOT,
                        ": %.3g %s at best",
                        l.value(),
                        l.statistic().unit())));
      }
    }
    return new PlateSchedule(
        soak,
        time,
        hot,
        lift,
        PlateModel.Curve.at(c.boardAt(), lift),
        check.pwi(),
        check,
        c,
        warnings);
  }

  private static PlateSchedule cannot(PlateModel m, ProfileWindow w, double top) {
    PlateSchedule s = made(m, w, w.soakTo(), 120, top + 90, top);
    List<String> why = new ArrayList<>();
    why.add(
        String.format(
            java.util.Locale.ROOT,
            "this plate cannot bring the board to %.0f °C in ten minutes; at full power it settles at %.0f °C",
            top,
            m.hottest()));
    why.addAll(s.warnings());
    return new PlateSchedule(
        s.soakSet(),
        s.soakFor(),
        s.peakSet(),
        s.liftAt(),
        s.liftTemperature(),
        s.pwi(),
        s.check(),
        s.expected(),
        why);
  }
}
