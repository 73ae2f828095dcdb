package ell.core.revise;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.revise.difference.LayerDifference;
import ell.core.revise.difference.LayerDifference.Shape;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.Test;

/// Layers whose shapes are known: one for each joint of a made board.
public class LayerDifferenceTest {
  private static final Revision BOARD = Drawings.board(11);

  private static List<Shape> openings() {
    List<Shape> all = new ArrayList<>();
    for (Joint j : BOARD.joints()) {
      all.add(new Shape(j.xMm(), j.yMm(), 0.5));
    }
    return all;
  }

  @Test
  public void theSameIsTheSameWhereverItLies() {
    List<Shape> there =
        openings().stream().map(s -> new Shape(s.xMm() + 7, s.yMm() - 2, s.size())).toList();
    assertTrue(LayerDifference.of("paste", openings(), there, BOARD, BOARD, 7, -2).same());
    assertTrue(LayerDifference.of("paste", List.of(), List.of(), BOARD, BOARD, 0, 0).same());
  }

  @Test
  public void whatCameWentAndGrewIsCountedAtItsParts() {
    List<Shape> there = openings();
    String gone = BOARD.joints().get(30).part();
    String grown = BOARD.joints().get(3).part();
    Shape was = there.get(3);
    there.set(3, new Shape(was.xMm(), was.yMm(), 0.6));
    there.remove(30);
    there.add(new Shape(500, 500, 1));
    LayerDifference d = LayerDifference.of("paste", openings(), there, BOARD, BOARD, 0, 0);
    assertEquals(d.added(), 1);
    assertEquals(d.removed(), 1);
    assertEquals(d.changed(), 1);
    assertTrue(d.parts().contains(gone) && d.parts().contains(grown), d.parts().toString());
    assertTrue(d.words().startsWith("paste: 1 added, 1 removed, 1 of another size"), d.words());
  }

  @Test
  public void aLayerThatOnlyOneHasIsSaid() {
    assertTrue(LayerDifference.one("drill", "GAUGE rev B").words().contains("only GAUGE rev B"));
  }
}
