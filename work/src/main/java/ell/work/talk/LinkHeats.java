package ell.work.talk;

import ell.core.entry.Entry;
import ell.core.talk.Link;
import ell.core.talk.TalkFacts;
import ell.work.act.Companion;
import ell.work.act.Situation;
import java.util.List;
import java.util.Optional;

/// A solder link that is changed is heated: the heat is logged with it. What is said of a link for
/// the first time, and is as it came, is only seen.
final class LinkHeats implements Companion {
  /// What is done to a link.
  static final String ACTION = "linked";

  @Override
  public List<Entry> with(Entry next, Situation s) {
    if (!(next instanceof Entry.Stands now)) {
      return List.of(next);
    }
    Optional<Link> link = s.plan().talk().link(now.place()).filter(Link::iron);
    if (link.isEmpty()) {
      return List.of(next);
    }
    boolean is = TalkFacts.of(s.state()).stand(s.plan().talk()).links().get(now.place());
    return Link.word(is).equals(now.stand())
        ? List.of(next)
        : List.of(
            next, new Entry.Action(now.place(), ACTION, true, now.stand() + " with the iron"));
  }
}
