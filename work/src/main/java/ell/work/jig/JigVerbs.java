package ell.work.jig;

import ell.core.entry.Entry;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.List;
import java.util.Locale;

/// Words of the tape about jigs.
public final class JigVerbs {
  private static final int MOST = 1_000_000;

  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.first(
                  "jig",
                  "jig SERIAL built, closed [N], check good, check open NET, check short NET NET,"
                      + " probe NET or retired",
                  "a jig that was built for this revision, closed over this board, checked on a"
                      + " bare plate, given another probe, or is no longer used",
                  JigVerbs::jig,
                  "jig J1 built",
                  "jig J1 closed",
                  "jig J1 check open 3V3",
                  "jig J1 probe 3V3")
              .offering(_ -> List.of("J1 closed", "J1 check good", "J1 built"))
              .of(Stage.JIG));

  private JigVerbs() {}

  private static Meaning jig(Said said) {
    String[] w = said.words();
    if (w.length < 2) {
      return Meaning.unfinished(
          "the serial number of the jig, then built, closed, check, probe or retired");
    }
    String jig = w[0];
    if (!jig.matches("[A-Za-z0-9_-]{1,12}")) {
      return Meaning.wrong(
          "a jig has a serial number of up to 12 letters, digits, - or _, found '" + jig + "'");
    }
    return switch (w[1].toLowerCase(Locale.ROOT)) {
      case "built" -> ready(jig, "built", "", 1, true, said.plan().revision().title());
      case "closed" -> closed(jig, w);
      case "check", "checked" -> checked(said, jig, w);
      case "probe" ->
          w.length < 3
              ? Meaning.unfinished("the net of the probe")
              : net(said, w[2])
                  ? ready(jig, "probe", w[2], 1, true, "")
                  : Meaning.wrong("no net '" + w[2] + "' in " + said.plan().revision().title());
      case "retired" -> ready(jig, "retired", "", 1, true, "");
      default ->
          Meaning.wrong("a jig is built, closed, check, probe or retired, found '" + w[1] + "'");
    };
  }

  private static Meaning ready(
      String jig, String what, String place, int count, boolean good, String text) {
    return Meaning.ready(new Entry.Jig(jig, what, place, count, good, text));
  }

  private static Meaning closed(String jig, String[] w) {
    int n = 1;
    if (w.length > 2) {
      if (!w[2].matches("\\d{1,7}")
          || Integer.parseInt(w[2]) < 1
          || Integer.parseInt(w[2]) > MOST) {
        return Meaning.wrong("closings are 1 to " + MOST + ", found '" + w[2] + "'");
      }
      n = Integer.parseInt(w[2]);
    }
    return ready(jig, "closed", "", n, true, "");
  }

  private static boolean net(Said said, String name) {
    return !said.plan().revision().net(name).isEmpty();
  }

  private static Meaning checked(Said said, String jig, String[] w) {
    String how = w.length > 2 ? w[2].toLowerCase(Locale.ROOT) : "";
    int nets =
        switch (how) {
          case "good" -> 0;
          case "open" -> 1;
          case "short" -> 2;
          default -> -1;
        };
    if (nets < 0) {
      return how.isEmpty()
          ? Meaning.unfinished("good, open NET or short NET NET")
          : Meaning.wrong("a check is good, open NET or short NET NET, found '" + w[2] + "'");
    }
    if (w.length < 3 + nets) {
      return Meaning.unfinished(nets == 1 ? "the net" : "the two nets");
    }
    for (int i = 3; i < 3 + nets; i++) {
      if (!net(said, w[i])) {
        return Meaning.wrong("no net '" + w[i] + "' in " + said.plan().revision().title());
      }
    }
    String place = nets == 0 ? "" : nets == 1 ? w[3] : w[3] + " " + w[4];
    return ready(jig, "checked", place, 1, nets == 0, nets == 0 ? "" : how);
  }
}
