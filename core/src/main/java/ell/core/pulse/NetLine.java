package ell.core.pulse;

import ell.core.artwork.Artwork;
import ell.core.artwork.Drilling;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.power.PartValue;
import ell.core.pulse.Wanted.Driven;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/// A net as a line: from the joint that drives it to the last one, with those on the way as taps.
/// Its length is that of the copper where the layer is kept, what was said where somebody said it,
/// and the distance of its joints else, which is a guess.
///
/// @param from the joint that drives it
/// @param reached the other joints, nearest first
/// @param length m
/// @param width of most of it, m; 0 when it is not known
/// @param line impedance and speed; empty when nothing says them
/// @param driven all of it, as the step on it takes it
/// @param followed whether the copper was followed
/// @param points `{x, y}` in millimetre along it, empty when it was not followed
/// @param told what is guessed, what was not reached
public record NetLine(
    String net,
    Joint from,
    List<Reached> reached,
    double length,
    double width,
    Optional<LineOnBoard> line,
    Driven driven,
    boolean followed,
    List<double[]> points,
    List<String> told) {
  private static final double USUAL_WIDTH = 0.2e-3;
  private static final double STUB_MM = 1;

  /// Joints of a net between a driver and its resistor, a test point among them.
  private static final int MOST_BEFORE = 3;

  public NetLine {
    reached = List.copyOf(reached);
    points = List.copyOf(points);
    told = List.copyOf(told);
  }

  /// A joint on the line.
  ///
  /// @param at share of the line, 0...1
  /// @param length m from the driver
  /// @param stub m that it hangs beside the line, 0 for none
  public record Reached(Joint joint, double at, double length, double stub) {}

  /// Seconds of one pass; NaN when the speed is not known.
  public double delay() {
    return driven.lined() ? driven.length() / (driven.velocity() * LineOnBoard.LIGHT) : Double.NaN;
  }

  /// The step on it, with the branches that hang on it.
  ///
  /// @param series ohms of the resistor at its source
  public OnLine step(double series) {
    List<BranchedLine.Stub> stubs = new ArrayList<>();
    double speed = driven.velocity() * LineOnBoard.LIGHT;
    for (Reached r : reached) {
      if (r.stub() > STUB_MM * 1e-3) {
        stubs.add(new BranchedLine.Stub(r.at(), r.stub() / speed, driven.z0(), 0));
      }
    }
    return BranchedLine.of(driven.with(series).bounce(), stubs, Double.POSITIVE_INFINITY, 0);
  }

  /// Works it out.
  ///
  /// @param copper layers by their side, none when they are not kept
  /// @throws IllegalArgumentException when the revision has no such net, or it has one joint only
  public static NetLine of(
      PulsePlan plan, String place, Map<Side, Artwork> copper, Optional<Drilling> holes) {
    Wanted w = plan.at(place);
    if (plan.rests(w.net())) {
      throw new IllegalArgumentException(
          w.net() + " is a rail or the return net: no signal runs on it");
    }
    Revision r = plan.revision();
    List<Joint> joints =
        r.net(w.net()).stream()
            .filter(j -> !PartKind.of(j.part()).bare())
            .filter(j -> r.part(j.part()).map(Part::fitted).orElse(true))
            .toList();
    if (joints.size() < 2) {
      throw new IllegalArgumentException(
          w.net() + " has " + joints.size() + " joints of fitted parts: a line has two or more");
    }
    Driven said = w.line().orElse(plan.usual(w));
    List<String> told = new ArrayList<>();
    Run run = run(plan, w, said, joints, copper, holes, told);
    double series = said.series();
    OptionalDouble stands = inSeries(r, run.from);
    if (series == 0 && stands.isPresent()) {
      series = stands.getAsDouble();
      told.add(
          run.from.part()
              + " stands in series at its source, "
              + EngineeringNumber.print(series, Unit.OHM, 3));
    }
    double length = said.length() > 0 ? said.length() : run.length;
    if (said.length() > 0 && run.followed && Math.abs(run.length - length) > 0.1 * length) {
      told.add(
          "the copper is "
              + EngineeringNumber.print(run.length, Unit.METRE, 3)
              + " long, and "
              + EngineeringNumber.print(length, Unit.METRE, 3)
              + " was said");
    }
    double width = run.width > 0 ? run.width : USUAL_WIDTH;
    LineOnBoard strip = plan.stack().strip(width);
    boolean saidLine = said.z0() > 0 && said.velocity() > 0;
    if (!saidLine) {
      if (run.width <= 0) {
        told.add(
            "the width is not known, 0.2 mm is taken; say: " + w.net() + " z0=60ohm velocity=0.55");
      }
      if (plan.stack().guessed()) {
        told.add(
            "taken: a plane "
                + EngineeringNumber.print(plan.stack().height(), Unit.METRE, 3)
                + " below, er "
                + EngineeringNumber.print(plan.stack().er(), Unit.ONE, 3)
                + "; say: stack height=0.2mm er=4.3");
      }
    }
    if (w.line().isEmpty()) {
      told.add(
          String.format(
              Locale.ROOT,
              "the driver is a guess, %s with an edge of %s; say: %s driver=25ohm edge=3ns",
              EngineeringNumber.print(said.ohms(), Unit.OHM, 2),
              EngineeringNumber.print(said.edge(), Unit.SECOND, 2),
              w.net()));
    }
    double total = Math.max(run.length, 1e-9);
    Map<String, Double> taps = new LinkedHashMap<>();
    List<Reached> reached = new ArrayList<>();
    for (Reached x : run.reached) {
      double at = said.taps().getOrDefault(x.joint().place(), Math.clamp(x.length() / total, 0, 1));
      reached.add(new Reached(x.joint(), at, at * length, x.stub()));
      taps.put(x.joint().place(), at);
      if (x.stub() > STUB_MM * 1e-3) {
        told.add(
            x.joint().place()
                + " hangs on a stub of "
                + EngineeringNumber.print(x.stub(), Unit.METRE, 2));
      }
    }
    Driven d =
        new Driven(
            run.from.place(),
            said.ohms(),
            series,
            said.edge(),
            said.swing(),
            length,
            said.z0() > 0 ? said.z0() : strip.z0(),
            said.velocity() > 0 ? said.velocity() : strip.velocity() / LineOnBoard.LIGHT,
            said.loss(),
            said.farads(),
            taps);
    return new NetLine(
        w.net(),
        run.from,
        reached,
        length,
        run.width,
        Optional.of(
            saidLine ? new LineOnBoard(said.z0(), 1 / (said.velocity() * said.velocity())) : strip),
        d,
        run.followed,
        run.points,
        told);
  }

  private record Run(
      Joint from,
      List<Reached> reached,
      double length,
      double width,
      boolean followed,
      List<double[]> points) {}

  private static Run run(
      PulsePlan plan,
      Wanted w,
      Driven said,
      List<Joint> joints,
      Map<Side, Artwork> copper,
      Optional<Drilling> holes,
      List<String> told) {
    Optional<Joint> first = joints.stream().filter(j -> j.place().equals(said.from())).findFirst();
    if (!said.from().isEmpty() && first.isEmpty()) {
      throw new IllegalArgumentException(
          said.from() + " is said to drive " + w.net() + ", and is no joint of it");
    }
    if (copper.isEmpty()) {
      told.add(
          "no copper of this revision is kept: the length is that from joint to joint, a guess;"
              + " import WS --copper FILE, or say: "
              + w.net()
              + " length=0.48m");
      Joint from = first.orElseGet(() -> end(plan.revision(), joints));
      guessed(w, first, from, told);
      return apart(from, joints);
    }
    Joint from = first.orElse(null);
    if (from == null) {
      from = followedEnd(plan.revision(), copper, holes, joints);
      guessed(w, first, from, told);
    }
    Joint begin = from;
    List<CopperPath.Way> ways =
        CopperPath.follow(copper, holes, begin, joints.stream().filter(j -> j != begin).toList());
    if (ways.isEmpty()) {
      told.add(
          "no copper was found from "
              + begin.place()
              + " to another joint of the net: is the layer of another origin? The length is that"
              + " from joint to joint, a guess");
      return apart(begin, joints);
    }
    if (ways.size() < joints.size() - 1) {
      told.add(
          (joints.size() - 1 - ways.size())
              + " joints of the net are not reached by the copper that is kept: "
              + String.join(
                  " ",
                  joints.stream()
                      .filter(j -> j != begin && ways.stream().noneMatch(x -> x.to() == j))
                      .map(Joint::place)
                      .limit(8)
                      .toList()));
    }
    CopperPath.Way longest = ways.getLast();
    List<Reached> reached = new ArrayList<>();
    for (CopperPath.Way x : ways) {
      double shared = x == longest ? x.lengthMm() : shared(x, longest);
      reached.add(
          new Reached(
              x.to(),
              shared / longest.lengthMm(),
              shared * 1e-3,
              Math.max(0, x.lengthMm() - shared) * 1e-3));
    }
    widths(longest, told);
    return new Run(
        begin,
        reached,
        longest.lengthMm() * 1e-3,
        Math.max(0, longest.widthMm()) * 1e-3,
        true,
        longest.points());
  }

  private static void widths(CopperPath.Way way, List<String> told) {
    if (way.widths().size() > 1) {
      List<String> all = new ArrayList<>();
      way.widths()
          .forEach((w, l) ->
              all.add(
                  String.format(
                      Locale.ROOT,
                      "%.3g mm %s",
                      l,
                      w > 0 ? "of " + String.format(Locale.ROOT, "%.3g mm", w) : "over an area")));
      told.add("it changes its width: " + String.join(", ", all) + "; the longest counts");
    }
    if (way.holes() > 0) {
      told.add("it changes the side " + way.holes() + " times");
    }
  }

  private static void guessed(Wanted w, Optional<Joint> first, Joint from, List<String> told) {
    if (first.isEmpty()) {
      told.add(
          "that "
              + from.place()
              + " drives it is a guess; say: "
              + w.net()
              + " from="
              + from.place());
    }
  }

  /// How much of a way lies on another.
  private static double shared(CopperPath.Way x, CopperPath.Way main) {
    double l = 0;
    int n = Math.min(x.points().size(), main.points().size());
    for (int i = 1; i < n; i++) {
      double[] a = x.points().get(i);
      double[] b = main.points().get(i);
      double[] was = x.points().get(i - 1);
      if (Math.hypot(a[0] - b[0], a[1] - b[1]) > 0.02) {
        return l + along(was, a, b);
      }
      l += Math.hypot(a[0] - was[0], a[1] - was[1]);
    }
    return l;
  }

  /// Where two ways part, the one that is shorter may still run along the other.
  private static double along(double[] from, double[] a, double[] b) {
    double dx = b[0] - from[0];
    double dy = b[1] - from[1];
    double l = Math.hypot(dx, dy);
    if (l == 0) {
      return 0;
    }
    double along = ((a[0] - from[0]) * dx + (a[1] - from[1]) * dy) / l;
    double off = Math.abs((a[0] - from[0]) * dy - (a[1] - from[1]) * dx) / l;
    return off < STUB_MM ? Math.clamp(along, 0, l) : 0;
  }

  /// Joint to joint, each time to the nearest, along the axes.
  private static Run apart(Joint from, List<Joint> joints) {
    List<Joint> left = new ArrayList<>(joints);
    left.remove(from);
    List<Reached> reached = new ArrayList<>();
    Joint at = from;
    double gone = 0;
    while (!left.isEmpty()) {
      Joint here = at;
      Joint next =
          left.stream().min(Comparator.comparingDouble(j -> square(here, j))).orElseThrow();
      gone += square(here, next) * 1e-3;
      reached.add(new Reached(next, 0, gone, 0));
      left.remove(next);
      at = next;
    }
    return new Run(from, reached, gone, 0, false, List.of());
  }

  private static double square(Joint a, Joint b) {
    return Math.abs(a.xMm() - b.xMm()) + Math.abs(a.yMm() - b.yMm());
  }

  private static Joint end(Revision r, List<Joint> joints) {
    Joint a = farthest(joints.getFirst(), joints);
    return heavier(r, a, farthest(a, joints));
  }

  private static Joint farthest(Joint from, List<Joint> joints) {
    return joints.stream().max(Comparator.comparingDouble(j -> square(from, j))).orElseThrow();
  }

  /// Of the two ends of the copper the one of the part with more joints, or of a connector.
  private static Joint followedEnd(
      Revision r, Map<Side, Artwork> copper, Optional<Drilling> holes, List<Joint> joints) {
    Joint any = joints.getFirst();
    List<CopperPath.Way> ways =
        CopperPath.follow(copper, holes, any, joints.subList(1, joints.size()));
    if (ways.isEmpty()) {
      return end(r, joints);
    }
    Joint a = ways.getLast().to();
    List<CopperPath.Way> back =
        CopperPath.follow(copper, holes, a, joints.stream().filter(j -> j != a).toList());
    return back.isEmpty() ? a : heavier(r, a, back.getLast().to());
  }

  private static Joint heavier(Revision r, Joint a, Joint b) {
    return weight(r, a) >= weight(r, b) ? a : b;
  }

  /// Ohms of a resistor that a line begins at, with something else before it.
  private static OptionalDouble inSeries(Revision r, Joint j) {
    if (PartKind.of(j.part()) != PartKind.RESISTOR) {
      return OptionalDouble.empty();
    }
    boolean between =
        r.jointsOf(j.part()).stream()
            .filter(x -> !x.net().equals(j.net()) && x.connected())
            .anyMatch(x ->
                r.net(x.net()).size() <= MOST_BEFORE
                    && r.net(x.net()).stream()
                        .map(y -> PartKind.of(y.part()))
                        .anyMatch(k ->
                            k == PartKind.CHIP || k == PartKind.MODULE || k == PartKind.CONNECTOR));
    return between
        ? r.part(j.part()).map(PartValue::ohms).orElse(OptionalDouble.empty())
        : OptionalDouble.empty();
  }

  private static int weight(Revision r, Joint j) {
    PartKind k = PartKind.of(j.part());
    int joints = r.jointsOf(j.part()).size();
    if (k == PartKind.RESISTOR) {
      return inSeries(r, j).isPresent() ? 1000 : 0; // what drives it stands before it
    }
    return k == PartKind.CHIP || k == PartKind.MODULE
        ? joints
        : k == PartKind.CONNECTOR ? joints + 100 : 0;
  }
}
