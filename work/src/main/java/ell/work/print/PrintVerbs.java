package ell.work.print;

import ell.core.entry.Entry;
import ell.core.entry.JarMove;
import ell.core.entry.PasteLook;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Tape;
import ell.work.tape.Verb;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/// Words of the tape about paste and its jars.
public final class PrintVerbs {
  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.first(
                  "printed",
                  "printed SIDE [wiped] [jar CODE]",
                  "a print; its step of the order is done with it, and the jar that is open is meant"
                      + " where none is named",
                  PrintVerbs::printed,
                  "printed first wiped jar PASTE-SAC3",
                  "printed second jar none")
              .offering(_ -> List.of("first", "second", "first wiped", "second wiped"))
              .of(Stage.PRINT),
          Verb.at(
                  "paste",
                  "PLACE paste LOOK",
                  "how the paste lies there: " + looks(),
                  PrintVerbs::paste,
                  "U4.13 paste thin")
              .offering(_ -> Arrays.stream(PasteLook.values()).map(PasteLook::key).toList())
              .of(Stage.PRINT),
          Verb.first(
                  "jar",
                  "jar CODE MOVE [WHY]",
                  "a jar of paste that was moved: " + moves(),
                  PrintVerbs::jar,
                  "jar PASTE-SAC3 open")
              .offering(t -> t.known().jars().stream().map(j -> j + " ").toList())
              .of(Stage.PRINT));

  private PrintVerbs() {}

  private static String looks() {
    return Arrays.stream(PasteLook.values()).map(PasteLook::key).collect(Collectors.joining(", "));
  }

  private static String moves() {
    return Arrays.stream(JarMove.values()).map(JarMove::key).collect(Collectors.joining(", "));
  }

  private static Meaning printed(Said said) {
    String[] words = said.words();
    if (words.length == 0 || !words[0].matches("(?i)first|second")) {
      return Meaning.unfinished("the side: first or second, then wiped if it was, and jar CODE");
    }
    boolean wiped = false;
    String jar = "";
    for (int i = 1; i < words.length; i++) {
      if (words[i].equalsIgnoreCase("wiped")) {
        wiped = true;
      } else if (words[i].equalsIgnoreCase("jar") && i + 1 < words.length) {
        jar = code(said.tape(), words[++i]);
      } else {
        return Meaning.wrong("expected wiped or jar CODE, found '" + words[i] + "'");
      }
    }
    return Meaning.ready(new Entry.Printed(words[0].toLowerCase(Locale.ROOT), wiped, jar));
  }

  private static String code(Tape tape, String typed) {
    return tape.known().jars().stream()
        .filter(j -> j.equalsIgnoreCase(typed))
        .findFirst()
        .orElse(typed);
  }

  private static Meaning jar(Said said) {
    String[] words = said.rest().split("\\s+", 3);
    if (words.length < 2) {
      return Meaning.unfinished(
          "the jar and what was done: "
              + moves()
              + (said.tape().known().jars().isEmpty()
                  ? ""
                  : "; there is " + String.join(", ", said.tape().known().jars())));
    }
    Optional<JarMove> move = JarMove.of(words[1].toLowerCase(Locale.ROOT));
    return move.isEmpty()
        ? Meaning.wrong("a jar is " + moves() + ", found '" + words[1] + "'")
        : Meaning.ready(
            new Entry.Jar(
                code(said.tape(), words[0]), move.get(), words.length > 2 ? words[2] : ""));
  }

  private static Meaning paste(Said said) {
    Optional<PasteLook> look = PasteLook.of(said.rest().toLowerCase(Locale.ROOT));
    return look.isEmpty()
        ? Meaning.unfinished("how the paste lies: " + looks())
        : Meaning.ready(new Entry.PasteSeen(said.place(), look.get()));
  }
}
