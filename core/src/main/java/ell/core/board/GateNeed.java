package ell.core.board;

import java.util.Set;

/// What must be on a board when a gate is asked.
///
/// @param parts references
public record GateNeed(String gate, Set<String> parts) {
  public GateNeed {
    parts = Set.copyOf(parts);
  }
}
