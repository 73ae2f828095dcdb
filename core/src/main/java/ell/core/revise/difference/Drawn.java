package ell.core.revise.difference;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/// One drawing, as it is held against another: its parts and bare copper with what hangs on their
/// pins.
final class Drawn {
  /// Places less than this apart are the same, in millimetre.
  static final double SAME_MM = 0.02;

  /// Something with a reference.
  ///
  /// @param part as the bill has it, empty for bare copper
  /// @param pins net by pin, empty for a pin that hangs on nothing
  /// @param kind letters of its reference
  record Item(
      String reference,
      Optional<Part> part,
      Map<String, String> pins,
      String kind,
      double xMm,
      double yMm,
      double rotationDeg,
      Side side,
      boolean placed) {
    String value() {
      return part.map(Part::value).orElse("");
    }

    String packageName() {
      return part.map(Part::packageName).orElse("");
    }

    boolean fitted() {
      return part.map(Part::fitted).orElse(true);
    }

    boolean sameAttributes(Item o) {
      return sameValue(value(), o.value())
          && samePackage(packageName(), o.packageName())
          && fitted() == o.fitted();
    }

    boolean samePlace(Item o) {
      return placed == o.placed
          && side == o.side
          && Math.abs(xMm - o.xMm) <= SAME_MM
          && Math.abs(yMm - o.yMm) <= SAME_MM;
    }

    boolean sameTurn(Item o) {
      double d = Math.abs(rotationDeg - o.rotationDeg) % 360;
      return d < 0.1 || d > 359.9;
    }
  }

  private final List<Item> items;
  private final Map<String, Integer> at = new HashMap<>();
  private final Map<String, Integer> sizes = new HashMap<>();

  private Drawn(List<Item> items) {
    this.items = List.copyOf(items);
    for (int i = 0; i < items.size(); i++) {
      at.put(items.get(i).reference(), i);
      items.get(i).pins().values().stream()
          .filter(n -> !n.isEmpty())
          .forEach(n -> sizes.merge(n, 1, Integer::sum));
    }
  }

  /// @param dx shift of everything along x, millimetre
  static Drawn of(Revision r, double dx, double dy) {
    Set<String> references = new LinkedHashSet<>();
    r.parts().forEach(p -> references.add(p.reference()));
    references.addAll(r.withJoints());
    List<Item> items = new ArrayList<>();
    for (String ref : references) {
      Map<String, String> pins = new TreeMap<>();
      double x = 0;
      double y = 0;
      List<Joint> joints = r.jointsOf(ref);
      for (Joint j : joints) {
        pins.merge(j.pin(), j.net(), (a, b) -> a.isEmpty() ? b : a);
        x += j.xMm() / joints.size();
        y += j.yMm() / joints.size();
      }
      Optional<Part> part = r.part(ref);
      Optional<Part.Spot> spot = part.flatMap(Part::place);
      items.add(
          new Item(
              ref,
              part,
              pins,
              PartKind.letters(ref),
              spot.map(Part.Spot::xMm).orElse(x) + dx,
              spot.map(Part.Spot::yMm).orElse(y) + dy,
              spot.map(Part.Spot::rotationDeg).orElse(0.0),
              spot.map(Part.Spot::side).orElse(Side.FIRST),
              spot.isPresent() || !joints.isEmpty()));
    }
    return new Drawn(items);
  }

  List<Item> items() {
    return items;
  }

  int size() {
    return items.size();
  }

  Item item(int i) {
    return items.get(i);
  }

  /// Where a reference stands in the list, -1 for nowhere.
  int at(String reference) {
    return at.getOrDefault(reference, -1);
  }

  /// How many pins hang on a net.
  int size(String net) {
    return sizes.getOrDefault(net, 0);
  }

  Set<String> nets() {
    return sizes.keySet();
  }

  /// Whether two values say the same, however they are written.
  static boolean sameValue(String a, String b) {
    String x = plain(a);
    String y = plain(b);
    if (x.equals(y)) {
      return true;
    }
    double u = number(x);
    double v = number(y);
    return u == v || Math.abs(u - v) < 1e-9 * Math.abs(u);
  }

  static boolean samePackage(String a, String b) {
    return plain(a).equals(plain(b));
  }

  private static String plain(String s) {
    return s.strip().replaceAll("\\s+", " ").toLowerCase(Locale.ROOT);
  }

  /// The number that a value is, NaN when it is none, or has words beside it.
  private static double number(String value) {
    if (value.isEmpty() || !Character.isDigit(value.charAt(0)) && value.charAt(0) != '.') {
      return Double.NaN;
    }
    try {
      return EngineeringNumber.read(
              value.replaceFirst("(ohms?|\u03c9|\u2126|f|h|hz|v|a)$", ""), Unit.ONE)
          .value();
    } catch (NumberFormatException e) {
      return Double.NaN;
    }
  }
}
