package ell.core.jig;

import ell.core.board.Part;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Polygon;

/// What is drilled and cut for a jig. Everything in millimetre, in the board's own axes, as seen
/// from its first side looking down: a plate under the board is drilled from its upper face and is
/// not mirrored; only the view of its wires, from below, is.
///
/// @param all the plates, from below up
/// @param boxMm the room of a plate, `{x0, y0, x1, y1}`
public record Plates(List<Plate> all, double[] boxMm) {
  /// Rim of a plate around the board, common practice, no source.
  private static final double RIM = 15;

  private static final double POST = 3.2;
  private static final double POST_IN = 6;
  private static final double FINGER_SCREW = 3.2;
  private static final double ROOM = 0.5;

  /// A hole.
  ///
  /// @param what `probe`, `pin`, `post`, `finger` or `rest`
  /// @param label number of the probe, or a word
  public record Hole(double xMm, double yMm, double diameterMm, String what, String label) {}

  /// A line that is cut or milled: corners in order, closed.
  ///
  /// @param what `edge`, `board` or `recess`
  public record Line(String what, String label, List<double[]> corners) {
    public Line {
      corners = List.copyOf(corners);
    }
  }

  /// A plate.
  ///
  /// @param name as in its file, such as `probe-plate`
  public record Plate(String name, String title, List<Hole> holes, List<Line> lines) {
    public Plate {
      holes = List.copyOf(holes);
      lines = List.copyOf(lines);
    }
  }

  /// A diameter and how it is reached in brittle sheet.
  ///
  /// @param steps diameters one after the other, the last is the hole's own
  public record Steps(String plate, double diameterMm, int holes, List<Double> steps) {
    public Steps {
      steps = List.copyOf(steps);
    }
  }

  public Plates {
    all = List.copyOf(all);
    boxMm = boxMm.clone();
  }

  /// The plates of a jig.
  public static Plates of(JigPlan p) {
    double[] b = p.revision().boxMm();
    for (Probe x : p.probes()) {
      b[0] = Math.min(b[0], x.target().xMm());
      b[1] = Math.min(b[1], x.target().yMm());
      b[2] = Math.max(b[2], x.target().xMm());
      b[3] = Math.max(b[3], x.target().yMm());
    }
    double[] box = {b[0] - RIM, b[1] - RIM, b[2] + RIM, b[3] + RIM};
    List<Plate> all = new ArrayList<>();
    List<Line> edge = List.of(rectangle("edge", box));
    List<Line> withBoard = new ArrayList<>(edge);
    board(p).forEach(withBoard::add);
    all.add(new Plate("base", "Base", posts(box), edge));
    all.add(
        new Plate(
            "carrier",
            "Carrier board of the tubes",
            probes(p, Side.SECOND, 0.1, false),
            List.of(rectangle("edge", new double[] {b[0] - 3, b[1] - 3, b[2] + 3, b[3] + 3}))));
    List<Hole> probe = new ArrayList<>(posts(box));
    probe.addAll(pins(p, 0));
    probe.addAll(probes(p, Side.SECOND, 0, false));
    all.add(new Plate("probe-plate", "Probe plate", probe, withBoard));
    List<Hole> guide = new ArrayList<>(posts(box));
    guide.addAll(pins(p, Tooling.THINNER));
    guide.addAll(probes(p, Side.SECOND, 0, true));
    boolean below = p.bending().rests() || !p.bending().fingerSide();
    boolean above = p.bending().rests() || p.bending().fingerSide();
    if (below) {
      p.bending()
          .fingers()
          .forEach(f -> guide.add(new Hole(f.xMm(), f.yMm(), FINGER_SCREW, "rest", "rest")));
    }
    List<Line> pocket = new ArrayList<>(withBoard);
    pocket.addAll(recesses(p, Side.SECOND));
    all.add(new Plate("guide-plate", "Guide plate, under the board", guide, pocket));
    List<Hole> finger = new ArrayList<>(posts(box));
    for (Bending.Finger f : p.bending().fingers()) {
      if (above) {
        finger.add(new Hole(f.xMm(), f.yMm(), FINGER_SCREW, "finger", "finger"));
      }
    }
    if (p.topProbes() > 0) {
      // the same plate holds fingers and the probes that come from above
      finger.addAll(probes(p, Side.FIRST, 0, false));
      all.add(
          new Plate("top-plate", "Top plate: fingers and probes from above", finger, withBoard));
    } else {
      all.add(new Plate("finger-plate", "Finger plate, above the board", finger, withBoard));
    }
    return new Plates(all, box);
  }

  /// How each diameter of each plate is reached: from one millimetre up, no step more than 1.8
  /// times the one before. Common practice, no source.
  public List<Steps> steps() {
    List<Steps> out = new ArrayList<>();
    for (Plate p : all) {
      p.holes().stream()
          .map(h -> round(h.diameterMm()))
          .distinct()
          .sorted()
          .forEach(d -> {
            List<Double> steps = new ArrayList<>();
            double at = Math.min(1.0, d);
            steps.add(at);
            while (at < d - 1e-9) {
              at = at * 1.8 >= d ? d : Math.floor(at * 18) / 10;
              steps.add(at);
            }
            int n = (int) p.holes().stream().filter(h -> round(h.diameterMm()) == d).count();
            out.add(new Steps(p.name(), d, n, steps));
          });
    }
    return out;
  }

  private static double round(double d) {
    return Math.round(d * 1000) / 1000.0;
  }

  /// The plate of a name.
  ///
  /// @throws IllegalArgumentException when there is none
  public Plate named(String name) {
    return all.stream()
        .filter(p -> p.name().equals(name))
        .findFirst()
        .orElseThrow(() -> new IllegalArgumentException("no plate " + name));
  }

  /// The hole that guides the tip of a series, wider than its head, millimetre; typical.
  static double guideMm(ProbeSeries s) {
    return Math.round((s.drillMm() * 0.75 + 0.1) * 20) / 20.0;
  }

  private static List<Hole> posts(double[] b) {
    return List.of(
        new Hole(b[0] + POST_IN, b[1] + POST_IN, POST, "post", "post"),
        new Hole(b[2] - POST_IN, b[1] + POST_IN, POST, "post", "post"),
        new Hole(b[2] - POST_IN, b[3] - POST_IN, POST, "post", "post"),
        new Hole(b[0] + POST_IN, b[3] - POST_IN, POST, "post", "post"));
  }

  private static List<Hole> pins(JigPlan p, double wider) {
    Tooling t = p.tooling();
    return List.of(
        new Hole(
            t.round().xMm(),
            t.round().yMm(),
            t.round().diameterMm() - Tooling.THINNER + wider,
            "pin",
            "round pin"),
        new Hole(
            t.slot().xMm(),
            t.slot().yMm(),
            t.slot().diameterMm() - Tooling.THINNER + wider,
            "pin",
            "slotted pin"));
  }

  private static List<Hole> probes(JigPlan p, Side side, double wider, boolean guide) {
    return p.probes().stream()
        .filter(x -> x.target().side() == side)
        .map(x ->
            new Hole(
                x.target().xMm(),
                x.target().yMm(),
                guide ? guideMm(x.of()) : x.of().drillMm() + wider,
                "probe",
                String.valueOf(x.number())))
        .toList();
  }

  private static Line rectangle(String what, double[] b) {
    return new Line(
        what,
        "",
        List.of(
            new double[] {b[0], b[1]},
            new double[] {b[2], b[1]},
            new double[] {b[2], b[3]},
            new double[] {b[0], b[3]}));
  }

  private static List<Line> board(JigPlan p) {
    Polygon area = Targets.polygon(p.revision().outline());
    if (area == null) {
      return List.of(rectangle("board", p.revision().boxMm()));
    }
    return List.of(new Line("board", "board", corners(area.getExteriorRing().getCoordinates())));
  }

  private static List<double[]> corners(Coordinate[] c) {
    List<double[]> all = new ArrayList<>();
    for (int i = 0; i < c.length - 1; i++) {
      all.add(new double[] {c[i].x, c[i].y});
    }
    return all;
  }

  /// Pockets over the bodies of a side, deeper than they are tall.
  private static List<Line> recesses(JigPlan p, Side side) {
    List<Line> all = new ArrayList<>();
    p.revision().parts().stream()
        .filter(x -> x.fitted() && !x.kind().bare() && x.place().isPresent() && x.side() == side)
        .sorted(Comparator.comparing(Part::reference))
        .forEach(x -> {
          var shape = p.revision().shape(x);
          Envelope e =
              ell.core.order.Bodies.outline(shape, x.place().orElseThrow()).getEnvelopeInternal();
          e.expandBy(ROOM);
          all.add(
              new Line(
                  "recess",
                  String.format(
                      Locale.ROOT, "%s %.1f deep", x.reference(), shape.heightMm() + ROOM),
                  rectangle(
                          "recess",
                          new double[] {e.getMinX(), e.getMinY(), e.getMaxX(), e.getMaxY()})
                      .corners()));
        });
    return all;
  }
}
