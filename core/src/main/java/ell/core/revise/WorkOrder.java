package ell.core.revise;

import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What has to be done to mend every board that is not mended: each board is taken in hand once,
/// and its steps come in the order that heats its parts least and changes the tool least.
///
/// @param boards in the order of the work
/// @param parts codes that it needs, with how many
/// @param wire metres by gauge
/// @param told what is not known, a sentence each
public record WorkOrder(
    List<Job> boards, Map<String, Integer> parts, Map<Integer, Double> wire, List<String> told) {
  /// Minutes to fetch a board, lay it down and put it away; common practice, no source.
  public static final double FETCH = 4;

  /// Minutes for another tool in hand; common practice, no source.
  public static final double TOOL = 0.5;

  /// So many ways to interleave bodges are looked through.
  private static final int MOST = 200_000;

  /// One board.
  ///
  /// @param errata ids, in the order in which they are begun
  /// @param steps in the order of the work
  /// @param heats by part, how often it is heated
  /// @param minutes with fetching and tools
  /// @param exact whether no other order heats less
  public record Job(
      String board,
      List<String> errata,
      List<Doing> steps,
      Map<String, Integer> heats,
      double minutes,
      boolean exact) {
    public Job {
      errata = List.copyOf(errata);
      steps = List.copyOf(steps);
      heats = Collections.unmodifiableMap(new LinkedHashMap<>(heats));
    }
  }

  /// A step of an erratum's bodge.
  public record Doing(String erratum, BodgeStep step) {}

  public WorkOrder {
    boards = List.copyOf(boards);
    parts = Collections.unmodifiableMap(new LinkedHashMap<>(parts));
    wire = Collections.unmodifiableMap(new LinkedHashMap<>(wire));
    told = List.copyOf(told);
  }

  /// Minutes of all boards.
  public double minutes() {
    return boards.stream().mapToDouble(Job::minutes).sum();
  }

  /// The work order of a matrix.
  ///
  /// @param minutes by id, what a bodge has taken on this bench; typical minutes where it is not
  ///   here
  /// @param wires how thick and long a wire has to be
  public static WorkOrder of(BodgeMatrix m, Map<String, Double> minutes, Wires wires) {
    List<Job> jobs = new ArrayList<>();
    List<String> told = new ArrayList<>();
    Map<String, Integer> parts = new LinkedHashMap<>();
    Map<Integer, Double> wire = new java.util.TreeMap<>();
    for (Erratum e : m.errata()) {
      int need = m.count(e, Stand.State.NEEDED);
      if (e.bodge().isEmpty() && need > 0) {
        told.add(
            e.id()
                + ": nobody has said how "
                + (need == 1 ? "its board is" : "its " + need + " boards are")
                + " mended; say it: erratum "
                + e.id()
                + " bodge STEPS");
      }
    }
    for (BodgeMatrix.Row b : m.boards()) {
      List<Erratum> open =
          b.needed().stream()
              .flatMap(id -> m.errata().stream().filter(e -> e.id().equals(id)))
              .filter(e -> !e.bodge().isEmpty())
              .toList();
      if (open.isEmpty()) {
        continue;
      }
      jobs.add(job(b.board(), open, b.revision(), minutes));
      for (Erratum e : open) {
        for (BodgeStep s : e.bodge()) {
          BodgeNeeds.code(s, b.revision()).ifPresent(c -> parts.merge(c, 1, Integer::sum));
          wires.of(s, b.revision()).ifPresent(w -> wire.merge(w.gauge(), w.metres(), Double::sum));
        }
      }
    }
    // what may do damage first, then the boards that have most to be mended
    Comparator<Job> order =
        Comparator.comparingInt((Job j) -> worst(j, m)).thenComparingInt(j -> -j.errata().size());
    jobs.sort(order);
    return new WorkOrder(jobs, parts, wire, told);
  }

  /// How a wire is chosen.
  public interface Wires {
    /// The wire of a step, empty where it lays none.
    Optional<Ends.Wire> of(BodgeStep s, Revision revision);
  }

  private static int worst(Job j, BodgeMatrix m) {
    return m.errata().stream()
        .filter(e -> j.errata().contains(e.id()))
        .mapToInt(e -> e.severity().ordinal())
        .min()
        .orElse(Severity.WISH.ordinal());
  }

  private static Job job(
      String board, List<Erratum> errata, Revision revision, Map<String, Double> minutes) {
    List<List<Doing>> lists = new ArrayList<>();
    double work = 0;
    for (Erratum e : errata) {
      lists.add(e.bodge().stream().map(s -> new Doing(e.id(), s)).toList());
      work += minutes.getOrDefault(e.id(), e.minutes());
    }
    boolean exact = ways(lists) <= MOST;
    List<Doing> steps = exact ? new Interleaving(lists, revision).best() : inTurn(lists);
    Map<String, Integer> heats = heats(steps, revision);
    return new Job(
        board,
        steps.stream().map(Doing::erratum).distinct().toList(),
        steps,
        heats,
        FETCH + work + TOOL * changes(steps),
        exact);
  }

  private static long ways(List<List<Doing>> lists) {
    long n = lists.size();
    for (List<Doing> l : lists) {
      n = Math.min(Long.MAX_VALUE / 1000, n * (l.size() + 1));
    }
    return n;
  }

  private static List<Doing> inTurn(List<List<Doing>> lists) {
    return lists.stream().flatMap(List::stream).toList();
  }

  /// How often each part is heated: a part that stays in hand from step to step is heated once.
  static Map<String, Integer> heats(List<Doing> steps, Revision revision) {
    Map<String, Integer> all = new LinkedHashMap<>();
    Set<String> before = Set.of();
    for (Doing d : steps) {
      Set<String> now = d.step().heats(revision);
      for (String p : now) {
        if (!before.contains(p)) {
          all.merge(p, 1, Integer::sum);
        }
      }
      before = now;
    }
    return all;
  }

  /// How often another tool is taken in hand.
  static int changes(List<Doing> steps) {
    int n = 0;
    for (int i = 1; i < steps.size(); i++) {
      n += steps.get(i).step().tool() == steps.get(i - 1).step().tool() ? 0 : 1;
    }
    return n;
  }
}
