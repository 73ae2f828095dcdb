package ell.work.order;

import ell.book.BookException;
import ell.book.Build;
import ell.core.entry.Entry;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.work.space.Workspace;
import java.util.List;
import java.util.Optional;

/// Boards that hang together in panels: they are printed and heated as one until they are cut
/// apart. Kept beside the builds; the boards of a build lie on its panels in the order of their
/// serials.
public final class Panels {
  private static final String KEPT = "panel ";

  private final Workspace space;

  /// The panels of a workspace.
  public Panels(Workspace space) {
    this.space = space;
  }

  /// How many boards of a build hang together, 1 when none do.
  public int of(Build build) throws BookException {
    Optional<String> kept = space.book().keepsake(KEPT + build.id());
    return kept.filter(t -> t.matches("[1-9]\\d{0,3}")).map(Integer::parseInt).orElse(1);
  }

  /// Keeps how many boards of a build hang together.
  ///
  /// @param build its number; the build itself may be made afterwards, so that none is ever without
  public void keep(long build, int boards) throws BookException {
    if (boards > 1 || space.book().keepsake(KEPT + build).isPresent()) {
      space.book().putKeepsake(KEPT + build, String.valueOf(boards));
    }
  }

  /// The serials of the panel that a board is on, itself among them.
  public List<String> panel(Build build, String board) throws BookException {
    int size = of(build);
    int at = build.boards().indexOf(board);
    if (at < 0) {
      return List.of(board);
    }
    int from = at / size * size;
    return build.boards().subList(from, Math.min(from + size, build.boards().size()));
  }

  /// The other boards to which an act happens as well: those that hang on the same panel, when it
  /// is printed, heated or cut.
  List<String> others(Entry next, Build build, String board) throws BookException {
    if (!shared(next) || apart(board)) {
      return List.of();
    }
    return panel(build, board).stream().filter(b -> !b.equals(board)).toList();
  }

  /// Whether a board was cut from its panel.
  boolean apart(String board) throws BookException {
    return OrderFacts.of(space.state(board)).actsDone().stream()
        .anyMatch(a -> a.startsWith(Step.Action.CUT.words()));
  }

  private static boolean shared(Entry next) {
    return switch (next) {
      case Entry.StepDone s ->
          s.action().equals(Step.Action.PASTE.words())
              || s.action().equals(Step.Action.REFLOW.words())
              || s.action().equals(Step.Action.CUT.words());
      case Entry.Printed _ -> true;
      case Entry.HeatRun h -> !h.side().isEmpty();
      default -> false;
    };
  }
}
