package ell.core.board;

import java.util.List;
import java.util.Optional;

/// One part of a revision: a line of the bill of materials at one place.
///
/// @param reference such as `U4`
/// @param value as written
/// @param packageName as written
/// @param code house code, or value and package when there is none
/// @param description free words
/// @param fitted false when it is left off
/// @param key true when the build hangs on it
/// @param alternates codes that may be used instead
/// @param block the block named in the files, empty when not said
/// @param place where it sits, empty when no placement was given
/// @param massGrams mass of one, NaN when not said
/// @param unitCost price of one, NaN when not said
public record Part(
    String reference,
    String value,
    String packageName,
    String code,
    String description,
    boolean fitted,
    boolean key,
    List<String> alternates,
    String block,
    Optional<Spot> place,
    double massGrams,
    double unitCost) {

  /// Where a part sits, in millimetre and degree.
  public record Spot(double xMm, double yMm, double rotationDeg, Side side) {}

  public Part {
    alternates = List.copyOf(alternates);
  }

  /// What kind of part it is, from its reference.
  public PartKind kind() {
    return PartKind.of(this);
  }

  /// The side that it sits on; the first when nothing is known.
  public Side side() {
    return place.map(Spot::side).orElse(Side.FIRST);
  }

  /// The value and the package as one phrase.
  public String label() {
    return packageName.isEmpty()
        ? value
        : value.isEmpty() ? packageName : value + " · " + packageName;
  }
}
