package ell.files;

import java.util.List;
import java.util.function.Function;

/// What a reader returns: the whole value, or all the problems.
///
/// @param <T> the value
public sealed interface Read<T> {
  /// The same outcome with the value made into something else.
  ///
  /// @param <U> the other kind of value
  default <U> Read<U> map(Function<T, U> change) {
    return switch (this) {
      case Whole<T> w -> new Whole<>(change.apply(w.value()), w.warnings(), w.passedOver());
      case Flawed<T> f -> new Flawed<>(f.problems());
    };
  }

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
