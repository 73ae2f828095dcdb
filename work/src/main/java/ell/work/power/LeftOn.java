package ell.work.power;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.PowerFacts;
import ell.work.space.Workspace;
import java.io.IOException;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// A board whose output may be on, as far as the book knows: it was about to be switched on, or was
/// told to go off, and nothing after that confirms that it is off.
///
/// @param board serial
/// @param entry the last that says something of the supply
public record LeftOn(String board, Logged entry) {
  /// All of them, of every build. What a run in hand has switched on is among them.
  public static List<LeftOn> of(Workspace space) throws IOException {
    List<LeftOn> all = new ArrayList<>();
    for (Build b : space.book().builds()) {
      for (String board : b.boards()) {
        BoardState s = space.state(board);
        if (PowerFacts.of(s).mayBeOn()) {
          Logged last =
              s.standing().stream()
                  .filter(l -> l.entry() instanceof Entry.Supply)
                  .reduce((_, x) -> x)
                  .orElseThrow();
          all.add(new LeftOn(board, last));
        }
      }
    }
    return all;
  }

  private static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss", Locale.ROOT);

  /// What is said of it before anything else, in the largest letters.
  public String headline() {
    return "THE OUTPUT MAY BE ON";
  }

  /// Since when, and what to do.
  public String detail() {
    return "Board "
        + board
        + ", since "
        + entry.at().format(TIME)
        + ". Switch the supply off by hand, then log: off";
  }

  /// Both in one line.
  public String words() {
    return headline() + ": " + detail();
  }
}
