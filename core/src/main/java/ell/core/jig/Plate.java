package ell.core.jig;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;

/// A thin plate that bends, on its real outline: rectangular elements with twelve freedoms (Adini,
/// Clough and Melosh; see Zienkiewicz and Taylor, The Finite Element Method, plate bending), free
/// edges, held by springs or along its edge. Lengths in metre, forces in newton.
///
/// The outline is covered by equal cells; cells whose middle is outside are left out, so that a
/// slanted edge is stepped by a cell.
public final class Plate {
  private static final GeometryFactory GEOMETRY = new GeometryFactory();
  private static final double[] GAUSS = {-Math.sqrt(0.6), 0, Math.sqrt(0.6)};
  private static final double[] WEIGHT = {5.0 / 9, 8.0 / 9, 5.0 / 9};

  /// How an edge is held.
  public enum Edge {
    /// Not at all.
    FREE,
    /// It cannot move, and may turn.
    SUPPORTED,
    /// It can neither move nor turn.
    CLAMPED
  }

  /// A force or a finger over a small disc.
  ///
  /// @param radius of the disc
  public record Spot(double x, double y, double radius) {}

  /// What bending does.
  public static final class Bent {
    private final Plate plate;
    private final double[] w;
    private final List<Spot> fingers;
    private final double[] reactions;

    private Bent(Plate plate, double[] w, List<Spot> fingers, double[] reactions) {
      this.plate = plate;
      this.w = w;
      this.fingers = fingers;
      this.reactions = reactions;
    }

    /// Deflection at a place, m, upwards positive; NaN off the plate.
    public double at(double x, double y) {
      int e = plate.cell(x, y);
      if (e < 0) {
        return Double.NaN;
      }
      double[] n = plate.shapes(e, x, y, 0);
      int[] dof = plate.dofs(e);
      double sum = 0;
      for (int i = 0; i < 12; i++) {
        sum += n[i] * w[dof[i]];
      }
      return sum;
    }

    /// Greatest deflection of a corner of a cell either way, m.
    public double most() {
      double most = 0;
      for (int i = 0; i < w.length; i += 3) {
        most = Math.max(most, Math.abs(w[i]));
      }
      return most;
    }

    /// Strain of the surface at a place, as its greatest principal value; NaN off the plate.
    public double strain(double x, double y) {
      int e = plate.cell(x, y);
      return e < 0 ? Double.NaN : plate.strain(e, w, x, y);
    }

    /// Greatest strain in the middle of a cell.
    public double mostStrain() {
      double most = 0;
      for (int e = 0; e < plate.cells.length; e++) {
        double[] c = plate.middle(e);
        most = Math.max(most, plate.strain(e, w, c[0], c[1]));
      }
      return most;
    }

    /// Where that is, `{x, y}` in m.
    public double[] weakest() {
      double most = -1;
      double[] at = {0, 0};
      for (int e = 0; e < plate.cells.length; e++) {
        double[] c = plate.middle(e);
        double s = plate.strain(e, w, c[0], c[1]);
        if (s > most) {
          most = s;
          at = c;
        }
      }
      return at;
    }

    /// What each finger bears, N; 0 for one that is not touched.
    public double[] reactions() {
      return reactions.clone();
    }

    /// The fingers.
    public List<Spot> fingers() {
      return fingers;
    }

    /// Middles of cells with their deflection: `{x, y, w}` in m, for drawing.
    public List<double[]> field() {
      List<double[]> all = new ArrayList<>();
      for (int e = 0; e < plate.cells.length; e++) {
        double[] c = plate.middle(e);
        all.add(new double[] {c[0], c[1], at(c[0], c[1])});
      }
      return all;
    }
  }

  private final double thickness;
  private final double h; // along x
  private final double v; // along y
  private final double x0;
  private final double y0;
  private final int nx;
  private final int ny;
  private final int[] index; // of cell, -1 when left out
  private final int[] cells;
  private final int[] node; // of corner, -1 when unused
  private final int nodes;
  private final double rigidity;
  private final double nu;
  private final double[][] inverse;
  private final double[][] stiff;
  private final int band;
  private final boolean alongX;

  /// A plate.
  ///
  /// @param area its outline, millimetre
  /// @param thickness m
  /// @param modulus of elasticity, Pa
  /// @param nu Poisson's ratio
  /// @param across how many cells lie along its longer side, 4 or more
  /// @throws IllegalArgumentException when a value is out of its range, or the outline has no area
  public Plate(Polygon area, double thickness, double modulus, double nu, int across) {
    this.thickness = Check.positive(thickness, "thickness");
    this.nu = Check.inRange(nu, 0, 0.499, "Poisson's ratio");
    this.rigidity =
        Check.positive(modulus, "modulus") * Math.pow(thickness, 3) / (12 * (1 - nu * nu));
    Envelope b = area.getEnvelopeInternal();
    double cell = Math.max(b.getWidth(), b.getHeight()) / Math.max(4, across);
    nx = Math.max(2, (int) Math.round(b.getWidth() / cell));
    ny = Math.max(2, (int) Math.round(b.getHeight() / cell));
    h = b.getWidth() / nx * 1e-3;
    v = b.getHeight() / ny * 1e-3;
    x0 = b.getMinX() * 1e-3;
    y0 = b.getMinY() * 1e-3;
    PreparedGeometry inside = PreparedGeometryFactory.prepare(area);
    index = new int[nx * ny];
    Arrays.fill(index, -1);
    List<Integer> used = new ArrayList<>();
    for (int i = 0; i < nx * ny; i++) {
      Coordinate c =
          new Coordinate(1e3 * (x0 + (i % nx + 0.5) * h), 1e3 * (y0 + (i / nx + 0.5) * v));
      if (inside.contains(GEOMETRY.createPoint(c))) {
        index[i] = used.size();
        used.add(i);
      }
    }
    if (used.isEmpty()) {
      throw new IllegalArgumentException("the outline has no area");
    }
    cells = largest(used);
    node = new int[(nx + 1) * (ny + 1)];
    Arrays.fill(node, -1);
    for (int c : cells) {
      for (int k : corners(c)) {
        node[k] = 0;
      }
    }
    // numbered along the shorter side, so that neighbours have near numbers
    alongX = nx <= ny;
    int n = 0;
    for (int a = 0; a < (alongX ? ny + 1 : nx + 1); a++) {
      for (int c = 0; c < (alongX ? nx + 1 : ny + 1); c++) {
        int k = alongX ? a * (nx + 1) + c : c * (nx + 1) + a;
        if (node[k] == 0) {
          node[k] = n++;
        }
      }
    }
    nodes = n;
    inverse = inverse(coefficients());
    stiff = stiffness();
    int far = 0;
    for (int e = 0; e < cells.length; e++) {
      int[] d = dofs(e);
      far = Math.max(far, Arrays.stream(d).max().orElse(0) - Arrays.stream(d).min().orElse(0));
    }
    band = far;
  }

  /// The largest piece that hangs together by edges of cells; its cells get their places anew.
  private int[] largest(List<Integer> used) {
    int[] piece = new int[nx * ny];
    Arrays.fill(piece, -1);
    int[] sizes = new int[used.size()];
    int pieces = 0;
    for (int start : used) {
      if (piece[start] >= 0) {
        continue;
      }
      java.util.ArrayDeque<Integer> queue = new java.util.ArrayDeque<>(List.of(start));
      piece[start] = pieces;
      while (!queue.isEmpty()) {
        int c = queue.poll();
        sizes[pieces]++;
        int x = c % nx;
        int y = c / nx;
        for (int[] s : new int[][] {{x - 1, y}, {x + 1, y}, {x, y - 1}, {x, y + 1}}) {
          if (s[0] < 0 || s[1] < 0 || s[0] >= nx || s[1] >= ny) {
            continue;
          }
          int o = s[1] * nx + s[0];
          if (index[o] >= 0 && piece[o] < 0) {
            piece[o] = pieces;
            queue.add(o);
          }
        }
      }
      pieces++;
    }
    int best = 0;
    for (int p = 1; p < pieces; p++) {
      best = sizes[p] > sizes[best] ? p : best;
    }
    int keep = best;
    int[] kept = used.stream().filter(c -> piece[c] == keep).mapToInt(c -> c).toArray();
    Arrays.fill(index, -1);
    for (int i = 0; i < kept.length; i++) {
      index[kept[i]] = i;
    }
    return kept;
  }

  private int[] corners(int c) {
    int at = c / nx * (nx + 1) + c % nx;
    return new int[] {at, at + 1, at + nx + 2, at + nx + 1};
  }

  private int[] dofs(int e) {
    int[] k = corners(cells[e]);
    int[] d = new int[12];
    for (int i = 0; i < 4; i++) {
      for (int f = 0; f < 3; f++) {
        d[3 * i + f] = 3 * node[k[i]] + f;
      }
    }
    return d;
  }

  private double[] middle(int e) {
    return new double[] {x0 + (cells[e] % nx + 0.5) * h, y0 + (cells[e] / nx + 0.5) * v};
  }

  /// The cell over a place, -1 when it is off the plate; on an edge the cell beside it.
  private int cell(double x, double y) {
    int cx = Math.clamp((int) Math.floor((x - x0) / h), 0, nx - 1);
    int cy = Math.clamp((int) Math.floor((y - y0) / v), 0, ny - 1);
    if (x < x0 - 1e-9 || y < y0 - 1e-9 || x > x0 + nx * h + 1e-9 || y > y0 + ny * v + 1e-9) {
      return -1;
    }
    return index[cy * nx + cx];
  }

  /// Powers of the polynomial in the cell's own coordinates, -1...1.
  private static double[] terms(double s, double t) {
    return new double[] {
      1,
      s,
      t,
      s * s,
      s * t,
      t * t,
      s * s * s,
      s * s * t,
      s * t * t,
      t * t * t,
      s * s * s * t,
      s * t * t * t
    };
  }

  private static double[] byS(double s, double t) {
    return new double[] {
      0, 1, 0, 2 * s, t, 0, 3 * s * s, 2 * s * t, t * t, 0, 3 * s * s * t, t * t * t
    };
  }

  private static double[] byT(double s, double t) {
    return new double[] {
      0, 0, 1, 0, s, 2 * t, 0, s * s, 2 * s * t, 3 * t * t, s * s * s, 3 * s * t * t
    };
  }

  private double[][] coefficients() {
    double[][] c = new double[12][];
    double[][] at = {{-1, -1}, {1, -1}, {1, 1}, {-1, 1}};
    for (int i = 0; i < 4; i++) {
      c[3 * i] = terms(at[i][0], at[i][1]);
      c[3 * i + 1] = times(byS(at[i][0], at[i][1]), 2 / h);
      c[3 * i + 2] = times(byT(at[i][0], at[i][1]), 2 / v);
    }
    return c;
  }

  private static double[] times(double[] a, double f) {
    return Arrays.stream(a).map(x -> x * f).toArray();
  }

  private static double[][] inverse(double[][] m) {
    return new org.hipparchus.linear.LUDecomposition(
            new org.hipparchus.linear.Array2DRowRealMatrix(m))
        .getSolver()
        .getInverse()
        .getData();
  }

  /// Curvatures `{w,xx w,yy 2 w,xy}` of each term.
  private double[][] curvatures(double s, double t) {
    double fx = 4 / (h * h);
    double fy = 4 / (v * v);
    double fxy = 4 / (h * v);
    return new double[][] {
      times(new double[] {0, 0, 0, 2, 0, 0, 6 * s, 2 * t, 0, 0, 6 * s * t, 0}, fx),
      times(new double[] {0, 0, 0, 0, 0, 2, 0, 0, 2 * s, 6 * t, 0, 6 * s * t}, fy),
      times(new double[] {0, 0, 0, 0, 1, 0, 0, 2 * s, 2 * t, 0, 3 * s * s, 3 * t * t}, 2 * fxy)
    };
  }

  private double[][] stiffness() {
    double[][] k = new double[12][12];
    for (int a = 0; a < 3; a++) {
      for (int b = 0; b < 3; b++) {
        double[][] q = curvatures(GAUSS[a], GAUSS[b]);
        double f = WEIGHT[a] * WEIGHT[b] * h * v / 4 * rigidity;
        for (int i = 0; i < 12; i++) {
          for (int j = 0; j < 12; j++) {
            k[i][j] +=
                f
                    * (q[0][i] * (q[0][j] + nu * q[1][j])
                        + q[1][i] * (q[1][j] + nu * q[0][j])
                        + q[2][i] * (1 - nu) / 2 * q[2][j]);
          }
        }
      }
    }
    double[][] out = new double[12][12];
    double[][] half = new double[12][12];
    for (int i = 0; i < 12; i++) {
      for (int j = 0; j < 12; j++) {
        for (int m = 0; m < 12; m++) {
          half[i][j] += k[i][m] * inverse[m][j];
        }
      }
    }
    for (int i = 0; i < 12; i++) {
      for (int j = 0; j < 12; j++) {
        for (int m = 0; m < 12; m++) {
          out[i][j] += inverse[m][i] * half[m][j];
        }
      }
    }
    return out;
  }

  private double[] shapes(int e, double x, double y, int derivative) {
    double[] c = middle(e);
    double s = (x - c[0]) * 2 / h;
    double t = (y - c[1]) * 2 / v;
    return mapped(
        switch (derivative) {
          case 1 -> times(byS(s, t), 2 / h);
          case 2 -> times(byT(s, t), 2 / v);
          default -> terms(s, t);
        });
  }

  private double[] mapped(double[] terms) {
    double[] n = new double[12];
    for (int i = 0; i < 12; i++) {
      for (int m = 0; m < 12; m++) {
        n[i] += terms[m] * inverse[m][i];
      }
    }
    return n;
  }

  private double strain(int e, double[] w, double x, double y) {
    double[] c = middle(e);
    double[][] q = curvatures((x - c[0]) * 2 / h, (y - c[1]) * 2 / v);
    int[] d = dofs(e);
    double[] k = new double[3];
    for (int a = 0; a < 3; a++) {
      double[] n = mapped(q[a]);
      for (int i = 0; i < 12; i++) {
        k[a] += n[i] * w[d[i]];
      }
    }
    double mean = (k[0] + k[1]) / 2;
    double radius = Math.hypot((k[0] - k[1]) / 2, k[2] / 2);
    return thickness / 2 * (Math.abs(mean) + radius);
  }

  private Banded assembled() {
    Banded m = new Banded(3 * nodes, band);
    for (int e = 0; e < cells.length; e++) {
      int[] d = dofs(e);
      for (int i = 0; i < 12; i++) {
        for (int j = 0; j < 12; j++) {
          m.add(d[i], d[j], stiff[i][j]);
        }
      }
    }
    return m;
  }

  /// Places of a disc with their share, on the plate.
  private List<double[]> disc(Spot s) {
    List<double[]> all = new ArrayList<>();
    int rings = s.radius > 0 ? 3 : 0;
    add(all, s.x, s.y, 1);
    for (int r = 1; r <= rings; r++) {
      double radius = s.radius * r / (rings + 0.5);
      for (int k = 0; k < 6 * r; k++) {
        double a = Math.PI * k / (3 * r);
        add(all, s.x + radius * Math.cos(a), s.y + radius * Math.sin(a), 1);
      }
    }
    double sum = all.stream().mapToDouble(p -> p[2]).sum();
    all.forEach(p -> p[2] /= sum);
    return all;
  }

  private void add(List<double[]> all, double x, double y, double share) {
    if (cell(x, y) >= 0) {
      all.add(new double[] {x, y, share});
    }
  }

  private void load(double[] right, Spot s, double force) {
    for (double[] p : disc(s)) {
      int e = cell(p[0], p[1]);
      double[] n = shapes(e, p[0], p[1], 0);
      int[] d = dofs(e);
      for (int i = 0; i < 12; i++) {
        right[d[i]] += force * p[2] * n[i];
      }
    }
  }

  /// Bends under forces against fingers that only press: one that the board leaves bears nothing.
  ///
  /// @param forces N, upwards, one for each of `at`
  /// @param fingers that press from above
  /// @param rests whether a rest lies under each finger, so that the board is held either way
  /// @param stiffness of a finger, N/m
  /// @return empty when the fingers do not hold it
  public java.util.Optional<Bent> pressed(
      List<Spot> at, double[] forces, List<Spot> fingers, boolean rests, double stiffness) {
    double[] right = new double[3 * nodes];
    for (int i = 0; i < forces.length; i++) {
      load(right, at.get(i), forces[i]);
    }
    Banded plain = assembled();
    boolean[] on = new boolean[fingers.size()];
    Arrays.fill(on, true);
    for (int round = 0; round <= fingers.size() + 2; round++) {
      Banded m = plain.copy();
      for (int f = 0; f < on.length; f++) {
        if (on[f]) {
          spring(m, fingers.get(f), stiffness);
        }
      }
      if (!m.factor()) {
        return java.util.Optional.empty();
      }
      double[] w = m.solve(right);
      double[] bears = new double[on.length];
      Bent bent = new Bent(this, w, List.copyOf(fingers), bears);
      int worst = -1;
      for (int f = 0; f < on.length; f++) {
        double lift = mean(bent, fingers.get(f));
        if (on[f]) {
          bears[f] = stiffness * lift;
          if (!rests && bears[f] < -1e-9 && (worst < 0 || bears[f] < bears[worst])) {
            worst = f;
          }
        } else if (lift > 1e-12) {
          on[f] = true; // it is touched again
          worst = -2;
          break;
        }
      }
      if (worst == -1) {
        return java.util.Optional.of(bent);
      }
      if (worst >= 0) {
        on[worst] = false;
        bears[worst] = 0;
      }
    }
    return java.util.Optional.empty();
  }

  private double mean(Bent b, Spot s) {
    double sum = 0;
    for (double[] p : disc(s)) {
      sum += p[2] * b.at(p[0], p[1]);
    }
    return sum;
  }

  private void spring(Banded m, Spot s, double stiffness) {
    // one spring to the mean of the disc would join far corners; a spring at each place is as stiff
    for (double[] p : disc(s)) {
      int e = cell(p[0], p[1]);
      double[] n = shapes(e, p[0], p[1], 0);
      int[] d = dofs(e);
      for (int i = 0; i < 12; i++) {
        for (int j = 0; j < 12; j++) {
          m.add(d[i], d[j], stiffness * p[2] * n[i] * n[j]);
        }
      }
    }
  }

  /// Bends under an even pressure, held along its edge; for a rectangle.
  ///
  /// @param pressure Pa
  /// @throws IllegalArgumentException when nothing holds it
  public Bent even(double pressure, Edge edge) {
    Banded m = assembled();
    double[] right = new double[3 * nodes];
    for (int e = 0; e < cells.length; e++) {
      int[] d = dofs(e);
      double[] c = middle(e);
      for (int a = 0; a < 3; a++) {
        for (int b = 0; b < 3; b++) {
          double[] n = shapes(e, c[0] + GAUSS[a] * h / 2, c[1] + GAUSS[b] * v / 2, 0);
          for (int i = 0; i < 12; i++) {
            right[d[i]] += pressure * WEIGHT[a] * WEIGHT[b] * h * v / 4 * n[i];
          }
        }
      }
    }
    double stiff = 1e7 * rigidity / (h * h);
    for (int k = 0; k < node.length && edge != Edge.FREE; k++) {
      int x = k % (nx + 1);
      int y = k / (nx + 1);
      boolean side = x == 0 || x == nx;
      boolean end = y == 0 || y == ny;
      if (node[k] < 0 || !side && !end) {
        continue;
      }
      int d = 3 * node[k];
      right[d] = 0;
      m.add(d, d, stiff);
      // along a held edge it does not turn; across it only where it is clamped
      if (end || edge == Edge.CLAMPED) {
        m.add(d + 1, d + 1, stiff * h * h);
        right[d + 1] = 0;
      }
      if (side || edge == Edge.CLAMPED) {
        m.add(d + 2, d + 2, stiff * h * h);
        right[d + 2] = 0;
      }
    }
    if (!m.factor()) {
      throw new IllegalArgumentException("nothing holds the plate");
    }
    return new Bent(this, m.solve(right), List.of(), new double[0]);
  }
}
