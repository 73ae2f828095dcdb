package ell.work.act;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryBounds;
import ell.core.entry.Logged;
import ell.core.rack.Plan;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;

/// The one way into the book for everything that is done to a board: an act is completed with what
/// belongs to it, held against every rule of the work, and logged whole or not at all. Tape,
/// command line, window and instruments all come through here. Safe for several threads: between
/// the question and the entry nothing else is logged.
public final class Acts {
  private final Workspace space;
  private final Planner planner;
  private final List<Rule> rules;
  private final List<Companion> companions;
  private final List<Sharing> sharings;
  private final Object oneAtATime = new Object();

  /// Where the plan of a build comes from.
  public interface Planner {
    /// The plan of a build.
    Plan plan(Build build) throws IOException, ActException;
  }

  /// Acts on a workspace.
  ///
  /// @param rules in the order in which they are asked
  /// @param companions in the order in which they are asked; the first that adds something has it
  /// @param sharings that say to which other boards an act happens as well
  public Acts(
      Workspace space,
      Planner planner,
      List<Rule> rules,
      List<Companion> companions,
      List<Sharing> sharings) {
    this.space = space;
    this.planner = planner;
    this.rules = List.copyOf(rules);
    this.companions = List.copyOf(companions);
    this.sharings = List.copyOf(sharings);
  }

  /// The rules.
  public List<Rule> rules() {
    return rules;
  }

  /// Logs an act, as of now.
  ///
  /// @param board serial, empty for what belongs to no board
  /// @throws ActException when there is no such board, or an entry to be struck is not one of its
  ///   that stand
  public Outcome log(String board, List<? extends Entry> entries) throws IOException, ActException {
    return log(board, entries, Optional.empty());
  }

  /// Logs an act with a time of its own, for replaying a script.
  public Outcome log(String board, List<? extends Entry> entries, OffsetDateTime at)
      throws IOException, ActException {
    return log(board, entries, Optional.of(at));
  }

  private Outcome log(String board, List<? extends Entry> entries, Optional<OffsetDateTime> at)
      throws IOException, ActException {
    if (entries.isEmpty()) {
      throw new ActException("an act without entries does nothing");
    }
    for (Entry e : entries) {
      bounded(e);
    }
    synchronized (oneAtATime) {
      SequencedMap<String, List<Entry>> whole = new LinkedHashMap<>();
      Optional<Refusal> refusal = everywhere(board, entries, whole);
      return refusal.isPresent()
          ? new Outcome.Refused(refusal.get())
          : new Outcome.Done(space.append(whole, at.orElse(OffsetDateTime.now(space.clock()))));
    }
  }

  /// The entries of an act on every board to which it happens, that of the maker first.
  private Optional<Refusal> everywhere(
      String board, List<? extends Entry> entries, SequencedMap<String, List<Entry>> whole)
      throws IOException, ActException {
    List<Entry> own = new ArrayList<>();
    Optional<Refusal> refusal = complete(board, entries, own, false);
    if (refusal.isPresent()) {
      return refusal;
    }
    whole.put(board, own);
    for (Map.Entry<String, List<Entry>> other : shared(board, entries).entrySet()) {
      List<Entry> more = new ArrayList<>();
      refusal = complete(other.getKey(), other.getValue(), more, true);
      if (refusal.isPresent()) {
        Refusal r = refusal.get();
        return Optional.of(
            new Refusal(r.rule(), "board " + other.getKey() + ": " + r.why(), r.how()));
      }
      whole.put(other.getKey(), more);
    }
    return Optional.empty();
  }

  private Map<String, List<Entry>> shared(String board, List<? extends Entry> entries)
      throws IOException, ActException {
    Map<String, List<Entry>> others = new LinkedHashMap<>();
    if (board.isEmpty() || sharings.isEmpty()) {
      return others;
    }
    Build build = space.buildOf(board);
    Situation s = new Situation(build, planner.plan(build), space.state(board), false);
    for (Entry e : entries) {
      for (Sharing one : sharings) {
        for (String other : one.others(e, s)) {
          others.computeIfAbsent(other, _ -> new ArrayList<>()).add(e);
        }
      }
    }
    return others;
  }

  /// What the book says of a board now.
  public BoardState state(String board) throws IOException {
    return space.state(board);
  }

  /// Every board of the workspace.
  public List<String> boards() throws IOException {
    return space.book().builds().stream().flatMap(b -> b.boards().stream()).toList();
  }

  /// Why an act would be refused, empty when it would be done. Logs nothing.
  public Optional<Refusal> refusal(String board, List<? extends Entry> entries)
      throws IOException, ActException {
    return everywhere(board, entries, new LinkedHashMap<>());
  }

  private Optional<Refusal> complete(
      String board, List<? extends Entry> entries, List<Entry> whole, boolean shared)
      throws IOException, ActException {
    if (board.isEmpty()) {
      whole.addAll(entries); // what belongs to no board is bound by no rule of boards
      return Optional.empty();
    }
    Build build = space.buildOf(board);
    Plan plan = planner.plan(build);
    List<Logged> log = new ArrayList<>(space.entries(board));
    BoardState state = space.state(board);
    OffsetDateTime now = OffsetDateTime.now(space.clock());
    for (Entry e : entries) {
      state = state == null ? BoardState.of(board, log) : state;
      for (Entry one : with(e, new Situation(build, plan, state, shared))) {
        state = state == null ? BoardState.of(board, log) : state;
        bounded(one);
        if (one instanceof Entry.Strike s) {
          strikable(board, log, s.target());
        }
        Optional<Refusal> no = refused(one, new Situation(build, plan, state, shared));
        if (no.isPresent()) {
          return no;
        }
        whole.add(one);
        log.add(new Logged(Long.MAX_VALUE, now, board, one));
        state = null; // folded when something asks again
      }
    }
    return Optional.empty();
  }

  private static void bounded(Entry e) throws ActException {
    Optional<String> wrong = EntryBounds.wrong(e);
    if (wrong.isPresent()) {
      throw new ActException(wrong.get());
    }
  }

  private static void strikable(String board, List<Logged> log, long target) throws ActException {
    if (log.stream().noneMatch(l -> l.number() == target)) {
      throw new ActException("board " + board + " has no entry " + target);
    }
    if (BoardState.struck(log).contains(target)) {
      throw new ActException("entry " + target + " is struck already");
    }
  }

  private List<Entry> with(Entry e, Situation s) throws IOException, ActException {
    for (Companion c : companions) {
      List<Entry> more = c.with(e, s);
      if (more.size() != 1 || !more.getFirst().equals(e)) {
        return more;
      }
    }
    return List.of(e);
  }

  private Optional<Refusal> refused(Entry e, Situation s) throws IOException, ActException {
    for (Rule r : rules) {
      if (!s.state().overrides().containsKey(r.key())) {
        Optional<Refusal> no = r.refusal(e, s);
        if (no.isPresent()) {
          return no;
        }
      }
    }
    return Optional.empty();
  }
}
