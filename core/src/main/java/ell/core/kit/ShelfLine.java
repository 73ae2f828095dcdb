package ell.core.kit;

import java.time.LocalDate;
import java.util.Optional;

/// One line of the shelf.
///
/// @param line line of the file, 1-based
/// @param code house code or part number
/// @param quantity on hand, not below 0
/// @param bin where it lies, may be empty
/// @param onOrder under way, not below 0
/// @param expected when that arrives
/// @param expiry after which it is not to be used
public record ShelfLine(
    int line,
    String code,
    long quantity,
    String bin,
    long onOrder,
    Optional<LocalDate> expected,
    Optional<LocalDate> expiry) {
  public ShelfLine {
    if (quantity < 0 || onOrder < 0) {
      throw new IllegalArgumentException(
          "stock of "
              + code
              + " must not be below 0, got "
              + quantity
              + " and "
              + onOrder
              + " on order");
    }
  }
}
