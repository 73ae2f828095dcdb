package ell.core.revise;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.revise.difference.RevisionDifference;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.testng.annotations.Test;

/// Differences of drawings whose edits are known: made-up boards, a thousand pairs.
public class DifferenceTest {
  private static Set<String> facts(RevisionDifference d) {
    Set<String> all = new TreeSet<>();
    d.added().forEach(p -> all.add("added " + p));
    d.removed().forEach(p -> all.add("removed " + p));
    d.value().forEach(v -> all.add("value " + v.part()));
    d.packages().forEach(v -> all.add("package " + v.part()));
    d.fitted().forEach(v -> all.add("fitted " + v.part()));
    d.moved().forEach(m -> all.add("moved " + m.part()));
    d.joints().forEach(j -> all.add("joint " + j.place()));
    return all;
  }

  /// A drawing that is only numbered and named anew has not changed at all.
  @Test
  public void namesAloneAreNoChange() {
    for (int i = 0; i < 250; i++) {
      Revision was = Drawings.board(i);
      Drawings.Edited e = new Drawings.Edited(was, i);
      if (i % 3 != 1) {
        e.renamed();
      }
      if (i % 3 != 2) {
        e.renumbered();
      }
      RevisionDifference d = RevisionDifference.of(was, e.drawing());
      assertTrue(d.same(), i + ": " + facts(d));
      assertEquals(d.matched().size(), was.parts().size());
      assertEquals(d.netNames().size(), was.nets().size());
      assertTrue(d.netsAdded().isEmpty() && d.netsRemoved().isEmpty(), d.netsAdded().toString());
    }
  }

  @Test
  public void whatWasEditedIsFoundAmongNewNames() {
    int hits = 0;
    int wanted = 0;
    int found = 0;
    for (int i = 0; i < 750; i++) {
      Revision was = Drawings.board(1000 + i);
      Drawings.Edited e = new Drawings.Edited(was, i).edits(1 + i % 7);
      if (i % 3 != 1) {
        e.renamed();
      }
      if (i % 3 != 2) {
        e.renumbered();
      }
      Set<String> says = facts(RevisionDifference.of(was, e.drawing()));
      for (String w : e.wanted) {
        hits += says.contains(w) ? 1 : 0;
      }
      wanted += e.wanted.size();
      found += says.size();
    }
    assertTrue(wanted > 1500, "edits: " + wanted);
    // measured: precision 0.998, recall 0.998; two ends that are left of a net cannot always be
    // told
    assertTrue(hits >= 0.99 * wanted, "recall " + hits + " of " + wanted);
    assertTrue(hits >= 0.99 * found, "precision " + hits + " of " + found);
  }

  /// Laid out anew: names of parts, or names of nets, are enough to know them by.
  @Test
  public void aBoardThatWasLaidOutAnew() {
    for (boolean numbered : new boolean[] {false, true}) {
      int hits = 0;
      int wanted = 0;
      int found = 0;
      for (int i = 0; i < 150; i++) {
        Revision was = Drawings.board(5000 + i);
        Drawings.Edited e = new Drawings.Edited(was, i).edits(1 + i % 4).relaid();
        if (numbered) {
          e.renumbered();
        } else {
          e.renamed();
        }
        Set<String> says = facts(RevisionDifference.of(was, e.drawing()));
        says.removeIf(s -> s.startsWith("moved"));
        e.wanted.removeIf(s -> s.startsWith("moved"));
        for (String w : e.wanted) {
          hits += says.contains(w) ? 1 : 0;
        }
        wanted += e.wanted.size();
        found += says.size();
      }
      double least = numbered ? 0.8 : 0.99; // measured: 0.83 and 0.87, and all of them
      assertTrue(hits >= least * wanted, numbered + " recall " + hits + " of " + wanted);
      assertTrue(hits >= least * found, numbered + " precision " + hits + " of " + found);
    }
  }

  @Test
  public void aDrawingThatLiesElsewhereIsToldAndTakenOff() {
    Revision was = Drawings.board(7);
    Drawings.Edited e = new Drawings.Edited(was, 3).edits(4).shifted(12.5, -3);
    RevisionDifference d = RevisionDifference.of(was, e.drawing());
    assertEquals(facts(d), e.wanted);
    assertTrue(d.told().getFirst().contains("12.5 mm"), d.told().toString());
  }

  @Test
  public void aMoveIsMeasuredAndATurnToo() {
    Revision was = two("10k", 5, 5, 0, ell.core.board.Side.FIRST);
    Revision now = two("10k", 7, 4, 270, ell.core.board.Side.SECOND);
    RevisionDifference d = RevisionDifference.of(was, now);
    RevisionDifference.Moved m = d.moved().getFirst();
    assertEquals(m.part(), "R1");
    assertEquals(m.dxMm(), 2, 1e-9);
    assertEquals(m.dyMm(), -1, 1e-9);
    assertEquals(m.turnedDeg(), -90, 1e-9);
    assertEquals(m.side().orElseThrow(), ell.core.board.Side.SECOND);
    assertEquals(d.moved().size(), 1);
  }

  private static Revision two(
      String ohms, double x, double y, double turn, ell.core.board.Side side) {
    Part r =
        new Part(
            "R1",
            ohms,
            "0603",
            "R",
            "",
            true,
            false,
            List.of(),
            "",
            java.util.Optional.of(new Part.Spot(x, y, turn, side)),
            Double.NaN,
            Double.NaN);
    Part u = Drawings.part("U1", "CHIP", "SOIC-8", 20, 20);
    List<Joint> joints =
        List.of(
            Drawings.joint("R1", "1", "A", x, y),
            Drawings.joint("R1", "2", "GND", x + 1, y),
            Drawings.joint("U1", "1", "A", 20, 20),
            Drawings.joint("U1", "2", "GND", 21, 20));
    return new Revision("TWO", "1", List.of(r, u), joints, new Outline(List.of()));
  }

  @Test
  public void oneValueWrittenInTwoWaysIsOne() {
    assertTrue(
        RevisionDifference.of(
                two("4k7", 5, 5, 0, ell.core.board.Side.FIRST),
                two("4.7 kOhm", 5, 5, 0, ell.core.board.Side.FIRST))
            .value()
            .isEmpty());
    assertEquals(
        RevisionDifference.of(
                two("4k7", 5, 5, 0, ell.core.board.Side.FIRST),
                two("47k", 5, 5, 0, ell.core.board.Side.FIRST))
            .value(),
        List.of(new RevisionDifference.Changed("R1", "4k7", "47k")));
  }

  /// Hundreds of equal parts, a matrix: one that was wired otherwise is found, though every other
  /// one looks the same.
  @Test
  public void oneOfHundredsOfEqualParts() {
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    for (int i = 0; i < 400; i++) {
      double x = 3 * (i % 20);
      double y = 3 * (i / 20);
      parts.add(Drawings.part("D" + (i + 1), "WHITE", "0603", x, y));
      joints.add(Drawings.joint("D" + (i + 1), "1", "ROW" + i / 20, x, y));
      joints.add(Drawings.joint("D" + (i + 1), "2", "COL" + i % 20, x + 1, y));
    }
    Revision was = new Revision("WALL", "1", parts, joints, new Outline(List.of()));
    joints.replaceAll(
        j -> j.place().equals("D77.2") ? Drawings.joint("D77", "2", "COL3", j.xMm(), j.yMm()) : j);
    Revision wired = new Revision("WALL", "2", parts, joints, new Outline(List.of()));
    Drawings.Edited e = new Drawings.Edited(wired, 5).renumbered().renamed();
    RevisionDifference d = RevisionDifference.of(was, e.drawing());
    assertEquals(facts(d), Set.of("joint D77.2"));
    assertEquals(d.netNames().size(), 40);
    Map<String, String> names = d.netNames();
    assertEquals(d.joints().getFirst().to(), names.get("COL3"));
  }

  @Test
  public void nothingAgainstNothing() {
    Revision none = new Revision("NONE", "1", List.of(), List.of(), new Outline(List.of()));
    assertTrue(RevisionDifference.of(none, none).same());
    Revision some = Drawings.board(1);
    assertEquals(RevisionDifference.of(none, some).added().size(), some.parts().size());
    assertEquals(RevisionDifference.of(some, none).removed().size(), some.parts().size());
  }
}
