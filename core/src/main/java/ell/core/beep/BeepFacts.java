package ell.core.beep;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What the book says of the checks before power.
///
/// @param checks latest check by [BeepCheck#key()]
public record BeepFacts(Map<String, Logged> checks) {
  public BeepFacts {
    checks = Collections.unmodifiableMap(new LinkedHashMap<>(checks));
  }

  /// The facts of a board.
  public static BeepFacts of(BoardState s) {
    return s.facts(BeepFacts.class, BeepFacts::fold);
  }

  /// The verdict of the latest check with this key.
  public Optional<Verdict> verdict(String key) {
    return check(key).map(Entry.Check::verdict);
  }

  /// The latest check with this key.
  public Optional<Entry.Check> check(String key) {
    return Optional.ofNullable(checks.get(key)).map(l -> (Entry.Check) l.entry());
  }

  /// The first check of a list that was not made yet.
  public Optional<BeepCheck> next(BeepList list) {
    return list.checks().stream().filter(c -> !checks.containsKey(c.key())).findFirst();
  }

  /// Checks that stand between this board and power: not made, or not within.
  public List<BeepCheck> open(BeepList list) {
    return list.guarding().stream()
        .filter(c -> verdict(c.key()).filter(v -> v == Verdict.WITHIN).isEmpty())
        .toList();
  }

  /// How many of the checks that guard power were made.
  public int guardsMade(BeepList list) {
    return (int) list.guarding().stream().filter(c -> checks.containsKey(c.key())).count();
  }

  private static BeepFacts fold(List<Logged> standing) {
    Map<String, Logged> checks = new LinkedHashMap<>();
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.Check c) {
        checks.put(BeepCheck.key(c.kind(), c.a(), c.b()), l);
      }
    }
    return new BeepFacts(Collections.unmodifiableMap(checks));
  }
}
