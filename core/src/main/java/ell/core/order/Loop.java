package ell.core.order;

import java.util.List;
import java.util.stream.Collectors;

/// Rules that cannot all hold.
///
/// @param arrows in their order: the last leads back to the first
/// @param dropped the one that was cheapest to lose
public record Loop(List<Arrow> arrows, Arrow dropped) {
  public Loop {
    arrows = List.copyOf(arrows);
  }

  /// Whether a wish of the maker is in it: then what was dropped is a rule that the wish breaks.
  public boolean byWish() {
    return arrows.stream().anyMatch(a -> a.why() == Arrow.Why.WISH);
  }

  /// The loop in words.
  public String words() {
    return (byWish() ? "a wish breaks a rule: " : "a loop: ")
        + arrows.stream().map(Arrow::toString).collect(Collectors.joining(", "))
        + "; given up is "
        + dropped.before()
        + " before "
        + dropped.after();
  }
}
