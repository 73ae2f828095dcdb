package ell.core.print;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.entry.PasteLook;
import ell.core.look.ExactTest;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Every print in the order in which the foil saw it, and what went wrong where.
///
/// @param prints oldest first
public record PrintLog(List<Print> prints) {
  /// One print.
  ///
  /// @param sinceWipe prints that were made since the foil was wiped, this one not counted
  /// @param faults how the paste lies, by place; good ones left out
  public record Print(
      String board,
      Logged entry,
      String side,
      int sinceWipe,
      String jar,
      Map<String, PasteLook> faults) {
    public Print {
      faults = Collections.unmodifiableMap(new LinkedHashMap<>(faults));
    }

    private Print seen(String place, PasteLook look) {
      Map<String, PasteLook> now = new LinkedHashMap<>(faults);
      if (look == PasteLook.GOOD) {
        now.remove(place);
      } else {
        now.put(place, look);
      }
      return new Print(board, entry, side, sinceWipe, jar, now);
    }
  }

  /// How often a place came out wrong.
  public record Fault(String place, int times, Map<PasteLook, Integer> looks) {
    public Fault {
      looks = Collections.unmodifiableMap(new LinkedHashMap<>(looks));
    }
  }

  /// When to wipe.
  ///
  /// @param every wipe before every so many prints
  /// @param fresh prints with a fault, of all that came earlier after a wipe
  /// @param late the same of those that came later
  /// @param p chance of such a difference if wiping did not matter
  public record Wipe(int every, int freshBad, int fresh, int lateBad, int late, double p) {}

  public PrintLog {
    prints = List.copyOf(prints);
  }

  /// Folds the entries of several boards.
  ///
  /// @param log by board, struck entries left out
  public static PrintLog of(Map<String, List<Logged>> log) {
    record At(String board, Logged l) {}
    List<At> all = new ArrayList<>();
    log.forEach((b, ls) -> ls.forEach(l -> all.add(new At(b, l))));
    all.sort(
        Comparator.comparing((At a) -> a.l().at().toInstant()).thenComparing(a -> a.l().number()));
    List<Print> prints = new ArrayList<>();
    Map<String, Integer> since = new HashMap<>(); // each side has its foil
    Map<String, Integer> latest = new HashMap<>();
    for (At a : all) {
      switch (a.l().entry()) {
        case Entry.Printed p -> {
          int n = p.wiped() ? 0 : since.merge(p.side(), 0, (x, _) -> x + 1);
          since.put(p.side(), n);
          latest.put(a.board(), prints.size());
          prints.add(new Print(a.board(), a.l(), p.side(), n, p.jar(), Map.of()));
        }
        case Entry.PasteSeen s -> {
          Integer at = latest.get(a.board());
          if (at != null) {
            prints.set(at, prints.get(at).seen(s.place(), s.look()));
          }
        }
        default -> {}
      }
    }
    return new PrintLog(prints);
  }

  /// Places that came out wrong, most often first.
  public List<Fault> faults() {
    Map<String, Map<PasteLook, Integer>> by = new LinkedHashMap<>();
    for (Print p : prints) {
      p.faults()
          .forEach((place, look) ->
              by.computeIfAbsent(place, _ -> new LinkedHashMap<>()).merge(look, 1, Integer::sum));
    }
    return by.entrySet().stream()
        .map(e ->
            new Fault(
                e.getKey(),
                e.getValue().values().stream().mapToInt(Integer::intValue).sum(),
                Map.copyOf(e.getValue())))
        .sorted(Comparator.comparingInt(Fault::times).reversed().thenComparing(Fault::place))
        .toList();
  }

  /// Whether late wiping makes faults: of all ways to cut the prints by how many came since the
  /// wipe, the one with the clearest difference.
  ///
  /// @return empty when nothing can be said: fewer than 4 prints, or a chance of above 0.05 after
  ///   the number of cuts that were tried
  public Optional<Wipe> wipe() {
    int most = prints.stream().mapToInt(Print::sinceWipe).max().orElse(0);
    Wipe best = null;
    for (int k = 1; k <= most; k++) {
      int cut = k;
      int fresh = (int) prints.stream().filter(p -> p.sinceWipe() < cut).count();
      int late = prints.size() - fresh;
      int freshBad = bad(p -> p.sinceWipe() < cut);
      int lateBad = bad(p -> p.sinceWipe() >= cut);
      if (fresh == 0 || late == 0 || (double) lateBad / late <= (double) freshBad / fresh) {
        continue;
      }
      double p = ExactTest.twoSided(freshBad, fresh, lateBad, late);
      if (best == null || p < best.p()) {
        best = new Wipe(k, freshBad, fresh, lateBad, late, p);
      }
    }
    // several cuts were tried: the chance of the best is counted as many times
    return Optional.ofNullable(best).filter(w -> prints.size() >= 4 && w.p() * most <= 0.05);
  }

  private int bad(java.util.function.Predicate<Print> which) {
    return (int) prints.stream().filter(which).filter(p -> !p.faults().isEmpty()).count();
  }
}
