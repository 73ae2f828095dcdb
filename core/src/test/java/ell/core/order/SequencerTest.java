package ell.core.order;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/// Sequences of parts against every order that there is, and against their own bound.
public class SequencerTest {
  private record Case(
      double[][] places, int[] reels, int[] sides, double[] heights, List<int[]> arrows) {
    Sequencer sequencer(boolean hand) {
      return new Sequencer(places, reels, sides, heights, hand, arrows, () -> false);
    }
  }

  private static Case random(Random random, int n) {
    double[][] places = new double[n][];
    int[] reels = new int[n];
    int[] sides = new int[n];
    double[] heights = new double[n];
    List<int[]> arrows = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      places[i] =
          random.nextInt(20) == 0 ? null : new double[] {random.nextInt(100), random.nextInt(60)};
      reels[i] = random.nextInt(1 + n / 2);
      sides[i] = random.nextInt(5) == 0 ? 1 : 0;
      heights[i] = 0.5 + random.nextInt(4);
      for (int k = 0; k < i; k++) {
        if (random.nextInt(n) == 0) {
          arrows.add(new int[] {k, i});
        }
      }
    }
    return new Case(places, reels, sides, heights, arrows);
  }

  @Test
  public void noOrderIsShorterUpToEightParts() {
    Random random = new Random(31);
    for (int round = 0; round < 60; round++) {
      Case c = random(random, 1 + random.nextInt(8));
      Sequencer s = c.sequencer(round % 2 == 0);
      int[] own = s.solve();
      holds(c, own);
      assertEquals(s.cost(own), shortest(c, s, new ArrayList<>(), 0), 1e-4);
    }
  }

  /// Every order, tried one part at a time.
  private static double shortest(Case c, Sequencer s, List<Integer> sofar, double cost) {
    int n = c.reels().length;
    if (sofar.size() == n) {
      return cost;
    }
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < n; i++) {
      int next = i;
      boolean may =
          !sofar.contains(i)
              && c.arrows().stream().allMatch(a -> a[1] != next || sofar.contains(a[0]));
      if (may) {
        int last = sofar.isEmpty() ? -1 : sofar.getLast();
        sofar.add(i);
        least = Math.min(least, shortest(c, s, sofar, cost + s.step(last, i)));
        sofar.removeLast();
      }
    }
    return least;
  }

  private static void holds(Case c, int[] order) {
    int[] at = new int[order.length];
    Arrays.fill(at, -1);
    for (int k = 0; k < order.length; k++) {
      assertEquals(at[order[k]], -1, "each part once");
      at[order[k]] = k;
    }
    for (int[] a : c.arrows()) {
      assertTrue(at[a[0]] < at[a[1]], "no arrow is broken");
    }
  }

  /// What is found for more parts than are solved exactly keeps every arrow and is never below its
  /// bound.
  @Test
  public void manyPartsKeepTheArrowsAndTheBound() {
    Random random = new Random(37);
    for (int round = 0; round < 40; round++) {
      Case c = random(random, 13 + random.nextInt(80));
      Sequencer s = c.sequencer(round % 2 == 0);
      int[] own = s.solve();
      holds(c, own);
      assertTrue(s.cost(own) >= s.bound() - 1e-9);
      assertTrue(!s.isExact());
    }
  }

  /// With every part on its own free spot of a row, one reel and no arrow, the shortest way is
  /// along the row: 15 s for the reel and a hundredth of a second for each millimetre.
  @Test
  public void aRowIsWalkedAlong() {
    int n = 40;
    double[][] places = new double[n][];
    List<Integer> mixed = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      mixed.add(i);
    }
    Collections.shuffle(mixed, new Random(1));
    for (int i = 0; i < n; i++) {
      places[i] = new double[] {2.0 * mixed.get(i), 10};
    }
    Sequencer s =
        new Sequencer(places, new int[n], new int[n], new double[n], false, List.of(), () -> false);
    // a greedy start in the middle goes there and back: never more than half as long again
    assertEquals(s.bound(), 15 + 0.01 * 2 * (n - 1), 1e-9);
    assertTrue(s.cost(s.solve()) <= 15 + 0.01 * 2 * (n - 1) * 1.5);
  }

  @Test
  public void reelsAreOpenedOnceWhereNothingForcesMore() {
    Random random = new Random(41);
    int n = 120;
    double[][] places = new double[n][];
    int[] reels = new int[n];
    for (int i = 0; i < n; i++) {
      places[i] = new double[] {random.nextInt(200), random.nextInt(100)};
      reels[i] = i % 15;
    }
    Sequencer s =
        new Sequencer(places, reels, new int[n], new double[n], false, List.of(), () -> false);
    int[] own = s.solve();
    int changes = 0;
    for (int k = 0; k < n; k++) {
      changes += k == 0 || reels[own[k]] != reels[own[k - 1]] ? 1 : 0;
    }
    assertEquals(changes, 15);
    assertTrue(s.cost(own) <= 1.05 * s.bound(), s.cost(own) + " over " + s.bound());
  }
}
