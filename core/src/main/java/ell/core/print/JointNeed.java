package ell.core.print;

import ell.core.board.Joint;
import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.sheet.Worked;
import java.util.Optional;

/// How much solder a joint wants, by its geometry: from the least fillet that is accepted to a full
/// one. Cubic metre.
///
/// The fillets are concave, a quarter of an ellipse cut out of a corner, `(1 − π/4)·a·b`; the film
/// under the metal is 0.03 mm; lead sizes come from the pad. No source: geometry and common
/// practice. Least fillets: IPC-A-610 class 2, from memory (chip: a quarter of its height, gull
/// wing: heel as high as the lead is thick, plated hole: 75 % filled).
///
/// @param least for an accepted joint
/// @param full for a full one
/// @param kind of joint, in words
public record JointNeed(double least, double full, String kind) {
  private static final double FILM_MM = 0.03;
  private static final double LEAD_MM = 0.15;
  private static final double BOARD_MM = 1.6;
  private static final double CONCAVE = 1 - Math.PI / 4;

  /// A chip's end on its pad.
  ///
  /// @param padLengthMm along the part
  /// @param padWidthMm across it
  /// @param endMm how much of the pad lies under the part
  /// @param heightMm of the part
  public static JointNeed chip(
      double padLengthMm, double padWidthMm, double endMm, double heightMm) {
    double film = padLengthMm * padWidthMm * FILM_MM;
    double toe = Math.max(padLengthMm - endMm, 0.05);
    double wedge = CONCAVE * toe * padWidthMm;
    return mm3(film + wedge * heightMm / 4, film + wedge * heightMm, "chip end");
  }

  /// A gull wing on its pad.
  ///
  /// @param padLengthMm along the lead
  /// @param padWidthMm across it
  public static JointNeed gullWing(double padLengthMm, double padWidthMm) {
    double foot = padLengthMm * 0.6;
    double w = padWidthMm * 0.8;
    double film = padLengthMm * padWidthMm * FILM_MM;
    double heel = CONCAVE * LEAD_MM * LEAD_MM * w;
    double sides = CONCAVE * 2 * foot * LEAD_MM * (padWidthMm - w) / 2;
    double toe = CONCAVE * LEAD_MM * (padLengthMm - foot) / 2 * w;
    return mm3(film + heel, film + 2 * heel + sides + toe, "gull wing");
  }

  /// A lead in a plated hole.
  ///
  /// @param padMm diameter of the pad
  public static JointNeed hole(double holeMm, double leadMm, double padMm) {
    double ring = Math.PI / 4 * (holeMm * holeMm - leadMm * leadMm) * BOARD_MM;
    double r = Math.max(padMm - leadMm, 0) / 2;
    // a concave fillet about a lead, as high as it is wide
    double fillet = 2 * Math.PI * (leadMm / 2 + r / 4) * CONCAVE * r * r;
    return mm3(0.75 * ring + fillet, ring + 2 * fillet, "plated hole");
  }

  private static JointNeed mm3(double least, double full, String kind) {
    return new JointNeed(least * 1e-9, full * 1e-9, kind);
  }

  /// What a joint of a board wants.
  ///
  /// @return empty where the part brings its own solder, or nothing is known of it
  public static Optional<JointNeed> of(Revision revision, Joint j) {
    Optional<Part> found = revision.part(j.part());
    if (found.isEmpty() || !found.get().fitted()) {
      return Optional.empty();
    }
    Part part = found.get();
    PackageShape shape = revision.shape(part);
    if (j.hole()) {
      double hole = j.drillMm();
      return hole > 0.25
          ? Optional.of(hole(hole, hole - 0.25, Math.max(j.widthMm(), hole + 0.5)))
          : Optional.empty();
    }
    if (j.widthMm() <= 0 || shape.family() == PackageShape.Family.BALLS) {
      return Optional.empty();
    }
    double h = j.heightMm() > 0 ? j.heightMm() : j.widthMm();
    // the pad lies along the way from the middle of the part to the joint
    double dx = part.place().map(s -> j.xMm() - s.xMm()).orElse(1.0);
    double dy = part.place().map(s -> j.yMm() - s.yMm()).orElse(0.0);
    double turn = Math.toRadians(j.rotationDeg());
    double px = dx * Math.cos(turn) + dy * Math.sin(turn);
    double py = -dx * Math.sin(turn) + dy * Math.cos(turn);
    boolean twoEnds = revision.jointsOf(j.part()).size() == 2;
    boolean alongX = twoEnds ? Math.abs(px) >= Math.abs(py) : j.widthMm() >= h;
    double length = alongX ? j.widthMm() : h;
    double width = alongX ? h : j.widthMm();
    if (twoEnds && shape.family() == PackageShape.Family.CHIP) {
      double toEdge = shape.lengthMm() / 2 - (Math.hypot(dx, dy) - length / 2);
      double end = Math.clamp(toEdge, 0, length);
      return Optional.of(
          chip(length, Math.min(width, Math.max(shape.widthMm(), 0.1)), end, shape.heightMm()));
    }
    // a large pad amid the leads carries heat; it wants half of it wetted
    double all = length * width;
    if (all > 4 && Math.hypot(dx, dy) < Math.min(shape.lengthMm(), shape.widthMm()) / 3) {
      return Optional.of(mm3(0.5 * all * 0.05, all * 0.1, "pad under the body"));
    }
    return Optional.of(gullWing(length, width));
  }

  /// What this is held against, opened as a sheet.
  ///
  /// @param solder that the opening leaves, m³
  public void on(Worked.Builder s, double solder) {
    s.line("joint wants", kind + ", least fillet", least * 1e9, "mm³")
        .line("and takes", "full fillet", full * 1e9, "mm³")
        .line(
            "so it gets",
            "solder / least",
            solder < least
                ? "less than it wants"
                : solder > 1.5 * full ? "more than it takes" : "enough");
    s.assume("lead and end from the pad; film 0.03 mm; board 1.6 mm")
        .source("geometry; IPC-A-610 class 2 fillets, from memory");
  }
}
