package ell.core.revise.difference;

import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;

/// What it would cost to say that a part of one drawing is this part of the other: everything that
/// would then have changed. The weights order what a person would believe first: that a part keeps
/// its kind, then its pins' nets, its value and package, its place, and last its name.
final class PairCost {
  /// No pair is worth this.
  static final double NEVER = 1e6;

  /// A pair that differs in its name alone costs this.
  static final double NAME = 0.3;

  private static final double KIND = 4;
  private static final double PIN = 1;
  private static final double PIN_UNKNOWN = 0.3;
  private static final double PIN_MISSING = 0.7;
  private static final double VALUE = 0.8;
  private static final double PACKAGE = 0.8;
  private static final double FITTED = 0.3;
  private static final double MOVED = 0.35;
  private static final double FAR = 0.4;
  private static final double FAR_MM = 30;
  private static final double SIDE = 0.3;
  private static final double TURNED = 0.05;
  private static final double ALONE = 1.2;
  private static final double ALONE_PIN = 0.5;

  private final Map<String, String> nets;
  private final Set<String> taken;
  private final Predicate<String> few;

  /// @param nets which is which
  /// @param few whether a net of the first has few ends, so that it says something of who hangs on
  ///   it
  PairCost(Map<String, String> nets, Predicate<String> few) {
    this.nets = nets;
    this.few = few;
    this.taken = new HashSet<>(nets.values());
  }

  /// What it costs that a part is gone, or new.
  static double alone(Drawn.Item i) {
    return ALONE + ALONE_PIN * i.pins().size();
  }

  /// Pins that hang on the same, that do not, and of which nothing is known yet.
  private record Pins(int same, int other, int unknown, int missing) {}

  private Pins pins(Drawn.Item x, Drawn.Item y) {
    int same = 0;
    int other = 0;
    int unknown = 0;
    int missing = 0;
    for (Map.Entry<String, String> e : x.pins().entrySet()) {
      String there = y.pins().get(e.getKey());
      if (there == null) {
        missing++;
        continue;
      }
      String is = e.getValue();
      String maps = nets.get(is);
      if (is.isEmpty() || there.isEmpty() ? is.equals(there) : there.equals(maps)) {
        same++;
      } else if (!is.isEmpty() && !there.isEmpty() && maps == null && !taken.contains(there)) {
        unknown++;
      } else {
        other++;
      }
    }
    for (String pin : y.pins().keySet()) {
      missing += x.pins().containsKey(pin) ? 0 : 1;
    }
    return new Pins(same, other, unknown, missing);
  }

  /// The share of pins of which is known that they hang on the same; 1 where nothing is known.
  double agreement(Drawn.Item x, Drawn.Item y) {
    Pins p = pins(x, y);
    int known = p.same() + p.other() + p.missing();
    return known == 0 ? 1 : (double) p.same() / known;
  }

  /// Whether something is known of their pins, and most of it agrees; a part without pins has
  /// nothing that could speak against it.
  boolean sure(Drawn.Item x, Drawn.Item y, double agrees) {
    Pins p = pins(x, y);
    boolean bare = x.pins().values().stream().allMatch(String::isEmpty);
    return (p.same() > 0 || bare) && agreement(x, y) >= agrees;
  }

  /// The cost of a pair, [#NEVER] where nobody would believe it.
  double of(Drawn.Item x, Drawn.Item y) {
    Pins p = pins(x, y);
    boolean name = x.reference().equals(y.reference());
    boolean attributes = x.sameAttributes(y);
    boolean place = x.samePlace(y);
    double c = p.other() * PIN + p.unknown() * PIN_UNKNOWN + p.missing() * PIN_MISSING;
    c += x.kind().equals(y.kind()) ? 0 : KIND;
    c += Drawn.sameValue(x.value(), y.value()) ? 0 : VALUE;
    c += Drawn.samePackage(x.packageName(), y.packageName()) ? 0 : PACKAGE;
    c += x.fitted() == y.fitted() ? 0 : FITTED;
    if (!place && x.placed() && y.placed()) {
      double d = Math.hypot(x.xMm() - y.xMm(), x.yMm() - y.yMm());
      c += MOVED + FAR * Math.min(1, d / FAR_MM) + (x.side() == y.side() ? 0 : SIDE);
    }
    c += x.sameTurn(y) ? 0 : TURNED;
    if (name) {
      boolean something = p.same() > 0 || x.pins().isEmpty() || y.pins().isEmpty();
      return x.kind().equals(y.kind()) && (something || attributes || place) ? c : NEVER;
    }
    return x.kind().equals(y.kind()) && same(x, y, p, c) ? c + NAME : NEVER;
  }

  /// Whether a part of another name may be the same one: nearly everything else is the same, or it
  /// hangs where the other hung.
  private boolean same(Drawn.Item x, Drawn.Item y, Pins p, double c) {
    boolean attributes = x.sameAttributes(y);
    if (c < ALONE && (p.same() > 0 || x.samePlace(y) && attributes)) {
      return true;
    }
    int all = p.same() + p.other() + p.unknown() + p.missing();
    if (p.same() == all && all > 0) {
      return Drawn.samePackage(x.packageName(), y.packageName());
    }
    return attributes && 2 * p.same() >= all && own(x, y) > 0;
  }

  /// Pins that hang on the same net with few other ends.
  private int own(Drawn.Item x, Drawn.Item y) {
    int n = 0;
    for (Map.Entry<String, String> e : x.pins().entrySet()) {
      String maps = nets.get(e.getValue());
      n += maps != null && maps.equals(y.pins().get(e.getKey())) && few.test(e.getValue()) ? 1 : 0;
    }
    return n;
  }
}
