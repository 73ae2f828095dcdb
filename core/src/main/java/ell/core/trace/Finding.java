package ell.core.trace;

import java.util.List;

/// Where the fault is.
///
/// @param suspect what it is
/// @param chance that it is so
/// @param evidence numbers of the entries that it rests on, those that say most first
/// @param todo what to do, a sentence each
/// @param again what must be made again because of it
/// @param settled whether the chance is high enough, or nothing that is left to measure would tell
///   more
public record Finding(
    Suspect suspect,
    double chance,
    List<Long> evidence,
    List<String> todo,
    List<String> again,
    boolean settled) {
  public Finding {
    evidence = List.copyOf(evidence);
    todo = List.copyOf(todo);
    again = List.copyOf(again);
  }
}
