package ell.core.board;

import java.util.List;

/// One line of a bill of materials.
///
/// @param line line of the file, 1-based
/// @param references in file order
/// @param value as written, empty when there is none
/// @param packageName as written
/// @param code house code or part number; empty when there is none
/// @param fitted false for parts that are left off
/// @param alternates codes that may be used instead
/// @param key true for a part that the build hangs on
/// @param block block of the build that the part belongs to, empty when not said
/// @param description free words
/// @param unitCost price of one, NaN when not said
/// @param massGrams mass of one, NaN when not said
/// @param variants as in [Part#variants()]
/// @param spares how many to keep beside the build
public record BomLine(
    int line,
    List<String> references,
    String value,
    String packageName,
    String code,
    boolean fitted,
    List<String> alternates,
    boolean key,
    String block,
    String description,
    double unitCost,
    double massGrams,
    List<String> variants,
    int spares) {
  public BomLine {
    references = List.copyOf(references);
    alternates = List.copyOf(alternates);
    variants = List.copyOf(variants);
  }

  /// The same line for other places.
  public BomLine as(List<String> others) {
    return new BomLine(
        line,
        others,
        value,
        packageName,
        code,
        fitted,
        alternates,
        key,
        block,
        description,
        unitCost,
        massGrams,
        variants,
        spares);
  }
}
