package ell.core.revise;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.look.DefectKind;
import ell.core.order.OrderFacts;
import ell.core.statistic.Counts;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// What the book of a bench says about packages, parts, sellers and methods, over all designs: how
/// often something was wrong of how many, with the interval that so many allow. Priors for the next
/// design.
///
/// @param by what is counted by each way to look, the most often wrong first
/// @param told what could not be counted, a sentence each
public record Lessons(Map<Way, List<Count>> by, List<String> told) {
  private static final double CONFIDENCE = 0.9;

  /// Half a defect and half a good one are taken as seen before (Jeffreys).
  private static final double BEFORE = 0.5;

  /// A way to look.
  public enum Way {
    /// Joints and parts of a package.
    PACKAGE("package"),
    /// Parts of a code.
    PART("part"),
    /// Parts of a seller.
    SELLER("seller"),
    /// Joints and parts by how they were soldered.
    METHOD("method");

    private final String key;

    Way(String key) {
      this.key = key;
    }

    /// The key in files, and its word.
    public String key() {
      return key;
    }
  }

  /// One count.
  ///
  /// @param name of the package, part, seller or method
  /// @param wrong how often something was wrong
  /// @param of of how many: joints and parts, or parts alone
  /// @param rate what to expect of the next one
  /// @param interval of the rate at 90 %
  /// @param designs how many designs it was seen in
  public record Count(
      String name, long wrong, long of, double rate, Counts.Interval interval, int designs) {}

  /// A board, with what it is of.
  ///
  /// @param revision in its variant
  /// @param method in words
  public record Made(Revision revision, String method, BoardState state) {}

  private static final class Tally {
    long wrong;
    long of;
    final Set<String> designs = new HashSet<>();
  }

  public Lessons {
    by = Map.copyOf(by);
    told = List.copyOf(told);
  }

  /// Counts them.
  ///
  /// @param sellers who sells a code, by code; a code with several sellers tells of none of them
  public static Lessons of(List<Made> boards, Map<String, List<String>> sellers) {
    Map<Way, Map<String, Tally>> all = new LinkedHashMap<>();
    for (Way w : Way.values()) {
      all.put(w, new LinkedHashMap<>());
    }
    Set<String> unknown = new HashSet<>();
    for (Made b : boards) {
      count(b, all, sellers, unknown);
    }
    Map<Way, List<Count>> by = new LinkedHashMap<>();
    all.forEach((w, t) -> by.put(w, counts(t)));
    List<String> told = new ArrayList<>();
    if (!unknown.isEmpty()) {
      told.add(
          unknown.size()
              + (unknown.size() == 1 ? " code has" : " codes have")
              + " no seller or several: who sold them is not in the book");
    }
    return new Lessons(by, told);
  }

  private static void count(
      Made b,
      Map<Way, Map<String, Tally>> all,
      Map<String, List<String>> sellers,
      Set<String> unknown) {
    Revision r = b.revision();
    Map<String, Set<String>> wrong = new LinkedHashMap<>();
    Map<String, String> codes = new LinkedHashMap<>();
    for (Logged l : b.state().standing()) {
      switch (l.entry()) {
        case Entry.Defect d ->
            wrong
                .computeIfAbsent(BodgeStep.part(d.place(), r), _ -> new HashSet<>())
                .add(d.defect());
        case Entry.Fitted f -> codes.put(f.place(), f.code());
        default -> {} // counts for nothing here
      }
    }
    Set<String> parts = new java.util.LinkedHashSet<>(OrderFacts.of(b.state()).placed());
    parts.addAll(wrong.keySet()); // what is wrong was there, whatever the book says of its step
    for (String ref : parts) {
      Part p = r.part(ref).orElse(null);
      if (p == null) {
        continue;
      }
      Set<String> defects = wrong.getOrDefault(ref, Set.of());
      int joints = (int) r.jointsOf(ref).stream().map(Joint::pin).distinct().count();
      long ofPart = defects.stream().filter(d -> part(d)).count();
      add(all.get(Way.PACKAGE), p.packageName(), defects.size(), joints + 1L, r.design());
      add(all.get(Way.METHOD), b.method(), defects.size(), joints + 1L, r.design());
      String code = codes.getOrDefault(ref, p.code());
      add(all.get(Way.PART), code, ofPart, 1, r.design());
      List<String> who = sellers.getOrDefault(code, List.of());
      if (who.size() == 1) {
        add(all.get(Way.SELLER), who.getFirst(), ofPart, 1, r.design());
      } else {
        unknown.add(code);
      }
    }
  }

  /// Whether a defect is one of the part, not of how it was soldered.
  private static boolean part(String defect) {
    return DefectKind.of(defect)
        .filter(k ->
            k == DefectKind.DEAD
                || k == DefectKind.CRACKED
                || k == DefectKind.WRONG
                || k == DefectKind.HOT)
        .isPresent();
  }

  private static void add(Map<String, Tally> by, String name, long wrong, long of, String design) {
    if (name.isEmpty()) {
      return;
    }
    Tally t = by.computeIfAbsent(name, _ -> new Tally());
    t.wrong += Math.min(wrong, of);
    t.of += of;
    t.designs.add(design);
  }

  private static List<Count> counts(Map<String, Tally> by) {
    List<Count> all = new ArrayList<>();
    by.forEach((name, t) ->
        all.add(
            new Count(
                name,
                t.wrong,
                t.of,
                (t.wrong + BEFORE) / (t.of + 2 * BEFORE),
                Counts.exact(t.wrong, t.of, CONFIDENCE),
                t.designs.size())));
    all.sort(
        Comparator.comparingDouble((Count c) -> -c.interval().low())
            .thenComparing(c -> -c.wrong())
            .thenComparing(c -> -c.of())
            .thenComparing(Count::name));
    return all;
  }
}
