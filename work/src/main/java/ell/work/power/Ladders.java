package ell.work.power;

import ell.book.BookException;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.power.LadderSaid;
import ell.core.power.PowerJson;
import ell.work.bring.LadderCheck;
import ell.work.bring.Revisions;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Power ladders, and the faults that the simulated bench gives to boards, kept with revisions.
public final class Ladders {
  private static final String LADDER = "ladder";
  private static final String SAID = "ladder-said";
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
    return with(revision, space.book().document(design, name, LADDER), said(design, name));
  }

  private static Ladder with(Revision revision, Optional<String> kept, List<String> lines)
      throws ActException {
    try {
      LadderSaid said = LadderSaid.read(lines, revision);
      return kept.isPresent()
          ? said.on(PowerJson.read(kept.get()), revision)
          : LadderProposal.of(revision, said);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  /// What was said of the ladder of a revision since it was proposed or kept, a line each.
  public List<String> said(String design, String name) throws BookException {
    return space
        .book()
        .document(design, name, SAID)
        .map(t -> t.lines().filter(l -> !l.isBlank()).toList())
        .orElse(List.of());
  }

  /// Keeps more answers with a revision, such as `rail BAT+=3.0..4.25`; all or none.
  ///
  /// @return the ladder with them
  /// @throws ActException when one cannot be understood, or does not fit the board
  public Ladder say(String design, String name, List<String> lines)
      throws BookException, ActException {
    Revision revision = revisions.get(design, name);
    List<String> all = new ArrayList<>(said(design, name));
    all.addAll(lines);
    Optional<String> kept = space.book().document(design, name, LADDER);
    Ladder ladder = with(revision, kept, all);
    List<String> problems = LadderCheck.problems(ladder, revision);
    if (!problems.isEmpty()) {
      throw new ActException(String.join("; ", problems));
    }
    space.book().putDocument(design, name, SAID, String.join("\n", all) + "\n");
    space.tell(new Change.Revision(design, name));
    return ladder;
  }

  /// Forgets what was said: the ladder is again as it was proposed, or kept.
  public void unsay(String design, String name) throws BookException, ActException {
    revisions.get(design, name);
    space.book().putDocument(design, name, SAID, "");
    space.tell(new Change.Revision(design, name));
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
    space.book().putDocuments(design, name, Map.of(LADDER, json, SAID, ""));
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
