package ell.files.gerber;

import ell.core.artwork.Figure;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;

/// What is laid down, in order: on the layer, or within blocks and repeats that are still open.
/// Figures and their corners are counted, so that a small file cannot ask for a room that no layer
/// needs.
final class GerberFigures {
  private static final int MOST_FIGURES = 3_000_000;
  private static final long MOST_CORNERS = 12_000_000;
  private static final int DEEPEST = 50;

  /// A block or a repeat that is not closed yet.
  ///
  /// @param block number of the block, negative for a repeat
  private record Open(int block, int nx, int ny, double dx, double dy, List<Figure> outside) {}

  private final Deque<Open> open = new ArrayDeque<>();
  private List<Figure> figures = new ArrayList<>();
  private int made;
  private long corners;

  /// A block that was closed.
  record Block(int number, List<Figure> figures) {}

  List<Figure> laid() {
    return figures;
  }

  boolean anyOpen() {
    return !open.isEmpty();
  }

  /// The number of the block that is open, negative when it is a repeat or nothing is.
  int openBlock() {
    return open.isEmpty() ? -1 : open.peek().block();
  }

  /// Lays down what was drawn; its corners were counted while it was.
  void lay(Figure g) {
    count(1, 1);
    figures.add(g);
  }

  /// Counts corners of a path that is being drawn.
  void corners(int n) {
    count(0, n);
  }

  /// Lays down a copy of what was drawn before.
  void copy(Figure g) {
    count(
        1,
        switch (g) {
          case Figure.Flash _ -> 1;
          case Figure.Stroke s -> s.path().size();
          case Figure.Region r -> r.edge().size();
        });
    figures.add(g);
  }

  private void count(int more, int moreCorners) {
    made += more;
    corners += moreCorners;
    if (made > MOST_FIGURES || corners > MOST_CORNERS) {
      throw new TooMuch(
          "more than " + MOST_FIGURES + " figures or " + MOST_CORNERS + " corners in one layer");
    }
  }

  void beginBlock(int number) {
    begin(new Open(number, 1, 1, 0, 0, figures));
  }

  /// Ends the block that is open.
  ///
  /// @throws IllegalArgumentException when none is
  Block endBlock() {
    if (openBlock() < 0) {
      throw new IllegalArgumentException("no aperture block is open");
    }
    Open o = open.pop();
    Block b = new Block(o.block(), figures);
    figures = o.outside();
    return b;
  }

  void beginRepeat(int nx, int ny, double dx, double dy) {
    if (nx < 1 || ny < 1 || (long) nx * ny > MOST_FIGURES) {
      throw new IllegalArgumentException("expected a repeat of 1 or more");
    }
    GerberNumbers.place((nx - 1) * dx);
    GerberNumbers.place((ny - 1) * dy);
    begin(new Open(-1, nx, ny, dx, dy, figures));
  }

  private void begin(Open o) {
    if (open.size() >= DEEPEST) {
      throw new IllegalArgumentException("blocks are nested more than " + DEEPEST + " deep");
    }
    open.push(o);
    figures = new ArrayList<>();
  }

  /// Ends the repeat that is open, when one is.
  void endRepeat() {
    if (open.isEmpty() || openBlock() >= 0) {
      return;
    }
    Open o = open.pop();
    List<Figure> inside = figures;
    figures = o.outside();
    for (int i = 0; i < o.nx(); i++) {
      for (int k = 0; k < o.ny(); k++) {
        for (Figure g : inside) {
          if (i == 0 && k == 0) {
            figures.add(g); // it was counted when it was laid down
          } else {
            copy(g.moved(i * o.dx(), k * o.dy()));
          }
        }
      }
    }
  }

  /// More than a layer may hold: nothing that follows can be read.
  static final class TooMuch extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    TooMuch(String message) {
      super(message);
    }
  }
}
