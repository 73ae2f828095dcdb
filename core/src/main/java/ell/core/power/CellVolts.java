package ell.core.power;

import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.Locale;
import java.util.Optional;

/// How many volts a rail has that a cell feeds, by the name of the rail and the words of the cell.
/// Least, nominal and greatest are common practice, no source: a coin cell of lithium 2.0, 3.0, 3.3
/// V; a charged lithium cell 3.0, 3.7, 4.2 V; two dry cells 2.0, 3.0, 3.2 V, each 1.0, 1.5, 1.6 V.
final class CellVolts {
  private static final double[] COIN = {2.0, 3.0, 3.3, 1};
  private static final double[] CHARGED = {3.0, 3.7, 4.2, 1};

  private CellVolts() {}

  /// Whether a net is named after a cell.
  static boolean named(String net) {
    String n = net.toUpperCase(Locale.ROOT);
    return n.contains("BAT")
        || n.contains("BAK")
        || n.contains("RTC")
        || n.contains("CELL")
        || n.contains("LIPO");
  }

  /// Least, nominal and greatest volts, and 1 when the words of a part say so and 0 when it is a
  /// guess; empty when no cell is there.
  static Optional<double[]> of(Revision revision, String net) {
    String words = net.toUpperCase(Locale.ROOT);
    boolean cell = false;
    for (var j : revision.net(net)) {
      Part p = revision.part(j.part()).orElse(null);
      if (p != null && (p.kind() == PartKind.CELL || named(words))) {
        cell |= p.kind() == PartKind.CELL;
        words +=
            " " + (p.value() + " " + p.code() + " " + p.description()).toUpperCase(Locale.ROOT);
      }
    }
    if (!cell && !named(net)) {
      return Optional.empty();
    }
    if (words.matches(".*(COIN|\\bCR ?\\d{4}|BUTTON CELL).*")) {
      return Optional.of(COIN);
    }
    if (words.matches(".*(LI-?PO|LI-?ION|LITHIUM ION|3[.V]7 ?V?|18650|14500|CHARG).*")) {
      return Optional.of(CHARGED);
    }
    if (words.matches(".*2 ?X ?AA.*")) {
      return Optional.of(new double[] {2.0, 3.0, 3.2, 1});
    }
    if (words.matches(".*3 ?X ?AA.*")) {
      return Optional.of(new double[] {3.0, 4.5, 4.8, 1});
    }
    // a rail that keeps a clock is fed by a coin; anything else may be charged
    double[] guess = words.matches(".*(RTC|BAK).*") || words.startsWith("VBAT") ? COIN : CHARGED;
    return Optional.of(new double[] {guess[0], guess[1], guess[2], 0});
  }
}
