package ell.desk.shell;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.entry.Logged;
import ell.core.rack.Plan;
import ell.core.rack.Standing;
import ell.work.tape.Tape;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Everything that the window shows whatever the stage, as it stood at one moment. Immutable. What
/// only one stage shows, that stage loads.
///
/// @param name of the workspace file
/// @param revisions as `MG-1 rev B`
/// @param bench present once there is a build to work on
/// @param benches those that share the workspace, empty for a file
/// @param practice what a practice is about, empty for a real workspace
public record Snapshot(
    String name,
    boolean open,
    List<String> revisions,
    Optional<Work> bench,
    Optional<Benches> benches,
    Optional<String> practice) {
  /// No workspace is open.
  public static final Snapshot NONE =
      new Snapshot("", false, List.of(), Optional.empty(), Optional.empty(), Optional.empty());

  public Snapshot {
    revisions = List.copyOf(revisions);
  }

  /// A board of a build in hand.
  ///
  /// @param moment counts the looks that were taken: two looks are never the same
  /// @param log of the board, oldest first
  /// @param standings of every board of the build, in order of serials
  /// @param tape that understands lines about this board
  public record Work(
      long moment,
      Build build,
      Plan plan,
      String board,
      BoardState state,
      List<Logged> log,
      Map<String, Standing> standings,
      Tape tape) {
    /// Two looks are never the same; comparing all that was seen would take longer than drawing it.
    @Override
    public boolean equals(Object o) {
      return o instanceof Work w && w.moment == moment;
    }

    @Override
    public int hashCode() {
      return Long.hashCode(moment);
    }
  }
}
