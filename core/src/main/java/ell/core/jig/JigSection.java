package ell.core.jig;

import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Jigs in a board's record.
public final class JigSection {
  private JigSection() {}

  /// The section, empty when no jig was closed over the board.
  public static Optional<Section> of(JigFacts facts) {
    if (facts.closings().isEmpty()) {
      return Optional.empty();
    }
    List<Row> rows = new ArrayList<>();
    facts
        .closings()
        .forEach((jig, n) ->
            rows.add(
                Section.cells(
                    Tone.PLAIN, "jig " + jig, "closed " + n + (n == 1 ? " time" : " times"))));
    return Optional.of(new Section("Jig", "", List.of(0.3, 0.7), rows));
  }
}
