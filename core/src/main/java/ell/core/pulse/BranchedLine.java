package ell.core.pulse;

import ell.core.pulse.Bounce.Course;
import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeSet;

/// A step on a line with branches that hang on it, open at their ends, and with a resistor and a
/// capacitor in series to ground at its far end. Gone through in equal steps of time by the method
/// of characteristics: each stretch of line carries a wave each way, at each meeting of stretches
/// the currents add up to nothing. Source: Bergeron's method; any text on transients on lines.
///
/// @param main the line itself
/// @param stubs what hangs on it
/// @param endOhms in series with `endFarads` to ground at the far end, infinite for none
/// @param endFarads likewise
public record BranchedLine(Bounce main, List<Stub> stubs, double endOhms, double endFarads)
    implements OnLine {
  private static final int SLICES = 120;
  private static final int MOST_STEPS = 400_000;
  private static final double CLAMP_OHMS = 10;

  /// A branch, open at its end.
  ///
  /// @param at share of the line at which it hangs, 0...1
  /// @param delay one way, s, above 0
  /// @param z0 Ω
  /// @param farads at its end, 0 or more
  public record Stub(double at, double delay, double z0, double farads) {
    /// @throws IllegalArgumentException when a value is out of its range
    public Stub {
      Check.inRange(at, 0, 1, "place of a stub");
      Check.positive(delay, "delay of a stub");
      Check.positive(z0, "impedance of a stub");
      Check.notNegative(farads, "capacitance of a stub");
    }
  }

  public BranchedLine {
    stubs = List.copyOf(stubs);
    if (!(endOhms >= 0) || !(endFarads >= 0)) {
      throw new IllegalArgumentException("a termination is not below 0");
    }
  }

  /// The line alone where nothing hangs on it.
  public static OnLine of(Bounce main, List<Stub> stubs, double endOhms, double endFarads) {
    return stubs.isEmpty() && !(endFarads > 0)
        ? main
        : new BranchedLine(main, stubs, endOhms, endFarads);
  }

  @Override
  public double swing() {
    return main.swing();
  }

  @Override
  public double z0() {
    return main.z0();
  }

  @Override
  public OnLine from(double ohms) {
    return new BranchedLine(main.from(ohms), stubs, endOhms, endFarads);
  }

  @Override
  public boolean linear() {
    return false;
  }

  @Override
  public boolean settles() {
    return main.settles() && steps() <= MOST_STEPS;
  }

  private double slice() {
    double least = main.delay();
    for (Stub s : stubs) {
      least = Math.min(least, 6 * s.delay()); // a short one needs no more than a few
    }
    return least / SLICES;
  }

  private int steps() {
    double more = stubs.stream().mapToDouble(Stub::delay).sum();
    double charges = endFarads > 0 ? 8 * (Math.min(endOhms, 1e6) + main.source()) * endFarads : 0;
    double all = main.needed() * (main.delay() + 2 * more) + charges + 2 * main.ramp();
    return (int) Math.min(Integer.MAX_VALUE, Math.ceil(all / slice()));
  }

  /// A wave on its way from one end of a stretch to the other.
  private static final class Way {
    private final double[] sent;
    private final double slices;
    private final double keeps;

    Way(int steps, double slices, double keeps) {
      this.sent = new double[steps + 1];
      this.slices = slices;
      this.keeps = keeps;
    }

    /// What arrives at a step, between two of those that were sent.
    double arrives(int step) {
      double at = step - slices;
      if (at < 0) {
        return 0;
      }
      int k = (int) at;
      double f = at - k;
      double v = f == 0 || k + 1 >= step ? sent[k] : sent[k] * (1 - f) + sent[k + 1] * f;
      return keeps * v;
    }
  }

  private record Stretch(int a, int b, double z0, Way there, Way back) {}

  /// What stands to ground at a meeting, and what it remembers.
  private static final class Meeting {
    double farads;
    double ohms = Double.POSITIVE_INFINITY;
    double seriesOhms;
    double seriesFarads;
    double clamp = Double.POSITIVE_INFINITY;
    double volts;
    double charge; // A through the capacitor a step ago
    double inside; // V of the capacitor behind the resistor
    double through; // A through both
    final double[] course;

    Meeting(int steps) {
      course = new double[steps + 1];
    }
  }

  /// The courses at places.
  ///
  /// @throws IllegalArgumentException when it does not settle, or a place is not on the line
  @Override
  public List<Course> at(List<Double> places) {
    if (!settles()) {
      throw new IllegalArgumentException(
          "it does not settle within "
              + MOST_STEPS
              + " steps: a branch so short that it does not"
              + " count, or nothing that takes the wave up");
    }
    double dt = slice();
    int steps = steps();
    TreeSet<Double> cuts = new TreeSet<>(List.of(0.0, 1.0));
    stubs.forEach(s -> cuts.add(s.at()));
    places.forEach(p -> cuts.add(Check.inRange(p, 0, 1, "place")));
    List<Double> points = new ArrayList<>(cuts);
    List<Meeting> meetings = new ArrayList<>();
    points.forEach(_ -> meetings.add(new Meeting(steps)));
    List<Stretch> stretches = new ArrayList<>();
    for (int i = 1; i < points.size(); i++) {
      double share = points.get(i) - points.get(i - 1);
      stretches.add(
          stretch(
              i - 1,
              i,
              main.z0(),
              share * main.delay() / dt,
              Math.pow(1 - main.loss(), share),
              steps));
    }
    Meeting end = meetings.getLast();
    end.ohms = main.load();
    end.farads = main.farads();
    end.clamp = main.clamp();
    end.seriesOhms = endOhms;
    end.seriesFarads = endFarads;
    for (Stub s : stubs) {
      Meeting tip = new Meeting(steps);
      tip.farads = s.farads();
      meetings.add(tip);
      stretches.add(
          stretch(points.indexOf(s.at()), meetings.size() - 1, s.z0(), s.delay() / dt, 1, steps));
    }
    for (int k = 0; k <= steps; k++) {
      step(meetings, stretches, k, dt);
    }
    double[] t = new double[steps + 1];
    Arrays.setAll(t, i -> i * dt);
    return places.stream().map(p -> new Course(t, meetings.get(points.indexOf(p)).course)).toList();
  }

  private static Stretch stretch(int a, int b, double z0, double slices, double keeps, int steps) {
    return new Stretch(a, b, z0, new Way(steps, slices, keeps), new Way(steps, slices, keeps));
  }

  private void step(List<Meeting> meetings, List<Stretch> stretches, int k, double dt) {
    double[] leads = new double[meetings.size()];
    double[] flows = new double[meetings.size()];
    for (Stretch s : stretches) {
      leads[s.a()] += 1 / s.z0();
      flows[s.a()] += 2 * s.back().arrives(k) / s.z0();
      leads[s.b()] += 1 / s.z0();
      flows[s.b()] += 2 * s.there().arrives(k) / s.z0();
    }
    double drives = main.swing() * (main.ramp() == 0 ? 1 : Math.min(1, k * dt / main.ramp()));
    for (int i = 0; i < meetings.size(); i++) {
      Meeting m = meetings.get(i);
      if (i == 0 && main.source() == 0) {
        m.volts = drives;
      } else {
        if (i == 0) {
          leads[0] += 1 / main.source();
          flows[0] += drives / main.source();
        }
        solve(m, leads[i], flows[i], dt);
      }
      m.course[k] = m.volts;
    }
    for (Stretch s : stretches) {
      s.there().sent[k] = meetings.get(s.a()).volts - s.back().arrives(k);
      s.back().sent[k] = meetings.get(s.b()).volts - s.there().arrives(k);
    }
  }

  /// Kirchhoff's current law at a meeting; capacitors by the trapezoidal rule.
  private static void solve(Meeting m, double leads, double flows, double dt) {
    double g = leads + 1 / m.ohms;
    double i = flows;
    double c = 2 * m.farads / dt;
    if (m.farads > 0) {
      g += c;
      i += c * m.volts + m.charge;
    }
    double series = 0;
    double held = 0;
    if (m.seriesFarads > 0) {
      double each = dt / (2 * m.seriesFarads);
      series = 1 / (m.seriesOhms + each);
      held = m.inside + each * m.through;
      g += series;
      i += series * held;
    }
    double v = i / g;
    if (v > m.clamp) {
      v = (i + m.clamp / CLAMP_OHMS) / (g + 1 / CLAMP_OHMS);
    }
    if (m.farads > 0) {
      m.charge = c * (v - m.volts) - m.charge;
    }
    if (m.seriesFarads > 0) {
      double now = series * (v - held);
      m.inside += dt / (2 * m.seriesFarads) * (now + m.through);
      m.through = now;
    }
    m.volts = v;
  }
}
