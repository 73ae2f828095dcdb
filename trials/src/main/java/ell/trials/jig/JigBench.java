package ell.trials.jig;

import ell.core.board.Side;
import ell.core.jig.Need;
import ell.core.jig.Plate;
import ell.core.jig.ProbeChoice;
import ell.core.jig.ProbeSeries;
import ell.core.jig.Target;
import ell.core.jig.TargetKind;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;

/// Choices of probes over thousands of places, and plates against a general solver.
public final class JigBench {
  private static final double SECONDS = 8;

  private JigBench() {}

  /// One line of a report.
  ///
  /// @param held whether it is as it is wanted
  public record Line(String text, boolean held) {}

  /// Runs it.
  public static List<Line> run() {
    List<Line> all = new ArrayList<>();
    for (double pitch : new double[] {5, 3.2, 2.2}) {
      all.add(choice(pitch));
    }
    all.add(plate());
    return all;
  }

  private static Line choice(double pitch) {
    List<Need> needs = new ArrayList<>();
    List<Target> targets = targets(pitch, needs);
    long from = System.nanoTime();
    ProbeChoice c =
        ProbeChoice.of(needs, targets, () -> SECONDS - (System.nanoTime() - from) / 1e9);
    double choosing = (System.nanoTime() - from) / 1e9;
    long after = System.nanoTime();
    double sum = 0;
    for (Target a : targets) {
      for (Target b : targets) {
        sum += a.distanceMm(b);
      }
    }
    double distances = (System.nanoTime() - after) / 1e9;
    return new Line(
        String.format(
            Locale.ROOT,
            "jig: 1,000 nets at 2,000 places %.1f mm apart: %.2f s, %.0f times their distances;"
                + " %d not reached, %s",
            pitch,
            choosing,
            choosing / Math.max(distances, 1e-6) * (sum > 0 ? 1 : 0),
            c.lacking().size(),
            c.optimal() ? "proven" : "not proven: " + String.join("; ", c.told())),
        choosing < 2 * SECONDS);
  }

  private static List<Target> targets(double pitch, List<Need> needs) {
    Random r = new Random(4);
    List<ProbeSeries> fits = ProbeSeries.TYPICAL;
    List<Double> misses = fits.stream().map(_ -> 1e-4).toList();
    List<Target> all = new ArrayList<>();
    for (int i = 0; i < 1000; i++) {
      String net = "N" + i;
      needs.add(new Need(net, 1, 0, false, "signal"));
      for (int k = 0; k < 2; k++) {
        all.add(
            new Target(
                net,
                net + "." + k,
                (i % 40) * pitch + 0.6 * pitch * r.nextDouble(),
                (i / 40) * pitch + 0.6 * pitch * r.nextDouble(),
                r.nextInt(10) == 0 ? Side.FIRST : Side.SECOND,
                TargetKind.PAD,
                1,
                1,
                true,
                0,
                false,
                fits,
                misses));
      }
    }
    return all;
  }

  /// A plate of some 1,000 freedoms against one dense solve of a library of as many.
  private static Line plate() {
    Polygon area = (Polygon) new GeometryFactory().toGeometry(new Envelope(0, 100, 0, 60));
    int n = 3 * 24 * 15;
    double banded = Double.POSITIVE_INFINITY;
    double dense = Double.POSITIVE_INFINITY;
    Array2DRowRealMatrix m = new Array2DRowRealMatrix(n, n);
    for (int i = 0; i < n; i++) {
      m.setEntry(i, i, 4);
      m.setEntry(i, (i + 1) % n, -1);
    }
    for (int k = 0; k < 5; k++) {
      long from = System.nanoTime();
      new Plate(area, 1.6e-3, 22e9, 0.15, 23).even(100, Plate.Edge.CLAMPED);
      banded = Math.min(banded, (System.nanoTime() - from) / 1e9);
      from = System.nanoTime();
      new LUDecomposition(m).getSolver().solve(new ArrayRealVector(n, 1));
      dense = Math.min(dense, (System.nanoTime() - from) / 1e9);
    }
    return new Line(
        String.format(
            Locale.ROOT,
            "jig: a plate of %d freedoms / one dense solve: %.3f (%.1f ms)",
            n,
            banded / dense,
            1e3 * banded),
        banded < 0.2 * dense);
  }
}
