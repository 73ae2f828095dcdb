package ell.core.power;

import ell.core.board.Folded;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder.Load;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/// Lamps that transistors and chips switch: what they draw together is not known before they are
/// switched, and no more than their resistors let through. One load a rail, which is a guess.
final class DrivenLamps {
  /// What a lamp without a resistor in sight is taken to draw, A; typical, no source.
  private static final double EACH = 0.02;

  /// A rail further away feeds something else.
  private static final int MOST_PARTS = 4;

  private final Revision revision;
  private final String ground;
  private final Map<String, Double> volts;
  private final double lampVolts;

  /// @param volts by rail
  /// @param lampVolts that a lamp keeps
  DrivenLamps(Revision revision, String ground, Map<String, Double> volts, double lampVolts) {
    this.revision = revision;
    this.ground = ground;
    this.volts = volts;
    this.lampVolts = lampVolts;
  }

  /// The lamps of one rail.
  private record Group(List<String> lamps, Set<String> resistors) {}

  /// Loads with what was taken for granted.
  ///
  /// @param known loads that are there; lamps among them burn all the time
  Map<Load, String> loads(List<Load> known) {
    Set<String> burning = known.stream().map(Load::part).collect(Collectors.toSet());
    Map<String, Group> byRail = new LinkedHashMap<>();
    for (Part p : revision.parts()) {
      if (p.fitted() && p.kind() == PartKind.LED && !burning.contains(p.reference())) {
        Set<String> resistors = new LinkedHashSet<>();
        rail(p, resistors)
            .ifPresent(rail -> {
              Group g =
                  byRail.computeIfAbsent(rail, _ -> new Group(new ArrayList<>(), new HashSet<>()));
              g.lamps().add(p.reference());
              g.resistors().addAll(resistors);
            });
      }
    }
    Map<Load, String> found = new LinkedHashMap<>();
    byRail.forEach((rail, g) -> {
      double most = most(rail, g);
      String first = g.lamps().getFirst();
      found.put(
          new Load(
              first,
              rail,
              Map.of("off", 0.0, "boot", 0.0, "worst", most),
              true,
              g.lamps().size() == 1 ? "" : Folded.folded(g.lamps())),
          Folded.references(g.lamps())
              + (g.lamps().size() == 1 ? " is" : " (" + g.lamps().size() + " lamps) are")
              + " taken to draw nothing at first power and at most "
              + EngineeringNumber.print(most, Unit.AMPERE, 2)
              + " from "
              + rail
              + (g.resistors().isEmpty()
                  ? ", 20 mA each"
                  : ", all of " + Folded.folded(List.copyOf(g.resistors())) + " at once")
              + answer(first));
    });
    return found;
  }

  /// How a guess at the lamps that begin with one is put right.
  static String answer(String first) {
    return "; otherwise: load " + first + "=AMPERE";
  }

  /// Whether a lamp burns as soon as its rail is up: it hangs with one resistor between a rail and
  /// ground.
  static boolean direct(Revision revision, Ladder ladder, String lamp) {
    List<String> ends =
        revision.jointsOf(lamp).stream()
            .filter(Joint::connected)
            .map(Joint::net)
            .distinct()
            .toList();
    if (ends.size() != 2) {
      return true;
    }
    for (int i = 0; i < 2; i++) {
      String near = ends.get(i);
      boolean toGround = near.equals(ladder.ground());
      if (toGround || ladder.rail(near).isPresent()) {
        boolean closes =
            revision.net(ends.get(1 - i)).stream()
                .flatMap(j -> revision.part(j.part()).stream())
                .filter(p -> p.fitted() && p.kind() == PartKind.RESISTOR)
                .flatMap(p -> revision.jointsOf(p.reference()).stream())
                .anyMatch(j ->
                    toGround ? ladder.rail(j.net()).isPresent() : j.net().equals(ladder.ground()));
        if (closes) {
          return true;
        }
      }
    }
    return false;
  }

  private double most(String rail, Group g) {
    double sum = 0;
    for (String r : g.resistors()) {
      double ohms = revision.part(r).map(p -> PartValue.ohms(p).orElse(Double.NaN)).orElse(0.0);
      double left = volts.get(rail) - lampVolts;
      sum += ohms > 0 && left > 0 ? left / ohms : EACH;
    }
    double each = EACH * g.lamps().size();
    return g.resistors().isEmpty() ? each : Math.min(sum, each);
  }

  /// The rail that a lamp hangs on, through resistors and transistors; ground ends the way.
  private Optional<String> rail(Part lamp, Set<String> resistors) {
    // resistors behind a transistor drive its gate or base: the lamp's current is not theirs
    record At(String net, int far, boolean switched) {}
    Deque<At> open = new ArrayDeque<>();
    Set<String> seen = new HashSet<>();
    Optional<String> found = Optional.empty();
    revision.jointsOf(lamp.reference()).stream()
        .filter(Joint::connected)
        .forEach(j -> open.add(new At(j.net(), 0, false)));
    while (!open.isEmpty()) {
      At at = open.poll();
      if (!seen.add(at.net()) || at.net().equals(ground)) {
        continue;
      }
      if (volts.getOrDefault(at.net(), 0.0) > 0) {
        found = found.isPresent() ? found : Optional.of(at.net());
        continue;
      }
      if (at.far() == MOST_PARTS) {
        continue;
      }
      for (Joint j : revision.net(at.net())) {
        Part p = revision.part(j.part()).orElse(null);
        if (p == null
            || !p.fitted()
            || p.kind() != PartKind.RESISTOR && p.kind() != PartKind.TRANSISTOR) {
          continue;
        }
        boolean resistor = p.kind() == PartKind.RESISTOR;
        if (resistor && !at.switched()) {
          resistors.add(p.reference());
        }
        revision.jointsOf(p.reference()).stream()
            .filter(Joint::connected)
            .forEach(o -> open.add(new At(o.net(), at.far() + 1, at.switched() || !resistor)));
      }
    }
    return found;
  }
}
