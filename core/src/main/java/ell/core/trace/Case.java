package ell.core.trace;

import ell.core.power.Fault;
import java.util.List;
import java.util.stream.Collectors;

/// One way in which a board may be wrong: no fault at all, one, or two at once.
///
/// @param suspects none for a healthy board
/// @param faults theirs
record Case(List<Suspect> suspects, List<Fault> faults) {
  /// Nothing is wrong.
  static final Case HEALTHY = new Case(List.of());

  Case(List<Suspect> suspects) {
    this(suspects, suspects.stream().map(Suspect::fault).toList());
  }

  Case {
    suspects = List.copyOf(suspects);
    faults = List.copyOf(faults);
  }

  /// In words.
  String words() {
    return suspects.isEmpty()
        ? Belief.HEALTHY
        : suspects.stream().map(Suspect::words).collect(Collectors.joining(" and "));
  }
}
