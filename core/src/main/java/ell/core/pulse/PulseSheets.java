package ell.core.pulse;

import ell.core.sheet.Sheet;
import java.util.List;
import java.util.stream.Stream;

/// The stand-alone sheets of clocks, edges and lines: `clock.*`, `uart.*`, `bus.*`, `probe.*`,
/// `line.*`.
public final class PulseSheets {
  private PulseSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    return Stream.of(ClockSheets.all(), LineSheets.all(), List.of(BounceSheet.sheet()))
        .flatMap(List::stream)
        .toList();
  }
}
