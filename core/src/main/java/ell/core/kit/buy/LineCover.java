package ell.core.kit.buy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/// The cheapest way to cover one line from some offers: exact, with packs, least quantities, stocks
/// and prices that fall for the whole quantity at a break.
///
/// For each offer in turn, `F(r)`, the least cost to cover a rest of `r`, is brought up to date. In
/// a stretch between two breaks the cost is a straight line, so that the best use of it for every
/// `r` comes from a sliding minimum over `F(t) − price · t` for each remainder of the pack: time
/// grows as need times stretches. Quantities are counted in the greatest common divisor of the
/// packs.
final class LineCover {
  /// Beyond so many units a line is not worked exactly, but from single offers and pairs.
  static final int MOST_UNITS = 200_000;

  private final Want want;
  private final List<Offer> offers;

  LineCover(Want want, List<Offer> offers) {
    this.want = want;
    this.offers = offers;
  }

  /// What to buy of which offer.
  record Take(Offer offer, long quantity) {
    double cost() {
      return quantity * offer.priceAt(quantity);
    }
  }

  /// The least cost, infinite when the offers do not cover it.
  double cost() {
    return run(false).cost;
  }

  /// The offers that make the least cost; empty when nothing covers it.
  List<Take> takes() {
    Run run = run(true);
    List<Take> takes = new ArrayList<>();
    if (!Double.isFinite(run.cost)) {
      return takes;
    }
    int r = run.units;
    for (int k = offers.size() - 1; k >= 0; k--) {
      int q = run.chosen.get(k)[r];
      if (q > 0) {
        takes.add(new Take(offers.get(k), q * run.unit));
        r = Math.max(0, r - q);
      }
    }
    return takes.reversed();
  }

  /// Whether the line is small enough to be worked exactly.
  boolean exact() {
    return want.quantity() / unit() <= MOST_UNITS;
  }

  private record Run(double cost, int units, long unit, List<int[]> chosen) {}

  private long unit() {
    long g = 0;
    for (Offer o : offers) {
      g = gcd(g, o.pack());
    }
    return Math.max(1, g);
  }

  private Run run(boolean remember) {
    long unit = exact() ? unit() : Math.max(unit(), want.quantity() / MOST_UNITS);
    int n = (int) ((want.quantity() + unit - 1) / unit);
    double[] f = new double[n + 1];
    Arrays.fill(f, 1, n + 1, Double.POSITIVE_INFINITY);
    List<int[]> chosen = new ArrayList<>();
    for (Offer o : offers) {
      double[] next = f.clone();
      int[] choice = remember ? new int[n + 1] : null;
      for (int b = 0; b < o.breaks().size(); b++) {
        long to = b + 1 < o.breaks().size() ? o.breaks().get(b + 1).from() - 1 : Long.MAX_VALUE / 2;
        stretch(
            f,
            next,
            choice,
            (int) Math.max(1, o.pack() / unit),
            Math.max(o.breaks().get(b).from(), o.least()),
            Math.min(to, o.stock()),
            o.breaks().get(b).price() * unit,
            unit);
      }
      f = next;
      if (remember) {
        chosen.add(choice);
      }
    }
    return new Run(f[n], n, unit, chosen);
  }

  /// One stretch of one offer: quantities of whole packs from `least` to `most` at one price.
  private static void stretch(
      double[] f,
      double[] next,
      int[] choice,
      int pack,
      long least,
      long most,
      double price,
      long unit) {
    int n = f.length - 1;
    long size = (long) pack * unit;
    long jLow = (least + size - 1) / size;
    long jHigh = most / size;
    if (jLow > jHigh) {
      return;
    }
    for (int r = 1; r <= n; r++) {
      // everything that is left from here: the fewest packs that cover it
      long j = Math.max(jLow, (r + pack - 1L) / pack);
      if (j <= jHigh && j * pack <= Integer.MAX_VALUE) {
        double cost = price * (j * pack);
        if (cost < next[r]) {
          next[r] = cost;
          if (choice != null) {
            choice[r] = (int) (j * pack);
          }
        }
      }
    }
    if (jLow * pack >= n) {
      return; // a part of the rest is never taken
    }
    int[] window = new int[n / pack + 2];
    for (int remainder = 0; remainder < pack; remainder++) {
      int head = 0;
      int tail = 0;
      int enter = remainder == 0 ? pack : remainder; // t from 1 on
      for (int r = remainder; r <= n; r += pack) {
        // t = r − q with q from jLow to jHigh packs
        while (enter <= r - jLow * pack) {
          double value = f[enter] - price * enter;
          while (tail > head && f[window[tail - 1]] - price * window[tail - 1] >= value) {
            tail--;
          }
          window[tail++] = enter;
          enter += pack;
        }
        while (head < tail && window[head] < r - jHigh * (double) pack) {
          head++;
        }
        if (head < tail && Double.isFinite(f[window[head]])) {
          int t = window[head];
          double cost = f[t] + price * (r - t);
          if (cost < next[r]) {
            next[r] = cost;
            if (choice != null) {
              choice[r] = r - t;
            }
          }
        }
      }
    }
  }

  private static long gcd(long a, long b) {
    return b == 0 ? a : gcd(b, a % b);
  }
}
