package ell.core.board;

import java.util.List;

/// The edge of the board: closed loops, the first is the outside, the others are cut-outs and
/// holes.
///
/// @param loops each a list of corners in order, at least three; empty when no outline is known
public record Outline(List<List<Point>> loops) {
  /// A corner, in millimetre.
  public record Point(double xMm, double yMm) {}

  /// No outline is known.
  public static final Outline UNKNOWN = new Outline(List.of());

  public Outline {
    loops = loops.stream().map(List::copyOf).toList();
    for (List<Point> loop : loops) {
      if (loop.size() < 3) {
        throw new IllegalArgumentException(
            "an outline needs at least 3 corners, got " + loop.size());
      }
    }
  }
}
