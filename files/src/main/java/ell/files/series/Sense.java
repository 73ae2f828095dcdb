package ell.files.series;

import java.util.List;
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
  /// @param stated whether its unit is said
  record Column(String name, DoubleUnaryOperator scale, boolean stated) {
    /// A column whose unit is said.
    public Column(String name, DoubleUnaryOperator scale) {
      this(name, scale, true);
    }
  }

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

  /// How a column whose unit nobody says is to be taken, by its readings; and a word for the guess.
  ///
  /// @param readings of all such columns of the log, as they stand
  default Optional<Taken> unstated(List<double[]> readings) {
    return Optional.empty();
  }

  /// How many seconds one of the times is, when no heading says it, by how long the log is.
  ///
  /// @param length of the log, as it stands
  /// @param rows how many it has
  /// @return empty when they are seconds
  default Optional<Taken> unstatedTime(double length, int rows) {
    return Optional.empty();
  }

  /// A guess at a unit.
  ///
  /// @param unit in words
  /// @param scale from the number in the cell to the unit wanted
  /// @param answer how it is put right on the command line
  record Taken(String unit, DoubleUnaryOperator scale, String answer) {}
}
