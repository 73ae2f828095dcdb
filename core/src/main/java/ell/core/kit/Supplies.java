package ell.core.kit;

import ell.core.kit.KitCheck.Supply;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// What a build needs besides parts, as far as the shelf keeps such things: blank boards, a stencil
/// and paste. A shelf that lists no jar says nothing about paste.
final class Supplies {
  private Supplies() {}

  static List<Supply> of(KitQuestion q) {
    List<Supply> found = new ArrayList<>();
    String board = q.revision().title();
    String wanted = plain(q.revision().design() + q.revision().name());
    List<ShelfLine> blanks =
        kind(q, ShelfLine.Kind.BLANK).stream().filter(l -> plain(l.code()).equals(wanted)).toList();
    if (!blanks.isEmpty()) {
      long have = blanks.stream().mapToLong(ShelfLine::quantity).sum();
      long begun = q.placed().values().stream().mapToLong(Long::longValue).max().orElse(0);
      long need = Math.max(0, q.boards() - begun);
      found.add(
          new Supply(
              ShelfLine.Kind.BLANK,
              board,
              have,
              need,
              "blank boards of " + board + ": " + have + " on the shelf, " + need + " to begin"));
    }
    if (q.reflowed().isEmpty()) {
      return found;
    }
    List<ShelfLine> stencils = kind(q, ShelfLine.Kind.STENCIL);
    if (!stencils.isEmpty()) {
      long have = stencils.stream().filter(l -> l.quantity() > 0).count();
      found.add(
          new Supply(
              ShelfLine.Kind.STENCIL,
              stencils.getFirst().code(),
              have,
              1,
              have > 0 ? "a stencil is on the shelf" : "no stencil is on the shelf"));
    }
    List<ShelfLine> jars = kind(q, ShelfLine.Kind.JAR);
    if (!jars.isEmpty()) {
      List<ShelfLine> good =
          jars.stream().filter(l -> l.quantity() > 0 && l.usable(q.on())).toList();
      String last =
          jars.stream()
              .filter(l -> l.expiry().isPresent())
              .map(l -> l.code() + " expired on " + l.expiry().get())
              .findFirst()
              .orElse("none is left");
      found.add(
          new Supply(
              ShelfLine.Kind.JAR,
              jars.getFirst().code(),
              good.size(),
              1,
              good.isEmpty() ? "no paste may be used: " + last : "paste is on the shelf"));
    }
    return found;
  }

  private static List<ShelfLine> kind(KitQuestion q, ShelfLine.Kind kind) {
    return q.shelf().stream().filter(l -> l.kind() == kind).toList();
  }

  /// Letters and digits only, without the word `rev`, so that `MG-1 rev B` and `MG1-B` are one.
  private static String plain(String name) {
    return name.toUpperCase(Locale.ROOT).replaceAll("\\bREV(ISION)?\\b|[^A-Z0-9]", "");
  }
}
