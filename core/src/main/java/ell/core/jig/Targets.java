package ell.core.jig;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.order.Bodies;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;

/// Every place where a probe could land on some nets, and why others are none.
public final class Targets {
  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  /// Room between a head and a body, millimetre; common practice, no source.
  private static final double HEAD_ROOM = 0.25;

  /// Wall of a plate between a hole and a recess for a tall part, millimetre; common practice.
  private static final double WALL = 0.5;

  /// A strip of a pad beside its body that a probe may land on is no narrower, millimetre.
  private static final double STRIP = 0.35;

  /// Metal of another net may come so near to the tip's error, millimetre.
  private static final double APART = 0.1;

  /// Sizes that are taken where the files say none, millimetre; typical.
  private static final double POINT_MM = 1.0;

  private static final double RING_MM = 0.25;
  private static final double DRILL_MM = 0.8;
  private static final double PAD_MM = 0.5;

  /// What was found.
  ///
  /// @param targets places where a probe could land
  /// @param refused by net, why its other places are none, with how many
  /// @param assumed places whose size is not in the files
  public record Found(
      List<Target> targets, Map<String, Map<String, Integer>> refused, int assumed) {
    public Found {
      targets = List.copyOf(targets);
      refused = Map.copyOf(refused);
    }
  }

  private final Revision revision;
  private final Set<TargetKind> kinds;
  private final Set<Side> sides;
  private final JigSetup setup;
  private final Landing.Pins pins;
  private final Map<Side, STRtree> bodies = new EnumMap<>(Side.class);
  private final Map<Side, STRtree> metal = new EnumMap<>(Side.class);
  private final PreparedGeometry board;
  private final Geometry edge;
  private final Map<String, Map<String, Integer>> refused = new HashMap<>();
  private final List<Target> found = new ArrayList<>();
  private int assumed;

  private record Body(Part part, Geometry outline, double heightMm) {}

  private Targets(
      Revision revision,
      List<Joint> vias,
      Set<TargetKind> kinds,
      Set<Side> sides,
      JigSetup setup,
      Landing.Pins pins) {
    this.revision = revision;
    this.kinds = kinds;
    this.sides = sides;
    this.setup = setup;
    this.pins = pins;
    for (Side s : Side.values()) {
      bodies.put(s, new STRtree());
      metal.put(s, new STRtree());
    }
    for (Part p : revision.parts()) {
      if (p.fitted() && !p.kind().bare() && p.place().isPresent() && !edgeContact(p)) {
        var shape = revision.shape(p);
        Geometry g = Bodies.outline(shape, p.place().get());
        bodies.get(p.side()).insert(g.getEnvelopeInternal(), new Body(p, g, shape.heightMm()));
      }
    }
    for (List<Joint> all : List.of(revision.joints(), vias)) {
      for (Joint j : all) {
        for (Side s : Side.values()) {
          if (free(j, s)) {
            double half = Math.max(width(j), height(j)) / 2;
            metal
                .get(s)
                .insert(
                    new Envelope(j.xMm() - half, j.xMm() + half, j.yMm() - half, j.yMm() + half),
                    j);
          }
        }
      }
    }
    Polygon area = polygon(revision.outline());
    board = area == null ? null : PreparedGeometryFactory.prepare(area);
    edge = area == null ? null : area.getBoundary();
  }

  /// The board as an area, null when no outline is known.
  static Polygon polygon(Outline outline) {
    if (outline.loops().isEmpty()) {
      return null;
    }
    List<LinearRing> rings = new ArrayList<>();
    for (List<Outline.Point> loop : outline.loops()) {
      Coordinate[] c = new Coordinate[loop.size() + 1];
      for (int i = 0; i < loop.size(); i++) {
        c[i] = new Coordinate(loop.get(i).xMm(), loop.get(i).yMm());
      }
      c[loop.size()] = c[0].copy();
      rings.add(GEOMETRY.createLinearRing(c));
    }
    Polygon whole = GEOMETRY.createPolygon(rings.getFirst());
    if (!whole.isValid()) {
      return null;
    }
    List<LinearRing> holes =
        rings.stream()
            .skip(1)
            .filter(r ->
                GEOMETRY.createPolygon(r).isValid() && whole.contains(GEOMETRY.createPolygon(r)))
            .toList();
    return GEOMETRY.createPolygon(rings.getFirst(), holes.toArray(LinearRing[]::new));
  }

  /// Finds the targets of nets.
  ///
  /// @param vias holes that only join layers
  /// @param kinds that may be used
  /// @param sides that probes may come from
  public static Found of(
      Revision revision,
      List<Joint> vias,
      Collection<String> nets,
      Set<TargetKind> kinds,
      Set<Side> sides,
      JigSetup setup,
      Landing.Pins pins) {
    Targets t = new Targets(revision, vias, kinds, sides, setup, pins);
    for (String net : nets) {
      for (Joint j : revision.net(net)) {
        t.joint(j);
      }
    }
    Set<String> wanted = Set.copyOf(nets);
    for (Joint v : vias) {
      if (wanted.contains(v.net())) {
        t.at(v, TargetKind.VIA, Side.SECOND);
        t.at(v, TargetKind.VIA, Side.FIRST);
      }
    }
    return new Found(t.found, t.refused, t.assumed);
  }

  /// Kinds by the words that they are asked for with: points, holes, vias, pads.
  ///
  /// @throws IllegalArgumentException for another word
  public static Set<TargetKind> kinds(Collection<String> words) {
    Set<TargetKind> all = EnumSet.noneOf(TargetKind.class);
    for (String w : words) {
      switch (w.strip().toLowerCase(Locale.ROOT)) {
        case "points", "point" -> all.add(TargetKind.POINT);
        case "holes", "hole", "pins", "pin" -> {
          all.add(TargetKind.HOLE);
          all.add(TargetKind.PIN);
        }
        case "vias", "via" -> all.add(TargetKind.VIA);
        case "pads", "pad", "fingers", "finger" -> {
          all.add(TargetKind.PAD);
          all.add(TargetKind.FINGER);
        }
        default ->
            throw new IllegalArgumentException(
                "targets are points, holes, pads and vias, found '" + w.strip() + "'");
      }
    }
    return all;
  }

  private static boolean free(Joint j, Side s) {
    int bit = s == Side.FIRST ? 1 : 2;
    return (j.mask() & bit) == 0
        && switch (j.reach()) {
          case BOTH -> true;
          case FIRST -> s == Side.FIRST;
          case SECOND -> s == Side.SECOND;
          case NONE -> false;
        };
  }

  private static boolean edgeContact(Part p) {
    return (p.packageName() + " " + p.value() + " " + p.description())
        .toUpperCase(Locale.ROOT)
        .matches(".*(EDGE[-_ ]?(FINGER|CONTACT|CON|CARD)|GOLD[-_ ]?FINGER|CARD[-_ ]?EDGE).*");
  }

  private void joint(Joint j) {
    Part part = revision.part(j.part()).orElse(null);
    boolean fitted = part != null && part.fitted() && !part.kind().bare();
    if (PartKind.of(j.part()) == PartKind.TEST_POINT
        || part != null && part.kind() == PartKind.TEST_POINT) {
      at(j, j.hole() ? TargetKind.HOLE : TargetKind.POINT, Side.SECOND);
      at(j, j.hole() ? TargetKind.HOLE : TargetKind.POINT, Side.FIRST);
    } else if (j.hole()) {
      for (Side s : List.of(Side.SECOND, Side.FIRST)) {
        at(j, fitted ? TargetKind.PIN : TargetKind.HOLE, s);
      }
    } else {
      TargetKind kind = part != null && edgeContact(part) ? TargetKind.FINGER : TargetKind.PAD;
      at(j, kind, Side.SECOND);
      at(j, kind, Side.FIRST);
    }
  }

  private void no(Joint j, String why) {
    refused.computeIfAbsent(j.net(), _ -> new LinkedHashMap<>()).merge(why, 1, Integer::sum);
  }

  private static double width(Joint j) {
    return j.widthMm() > 0 ? j.widthMm() : j.heightMm() > 0 ? j.heightMm() : guess(j);
  }

  private static double height(Joint j) {
    // a round pad has one size in its record
    return j.heightMm() > 0 ? j.heightMm() : width(j);
  }

  private static double guess(Joint j) {
    return j.hole()
        ? (j.drillMm() > 0 ? j.drillMm() : DRILL_MM) + 2 * RING_MM
        : PartKind.of(j.part()) == PartKind.TEST_POINT ? POINT_MM : PAD_MM;
  }

  private void at(Joint j, TargetKind kind, Side side) {
    if (!free(j, side)) {
      if (j.reach() == Joint.Reach.NONE || (j.mask() & (side == Side.FIRST ? 1 : 2)) != 0) {
        no(j, j.mask() != 0 ? "under mask" : "inside the board");
      }
      return;
    }
    if (!kinds.contains(kind)) {
      no(j, "a " + kind.key() + ", which is not asked for");
      return;
    }
    if (!sides.contains(side)) {
      no(j, "only from the " + side.key() + " side");
      return;
    }
    double[] place = {j.xMm(), j.yMm(), width(j), height(j)};
    Part own = revision.part(j.part()).orElse(null);
    if (own != null && own.side() == side && !beside(j, own, place, side)) {
      no(j, "under the body of " + own.reference());
      return;
    }
    Point at = GEOMETRY.createPoint(new Coordinate(place[0], place[1]));
    if (board != null && !board.contains(at)) {
      no(j, "outside the board");
      return;
    }
    if (board != null && kind != TargetKind.FINGER && edge.distance(at) < setup.mm("edge")) {
      no(j, "at the very edge");
      return;
    }
    boolean round = j.heightMm() <= 0 && !(kind == TargetKind.PAD && j.widthMm() <= 0);
    boolean guessed = j.widthMm() <= 0 && j.heightMm() <= 0;
    Target t =
        new Target(
            j.net(),
            kind == TargetKind.VIA
                ? String.format(Locale.ROOT, "via %.2f %.2f", j.xMm(), j.yMm())
                : j.place(),
            place[0],
            place[1],
            side,
            kind,
            place[2],
            place[3],
            round,
            j.rotationDeg(),
            guessed,
            List.of(),
            List.of());
    List<ProbeSeries> fits = new ArrayList<>();
    List<Double> misses = new ArrayList<>();
    String why = "";
    for (ProbeSeries s : setup.series()) {
      String hinders = hinders(t, s, at);
      if (hinders.isEmpty()) {
        Landing.Error e = Landing.at(t.xMm(), t.yMm(), pins, setup.errors(), s.tiltMm());
        double miss =
            Landing.miss(
                t.xMm(),
                t.yMm(),
                pins,
                setup.errors(),
                s.tiltMm(),
                t.widthMm(),
                t.heightMm(),
                round,
                Math.toRadians(t.rotationDeg()));
        if (miss > setup.number("mostMiss")) {
          hinders = "too small to be hit";
        } else if (foreign(t, s, e.rss())) {
          hinders = "metal of another net too near";
        } else {
          fits.add(s);
          misses.add(miss);
          continue;
        }
      }
      why = hinders;
    }
    if (fits.isEmpty()) {
      no(j, why);
    } else {
      assumed += guessed ? 1 : 0;
      found.add(t.with(fits, misses));
    }
  }

  /// Moves a place on the body's own side to what of its pad is not under the body.
  private boolean beside(Joint j, Part own, double[] place, Side side) {
    if (!own.fitted() || own.place().isEmpty() || own.kind().bare() || edgeContact(own)) {
      return true;
    }
    Geometry body = Bodies.outline(revision.shape(own), own.place().get());
    Point at = GEOMETRY.createPoint(new Coordinate(place[0], place[1]));
    double near = body.distance(at);
    if (j.hole()) {
      return near > 0 || !body.contains(at);
    }
    double c = Math.abs(Math.cos(Math.toRadians(j.rotationDeg())));
    double s = Math.abs(Math.sin(Math.toRadians(j.rotationDeg())));
    double w = (place[2] * c + place[3] * s) / 2;
    double h = (place[2] * s + place[3] * c) / 2;
    Geometry pad =
        GEOMETRY.toGeometry(new Envelope(place[0] - w, place[0] + w, place[1] - h, place[1] + h));
    if (!pad.intersects(body)) {
      return true;
    }
    Geometry rest = pad.difference(body.buffer(0.02, 2));
    Geometry widest = null;
    for (int i = 0; i < rest.getNumGeometries(); i++) {
      if (widest == null || rest.getGeometryN(i).getArea() > widest.getArea()) {
        widest = rest.getGeometryN(i);
      }
    }
    if (widest == null || widest.isEmpty()) {
      return false;
    }
    Envelope e = widest.getEnvelopeInternal();
    if (e.getWidth() < STRIP || e.getHeight() < STRIP || widest.getArea() < 0.6 * e.getArea()) {
      return false;
    }
    boolean turned = s > c;
    place[0] = e.centre().x;
    place[1] = e.centre().y;
    place[2] = turned ? e.getHeight() : e.getWidth();
    place[3] = turned ? e.getWidth() : e.getHeight();
    return true;
  }

  private String hinders(Target t, ProbeSeries s, Point at) {
    double head = s.drillMm() * 0.3 + HEAD_ROOM;
    double wall = s.drillMm() / 2 + WALL;
    double reach = Math.max(head, wall);
    Envelope near = new Envelope(at.getCoordinate());
    near.expandBy(reach);
    for (Object o : bodies.get(t.side()).query(near)) {
      Body b = (Body) o;
      double d = b.outline.distance(at);
      boolean own = t.place().startsWith(b.part.reference() + ".");
      if (b.heightMm > setup.mm("tall") && d < wall) {
        return "beside the tall " + b.part.reference();
      }
      if (!own && d < head) {
        return "no room beside " + b.part.reference();
      }
    }
    return "";
  }

  private boolean foreign(Target t, ProbeSeries s, double rss) {
    double reach = rss + APART;
    Envelope near =
        new Envelope(t.xMm() - reach, t.xMm() + reach, t.yMm() - reach, t.yMm() + reach);
    for (Object o : metal.get(t.side()).query(near)) {
      Joint j = (Joint) o;
      if (j.net().equals(t.net()) && j.connected()) {
        continue;
      }
      double c = Math.cos(Math.toRadians(j.rotationDeg()));
      double n = Math.sin(Math.toRadians(j.rotationDeg()));
      double dx = t.xMm() - j.xMm();
      double dy = t.yMm() - j.yMm();
      double x = Math.max(0, Math.abs(dx * c + dy * n) - width(j) / 2);
      double y = Math.max(0, Math.abs(-dx * n + dy * c) - height(j) / 2);
      if (Math.hypot(x, y) < reach) {
        return true;
      }
    }
    return false;
  }
}
