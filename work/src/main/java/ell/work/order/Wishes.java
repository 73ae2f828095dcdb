package ell.work.order;

import ell.book.BookException;
import ell.core.board.Block;
import ell.core.board.Revision;
import ell.core.order.Wish;
import ell.core.rack.Plan;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// How the maker wants the orders to be, kept with revisions.
public final class Wishes {
  private static final String WISHES = "wishes";

  private final Workspace space;

  /// The wishes of a workspace.
  public Wishes(Workspace space) {
    this.space = space;
  }

  /// The wishes for a revision. What is kept of parts that are not there any more says nothing.
  public List<Wish> of(Revision revision, List<Block> blocks) throws BookException {
    List<Wish> found = new ArrayList<>();
    for (String line : kept(revision.design(), revision.name()).orElse("").lines().toList()) {
      try {
        found.add(Wish.parse(line, revision, blocks));
      } catch (IllegalArgumentException e) {
        // the part is left off in this variant
      }
    }
    return found;
  }

  /// The lines that are kept, as they were written.
  public Optional<String> kept(String design, String name) throws BookException {
    return space.book().document(design, name, WISHES).filter(t -> !t.isEmpty());
  }

  /// Keeps lines as they are, for bringing back what was exported.
  public void keep(String design, String name, String lines) throws BookException {
    space.book().putDocument(design, name, WISHES, lines);
    space.tell(new Change.Revision(design, name));
  }

  /// Keeps how the maker wants the order, in place of what was kept.
  public void keep(Plan plan, List<Wish> wishes) throws BookException {
    keep(
        plan.revision().design(),
        plan.revision().name(),
        String.join("\n", wishes.stream().map(Wish::text).toList()));
  }

  /// Reads wishes as they are written.
  ///
  /// @throws ActException when a line is no wish, or names what is not there
  public static List<Wish> parse(Plan plan, List<String> lines) throws ActException {
    List<Wish> found = new ArrayList<>();
    for (String line : lines) {
      try {
        found.add(Wish.parse(line, plan.revision(), plan.blocks()));
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage(), e);
      }
    }
    return found;
  }
}
