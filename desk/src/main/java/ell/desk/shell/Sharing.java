package ell.desk.shell;

import ell.book.Shared;
import ell.core.entry.EntryWords;
import ell.work.Workshop;
import ell.work.share.Hands;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;
import java.util.Set;

/// What the desk does about other benches: hears what they do, shows who has which board in hand,
/// and hands over. A workspace that is a file has one bench, and nothing of this.
public final class Sharing {
  private final DeskModel desk;

  // used on the worker only
  private String role = "";

  Sharing(DeskModel desk) {
    this.desk = desk;
  }

  /// Begins to hear of others, when there can be any. Runs on the worker.
  void begin(Workshop w) {
    role = "";
    w.space().told(desk::say);
    w.book()
        .shared()
        .ifPresent(s ->
            s.listen(
                new Shared.Listener() {
                  @Override
                  public void boards(Set<String> boards) {
                    desk.act(x -> x.space().others(boards));
                  }

                  @Override
                  public void everything() {
                    desk.act(x -> {
                      x.space().notes();
                      x.space().refresh();
                    });
                  }
                }));
  }

  /// The benches as they stand. Runs on the worker.
  Optional<Benches> now(Workshop w) throws IOException {
    Optional<Shared> shared = w.book().shared();
    if (shared.isEmpty()) {
      return Optional.empty();
    }
    Shared s = shared.get();
    if (role.isEmpty() && !s.away()) {
      role = s.role();
    }
    w.space().notes();
    return Optional.of(
        new Benches(
            s.bench(),
            w.book().place().typed(),
            role,
            s.since(),
            s.leases().stream()
                .map(l ->
                    new Benches.Held(
                        l.board(), l.bench(), l.person(), Hands.clock(l.until()), l.words()))
                .toList(),
            s.waiting().stream()
                .map(x -> new Benches.Waits(x.board(), EntryWords.of(x.entry()), x.conflict()))
                .toList()));
  }

  private interface Deed {
    void on(Hands hands) throws IOException, ActException;
  }

  private void act(Deed deed) {
    desk.act(w -> deed.on(new Hands(w)));
  }

  private static Optional<String> words(String why) {
    return Optional.of(why).filter(x -> !x.isBlank());
  }

  /// Takes a board in hand; with words also from another bench.
  public void take(String board, String why) {
    act(h -> h.take(board, words(why)));
  }

  /// Hands a board over to a bench.
  public void handOver(String board, String bench, String why) {
    act(h -> h.handOver(board, bench, words(why)));
  }

  /// Lays a board down.
  public void layDown(String board) {
    act(h -> h.layDown(board));
  }

  /// Writes what waits of a board behind what others wrote.
  public void keep(String board, String why) {
    act(h -> h.keep(board, words(why)));
  }

  /// Lays aside what waits of a board.
  public void layAside(String board, String why) {
    act(h -> h.layAside(board, words(why)));
  }
}
