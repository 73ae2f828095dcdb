package ell.core.look;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.List;

/// A u-chart: defects per unit, unit by unit, with limits of three standard deviations. Source:
/// NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.3.1 (counts control charts).
///
/// @param rates counts over sizes
/// @param centre `Σ counts / Σ sizes`
/// @param lower `centre − 3·√(centre/size)`, not below 0
/// @param upper `centre + 3·√(centre/size)`
/// @param out numbers of the points outside, from 1
public record Chart(
    List<Double> rates, double centre, List<Double> lower, List<Double> upper, List<Integer> out) {
  public Chart {
    rates = List.copyOf(rates);
    lower = List.copyOf(lower);
    upper = List.copyOf(upper);
    out = List.copyOf(out);
  }

  /// Makes it.
  ///
  /// @param counts not below 0
  /// @param sizes above 0, as many; or one for all
  /// @throws IllegalArgumentException when there are no counts, a count is below 0, or a size is
  ///   not above 0
  public static Chart of(List<Double> counts, List<Double> sizes) {
    if (counts.isEmpty()) {
      throw new IllegalArgumentException("counts: at least one is needed");
    }
    if (sizes.size() != counts.size() && sizes.size() != 1) {
      throw new IllegalArgumentException(
          "sizes: expected one for all or " + counts.size() + ", got " + sizes.size());
    }
    double all = 0;
    double room = 0;
    for (int i = 0; i < counts.size(); i++) {
      all += Check.notNegative(counts.get(i), "count " + (i + 1));
      room += Check.positive(size(sizes, i), "size " + (i + 1));
    }
    double centre = all / room;
    List<Double> rates = new ArrayList<>();
    List<Double> lower = new ArrayList<>();
    List<Double> upper = new ArrayList<>();
    List<Integer> out = new ArrayList<>();
    for (int i = 0; i < counts.size(); i++) {
      double n = size(sizes, i);
      double u = counts.get(i) / n;
      double reach = 3 * Math.sqrt(centre / n);
      rates.add(u);
      lower.add(Math.max(0, centre - reach));
      upper.add(centre + reach);
      if (u > centre + reach || u < centre - reach) {
        out.add(i + 1);
      }
    }
    return new Chart(rates, centre, lower, upper, out);
  }

  private static double size(List<Double> sizes, int i) {
    return sizes.get(sizes.size() == 1 ? 0 : i);
  }
}
