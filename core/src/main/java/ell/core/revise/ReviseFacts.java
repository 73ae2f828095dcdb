package ell.core.revise;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.util.ArrayList;
import java.util.List;

/// What the book of one board says of errata: those that it taught, how it was mended, and what it
/// was tried with.
///
/// @param written errata that were written down on it
/// @param bodges what was said of its mending, oldest first
/// @param stacks what it was tried with, oldest first
/// @param decisions that were written down on it
public record ReviseFacts(
    List<Logged> written, List<Logged> bodges, List<Logged> stacks, List<Logged> decisions) {
  public ReviseFacts {
    written = List.copyOf(written);
    bodges = List.copyOf(bodges);
    stacks = List.copyOf(stacks);
    decisions = List.copyOf(decisions);
  }

  /// The facts of a board.
  public static ReviseFacts of(BoardState s) {
    return s.facts(ReviseFacts.class, ReviseFacts::fold);
  }

  private static ReviseFacts fold(List<Logged> standing) {
    List<Logged> written = new ArrayList<>();
    List<Logged> bodges = new ArrayList<>();
    List<Logged> stacks = new ArrayList<>();
    List<Logged> decisions = new ArrayList<>();
    for (Logged l : standing) {
      switch (l.entry()) {
        case Entry.Erratum _, Entry.ErratumSaid _ -> written.add(l);
        case Entry.Bodge _ -> bodges.add(l);
        case Entry.Stack _ -> stacks.add(l);
        case Entry.Decision _ -> decisions.add(l);
        default -> {} // says nothing of errata
      }
    }
    return new ReviseFacts(written, bodges, stacks, decisions);
  }

  /// The latest word on each bodge of the board, in the order in which they were first said.
  public List<Entry.Bodge> latest() {
    java.util.Map<String, Entry.Bodge> by = new java.util.LinkedHashMap<>();
    bodges.forEach(l -> by.put(((Entry.Bodge) l.entry()).id(), (Entry.Bodge) l.entry()));
    return List.copyOf(by.values());
  }
}
