package ell.files.gerber;

import ell.core.artwork.Template;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;

/// An aperture macro: primitives with expressions in them, worked out for the numbers of an
/// aperture.
///
/// Primitives: 1 disc, 20 (and 2) line, 21 rectangle about its centre, 22 from its lower left
/// corner, 4 outline, 5 polygon, 6 rings with a cross, 7 thermal, 0 comment. Expressions know `+`,
/// `-`, `x`, `/`, brackets and `$1`. A later primitive that is off takes away from the earlier
/// ones.
///
/// @param statements in order, each its fields
record GerberMacro(String name, List<String> statements) {
  private static final int MOST = 1000;

  GerberMacro {
    statements = List.copyOf(statements);
  }

  /// Reads `AMname*statement*...`.
  static GerberMacro parse(String text) {
    String[] p = text.split("\\*");
    String name = p[0].substring(2).strip();
    if (name.isEmpty()) {
      throw new IllegalArgumentException("an aperture macro without a name");
    }
    List<String> all = new ArrayList<>();
    for (int i = 1; i < p.length; i++) {
      if (!p[i].isBlank()) {
        all.add(p[i].strip());
      }
    }
    if (all.size() > MOST) {
      throw new IllegalArgumentException(
          "aperture macro " + name + " has more than " + MOST + " statements");
    }
    return new GerberMacro(name, all);
  }

  /// How many shapes it is made of, at most.
  int size() {
    return statements.size();
  }

  /// The shape for the numbers of an aperture.
  ///
  /// @param given what stands behind the name, in the file's unit
  /// @param mm millimetre in a unit of the file
  /// @throws IllegalArgumentException naming the macro, when a number of it cannot be
  Template shape(double[] given, double mm) {
    try {
      return drawn(given, mm);
    } catch (NumberFormatException e) {
      throw wrong("a number that cannot be read: " + e.getMessage());
    } catch (IllegalArgumentException e) {
      throw wrong(e.getMessage());
    }
  }

  private Template drawn(double[] given, double mm) {
    Map<Integer, Double> values = new HashMap<>();
    for (int i = 0; i < given.length; i++) {
      values.put(i + 1, given[i]);
    }
    List<MacroPrimitive> primitives = new ArrayList<>();
    for (String s : statements) {
      if (s.startsWith("0")) {
        continue;
      }
      if (s.startsWith("$")) {
        int eq = s.indexOf('=');
        if (eq < 2) {
          throw new IllegalArgumentException("expected $n=..., found '" + s + "'");
        }
        values.put(
            Integer.parseInt(s.substring(1, eq).strip()),
            MacroExpression.value(s.substring(eq + 1), values));
        continue;
      }
      String[] fields = s.replaceFirst("[,\\s]++$", "").split(",", -1);
      double[] n = new double[fields.length];
      for (int i = 0; i < n.length; i++) {
        n[i] = MacroExpression.value(fields[i], values);
      }
      primitives.add(MacroPrimitive.of(n, mm));
    }
    if (primitives.size() == 1
        && primitives.getFirst().on()
        && primitives.getFirst().exact() != null) {
      return primitives.getFirst().exact();
    }
    return Template.of(together(primitives));
  }

  /// What the shapes leave when they are laid down in order; those between two changes of mind at
  /// once, which is much faster than one by one.
  private static Geometry together(List<MacroPrimitive> primitives) {
    Geometry all = Template.MAKE.createPolygon();
    int from = 0;
    while (from < primitives.size()) {
      boolean on = primitives.get(from).on();
      int to = from;
      List<Geometry> run = new ArrayList<>();
      while (to < primitives.size() && primitives.get(to).on() == on) {
        run.add(primitives.get(to++).shape());
      }
      Geometry one = run.size() == 1 ? run.getFirst() : OverlayNGRobust.union(run);
      all = OverlayNGRobust.overlay(all, one, on ? OverlayNG.UNION : OverlayNG.DIFFERENCE);
      from = to;
    }
    return all;
  }

  private IllegalArgumentException wrong(String why) {
    return new IllegalArgumentException("aperture macro " + name + ": " + why);
  }
}
