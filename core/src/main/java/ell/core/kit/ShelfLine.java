package ell.core.kit;

import ell.core.quantity.Check;
import java.time.LocalDate;
import java.util.Locale;
import java.util.Optional;

/// One line of the shelf, as it was counted or folded.
///
/// @param line line of the file, 1-based; 0 when it was never in one
/// @param code house code or part number; of a blank board its design and revision
/// @param quantity on hand, not below 0
/// @param bin where it lies, may be empty
/// @param onOrder under way, not below 0
/// @param expected when that arrives
/// @param expiry the last day on which it may be used
/// @param kind what it is
/// @param since number of the last entry of the book when it was counted: later entries take from
///   it
public record ShelfLine(
    int line,
    String code,
    long quantity,
    String bin,
    long onOrder,
    Optional<LocalDate> expected,
    Optional<LocalDate> expiry,
    Kind kind,
    long since) {

  /// What lies on a shelf.
  public enum Kind {
    /// Parts of a bill.
    PART,
    /// Boards without parts.
    BLANK,
    /// A stencil.
    STENCIL,
    /// A jar or syringe of paste.
    JAR;

    /// The kind as a key in files.
    public String key() {
      return name().toLowerCase(Locale.ROOT);
    }

    /// The kind that a word means.
    ///
    /// @throws IllegalArgumentException when it means none
    public static Kind of(String word) {
      return switch (word.strip().toLowerCase(Locale.ROOT)) {
        case "", "part", "parts" -> PART;
        case "blank", "board", "boards", "blanks", "pcb" -> BLANK;
        case "stencil", "stencils" -> STENCIL;
        case "jar", "paste", "syringe", "jars" -> JAR;
        default ->
            throw new IllegalArgumentException(
                "expected part, blank, stencil or jar, found '" + word + "'");
      };
    }
  }

  public ShelfLine {
    Check.notNegative(quantity, "stock of " + code);
    Check.notNegative(onOrder, "quantity on order of " + code);
  }

  /// A line of parts that was counted before the book began.
  public ShelfLine(
      int line,
      String code,
      long quantity,
      String bin,
      long onOrder,
      Optional<LocalDate> expected,
      Optional<LocalDate> expiry) {
    this(line, code, quantity, bin, onOrder, expected, expiry, Kind.PART, 0);
  }

  /// The same line with another quantity on hand.
  public ShelfLine holding(long now) {
    return new ShelfLine(line, code, now, bin, onOrder, expected, expiry, kind, since);
  }

  /// The same line with other goods under way.
  public ShelfLine awaiting(long now, Optional<LocalDate> when) {
    return new ShelfLine(line, code, quantity, bin, now, when, expiry, kind, since);
  }

  /// The same line, counted at an entry.
  public ShelfLine countedAt(long entry) {
    return new ShelfLine(line, code, quantity, bin, onOrder, expected, expiry, kind, entry);
  }

  /// Whether it may be used on a day.
  public boolean usable(LocalDate day) {
    return expiry.isEmpty() || !day.isAfter(expiry.get());
  }
}
