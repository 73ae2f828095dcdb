package ell.core.order;

import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// Which side is printed and melted first when both lie in paste: its parts hang while the other
/// side melts, so that it is the one of which fewer would fall off, then the lower one, on which
/// the board lies flatter under the second print, then the lighter one. Common practice, no source.
///
/// @param first the side that is melted first
/// @param why in words, empty when there is one side only
record Sides(Side first, String why) {
  /// Heights that differ by less lie alike.
  private static final double ALIKE_MM = 0.5;

  /// Masses that differ by a smaller share hang alike.
  private static final double ALIKE_MASS = 0.1;

  /// What would hang if a side were melted first.
  private record Hanging(int falling, double tallestMm, String tallest, double grams, int guessed) {
    static Hanging of(Revision revision, List<Part> own) {
      int falling = 0;
      double tallest = 0;
      String which = "";
      double grams = 0;
      int guessed = 0;
      for (Part p : own) {
        PackageShape shape = revision.shape(p);
        Optional<FallOff> f = FallOff.of(revision, p);
        if (f.isPresent() && !f.get().holds()) {
          falling++; // it is soldered by hand then, and hangs nowhere
          continue;
        }
        double mass = Double.isNaN(p.massGrams()) ? shape.massGrams() : p.massGrams();
        grams += Double.isNaN(mass) ? 0 : mass;
        guessed += shape.known() ? 0 : 1;
        if (shape.heightMm() > tallest) {
          tallest = shape.heightMm();
          which = p.reference();
        }
      }
      return new Hanging(falling, tallest, which, grams, guessed);
    }

    boolean betterThan(Hanging o) {
      if (falling != o.falling) {
        return falling < o.falling;
      }
      if (Math.abs(tallestMm - o.tallestMm) >= ALIKE_MM) {
        return tallestMm < o.tallestMm;
      }
      return grams < o.grams * (1 - ALIKE_MASS);
    }

    String words(Side side) {
      if (tallest.isEmpty()) {
        return side.key() + " side: nothing would hang, " + falling + " would fall off";
      }
      return String.format(
          Locale.ROOT,
          "%s side: %s is the tallest, %.1f mm, %.2f g in all%s%s",
          side.key(),
          tallest,
          tallestMm,
          grams,
          falling == 0 ? "" : ", " + falling + " would fall off",
          guessed == 0 ? "" : " (" + guessed + " bodies are guessed)");
    }
  }

  /// Decides.
  ///
  /// @param pasted parts that lie in paste, of both sides
  static Sides of(Revision revision, List<Part> pasted, List<Wish> wishes) {
    Map<Side, List<Part>> by = new EnumMap<>(Side.class);
    pasted.forEach(p -> by.computeIfAbsent(p.side(), _ -> new ArrayList<>()).add(p));
    if (by.size() < 2) {
      return new Sides(by.isEmpty() ? Side.FIRST : by.keySet().iterator().next(), "");
    }
    Hanging first = Hanging.of(revision, by.get(Side.FIRST));
    Hanging second = Hanging.of(revision, by.get(Side.SECOND));
    Optional<Wish> wish = wishes.stream().filter(w -> w.kind() == Wish.Kind.SIDE_FIRST).findFirst();
    if (wish.isPresent()) {
      Side side = Side.FIRST.key().equals(wish.get().other()) ? Side.FIRST : Side.SECOND;
      return new Sides(side, "you want this side first");
    }
    Side side = second.betterThan(first) ? Side.SECOND : Side.FIRST;
    Hanging own = side == Side.FIRST ? first : second;
    Hanging other = side == Side.FIRST ? second : first;
    return new Sides(
        side,
        "this side first, for it hangs while the other melts: "
            + own.words(side)
            + "; "
            + other.words(side.other())
            + "; otherwise: wish "
            + side.other().key()
            + "-side first");
  }
}
