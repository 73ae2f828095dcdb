package ell.core.kit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Arrays;
import java.util.Random;
import org.jgrapht.alg.flow.EdmondsKarpMFImpl;
import org.jgrapht.graph.DefaultWeightedEdge;
import org.jgrapht.graph.SimpleDirectedWeightedGraph;
import org.testng.annotations.Test;

/// Sharing of alternates, against the greatest flow of a graph library (JGraphT, Edmonds and Karp).
public class PoolTest {
  @Test
  public void aLineMakesRoomForAnother() {
    // line 0 has 10 of its own and could use stock 1; line 1 has none and can only use stock 0
    long[] stock = {10, 10, 0};
    Pool p = new Pool(new int[][] {{0, 1}, {2, 0}}, stock, new long[] {10, 10});
    assertEquals(p.missing(), new long[] {0, 0});
    assertEquals(p.fromAlternates(0), 10);
    assertEquals(p.fromAlternates(1), 10);
  }

  @Test
  public void ownStockComesFirst() {
    Pool p = new Pool(new int[][] {{0, 1}, {1}}, new long[] {5, 5}, new long[] {6, 4});
    assertEquals(p.missing(), new long[] {0, 0});
    assertEquals(p.fromAlternates(0), 1);
    Pool q = new Pool(new int[][] {{0, 1}, {1}}, new long[] {5, 5}, new long[] {6, 5});
    assertEquals(q.missing(), new long[] {1, 0}, "the line whose own code it is keeps it");
  }

  @Test
  public void asLittleIsMissingAsCanBe() {
    Random random = new Random(5);
    for (int round = 0; round < 300; round++) {
      int lines = 1 + random.nextInt(7);
      int stocks = lines + random.nextInt(4);
      int[][] of = new int[lines][];
      long[] need = new long[lines];
      long[] have = new long[stocks];
      for (int s = 0; s < stocks; s++) {
        have[s] = random.nextInt(12);
      }
      for (int i = 0; i < lines; i++) {
        need[i] = random.nextInt(15);
        int own = i;
        of[i] =
            java.util.stream.IntStream.concat(
                    java.util.stream.IntStream.of(own),
                    random.ints(random.nextInt(4), 0, stocks).filter(s -> s != own).distinct())
                .toArray();
      }
      Pool p = new Pool(of, have.clone(), need);
      long missing = Arrays.stream(p.missing()).sum();
      assertEquals(Arrays.stream(need).sum() - missing, greatestFlow(of, have, need));
      for (int i = 0; i < lines; i++) {
        assertTrue(p.missing()[i] >= 0 && p.missing()[i] <= need[i]);
      }
    }
  }

  private static long greatestFlow(int[][] of, long[] have, long[] need) {
    var g = new SimpleDirectedWeightedGraph<String, DefaultWeightedEdge>(DefaultWeightedEdge.class);
    g.addVertex("from");
    g.addVertex("to");
    for (int s = 0; s < have.length; s++) {
      g.addVertex("s" + s);
      g.setEdgeWeight(g.addEdge("from", "s" + s), have[s]);
    }
    for (int i = 0; i < need.length; i++) {
      g.addVertex("l" + i);
      g.setEdgeWeight(g.addEdge("l" + i, "to"), need[i]);
      for (int s : of[i]) {
        g.setEdgeWeight(g.addEdge("s" + s, "l" + i), 1e9);
      }
    }
    return Math.round(new EdmondsKarpMFImpl<>(g).calculateMaximumFlow("from", "to"));
  }
}
