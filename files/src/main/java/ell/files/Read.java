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
      case Whole<T> w -> new Whole<>(change.apply(w.value()), w.account());
      case Flawed<T> f -> new Flawed<>(f.problems());
    };
  }

  /// The file was read whole.
  ///
  /// @param account what is to be said of the file beside it
  record Whole<T>(T value, Account account) implements Read<T> {
    /// Things that were put up with.
    public List<Problem> warnings() {
      return account.warnings();
    }

    /// Things that were left out, with what they are.
    public List<Problem> passedOver() {
      return account.passedOver();
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
