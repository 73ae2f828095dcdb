package ell.core.print;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Volumes of fillets against their cross sections drawn in the geometry library and swept, and a
/// fillet about a lead against its solid of revolution summed ring by ring.
public class JointNeedTest {
  private static final GeometryFactory FACTORY = new GeometryFactory();
  private static final double FILM = 0.03;
  private static final double LEAD = 0.15;

  /// Area under a concave fillet: a corner of `wide` by `high` out of which a quarter of an ellipse
  /// is cut that touches both faces.
  private static double concave(double wide, double high) {
    int n = 4000;
    Coordinate[] c = new Coordinate[n + 3];
    c[0] = new Coordinate(0, 0);
    for (int i = 0; i <= n; i++) {
      double a = Math.PI / 2 * i / n;
      // the ellipse stands on the far corner of the box
      c[i + 1] = new Coordinate(wide * (1 - Math.sin(a)), high * (1 - Math.cos(a)));
    }
    c[n + 2] = c[0];
    return FACTORY.createPolygon(c).getArea();
  }

  @Test
  public void theDrawnFilletIsTheClosedForm() {
    assertEquals(concave(2, 3), (1 - Math.PI / 4) * 6, 1e-5);
  }

  @DataProvider
  Object[][] seeds() {
    Object[][] out = new Object[30][];
    for (int i = 0; i < out.length; i++) {
      out[i] = new Object[] {i};
    }
    return out;
  }

  @Test(dataProvider = "seeds")
  public void aChipEndWantsAFilmAndAWedge(int seed) {
    Random r = new Random(seed);
    double length = 0.3 + 2 * r.nextDouble();
    double width = 0.3 + 3 * r.nextDouble();
    double under = length * r.nextDouble() * 0.8;
    double height = 0.2 + 2 * r.nextDouble();
    JointNeed n = JointNeed.chip(length, width, under, height);
    double film = length * width * FILM;
    double toe = length - under;
    assertEquals(n.full() * 1e9, film + concave(toe, height) * width, 1e-5);
    assertEquals(n.least() * 1e9, film + concave(toe, height / 4) * width, 1e-5);
  }

  @Test(dataProvider = "seeds")
  public void aGullWingWantsItsHeelAtLeastAndAllRoundInFull(int seed) {
    Random r = new Random(seed);
    double length = 0.5 + 2 * r.nextDouble();
    double width = 0.15 + r.nextDouble();
    JointNeed n = JointNeed.gullWing(length, width);
    double foot = 0.6 * length;
    double lead = 0.8 * width;
    double film = length * width * FILM;
    double heel = concave(LEAD, LEAD) * lead;
    double side = concave((width - lead) / 2, LEAD) * foot;
    double toe = concave((length - foot) / 2, LEAD) * lead;
    assertEquals(n.least() * 1e9, film + heel, 1e-6);
    assertEquals(n.full() * 1e9, film + 2 * heel + 2 * side + toe, 1e-5);
  }

  /// Rings from the lead outward, each as high as the fillet is there.
  private static double aboutALead(double lead, double reach) {
    int n = 200_000;
    double sum = 0;
    for (int i = 0; i < n; i++) {
      double u = (i + 0.5) / n;
      double high = reach * (1 - Math.sqrt(1 - (1 - u) * (1 - u)));
      sum += 2 * Math.PI * (lead / 2 + u * reach) * high * reach / n;
    }
    return sum;
  }

  /// The closed form takes the fillet's middle at a quarter of its reach; the true one of a quarter
  /// circle lies at 0.2234 of it, so that the sum is at most a few percent less.
  @Test(dataProvider = "seeds")
  public void aHoleWantsItsBarrelAndAFilletAboutTheLead(int seed) {
    Random r = new Random(seed);
    double lead = 0.4 + 0.8 * r.nextDouble();
    double hole = lead + 0.15 + 0.3 * r.nextDouble();
    double pad = hole + 0.4 + r.nextDouble();
    JointNeed n = JointNeed.hole(hole, lead, pad);
    double barrel = Math.PI / 4 * (hole * hole - lead * lead) * 1.6;
    double fillet = aboutALead(lead, (pad - lead) / 2);
    assertEquals(n.least() * 1e9, 0.75 * barrel + fillet, 0.03 * n.least() * 1e9);
    assertEquals(n.full() * 1e9, barrel + 2 * fillet, 0.03 * n.full() * 1e9);
    assertTrue(n.full() > n.least());
  }
}
