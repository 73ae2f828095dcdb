package ell.core.revise;

import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.look.DefectKind;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// What the books of a revision's boards suggest for the next one, before anybody wrote it down:
/// places that fail again and again, parts that are changed again and again, links that are
/// switched often, parts that others stand in for. A suggestion is a guess with its entries; it
/// becomes a wish when somebody says so.
public final class Improvements {
  /// The same defect on so many boards is no slip of the hand any more; common practice, no source.
  private static final int OFTEN = 3;

  /// A solder link that was switched so often wants a header; common practice, no source.
  private static final int SWITCHED = 4;

  private Improvements() {}

  /// A suggestion.
  ///
  /// @param title what the next revision could have
  /// @param why what the books say
  /// @param places where
  /// @param taughtBy numbers of the entries
  public record Suggestion(String title, String why, List<String> places, List<Long> taughtBy) {
    public Suggestion {
      places = List.copyOf(places);
      taughtBy = List.copyOf(taughtBy);
    }
  }

  /// What was seen of one thing, on which boards.
  private static final class Seen {
    final Set<String> boards = new LinkedHashSet<>();
    final List<Long> entries = new ArrayList<>();
    int times;
  }

  /// What the books suggest, the best taught first.
  ///
  /// @param known errata and wishes that are written down: what they name is not suggested again
  /// @param advice what the jig would want otherwise, may be empty
  public static List<Suggestion> of(
      Revision revision, List<BoardState> boards, List<Erratum> known, List<String> advice) {
    Map<String, Seen> defects = new LinkedHashMap<>();
    Map<String, Seen> changed = new LinkedHashMap<>();
    Map<String, Seen> fitted = new LinkedHashMap<>();
    Map<String, Seen> links = new LinkedHashMap<>();
    for (BoardState s : boards) {
      for (Logged l : s.standing()) {
        switch (l.entry()) {
          case Entry.Defect d ->
              add(defects, BodgeStep.part(d.place(), revision) + "\n" + d.defect(), s, l);
          case Entry.Action a when a.action().equals("replaced") ->
              add(changed, BodgeStep.part(a.place(), revision), s, l);
          case Entry.Fitted f -> add(fitted, f.place() + "\n" + f.code(), s, l);
          case Entry.Stands x
              when (x.stand().equals("open") || x.stand().equals("closed"))
                  && PartKind.of(x.place()) == PartKind.LINK ->
              add(links, x.place(), s, l);
          default -> {} // suggests nothing
        }
      }
    }
    List<Suggestion> all = new ArrayList<>();
    defects.forEach((key, seen) -> {
      if (seen.boards.size() >= OFTEN) {
        String[] k = key.split("\n");
        all.add(defect(k[0], k[1], seen, boards.size(), revision));
      }
    });
    changed.forEach((part, seen) -> {
      if (seen.boards.size() >= OFTEN) {
        all.add(
            new Suggestion(
                "a socket for " + part,
                "it was replaced on " + seen.boards.size() + " of " + boards.size() + " boards",
                List.of(part),
                seen.entries));
      }
    });
    fitted.forEach((key, seen) -> {
      String[] k = key.split("\n");
      all.add(
          new Suggestion(
              "second source for " + k[0] + ": " + k[1],
              "it was fitted on "
                  + seen.boards.size()
                  + (seen.boards.size() == 1 ? " board" : " boards"),
              List.of(k[0]),
              seen.entries));
    });
    links.forEach((link, seen) -> {
      if (seen.times >= SWITCHED) {
        all.add(
            new Suggestion(
                "a header and a jumper for " + link + " instead of a solder link",
                "it was switched " + seen.times + " times, each with heat",
                List.of(link),
                seen.entries));
      }
    });
    all.sort(
        Comparator.comparingInt((Suggestion x) -> -x.taughtBy().size())
            .thenComparing(Suggestion::title));
    for (String a : advice) {
      all.add(
          new Suggestion(
              a, "the jig of this revision would be easier to build", List.of(), List.of()));
    }
    return all.stream().filter(x -> !written(x, known)).toList();
  }

  private static void add(Map<String, Seen> by, String key, BoardState s, Logged l) {
    Seen x = by.computeIfAbsent(key, _ -> new Seen());
    x.boards.add(s.board());
    x.entries.add(l.number());
    x.times++;
  }

  private static Suggestion defect(
      String part, String defect, Seen seen, int boards, Revision revision) {
    String label = revision.part(part).map(Part::packageName).orElse("");
    String what =
        switch (DefectKind.of(defect).orElse(DefectKind.WRONG)) {
          case BRIDGE, EXCESS -> "less paste, or wider gaps, at " + part;
          case STARVED, OPEN -> "a larger opening at " + part;
          case STANDING, SHIFTED -> "even pads and copper for " + part;
          case TURNED -> "a clear mark for " + part + " in the legend";
          case THICK -> "wider holes for " + part;
          case LIFTED -> "larger pads for " + part;
          case COLD -> "less copper at the pins of " + part;
          case MISSING, WRONG -> "look at " + part + " in bill and drawing";
          default -> "look at " + part;
        };
    return new Suggestion(
        what + (label.isEmpty() ? "" : " (" + label + ")"),
        defect + " on " + seen.boards.size() + " of " + boards + " boards",
        List.of(part),
        seen.entries);
  }

  /// Whether something that is written down already says it: it rests on one of the entries, or is
  /// called the same.
  private static boolean written(Suggestion s, List<Erratum> known) {
    return known.stream()
        .anyMatch(e ->
            e.title().equals(s.title()) || e.taughtBy().stream().anyMatch(s.taughtBy()::contains));
  }
}
