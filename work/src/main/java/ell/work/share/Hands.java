package ell.work.share;

import ell.book.BookException;
import ell.book.Lease;
import ell.book.Shared;
import ell.book.Waiting;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Optional;

/// Which bench has which board in hand, and what waits of a bench. Handing over and settling are
/// logged on the board, with the words that were said.
public final class Hands {
  private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm");

  private final Workshop w;
  private final Shared shared;

  /// @throws ActException when the workspace is a file, which has one bench
  public Hands(Workshop w) throws ActException {
    this.w = w;
    this.shared =
        w.book()
            .shared()
            .orElseThrow(() ->
                new ActException(
                    w.book().place() + " is a file, and has one bench; to share it, see: move"));
  }

  /// What the benches share.
  public Shared shared() {
    return shared;
  }

  /// A time as the bench's clock shows it.
  public static String clock(OffsetDateTime t) {
    return t.atZoneSameInstant(ZoneId.systemDefault()).format(CLOCK);
  }

  private Optional<Lease> holder(String board) throws BookException {
    return shared.leases().stream().filter(l -> l.board().equals(board)).findFirst();
  }

  /// Takes a board in hand.
  ///
  /// @param why needed when another bench has it
  public void take(String board, Optional<String> why) throws IOException, ActException {
    w.space().buildOf(board);
    Optional<Lease> now = holder(board).filter(l -> !l.bench().equals(shared.bench()));
    if (now.isEmpty()) {
      shared.take(board);
      return;
    }
    over(board, shared.bench(), now, words(why, now));
  }

  /// Lays a board down.
  public void layDown(String board) throws IOException, ActException {
    w.space().buildOf(board);
    Optional<Lease> now = holder(board);
    if (now.isEmpty() || !now.get().bench().equals(shared.bench())) {
      throw new ActException(
          "board "
              + board
              + now.map(l -> " is in hand at bench " + l.bench()).orElse(" is in nobody's hand"));
    }
    shared.layDown(board);
  }

  /// Gives a board to another bench, with words.
  public void handOver(String board, String bench, Optional<String> why)
      throws IOException, ActException {
    w.space().buildOf(board);
    if (!bench.matches("[\\p{L}\\p{N}][\\p{L}\\p{N} ._-]{0,39}")) {
      throw new ActException(
          "a bench has a name of up to 40 letters and digits, found '" + bench + "'");
    }
    Optional<Lease> now = holder(board);
    over(board, bench, now, words(why, now));
  }

  private static String words(Optional<String> why, Optional<Lease> now) throws ActException {
    return why.map(String::strip)
        .filter(s -> !s.isEmpty())
        .orElseThrow(() ->
            new ActException(
                now.map(l ->
                        "board "
                            + l.board()
                            + " is in hand at bench "
                            + l.bench()
                            + " ("
                            + l.person()
                            + ") until "
                            + clock(l.until())
                            + "; ")
                        .orElse("")
                    + "a board is handed over with words, with: --why WORDS"));
  }

  private void over(String board, String bench, Optional<Lease> from, String why)
      throws IOException, ActException {
    String words =
        "in hand at bench "
            + bench
            + from.map(l -> " now, before at " + l.bench() + " (" + l.person() + ")").orElse(" now")
            + ": "
            + why;
    // as its own for a moment: only who has a board in hand writes on it
    shared.handOver(board, shared.bench(), why);
    w.log(board, List.of(new Entry.Note(words))).orThrow();
    if (!bench.equals(shared.bench())) {
      shared.handOver(board, bench, why);
    }
  }

  /// Takes over what waits of a board, behind what others wrote on it.
  public void keep(String board, Optional<String> why) throws IOException, ActException {
    List<Waiting> was = waiting(board);
    String words = said(why);
    shared.keep(board);
    w.space().refresh();
    note(
        board,
        was.size()
            + " entries of bench "
            + shared.bench()
            + " that were written while the server did not answer stand behind what others wrote: "
            + words);
  }

  /// Lays aside what waits of a board.
  public void layAside(String board, Optional<String> why) throws IOException, ActException {
    waiting(board);
    String words = said(why);
    List<Waiting> gone = shared.layAside(board, words);
    w.space().refresh();
    note(
        board,
        "laid aside at bench "
            + shared.bench()
            + ", written while the server did not answer: "
            + String.join("; ", gone.stream().map(x -> EntryWords.of(x.entry())).limit(10).toList())
            + (gone.size() > 10 ? "; and " + (gone.size() - 10) + " more" : "")
            + ". "
            + words);
  }

  private void note(String board, String words) throws IOException, ActException {
    // belongs to the board, and may be written by a bench that does not have it in hand
    boolean free = holder(board).map(l -> l.bench().equals(shared.bench())).orElse(true);
    w.log(
            free ? board : "",
            List.of(new Entry.Note(free ? words : "board " + board + ": " + words)))
        .orThrow();
  }

  private List<Waiting> waiting(String board) throws IOException, ActException {
    List<Waiting> all = shared.waiting().stream().filter(x -> x.board().equals(board)).toList();
    if (all.isEmpty()) {
      throw new ActException("nothing waits of board '" + board + "'");
    }
    return all;
  }

  private static String said(Optional<String> why) throws ActException {
    return why.map(String::strip)
        .filter(s -> !s.isEmpty())
        .orElseThrow(() -> new ActException("say why, with: --why WORDS"));
  }
}
