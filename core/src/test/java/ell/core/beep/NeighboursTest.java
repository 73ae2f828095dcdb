package ell.core.beep;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.board.Joint;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Which nets lie close enough for a bridge: every pair of pads against the distance that the
/// geometry library gives between their outlines.
public class NeighboursTest {
  private static final GeometryFactory FACTORY = new GeometryFactory();

  private static Joint pad(
      String net, double x, double y, Joint.Reach reach, double w, double h, double drill) {
    return new Joint("U1", "1", net, x, y, reach, drill > 0, drill, true, w, h, 0, false, 0);
  }

  private static Geometry outline(Joint j) {
    double w = Math.max(j.widthMm(), j.drillMm());
    w = w > 0 ? w : 0.3;
    double h = j.heightMm() > 0 ? Math.max(j.heightMm(), j.drillMm()) : w;
    return FACTORY.toGeometry(
        new Envelope(j.xMm() - w / 2, j.xMm() + w / 2, j.yMm() - h / 2, j.yMm() + h / 2));
  }

  private static boolean touchable(Joint a, Joint b) {
    return a.reach() == Joint.Reach.BOTH || b.reach() == Joint.Reach.BOTH || a.reach() == b.reach();
  }

  private static Set<String> everyPair(Map<String, List<Joint>> nets, double gap) {
    List<Joint> all = nets.values().stream().flatMap(List::stream).toList();
    Set<String> pairs = new HashSet<>();
    for (Joint a : all) {
      for (Joint b : all) {
        if (!a.net().equals(b.net()) && touchable(a, b) && outline(a).distance(outline(b)) <= gap) {
          pairs.add(BeepList.pair(a.net(), b.net()));
        }
      }
    }
    return pairs;
  }

  @DataProvider
  Object[][] boards() {
    return IntStream.range(0, 40).mapToObj(i -> new Object[] {i}).toArray(Object[][]::new);
  }

  @Test(dataProvider = "boards")
  public void pairsAreThoseOfEveryPairLookedAt(int seed) {
    Random r = new Random(seed);
    Map<String, List<Joint>> nets = new HashMap<>();
    int n = 20 + r.nextInt(120);
    double board = 10 + r.nextInt(60);
    Joint.Reach[] reaches = Joint.Reach.values();
    for (int i = 0; i < n; i++) {
      String net = "N" + r.nextInt(1 + n / 3);
      boolean large = r.nextInt(8) == 0;
      double w = r.nextInt(6) == 0 ? 0 : large ? 3 + 9 * r.nextDouble() : 0.2 + r.nextDouble();
      double h = r.nextInt(5) == 0 ? 0 : large ? 3 + 9 * r.nextDouble() : 0.2 + r.nextDouble();
      nets.computeIfAbsent(net, _ -> new ArrayList<>())
          .add(
              pad(
                  net,
                  r.nextDouble() * board - 5,
                  r.nextDouble() * board - 5,
                  reaches[r.nextInt(reaches.length)],
                  w,
                  h,
                  r.nextInt(4) == 0 ? 1 : 0));
    }
    double gap = 0.1 + 1.5 * r.nextDouble();
    Set<String> wanted = everyPair(nets, gap);
    assertEquals(Neighbours.near(nets, gap).keySet(), wanted);
    assertTrue(seed > 0 || !wanted.isEmpty(), "the boards have neighbours");
  }

  /// The edge of a large pad may be far from its middle: 10 mm square, with a pin 0.2 mm beside it.
  @Test
  public void aLargePadIsNearWhatLiesAtItsEdge() {
    Joint large = pad("GND", 0, 0, Joint.Reach.FIRST, 10, 10, 0);
    Joint pin = pad("3V3", 5.35, 3, Joint.Reach.FIRST, 0.3, 0.8, 0);
    Map<String, List<Joint>> nets = Map.of("GND", List.of(large), "3V3", List.of(pin));
    assertEquals(Neighbours.near(nets, 0.25).keySet(), Set.of(BeepList.pair("GND", "3V3")));
    assertEquals(Neighbours.near(nets, 0.15).keySet(), Set.of());
  }

  @Test
  public void padsOnOppositeFacesDoNotBridge() {
    Joint a = pad("A", 0, 0, Joint.Reach.FIRST, 1, 1, 0);
    Joint b = pad("B", 0, 0, Joint.Reach.SECOND, 1, 1, 0);
    Joint through = pad("C", 0.6, 0, Joint.Reach.BOTH, 1, 1, 0.6);
    assertEquals(Neighbours.near(Map.of("A", List.of(a), "B", List.of(b)), 1).keySet(), Set.of());
    assertEquals(
        Neighbours.near(Map.of("A", List.of(a), "B", List.of(b), "C", List.of(through)), 1)
            .keySet(),
        Set.of(BeepList.pair("A", "C"), BeepList.pair("B", "C")));
  }

  @Test
  public void aNetIsNoNeighbourOfItself() {
    Joint a = pad("A", 0, 0, Joint.Reach.FIRST, 1, 1, 0);
    Joint b = pad("A", 1.1, 0, Joint.Reach.FIRST, 1, 1, 0);
    assertEquals(Neighbours.near(Map.of("A", List.of(a, b)), 1).keySet(), Set.of());
    assertEquals(Neighbours.near(Map.of(), 1).keySet(), Set.of());
  }
}
