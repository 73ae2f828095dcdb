package ell.core.entry;

import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/// What the book says about one board: folded from its entries, never stored. Struck entries count
/// for nothing; a strike can be struck itself, which brings the entry back.
///
/// Here stands what every stage asks for: what is open, which rules were set aside, what came last.
/// What only one stage keeps is folded by that stage, in its class of facts, when somebody asks:
/// `LookFacts.of(state).seen()`. Immutable, and safe for several threads.
public final class BoardState {
  private final String board;
  private final int entries;
  private final Set<Long> struck;
  private final List<Logged> standing;
  private final List<Finding> findings;
  private final Map<String, String> overrides;
  private final Map<Class<?>, Object> facts = new HashMap<>();

  /// Something that is wrong and not mended yet.
  ///
  /// @param number of the entry that opened it
  public record Finding(long number, String place, String what) {}

  private BoardState(String board, List<Logged> all) {
    this.board = board;
    this.entries = all.size();
    this.struck = struck(all);
    this.standing =
        struck.isEmpty()
            ? List.copyOf(all)
            : all.stream().filter(l -> !struck.contains(l.number())).toList();
    Map<String, String> rules = new LinkedHashMap<>();
    List<Finding> open = new ArrayList<>();
    for (Logged l : standing) {
      take(l, open);
      if (l.entry() instanceof Entry.Override o) {
        rules.put(o.rule(), o.why());
      }
    }
    this.findings = List.copyOf(open);
    this.overrides = rules;
  }

  /// Folds the entries of one board.
  ///
  /// @param entries in order of their numbers
  public static BoardState of(String board, List<Logged> entries) {
    return new BoardState(board, entries);
  }

  private static void take(Logged l, List<Finding> open) {
    switch (l.entry()) {
      case Entry.Gate g -> {
        if (g.held()) {
          open.removeIf(x -> x.place().equals(g.gate()));
        } else {
          open.add(
              new Finding(
                  l.number(),
                  g.gate(),
                  "gate does not hold" + (g.why().isEmpty() ? "" : ": " + g.why())));
        }
      }
      case Entry.Reading r ->
          r.verdict()
              .ifPresent(v ->
                  // a rail may have the right volts and the wrong current
                  judged(
                      open,
                      l,
                      r.unit() == Unit.AMPERE ? r.place() + " current" : r.place(),
                      "reads " + v.words(),
                      v));
      case Entry.Capture c ->
          c.verdict()
              .ifPresent(v -> judged(open, l, c.place() + " signal", "shows " + c.says(), v));
      case Entry.Talk t ->
          t.verdict()
              .ifPresent(
                  v -> judged(open, l, "line " + t.script(), "does not do what was expected", v));
      case Entry.Check c ->
          judged(
              open,
              l,
              c.netA() + " to " + c.netB(),
              c.kind() + " " + c.verdict().words(),
              c.verdict());
      case Entry.Found f when !f.place().isEmpty() ->
          open.add(new Finding(l.number(), f.place(), f.fault()));
      case Entry.Defect d -> open.add(new Finding(l.number(), d.place(), d.defect()));
      case Entry.Action a ->
          open.removeIf(x -> x.place().equals(a.place()) || part(x.place()).equals(a.place()));
      case Entry.ProofStep p -> p.verdict().ifPresent(v -> proof(open, l, p, v));
      case Entry.Supply s -> s.verdict().ifPresent(v -> judged(open, l, "supply", s.why(), v));
      default -> {} // says nothing about what is wrong
    }
  }

  /// A test that fails is a finding of its own, unless what it measured is one already.
  private static void proof(List<Finding> open, Logged l, Entry.ProofStep p, Verdict verdict) {
    String place = "test " + p.name();
    open.removeIf(x -> x.place().equals(place));
    boolean known =
        !p.place().isEmpty()
            && open.stream()
                .anyMatch(
                    x -> x.place().equals(p.place()) || x.place().startsWith(p.place() + " "));
    if (verdict == Verdict.OUT && !known) {
      open.add(new Finding(l.number(), place, p.words().isEmpty() ? "fails" : p.words()));
    }
  }

  private static void judged(
      List<Finding> open, Logged l, String place, String what, Verdict verdict) {
    open.removeIf(x -> x.place().equals(place));
    if (verdict == Verdict.OUT) {
      open.add(new Finding(l.number(), place, what));
    }
  }

  /// Numbers of the entries that are taken back: read from the end, a strike counts unless it is
  /// struck.
  public static Set<Long> struck(List<Logged> entries) {
    Set<Long> struck = new HashSet<>();
    for (Logged l : entries.reversed()) {
      if (l.entry() instanceof Entry.Strike s && !struck.contains(l.number())) {
        struck.add(s.target());
      }
    }
    return struck;
  }

  /// The entries that stand, oldest first.
  public static List<Logged> standing(List<Logged> entries) {
    Set<Long> gone = struck(entries);
    return entries.stream().filter(l -> !gone.contains(l.number())).toList();
  }

  /// The reference in a place: `U4` of `U4.7`.
  public static String part(String place) {
    int dot = place.indexOf('.');
    return dot < 0 ? place : place.substring(0, dot);
  }

  /// What a stage keeps of the entries that stand, folded once.
  ///
  /// @param type of the facts, which a stage has one of
  /// @param fold makes them of the entries that stand, oldest first
  public synchronized <T> T facts(Class<T> type, Function<List<Logged>, T> fold) {
    return type.cast(facts.computeIfAbsent(type, _ -> fold.apply(standing)));
  }

  /// Serial.
  public String board() {
    return board;
  }

  /// How many entries the book has for it, struck ones and strikes included.
  public int entries() {
    return entries;
  }

  /// Numbers of the entries that are taken back.
  public Set<Long> struck() {
    return struck;
  }

  /// The entries that stand, oldest first.
  public List<Logged> standing() {
    return standing;
  }

  /// Open findings, oldest first.
  public List<Finding> findings() {
    return findings;
  }

  /// Rules that were set aside, with the latest reason.
  public Map<String, String> overrides() {
    return overrides;
  }

  /// The latest entry that stands.
  public Optional<Logged> last() {
    return standing.isEmpty() ? Optional.empty() : Optional.of(standing.getLast());
  }
}
