package ell.work.talk;

import ell.book.BookException;
import ell.core.board.Revision;
import ell.core.talk.TalkPlan;
import ell.work.bring.Revisions;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What is said of the links, operations and lines of revisions, answers to the questions of
/// scripts, and what a healthy board says.
public final class Talks {
  private static final String SAID = "talk-said";
  private static final String ANSWERS = "talk-answers";
  private static final String HEALTHY = "talk-healthy ";

  private final Workspace space;
  private final Revisions revisions;

  /// Those of a workspace.
  public Talks(Workspace space, Revisions revisions) {
    this.space = space;
    this.revisions = revisions;
  }

  /// What was said of a revision, a line each.
  public List<String> said(String design, String name) throws BookException {
    return space
        .book()
        .document(design, name, SAID)
        .map(t -> t.lines().filter(l -> !l.isBlank()).toList())
        .orElse(List.of());
  }

  /// What is known of loading and talking to the boards of a revision.
  public TalkPlan of(String design, String name) throws BookException, ActException {
    return with(revisions.get(design, name), said(design, name));
  }

  private static TalkPlan with(Revision r, List<String> lines) throws ActException {
    try {
      return TalkPlan.of(r, lines);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  /// Keeps more of what is said, such as `link JP1 solder`; all or none.
  ///
  /// @throws ActException when a line cannot be understood, or names what the revision lacks
  public TalkPlan say(String design, String name, List<String> lines)
      throws BookException, ActException {
    if (lines.stream().anyMatch(String::isBlank)) {
      throw new ActException("an empty line says nothing; expected such as link JP1 solder");
    }
    List<String> all = new ArrayList<>(said(design, name));
    lines.forEach(l -> all.add(l.strip()));
    TalkPlan plan = with(revisions.get(design, name), all);
    put(design, name, SAID, String.join("\n", all) + "\n");
    return plan;
  }

  /// Forgets what was said.
  public void unsay(String design, String name) throws BookException, ActException {
    revisions.get(design, name);
    put(design, name, SAID, "");
  }

  /// Answers to questions of scripts that hold for every board of a revision, by what they are
  /// about.
  public Map<String, String> answers(String design, String name) throws BookException {
    Map<String, String> all = new LinkedHashMap<>();
    space
        .book()
        .document(design, name, ANSWERS)
        .ifPresent(t ->
            t.lines()
                .filter(l -> l.contains("="))
                .forEach(
                    l -> all.put(l.substring(0, l.indexOf('=')), l.substring(l.indexOf('=') + 1))));
    return all;
  }

  /// Keeps an answer.
  ///
  /// @throws ActException when what it is about is no word
  public void answer(String design, String name, String key, String answer)
      throws BookException, ActException {
    if (!key.matches("[A-Za-z][A-Za-z0-9_-]*") || answer.contains("\n")) {
      throw new ActException("an answer is a word and a line, such as port=/dev/ttyUSB0");
    }
    Map<String, String> all = answers(design, name);
    all.put(key, answer);
    StringBuilder text = new StringBuilder();
    all.forEach((k, v) -> text.append(k).append('=').append(v).append('\n'));
    put(design, name, ANSWERS, text.toString());
  }

  /// What a healthy board says while a script runs.
  public Optional<String> healthy(String design, String name, String script) throws BookException {
    return space.book().document(design, name, HEALTHY + script).filter(t -> !t.isBlank());
  }

  /// Keeps what a board said as what a healthy one says.
  public void keepHealthy(String design, String name, String script, String heard)
      throws BookException {
    put(design, name, HEALTHY + script, heard);
  }

  private void put(String design, String name, String kind, String text) throws BookException {
    space.book().putDocument(design, name, kind, text);
    space.tell(new Change.Revision(design, name));
  }
}
