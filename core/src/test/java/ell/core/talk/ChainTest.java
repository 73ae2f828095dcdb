package ell.core.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.Boards;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Chains as they lie on boards, what explains what is seen of them, and where to look next.
public class ChainTest {
  private static ChainOnBoard chain(int n) {
    return new ChainOnBoard(
        "LAMP4",
        java.util.stream.IntStream.rangeClosed(1, n).mapToObj(i -> "D" + i).toList(),
        "1",
        "3",
        "U1.5");
  }

  /// The least expected cost by trying every tree.
  private static double every(double[] p, double[] c, int i, int j) {
    double sum = 0;
    int live = 0;
    for (int k = i; k <= j; k++) {
      sum += p[k];
      live += p[k] > 0 ? 1 : 0;
    }
    if (live < 2) {
      return 0;
    }
    double best = Double.POSITIVE_INFINITY;
    for (int k = i; k < j; k++) {
      double left = Arrays.stream(p, i, k + 1).sum();
      double own = left <= 0 || left >= sum ? 0 : c[k] * sum;
      best = Math.min(best, own + every(p, c, i, k) + every(p, c, k + 1, j));
    }
    return best;
  }

  @Test
  public void noTreeOfLooksCostsLess() {
    Random r = new Random(11);
    for (int n = 2; n < 10; n++) {
      for (int k = 0; k < 40; k++) {
        double[] p = new double[n];
        for (int i = 0; i < n; i++) {
          p[i] = r.nextInt(4) == 0 ? 0 : r.nextDouble();
        }
        double sum = Arrays.stream(p).sum();
        if (Arrays.stream(p).filter(x -> x > 0).count() < 2) {
          continue;
        }
        double[] c = new double[n - 1];
        Arrays.setAll(c, _ -> 0.5 + 3 * r.nextDouble());
        ChainSearch.Next next = ChainSearch.of(p, c);
        double[] q = Arrays.stream(p).map(x -> x / sum).toArray();
        assertEquals(next.expected(), every(q, c, 0, n - 1), 1e-9);
        assertTrue(next.before() > 0 && next.before() < 1);
      }
    }
  }

  /// Of 2^k places that are equally likely, k looks are enough and needed.
  @Test
  public void equalPlacesAreHalved() {
    for (int k = 1; k < 8; k++) {
      double[] p = new double[1 << k];
      Arrays.fill(p, 1);
      double[] c = new double[p.length - 1];
      Arrays.fill(c, 1);
      ChainSearch.Next n = ChainSearch.of(p, c);
      assertEquals(n.expected(), k, 1e-9);
      assertEquals(n.before(), 0.5, 1e-9);
    }
    double[] many = new double[3000];
    Arrays.fill(many, 1);
    double[] ones = new double[2999];
    Arrays.fill(ones, 1);
    assertEquals(ChainSearch.of(many, ones).before(), 0.5, 1e-9);
    assertEquals(ChainSearch.of(new double[] {1, 0, 0}, new double[] {1, 1}).look(), -1);
  }

  @DataProvider
  Object[][] seen() {
    return new Object[][] {
      {"lit up to 7", ChainSeen.Kind.DARK_FROM, 8},
      {"lit to 20", ChainSeen.Kind.FINE, 0},
      {"first dead", ChainSeen.Kind.DARK_FROM, 1},
      {"5 dead", ChainSeen.Kind.ONE_DARK, 5},
      {"wrong colour from 12", ChainSeen.Kind.WRONG_FROM, 12},
      {"wrong color from 1", ChainSeen.Kind.ALL_WRONG, 0},
      {"flickers from 20", ChainSeen.Kind.FLICKERS_FROM, 20},
      {"Wrong colours", ChainSeen.Kind.ALL_WRONG, 0},
      {"nothing at the end", ChainSeen.Kind.NOTHING_AT_THE_END, 0},
      {"fine", ChainSeen.Kind.FINE, 0},
    };
  }

  @Test(dataProvider = "seen")
  public void whatIsSeenIsUnderstood(String words, ChainSeen.Kind kind, int element) {
    assertEquals(ChainSeen.parse(words, 20), new ChainSeen(kind, element));
  }

  @Test
  public void whatCannotBeIsRefused() {
    for (String bad :
        List.of("lit up to 21", "lit up to 0", "21 dead", "purple", "", "lit up to 99999999999")) {
      expectThrows(IllegalArgumentException.class, () -> ChainSeen.parse(bad, 20));
    }
  }

  @Test(dataProvider = "seen")
  public void whatExplainsItSumsToOne(String words, ChainSeen.Kind kind, int element) {
    ChainSuspects s =
        ChainSuspects.of(
            chain(20), new ChainSeen(kind, element), ChainSuspects.Feed.UNKNOWN, Map.of());
    if (kind == ChainSeen.Kind.FINE) {
      assertTrue(s.suspects().isEmpty());
      return;
    }
    assertEquals(s.suspects().stream().mapToDouble(ChainSuspects.Suspect::chance).sum(), 1, 1e-9);
    for (int i = 1; i < s.suspects().size(); i++) {
      assertTrue(s.suspects().get(i).chance() <= s.suspects().get(i - 1).chance());
    }
  }

  /// Lit up to 7: the break lies between the seventh and the eighth, and nowhere else.
  @Test
  public void aBreakLiesWhereTheLightEnds() {
    ChainSuspects s =
        ChainSuspects.of(
            chain(20), ChainSeen.parse("lit up to 7", 20), ChainSuspects.Feed.UNKNOWN, Map.of());
    List<String> faults = s.suspects().stream().map(ChainSuspects.Suspect::fault).toList();
    assertTrue(faults.contains("open D7.3") && faults.contains("open D8.1"), faults.toString());
    assertTrue(faults.contains("dead D8"), faults.toString());
    assertTrue(faults.stream().noneMatch(f -> f.contains("D9") || f.contains("D6")));
    assertEquals(s.next().orElseThrow().place(), "net of D8.1");
  }

  @Test
  public void aLineThatSagsIsSuspectedWhereItsVoltsRunOut() {
    List<Double> volts = new java.util.ArrayList<>();
    for (int i = 1; i <= 20; i++) {
      volts.add(5 - 0.06 * i);
    }
    ChainSuspects.Feed feed = new ChainSuspects.Feed(volts, 4.2);
    assertEquals(feed.sags(), 14, "5 - 0.06 n < 4.2 from n = 14 on");
    ChainSuspects s =
        ChainSuspects.of(chain(20), ChainSeen.parse("wrong colour from 14", 20), feed, Map.of());
    assertTrue(s.suspects().getFirst().fault().contains("feed again before D14"));
    ChainSuspects far =
        ChainSuspects.of(chain(20), ChainSeen.parse("wrong colour from 3", 20), feed, Map.of());
    assertTrue(far.suspects().stream().noneMatch(x -> x.fault().contains("feed again")));
  }

  /// A dear look is avoided where a cheap one tells as much.
  @Test
  public void whatIsHiddenIsLookedAtLast() {
    ChainSeen all = new ChainSeen(ChainSeen.Kind.NOTHING_AT_THE_END, 0);
    String free =
        ChainSuspects.of(chain(8), all, ChainSuspects.Feed.UNKNOWN, Map.of())
            .next()
            .orElseThrow()
            .place();
    String other =
        ChainSuspects.of(chain(8), all, ChainSuspects.Feed.UNKNOWN, Map.of(free, 50.0))
            .next()
            .orElseThrow()
            .place();
    assertTrue(!other.equals(free), free);
  }

  @Test
  public void chainsAreFoundByTheirJoints() {
    Boards b = new Boards();
    b.part("J1").at(0, 0).holes("5V", "GND", "DIN");
    b.part("R1").value("330").at(5, 0).pads("DIN", "D0");
    for (int i = 1; i <= 6; i++) {
      b.part("D" + i)
          .value("RGB LED")
          .code("LAMP4")
          .at(10 + 5 * i, 0)
          .pads("D" + (i - 1), "5V", i == 6 ? "" : "D" + i, "GND");
    }
    List<ChainOnBoard> all = ChainOnBoard.of(b.revision());
    assertEquals(all.size(), 1, all.toString());
    ChainOnBoard c = all.getFirst();
    assertEquals(c.elements(), List.of("D1", "D2", "D3", "D4", "D5", "D6"));
    assertEquals(c.near(), "1");
    assertEquals(c.far(), "3");
    assertEquals(c.head(), "J1.3", "behind its resistor");
  }
}
