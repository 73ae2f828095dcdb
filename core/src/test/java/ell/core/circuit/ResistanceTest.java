package ell.core.circuit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.testng.annotations.Test;

/// Networks with known answers: the cube of equal resistors, the infinite ladder and the balanced
/// bridge are textbook problems.
public class ResistanceTest {
  private static Circuit cube() {
    Circuit g = new Circuit();
    for (int corner = 0; corner < 8; corner++) {
      for (int axis = 0; axis < 3; axis++) {
        int other = corner ^ 1 << axis;
        if (other > corner) {
          g.resistor("R" + corner + axis, "n" + corner, "n" + other, 1);
        }
      }
    }
    return g;
  }

  /// The ends that are found near two nodes hold what the whole network makes between them.
  @Test
  public void endsHoldTheResistance() {
    java.util.Random random = new java.util.Random(17);
    for (int round = 0; round < 200; round++) {
      Circuit c = new Circuit();
      int n = 3 + random.nextInt(30);
      for (int i = 0; i < 2 * n; i++) {
        c.resistor(
            "R" + i,
            "N" + random.nextInt(n),
            "N" + random.nextInt(n),
            Math.pow(10, 1 + 4 * random.nextDouble()));
      }
      Resistance r = Resistance.of(c);
      for (int k = 1; k < n; k++) {
        double exact = r.between("N0", "N" + k);
        Resistance.Ends ends = r.ends("N0", "N" + k);
        org.testng.Assert.assertTrue(
            ends.low() <= exact * (1 + 1e-9) && exact <= ends.high() * (1 + 1e-9),
            ends + " and " + exact);
      }
    }
    Circuit series = new Circuit();
    series.resistor("R1", "A", "B", 100);
    series.resistor("R2", "B", "C", 200);
    Resistance.Ends of = Resistance.of(series).ends("A", "C");
    org.testng.Assert.assertEquals(of.low(), 300, 1e-9);
    org.testng.Assert.assertEquals(of.high(), 300, 1e-9);
  }

  @Test
  public void cubeOfEqualResistors() {
    assertEquals(Resistance.of(cube()).between("n0", "n7"), 5.0 / 6, 1e-9, "body diagonal");
    assertEquals(Resistance.of(cube()).between("n0", "n1"), 7.0 / 12, 1e-9, "edge");
    assertEquals(Resistance.of(cube()).between("n0", "n3"), 3.0 / 4, 1e-9, "face diagonal");
  }

  @Test
  public void longLadderComesToTheGoldenRatio() {
    // series 1, shunt 1, on and on: (1 + sqrt 5) / 2
    Circuit g = new Circuit();
    for (int i = 0; i < 60; i++) {
      g.resistor("s" + i, "a" + i, "a" + (i + 1), 1);
      g.resistor("p" + i, "a" + (i + 1), "gnd", 1);
    }
    assertEquals(Resistance.of(g).between("a0", "gnd"), (1 + Math.sqrt(5)) / 2, 1e-9);
  }

  @Test
  public void balancedBridgeIgnoresItsMiddle() {
    for (double middle : new double[] {0.001, 1, 1e6}) {
      Circuit g = new Circuit();
      g.resistor("R1", "a", "l", 100);
      g.resistor("R2", "a", "r", 200);
      g.resistor("R3", "l", "b", 300);
      g.resistor("R4", "r", "b", 600);
      g.resistor("R5", "l", "r", middle);
      assertEquals(Resistance.of(g).between("a", "b"), 400.0 * 800 / 1200, 1e-6);
    }
  }

  @Test
  public void apartIsInfiniteAndSameIsZero() {
    Circuit g = new Circuit();
    g.resistor("R1", "a", "b", 10);
    g.resistor("R2", "c", "d", 10);
    assertEquals(Resistance.of(g).between("a", "c"), Double.POSITIVE_INFINITY);
    assertEquals(Resistance.of(g).between("a", "nowhere"), Double.POSITIVE_INFINITY);
    assertEquals(Resistance.of(g).between("a", "a"), 0.0);
    assertEquals(Resistance.of(g).directly("a", "b").toString(), "[R1]");
    assertEquals(Resistance.of(g).joined("c").size(), 2);
    assertThrows(IllegalArgumentException.class, () -> g.resistor("R", "a", "b", -1));
    assertThrows(IllegalArgumentException.class, () -> g.resistor("R", "a", "b", Double.NaN));
  }

  @Test
  public void linksOfZeroOhmsJoin() {
    Circuit g = new Circuit();
    g.resistor("R1", "a", "b", 1000);
    g.resistor("JP", "b", "c", 0);
    assertEquals(Resistance.of(g).between("a", "c"), 1000, 0.01);
  }

  /// Random networks against a dense solve by a reference library (Hipparchus, LU).
  @Test
  public void randomNetworksAgainstADenseSolve() {
    Random random = new Random(5);
    for (int round = 0; round < 60; round++) {
      int n = 3 + random.nextInt(25);
      double[][] laplacian = new double[n][n];
      Circuit g = new Circuit();
      for (int i = 1; i < n; i++) {
        add(g, laplacian, i, random.nextInt(i), random);
      }
      for (int k = 0; k < n; k++) {
        int a = random.nextInt(n);
        int b = random.nextInt(n);
        if (a != b) {
          add(g, laplacian, a, b, random);
        }
      }
      assertEquals(
          Resistance.of(g).between("n0", "n" + (n - 1)), dense(laplacian), dense(laplacian) * 1e-6);
    }
  }

  private static void add(Circuit g, double[][] l, int a, int b, Random random) {
    double ohms = Math.pow(10, 1 + 4 * random.nextDouble());
    g.resistor("R", "n" + a, "n" + b, ohms);
    l[a][a] += 1 / ohms;
    l[b][b] += 1 / ohms;
    l[a][b] -= 1 / ohms;
    l[b][a] -= 1 / ohms;
  }

  /// Ohms between the first and the last node, the last one grounded.
  private static double dense(double[][] laplacian) {
    int n = laplacian.length - 1;
    Array2DRowRealMatrix m = new Array2DRowRealMatrix(laplacian);
    double[] in = new double[n];
    in[0] = 1;
    return new LUDecomposition(m.getSubMatrix(0, n - 1, 0, n - 1))
        .getSolver()
        .solve(new ArrayRealVector(in))
        .getEntry(0);
  }

  @Test
  public void aLargeMeshIsSolvedInMoments() {
    Circuit g = new Circuit();
    int side = 60;
    for (int x = 0; x < side; x++) {
      for (int y = 0; y < side; y++) {
        if (x + 1 < side) {
          g.resistor("h", x + "," + y, (x + 1) + "," + y, 1);
        }
        if (y + 1 < side) {
          g.resistor("v", x + "," + y, x + "," + (y + 1), 1);
        }
      }
    }
    // between neighbours in an endless square mesh it is 1/2 (textbook); the middle of a large one
    // is near
    double r = Resistance.of(g).between("30,30", "31,30");
    assertTrue(Math.abs(r - 0.5) < 2e-3, "got " + r);
  }
}
