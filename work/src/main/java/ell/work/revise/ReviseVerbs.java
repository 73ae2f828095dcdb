package ell.work.revise;

import ell.core.entry.Entry;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.core.revise.Errata;
import ell.core.revise.Severity;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Words of the tape about mistakes of revisions, bodges, decisions and stacks.
public final class ReviseVerbs {
  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.first(
                  "erratum",
                  "erratum [from N] [TITLE], or erratum ID WHAT WORDS",
                  "a mistake of the revision: alone, from what was found last on this board; from N,"
                      + " from that entry; or something said of one: "
                      + String.join(", ", Errata.SAYS),
                  ReviseVerbs::erratum,
                  "erratum",
                  "erratum from 12",
                  "erratum U6.7 hangs on the supply",
                  "erratum E1 bodge lift U6.7; wire U6.7 GND",
                  "erratum E1 severity harm",
                  "erratum E1 closed it was the firmware")
              .offering(_ -> List.of("from "))
              .of(Stage.REVISE),
          Verb.first(
                  "wish",
                  "wish [from N] [WORDS]",
                  "something that the next revision should have; no board is mended for it",
                  ReviseVerbs::wish,
                  "wish test points on the second side",
                  "wish from 12")
              .of(Stage.REVISE),
          Verb.first(
                  "bodge",
                  "bodge ID [done, proved, undone or not-needed] [MINUTES min] [WORDS]",
                  "how this board stands to an erratum; done heats the parts that its bodge heats",
                  ReviseVerbs::bodge,
                  "bodge E1",
                  "bodge E1 done 12 min",
                  "bodge E1 not-needed the part is left off")
              .of(Stage.REVISE),
          Verb.first(
                  "decided",
                  "decided [ID] rework, respin or wait WHY",
                  "what is done about the boards that are left; the numbers of now are kept with it",
                  ReviseVerbs::decided,
                  "decided rework nine boards are wanted by Friday")
              .offering(_ -> List.of("rework ", "respin ", "wait "))
              .of(Stage.REVISE),
          Verb.first(
                  "stack",
                  "stack NAME with BOARD, BOARD or WORDS: works, fails or unsettled [WORDS]",
                  "this board was tried together with others; it stands in the book of each",
                  ReviseVerbs::stack,
                  "stack station with S01, field cable: works over night")
              .of(Stage.REVISE));

  private static final Pattern FROM = Pattern.compile("(?i)from\\s+(\\d{1,15})\\s*(.*)");
  private static final Pattern ID = Pattern.compile("(?i)E\\d{1,9}");
  private static final Pattern MINUTES =
      Pattern.compile("(?i)(\\d{1,5}(?:\\.\\d+)?)\\s*min(?:utes)?\\b\\s*(.*)");
  private static final Pattern STACK =
      Pattern.compile("(?i)(\\S+)\\s+with\\s+(.+?)\\s*:\\s*(works|fails|unsettled)\\b[,\\s]*(.*)");

  private ReviseVerbs() {}

  private static Meaning erratum(Said s) {
    String rest = s.rest().strip();
    String[] two = rest.split("\\s+", 2);
    if (ID.matcher(two[0]).matches()) {
      return said(two[0].toUpperCase(Locale.ROOT), two.length > 1 ? two[1] : "");
    }
    return written(rest, Severity.FAILS);
  }

  private static Meaning wish(Said s) {
    String rest = s.rest().strip();
    return rest.isEmpty()
        ? Meaning.unfinished("what the next revision should have")
        : written(rest, Severity.WISH);
  }

  /// An erratum that is completed when it is logged.
  private static Meaning written(String rest, Severity severity) {
    Matcher m = FROM.matcher(rest);
    boolean from = m.matches();
    if (rest.equalsIgnoreCase("from")) {
      return Meaning.unfinished("the number of the entry that taught it");
    }
    return Meaning.ready(
        new Entry.Erratum(
            "",
            from ? m.group(2).strip() : rest,
            "",
            List.of(),
            "",
            List.of(),
            severity == Severity.WISH ? severity.key() : "",
            List.of(),
            "",
            "",
            from ? List.of(Long.valueOf(m.group(1))) : List.of()));
  }

  private static Meaning said(String id, String rest) {
    String[] two = rest.strip().split("\\s+", 2);
    String what = two[0].toLowerCase(Locale.ROOT);
    String text = two.length > 1 ? two[1].strip() : "";
    if (!Errata.SAYS.contains(what)) {
      return rest.isBlank()
          ? Meaning.unfinished(String.join(", ", Errata.SAYS) + ", then the words")
          : Meaning.wrong(
              "of an erratum is said "
                  + String.join(", ", Errata.SAYS)
                  + ", found '"
                  + two[0]
                  + "'");
    }
    boolean bare =
        what.equals("open") || what.equals("proof") || what.equals("fix") || what.equals("fault");
    return text.isEmpty() && !bare
        ? Meaning.unfinished(what.equals("closed") ? "why it is closed" : "the words")
        : Meaning.ready(new Entry.ErratumSaid(id, what, text));
  }

  private static Meaning bodge(Said s) {
    String[] w = s.rest().strip().split("\\s+", 2);
    if (w[0].isEmpty()) {
      return Meaning.unfinished("the erratum, such as E1");
    }
    if (!ID.matcher(w[0]).matches()) {
      return Meaning.wrong("an erratum is named E1, E2 ..., found '" + w[0] + "'");
    }
    String rest = w.length > 1 ? w[1].strip() : "";
    String what = "done";
    Matcher not = Pattern.compile("(?i)not[- ]needed\\b\\s*(.*)").matcher(rest);
    if (not.matches()) {
      what = "not-needed";
      rest = not.group(1);
    } else {
      for (String x : List.of("done", "proved", "undone")) {
        if (rest.toLowerCase(Locale.ROOT).matches(x + "\\b.*")) {
          what = x;
          rest = rest.substring(x.length()).strip();
          break;
        }
      }
    }
    double minutes = 0;
    Matcher m = MINUTES.matcher(rest);
    if (m.matches()) {
      minutes = Double.parseDouble(m.group(1));
      rest = m.group(2);
    }
    if (rest.isBlank() && (what.equals("not-needed") || what.equals("proved"))) {
      return Meaning.unfinished(what.equals("proved") ? "what shows it" : "why it is not needed");
    }
    return Meaning.ready(
        new Entry.Bodge(w[0].toUpperCase(Locale.ROOT), what, minutes, rest.strip()));
  }

  private static Meaning decided(Said s) {
    List<String> w = new ArrayList<>(Arrays.asList(s.rest().strip().split("\\s+")));
    String about = "";
    if (ID.matcher(w.getFirst()).matches()) {
      about = w.removeFirst().toUpperCase(Locale.ROOT);
    }
    String choice = w.isEmpty() ? "" : w.removeFirst().toLowerCase(Locale.ROOT);
    if (!List.of("rework", "respin", "wait").contains(choice)) {
      return choice.isEmpty()
          ? Meaning.unfinished("rework, respin or wait, and why")
          : Meaning.wrong("decided is rework, respin or wait, found '" + choice + "'");
    }
    return w.isEmpty()
        ? Meaning.unfinished("why: later it is held against what happened")
        : Meaning.ready(
            new Entry.Decision(about, choice, new LinkedHashMap<>(), String.join(" ", w)));
  }

  private static Meaning stack(Said s) {
    Matcher m = STACK.matcher(s.rest().strip());
    if (!m.matches()) {
      return Meaning.unfinished(
          "its name, with, the other boards between commas, a colon, then works, fails or unsettled");
    }
    List<String> members = new ArrayList<>(List.of(s.state().board()));
    for (String one : m.group(2).split(",")) {
      String name = one.strip();
      if (!name.isEmpty() && !members.contains(name)) {
        members.add(name);
      }
    }
    if (members.size() < 2) {
      return Meaning.wrong("a stack has another board, or words for what is not of this workspace");
    }
    Verdict v =
        switch (m.group(3).toLowerCase(Locale.ROOT)) {
          case "works" -> Verdict.WITHIN;
          case "fails" -> Verdict.OUT;
          default -> Verdict.CLOSE;
        };
    return Meaning.ready(new Entry.Stack(m.group(1), members, v, m.group(4).strip()));
  }
}
