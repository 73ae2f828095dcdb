package ell.core.circuit;

import java.util.ArrayList;
import java.util.List;

/// What linear and switching regulators share: an output that pushes current while it is below its
/// target, up to a limit, and never takes any back; an enable; a target that rises.
abstract class Regulating extends Element {
  static final double OUT_OHM = 0.01;
  private static final double ROUND_AMPS = 1e-5;
  private static final double ROUND_LIMIT = 1e-3;
  private static final double SOFT_ROUND = 0.1;

  /// From these volts at its input on it draws its own current; typical, no source.
  static final double AWAKE = 0.5;

  /// Where an enable switches, and how sharply, V; typical, no source.
  private static final double ENABLES = 0.7;

  private static final double ENABLE_WIDTH = 0.4;

  /// A target that was reached falls so fast once there is no input, s.
  private static final double FORGETS = 1e-2;

  /// It rises as a charge does, to 95 % in the time that is said.
  private static final double RISES = 3;

  /// An output whose current falls with its volts by this share of what its own resistance makes of
  /// it follows its target.
  private static final double FOLLOWS = 0.5;

  final int in;
  final int out;
  final int ground;
  private final int enable;
  final Regulator law;

  /// @param enable its node, the input's where it has none
  Regulating(String name, int in, int out, int ground, int enable, Regulator law) {
    super(name);
    this.in = in;
    this.out = out;
    this.ground = ground;
    this.enable = enable;
    this.law = law;
  }

  /// Those of some elements, each behind the one that feeds it.
  static Regulating[] inTurn(List<Element> elements) {
    List<Regulating> left = new ArrayList<>();
    for (Element e : elements) {
      if (e instanceof Regulating r) {
        left.add(r);
      }
    }
    List<Regulating> turn = new ArrayList<>();
    while (!left.isEmpty()) {
      Regulating next =
          left.stream()
              .filter(r -> left.stream().noneMatch(o -> o != r && o.out == r.in))
              .findFirst()
              .orElse(left.getFirst());
      left.remove(next);
      turn.add(next);
    }
    return turn.toArray(Regulating[]::new);
  }

  /// Output current and its slopes.
  ///
  /// @param target volts at the output that it tries to hold
  /// @param soft how round its corners are, as [Moment#softness]
  /// @return ampere, by target, by output volts, by enable volts
  double[] push(double[] v, double target, double soft) {
    double vout = at(v, out) - at(v, ground);
    double ohms = OUT_OHM + soft * law.volts() / law.limit();
    double round = ROUND_AMPS + soft * SOFT_ROUND * law.limit();
    double x = (target - vout) / ohms;
    double wants = Smooth.over(x, round);
    double full = Smooth.step(vout / Math.max(law.volts(), 1e-3));
    double most = law.limit() * (law.foldback() + (1 - law.foldback()) * full);
    double mostBy =
        law.limit()
            * (1 - law.foldback())
            * Smooth.stepSlope(vout / Math.max(law.volts(), 1e-3))
            / Math.max(law.volts(), 1e-3);
    double w = (ROUND_LIMIT + soft * SOFT_ROUND) * law.limit();
    double held = Smooth.upTo(wants, most, w);
    double s = Smooth.overSlope(most - wants, w);
    double byWant = s * Smooth.overSlope(x, round) / ohms;
    double on = on(v);
    return new double[] {
      held * on,
      byWant * on,
      (-byWant + (Smooth.overSlope(most, w) - s) * mostBy) * on,
      held * onSlope(v)
    };
  }

  /// Volts that it tries to hold.
  abstract double held(double[] v, Moment m);

  /// Betters a guess at the volts of a moment. Where the output followed its target it does so a
  /// moment later, by the volts that drove the same current; a little beside them there is no
  /// current, or all of it.
  ///
  /// @param before the volts of the moment that was solved last
  void guess(double[] v, Moment m, double[] before, Moment last) {
    double target = held(before, last);
    if (out >= 0 && push(before, target, 0)[1] > FOLLOWS / OUT_OHM) {
      v[out] = held(v, m) - target + at(before, out) - at(before, ground) + at(v, ground);
    }
  }

  /// Share to which it is enabled.
  double on(double[] v) {
    return enable == in ? 1 : Smooth.step((at(v, enable) - at(v, ground) - ENABLES) / ENABLE_WIDTH);
  }

  private double onSlope(double[] v) {
    return enable == in
        ? 0
        : Smooth.stepSlope((at(v, enable) - at(v, ground) - ENABLES) / ENABLE_WIDTH) / ENABLE_WIDTH;
  }

  int enable() {
    return enable;
  }

  /// Share of its set volts that its target has risen to, and how it follows the share to which it
  /// runs. It is that of the end of the moment: what starts and stops by its own doing settles
  /// between.
  double[] risen(double on, Moment m) {
    if (law.softStart() == 0 || m.still()) {
      return new double[] {1, 0};
    }
    double up = m.slice() * RISES / law.softStart();
    double down = m.slice() / FORGETS;
    double below = 1 + on * up + (1 - on) * down;
    double x = (m.base()[first] + on * up) / below;
    return new double[] {x, (up - x * (up - down)) / below};
  }

  /// The share to which its input and its enable let it run, by input, by enable volts; smooth.
  double[] awake(double[] v) {
    double x = (at(v, in) - at(v, ground) - AWAKE) / AWAKE;
    double up = Smooth.step(x);
    return new double[] {up * on(v), Smooth.stepSlope(x) / AWAKE * on(v), up * onSlope(v)};
  }

  /// What it draws by itself before it runs, A.
  double waits() {
    return law.quiescent();
  }

  /// Own current and its slope by the input.
  double[] quiet(double[] v) {
    double t = Math.tanh((at(v, in) - at(v, ground)) / AWAKE);
    return new double[] {law.quiescent() * t, law.quiescent() * (1 - t * t) / AWAKE};
  }

  @Override
  int memory() {
    return law.softStart() > 0 ? 1 : 0;
  }

  /// The share to which it runs at these volts, 0...1.
  abstract double runs(double[] v);

  @Override
  void slope(double[] v, Moment m, double[] k) {
    if (law.softStart() > 0) {
      double on = runs(v);
      double x = risen(on, m)[0];
      k[first] = on * (1 - x) * RISES / law.softStart() - (1 - on) * x / FORGETS;
    }
  }

  @Override
  double small(int which) {
    return 1e-2;
  }

  @Override
  int[] nodes() {
    return new int[] {in, out, ground, enable};
  }
}
