package ell.bench.sim;

import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.pulse.PulsePlan;
import ell.core.talk.TalkPlan;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A board that can be laid on the simulated bench.
///
/// @param serial its name
/// @param faults what is wrong with it
/// @param pulse what should be seen on its lines
/// @param talk what it can say
public record SimBoard(
    String serial,
    Revision revision,
    Ladder ladder,
    List<Fault> faults,
    PulsePlan pulse,
    SimTalk talk) {
  public SimBoard {
    faults = List.copyOf(faults);
  }

  /// A blank board of which nothing is said of its lines.
  public SimBoard(String serial, Revision revision, Ladder ladder, List<Fault> faults) {
    this(
        serial,
        revision,
        ladder,
        faults,
        PulsePlan.of(revision, ladder, List.of(), List.of()),
        new SimTalk(TalkPlan.of(revision, List.of()), Map::of, "", Optional.empty()));
  }

  /// The faults that the bench sees: its own, over links that stand as the book has them.
  List<Fault> standing() {
    List<Fault> all = new ArrayList<>();
    Map<String, Boolean> stands = talk.stands().get();
    talk.plan()
        .links()
        .forEach(l -> {
          boolean said = faults.stream().anyMatch(f -> linked(f, l.part()));
          if (!said) {
            all.add(new Fault.Link(l.part(), !stands.getOrDefault(l.part(), l.closed())));
          }
        });
    all.addAll(faults);
    return all;
  }

  private static boolean linked(Fault f, String part) {
    return f instanceof Fault.Sometimes(double chance, Fault inner)
        ? linked(inner, part)
        : f instanceof Fault.Link(String p, boolean open) && p.equals(part);
  }
}
