package ell.core.look;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// How many defects there are, where, and of what kind.
///
/// A board counts once something of it was looked at. Its opportunities are the joints that were
/// looked at and their parts; where only defects were typed, all of its placed joints and parts. A
/// defect that repeats at the same place counts once until something was done there.
///
/// @param boards that were looked at, with their counts, in the order of the build
/// @param by groups of a way to sort, worst first
public record Rates(
    List<Board> boards, long defects, long opportunities, Map<Sorting, List<Group>> by) {
  /// Ways to sort.
  public enum Sorting {
    /// By reference.
    PART("part"),
    /// By package.
    PACKAGE("package"),
    /// By how close the joints lie.
    PITCH("pitch"),
    /// By kind of defect.
    KIND("defect"),
    /// By how long the paste was out of the cold when it was printed.
    PASTE_AGE("paste age"),
    /// By who was at the bench.
    PERSON("person"),
    /// By how the board was soldered.
    METHOD("method");

    private final String words;

    Sorting(String words) {
      this.words = words;
    }

    /// In words.
    public String words() {
      return words;
    }
  }

  /// One board.
  public record Board(String serial, int defects, long opportunities) {}

  /// One group. Opportunities are 0 where a group has none of its own, as a kind of defect.
  public record Group(String name, int defects, long opportunities) {
    /// Defects per million, NaN without opportunities.
    public double dpmo() {
      return opportunities == 0 ? Double.NaN : Rates.dpmo(defects, opportunities);
    }
  }

  /// What is known of a board beside its entries.
  ///
  /// @param pasteAge in words, empty when not known
  public record About(String method, String pasteAge) {}

  public Rates {
    boards = List.copyOf(boards);
    by = Map.copyOf(by);
  }

  /// `defects / opportunities · 10⁶`.
  public static double dpmo(double defects, double opportunities) {
    return defects / opportunities * 1e6;
  }

  /// Overall, NaN when nothing was looked at.
  public double dpmo() {
    return opportunities == 0 ? Double.NaN : dpmo(defects, opportunities);
  }

  /// Whether boards differ more than chance; empty with fewer than 2 boards or without defects.
  public Optional<Chart> chart() {
    return boards.size() < 2 || defects == 0
        ? Optional.empty()
        : Optional.of(
            Chart.of(
                boards.stream().map(b -> (double) b.defects()).toList(),
                boards.stream().map(b -> b.opportunities() / 1000.0).toList()));
  }

  /// Folds the entries of the boards of a build.
  ///
  /// @param log by board, struck entries left out
  public static Rates of(
      Revision revision, Pitch pitch, Map<String, List<Logged>> log, Map<String, About> about) {
    Fold f = new Fold(revision, pitch);
    List<Board> boards = new ArrayList<>();
    log.forEach((serial, entries) ->
        f.board(serial, entries, about.getOrDefault(serial, new About("", "")))
            .ifPresent(boards::add));
    Map<Sorting, List<Group>> by = new LinkedHashMap<>();
    f.counts.forEach((s, groups) -> {
      List<Group> all = new ArrayList<>();
      groups.forEach((name, c) -> all.add(new Group(name, (int) c[0], c[1])));
      all.sort(Comparator.comparingInt(Group::defects).reversed().thenComparing(Group::name));
      by.put(s, List.copyOf(all));
    });
    return new Rates(
        boards,
        boards.stream().mapToInt(Board::defects).sum(),
        boards.stream().mapToLong(Board::opportunities).sum(),
        by);
  }

  /// Defects and joints that were looked at by part, for [Risk].
  public static Map<String, int[]> seenByPart(Rates r) {
    Map<String, int[]> out = new HashMap<>();
    r.by()
        .getOrDefault(Sorting.PART, List.of())
        .forEach(g -> out.put(g.name(), new int[] {g.defects(), (int) g.opportunities()}));
    return out;
  }

  private static final class Fold {
    final Revision revision;
    final Pitch pitch;
    final Map<Sorting, Map<String, long[]>> counts = new LinkedHashMap<>();

    Fold(Revision revision, Pitch pitch) {
      this.revision = revision;
      this.pitch = pitch;
    }

    Optional<Board> board(String serial, List<Logged> entries, About about) {
      Set<String> joints = new HashSet<>();
      Set<String> open = new HashSet<>();
      Map<String, Integer> perPart = new LinkedHashMap<>();
      List<String> kinds = new ArrayList<>();
      List<String> placed = new ArrayList<>();
      String who = "";
      boolean walked = false;
      for (Logged l : entries) {
        switch (l.entry()) {
          case Entry.Seen s -> {
            walked = true;
            s.places().forEach(p -> joints(p).forEach(joints::add));
          }
          case Entry.Defect d -> {
            Optional<DefectKind> k = DefectKind.of(d.defect());
            String part = BoardState.part(d.place());
            boolean counts =
                k.isPresent()
                    && k.get() != DefectKind.DEAD
                    && k.get() != DefectKind.HOT
                    && revision.part(part).isPresent();
            if (counts && open.add(d.place() + " " + d.defect())) {
              perPart.merge(part, 1, Integer::sum);
              kinds.add(d.defect());
              joints(d.place()).forEach(joints::add);
            }
          }
          case Entry.Action a ->
              open.removeIf(o -> o.startsWith(a.place() + " ") || o.startsWith(a.place() + "."));
          case Entry.StepDone s -> placed.addAll(s.parts());
          case Entry.Operator h -> who = who.isEmpty() ? h.who() : who;
          default -> {}
        }
      }
      if (!walked && perPart.isEmpty()) {
        return Optional.empty();
      }
      if (!walked) {
        placed.forEach(p -> joints(p).forEach(joints::add));
      }
      Map<String, Integer> joined = new LinkedHashMap<>();
      joints.forEach(j -> joined.merge(BoardState.part(j), 1, Integer::sum));
      int defects = perPart.values().stream().mapToInt(Integer::intValue).sum();
      long room = joints.size() + joined.size();
      joined.forEach((part, n) -> {
        Part p = revision.part(part).orElse(null);
        int bad = perPart.getOrDefault(part, 0);
        add(Sorting.PART, part, bad, n + 1);
        add(
            Sorting.PACKAGE,
            p == null || p.packageName().isEmpty() ? "not named" : p.packageName(),
            bad,
            n + 1);
        add(Sorting.PITCH, Pitch.words(pitch.of(part)), bad, n + 1);
      });
      kinds.forEach(k -> add(Sorting.KIND, k, 1, 0));
      add(Sorting.METHOD, about.method().isEmpty() ? "not said" : about.method(), defects, room);
      add(Sorting.PERSON, who.isEmpty() ? "not said" : who, defects, room);
      if (!about.pasteAge().isEmpty()) {
        add(Sorting.PASTE_AGE, about.pasteAge(), defects, room);
      }
      return Optional.of(new Board(serial, defects, room));
    }

    /// The joints that a place means.
    private List<String> joints(String place) {
      return place.contains(".")
          ? List.of(place)
          : revision.jointsOf(place).stream().map(Joint::place).toList();
    }

    private void add(Sorting s, String name, int defects, long room) {
      long[] c =
          counts
              .computeIfAbsent(s, _ -> new LinkedHashMap<>())
              .computeIfAbsent(name, _ -> new long[2]);
      c[0] += defects;
      c[1] += room;
    }
  }

  /// The working.
  public Worked sheet() {
    Worked.Builder s =
        Worked.of("look.rates", "How many defects there are")
            .line("boards", "of which something was looked at", boards.size(), Unit.ONE)
            .line("defects", "each place once", defects, Unit.ONE)
            .line("opportunities", "joints looked at, and their parts", opportunities, Unit.ONE);
    if (opportunities > 0) {
      s.line("DPMO", "defects / opportunities · 10⁶", dpmo(), Unit.ONE);
    }
    chart()
        .ifPresent(c ->
            s.line(
                "boards outside",
                "u-chart, centre ± 3·√(centre/size)",
                c.out().isEmpty()
                    ? "none"
                    : String.join(
                        " ", c.out().stream().map(i -> boards.get(i - 1).serial()).toList())));
    return s.source("IPC-7912 idea, from memory; NIST/SEMATECH e-Handbook, 6.3.3.1")
        .assume("a board on which only defects were typed was looked at whole")
        .done();
  }
}
