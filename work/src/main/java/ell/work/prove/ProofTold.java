package ell.work.prove;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.power.PowerFacts;
import ell.core.prove.ProveFacts;
import ell.core.quantity.Verdict;
import ell.work.power.Helping;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What is told of a board after its proof: one word that reads across the room, and what to do.
///
/// @param word in capitals
/// @param todo a sentence
/// @param ticket what goes with a board that is put aside, with the numbers of the entries
/// @param wrong whether something is wrong
public record ProofTold(String word, String todo, List<String> ticket, boolean wrong) {
  public ProofTold {
    ticket = List.copyOf(ticket);
  }

  /// What is told, empty before the first proof.
  public static Optional<ProofTold> of(BoardState s) {
    ProveFacts f = ProveFacts.of(s);
    boolean helped = Helping.at(s).isPresent();
    if (f.runs().isEmpty()) {
      return Optional.empty();
    }
    if (PowerFacts.of(s).mayBeOn() && f.open().isEmpty()) {
      return Optional.of(
          new ProofTold(
              "PLUG OUT",
              "pull the plug of the supply, touch nothing else"
                  + (helped ? ", and call the maker" : ", then log: off"),
              ticket(s, f),
              true));
    }
    if (f.open().isPresent()) {
      return Optional.of(
          new ProofTold(
              "GO ON",
              "the proof of board "
                  + s.board()
                  + " was cut off: begin it again, it goes on where it was",
              List.of(),
              false));
    }
    Verdict v = f.lastEnded().orElseThrow().verdict().orElseThrow();
    return Optional.of(
        switch (v) {
          case WITHIN ->
              new ProofTold(
                  s.findings().isEmpty() ? "PASS" : "PUT ASIDE",
                  s.findings().isEmpty()
                      ? "take the next board"
                      : "its proof passed, and something older is open",
                  s.findings().isEmpty() ? List.of() : ticket(s, f),
                  !s.findings().isEmpty());
          case CLOSE ->
              new ProofTold(
                  "ASK",
                  "board "
                      + s.board()
                      + " is neither good nor bad yet"
                      + (helped ? ": call the maker" : ": settle what is named"),
                  ticket(s, f),
                  false);
          case OUT ->
              new ProofTold(
                  "PUT ASIDE",
                  "board "
                      + s.board()
                      + (helped ? " goes to the maker, with its ticket" : " failed"),
                  ticket(s, f),
                  true);
        });
  }

  private static List<String> ticket(BoardState s, ProveFacts f) {
    List<String> all = new ArrayList<>();
    s.findings().forEach(x -> all.add("entry " + x.number() + ": " + x.place() + " " + x.what()));
    f.last()
        .ifPresent(r ->
            r.steps().stream()
                .filter(l -> unsettled((Entry.ProofStep) l.entry()))
                .limit(6)
                .forEach(l -> {
                  Entry.ProofStep p = (Entry.ProofStep) l.entry();
                  all.add(
                      "entry "
                          + l.number()
                          + ": "
                          + p.name()
                          + (p.left() ? " left out, " : " not settled")
                          + (p.left() || p.words().isEmpty() ? "" : ", ")
                          + p.words());
                }));
    return all;
  }

  private static boolean unsettled(Entry.ProofStep p) {
    return p.left() || p.verdict().isEmpty() || p.verdict().get() == Verdict.CLOSE;
  }
}
