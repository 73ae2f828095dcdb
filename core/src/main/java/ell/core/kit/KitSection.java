package ell.core.kit;

import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What a board's record says of its parts: those that are others than the bill says, and losses.
public final class KitSection {
  private KitSection() {}

  /// The section, empty when every part is as the bill says and none was lost.
  public static Optional<Section> of(KitFacts facts) {
    List<Row> rows = new ArrayList<>();
    facts
        .fitted()
        .forEach((part, code) -> rows.add(Section.cells(Tone.PLAIN, part, "fitted with " + code)));
    facts
        .lost()
        .forEach((part, n) ->
            rows.add(Section.cells(Tone.SOFT, part, n + (n == 1 ? " was lost" : " were lost"))));
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(new Section("Parts", "others than the bill says", List.of(0.15, 0.85), rows));
  }
}
