package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.artwork.Artwork;
import ell.core.artwork.Island;
import ell.core.artwork.Islands;
import ell.files.gerber.GerberReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Layers drawn at random, dark and clear one over the other, against a raster of the test's own
/// that asks of every point, operation by operation, whether ink lies on it.
public class GerberRasterTest {
  private static final double SIDE = 6;
  private static final int CELLS = 220;

  /// Something laid down: whether a point lies in it.
  private interface Laid {
    boolean covers(double x, double y);

    /// How far a point is from its edge, at least; for points too near to be asked about.
    default boolean sure(double x, double y) {
      double e = 0.006;
      boolean here = covers(x, y);
      for (int k = 0; k < 8; k++) {
        double a = k * Math.PI / 4;
        if (covers(x + e * Math.cos(a), y + e * Math.sin(a)) != here) {
          return false;
        }
      }
      return true;
    }
  }

  private record Operation(boolean dark, Laid laid) {}

  private static final class Drawing {
    private final StringBuilder text = new StringBuilder("%FSLAX36Y36*%\n%MOMM*%\nG01*\n");
    private final List<Operation> operations = new ArrayList<>();
    private final Random r;
    private int next = 10;
    private boolean dark = true;

    Drawing(long seed) {
      r = new Random(seed);
    }

    private double between(double a, double b) {
      return Math.rint((a + (b - a) * r.nextDouble()) * 1000) / 1000;
    }

    private static String at(double x, double y) {
      return "X" + Math.round(x * 1e6) + "Y" + Math.round(y * 1e6);
    }

    private static String mm(double d) {
      return String.format(Locale.ROOT, "%.3f", d);
    }

    private void polarity() {
      boolean now = operations.size() < 3 || r.nextInt(4) > 0;
      if (now != dark) {
        text.append(now ? "%LPD*%\n" : "%LPC*%\n");
        dark = now;
      }
    }

    private int aperture(String what) {
      text.append("%ADD").append(next).append(what).append("*%\n");
      text.append("D").append(next).append("*\n");
      return next++;
    }

    private void lay(Laid laid) {
      operations.add(new Operation(dark, laid));
    }

    void any() {
      polarity();
      double x = between(0.8, SIDE - 0.8);
      double y = between(0.8, SIDE - 0.8);
      switch (r.nextInt(7)) {
        case 0 -> disc(x, y);
        case 1 -> rectangle(x, y);
        case 2 -> obround(x, y);
        case 3 -> stroke(x, y);
        case 4 -> closed(x, y);
        case 5 -> ring(x, y);
        default -> region(x, y);
      }
    }

    private void disc(double x, double y) {
      double d = between(0.2, 1.5);
      aperture("C," + mm(d));
      text.append(at(x, y)).append("D03*\n");
      lay((px, py) -> Math.hypot(px - x, py - y) <= d / 2);
    }

    private void rectangle(double x, double y) {
      double w = between(0.2, 1.5);
      double h = between(0.2, 1.5);
      double hole = between(0.05, Math.min(w, h) * 0.8);
      boolean holed = r.nextBoolean();
      aperture("R," + mm(w) + "X" + mm(h) + (holed ? "X" + mm(hole) : ""));
      text.append(at(x, y)).append("D03*\n");
      lay((px, py) ->
          Math.abs(px - x) <= w / 2
              && Math.abs(py - y) <= h / 2
              && !(holed && Math.hypot(px - x, py - y) < hole / 2));
    }

    private void obround(double x, double y) {
      double w = between(0.3, 1.5);
      double h = between(0.3, 1.5);
      aperture("O," + mm(w) + "X" + mm(h));
      text.append(at(x, y)).append("D03*\n");
      double pen = Math.min(w, h);
      double dx = (w - pen) / 2;
      double dy = (h - pen) / 2;
      lay((px, py) -> toSegment(px, py, x - dx, y - dy, x + dx, y + dy) <= pen / 2);
    }

    private void stroke(double x, double y) {
      double d = between(0.1, 0.6);
      double x1 = between(0.8, SIDE - 0.8);
      double y1 = between(0.8, SIDE - 0.8);
      aperture("C," + mm(d));
      text.append(at(x, y)).append("D02*\n").append(at(x1, y1)).append("D01*\n");
      lay((px, py) -> toSegment(px, py, x, y, x1, y1) <= d / 2);
    }

    /// A run of short strokes that comes back to where it began, often narrower than its pen.
    private void closed(double x, double y) {
      double d = between(0.2, 0.9);
      int n = 2 + r.nextInt(6);
      double far = between(0.05, 0.6);
      double[] cx = new double[n + 1];
      double[] cy = new double[n + 1];
      for (int i = 0; i < n; i++) {
        cx[i] = Math.rint((x + far * Math.cos(2 * Math.PI * i / n)) * 1000) / 1000;
        cy[i] =
            Math.rint((y + between(0.2, 1) * far * Math.sin(2 * Math.PI * i / n)) * 1000) / 1000;
      }
      cx[n] = cx[0];
      cy[n] = cy[0];
      aperture("C," + mm(d));
      text.append(at(cx[0], cy[0])).append("D02*\n");
      for (int i = 1; i <= n; i++) {
        text.append(at(cx[i], cy[i])).append("D01*\n");
      }
      lay((px, py) -> {
        double near = Double.POSITIVE_INFINITY;
        for (int i = 1; i <= n; i++) {
          near = Math.min(near, toSegment(px, py, cx[i - 1], cy[i - 1], cx[i], cy[i]));
        }
        return near <= d / 2;
      });
    }

    /// A full turn of the pen: a disc when the pen is wider than the turn, else a ring.
    private void ring(double x, double y) {
      double d = between(0.2, 0.9);
      double radius = between(0.05, 0.6);
      aperture("C," + mm(d));
      text.append("G75*\n").append(at(x + radius, y)).append("D02*\nG02*\n");
      text.append(at(x + radius, y))
          .append("I")
          .append(Math.round(-radius * 1e6))
          .append("J0D01*\n");
      text.append("G01*\n");
      lay((px, py) -> Math.abs(Math.hypot(px - x, py - y) - radius) <= d / 2);
    }

    private void region(double x, double y) {
      int n = 3 + r.nextInt(4);
      double[] cx = new double[n];
      double[] cy = new double[n];
      for (int i = 0; i < n; i++) {
        double a = 2 * Math.PI * i / n;
        double far = between(0.2, 0.75);
        cx[i] = Math.rint((x + far * Math.cos(a)) * 1000) / 1000;
        cy[i] = Math.rint((y + far * Math.sin(a)) * 1000) / 1000;
      }
      text.append("G36*\n").append(at(cx[0], cy[0])).append("D02*\n");
      for (int i = 1; i <= n; i++) {
        text.append(at(cx[i % n], cy[i % n])).append("D01*\n");
      }
      text.append("G37*\n");
      lay((px, py) -> inside(px, py, cx, cy));
    }
  }

  private static double toSegment(
      double px, double py, double x0, double y0, double x1, double y1) {
    double dx = x1 - x0;
    double dy = y1 - y0;
    double q = dx * dx + dy * dy;
    double f = q == 0 ? 0 : Math.clamp(((px - x0) * dx + (py - y0) * dy) / q, 0, 1);
    return Math.hypot(px - x0 - f * dx, py - y0 - f * dy);
  }

  private static boolean inside(double px, double py, double[] x, double[] y) {
    boolean in = false;
    for (int i = 0, j = x.length - 1; i < x.length; j = i++) {
      if (y[i] > py != y[j] > py && px < (x[j] - x[i]) * (py - y[i]) / (y[j] - y[i]) + x[i]) {
        in = !in;
      }
    }
    return in;
  }

  /// An island made ready to be asked many times.
  private record Asked(List<double[][]> rings, double[] box) {
    static Asked of(Island island) {
      List<double[][]> rings = new ArrayList<>();
      double[] box = {SIDE, SIDE, 0, 0};
      for (double[] ring : island.rings()) {
        int n = ring.length / 2;
        double[][] xy = new double[2][n];
        for (int i = 0; i < n; i++) {
          xy[0][i] = ring[2 * i] + island.x();
          xy[1][i] = ring[2 * i + 1] + island.y();
          box[0] = Math.min(box[0], xy[0][i]);
          box[1] = Math.min(box[1], xy[1][i]);
          box[2] = Math.max(box[2], xy[0][i]);
          box[3] = Math.max(box[3], xy[1][i]);
        }
        rings.add(xy);
      }
      return new Asked(rings, box);
    }

    boolean covers(double px, double py) {
      if (px < box[0] || px > box[2] || py < box[1] || py > box[3]) {
        return false;
      }
      boolean in = false;
      for (double[][] r : rings) {
        in ^= inside(px, py, r[0], r[1]);
      }
      return in;
    }
  }

  @DataProvider
  Object[][] seeds() {
    Object[][] out = new Object[40][];
    for (int i = 0; i < out.length; i++) {
      out[i] = new Object[] {(long) i};
    }
    return out;
  }

  @Test(dataProvider = "seeds")
  public void everyPointIsAsTheOperationsSay(long seed) throws IOException {
    Drawing d = new Drawing(seed);
    int n = 4 + (int) (seed % 9);
    for (int i = 0; i < n; i++) {
      d.any();
    }
    d.text.append("M02*\n");
    if (!(GerberReader.read(Source.of("random.gbr", d.text.toString()))
        instanceof Read.Whole<Artwork>(Artwork art, var _))) {
      throw new AssertionError(d.text.toString());
    }
    List<Island> islands = Islands.of(art);
    List<Asked> all = islands.stream().map(Asked::of).toList();
    double cell = SIDE / CELLS;
    int asked = 0;
    int inked = 0;
    for (int i = 0; i < CELLS; i++) {
      for (int k = 0; k < CELLS; k++) {
        double x = (i + 0.5) * cell;
        double y = (k + 0.5) * cell;
        boolean wanted = false;
        boolean sure = true;
        for (Operation o : d.operations) {
          wanted = o.laid().covers(x, y) ? o.dark() : wanted;
          sure &= o.laid().sure(x, y);
        }
        if (!sure) {
          continue; // round edges are drawn with corners
        }
        asked++;
        inked += wanted ? 1 : 0;
        boolean found = all.stream().anyMatch(o -> o.covers(x, y));
        assertEquals(found, wanted, "at " + x + ", " + y + " in\n" + d.text);
      }
    }
    assertTrue(asked > CELLS * CELLS * 0.8, asked + " points were asked about");
    assertTrue(inked > 200, inked + " of them in ink");
    double area = islands.stream().mapToDouble(i -> i.template().area()).sum();
    assertEquals(area, inked * cell * cell, 0.1 * area + 0.05);
  }
}
