package ell.core.print;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.artwork.Template;
import ell.core.board.Revision;
import ell.core.quantity.Check;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.index.hprtree.HPRtree;

/// A paste layer held against a foil: every opening, the worst of each part, the foil that suits
/// all, and the paste that it takes.
///
/// @param foil thickness, metre
/// @param lines one for each opening, in the order of the layer
/// @param thickest foil of [#FOILS] from which every opening releases, empty when none does
public record StencilCheck(
    double foil, Paste paste, PasteLayer layer, List<Line> lines, OptionalDouble thickest) {
  /// Foils that are usually cut, metre; typical.
  public static final List<Double> FOILS = List.of(0.08e-3, 0.10e-3, 0.12e-3, 0.13e-3, 0.15e-3);

  /// Openings should stay so far apart, metre; typical.
  public static final double WEB = 0.15e-3;

  /// One opening.
  ///
  /// @param areaRatio open area over wall area
  /// @param aspectRatio narrowest width over thickness
  /// @param transfer fraction of the opening that stays on the pad
  /// @param volume of paste that stays, m³
  /// @param solder of it, m³
  /// @param need of its joint, when that can be told
  /// @param verdict whether it releases
  /// @param advice what would make it release; empty when it does
  public record Line(
      Opening opening,
      double areaRatio,
      double aspectRatio,
      double transfer,
      double volume,
      double solder,
      Optional<JointNeed> need,
      Verdict verdict,
      String advice) {
    /// How far the deciding ratio is from its line: 1 is on it, more is better.
    public double margin() {
      return opening.aperture().aspectDecides()
          ? aspectRatio / Aperture.GOOD_ASPECT_RATIO
          : areaRatio / Aperture.GOOD_AREA_RATIO;
    }
  }

  public StencilCheck {
    lines = List.copyOf(lines);
  }

  /// Holds a layer against a foil.
  ///
  /// @param foil thickness in metre, 0.01 mm to 2 mm
  /// @throws IllegalArgumentException when foil thickness is out of its range
  public static StencilCheck of(PasteLayer layer, Revision revision, double foil, Paste paste) {
    Check.inRange(foil, 1e-5, 2e-3, "foil thickness");
    Gaps gaps = new Gaps(layer);
    double metal = paste.metalVolumeFraction();
    Map<Template, Release> known = new IdentityHashMap<>();
    List<Line> lines = new ArrayList<>(layer.openings().size());
    double thin = Double.POSITIVE_INFINITY;
    for (Opening o : layer.openings()) {
      Release r = known.computeIfAbsent(o.island().template(), _ -> Release.of(o.aperture(), foil));
      Optional<Advice> change = r.change();
      lines.add(
          new Line(
              o,
              r.areaRatio,
              r.aspectRatio,
              r.transfer,
              r.volume,
              r.volume * metal,
              o.joint().flatMap(j -> JointNeed.of(revision, j)),
              change.isEmpty() ? Verdict.WITHIN : Verdict.OUT,
              change.isEmpty() ? "" : change.get().at(gaps.around(o))));
      thin = Math.min(thin, r.limit);
    }
    double most = thin * (1 + 1e-9);
    OptionalDouble thickest =
        lines.isEmpty()
            ? OptionalDouble.empty()
            : FOILS.stream().mapToDouble(Double::doubleValue).filter(t -> t <= most).max();
    return new StencilCheck(foil, paste, layer, lines, thickest);
  }

  /// The thickest foil from which an opening still releases, metre.
  public static double limit(Aperture a) {
    return a.aspectDecides()
        ? a.narrowest() / Aperture.GOOD_ASPECT_RATIO
        : a.area() / (a.perimeter() * Aperture.GOOD_AREA_RATIO);
  }

  /// How openings of one shape release; the same for all of them.
  ///
  /// @param limit the thickest foil from which they do, metre
  /// @param change what would let them, empty where they do
  private record Release(
      double areaRatio,
      double aspectRatio,
      double transfer,
      double volume,
      double limit,
      Optional<Advice> change) {
    static Release of(Aperture a, double foil) {
      double ratio = a.areaRatio(foil);
      double transfer = Paste.transfer(ratio);
      return new Release(
          ratio,
          a.aspectRatio(foil),
          transfer,
          a.area() * foil * transfer,
          StencilCheck.limit(a),
          a.releases(foil) ? Optional.empty() : Optional.of(Advice.of(a, foil)));
    }
  }

  /// What would let an aperture release; the same for all openings of its shape but for the room
  /// around each.
  ///
  /// @param grow how much wider it would have to be, metre
  private record Advice(double grow, String enlarge, String cannot) {
    static Advice of(Aperture a, double foil) {
      double most = limit(a) * (1 + 1e-9);
      String step =
          FOILS.stream()
              .filter(t -> t <= most)
              .max(Comparator.naturalOrder())
              .map(t -> "step the foil down to " + print(t, Unit.METRE) + " here")
              .orElse("no usual foil is thin enough");
      double factor = foil / limit(a);
      String wide = print(a.narrowest() * factor, Unit.METRE, 3);
      return new Advice(
          a.narrowest() * (factor - 1),
          step
              + ", or enlarge it from "
              + print(a.narrowest(), Unit.METRE, 3)
              + " to "
              + wide
              + (a.aspectDecides() ? " wide" : " across, in proportion"),
          step + "; it cannot grow to " + wide + ", its neighbour is ");
    }

    String at(double gap) {
      return gap - grow >= WEB
          ? enlarge
          : cannot + print(Math.max(gap, 0), Unit.METRE, 2) + " away";
    }
  }

  /// Distances between openings.
  private static final class Gaps {
    private static final double FAR_MM = 2;
    private static final double CLOSE_MM = 0.4;
    private final List<Opening> openings;
    private HPRtree tree; // made when somebody asks: most layers need none

    Gaps(PasteLayer layer) {
      openings = layer.openings();
    }

    private HPRtree tree() {
      if (tree == null) {
        tree = new HPRtree();
        openings.forEach(o -> tree.insert(box(o), o));
      }
      return tree;
    }

    private static Envelope box(Opening o) {
      Envelope e = o.island().template().shape().getEnvelopeInternal(); // a copy
      e.translate(o.island().x(), o.island().y());
      return e;
    }

    /// Gap from an opening to the nearest other one within 2 mm, else 2 mm; metre.
    double around(Opening opening) {
      double close = around(opening, CLOSE_MM); // mostly there is one, and few are looked at
      return (close < CLOSE_MM ? close : around(opening, FAR_MM)) * 1e-3;
    }

    private double around(Opening opening, double within) {
      Envelope own = box(opening);
      Envelope wide = new Envelope(own);
      wide.expandBy(within);
      double[] least = {within};
      tree()
          .query(
              wide,
              x -> {
                if (x != opening) {
                  least[0] = Math.min(least[0], own.distance(box((Opening) x)));
                }
              });
      return least[0];
    }
  }

  /// The worst opening of each part, worst part first.
  public List<Line> worstByPart() {
    Map<String, Line> worst = new LinkedHashMap<>();
    for (Line l : lines) {
      worst.merge(l.opening().part(), l, (a, b) -> a.margin() <= b.margin() ? a : b);
    }
    return worst.values().stream().sorted(Comparator.comparingDouble(Line::margin)).toList();
  }

  /// How many openings do not release.
  public long bad() {
    return lines.stream().filter(l -> l.verdict() == Verdict.OUT).count();
  }

  /// Paste that one print leaves on a board, m³.
  public double volume() {
    return lines.stream().mapToDouble(Line::volume).sum();
  }

  /// Paste for a number of prints, kg: what stays on the boards, 30 g on the foil for the first
  /// print and 1 g wiped away at each further one; typical.
  ///
  /// @throws IllegalArgumentException when boards is not in 0...1e6
  public double grams(int boards) {
    Check.inRange(boards, 0, 1e6, "boards");
    return boards == 0 ? 0 : boards * volume() * paste.density() + 30e-3 + (boards - 1) * 1e-3;
  }

  /// The sheet of one opening.
  public Worked sheet(Line l) {
    Aperture a = l.opening().aperture();
    Worked.Builder s =
        Worked.of("stencil.opening", "Will the paste release at " + l.opening().name())
            .input("foil", foil)
            .line("area", "of the opening", a.area() * 1e6, "mm²")
            .line("wall", "perimeter · T", a.perimeter() * foil * 1e6, "mm²")
            .line("area ratio", "area / (perimeter · T), good from 0.66", l.areaRatio(), Unit.ONE)
            .line(
                "aspect ratio",
                "narrowest "
                    + print(a.narrowest(), Unit.METRE, 3)
                    + " / T "
                    + print(foil, Unit.METRE, 3)
                    + ", good from 1.5",
                l.aspectRatio(),
                Unit.ONE)
            .line(
                "decides",
                "longest "
                    + print(a.longest(), Unit.METRE, 3)
                    + (a.aspectDecides() ? " > 5 narrowest" : " ≤ 5 narrowest"),
                a.aspectDecides() ? "aspect ratio" : "area ratio")
            .line("transfer", "0.9 from 0.75, 0.5 at 0.5", l.transfer(), Unit.ONE)
            .line("paste", "area · T · transfer", l.volume() * 1e9, "mm³")
            .line(
                "solder",
                "paste · " + print(paste.metalVolumeFraction(), Unit.ONE, 3) + " metal",
                l.solder() * 1e9,
                "mm³");
    l.need().ifPresent(n -> n.on(s, l.solder()));
    if (!l.advice().isEmpty()) {
      s.line("instead", "", l.advice());
    }
    return s.source("IPC-7525: area ratio from 0.66, aspect ratio from 1.5 beyond five widths")
        .assume("smooth walls; transfer typical, no source")
        .assume(
            l.opening().told() ? "part and pin as the layer names them" : "part and pin by place")
        .caution("Cut foil edges are razor sharp: gloves, and deburr before use.")
        .verdict(l.verdict())
        .done();
  }
}
