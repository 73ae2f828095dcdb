package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Joint;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/// The copper of simulated boards: squares of a sheet, ways of a tree, and where a fault joins two
/// nets.
public class CopperTreeTest {
  private static Joint joint(String part, double x, double y) {
    return new Joint(part, "1", "N", x, y, Joint.Reach.FIRST, false, 0, true, 1, 1, 0, false, 0);
  }

  /// A square of 35 µm copper has 0.493 mΩ. Source: 1.724e-8 Ω·m, IACS; IEC 60028.
  @Test
  public void squares() {
    Set<Long> seen = new java.util.TreeSet<>();
    for (int seed = 0; seed < 60; seed++) {
      Joint a = joint("A", 0, 0);
      Joint b = joint("B", 6, 4);
      double r = new CopperTree(List.of(a, b), new Random(seed)).ohms(a, b);
      seen.add(Math.round(r / 4.9257e-4 * 1000)); // squares, in thousandths
    }
    assertEquals(seen, Set.of(33_333L, 20_000L, 10_000L, 5_000L), "10 mm of four widths");
  }

  /// Ways add up along a row, are the same both ways, and nothing to itself.
  @Test
  public void ways() {
    List<Joint> row = new ArrayList<>();
    for (int i = 0; i < 9; i++) {
      row.add(joint("P" + i, 5.0 * ((i * 4) % 9), 0)); // in any order
    }
    CopperTree t = new CopperTree(row, new Random(3));
    List<Joint> sorted =
        row.stream().sorted(java.util.Comparator.comparingDouble(Joint::xMm)).toList();
    double sum = 0;
    for (int i = 1; i < 9; i++) {
      sum += t.ohms(sorted.get(i - 1), sorted.get(i));
      assertEquals(t.ohms(sorted.getFirst(), sorted.get(i)), sum, 1e-15);
      assertEquals(t.ohms(sorted.get(i), sorted.getFirst()), sum, 1e-15);
    }
    assertEquals(t.ohms(sorted.get(4), sorted.get(4)), 0, 0);
    assertThrows(IllegalArgumentException.class, () -> t.ohms(row.getFirst(), joint("Q", 1, 1)));
  }

  @Test
  public void whereAFaultJoins() {
    Boards b = new Boards();
    b.part("U1").at(0, 0).pads("VIN", "GND", "3V3");
    b.part("C1").at(10, 0).pads("3V3", "GND");
    b.part("C2").at(20, 0).pads("GND", "3V3");
    Revision r = b.revision();
    assertEquals(on(r, "short C1", "3V3", "GND"), "C1.1");
    assertEquals(on(r, "short C2", "3V3", "GND"), "C2.2");
    assertEquals(on(r, "short C2", "GND", "3V3"), "C2.1");
    assertEquals(on(r, "bridge U1.2 U1.3", "3V3", "GND"), "U1.3");
    assertEquals(on(r, "sometimes 0.3 bridge C1.1 C1.2", "3V3", "GND"), "C1.1");
    assertEquals(on(r, "short U1", "VIN", "GND"), "U1.1", "a chip joins its first two nets");
    assertEquals(on(r, "short U1", "3V3", "GND"), "");
    assertEquals(on(r, "bridge 3V3 GND", "3V3", "GND"), "", "nobody said where");
    assertEquals(on(r, "open C1.1", "3V3", "GND"), "");
    ShortWays ways = new ShortWays(r, 1);
    List<Fault> there = List.of(FaultWords.parse("short C2"));
    assertEquals(ways.ohms(there, "C2.2", "GND"), 0, 0);
    assertTrue(ways.ohms(there, "U1.3", "GND") > ways.ohms(there, "C1.1", "GND"));
    assertEquals(ways.ohms(List.of(), "U1.3", "GND"), 0, 0);
    assertEquals(ways.ohms(there, "3V3", "GND"), 0, 0, "a net is nowhere");
  }

  private static String on(Revision r, String fault, String net, String other) {
    return ShortWays.touch(r, FaultWords.parse(fault))
        .flatMap(t -> t.on(net, other))
        .map(Joint::place)
        .orElse("");
  }
}
