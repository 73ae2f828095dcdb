package ell.core.board;

import ell.core.quantity.Check;
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
/// @param variants names of the variants in which it is fitted, with `!` before those in which it
///   is not; empty when it is the same in all
/// @param spares how many to keep beside the build
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
    double unitCost,
    List<String> variants,
    int spares) {

  /// Where a part sits, in millimetre and degree.
  public record Spot(double xMm, double yMm, double rotationDeg, Side side) {}

  public Part {
    alternates = List.copyOf(alternates);
    variants = List.copyOf(variants);
    Check.notNegative(spares, "spares");
  }

  /// A part that is the same in all variants and has no spares.
  public Part(
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
    this(
        reference,
        value,
        packageName,
        code,
        description,
        fitted,
        key,
        alternates,
        block,
        place,
        massGrams,
        unitCost,
        List.of(),
        0);
  }

  /// The part as it is in a variant: `fitted` is settled by [#variants()] where that says
  /// something.
  public Part in(String variant) {
    boolean listed = variants.stream().anyMatch(v -> !v.startsWith("!"));
    boolean in =
        variants.contains("!" + variant) ? false : listed ? variants.contains(variant) : fitted;
    return in == fitted ? this : fitted(in);
  }

  /// The part left off.
  public Part left() {
    return fitted ? fitted(false) : this;
  }

  private Part fitted(boolean is) {
    return new Part(
        reference,
        value,
        packageName,
        code,
        description,
        is,
        key,
        alternates,
        block,
        place,
        massGrams,
        unitCost,
        variants,
        spares);
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
