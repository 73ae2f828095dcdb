package ell.work.talk;

import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.rack.Plan;
import ell.core.talk.Identity;
import ell.core.talk.Memory;
import ell.core.talk.Script;
import ell.work.act.Acts;
import ell.work.act.Refusal;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/// Writes a board's number into its memory and reads it back; one that holds the number of another
/// board is left alone.
final class NumberWriting {
  private static final Optional<String> A_LINE = Optional.of("[^\\r\\n]+[\\r\\n]");

  private final Acts acts;
  private final Plan plan;
  private final String board;

  NumberWriting(Acts acts, Plan plan, String board) {
    this.acts = acts;
    this.plan = plan;
    this.board = board;
  }

  /// What is logged once the number was read back.
  Entry.Knows entry() {
    return new Entry.Knows(
        plan.talk().memory().map(Memory::part).orElse("memory"), board, plan.revision().name());
  }

  Hearing.Outcome write(Script.Act.Write w, Hearing h, double within)
      throws IOException, ActException, InterruptedException {
    Optional<Refusal> no = acts.refusal(board, List.of(entry()));
    if (no.isPresent()) {
      return new Hearing.Outcome(false, no.get().text());
    }
    Hearing.Outcome before = h.say(w.read(), A_LINE, within);
    Optional<String> other = otherNumber(before.got());
    if (other.isPresent()) {
      return new Hearing.Outcome(
          false, "its memory holds the number of board " + other.get() + ": which board is this?");
    }
    h.say(filled(w.write()), A_LINE, within);
    Hearing.Outcome o = readBack(w, h, within);
    if (!o.good() && o.got().equals(Hearing.NOTHING)) {
      return o;
    }
    if (!o.good()) {
      Optional<String> protect =
          plan.talk().memory().map(Memory::protect).filter(p -> !p.isEmpty());
      return new Hearing.Outcome(
          false,
          "it reads back '"
              + o.got()
              + "': the number was not kept"
              + protect.map(p -> "; is " + p + " still protecting it?").orElse(""));
    }
    return new Hearing.Outcome(true, o.got().strip());
  }

  private Hearing.Outcome readBack(Script.Act.Write w, Hearing h, double within)
      throws BenchException, InterruptedException {
    String serial = "(?<![A-Za-z0-9])" + Pattern.quote(board) + "(?![A-Za-z0-9])";
    return h.say(w.read(), Optional.of(serial + "[^\\r\\n]*[\\r\\n]"), within);
  }

  private String filled(String template) {
    return template.contains("{identity}")
        ? template.replace(
            "{identity}",
            HexFormat.of().formatHex(new Identity(board, plan.revision().name()).bytes()))
        : template;
  }

  /// Another board whose number stands in what a memory says.
  private Optional<String> otherNumber(String says) throws IOException {
    for (String w : says.strip().split("[\\s,;:=]+")) {
      for (String b : acts.boards()) {
        if (!b.equals(board) && b.equals(w)) {
          return Optional.of(b);
        }
      }
    }
    return Optional.empty();
  }
}
