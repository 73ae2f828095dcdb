package ell.core.prove;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import ell.core.statistic.Counts;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A fault that comes and goes, as the book has it: how often it was there, and how many clean
/// tries there were since it was last there.
///
/// @param what the test, or the board as a whole
/// @param bad tries at which it was there, until it was last there
/// @param tries of how many, until it was last there
/// @param clean tries in a row since then at which it was not there
public record Intermittent(String what, long bad, long tries, long clean) {
  /// How a board as a whole is called.
  public static final String BOARD = "what comes and goes";

  /// Its old rate, 0...1.
  public double rate() {
    return (double) bad / tries;
  }

  /// Clean tries that are needed to believe that it is gone.
  public long needed(double confidence) {
    return Counts.cleanTrials(rate(), confidence);
  }

  /// How sure it is that it is gone, 0...1: one less the chance that the old rate shows so many
  /// clean tries.
  public double sure() {
    return 1 - Math.pow(1 - rate(), clean);
  }

  /// All of a board: what was said to come at some tries only, and tests that held at some tries
  /// and failed at others while nothing was changed on the board.
  public static List<Intermittent> of(BoardState state) {
    List<Intermittent> all = new ArrayList<>();
    Map<String, List<Entry.Symptom>> said = new LinkedHashMap<>();
    Map<String, List<Try>> tests = new LinkedHashMap<>();
    int change = 0;
    for (Logged l : state.standing()) {
      switch (l.entry()) {
        case Entry.Symptom s when s.what().equals("comes") ->
            said.computeIfAbsent(s.place().isEmpty() ? BOARD : s.place(), _ -> new ArrayList<>())
                .add(s);
        case Entry.ProofStep p when !p.left() && p.verdict().isPresent() ->
            tests
                .computeIfAbsent("test " + p.name(), _ -> new ArrayList<>())
                .add(new Try(change, p.verdict().orElseThrow() == Verdict.OUT));
        case Entry.Action _, Entry.Fitted _ -> change++;
        default -> {} // says nothing of tries
      }
    }
    said.forEach((what, list) -> counted(what, list).ifPresent(all::add));
    tests.forEach((what, list) -> tried(what, list).ifPresent(all::add));
    return all;
  }

  /// A try of a test.
  ///
  /// @param change how often the board was changed before it
  private record Try(int change, boolean bad) {}

  private static Optional<Intermittent> counted(String what, List<Entry.Symptom> said) {
    long bad = 0;
    long tries = 0;
    long badThen = 0;
    long triesThen = 0;
    for (Entry.Symptom s : said) {
      bad += s.times();
      tries += s.of();
      if (s.times() > 0) {
        badThen = bad;
        triesThen = tries;
      }
    }
    return badThen == 0 || badThen == triesThen
        ? Optional.empty()
        : Optional.of(new Intermittent(what, badThen, triesThen, tries - triesThen));
  }

  private static Optional<Intermittent> tried(String what, List<Try> tries) {
    int last = -1;
    for (int i = 0; i < tries.size(); i++) {
      last = tries.get(i).bad() ? i : last;
    }
    if (last < 0) {
      return Optional.empty();
    }
    int then = tries.get(last).change();
    List<Try> alike = tries.subList(0, last + 1).stream().filter(t -> t.change() == then).toList();
    // clean tries behind the last bad one count as well, as long as nothing was changed
    long cleanThen =
        tries.subList(last + 1, tries.size()).stream().filter(t -> t.change() == then).count();
    long bad = alike.stream().filter(Try::bad).count();
    long clean = tries.size() - last - 1L;
    return bad == alike.size() && cleanThen == 0
        ? Optional.empty()
        : Optional.of(
            new Intermittent(
                what, bad, bad == alike.size() ? alike.size() + cleanThen : alike.size(), clean));
  }
}
