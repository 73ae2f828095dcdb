package ell.core.pulse;

import ell.core.series.Series;
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
            .filter(i -> i.vil() < i.vih() && Double.isFinite(i.vih() - i.vil()))
            .map(i -> Counted.of(s, i.vil(), i.vih()).doubledAt())
            .orElse(List.of()));
  }
}
