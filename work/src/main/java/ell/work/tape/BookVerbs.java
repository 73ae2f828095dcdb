package ell.work.tape;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import java.util.List;
import java.util.Optional;

/// Words of the tape that belong to the book and to no stage.
public final class BookVerbs {
  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.first(
              "note",
              "note TEXT",
              "free words",
              s ->
                  s.rest().isEmpty()
                      ? Meaning.unfinished("the words to note")
                      : Meaning.ready(new Entry.Note(s.rest())),
              "note the jar was warm",
              "U4 looks dull"),
          Verb.first(
                  "override",
                  "override RULE WHY",
                  "a rule of the work set aside for this board, with the reason",
                  BookVerbs::override,
                  "override power I measured it")
              .offering(t -> t.known().rules().stream().map(r -> r + " ").toList()),
          Verb.first(
              "strike",
              "strike N [WHY]",
              "an entry taken back",
              BookVerbs::strike,
              "strike 12 wrong board"),
          Verb.first(
              "hands",
              "hands NAME [helper]",
              "who is at the bench from here on; a helper goes through what the maker has shown",
              BookVerbs::hands,
              "hands Ada",
              "hands Ben helper"));

  private BookVerbs() {}

  private static Meaning hands(Said s) {
    boolean helper = s.rest().endsWith(" helper");
    String who = helper ? s.rest().substring(0, s.rest().lastIndexOf(' ')).strip() : s.rest();
    return who.isEmpty() || who.equals("helper")
        ? Meaning.unfinished("who is at the bench")
        : Meaning.ready(new Entry.Operator(who, helper));
  }

  private static Meaning override(Said s) {
    String[] words = s.two();
    List<String> rules = s.tape().known().rules();
    if (!rules.contains(words[0])) {
      return Meaning.unfinished(
          "the rule (" + String.join(" or ", rules) + "), and why it is set aside");
    }
    return words[1].isEmpty()
        ? Meaning.unfinished("why the rule " + words[0] + " is set aside")
        : Meaning.ready(new Entry.Override(words[0], words[1]));
  }

  private static Meaning strike(Said s) {
    String[] words = s.two();
    if (!words[0].matches("\\d{1,15}")) {
      return Meaning.unfinished("the number of the entry to strike, and why");
    }
    long number = Long.parseLong(words[0]);
    Optional<Logged> target = s.log().stream().filter(l -> l.number() == number).findFirst();
    if (target.isEmpty()) {
      return Meaning.wrong("this board has no entry " + number);
    }
    if (BoardState.struck(s.log()).contains(number)) {
      return Meaning.wrong("entry " + number + " is struck already");
    }
    return new Meaning.Ready(
        List.of(new Entry.Strike(number, words[1])),
        "strikes " + number + ": " + EntryWords.of(target.get().entry()));
  }
}
