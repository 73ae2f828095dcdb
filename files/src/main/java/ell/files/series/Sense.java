package ell.files.series;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;

/// What the columns of a log mean to whoever reads it: which are readings, of what name, and how a
/// cell becomes a value in the unit that is wanted.
public interface Sense {
  /// A column of readings.
  ///
  /// @param name what it is called
  /// @param scale from the number in the cell to the unit wanted; throws an
  ///   [IllegalArgumentException] for a number that can not be
  record Column(String name, DoubleUnaryOperator scale) {}

  /// One reading in words, for a problem: `temperature`.
  String reading();

  /// A heading as it should be, for a problem.
  String example();

  /// The unit of columns without a heading, in words.
  String unit();

  /// What a heading says; empty when the column is not of this kind.
  Optional<Column> column(String heading);

  /// The column in this place when the log has no heading.
  ///
  /// @param place 1 for the first behind the time
  Column unnamed(int place);

  /// A cell without the unit that stands in it.
  ///
  /// @param cell in small letters
  String withoutUnit(String cell);
}
