package ell.core.jig;

import ell.core.artwork.Drilling;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// The two tooling pins: a round one that holds the board, and a slotted one far from it that keeps
/// it from turning.
///
/// @param round hole of the round pin
/// @param slot hole of the slotted one
/// @param made true when the board has no such holes, and corners stand for them
/// @param told what is to be said of that
public record Tooling(Hole round, Hole slot, boolean made, List<String> told) {
  /// Holes that take a pin, millimetre; common practice, no source.
  private static final double LEAST = 1.5;

  private static final double MOST = 6.5;

  /// A pin is thinner than its hole by so much, millimetre.
  public static final double THINNER = 0.1;

  /// Pins nearer than this hold no board straight, as a share of its diagonal; common practice.
  private static final double FAR = 0.35;

  /// A hole.
  ///
  /// @param diameterMm of the hole
  /// @param plated whether it is; bare holes are drilled truer to the copper's drawing
  public record Hole(double xMm, double yMm, double diameterMm, boolean plated, String name) {}

  public Tooling {
    told = List.copyOf(told);
  }

  /// Where the pins are, as landing wants it.
  public Landing.Pins pins() {
    return new Landing.Pins(round.xMm, round.yMm, slot.xMm, slot.yMm);
  }

  /// The distance of the pins, millimetre.
  public double apartMm() {
    return Math.hypot(slot.xMm - round.xMm, slot.yMm - round.yMm);
  }

  /// Chooses: of all pairs of holes the one that lies farthest apart, bare ones before plated ones
  /// of about the same distance; the round pin where more of `near` is.
  ///
  /// @param bare holes of the drill files
  /// @param near places that must be hit, `{x, y}` in millimetre
  public static Tooling of(Revision r, Optional<Drilling> bare, List<double[]> near) {
    List<Hole> holes = holes(r, bare);
    double[] box = r.boxMm();
    double diagonal = Math.hypot(box[2] - box[0], box[3] - box[1]);
    Hole a = null;
    Hole b = null;
    double best = 0;
    for (int i = 0; i < holes.size(); i++) {
      for (int k = i + 1; k < holes.size(); k++) {
        Hole x = holes.get(i);
        Hole y = holes.get(k);
        double d = Math.hypot(x.xMm - y.xMm, y.yMm - x.yMm);
        double worth = d * (x.plated ? 0.9 : 1) * (y.plated ? 0.9 : 1);
        if (d >= FAR * diagonal && worth > best) {
          best = worth;
          a = x;
          b = y;
        }
      }
    }
    List<String> told = new ArrayList<>();
    boolean made = a == null;
    if (made) {
      double in = 2.5;
      a = new Hole(box[0] + in, box[1] + in, 3.2, false, "corner");
      b = new Hole(box[2] - in, box[3] - in, 3.2, false, "corner");
      told.add(
          holes.isEmpty()
              ? "no tooling holes are known (bare holes of 1.5 to 6.5 mm): two corners stand for"
                  + " them; give the drill file, or hold the board at its edges"
              : "the holes that a pin could use lie too near to each other: two corners stand for"
                  + " them");
    } else if (a.plated || b.plated) {
      told.add(
          "a tooling pin stands in a plated hole, which is wider spread than a bare one: measure"
              + " the hole before the pin is turned");
    }
    return near(a, b, near) ? new Tooling(a, b, made, told) : new Tooling(b, a, made, told);
  }

  private static boolean near(Hole a, Hole b, List<double[]> near) {
    double sum = 0;
    for (double[] p : near) {
      sum += Math.hypot(p[0] - a.xMm, p[1] - a.yMm) - Math.hypot(p[0] - b.xMm, p[1] - b.yMm);
    }
    return sum <= 0;
  }

  /// Holes that could take a pin.
  static List<Hole> holes(Revision r, Optional<Drilling> bare) {
    List<Hole> all = new ArrayList<>();
    for (Joint j : r.joints()) {
      PartKind kind = r.part(j.part()).map(p -> p.kind()).orElse(PartKind.of(j.part()));
      boolean empty = r.part(j.part()).map(p -> !p.fitted()).orElse(true) || kind == PartKind.MARK;
      if (j.hole() && fits(j.drillMm()) && empty && (kind == PartKind.MARK || !j.connected())) {
        all.add(new Hole(j.xMm(), j.yMm(), j.drillMm(), j.plated(), j.part()));
      }
    }
    bare.ifPresent(d ->
        d.holes().stream()
            .filter(h -> !h.slot() && fits(h.diameter()))
            .filter(h -> h.plated().map(p -> !p).orElse(true))
            .filter(h -> !joint(r, h.x(), h.y()))
            .forEach(h ->
                add(
                    all,
                    new Hole(
                        h.x(),
                        h.y(),
                        h.diameter(),
                        h.plated().orElse(false),
                        name(h.x(), h.y())))));
    r.outline().loops().stream()
        .skip(1)
        .map(Tooling::circle)
        .flatMap(Optional::stream)
        .filter(h -> fits(h.diameterMm))
        .forEach(h -> add(all, h));
    all.sort(Comparator.comparingDouble(Hole::xMm).thenComparingDouble(Hole::yMm));
    return all;
  }

  private static String name(double x, double y) {
    return String.format(Locale.ROOT, "hole %.2f %.2f", x, y);
  }

  private static void add(List<Hole> all, Hole h) {
    if (all.stream().noneMatch(o -> Math.hypot(o.xMm - h.xMm, o.yMm - h.yMm) < 0.3)) {
      all.add(h);
    }
  }

  private static boolean joint(Revision r, double x, double y) {
    return r.joints().stream().anyMatch(j -> Math.hypot(j.xMm() - x, j.yMm() - y) < 0.3);
  }

  private static boolean fits(double d) {
    return d >= LEAST && d <= MOST;
  }

  /// A loop that is a circle.
  private static Optional<Hole> circle(List<Outline.Point> loop) {
    if (loop.size() < 8) {
      return Optional.empty();
    }
    double x = loop.stream().mapToDouble(Outline.Point::xMm).average().orElse(0);
    double y = loop.stream().mapToDouble(Outline.Point::yMm).average().orElse(0);
    double least = Double.POSITIVE_INFINITY;
    double most = 0;
    for (Outline.Point p : loop) {
      double d = Math.hypot(p.xMm() - x, p.yMm() - y);
      least = Math.min(least, d);
      most = Math.max(most, d);
    }
    return most - least < 0.06 * most
        ? Optional.of(new Hole(x, y, Math.round(100 * (least + most)) / 100.0, false, name(x, y)))
        : Optional.empty();
  }
}
