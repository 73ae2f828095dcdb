package ell.work.power;

import ell.book.BookException;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.power.PowerJson;
import ell.work.bring.LadderCheck;
import ell.work.bring.Revisions;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Power ladders, and the faults that the simulated bench gives to boards, kept with revisions.
public final class Ladders {
  private static final String LADDER = "ladder";
  private static final String FAULTS = "faults";

  private final Workspace space;
  private final Revisions revisions;

  /// The ladders of a workspace.
  public Ladders(Workspace space, Revisions revisions) {
    this.space = space;
    this.revisions = revisions;
  }

  /// The power ladder of a revision: the maker's, else a proposal.
  public Ladder of(String design, String name) throws BookException, ActException {
    Revision revision = revisions.get(design, name);
    return space
        .book()
        .document(design, name, LADDER)
        .map(PowerJson::read)
        .orElseGet(() -> LadderProposal.of(revision));
  }

  /// Keeps a corrected ladder with its revision.
  ///
  /// @throws ActException when it is no ladder, or names what the revision does not have
  public void keep(String design, String name, String json) throws BookException, ActException {
    Revision revision = revisions.get(design, name);
    Ladder ladder;
    try {
      ladder = PowerJson.read(json);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    List<String> problems = LadderCheck.problems(ladder, revision);
    if (!problems.isEmpty()) {
      throw new ActException(String.join("; ", problems));
    }
    space.book().putDocument(design, name, LADDER, json);
    space.tell(new Change.Revision(design, name));
  }

  /// The faults that the simulated bench gives to boards of a revision, by serial.
  public Map<String, List<Fault>> faults(String design, String name) throws BookException {
    return faultsJson(design, name).map(PowerJson::readFaults).orElse(Map.of());
  }

  /// The same as the maker gave them.
  public Optional<String> faultsJson(String design, String name) throws BookException {
    return space.book().document(design, name, FAULTS);
  }

  /// Keeps faults for the simulated bench with a revision.
  ///
  /// @throws ActException when they are not faults
  public void keepFaults(String design, String name, String json)
      throws BookException, ActException {
    try {
      PowerJson.readFaults(json);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    revisions.get(design, name);
    space.book().putDocument(design, name, FAULTS, json);
  }
}
