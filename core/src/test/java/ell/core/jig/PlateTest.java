package ell.core.jig;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Plates against published tables, beams and balance.
public class PlateTest {
  private static final GeometryFactory GEOMETRY = new GeometryFactory();
  private static final double E = 22e9;
  private static final double T = 1.6e-3;
  private static final double STIFF = 1e6;

  private static Polygon rectangle(double wMm, double hMm) {
    return (Polygon) GEOMETRY.toGeometry(new Envelope(0, wMm, 0, hMm));
  }

  /// Roark's Formulas for Stress and Strain, rectangular plates, all edges simply supported, even
  /// load, Poisson's ratio 0.3: w = alpha q b⁴ / (E t³).
  @DataProvider
  Object[][] roark() {
    return new Object[][] {{1.0, 0.0444}, {1.4, 0.0770}, {1.6, 0.0906}, {2.0, 0.1110}};
  }

  @Test(dataProvider = "roark")
  public void supportedPlatesBendAsTheTableSays(double ratio, double alpha) {
    double b = 0.1;
    double q = 1000;
    double scale = q * Math.pow(b, 4) / (E * T * T * T);
    double series = PlateSeries.of(ratio * b, b, T, E, 0.3, q).deflection() / scale;
    assertEquals(series, alpha, 0.01 * alpha, "series");
    Plate.Bent bent =
        new Plate(rectangle(1e3 * ratio * b, 1e3 * b), T, E, 0.3, 40).even(q, Plate.Edge.SUPPORTED);
    double elements = bent.at(ratio * b / 2, b / 2);
    assertEquals(elements / scale, alpha, 0.02 * alpha, "elements");
    assertEquals(elements / scale, series, 0.003 * alpha, "one against the other");
    PlateSeries s = PlateSeries.of(ratio * b, b, T, E, 0.3, q);
    assertEquals(
        bent.strain(ratio * b / 2, b / 2), s.strain(), 0.02 * s.strain(), "strain in the middle");
  }

  /// Timoshenko, Theory of Plates and Shells, table of clamped rectangles: w = k q a⁴ / D.
  @DataProvider
  Object[][] timoshenko() {
    return new Object[][] {{1.0, 0.00126}, {1.5, 0.00220}, {2.0, 0.00254}};
  }

  @Test(dataProvider = "timoshenko")
  public void clampedPlatesBendAsTheTableSays(double ratio, double k) {
    double a = 0.08;
    double d = E * T * T * T / (12 * (1 - 0.09));
    Plate.Bent bent =
        new Plate(rectangle(1e3 * ratio * a, 1e3 * a), T, E, 0.3, 60).even(500, Plate.Edge.CLAMPED);
    assertEquals(bent.at(ratio * a / 2, a / 2) * d / (500 * Math.pow(a, 4)), k, 0.02 * k);
  }

  /// The finer the mesh, the less it moves.
  @Test
  public void theMeshSettles() {
    double last = 0;
    double before = Double.POSITIVE_INFINITY;
    for (int n : new int[] {8, 16, 32, 64}) {
      double w =
          new Plate(rectangle(100, 100), T, E, 0.3, n)
              .even(1000, Plate.Edge.SUPPORTED)
              .at(0.05, 0.05);
      if (last > 0) {
        double moved = Math.abs(w - last) / w;
        assertTrue(moved < before, n + ": " + moved);
        before = moved;
      }
      last = w;
    }
    assertTrue(before < 0.002, "" + before);
  }

  private static Plate.Spot spot(double xMm, double yMm, double rMm) {
    return new Plate.Spot(1e-3 * xMm, 1e-3 * yMm, 1e-3 * rMm);
  }

  /// A narrow strip over two pairs of fingers with a force in its middle is a beam: w = P L³ / (48
  /// E I), strain = t P L / (8 E I). Gere and Timoshenko, Mechanics of Materials.
  @Test
  public void aStripIsABeam() {
    double width = 10e-3;
    double length = 120e-3;
    Plate plate = new Plate(rectangle(140, 10), T, E, 0, 140);
    List<Plate.Spot> fingers =
        List.of(spot(10, 2, 0), spot(10, 8, 0), spot(130, 2, 0), spot(130, 8, 0));
    double p = 2;
    Plate.Bent bent =
        plate
            .pressed(
                List.of(spot(70, 3, 0), spot(70, 7, 0)), new double[] {1, 1}, fingers, false, 1e9)
            .orElseThrow();
    double inertia = width * T * T * T / 12;
    double w = p * Math.pow(length, 3) / (48 * E * inertia);
    assertEquals(bent.at(0.07, 0.005), w, 0.01 * w);
    // a quarter of the way the moment is half of the greatest
    double strain = T / 2 * (p * length / 8) / (E * inertia);
    assertEquals(bent.strain(0.04, 0.005), strain, 0.03 * strain);
  }

  /// What fingers bear is what probes press with, in force and in moment, on any outline.
  @Test
  public void fingersBearWhatProbesPress() {
    Polygon l =
        GEOMETRY.createPolygon(
            new Coordinate[] {
              new Coordinate(0, 0), new Coordinate(80, 0), new Coordinate(80, 30),
              new Coordinate(35, 30), new Coordinate(35, 70), new Coordinate(0, 70),
              new Coordinate(0, 0)
            });
    List<Plate.Spot> probes = List.of(spot(20, 20, 1), spot(60, 15, 1), spot(15, 55, 1));
    double[] forces = {1.5, 1.2, 0.8};
    List<Plate.Spot> fingers =
        List.of(spot(5, 5, 0), spot(72, 15, 0), spot(17, 64, 0), spot(40, 20, 0));
    Plate.Bent bent =
        new Plate(l, T, E, 0.15, 50).pressed(probes, forces, fingers, false, STIFF).orElseThrow();
    double[] bears = bent.reactions();
    double force = 0;
    double mx = 0;
    double my = 0;
    for (int i = 0; i < bears.length; i++) {
      assertTrue(bears[i] >= 0, "fingers press only");
      force += bears[i];
      mx += bears[i] * fingers.get(i).x();
      my += bears[i] * fingers.get(i).y();
    }
    for (int i = 0; i < forces.length; i++) {
      force -= forces[i];
      mx -= forces[i] * probes.get(i).x();
      my -= forces[i] * probes.get(i).y();
    }
    assertEquals(force, 0, 1e-8);
    assertEquals(mx, 0, 1e-9);
    assertEquals(my, 0, 1e-9);
    assertTrue(Double.isNaN(bent.at(0.07, 0.06)), "nothing is where the board is cut out");
  }

  /// Of a board that lies on springs, the sum of what each takes is worked out by hand: three
  /// fingers and a rigid board are a lever.
  @Test
  public void threeFingersAreALever() {
    List<Plate.Spot> fingers = List.of(spot(5, 5, 0), spot(95, 5, 0), spot(50, 55, 0));
    Plate.Bent bent =
        new Plate(rectangle(100, 60), T, E, 0.15, 40)
            .pressed(List.of(spot(50, 25, 0)), new double[] {3}, fingers, false, 1e9)
            .orElseThrow();
    // moments about the lower line: 3 · 20 = f · 50
    assertEquals(bent.reactions()[2], 1.2, 1e-6);
    assertEquals(bent.reactions()[0], 0.9, 1e-6);
    assertEquals(bent.reactions()[1], 0.9, 1e-6);
  }

  /// A force beside the fingers tips the board over, and one finger on an empty place bears
  /// nothing.
  @Test
  public void whatIsNotHeldIsSaid() {
    Plate plate = new Plate(rectangle(100, 60), T, E, 0.15, 30);
    List<Plate.Spot> left = List.of(spot(5, 5, 0), spot(5, 55, 0), spot(20, 30, 0));
    assertTrue(
        plate.pressed(List.of(spot(90, 30, 0)), new double[] {1}, left, false, STIFF).isEmpty());
    assertTrue(
        plate
            .pressed(List.of(spot(10, 30, 0)), new double[] {1}, List.of(), false, STIFF)
            .isEmpty());
    List<Plate.Spot> more = new ArrayList<>(left);
    more.add(spot(95, 55, 0));
    double[] bears =
        plate
            .pressed(List.of(spot(10, 30, 0)), new double[] {1}, more, false, STIFF)
            .orElseThrow()
            .reactions();
    assertEquals(bears[3], 0, 1e-6, Arrays.toString(bears));
  }

  /// The solver of bands against the general one of a library.
  @Test
  public void bandsAreSolvedAsAnyMatrix() {
    java.util.Random r = new java.util.Random(3);
    int n = 60;
    int band = 7;
    double[][] full = new double[n][n];
    Banded m = new Banded(n, band);
    for (int i = 0; i < n; i++) {
      for (int k = Math.max(0, i - band); k <= i; k++) {
        double v = i == k ? 20 + r.nextDouble() : r.nextDouble() - 0.5;
        full[i][k] = v;
        full[k][i] = v;
        m.add(i, k, v);
      }
    }
    double[] right = r.doubles(n).toArray();
    assertTrue(m.factor());
    double[] x = m.solve(right);
    double[] y =
        new org.hipparchus.linear.LUDecomposition(
                new org.hipparchus.linear.Array2DRowRealMatrix(full))
            .getSolver()
            .solve(new org.hipparchus.linear.ArrayRealVector(right))
            .toArray();
    for (int i = 0; i < n; i++) {
      assertEquals(x[i], y[i], 1e-12);
    }
  }
}
