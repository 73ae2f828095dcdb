package ell.core.jig;

/// A symmetric positive definite matrix whose entries lie near its diagonal, factored in place by
/// Cholesky's method.
final class Banded {
  private final int n;
  private final int band;
  private final double[][] low; // row i holds columns i - band ... i

  /// @param band greatest distance of an entry from the diagonal
  Banded(int n, int band) {
    this.n = n;
    this.band = band;
    this.low = new double[n][];
    for (int i = 0; i < n; i++) {
      low[i] = new double[Math.min(i, band) + 1];
    }
  }

  private Banded(Banded o) {
    this.n = o.n;
    this.band = o.band;
    this.low = new double[n][];
    for (int i = 0; i < n; i++) {
      low[i] = o.low[i].clone();
    }
  }

  Banded copy() {
    return new Banded(this);
  }

  /// Adds to an entry of the lower half; entries of the upper half are passed over.
  void add(int i, int k, double v) {
    if (k <= i) {
      low[i][k - i + low[i].length - 1] += v;
    }
  }

  /// Factors it.
  ///
  /// @return false when it is not positive definite: what it stands for is not held
  boolean factor() {
    double scale = 0;
    for (int i = 0; i < n; i++) {
      scale = Math.max(scale, low[i][low[i].length - 1]);
    }
    for (int i = 0; i < n; i++) {
      double[] ri = low[i];
      int from = i - ri.length + 1;
      for (int k = from; k < i; k++) {
        double[] rk = low[k];
        int kFrom = k - rk.length + 1;
        int start = Math.max(from, kFrom);
        double sum = ri[k - from];
        for (int c = start, a = start - from, b = start - kFrom; c < k; c++, a++, b++) {
          sum -= ri[a] * rk[b];
        }
        ri[k - from] = sum / rk[rk.length - 1];
      }
      double d = ri[ri.length - 1];
      for (int a = 0; a < ri.length - 1; a++) {
        d -= ri[a] * ri[a];
      }
      if (!(d > 1e-13 * scale)) {
        return false;
      }
      ri[ri.length - 1] = Math.sqrt(d);
    }
    return true;
  }

  /// Solves with the factors.
  double[] solve(double[] right) {
    double[] x = right.clone();
    for (int i = 0; i < n; i++) {
      double[] r = low[i];
      int from = i - r.length + 1;
      double sum = x[i];
      for (int k = from; k < i; k++) {
        sum -= r[k - from] * x[k];
      }
      x[i] = sum / r[r.length - 1];
    }
    for (int i = n - 1; i >= 0; i--) {
      double[] r = low[i];
      int from = i - r.length + 1;
      x[i] /= r[r.length - 1];
      for (int k = from; k < i; k++) {
        x[k] -= r[k - from] * x[i];
      }
    }
    return x;
  }
}
