package ell.work.errata;

import ell.book.BookException;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.revise.Errata;
import ell.core.revise.Erratum;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/// The errata of a workspace, folded from its book and kept until one of them changes; whoever
/// plans with them is told then. Safe for several threads.
public final class KeptErrata implements Workspace.Listener {
  private final Workspace space;
  private Set<String> boards;
  private Errata folded;

  /// Those of a workspace.
  public KeptErrata(Workspace space) {
    this.space = space;
    space.listen(this);
  }

  @Override
  public void changed(Change change) {
    switch (change) {
      case Change.Everything _ -> forget();
      case Change.Board b -> again(b.board());
      default -> {} // says nothing of errata
    }
  }

  private synchronized void forget() {
    boards = null;
    folded = null;
  }

  /// Folds again where a board has something to say of errata, and tells of the revisions whose
  /// errata are others now.
  private void again(String board) {
    Set<Change> told = new LinkedHashSet<>();
    synchronized (this) {
      if (folded == null) {
        return;
      }
      try {
        if (!boards.contains(board)) {
          if (space.entries(board).stream().noneMatch(l -> about(l.entry()))) {
            return;
          }
          boards.add(board);
        }
        Errata before = folded;
        folded = fold();
        Set<Erratum> differ = new HashSet<>(before.all());
        differ.addAll(folded.all());
        differ.removeIf(e -> before.all().contains(e) && folded.all().contains(e));
        for (Erratum e : differ) {
          e.revisions().forEach(r -> told.add(new Change.Revision(e.design(), r)));
        }
      } catch (BookException e) {
        forget(); // read again when somebody asks
      }
    }
    told.forEach(space::tell);
  }

  private static boolean about(Entry e) {
    return e instanceof Entry.Erratum || e instanceof Entry.ErratumSaid;
  }

  /// All errata.
  public synchronized Errata all() throws BookException {
    if (folded == null) {
      boards = new HashSet<>(space.book().boardsWithErrata());
      folded = fold();
    }
    return folded;
  }

  /// The errata as they were after an entry of the book.
  public synchronized Errata asOf(long number) throws BookException {
    all();
    List<Logged> then = new ArrayList<>();
    for (String b : boards) {
      BoardState.standing(space.entries(b).stream().filter(l -> l.number() <= number).toList())
          .stream()
          .filter(l -> about(l.entry()))
          .forEach(then::add);
    }
    return inOrder(then);
  }

  private Errata fold() throws BookException {
    List<Logged> all = new ArrayList<>();
    for (String b : boards) {
      space.standing(b).stream().filter(l -> about(l.entry())).forEach(all::add);
    }
    return inOrder(all);
  }

  private static Errata inOrder(List<Logged> all) {
    all.sort(Comparator.comparing((Logged l) -> l.at().toInstant()).thenComparing(Logged::number));
    return Errata.of(all);
  }

  /// Those that a revision has and that are open.
  public List<Erratum> of(String design, String revision) throws BookException {
    return all().of(design, revision);
  }

  /// The number that the next erratum has: none is given twice, one that was struck neither.
  public synchronized int next() throws BookException {
    all();
    int most = 0;
    for (String b : boards) {
      for (Logged l : space.entries(b)) {
        if (l.entry() instanceof Entry.Erratum e && e.id().matches("E\\d{1,9}")) {
          most = Math.max(most, Integer.parseInt(e.id().substring(1)));
        }
      }
    }
    return most + 1;
  }
}
