package ell.core.circuit;

import static org.testng.Assert.assertEquals;

import java.util.Random;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Taking nodes away against a dense solve by a reference library (Hipparchus, LU), and the star
/// and triangle of the textbooks.
public class StarMeshTest {
  @Test
  public void aStarActsAsItsTriangle() {
    // three arms of 3 ohm are a triangle of 9 ohm: seen from one corner to the two others at ground
    // that is 4.5 ohm
    StarMesh m = new StarMesh(2, 0);
    m.conduct(0, 1, 1.0 / 3);
    m.conduct(1, -1, 1.0 / 3);
    m.conduct(1, -1, 1.0 / 3);
    m.inject(0, 2);
    double[] v = m.solve();
    assertEquals(v[0], 9, 1e-12);
    assertEquals(v[1], 3, 1e-12);
  }

  @DataProvider
  Object[][] sizes() {
    return new Object[][] {{1}, {2}, {3}, {10}, {40}, {90}, {150}};
  }

  @Test(dataProvider = "sizes")
  public void againstADenseSolve(int n) {
    Random random = new Random(n);
    for (int round = 0; round < 10; round++) {
      double leak = 1e-6;
      StarMesh m = new StarMesh(n, leak);
      double[][] g = new double[n][n];
      double[] in = new double[n];
      for (int i = 0; i < n; i++) {
        g[i][i] += leak;
        in[i] = random.nextGaussian();
        m.inject(i, in[i]);
      }
      for (int k = 0; k < 3 * n; k++) {
        int a = random.nextInt(n);
        int b = random.nextInt(n + 1) - 1;
        double siemens = Math.pow(10, -3 + 4 * random.nextDouble());
        m.conduct(a, b, siemens);
        if (a != b) {
          g[a][a] += siemens;
          if (b >= 0) {
            g[b][b] += siemens;
            g[a][b] -= siemens;
            g[b][a] -= siemens;
          }
        }
      }
      double[] expected =
          new LUDecomposition(new Array2DRowRealMatrix(g))
              .getSolver()
              .solve(new ArrayRealVector(in))
              .toArray();
      double[] is = m.solve();
      double scale = new ArrayRealVector(expected).getLInfNorm();
      for (int i = 0; i < n; i++) {
        assertEquals(is[i], expected[i], scale * 1e-8, "node " + i + " of " + n);
      }
    }
  }

  /// A rail with a thousand neighbours is taken away last; what hangs on it stays cheap and exact.
  @Test
  public void aRailWithManyNeighbours() {
    int n = 3000;
    StarMesh m = new StarMesh(n, 0);
    for (int i = 1; i < n; i++) {
      m.conduct(0, i, 1e-3);
      m.conduct(i, -1, 1e-3);
    }
    m.inject(0, 1);
    double[] v = m.solve();
    double expected = 2000.0 / (n - 1);
    assertEquals(v[0], expected, expected * 1e-12);
    assertEquals(v[n - 1], expected / 2, expected * 1e-12);
  }
}
