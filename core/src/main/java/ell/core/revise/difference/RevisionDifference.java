package ell.core.revise.difference;

import ell.core.board.Joint;
import ell.core.board.NetDifference;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What really differs between two revisions: parts and nets are matched by what they join, so that
/// a drawing that was numbered anew, or whose nets were renamed, is not a thousand changes.
///
/// Parts are named as in the first revision, those that only the second has as in the second.
///
/// @param first title of the first
/// @param second title of the second
/// @param renumbered by the reference in the first, another one in the second
/// @param matched by the reference in the first, the one in the second, of every part that is in
///   both
/// @param added references that only the second has
/// @param removed references that only the first has
/// @param value values that changed
/// @param packages packages that changed
/// @param fitted what is fitted in one only: `fitted` or `left off`
/// @param moved parts that sit elsewhere
/// @param netNames by the name in the first, the one in the second, of every net that is in both
/// @param renamed nets that are called otherwise
/// @param joints pins that hang on another net
/// @param netsAdded nets that only the second has
/// @param netsRemoved nets that only the first has
/// @param shiftXMm by how much the whole second drawing lies to the right, which is taken off
/// @param shiftYMm by how much it lies higher
/// @param exact whether it is known to be the fewest changes
/// @param told what else is to be known, a sentence each
public record RevisionDifference(
    String first,
    String second,
    Map<String, String> renumbered,
    Map<String, String> matched,
    List<String> added,
    List<String> removed,
    List<Changed> value,
    List<Changed> packages,
    List<Changed> fitted,
    List<Moved> moved,
    Map<String, String> netNames,
    Map<String, String> renamed,
    List<NetDifference.Moved> joints,
    List<String> netsAdded,
    List<String> netsRemoved,
    double shiftXMm,
    double shiftYMm,
    boolean exact,
    List<String> told) {
  private static final double MOST = 0.6;
  private static final int FEWEST = 5;

  /// What a part has, and had.
  public record Changed(String part, String from, String to) {}

  /// A part that sits elsewhere.
  ///
  /// @param dxMm to the right
  /// @param dyMm up
  /// @param turnedDeg counter-clockwise, above -180, up to 180
  /// @param side that it sits on now, empty when that is the same
  public record Moved(
      String part, double dxMm, double dyMm, double turnedDeg, Optional<Side> side) {}

  public RevisionDifference {
    renumbered = Collections.unmodifiableMap(new LinkedHashMap<>(renumbered));
    matched = Collections.unmodifiableMap(new LinkedHashMap<>(matched));
    added = List.copyOf(added);
    removed = List.copyOf(removed);
    value = List.copyOf(value);
    packages = List.copyOf(packages);
    fitted = List.copyOf(fitted);
    moved = List.copyOf(moved);
    netNames = Collections.unmodifiableMap(new LinkedHashMap<>(netNames));
    renamed = Collections.unmodifiableMap(new LinkedHashMap<>(renamed));
    joints = List.copyOf(joints);
    netsAdded = List.copyOf(netsAdded);
    netsRemoved = List.copyOf(netsRemoved);
    told = List.copyOf(told);
  }

  /// Holds two revisions against each other.
  public static RevisionDifference of(Revision first, Revision second) {
    Drawn a = Drawn.of(first, 0, 0);
    Drawn b = Drawn.of(second, 0, 0);
    PartMatch.Matched m = PartMatch.of(first, second, a, b);
    double[] shift = shift(a, b, m.to());
    if (shift[0] != 0 || shift[1] != 0) {
      b = Drawn.of(second, -shift[0], -shift[1]);
      m = PartMatch.of(first, second, a, b);
    }
    return of(first, second, a, b, m, shift);
  }

  /// By how much the whole drawing lies elsewhere, millimetre: where most parts moved alike.
  private static double[] shift(Drawn a, Drawn b, Map<String, String> to) {
    Map<String, List<double[]>> by = new HashMap<>();
    int all = 0;
    for (Map.Entry<String, String> e : to.entrySet()) {
      Drawn.Item x = a.item(a.at(e.getKey()));
      Drawn.Item y = b.item(b.at(e.getValue()));
      if (x.placed() && y.placed() && x.side() == y.side()) {
        all++;
        double[] d = {y.xMm() - x.xMm(), y.yMm() - x.yMm()};
        by.computeIfAbsent(
                Math.round(d[0] / Drawn.SAME_MM) + "/" + Math.round(d[1] / Drawn.SAME_MM),
                _ -> new ArrayList<>())
            .add(d);
      }
    }
    Optional<List<double[]>> most =
        by.values().stream().max(java.util.Comparator.comparingInt(List::size));
    if (most.isEmpty() || most.get().size() < FEWEST || most.get().size() < MOST * all) {
      return new double[2];
    }
    double[] d = most.get().getFirst();
    return Math.abs(d[0]) <= Drawn.SAME_MM && Math.abs(d[1]) <= Drawn.SAME_MM ? new double[2] : d;
  }

  private static RevisionDifference of(
      Revision first, Revision second, Drawn a, Drawn b, PartMatch.Matched m, double[] shift) {
    Map<String, String> back = new HashMap<>();
    m.to().forEach((x, y) -> back.put(y, x));
    Map<String, String> renumbered = new LinkedHashMap<>();
    List<Changed> value = new ArrayList<>();
    List<Changed> packages = new ArrayList<>();
    List<Changed> fitted = new ArrayList<>();
    List<Moved> moved = new ArrayList<>();
    m.to()
        .forEach((from, to) -> {
          Drawn.Item x = a.item(a.at(from));
          Drawn.Item y = b.item(b.at(to));
          if (!from.equals(to)) {
            renumbered.put(from, to);
          }
          if (!Drawn.sameValue(x.value(), y.value())) {
            value.add(new Changed(from, x.value(), y.value()));
          }
          if (!Drawn.samePackage(x.packageName(), y.packageName())) {
            packages.add(new Changed(from, x.packageName(), y.packageName()));
          }
          if (x.fitted() != y.fitted()) {
            fitted.add(new Changed(from, fitted(x), fitted(y)));
          }
          if (x.placed() && y.placed() && !(x.samePlace(y) && x.sameTurn(y))) {
            moved.add(
                new Moved(
                    from,
                    round(y.xMm() - x.xMm()),
                    round(y.yMm() - x.yMm()),
                    turned(y.rotationDeg() - x.rotationDeg()),
                    x.side() == y.side() ? Optional.empty() : Optional.of(y.side())));
          }
        });
    List<String> added =
        b.items().stream().map(Drawn.Item::reference).filter(r -> !back.containsKey(r)).toList();
    List<String> removed =
        a.items().stream().map(Drawn.Item::reference).filter(r -> !m.to().containsKey(r)).toList();
    List<Joint> now = new ArrayList<>();
    for (Joint j : second.joints()) {
      String own = back.get(j.part());
      now.add(PartMatch.called(j, own == null ? "\u0000" + j.part() : own));
    }
    NetDifference nets = NetDifference.of(first.joints(), now);
    List<NetDifference.Moved> joints = new ArrayList<>(nets.moved());
    Map<String, String> netOf = new HashMap<>();
    now.forEach(j -> netOf.putIfAbsent(j.place(), j.net()));
    Map<String, Joint> was = new HashMap<>();
    first.joints().forEach(j -> was.putIfAbsent(j.place(), j));
    for (String place : nets.came()) {
      if (!place.startsWith("\u0000") && !netOf.get(place).isEmpty()) {
        joints.add(new NetDifference.Moved(place, "", netOf.get(place)));
      }
    }
    Set<String> gone = new HashSet<>(removed);
    for (String place : nets.gone()) {
      if (!gone.contains(was.get(place).part()) && was.get(place).connected()) {
        joints.add(new NetDifference.Moved(place, was.get(place).net(), ""));
      }
    }
    Map<String, String> names = new LinkedHashMap<>();
    NetDifference.matched(first.joints(), now).entrySet().stream()
        .sorted(Map.Entry.comparingByKey())
        .forEach(e -> names.put(e.getKey(), e.getValue()));
    return new RevisionDifference(
        first.title(),
        second.title(),
        renumbered,
        m.to(),
        added,
        removed,
        value,
        packages,
        fitted,
        moved,
        names,
        nets.renamed(),
        joints,
        nets.added(),
        nets.removed(),
        shift[0],
        shift[1],
        m.exact(),
        told(first, second, shift, m));
  }

  private static List<String> told(
      Revision first, Revision second, double[] shift, PartMatch.Matched m) {
    List<String> told = new ArrayList<>();
    if (shift[0] != 0 || shift[1] != 0) {
      told.add(
          String.format(
              java.util.Locale.ROOT,
              "the whole drawing lies %.3g mm to the right and %.3g mm up: that is taken off",
              shift[0],
              shift[1]));
    }
    double[] a = first.boxMm();
    double[] b = second.boxMm();
    boolean edges = !first.outline().loops().isEmpty() && !second.outline().loops().isEmpty();
    if (edges
        && (Math.abs(a[2] - a[0] - b[2] + b[0]) > 0.05
            || Math.abs(a[3] - a[1] - b[3] + b[1]) > 0.05)) {
      told.add(
          String.format(
              java.util.Locale.ROOT,
              "the board is %.4g x %.4g mm, it was %.4g x %.4g mm",
              b[2] - b[0],
              b[3] - b[1],
              a[2] - a[0],
              a[3] - a[1]));
    }
    if (first.outline().loops().size() != second.outline().loops().size() && edges) {
      told.add(
          "the edge has "
              + second.outline().loops().size()
              + " loops, it had "
              + first.outline().loops().size());
    }
    if (!m.exact()) {
      told.add("so much differs that parts were matched best pair first: look at it twice");
    }
    for (Revision r : List.of(first, second)) {
      long without = r.parts().stream().filter(p -> p.place().isEmpty()).count();
      if (without > 0) {
        told.add(
            without
                + (without == 1 ? " part of " : " parts of ")
                + r.title()
                + (without == 1 ? " has" : " have")
                + " no placement: its joints stand for it");
      }
    }
    return told;
  }

  private static String fitted(Drawn.Item i) {
    return i.fitted() ? "fitted" : "left off";
  }

  private static double round(double mm) {
    return Math.round(mm * 1e4) / 1e4;
  }

  private static double turned(double deg) {
    double d = ((deg % 360) + 360) % 360;
    return Math.round((d > 180 ? d - 360 : d) * 100) / 100.0;
  }

  /// Whether the two are the same but for names.
  public boolean same() {
    return added.isEmpty()
        && removed.isEmpty()
        && value.isEmpty()
        && packages.isEmpty()
        && fitted.isEmpty()
        && moved.isEmpty()
        && joints.isEmpty();
  }

  /// The reference in the second of a part of the first, empty when it is gone.
  public Optional<String> now(String reference) {
    return Optional.ofNullable(matched.get(reference));
  }

  /// Whether two values say the same, however they are written: `10k`, `10K` and `10 kohm` do.
  public static boolean sameValue(String a, String b) {
    return Drawn.sameValue(a, b);
  }
}
