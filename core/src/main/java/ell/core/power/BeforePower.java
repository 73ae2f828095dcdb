package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder.Source;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/// What must be so before a board gets power for the first time: cells out, modules out of their
/// sockets, nothing else plugged in where the supply feeds. Each is asked, and held against the
/// book. Common practice, no source.
public final class BeforePower {
  private BeforePower() {}

  /// What the book says of it.
  public enum State {
    /// Nothing.
    OPEN("say it:"),
    /// That it is so.
    SO("so"),
    /// That it is not.
    AGAINST("the book says otherwise; then");

    private final String words;

    State(String words) {
      this.words = words;
    }

    /// In words.
    public String words() {
      return words;
    }
  }

  /// One of them.
  ///
  /// @param place the part, or the net of the source
  /// @param stand how it must stand: `out` or `alone`
  /// @param says a sentence
  public record Item(String place, String stand, String says, State state) {
    /// The entry that says it is so.
    public Entry.Stands so() {
      return new Entry.Stands(place, stand, "");
    }

    /// The sentence, and what the book says of it.
    public String words() {
      return state == State.SO ? says + " · so" : says + " · " + state.words() + " " + typed();
    }

    /// As it is typed.
    public String typed() {
      return place + " " + stand;
    }
  }

  /// All of them for a board, as its book has them.
  public static List<Item> of(Revision revision, Ladder ladder, BoardState state) {
    List<Item> all = new ArrayList<>();
    for (Part p : revision.parts()) {
      boolean cell = p.kind() == PartKind.CELL && !saidIn(ladder, p);
      boolean module = p.kind() == PartKind.MODULE && plugged(ladder, p);
      if (!p.fitted() || !cell && !module) {
        continue;
      }
      String what = cell ? "no cell in " + p.reference() : p.reference() + " is out of its sockets";
      // a holder is placed before there is a cell in it; a module that is placed is plugged in
      all.add(item(p.reference(), "out", what, state, module));
    }
    for (Source s : ladder.sources()) {
      if (ladder.raises(s)) {
        String what =
            s.rail()
                + " gets output "
                + ladder.channel(s)
                + " of the supply, and nothing else feeds it"
                + at(revision, s);
        all.add(item(s.rail(), "alone", what, state, false));
      }
    }
    return all;
  }

  private static Item item(
      String place, String stand, String says, BoardState state, boolean placedIsIn) {
    State is = State.OPEN;
    for (Logged l : state.standing()) {
      switch (l.entry()) {
        case Entry.Stands s when s.place().equals(place) ->
            is = s.stand().equals(stand) ? State.SO : State.AGAINST;
        case Entry.StepDone d when placedIsIn && d.parts().contains(place) -> is = State.AGAINST;
        default -> {} // says nothing of it
      }
    }
    return new Item(place, stand, says, is);
  }

  /// The entries that say that all of it is so, as far as the book does not have it.
  public static List<Entry.Stands> allSo(Revision revision, Ladder ladder, BoardState state) {
    return of(revision, ladder, state).stream()
        .filter(i -> i.state() != State.SO)
        .map(Item::so)
        .toList();
  }

  /// Whether first power is over: every rail that hangs on what is raised was read, and is within
  /// where its volts are no guess.
  public static boolean over(Ladder ladder, BoardState state) {
    PowerFacts facts = PowerFacts.of(state);
    return !ladder.raised().isEmpty()
        && ladder.raised().stream()
            .allMatch(r ->
                r.guessed()
                    ? facts.reading(r).isPresent()
                    : facts.verdict(r).filter(v -> v == Verdict.WITHIN).isPresent());
  }

  private static boolean saidIn(Ladder ladder, Part p) {
    PartSaid s = ladder.parts().get(p.reference());
    return s != null && s.kind().equals("cell");
  }

  /// A module that is soldered on cannot be taken out: the ladder says of which it is so.
  private static boolean plugged(Ladder ladder, Part p) {
    return ladder.assumptions().stream()
        .anyMatch(a -> a.startsWith(p.reference() + " is out of its socket"));
  }

  private static String at(Revision revision, Source s) {
    Set<String> plugs = new LinkedHashSet<>();
    for (Joint j : revision.net(s.rail())) {
      if (PartKind.of(j.part()) == PartKind.CONNECTOR) {
        plugs.add(j.part());
      }
    }
    return plugs.isEmpty() ? "" : ": no other cable in " + String.join(", ", plugs);
  }
}
