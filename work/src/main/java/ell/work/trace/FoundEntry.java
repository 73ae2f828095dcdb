package ell.work.trace;

import ell.core.board.Joint;
import ell.core.entry.Entry;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.rack.Plan;
import ell.core.trace.Remedy;
import ell.core.trace.Suspect;
import ell.core.trace.Suspect.Origin;
import ell.work.space.ActException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Makes the entries of findings.
final class FoundEntry {
  private FoundEntry() {}

  static Entry.Found of(
      Suspect s, double chance, List<Long> evidence, List<String> todo, List<String> again) {
    return new Entry.Found(
        s.words(),
        s.places().isEmpty() ? "" : s.places().getFirst(),
        s.origin() == Origin.DESIGN,
        Math.min(chance, 1),
        evidence,
        todo,
        again);
  }

  /// One that the maker names.
  ///
  /// @throws ActException when it is no fault that this board could have
  static Entry.Found said(String words, Plan plan, Map<String, Integer> heats, List<Long> evidence)
      throws ActException {
    Fault f;
    try {
      f = FaultWords.parse(words);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    Fault bare = f instanceof Fault.Sometimes s ? s.fault() : f;
    if (!(bare instanceof Fault.Setting) && !(bare instanceof Fault.Turned)) {
      Optional<String> unfit = FaultWords.unfit(f, plan.revision());
      if (unfit.isPresent()) {
        throw new ActException(unfit.get());
      }
    }
    Suspect s = suspect(f, bare, plan);
    return of(
        s,
        1,
        evidence,
        Remedy.todo(s, plan.revision(), heats),
        Remedy.again(s, plan.revision(), plan.ladder()));
  }

  private static Suspect suspect(Fault f, Fault bare, Plan plan) {
    List<String> places = new ArrayList<>();
    Origin origin =
        switch (bare) {
          case Fault.Open x -> joint(places, x.part(), x.pin(), Origin.BOARD);
          case Fault.Resistive x -> joint(places, x.part(), x.pin(), Origin.BOARD);
          case Fault.Tied x -> joint(places, x.part(), x.pin(), Origin.DESIGN);
          case Fault.Loose x -> joint(places, x.part(), x.pin(), Origin.DESIGN);
          case Fault.Bridge x -> {
            places.add(x.a());
            places.add(x.b());
            yield Origin.BOARD;
          }
          case Fault.Dead x -> part(places, x.part());
          case Fault.Short x -> part(places, x.part());
          case Fault.Missing x -> part(places, x.part());
          case Fault.Turned x -> part(places, x.part());
          case Fault.WrongValue x -> part(places, x.part());
          case Fault.Link x -> {
            places.add(x.part());
            yield Origin.LINK;
          }
          case Fault.Setting x ->
              x.instrument().equals("cable") ? Origin.OUTSIDE : Origin.INSTRUMENT;
          case Fault.Firmware _, Fault.Sometimes _ -> Origin.OUTSIDE;
        };
    List<String> nets =
        places.stream()
            .flatMap(p ->
                plan.revision().net(p).isEmpty()
                    ? plan.revision().joints().stream()
                        .filter(j -> j.place().equals(p) || j.part().equals(p) && !p.contains("."))
                        .filter(Joint::connected)
                        .map(Joint::net)
                    : java.util.stream.Stream.of(p))
            .distinct()
            .toList();
    return new Suspect(f, FaultWords.words(f), origin, places, nets, 0.5, List.of());
  }

  private static Origin joint(List<String> places, String part, String pin, Origin origin) {
    places.add(part + "." + pin);
    places.add(part);
    return origin;
  }

  private static Origin part(List<String> places, String part) {
    places.add(part);
    return Origin.BOARD;
  }
}
