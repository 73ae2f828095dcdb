package ell.core.prove;

import ell.core.beep.BeepList;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.pulse.PulsePlan;
import ell.core.talk.Script;
import ell.core.talk.TalkPlan;
import java.util.List;
import java.util.Optional;

/// What is known of a revision where its test plan is proposed, checked and given limits.
///
/// @param beep what is beeped before power
/// @param pulse what should be seen on its lines
/// @param talk links, operations, lines
/// @param scripts that are kept with it
public record PlanKnown(
    Revision revision,
    Ladder ladder,
    BeepList beep,
    PulsePlan pulse,
    TalkPlan talk,
    List<Script> scripts) {
  public PlanKnown {
    scripts = List.copyOf(scripts);
  }

  /// Whether a tip can be held there: a net, a joint, or a part with one net such as a test point.
  boolean place(String place) {
    return revision.netAt(place).isPresent();
  }

  /// Where tips go for a place: the joint of a part that has one, such as a test point.
  public String tip(String place) {
    return revision.net(place).isEmpty() && revision.jointsOf(place).size() == 1
        ? revision.jointsOf(place).getFirst().place()
        : place;
  }

  /// The rail at a place.
  Optional<Ladder.RailSpec> rail(String place) {
    return revision.netAt(place).flatMap(ladder::rail);
  }

  /// The script of a name.
  Optional<Script> script(String name) {
    return scripts.stream().filter(s -> s.name().equals(name)).findFirst();
  }
}
