package ell.core.pulse;

import ell.core.series.Series;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/// The single pulses of a capture: how wide they are, which stand out, how long each edge takes to
/// come to rest. Source: IEEE 181, pulses, runts and settling (from memory).
///
/// @param widthHigh mean from a rising to the next falling edge, at the middle, s
/// @param widthLow likewise below the middle
/// @param narrowest of all, s
/// @param runts pulses that leave a level past the middle and go back before they reach the other
/// @param glitches pulses narrower than a quarter of the usual of their kind
/// @param settling the longest time from the middle of an edge until the volts stay within 5 % of
///   the amplitude about the level, s; NaN without an edge that is followed by enough of it
/// @param edges each of them, in order
public record Pulses(
    double widthHigh,
    double widthLow,
    double narrowest,
    int runts,
    int glitches,
    double settling,
    List<Edge> edges) {
  private static final double GLITCH = 0.25;
  private static final int SOME = 4;
  private static final double STAYS = 0.05;

  /// No pulses.
  public static final Pulses NONE =
      new Pulses(Double.NaN, Double.NaN, Double.NaN, 0, 0, Double.NaN, List.of());

  public Pulses {
    edges = List.copyOf(edges);
  }

  /// One edge.
  ///
  /// @param at second at which it passes the middle
  /// @param rising whether it goes up
  /// @param length from 10 to 90 %, s; NaN where there are too few samples
  /// @param dwell between the thresholds of the input, s; NaN where none are known
  public record Edge(double at, boolean rising, double length, double dwell) {}

  /// Finds them.
  ///
  /// @param input thresholds of the input, if they are known
  public static Pulses of(Series s, Wave w, Optional<Arrives.Input> input) {
    if (w.edges() == 0) {
      return NONE;
    }
    Edges e = Edges.of(s, w.low(), w.high());
    List<Edge> all = new ArrayList<>();
    for (int i = 0; i < e.risingAt().length; i++) {
      all.add(
          new Edge(e.risingAt()[i], true, e.rises()[i], dwell(s, e.risingAt()[i], true, input)));
    }
    for (int i = 0; i < e.fallingAt().length; i++) {
      all.add(
          new Edge(
              e.fallingAt()[i], false, e.falls()[i], dwell(s, e.fallingAt()[i], false, input)));
    }
    all.sort(java.util.Comparator.comparingDouble(Edge::at));
    List<Double> highs = new ArrayList<>();
    List<Double> lows = new ArrayList<>();
    double settling = Double.NaN;
    for (int i = 0; i < all.size(); i++) {
      double end = i + 1 < all.size() ? all.get(i + 1).at() : Double.NaN;
      if (Double.isFinite(end)) {
        (all.get(i).rising() ? highs : lows).add(end - all.get(i).at());
      }
      double rests = settles(s, w, all.get(i), i + 1 < all.size() ? all.get(i + 1) : null);
      settling =
          Double.isNaN(settling)
              ? rests
              : Double.isNaN(rests) ? settling : Math.max(settling, rests);
    }
    double narrowest = Double.NaN;
    for (List<Double> kind : List.of(highs, lows)) {
      for (double d : kind) {
        narrowest = Double.isNaN(narrowest) ? d : Math.min(narrowest, d);
      }
    }
    return new Pulses(
        mean(highs),
        mean(lows),
        narrowest,
        runts(s, w),
        glitches(highs) + glitches(lows),
        settling,
        all);
  }

  private static double mean(List<Double> x) {
    return x.stream().mapToDouble(d -> d).average().orElse(Double.NaN);
  }

  private static int glitches(List<Double> widths) {
    if (widths.size() < SOME) {
      return 0;
    }
    double[] sorted = widths.stream().mapToDouble(d -> d).sorted().toArray();
    double usual = sorted[sorted.length / 2];
    return (int) Arrays.stream(sorted).filter(d -> d < GLITCH * usual).count();
  }

  /// Where the volts leave the band about the new level last before the next edge begins.
  private static double settles(Series s, Wave w, Edge e, Edge next) {
    double level = e.rising() ? w.high() : w.low();
    double band = STAYS * w.amplitude() + 3 * w.noise();
    double end =
        next == null
            ? s.second(s.size() - 1)
            : next.at() - (Double.isFinite(next.length()) ? next.length() : 0);
    int to = Math.min(s.size(), s.firstFrom(end));
    int i = to - 1;
    int first = s.firstFrom(e.at());
    if (i < first || Math.abs(s.value(i) - level) > band) {
      return Double.NaN; // it does not rest before the next one
    }
    while (i > first && Math.abs(s.value(i - 1) - level) <= band) {
      i--;
    }
    return s.second(i) - e.at();
  }

  private static int runts(Series s, Wave w) {
    double ten = w.low() + 0.1 * w.amplitude();
    double middle = (w.low() + w.high()) / 2;
    double ninety = w.low() + 0.9 * w.amplitude();
    int[] state = {0, 0, 0}; // level that was left, whether the middle was passed, how many
    s.each(
        1,
        (v, _, n) -> {
          for (int i = 0; i < n; i++) {
            if (v[i] <= ten || v[i] >= ninety) {
              int now = v[i] <= ten ? -1 : 1;
              state[2] += state[0] == now && state[1] == 1 ? 1 : 0;
              state[0] = now;
              state[1] = 0;
            } else if (state[0] == -1 && v[i] > middle || state[0] == 1 && v[i] < middle) {
              state[1] = 1;
            }
          }
        });
    return state[2];
  }

  /// How long an edge is between two thresholds.
  private static double dwell(Series s, double at, boolean rising, Optional<Arrives.Input> input) {
    if (input.isEmpty()
        || !Double.isFinite(input.get().vil())
        || !Double.isFinite(input.get().vih())) {
      return Double.NaN;
    }
    double from = rising ? input.get().vil() : input.get().vih();
    double to = rising ? input.get().vih() : input.get().vil();
    int i = s.firstFrom(at);
    int back = i;
    while (back > 0 && (rising ? s.value(back) > from : s.value(back) < from)) {
      back--;
    }
    int on = Math.max(1, back + 1);
    while (on < s.size() - 1 && (rising ? s.value(on) < to : s.value(on) > to)) {
      on++;
    }
    return passed(s, on, to) - passed(s, Math.min(back + 1, s.size() - 1), from);
  }

  private static double passed(Series s, int i, double level) {
    double a = s.value(i - 1);
    double b = s.value(i);
    double f = a == b ? 1 : Math.clamp((level - a) / (b - a), 0, 1);
    return s.second(i - 1) + f * (s.second(i) - s.second(i - 1));
  }
}
