package ell.core.revise;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Boards that work together: which serials and revisions were tried with each other, and what a
/// change of one does to the others.
///
/// @param tried every trial that stands, the latest last
/// @param pairings what is known of revisions together
public record Stacks(List<Tried> tried, List<Pairing> pairings) {
  /// A trial.
  ///
  /// @param name of the stack
  /// @param members with what each was, in the order in which they were named
  /// @param verdict whether they worked together
  /// @param entry its number
  /// @param changed members that were worked on since, with what was done
  public record Tried(
      String name, List<Member> members, Verdict verdict, long entry, List<String> changed) {
    public Tried {
      members = List.copyOf(members);
      changed = List.copyOf(changed);
    }

    /// Whether exactly these boards may be shipped together: they worked, and none was changed
    /// since.
    public boolean mayShip() {
      return verdict == Verdict.WITHIN && changed.isEmpty();
    }
  }

  /// A member.
  ///
  /// @param name serial, or words
  /// @param revision title of its revision, empty for what is not of this workspace
  public record Member(String name, String revision) {
    /// The revision, or the words.
    public String kind() {
      return revision.isEmpty() ? name : revision;
    }
  }

  /// Revisions together.
  ///
  /// @param kinds revisions, or words for what is not of this workspace, sorted
  /// @param worked trials that did
  /// @param failed trials that did not
  public record Pairing(String name, List<String> kinds, int worked, int failed) {
    public Pairing {
      kinds = List.copyOf(kinds);
    }

    /// In words: a combination that nobody has tried is not in the list at all.
    public String words() {
      return failed == 0
          ? "works (" + worked + " of " + worked + ")"
          : worked == 0
              ? "does not work (" + failed + " tried)"
              : worked + " of " + (worked + failed) + " worked";
    }
  }

  public Stacks {
    tried = List.copyOf(tried);
    pairings = List.copyOf(pairings);
  }

  /// Folds them.
  ///
  /// @param states by serial, of every board of the workspace
  /// @param revisions title of the revision by serial
  public static Stacks of(Map<String, BoardState> states, Map<String, String> revisions) {
    Map<String, Logged> latest = new LinkedHashMap<>();
    List<Logged> all = new ArrayList<>();
    for (BoardState s : states.values()) {
      for (Logged l : s.standing()) {
        if (l.entry() instanceof Entry.Stack) {
          all.add(l);
        }
      }
    }
    all.sort(java.util.Comparator.comparingLong(Logged::number));
    for (Logged l : all) {
      Entry.Stack x = (Entry.Stack) l.entry();
      // the same trial stands in the book of each of its boards
      latest.remove(key(x));
      latest.put(key(x), l);
    }
    List<Tried> tried = new ArrayList<>();
    Map<String, int[]> counts = new LinkedHashMap<>();
    for (Logged l : latest.values()) {
      Entry.Stack x = (Entry.Stack) l.entry();
      List<Member> members =
          x.members().stream().map(m -> new Member(m, revisions.getOrDefault(m, ""))).toList();
      List<String> changed = new ArrayList<>();
      for (Member m : members) {
        Optional.ofNullable(states.get(m.name()))
            .flatMap(s -> changed(s, l))
            .ifPresent(changed::add);
      }
      tried.add(new Tried(x.name(), members, x.verdict(), l.number(), changed));
      String kinds =
          x.name() + "\n" + String.join("\n", members.stream().map(Member::kind).sorted().toList());
      if (x.verdict() != Verdict.CLOSE) {
        counts.computeIfAbsent(kinds, _ -> new int[2])[x.verdict() == Verdict.WITHIN ? 0 : 1]++;
      }
    }
    List<Pairing> pairings = new ArrayList<>();
    counts.forEach((k, n) -> {
      List<String> parts = List.of(k.split("\n"));
      pairings.add(new Pairing(parts.getFirst(), parts.subList(1, parts.size()), n[0], n[1]));
    });
    return new Stacks(tried, pairings);
  }

  private static String key(Entry.Stack s) {
    return s.name() + "\n" + s.members().stream().sorted().toList();
  }

  /// What was done to a board after a trial: anything that may change how it works.
  private static Optional<String> changed(BoardState s, Logged trial) {
    String last = "";
    for (Logged l : s.standing()) {
      boolean later =
          l.number() > trial.number() && l.at().toInstant().compareTo(trial.at().toInstant()) >= 0;
      if (later) {
        String what =
            switch (l.entry()) {
              case Entry.Action a -> a.place() + " " + a.action();
              case Entry.Fitted f -> f.place() + " fitted with " + f.code();
              case Entry.StepDone d when !d.parts().isEmpty() ->
                  d.action() + " " + String.join(" ", d.parts());
              case Entry.Bodge b when b.what().equals("done") || b.what().equals("undone") ->
                  "bodge " + b.id() + " " + b.what();
              case Entry.Talk t when !t.operation().isEmpty() -> t.operation();
              case Entry.Stands x when x.stand().equals("open") || x.stand().equals("closed") ->
                  x.place() + " " + x.stand();
              default -> "";
            };
        last = what.isEmpty() ? last : what;
      }
    }
    return last.isEmpty()
        ? Optional.empty()
        : Optional.of(s.board() + ": " + last + " since: try them together again");
  }

  /// What has to be tried again if a board is changed: the stacks that it stands in.
  public List<Tried> with(String board) {
    return tried.stream()
        .filter(t -> t.members().stream().anyMatch(m -> m.name().equals(board)))
        .toList();
  }

  /// How pairs of revisions stand, sorted as they were tried.
  public Map<String, String> words() {
    Map<String, String> all = new LinkedHashMap<>();
    pairings.forEach(p -> all.put(p.name() + ": " + String.join(" + ", p.kinds()), p.words()));
    return Collections.unmodifiableMap(all);
  }
}
