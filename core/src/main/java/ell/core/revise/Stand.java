package ell.core.revise;

import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.HeatBudget;
import ell.core.heat.HeatFacts;
import ell.core.quantity.Verdict;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// How a board stands to an erratum.
///
/// @param state whether it is mended
/// @param why in words
/// @param entry number of the entry that it rests on, 0 for none
/// @param minutes that the bodge took, 0 when it was not timed
/// @param failed whether the last word on its bodge is that it did not hold
public record Stand(State state, String why, long entry, double minutes, boolean failed) {
  Stand(State state, String why, long entry, double minutes) {
    this(state, why, entry, minutes, false);
  }

  /// Whether a board is mended.
  public enum State {
    /// It is to be mended.
    NEEDED("needed", "needed"),
    /// It was mended; nothing shows yet that it holds.
    DONE("done", "done"),
    /// It was mended, and something shows it.
    PROVED("proved", "proved"),
    /// It needs no mending.
    NOT_NEEDED("notNeeded", "not needed"),
    /// It would be needed, and a part has had too much heat for it.
    CANNOT("cannot", "cannot: heat spent");

    private final String key;
    private final String words;

    State(String key, String words) {
      this.key = key;
      this.words = words;
    }

    /// The key in files.
    public String key() {
      return key;
    }

    /// In words.
    public String words() {
      return words;
    }
  }

  /// How a board stands.
  ///
  /// @param revision of the board, with the parts of its variant
  public static Stand of(Erratum e, Revision revision, BoardState s) {
    if (!e.open()) {
      return none("closed: " + e.closed().orElseThrow());
    }
    if (e.severity() == Severity.WISH) {
      return none("for the next revision only");
    }
    if (!e.of(revision.design(), revision.name())) {
      return none(
          "not of "
              + revision.title()
              + ": of "
              + e.design()
              + " rev "
              + String.join(", ", e.revisions()));
    }
    Stand said = said(e, revision, s);
    return said.state() == State.NEEDED ? needed(e, revision, s, said) : said;
  }

  private static Stand none(String why) {
    return new Stand(State.NOT_NEEDED, why, 0, 0);
  }

  /// As the book of the board has it, oldest entry first.
  private static Stand said(Erratum e, Revision revision, BoardState s) {
    Stand now = new Stand(State.NEEDED, "not mended yet", 0, 0);
    Set<String> parts = new HashSet<>(e.parts(revision));
    Optional<Proof> shows = e.shows();
    for (Logged l : s.standing()) {
      if (l.entry() instanceof Entry.Bodge b && b.id().equals(e.id())) {
        now = said(b, l.number(), now);
      } else if (now.state() == State.NEEDED
          && l.entry() instanceof Entry.Action a
          && !e.bodge().isEmpty()
          && ErratumMaker.steps(a, revision).equals(e.bodge())) {
        // it was mended before anybody had written the erratum down
        now = new Stand(State.DONE, a.place() + " " + a.action() + ": " + a.text(), l.number(), 0);
      } else if (now.state() == State.DONE || now.state() == State.PROVED) {
        Optional<Verdict> seen = shows.flatMap(p -> p.seen(l.entry()));
        if (seen.isPresent()) {
          now = seen(now, seen.get(), shows.get(), l.number());
        } else if (now.state() == State.PROVED
            && l.entry() instanceof Entry.Action a
            && a.heat()
            && !a.action().equals("bodged")
            && parts.contains(BodgeStep.part(a.place(), revision))) {
          now =
              new Stand(
                  State.DONE,
                  a.place() + " was " + a.action() + " since: prove it again",
                  l.number(),
                  now.minutes());
        }
      }
    }
    return now;
  }

  private static Stand said(Entry.Bodge b, long number, Stand before) {
    String text = b.text().isEmpty() ? "" : ": " + b.text();
    return switch (b.what()) {
      case "done" -> new Stand(State.DONE, "done" + text, number, b.minutes());
      case "proved" -> new Stand(State.PROVED, "proved" + text, number, before.minutes());
      case "not-needed" -> new Stand(State.NOT_NEEDED, "not needed" + text, number, 0);
      default -> new Stand(State.NEEDED, "undone" + text, number, 0, true);
    };
  }

  private static Stand seen(Stand now, Verdict v, Proof p, long number) {
    return switch (v) {
      case WITHIN -> new Stand(State.PROVED, p.text() + " is within", number, now.minutes());
      case OUT ->
          new Stand(
              State.DONE, p.text() + " is out: it does not hold", number, now.minutes(), true);
      case CLOSE ->
          new Stand(State.DONE, p.text() + " is too close to call", number, now.minutes());
    };
  }

  /// A board whose part is not there, or has had its heat, is told apart.
  private static Stand needed(Erratum e, Revision revision, BoardState s, Stand now) {
    List<String> at = e.parts(revision);
    List<Part> there =
        at.stream().flatMap(p -> revision.part(p).stream()).filter(Part::fitted).toList();
    boolean adds =
        e.bodge().stream()
            .anyMatch(b ->
                b.kind() == BodgeStep.Kind.ADD
                    || b.kind() == BodgeStep.Kind.FIT
                    || b.kind() == BodgeStep.Kind.DO);
    if (!at.isEmpty() && there.isEmpty() && !adds) {
      return none(String.join(", ", at) + " is not fitted on this board");
    }
    Map<String, Integer> had = HeatFacts.of(s).heatCycles();
    for (Map.Entry<String, Integer> h : e.heats(revision).entrySet()) {
      int before = had.getOrDefault(h.getKey(), 0);
      int most = revision.part(h.getKey()).map(p -> HeatBudget.limit(revision, p)).orElse(3);
      // a part that is replaced comes new
      boolean comes =
          e.bodge().stream()
              .anyMatch(b -> b.kind() == BodgeStep.Kind.REPLACE && b.places().contains(h.getKey()));
      // one that is not on the board yet is heated once when it is
      if (!comes && before + h.getValue() > most) {
        return new Stand(
            State.CANNOT,
            h.getKey()
                + " was heated "
                + before
                + (before == 1 ? " time" : " times")
                + " and takes "
                + most
                + ": the bodge would be "
                + h.getValue()
                + " more",
            now.entry(),
            0);
      }
    }
    return now;
  }
}
