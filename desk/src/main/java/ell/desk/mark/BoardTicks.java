package ell.desk.mark;

import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;

/// A tick for each board on a strip: taller and named for the one in hand and for those that are
/// out (crossed at their foot) or stand apart from the others.
public final class BoardTicks {
  private BoardTicks() {}

  /// A board.
  ///
  /// @param x where it lies, in units of the picture
  /// @param apart whether it stands apart from the others
  /// @param inHand whether it is the one in hand
  public record Tick(
      String board, double x, Optional<Verdict> verdict, boolean apart, boolean inHand) {
    boolean out() {
      return verdict.filter(v -> v == Verdict.OUT).isPresent();
    }

    boolean told() {
      return out() || apart || inHand;
    }
  }

  /// Paints them.
  ///
  /// @param y of the rule that they stand on
  /// @param high of a tick
  /// @param tall of one that is named
  /// @param size of the letters
  public static void paint(
      GraphicsContext g,
      Ink ink,
      List<Tick> ticks,
      double y,
      double high,
      double tall,
      double size) {
    List<Tick> sorted = new ArrayList<>(ticks);
    sorted.sort((p, q) -> Double.compare(p.x(), q.x()));
    double named = Double.NEGATIVE_INFINITY;
    for (Tick t : sorted) {
      var colour = t.verdict().map(ink::of).orElse(ink.ink2());
      Hairline.upright(g, colour, t.x(), y - (t.told() ? tall : high), y, t.told() ? 3 : 1.5);
      if (t.out()) {
        // a cross at its foot: not by colour alone
        g.setStroke(colour);
        g.setLineWidth(1.5);
        g.strokeLine(t.x() - 4, y + 1, t.x() + 4, y + 9);
        g.strokeLine(t.x() - 4, y + 9, t.x() + 4, y + 1);
      }
      String name = t.board() + (t.apart() && !t.out() ? " apart" : "");
      double half = Type.width(Type.numbers(size), name) / 2;
      if (t.told() && t.x() - half > named + 4) {
        g.setFont(t.inHand() ? Type.numbersBold(size) : Type.numbers(size));
        g.setFill(ink.ink());
        Type.write(g, name, t.x() - half, y - tall - 2.5);
        named = t.x() + half;
      }
    }
  }
}
