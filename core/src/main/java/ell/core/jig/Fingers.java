package ell.core.jig;

import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.order.Bodies;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.index.strtree.STRtree;

/// Where fingers press against the probes: no more than are needed to keep the board straight
/// enough, clear of parts, not beside what a bent board cracks.
final class Fingers {
  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  /// A finger of plastic gives way by so little: N/m; typical.
  private static final double STIFF = 1e6;

  private static final int COARSE = 30;
  private static final int FINE = 60;
  private static final int PLACES = 700;
  private static final int TRIES = 24;
  private static final int ROUNDS = 12;

  /// A finer mesh may find a little more than the one that is chosen by.
  private static final double ENOUGH = 0.93;

  /// From this length on a ceramic capacitor cracks when its board bends, millimetre; common
  /// practice, no source.
  private static final double BRITTLE_MM = 2.0;

  private final Revision revision;
  private final JigSetup setup;
  private final List<Plate.Spot> at = new ArrayList<>();
  private final double[] forces;
  private final Side side;
  private final Polygon area;
  private final List<Part> brittle;
  private final List<String> told = new ArrayList<>();
  private final List<Probe> probes;
  private final double radius;
  private final boolean rests;

  private Fingers(Revision revision, List<Probe> probes, JigSetup setup) {
    this.revision = revision;
    this.setup = setup;
    this.probes = probes;
    this.radius = setup.mm("fingerRadius");
    double sum = 0;
    for (Probe p : probes) {
      sum += (p.target().side() == Side.SECOND ? 1 : -1) * p.of().newtons();
    }
    double up = sum >= 0 ? 1 : -1;
    this.side = up > 0 ? Side.FIRST : Side.SECOND;
    this.rests = probes.stream().map(p -> p.target().side()).distinct().count() > 1;
    this.forces = new double[probes.size()];
    double tip = Math.max(0.3e-3, setup.number("thickness") / 2);
    for (int i = 0; i < forces.length; i++) {
      Target t = probes.get(i).target();
      forces[i] = up * (t.side() == Side.SECOND ? 1 : -1) * probes.get(i).of().newtons();
      at.add(new Plate.Spot(1e-3 * t.xMm(), 1e-3 * t.yMm(), tip));
    }
    Polygon known = Targets.polygon(revision.outline());
    double[] b = revision.boxMm();
    this.area =
        known != null ? known : (Polygon) GEOMETRY.toGeometry(new Envelope(b[0], b[2], b[1], b[3]));
    if (known == null) {
      told.add("no outline is known: the board is taken as the rectangle around its joints");
    }
    if (rests) {
      told.add(
          "probes push from both sides: a rest lies under each finger, and the board is held"
              + " between them");
    }
    this.brittle =
        revision.parts().stream()
            .filter(p -> p.fitted() && p.place().isPresent() && p.kind() == PartKind.CAPACITOR)
            .filter(p -> {
              var s = revision.shape(p);
              return !s.chipCode().isEmpty() && Math.max(s.lengthMm(), s.widthMm()) >= BRITTLE_MM;
            })
            .toList();
  }

  static Bending of(Revision revision, List<Probe> probes, JigSetup setup) {
    return new Fingers(revision, probes, setup).run();
  }

  private Plate plate(int across) {
    return new Plate(
        area, setup.number("thickness"), setup.number("modulus"), setup.number("poisson"), across);
  }

  private Bending run() {
    if (probes.isEmpty()) {
      return none("no probe presses");
    }
    Plate coarse = plate(COARSE);
    List<double[]> said = setup.fingers();
    List<double[]> places = said.isEmpty() ? places() : List.of();
    List<Bending.Step> steps = new ArrayList<>();
    List<double[]> chosen = said.isEmpty() ? choose(coarse, places, steps) : said;
    if (!said.isEmpty()) {
      check(said);
    }
    Optional<Plate.Bent> first = bent(coarse, chosen);
    Plate fine = plate(FINE);
    Optional<Plate.Bent> last = bent(fine, chosen);
    if (first.isEmpty() || last.isEmpty()) {
      told.add(
          said.isEmpty()
              ? "no fingers were found that hold the board: there is no room for them, or the"
                  + " probes push where nothing can press against them"
              : "these fingers do not hold the board: it tips over");
      return none("");
    }
    Plate.Bent b = last.get();
    if (b.most() > setup.number("thickness")) {
      told.add(
          "the board would bend by more than its own thickness, for which small bending is no"
              + " theory: the fingers do not hold it");
      return none("");
    }
    double even = Math.abs(b.most() - first.get().most()) / Math.max(1e-12, b.most());
    return result(b, chosen, steps, even);
  }

  private Bending result(
      Plate.Bent b, List<double[]> chosen, List<Bending.Step> steps, double even) {
    List<Bending.Finger> fingers = new ArrayList<>();
    double[] bears = b.reactions();
    for (int i = 0; i < chosen.size(); i++) {
      fingers.add(new Bending.Finger(chosen.get(i)[0], chosen.get(i)[1], bears[i]));
      if (!rests && bears[i] <= 0) {
        told.add(
            String.format(
                Locale.ROOT,
                "the finger at %.1f, %.1f mm bears nothing: the board leaves it",
                chosen.get(i)[0],
                chosen.get(i)[1]));
      }
    }
    List<Bending.Brittle> cracks = new ArrayList<>();
    for (Part p : brittle) {
      cracks.add(
          new Bending.Brittle(
              p.reference(),
              under(b, p),
              nearest(chosen, p.place().get().xMm(), p.place().get().yMm())));
    }
    cracks.sort(Comparator.comparingDouble(Bending.Brittle::strain).reversed());
    double limit = setup.number("strainLimit");
    if (!cracks.isEmpty() && cracks.getFirst().strain() > limit) {
      told.add(
          String.format(
              Locale.ROOT,
              "%s is strained by %.0f millionths, and %.0f crack a ceramic capacitor: press nearer"
                  + " to the probes, or less",
              cracks.getFirst().part(),
              1e6 * cracks.getFirst().strain(),
              1e6 * limit));
    }
    if (b.mostStrain() > limit) {
      double[] at = b.weakest();
      told.add(
          String.format(
              Locale.ROOT,
              "the board is strained by %.0f millionths at %.1f, %.1f mm, more than %.0f: keep"
                  + " ceramic capacitors and balls away from there",
              1e6 * b.mostStrain(),
              1e3 * at[0],
              1e3 * at[1],
              1e6 * limit));
    }
    if (b.most() > setup.number("bendLimit")) {
      told.add(
          String.format(
              Locale.ROOT,
              "the board bends by %.2f mm: more than %.2f mm eats the stroke of the probes",
              1e3 * b.most(),
              setup.mm("bendLimit")));
    }
    double[] weak = b.weakest();
    return new Bending(
        fingers,
        side == Side.FIRST,
        rests,
        true,
        b.most(),
        b.mostStrain(),
        new double[] {1e3 * weak[0], 1e3 * weak[1]},
        cracks,
        steps,
        even,
        b.field(),
        told);
  }

  private Bending none(String why) {
    if (!why.isEmpty()) {
      told.add(why);
    }
    return new Bending(
        List.of(),
        side == Side.FIRST,
        rests,
        false,
        Double.NaN,
        Double.NaN,
        new double[] {0, 0},
        List.of(),
        List.of(),
        0,
        List.of(),
        told);
  }

  /// Said fingers that stand on something.
  private void check(List<double[]> said) {
    STRtree bodies = bodies();
    for (double[] f : said) {
      Geometry disc = GEOMETRY.createPoint(new Coordinate(f[0], f[1])).buffer(radius);
      if (!area.contains(GEOMETRY.createPoint(new Coordinate(f[0], f[1])))) {
        told.add(
            String.format(Locale.ROOT, "the finger at %.1f, %.1f mm is off the board", f[0], f[1]));
        continue;
      }
      for (Object o : bodies.query(disc.getEnvelopeInternal())) {
        Body b = (Body) o;
        if (b.outline.intersects(disc)) {
          told.add(
              String.format(
                  Locale.ROOT,
                  "the finger at %.1f, %.1f mm stands on %s",
                  f[0],
                  f[1],
                  b.part.reference()));
        }
      }
    }
  }

  private double under(Plate.Bent b, Part p) {
    double most = 0;
    var box = revision.shape(p).boxAt(p.place().orElseThrow());
    for (int i = 0; i <= 4; i++) {
      for (int k = 0; k <= 2; k++) {
        double s =
            b.strain(
                1e-3 * (box[0] + (box[2] - box[0]) * i / 4),
                1e-3 * (box[1] + (box[3] - box[1]) * k / 2));
        most = Double.isNaN(s) ? most : Math.max(most, s);
      }
    }
    return most;
  }

  private static double nearest(List<double[]> places, double x, double y) {
    return places.stream()
        .mapToDouble(f -> Math.hypot(f[0] - x, f[1] - y))
        .min()
        .orElse(Double.NaN);
  }

  private Optional<Plate.Bent> bent(Plate plate, List<double[]> places) {
    if (places.isEmpty()) {
      return Optional.empty();
    }
    return plate.pressed(
        at,
        forces,
        places.stream().map(f -> new Plate.Spot(1e-3 * f[0], 1e-3 * f[1], 1e-3 * radius)).toList(),
        rests,
        STIFF);
  }

  private record Body(Part part, Geometry outline) {}

  private STRtree bodies() {
    STRtree tree = new STRtree();
    for (Part p : revision.parts()) {
      if (p.fitted() && !p.kind().bare() && p.place().isPresent() && (rests || p.side() == side)) {
        Geometry g = Bodies.outline(revision.shape(p), p.place().get());
        tree.insert(g.getEnvelopeInternal(), new Body(p, g));
      }
    }
    return tree;
  }

  /// Places where a finger could stand.
  private List<double[]> places() {
    STRtree bodies = bodies();
    double room = radius + setup.mm("fingerRoom");
    double crack = radius + setup.mm("brittleRoom");
    double pitch = Math.max(1.5, Math.sqrt(area.getArea() / PLACES));
    Envelope e = area.getEnvelopeInternal();
    Geometry edge = area.getBoundary();
    List<double[]> all = new ArrayList<>();
    for (double x = e.getMinX() + pitch / 2; x < e.getMaxX(); x += pitch) {
      for (double y = e.getMinY() + pitch / 2; y < e.getMaxY(); y += pitch) {
        var p = GEOMETRY.createPoint(new Coordinate(x, y));
        if (area.contains(p) && edge.distance(p) >= radius && clear(p, bodies, room, crack)) {
          all.add(new double[] {x, y});
        }
      }
    }
    return all;
  }

  private boolean clear(
      org.locationtech.jts.geom.Point p, STRtree bodies, double room, double crack) {
    Envelope near = new Envelope(p.getCoordinate());
    near.expandBy(Math.max(room, crack));
    for (Object o : bodies.query(near)) {
      Body b = (Body) o;
      if (b.outline.distance(p) < (brittle.contains(b.part) ? crack : room)) {
        return false;
      }
    }
    for (Part c : brittle) {
      if (c.side() != side
          && Bodies.outline(revision.shape(c), c.place().orElseThrow()).distance(p) < crack) {
        return false;
      }
    }
    for (Probe x : probes) {
      if ((rests || x.target().side() == side)
          && Math.hypot(x.target().xMm() - p.getX(), x.target().yMm() - p.getY())
              < radius + x.of().spacingMm() / 2 + 0.5) {
        return false;
      }
    }
    return true;
  }

  /// At the corners of the probes, or in the middle of heaps of them: the fewest that are enough,
  /// or the best of as many as there may be.
  private List<double[]> choose(Plate plate, List<double[]> places, List<Bending.Step> steps) {
    List<double[]> best = new ArrayList<>();
    if (places.isEmpty()) {
      return best;
    }
    List<double[]> corners = new ArrayList<>();
    for (double[] c : corners()) {
      add(corners, places, c[0], c[1]);
    }
    double[] worth = {worth(plate, corners, steps, true)};
    best = corners;
    int most = (int) setup.number("mostFingers");
    for (int k = 4; worth[0] > ENOUGH && k <= most && k <= Math.max(4, probes.size()); k++) {
      List<double[]> heaps = heaps(places, k);
      if (heaps.size() < 3) {
        continue;
      }
      double w = worth(plate, heaps, steps, true);
      if (w < worth[0]) {
        worth[0] = w;
        best = heaps;
      }
    }
    while (worth[0] > ENOUGH && best.size() < most) {
      // what is left: a finger where the board rises most
      double[] at = worst(plate, best);
      List<double[]> more = new ArrayList<>(best);
      if (!add(more, places, at[0], at[1])) {
        break;
      }
      double w = worth(plate, more, steps, true);
      if (w >= worth[0]) {
        break;
      }
      worth[0] = w;
      best = more;
    }
    shift(plate, places, best, worth);
    idle(plate, best, worth);
    return best;
  }

  /// The probes in heaps, each about the middle of its forces (Lloyd), and the place nearest to
  /// each middle.
  private List<double[]> heaps(List<double[]> places, int count) {
    List<double[]> middles = new ArrayList<>();
    middles.add(new double[] {1e3 * at.getFirst().x(), 1e3 * at.getFirst().y()});
    while (middles.size() < count) {
      Plate.Spot far =
          at.stream()
              .max(
                  Comparator.comparingDouble(
                      p -> nearestOr(middles, new double[] {1e3 * p.x(), 1e3 * p.y()})))
              .orElseThrow();
      middles.add(new double[] {1e3 * far.x(), 1e3 * far.y()});
    }
    for (int round = 0; round < ROUNDS; round++) {
      double[][] sums = new double[middles.size()][3];
      for (int i = 0; i < at.size(); i++) {
        double x = 1e3 * at.get(i).x();
        double y = 1e3 * at.get(i).y();
        int near = 0;
        for (int m = 1; m < middles.size(); m++) {
          near =
              Math.hypot(middles.get(m)[0] - x, middles.get(m)[1] - y)
                      < Math.hypot(middles.get(near)[0] - x, middles.get(near)[1] - y)
                  ? m
                  : near;
        }
        double f = Math.abs(forces[i]);
        sums[near][0] += f * x;
        sums[near][1] += f * y;
        sums[near][2] += f;
      }
      for (int m = 0; m < sums.length; m++) {
        if (sums[m][2] > 0) {
          middles.set(m, new double[] {sums[m][0] / sums[m][2], sums[m][1] / sums[m][2]});
        }
      }
    }
    List<double[]> chosen = new ArrayList<>();
    middles.forEach(m -> add(chosen, places, m[0], m[1]));
    return chosen;
  }

  /// Fingers that the board leaves are left out, as long as three stand.
  private void idle(Plate plate, List<double[]> chosen, double[] worth) {
    for (int i = chosen.size() - 1; i >= 0 && !rests && chosen.size() > 3; i--) {
      Optional<Plate.Bent> b = bent(plate, chosen);
      if (b.isEmpty() || b.get().reactions()[i] > 0) {
        continue;
      }
      List<double[]> other = new ArrayList<>(chosen);
      other.remove(i);
      double w = worth(plate, other, List.of(), false);
      if (w <= Math.max(ENOUGH, worth[0])) {
        chosen.remove(i);
        worth[0] = w;
      }
    }
  }

  /// The corners of the room that the probes take.
  private List<double[]> corners() {
    double[] b = {Double.MAX_VALUE, Double.MAX_VALUE, -Double.MAX_VALUE, -Double.MAX_VALUE};
    for (Probe p : probes) {
      b[0] = Math.min(b[0], p.target().xMm());
      b[1] = Math.min(b[1], p.target().yMm());
      b[2] = Math.max(b[2], p.target().xMm());
      b[3] = Math.max(b[3], p.target().yMm());
    }
    double grow = 2 * radius;
    return List.of(
        new double[] {b[0] - grow, b[1] - grow},
        new double[] {b[2] + grow, b[3] + grow},
        new double[] {b[0] - grow, b[3] + grow},
        new double[] {b[2] + grow, b[1] - grow});
  }

  private boolean add(List<double[]> chosen, List<double[]> places, double x, double y) {
    Optional<double[]> best =
        places.stream()
            .filter(p -> nearestOr(chosen, p) > 2 * radius + 1)
            .min(Comparator.comparingDouble(p -> Math.hypot(p[0] - x, p[1] - y)));
    best.ifPresent(chosen::add);
    return best.isPresent();
  }

  private static double nearestOr(List<double[]> chosen, double[] p) {
    return chosen.stream()
        .mapToDouble(f -> Math.hypot(f[0] - p[0], f[1] - p[1]))
        .min()
        .orElse(Double.POSITIVE_INFINITY);
  }

  /// How far it is from what is allowed: 1 is just right.
  private double worth(Plate plate, List<double[]> chosen, List<Bending.Step> steps, boolean keep) {
    Optional<Plate.Bent> b = bent(plate, chosen);
    if (b.isEmpty()) {
      if (keep) {
        steps.add(new Bending.Step(chosen.size(), Double.NaN, Double.NaN));
      }
      return 1e6;
    }
    double strain = b.get().mostStrain();
    for (Part p : brittle) {
      strain = Math.max(strain, under(b.get(), p));
    }
    if (keep) {
      steps.add(new Bending.Step(chosen.size(), b.get().most(), strain));
    }
    return Math.max(
        b.get().most() / setup.number("bendLimit"), strain / setup.number("strainLimit"));
  }

  /// Where one more finger is wanted: where the board rises most, or tips.
  private double[] worst(Plate plate, List<double[]> chosen) {
    Optional<Plate.Bent> b = bent(plate, chosen);
    if (b.isEmpty()) {
      double x = 0;
      double y = 0;
      double sum = 0;
      for (int i = 0; i < forces.length; i++) {
        double far = nearest(chosen, 1e3 * at.get(i).x(), 1e3 * at.get(i).y());
        double f = Math.max(0, forces[i]) * (Double.isNaN(far) ? 1 : far);
        x += f * 1e3 * at.get(i).x();
        y += f * 1e3 * at.get(i).y();
        sum += f;
      }
      return sum > 0 ? new double[] {x / sum, y / sum} : new double[] {0, 0};
    }
    double most = -1;
    double[] where = {0, 0};
    for (double[] f : b.get().field()) {
      if (f[2] > most) {
        most = f[2];
        where = new double[] {1e3 * f[0], 1e3 * f[1]};
      }
    }
    double[] weak = b.get().weakest();
    return most / setup.number("bendLimit") > b.get().mostStrain() / setup.number("strainLimit")
        ? where
        : new double[] {1e3 * weak[0], 1e3 * weak[1]};
  }

  /// Each finger to a place beside it, where that bends less.
  private void shift(Plate plate, List<double[]> places, List<double[]> chosen, double[] worth) {
    int tries = TRIES;
    for (int i = 0; i < chosen.size() && tries > 0; i++) {
      double[] from = chosen.get(i);
      List<double[]> beside =
          places.stream()
              .filter(p -> p != from)
              .sorted(Comparator.comparingDouble(p -> Math.hypot(p[0] - from[0], p[1] - from[1])))
              .limit(3)
              .toList();
      for (double[] p : beside) {
        List<double[]> other = new ArrayList<>(chosen);
        other.remove(i);
        if (nearestOr(other, p) <= 2 * radius + 1) {
          continue;
        }
        tries--;
        other.add(i, p);
        double w = worth(plate, other, List.of(), false);
        if (w < worth[0]) {
          worth[0] = w;
          chosen.set(i, p);
        }
      }
    }
  }
}
