package ell.work.pulse;

import ell.book.BookException;
import ell.core.board.Revision;
import ell.core.pulse.LogicFamily;
import ell.core.pulse.PulsePlan;
import ell.work.bring.Revisions;
import ell.work.power.Ladders;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.util.ArrayList;
import java.util.List;

/// What is said of the lines of revisions, and logic families of the maker's own.
public final class Pulses {
  static final String FAMILIES = "families";
  private static final String SAID = "pulse-said";

  private final Workspace space;
  private final Revisions revisions;
  private final Ladders ladders;

  /// Those of a workspace.
  public Pulses(Workspace space, Revisions revisions, Ladders ladders) {
    this.space = space;
    this.revisions = revisions;
    this.ladders = ladders;
  }

  /// What was said of a revision's places, a line each.
  public List<String> said(String design, String name) throws BookException {
    return space
        .book()
        .document(design, name, SAID)
        .map(t -> t.lines().filter(l -> !l.isBlank()).toList())
        .orElse(List.of());
  }

  /// Families of the maker's own.
  public List<LogicFamily> families() throws BookException {
    return space.book().keepsake(FAMILIES).map(LogicFamily::read).orElse(List.of());
  }

  /// Keeps families of the maker's own in place of those that were kept.
  ///
  /// @throws ActException when a line is none
  public List<LogicFamily> keepFamilies(String text) throws BookException, ActException {
    List<LogicFamily> all;
    try {
      all = LogicFamily.read(text);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    space.book().putKeepsake(FAMILIES, text);
    space.tell(new Change.Everything());
    return all;
  }

  /// What should be seen on the lines of a revision.
  public PulsePlan of(String design, String name) throws BookException, ActException {
    return with(design, name, said(design, name));
  }

  /// The same with more that is said for once, and not kept.
  ///
  /// @throws ActException when a line cannot be understood
  public PulsePlan of(String design, String name, List<String> once)
      throws BookException, ActException {
    List<String> all = new ArrayList<>(said(design, name));
    all.addAll(once);
    return with(design, name, all);
  }

  private PulsePlan with(String design, String name, List<String> lines)
      throws BookException, ActException {
    Revision r = revisions.get(design, name);
    try {
      return PulsePlan.of(r, ladders.of(design, name), families(), lines);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  /// Keeps more of what is said, such as `CLK clock=2MHz within=100ppm`; all or none.
  ///
  /// @throws ActException when a line cannot be understood, or names what the revision lacks
  public PulsePlan say(String design, String name, List<String> lines)
      throws BookException, ActException {
    if (lines.stream().anyMatch(String::isBlank)) {
      throw new ActException(
          "an empty line says nothing; expected a place and what should be there, such as CLK"
              + " clock=2MHz");
    }
    List<String> all = new ArrayList<>(said(design, name));
    all.addAll(lines);
    PulsePlan plan = with(design, name, all);
    space.book().putDocument(design, name, SAID, String.join("\n", all) + "\n");
    space.tell(new Change.Revision(design, name));
    return plan;
  }

  /// Forgets what was said.
  public void unsay(String design, String name) throws BookException, ActException {
    revisions.get(design, name);
    space.book().putDocument(design, name, SAID, "");
    space.tell(new Change.Revision(design, name));
  }
}
