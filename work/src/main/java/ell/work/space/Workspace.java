package ell.work.space;

import ell.book.Book;
import ell.book.BookException;
import ell.book.Build;
import ell.book.Place;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;

/// The ground that everything stands on: the book, the entries of boards and the states folded from
/// them, kept until they change, and those who want to hear of a change. It knows of no stage. Safe
/// for several threads.
public final class Workspace implements AutoCloseable {
  /// What a practice says of itself is kept with the workspace under this name.
  public static final String PRACTICE = "practice";

  private final Book book;
  private final Clock clock;
  private final Map<String, List<Logged>> entries = new HashMap<>();
  private final Map<String, BoardState> states = new HashMap<>();
  private Consumer<String> say = _ -> {};
  private final List<Listener> listeners = new CopyOnWriteArrayList<>();

  /// What changed.
  public sealed interface Change {
    /// Entries of a board were logged.
    record Board(String board) implements Change {}

    /// Files of a revision, its ladder, or how its order is wished were kept.
    record Revision(String design, String name) implements Change {}

    /// The shelf was put in place of the one before.
    record Shelf() implements Change {}

    /// Another program may have written: everything that was kept in memory is forgotten.
    record Everything() implements Change {}
  }

  /// Is told of changes, on the thread that made them.
  public interface Listener {
    /// Something changed; what was worked out from it is to be forgotten.
    void changed(Change change);
  }

  private Workspace(Book book, Clock clock) {
    this.book = book;
    this.clock = clock;
  }

  /// Makes a new workspace.
  public static Workspace create(Place place, Clock clock) throws BookException {
    return new Workspace(Book.create(place, clock), clock);
  }

  /// Opens a workspace for writing.
  public static Workspace open(Place place, Clock clock) throws BookException {
    return new Workspace(Book.open(place, clock), clock);
  }

  /// Opens a workspace to look at it only.
  public static Workspace look(Place place) throws BookException {
    return new Workspace(Book.openReadOnly(place), Clock.systemDefaultZone());
  }

  /// Makes a new workspace file.
  public static Workspace create(Path file, Clock clock) throws BookException {
    return new Workspace(Book.create(file, clock), clock);
  }

  /// Opens a workspace for writing.
  public static Workspace open(Path file, Clock clock) throws BookException {
    return new Workspace(Book.open(file, clock), clock);
  }

  /// Opens a workspace to look at it only.
  public static Workspace look(Path file) throws BookException {
    return new Workspace(Book.openReadOnly(file), Clock.systemDefaultZone());
  }

  /// Whether it is a practice book, nothing of which is of a real board.
  public boolean practice() throws BookException {
    return book.keepsake(PRACTICE).isPresent();
  }

  /// The book.
  public Book book() {
    return book;
  }

  /// The clock.
  public Clock clock() {
    return clock;
  }

  /// Says what is to be said of a workspace that is on a server, now and when it is closed: that it
  /// does not answer, or what was taken over since it does.
  public void told(Consumer<String> say) {
    this.say = say;
    notes();
  }

  /// Says what there is to say since it was said last.
  public void notes() {
    book.shared().ifPresent(s -> s.notes().forEach(say));
  }

  /// Tells a listener of every change from now on.
  public void listen(Listener listener) {
    listeners.add(listener);
  }

  /// Tells every listener of a change.
  public void tell(Change change) {
    listeners.forEach(l -> l.changed(change));
  }

  /// The build with this number, or the latest when none is asked for.
  ///
  /// @throws ActException when there is no such build
  public Build build(Optional<Long> id) throws BookException, ActException {
    List<Build> builds = book.builds();
    if (builds.isEmpty()) {
      throw new ActException(
          "there is no build yet; make one with: build WS --design D --revision R --boards N");
    }
    if (id.isEmpty()) {
      return builds.getLast();
    }
    return builds.stream()
        .filter(b -> b.id() == id.get())
        .findFirst()
        .orElseThrow(() ->
            new ActException(
                "there is no build "
                    + id.get()
                    + "; there are "
                    + builds.stream().map(b -> String.valueOf(b.id())).toList()));
  }

  /// The build that a board belongs to.
  ///
  /// @throws ActException when there is no such board, naming those that there are
  public Build buildOf(String board) throws BookException, ActException {
    Optional<Build> found = book.buildOf(board);
    if (found.isEmpty()) {
      List<String> all = book.builds().stream().flatMap(b -> b.boards().stream()).toList();
      throw new ActException(
          "there is no board '"
              + board
              + "'; "
              + (all.isEmpty()
                  ? "no build is made yet"
                  : "there are " + String.join(", ", all.stream().limit(40).toList())));
    }
    return found.get();
  }

  /// The entries of a board, oldest first.
  public synchronized List<Logged> entries(String board) throws BookException {
    List<Logged> known = entries.get(board);
    if (known == null) {
      known = new ArrayList<>(book.entries(board));
      entries.put(board, known);
    }
    return List.copyOf(known);
  }

  /// The state of a board, folded from its entries.
  public synchronized BoardState state(String board) throws BookException {
    BoardState known = states.get(board);
    if (known == null) {
      entries(board);
      known = BoardState.of(board, entries.get(board));
      states.put(board, known);
    }
    return known;
  }

  /// The entries of a board that stand, oldest first.
  public List<Logged> standing(String board) throws BookException {
    return state(board).standing();
  }

  /// The entries that stand and are of one kind, of all boards and of none, in the order of time.
  public List<Logged> everywhere(Class<? extends Entry> kind) throws BookException {
    List<Logged> all = new ArrayList<>();
    // what belongs to no board is logged to none
    standing("").stream().filter(l -> kind.isInstance(l.entry())).forEach(all::add);
    for (Build b : book.builds()) {
      for (String board : b.boards()) {
        standing(board).stream().filter(l -> kind.isInstance(l.entry())).forEach(all::add);
      }
    }
    all.sort(
        java.util.Comparator.comparing((Logged l) -> l.at().toInstant())
            .thenComparing(Logged::number));
    return all;
  }

  /// Writes entries of one board in one transaction, as of now.
  public List<Logged> append(String board, List<Entry> several) throws BookException {
    SequencedMap<String, List<Entry>> one = new LinkedHashMap<>();
    one.put(board, several);
    return append(one, OffsetDateTime.now(clock()));
  }

  /// Writes entries of boards in one transaction; they are on disk when this returns. This asks no
  /// rule: acts do, and only they come here.
  ///
  /// @return those of the first board first
  public List<Logged> append(SequencedMap<String, List<Entry>> several, OffsetDateTime at)
      throws BookException {
    List<Logged> all = book.appendAll(several, at);
    for (String board : several.keySet()) {
      keep(board, all.stream().filter(l -> l.board().equals(board)).toList());
    }
    return all;
  }

  /// Keeps a photograph and logs it.
  public Logged keepPhotograph(String board, Entry.Photo entry, byte[] body) throws BookException {
    return keep(board, List.of(book.keepPhotograph(board, entry, body))).getFirst();
  }

  private List<Logged> keep(String board, List<Logged> logged) {
    synchronized (this) {
      if (entries.containsKey(board)) {
        entries.get(board).addAll(logged);
      }
      states.remove(board);
    }
    tell(new Change.Board(board));
    return logged;
  }

  /// The entry that taking back would strike: the latest that stands and is no strike itself.
  public Optional<Logged> lastStanding(String board) throws BookException {
    return standing(board).reversed().stream()
        .filter(l -> !(l.entry() instanceof Entry.Strike))
        .findFirst();
  }

  /// What a command does, all or nothing.
  public interface Whole {
    /// Does it.
    void run() throws IOException, ActException;
  }

  /// Makes everything that is written within one transaction; when it does not come to its end,
  /// nothing of it was done and nothing of it is remembered.
  public void whole(Whole work) throws IOException, ActException {
    boolean done = false;
    try {
      book.together(ActException.class, work::run);
      done = true;
    } finally {
      if (!done) {
        refresh();
      }
    }
  }

  /// Forgets what was kept of boards that others wrote on.
  public void others(Set<String> boards) {
    synchronized (this) {
      boards.forEach(b -> {
        entries.remove(b);
        states.remove(b);
      });
    }
    boards.forEach(b -> tell(new Change.Board(b)));
  }

  /// Forgets what was kept in memory, for when another program may have written.
  public void refresh() {
    synchronized (this) {
      entries.clear();
      states.clear();
    }
    tell(new Change.Everything());
  }

  @Override
  public void close() throws BookException {
    notes();
    book.close();
  }
}
