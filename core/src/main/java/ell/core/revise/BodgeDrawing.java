package ell.core.revise;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.record.Section.Drawing;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Where a bodge is made: the part of the board around it, with wires, cuts and what is worked at.
/// Millimetre in the board's own axes.
public final class BodgeDrawing {
  private static final double ROOM_MM = 7;
  private static final double LEAST_MM = 24;

  private BodgeDrawing() {}

  /// What is drawn over the board, for any picture of it.
  ///
  /// @param wires from x and y to x and y
  /// @param cuts x and y
  /// @param marks what is worked at, numbered like the steps
  public record Marks(List<double[]> wires, List<double[]> cuts, List<Drawing.Label> marks) {
    public Marks {
      wires = List.copyOf(wires);
      cuts = List.copyOf(cuts);
      marks = List.copyOf(marks);
    }

    /// Whether there is nothing to draw.
    public boolean isEmpty() {
      return wires.isEmpty() && cuts.isEmpty() && marks.isEmpty();
    }
  }

  /// The marks of an erratum's bodge; of one without a bodge, its places.
  public static Marks marks(Erratum e, Revision revision) {
    List<double[]> wires = new ArrayList<>();
    List<double[]> cuts = new ArrayList<>();
    Map<String, List<String>> at = new LinkedHashMap<>();
    Map<String, double[]> where = new LinkedHashMap<>();
    int n = 1;
    for (BodgeStep s : e.bodge()) {
      List<double[]> ends = new ArrayList<>();
      for (Ends.End end : Ends.of(s, revision)) {
        Optional<double[]> p = place(end, revision);
        if (p.isPresent()) {
          ends.add(p.get());
          String label = end.joint().map(Joint::place).orElse(end.place());
          at.computeIfAbsent(label, _ -> new ArrayList<>()).add(String.valueOf(n));
          where.putIfAbsent(label, p.get());
        }
      }
      switch (s.kind()) {
        case WIRE, ADD -> {
          if (ends.size() == 2) {
            wires.add(
                new double[] {ends.get(0)[0], ends.get(0)[1], ends.get(1)[0], ends.get(1)[1]});
          }
        }
        case CUT, LIFT -> {
          if (!ends.isEmpty()) {
            cuts.add(ends.getFirst());
          }
        }
        default -> {} // worked at, and nothing drawn
      }
      n++;
    }
    if (e.bodge().isEmpty()) {
      for (String p : e.places()) {
        place(p, revision)
            .ifPresent(x -> {
              at.put(p, List.of());
              where.put(p, x);
            });
      }
    }
    List<Drawing.Label> marks = new ArrayList<>();
    at.forEach((place, steps) -> {
      double[] p = where.get(place);
      marks.add(
          new Drawing.Label(
              p[0], p[1], steps.isEmpty() ? place : String.join(" ", steps) + " \u00b7 " + place));
    });
    return new Marks(wires, cuts, marks);
  }

  private static Optional<double[]> place(Ends.End end, Revision revision) {
    return end.joint()
        .map(j -> new double[] {j.xMm(), j.yMm()})
        .or(() -> place(end.place(), revision));
  }

  /// Where a joint or a part lies; of a net its first joint.
  private static Optional<double[]> place(String place, Revision revision) {
    Optional<Joint> j = revision.joint(place);
    if (j.isPresent()) {
      return j.map(x -> new double[] {x.xMm(), x.yMm()});
    }
    Optional<double[]> part =
        revision.part(place).flatMap(Part::place).map(s -> new double[] {s.xMm(), s.yMm()});
    if (part.isPresent()) {
      return part;
    }
    List<Joint> own = revision.jointsOf(place);
    return (own.isEmpty() ? revision.net(place) : own)
        .stream().findFirst().map(x -> new double[] {x.xMm(), x.yMm()});
  }

  /// The drawing for a page, empty when the bodge lies nowhere.
  public static Optional<Drawing> of(Erratum e, Revision revision) {
    Marks m = marks(e, revision);
    if (m.isEmpty()) {
      return Optional.empty();
    }
    double[] box = box(m, revision);
    List<double[]> pads = new ArrayList<>();
    for (Joint j : revision.joints()) {
      double w = j.widthMm() > 0 ? j.widthMm() : 0.8;
      double h = j.heightMm() > 0 ? j.heightMm() : 0.8;
      boolean turned = Math.abs(Math.abs(j.rotationDeg() % 180) - 90) < 1;
      double dx = turned ? h : w;
      double dy = turned ? w : h;
      pads.add(new double[] {j.xMm() - dx / 2, j.yMm() - dy / 2, dx, dy});
    }
    List<Drawing.Label> names = new ArrayList<>();
    for (Part p : revision.parts()) {
      p.place()
          .filter(s -> s.side() == Side.FIRST)
          .ifPresent(
              s -> names.add(new Drawing.Label(s.xMm() - 0.8, s.yMm() - 0.4, p.reference())));
    }
    List<double[]> edges = new ArrayList<>();
    for (List<Outline.Point> loop : revision.outline().loops()) {
      double[] line = new double[2 * loop.size() + 2];
      for (int i = 0; i <= loop.size(); i++) {
        line[2 * i] = loop.get(i % loop.size()).xMm();
        line[2 * i + 1] = loop.get(i % loop.size()).yMm();
      }
      edges.add(line);
    }
    return Optional.of(
        new Drawing(
            "seen from the first side", box, edges, pads, names, m.wires(), m.cuts(), m.marks()));
  }

  private static double[] box(Marks m, Revision revision) {
    double[] b = {
      Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY,
      Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY
    };
    m.marks().forEach(p -> stretch(b, p.x(), p.y()));
    m.wires()
        .forEach(w -> {
          stretch(b, w[0], w[1]);
          stretch(b, w[2], w[3]);
        });
    m.cuts().forEach(c -> stretch(b, c[0], c[1]));
    double x = (b[0] + b[2]) / 2;
    double y = (b[1] + b[3]) / 2;
    double w = Math.max(LEAST_MM, b[2] - b[0] + 2 * ROOM_MM) / 2;
    double h = Math.max(LEAST_MM * 2 / 3, b[3] - b[1] + 2 * ROOM_MM) / 2;
    double[] all = revision.boxMm();
    return new double[] {
      Math.max(all[0] - 1, x - w),
      Math.max(all[1] - 1, y - h),
      Math.min(all[2] + 1, x + w),
      Math.min(all[3] + 1, y + h)
    };
  }

  private static void stretch(double[] b, double x, double y) {
    b[0] = Math.min(b[0], x);
    b[1] = Math.min(b[1], y);
    b[2] = Math.max(b[2], x);
    b[3] = Math.max(b[3], y);
  }
}
