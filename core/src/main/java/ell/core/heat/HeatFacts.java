package ell.core.heat;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// What the book says of the heat that a board had.
///
/// Soldering heats each part of its step once; a reflow heats every part that lies on the board in
/// paste or was molten before; an action that heats does so to the part that it names.
///
/// @param heatCycles by part, how often it was heated
/// @param runs profiles that were run, oldest first
public record HeatFacts(Map<String, Integer> heatCycles, List<Logged> runs) {
  public HeatFacts {
    heatCycles = Collections.unmodifiableMap(new LinkedHashMap<>(heatCycles));
    runs = List.copyOf(runs);
  }

  /// The facts of a board.
  public static HeatFacts of(BoardState s) {
    return s.facts(HeatFacts.class, HeatFacts::fold);
  }

  private static HeatFacts fold(List<Logged> standing) {
    Map<String, Integer> cycles = new LinkedHashMap<>();
    List<Logged> runs = new ArrayList<>();
    Set<String> inPaste = new HashSet<>();
    for (Logged l : standing) {
      switch (l.entry()) {
        case Entry.StepDone s -> {
          for (String p : s.parts()) {
            if (s.action().equals("place")) {
              inPaste.add(p);
            } else if (!s.action().equals("plug in") && !s.action().equals("attach")) {
              cycles.merge(p, 1, Integer::sum);
            }
          }
          if (s.action().equals("reflow")) {
            inPaste.forEach(p -> cycles.merge(p, 1, Integer::sum));
          }
        }
        case Entry.Action a when a.heat() ->
            cycles.merge(BoardState.part(a.place()), 1, Integer::sum);
        case Entry.HeatRun _ -> runs.add(l);
        default -> {} // heats nothing
      }
    }
    return new HeatFacts(Collections.unmodifiableMap(cycles), List.copyOf(runs));
  }
}
