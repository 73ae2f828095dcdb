package ell.core.order;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/// Loops opened: small ones by hand, and random graphs against a search of the test's own for what
/// can be reached.
public final class LoopOpenerTest {
  private record Way(int before, int after, int cost) implements LoopOpener.Edge {}

  private static List<LoopOpener.Opened<Way>> open(Way... ways) {
    return LoopOpener.open(List.of(ways), Way::cost);
  }

  @Test
  public void aChainHasNoLoop() {
    assertTrue(open(new Way(0, 1, 1), new Way(1, 2, 1), new Way(0, 2, 1)).isEmpty());
    assertTrue(LoopOpener.open(List.<Way>of(), Way::cost).isEmpty());
  }

  /// Three in a ring: the cheapest arrow goes, whichever of the three it is.
  @Test
  public void theCheapestOfARingIsGivenUp() {
    for (int cheap = 0; cheap < 3; cheap++) {
      List<Way> ring = new ArrayList<>();
      for (int i = 0; i < 3; i++) {
        ring.add(new Way(i, (i + 1) % 3, i == cheap ? 1 : 5));
      }
      List<LoopOpener.Opened<Way>> opened = LoopOpener.open(ring, Way::cost);
      assertEquals(opened.size(), 1);
      assertEquals(opened.getFirst().way(), ring, "from the least number on, in order");
      assertEquals(opened.getFirst().gone(), ring.get(cheap));
    }
  }

  /// Of a ring of four and a pair inside it the pair is told: it is what a maker can follow.
  @Test
  public void theShortestWayIsTold() {
    Way back = new Way(1, 0, 2);
    List<LoopOpener.Opened<Way>> opened =
        open(new Way(0, 1, 9), new Way(1, 2, 9), new Way(2, 3, 9), new Way(3, 0, 1), back);
    assertEquals(opened.get(0).way(), List.of(new Way(0, 1, 9), back));
    assertEquals(opened.get(0).gone(), back);
    assertEquals(opened.get(1).gone(), new Way(3, 0, 1), "the ring of four is opened after it");
    assertEquals(opened.size(), 2);
  }

  @Test
  public void whatLeadsToItselfIsGivenUp() {
    assertEquals(open(new Way(4, 4, 7), new Way(4, 5, 1)).getFirst().gone(), new Way(4, 4, 7));
  }

  @Test
  public void twoArrowsBetweenTheSameTwoAreOpenedBoth() {
    List<LoopOpener.Opened<Way>> opened =
        open(new Way(0, 1, 3), new Way(0, 1, 4), new Way(1, 0, 10));
    assertEquals(opened.stream().map(o -> o.gone().cost()).toList(), List.of(3, 4));
  }

  /// Random graphs: what is left has no loop, each loop closes and holds what was given up, that
  /// costs no more than another of the loop, and putting any of them back makes a loop or was not
  /// needed at the time it went.
  @Test
  public void randomGraphsAreOpened() {
    Random random = new Random(77);
    for (int round = 0; round < 400; round++) {
      int n = 2 + random.nextInt(9);
      Set<Way> ways = new HashSet<>();
      for (int k = random.nextInt(4 * n); k > 0; k--) {
        ways.add(new Way(random.nextInt(n), random.nextInt(n), 1 + random.nextInt(4)));
      }
      List<Way> left = new ArrayList<>(ways);
      left.sort(
          (a, b) -> a.before() != b.before() ? a.before() - b.before() : a.after() - b.after());
      List<Way> given = List.copyOf(left);
      List<LoopOpener.Opened<Way>> opened = LoopOpener.open(given, Way::cost);
      for (LoopOpener.Opened<Way> o : opened) {
        assertTrue(left.containsAll(o.way()), "a loop of arrows that were still there");
        for (int i = 0; i < o.way().size(); i++) {
          assertEquals(
              o.way().get(i).after(), o.way().get((i + 1) % o.way().size()).before(), "it closes");
        }
        assertTrue(o.way().contains(o.gone()));
        assertTrue(o.way().stream().allMatch(w -> w.cost() >= o.gone().cost()));
        left.remove(o.gone());
      }
      assertFalse(looped(left, n), "round " + round + ": " + left);
      assertEquals(opened.isEmpty(), !looped(given, n), "nothing is given up without need");
      assertEquals(LoopOpener.open(given, Way::cost), opened, "the same twice");
    }
  }

  /// Warshall's closure: from where one can get where.
  private static boolean looped(List<Way> ways, int n) {
    boolean[][] reach = new boolean[n][n];
    ways.forEach(w -> reach[w.before()][w.after()] = true);
    for (int k = 0; k < n; k++) {
      for (int i = 0; i < n; i++) {
        for (int j = 0; j < n; j++) {
          reach[i][j] |= reach[i][k] && reach[k][j];
        }
      }
    }
    for (int i = 0; i < n; i++) {
      if (reach[i][i]) {
        return true;
      }
    }
    return false;
  }
}
