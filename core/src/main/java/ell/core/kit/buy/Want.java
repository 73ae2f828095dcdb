package ell.core.kit.buy;

import ell.core.quantity.Check;
import java.util.List;

/// So many of a code, or of one that may stand in for it.
///
/// @param code the line of the kit
/// @param quantity how many are short, 1 or more
/// @param alternates codes that may be bought instead
public record Want(String code, long quantity, List<String> alternates) {
  public Want {
    Check.inRange(quantity, 1, 1e12, "quantity of " + code);
    alternates = List.copyOf(alternates);
  }
}
