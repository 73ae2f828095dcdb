package ell.core.pulse;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.List;

/// A step on a line that is driven at one end: it runs along, comes back from the far end, and
/// again from the source, until it has died away. Steps are ramps of some duration; the line loses
/// some of a wave on each pass.
///
/// [#lattice] adds up every bounce, which is exact where both ends are resistors; [#inTime] goes
/// through it in time by the method of characteristics and bears a capacitor and a clamp at the far
/// end. Source: any text on transmission lines, as Johnson and Graham, High-Speed Digital Design.
///
/// @param swing of the driver without load, V
/// @param source ohms of driver and series resistor together
/// @param z0 of the line, Ω
/// @param delay of one pass, s
/// @param loss share of a wave that one pass takes, 0 to below 1
/// @param rise from 10 to 90 % of the driver's edge, s, 0 or more
/// @param load ohms at the far end, infinite for none
/// @param farads at the far end, 0 for none
/// @param clamp volts from which a diode at the far end conducts, infinite for none
public record Bounce(
    double swing,
    double source,
    double z0,
    double delay,
    double loss,
    double rise,
    double load,
    double farads,
    double clamp)
    implements OnLine {
  private static final double DIES = 1e-4;
  private static final int MOST_PASSES = 4000;
  private static final int MOST_STEPPED = 400;
  private static final int SLICES = 400;
  private static final double AT_ONCE = 1e-9;

  /// What a clamp diode leads with once it conducts, Ω; typical, no source.
  private static final double CLAMP_OHMS = 10;

  /// @throws IllegalArgumentException when a value is out of its range
  public Bounce {
    Check.positive(swing, "swing");
    Check.notNegative(source, "source resistance");
    Check.positive(z0, "z0");
    Check.positive(delay, "delay");
    Check.inRange(loss, 0, 0.999, "loss");
    Check.notNegative(rise, "rise time");
    Check.notNegative(farads, "load capacitance");
    if (!(load > 0) || !(clamp > 0)) {
      throw new IllegalArgumentException("load and clamp are above 0");
    }
  }

  /// The same with another resistance at the source.
  @Override
  public Bounce from(double ohms) {
    return new Bounce(swing, ohms, z0, delay, loss, rise, load, farads, clamp);
  }

  /// Whether both ends are resistors.
  @Override
  public boolean linear() {
    return farads == 0 && Double.isInfinite(clamp);
  }

  /// Seconds from the beginning of the driver's edge to its end.
  public double ramp() {
    return rise / 0.8;
  }

  private double sourceReflects() {
    return (source - z0) / (source + z0);
  }

  private double loadReflects() {
    return Double.isInfinite(load) ? 1 : (load - z0) / (load + z0);
  }

  /// Passes until what still runs is too little to see; infinite where nothing takes it up.
  double needed() {
    double each = Math.abs(sourceReflects() * loadReflects()) * (1 - loss) * (1 - loss);
    double roundTrips = each < DIES ? 1 : Math.log(DIES) / Math.log(Math.min(1, each));
    double slow = (10 * z0 * farads + 2 * ramp()) / delay;
    return 2 * Math.ceil(Math.abs(roundTrips)) + 4 + Math.ceil(slow);
  }

  /// Whether it settles soon enough to be gone through.
  @Override
  public boolean settles() {
    return needed() <= (linear() ? MOST_PASSES : MOST_STEPPED);
  }

  private int passes() {
    if (!settles()) {
      throw new IllegalArgumentException(
          "it does not settle within "
              + (linear() ? MOST_PASSES : MOST_STEPPED)
              + " passes of the line: nothing takes the wave up, or the edge or a charge is so slow"
              + " that the line does not count");
    }
    return (int) needed();
  }

  /// A course of volts in time, straight between its points.
  ///
  /// @param seconds rising; two alike where it jumps
  public record Course(double[] seconds, double[] volts) {
    public Course {
      seconds = seconds.clone();
      volts = volts.clone();
    }

    /// Where it has settled, V.
    public double last() {
      return volts[volts.length - 1];
    }
  }

  private record Wave(double begins, double amount) {}

  /// The course at a place, every bounce added up.
  ///
  /// @param at 0 for the source end of the line, 1 for the far end
  /// @throws IllegalArgumentException when the far end is no resistor, or it does not settle
  public Course lattice(double at) {
    Check.inRange(at, 0, 1, "place");
    if (!linear()) {
      throw new IllegalArgumentException("a lattice has resistors at both ends");
    }
    double pass = 1 - loss;
    List<Wave> waves = new ArrayList<>();
    double forward = swing * z0 / (z0 + source);
    int passes = passes();
    for (int k = 0; 2 * k < passes; k++) {
      double t = 2.0 * k * delay;
      waves.add(new Wave(t + at * delay, forward * Math.pow(pass, at)));
      double back = forward * pass * loadReflects();
      waves.add(new Wave(t + delay + (1 - at) * delay, back * Math.pow(pass, 1 - at)));
      forward = back * pass * sourceReflects();
    }
    return added(waves, (passes + 1) * delay + ramp());
  }

  private Course added(List<Wave> waves, double end) {
    double ramp = ramp();
    List<Wave> turns = new ArrayList<>(); // where the slope changes by an amount, or the volts jump
    for (Wave w : waves) {
      turns.add(w);
      if (ramp > 0) {
        turns.add(new Wave(w.begins() + ramp, -w.amount()));
      }
    }
    turns.sort((a, b) -> Double.compare(a.begins(), b.begins()));
    List<double[]> points = new ArrayList<>();
    points.add(new double[] {0, 0});
    double v = 0;
    double slope = 0;
    double t = 0;
    for (Wave w : together(turns)) {
      v += slope * (w.begins() - t);
      t = w.begins();
      points.add(new double[] {t, v});
      if (ramp > 0) {
        slope += w.amount() / ramp;
      } else {
        v += w.amount();
        points.add(new double[] {t, v});
      }
    }
    points.add(new double[] {Math.max(end, t), v + slope * Math.max(0, end - t)});
    return course(points);
  }

  /// At an end a wave and what comes back of it are there at once.
  private List<Wave> together(List<Wave> turns) {
    List<Wave> all = new ArrayList<>();
    for (Wave w : turns) {
      if (!all.isEmpty() && w.begins() - all.getLast().begins() < AT_ONCE * delay) {
        Wave before = all.removeLast();
        all.add(new Wave(before.begins(), before.amount() + w.amount()));
      } else {
        all.add(w);
      }
    }
    return all;
  }

  private static Course course(List<double[]> points) {
    return new Course(
        points.stream().mapToDouble(p -> p[0]).toArray(),
        points.stream().mapToDouble(p -> p[1]).toArray());
  }

  /// The courses at places, by the method of characteristics in equal steps of time.
  ///
  /// @throws IllegalArgumentException when it does not settle
  public List<Course> inTime(List<Double> places) {
    double dt = delay / SLICES;
    int n = passes() * SLICES;
    double pass = 1 - loss;
    double[] ahead = new double[n + 1]; // the wave that leaves the source
    double[] back = new double[n + 1]; // the wave that leaves the far end
    double end = 0;
    double before = 0; // the incident wave a step ago
    for (int i = 0; i <= n; i++) {
      int j = i - SLICES;
      double arrives = j >= 0 ? pass * ahead[j] : 0;
      double comes = j >= 0 ? pass * back[j] : 0;
      double drives = swing * (ramp() == 0 ? 1 : Math.min(1, i * dt / ramp()));
      ahead[i] = (drives * z0 + (source - z0) * comes) / (source + z0);
      end = farEnd(end, before, arrives, dt);
      before = arrives;
      back[i] = end - arrives;
    }
    List<Course> all = new ArrayList<>();
    for (double at : places) {
      double[] t = new double[n + 1];
      double[] v = new double[n + 1];
      for (int i = 0; i <= n; i++) {
        t[i] = i * dt;
        v[i] =
            Math.pow(pass, at) * past(ahead, i - at * SLICES)
                + Math.pow(pass, 1 - at) * past(back, i - (1 - at) * SLICES);
      }
      all.add(new Course(t, v));
    }
    return all;
  }

  private static double past(double[] wave, double i) {
    if (i < 0) {
      return 0;
    }
    int k = (int) i;
    double share = i - k;
    return k + 1 < wave.length ? wave[k] * (1 - share) + wave[k + 1] * share : wave[k];
  }

  /// Volts at the far end: what comes in twice, less what flows out through the line's impedance.
  private double farEnd(double v, double before, double arrives, double dt) {
    double next = solved(v, before, arrives, dt, false);
    return next > clamp ? solved(v, before, arrives, dt, true) : next;
  }

  private double solved(double v, double before, double arrives, double dt, boolean clamped) {
    double g = 1 / z0 + 1 / load + (clamped ? 1 / CLAMP_OHMS : 0);
    double more = clamped ? clamp / CLAMP_OHMS : 0;
    if (farads == 0) {
      return (2 * arrives / z0 + more) / g;
    }
    // the trapezoidal rule over C dv/dt = 2 i / z0 + more - g v
    double c = farads / dt;
    double was = v > clamp ? 1 / CLAMP_OHMS : 0;
    double flowed =
        2 * before / z0
            + was * (Double.isInfinite(clamp) ? 0 : clamp)
            - (1 / z0 + 1 / load + was) * v;
    return (c * v + 0.5 * flowed + 0.5 * (2 * arrives / z0 + more)) / (c + 0.5 * g);
  }

  /// The courses at places, in the way that fits the far end.
  ///
  /// @throws IllegalArgumentException when it does not settle
  @Override
  public List<Course> at(List<Double> places) {
    return linear() ? places.stream().map(this::lattice).toList() : inTime(places);
  }
}
