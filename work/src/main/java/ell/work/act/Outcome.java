package ell.work.act;

import ell.core.entry.Logged;
import java.util.List;

/// What came of an act.
public sealed interface Outcome {
  /// It is in the book.
  ///
  /// @param entries as they were logged, what the act brought with it included; in order
  record Done(List<Logged> entries) implements Outcome {
    public Done {
      entries = List.copyOf(entries);
    }
  }

  /// Nothing was changed.
  record Refused(Refusal refusal) implements Outcome {}

  /// The entries, for callers that let a refusal pass on.
  ///
  /// @throws RefusedException when it was refused
  default List<Logged> orThrow() throws RefusedException {
    return switch (this) {
      case Done d -> d.entries();
      case Refused r -> throw new RefusedException(r.refusal());
    };
  }
}
