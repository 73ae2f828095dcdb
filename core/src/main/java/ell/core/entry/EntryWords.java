package ell.core.entry;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;

/// An entry in one line of plain words, the same on the tape, in the terminal and in the record.
public final class EntryWords {
  private EntryWords() {}

  /// The words of an entry.
  public static String of(Entry entry) {
    return Kinds.of(entry).tell(entry);
  }

  /// What would settle a reading that is too close to call, empty for any other.
  public static String settling(Entry.Reading r) {
    if (r.verdict().filter(v -> v == Verdict.CLOSE).isEmpty() || r.limits().isEmpty()) {
      return "";
    }
    double needed = r.limits().get().settling(r.value());
    return "a meter or range known to better than ±"
        + EngineeringNumber.print(needed, r.unit(), 2)
        + " would settle it; this reading is known to ±"
        + EngineeringNumber.print(r.uncertainty().orElse(0.0), r.unit(), 2);
  }

  /// Ohms in words, an open loop as such.
  public static String ohms(double ohms) {
    return Double.isInfinite(ohms) ? "open loop" : EngineeringNumber.print(ohms, Unit.OHM, 3);
  }
}
