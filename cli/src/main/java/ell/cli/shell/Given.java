package ell.cli.shell;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.work.space.ActException;
import java.util.Optional;

/// Values as they are given to options.
public final class Given {
  private Given() {}

  /// A value in a unit, empty when the option was not given.
  ///
  /// @throws ActException when it is no such value, with what was expected
  public static Optional<Double> value(Optional<String> text, Unit unit) throws ActException {
    if (text.isEmpty()) {
      return Optional.empty();
    }
    try {
      return Optional.of(EngineeringNumber.parse(text.get(), unit));
    } catch (NumberFormatException e) {
      throw new ActException(e.getMessage(), e);
    }
  }
}
