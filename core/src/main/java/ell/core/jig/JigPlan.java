package ell.core.jig;

import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.List;
import java.util.Map;

/// A jig as it would be built.
///
/// @param revision that it is for
/// @param setup what was taken for granted
/// @param asked which nets, in words
/// @param needs nets that must be reached
/// @param targets places that could be used
/// @param choice of probes
/// @param tooling its two pins
/// @param bending of the board in it
/// @param wires of it
/// @param unreachable nets that no probe reaches, or too few
/// @param worth whether it pays
/// @param costs behind that
/// @param advice everything that is to be said, a sentence each
public record JigPlan(
    Revision revision,
    JigSetup setup,
    String asked,
    List<Need> needs,
    List<Target> targets,
    ProbeChoice choice,
    Tooling tooling,
    Bending bending,
    JigWires wires,
    List<Unreachable> unreachable,
    BreakEven worth,
    BreakEven.Costs costs,
    List<String> advice) {
  /// A net that is not reached.
  ///
  /// @param remedy what change of the design would reach it
  public record Unreachable(String net, String why, String remedy) {}

  public JigPlan {
    needs = List.copyOf(needs);
    targets = List.copyOf(targets);
    unreachable = List.copyOf(unreachable);
    advice = List.copyOf(advice);
  }

  /// The probes.
  public List<Probe> probes() {
    return choice.probes();
  }

  /// Probes that come from the first side.
  public int topProbes() {
    return (int) probes().stream().filter(p -> p.target().side() == Side.FIRST).count();
  }

  /// Least distance of two probes of one side, millimetre; infinite with fewer than two.
  public double minGapMm() {
    return probes().stream().mapToDouble(Probe::gapMm).min().orElse(Double.POSITIVE_INFINITY);
  }

  /// What all probes of both sides press with, N.
  public double force() {
    return probes().stream().mapToDouble(p -> p.of().newtons()).sum();
  }

  /// Where the sum of the forces acts, `{x, y}` in millimetre.
  public double[] centreMm() {
    double f = Math.max(1e-12, force());
    return new double[] {
      probes().stream().mapToDouble(p -> p.of().newtons() * p.target().xMm()).sum() / f,
      probes().stream().mapToDouble(p -> p.of().newtons() * p.target().yMm()).sum() / f
    };
  }

  /// What the probes of a side press with, N.
  public double force(Side side) {
    return probes().stream()
        .filter(p -> p.target().side() == side)
        .mapToDouble(p -> p.of().newtons())
        .sum();
  }

  /// Where the forces of a side act, `{x, y}` in millimetre; NaN where none does.
  public double[] centreMm(Side side) {
    double f = force(side);
    double x = 0;
    double y = 0;
    for (Probe p : probes()) {
      if (p.target().side() == side) {
        x += p.of().newtons() * p.target().xMm() / f;
        y += p.of().newtons() * p.target().yMm() / f;
      }
    }
    return f > 0 ? new double[] {x, y} : new double[] {Double.NaN, Double.NaN};
  }

  /// The moment of the probes about the middle of the fingers, those from above against those from
  /// below, Nm; NaN without fingers.
  public double moment() {
    if (bending.fingers().isEmpty()) {
      return Double.NaN;
    }
    double x = bending.fingers().stream().mapToDouble(Bending.Finger::xMm).average().orElse(0);
    double y = bending.fingers().stream().mapToDouble(Bending.Finger::yMm).average().orElse(0);
    double mx = 0;
    double my = 0;
    for (Probe p : probes()) {
      double f = p.of().newtons() * (p.target().side() == Side.SECOND ? 1 : -1);
      mx += f * (p.target().yMm() - y);
      my += f * (p.target().xMm() - x);
    }
    return 1e-3 * Math.hypot(mx, my);
  }

  /// The chance that a probe or more misses.
  public double miss() {
    double good = 1;
    for (Probe p : probes()) {
      good *= 1 - p.miss();
    }
    return 1 - good;
  }

  /// How it is closed.
  public String press() {
    double hand = setup.number("hand");
    return force() <= hand
        ? "by hand"
        : force() <= hand * setup.number("lever")
            ? "by a lever"
            : "by a press: too much for a lever of the ratio that is said";
  }

  /// What a corner with four probes that are pressed on by hand would do instead: cheap, slower
  /// than a jig, and it finds no more faults than a person with two tips.
  public BreakEven corner() {
    return BreakEven.of(
        new BreakEven.Costs(
            4 * setup.number("probePrice") + 5,
            setup.number("cornerHours"),
            costs.rate(),
            costs.helper(),
            costs.before(),
            setup.number("cornerMinutes"),
            0,
            0,
            costs.coming()),
        setup.number("spread"),
        JigMaker.SEED);
  }

  /// Whether to build it, in a sentence; where it likely does not pay, what a corner would do.
  public String verdict() {
    if (probes().isEmpty()) {
      return "no probe reaches anything: there is no jig to build";
    }
    BreakEven c = corner();
    return worth.words()
        + (worth.pays() > 0.5 || !(c.boards() < worth.boards())
            ? ""
            : String.format(
                java.util.Locale.ROOT,
                "; a corner with four probes pressed on by hand pays after %.0f",
                c.boards()));
  }

  /// Sheet as it is sold, millimetre.
  private static final double[] SHEETS = {3, 4, 5, 6, 8, 10, 12, 15, 20, 25};

  /// Poisson's ratio of acrylic, from memory.
  private static final double ACRYLIC = 0.37;

  /// How thick the plates are, millimetre: as said, else the thinnest sheet that bends little
  /// enough under all probes, evenly loaded and held along its edges; the thickest where none does.
  public double plateMm() {
    double said = setup.mm("plate");
    if (said > 0) {
      return said;
    }
    for (double t : SHEETS) {
      if (plateBend(t) <= setup.number("plateBend")) {
        return t;
      }
    }
    return SHEETS[SHEETS.length - 1];
  }

  /// How far a plate of a thickness bends, m.
  ///
  /// @param mm above 0
  public double plateBend(double mm) {
    double[] box = Plates.of(this).boxMm();
    double l = 1e-3 * (box[2] - box[0]);
    double w = 1e-3 * (box[3] - box[1]);
    double most = Math.max(force(Side.FIRST), force(Side.SECOND));
    return PlateSeries.of(l, w, 1e-3 * mm, setup.number("plateModulus"), ACRYLIC, most / (l * w))
        .deflection();
  }

  /// How many probes of each series.
  public Map<String, Integer> counts() {
    Map<String, Integer> n = new java.util.LinkedHashMap<>();
    probes().forEach(p -> n.merge(p.of().name(), 1, Integer::sum));
    return n;
  }
}
