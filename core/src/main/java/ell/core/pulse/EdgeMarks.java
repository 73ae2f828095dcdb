package ell.core.pulse;

import ell.core.series.Series;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/// Where the edges of a capture are, for a picture.
///
/// @param rising seconds at which rising edges pass the middle of the two levels
/// @param falling likewise
/// @param doubled seconds at which an input that wants these thresholds would count once too often
public record EdgeMarks(List<Double> rising, List<Double> falling, List<Double> doubled) {
  /// No edges.
  public static final EdgeMarks NONE = new EdgeMarks(List.of(), List.of(), List.of());

  public EdgeMarks {
    rising = List.copyOf(rising);
    falling = List.copyOf(falling);
    doubled = List.copyOf(doubled);
  }

  /// Finds them.
  ///
  /// @param input thresholds of the place, if they are known
  public static EdgeMarks of(Series s, Wave w, Optional<Arrives.Input> input) {
    if (w.edges() == 0) {
      return NONE;
    }
    Edges e = Edges.of(s, w.low(), w.high());
    return new EdgeMarks(
        Arrays.stream(e.risingAt()).boxed().toList(),
        Arrays.stream(e.fallingAt()).boxed().toList(),
        input
            .filter(i -> Double.isFinite(i.vil()) && Double.isFinite(i.vih()))
            .map(i -> doubles(s, i))
            .orElse(List.of()));
  }

  private static List<Double> doubles(Series s, Arrives.Input in) {
    List<Double> all = new ArrayList<>();
    boolean was = s.value(0) >= in.vih();
    boolean low = s.value(0) < in.vih();
    for (int i = 1; i < s.size(); i++) {
      double v = s.value(i);
      low |= v <= in.vil();
      if (!was && v >= in.vih()) {
        if (!low) {
          all.add(s.second(i));
        }
        low = false;
      }
      was = v >= in.vih();
    }
    return all;
  }
}
