package ell.files;

import java.util.List;

/// What a reader returns: the whole value, or all the problems.
///
/// @param <T> the value
public sealed interface Read<T> {
  /// The file was read whole.
  ///
  /// @param warnings things that were put up with
  /// @param passedOver things that were left out, with what they are
  record Whole<T>(T value, List<Problem> warnings, List<Problem> passedOver) implements Read<T> {
    public Whole {
      warnings = List.copyOf(warnings);
      passedOver = List.copyOf(passedOver);
    }
  }

  /// The file cannot be used.
  ///
  /// @param problems at least one
  record Flawed<T>(List<Problem> problems) implements Read<T> {
    public Flawed {
      problems = List.copyOf(problems);
    }
  }
}
