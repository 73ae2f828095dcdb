package ell.core.record;

import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.List;
import java.util.Optional;


/// The record of one board.
///
/// @param board serial
/// @param revision design and revision as one phrase
/// @param build method and alloy in words
/// @param standing the phrase of its state
/// @param printed when the record was made, as text
/// @param seal hash of the book's last entry, hexadecimal
/// @param steps what was built
/// @param checks what was beeped
/// @param rails what was measured on the rails, in ladder order
/// @param readings other readings
/// @param findings open findings
/// @param log every entry, as it was written
public record BoardRecord(
    String board,
    String revision,
    String build,
    String standing,
    String printed,
    String seal,
    List<StepLine> steps,
    List<CheckLine> checks,
    List<ReadingLine> rails,
    List<ReadingLine> readings,
    List<String> findings,
    List<LogLine> log) {
  /// A step and whether it is done.
  public record StepLine(int number, String action, String parts, boolean done) {}

  /// A check and what it read.
  public record CheckLine(
      String kind, String between, String read, String expected, String verdict) {}

  /// A reading with its limits, for a limit strip; the value is absent when it was not read.
  public record ReadingLine(
      String place,
      Optional<Double> value,
      Unit unit,
      Optional<Limits> limits,
      Optional<Double> uncertainty,
      Optional<Verdict> verdict) {}

  /// One line of the book.
  public record LogLine(long number, String at, String text, boolean struck) {}
}
