package ell.core.talk;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.power.Ladder;
import ell.core.power.PartValue;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Which single fault on the way between a controller and its cable explains how it behaves, found
/// by putting each into the board model.
public final class TalkReasons {
  private static final int MOST_NETS = 12;
  private static final double SHORT = 0.5;
  private static final double OTHER_CLOCK = 0.921_6; // 11.0592 MHz in place of 12

  private TalkReasons() {}

  /// Reasons.
  ///
  /// @param asItStands a sentence when the board shows it already as its book has it, empty
  ///   otherwise
  /// @param faults in the words of faults that would show it
  public record Found(String asItStands, List<String> faults) {
    public Found {
      faults = List.copyOf(faults);
    }
  }

  /// Looks for them.
  ///
  /// @param stands how links stand and what is plugged in, as the book has it
  public static Found of(
      TalkPlan plan, Ladder ladder, Map<String, Boolean> stands, TalkSymptom seen) {
    List<Fault> links = links(plan, stands);
    ControllerOnBoard now = ControllerOnBoard.of(plan, ladder, links, stands);
    if (TalkSymptom.of(now).filter(s -> s == seen).isPresent() && seen != TalkSymptom.FINE) {
      return new Found(already(plan, ladder, stands, now), List.of());
    }
    List<String> all = new ArrayList<>();
    for (Fault f : candidates(plan, ladder, stands)) {
      List<Fault> with = new ArrayList<>();
      for (Fault l : links) {
        boolean same =
            l instanceof Fault.Link(String a, boolean x)
                && f instanceof Fault.Link(String b, boolean y)
                && a.equals(b);
        if (!same) {
          with.add(l);
        }
      }
      with.add(f);
      Map<String, Boolean> plugged = new HashMap<>(stands);
      Optional<TalkSymptom> shows =
          TalkSymptom.of(ControllerOnBoard.of(plan, ladder, with, plugged));
      if (shows.isEmpty() && seen == TalkSymptom.IN_LOADER
          || shows.filter(s -> s == seen).isPresent()) {
        all.add(FaultWords.words(f));
      }
    }
    for (Sharer s : plan.sharers()) {
      if (!stands.getOrDefault(s.part(), false)) {
        Map<String, Boolean> plugged = new HashMap<>(stands);
        plugged.put(s.part(), true);
        if (TalkSymptom.of(ControllerOnBoard.of(plan, ladder, links, plugged))
            .filter(x -> x == seen)
            .isPresent()) {
          all.add(s.part() + " is plugged in and holds the line");
        }
      }
    }
    return new Found("", all);
  }

  /// Links as faults of the board model.
  public static List<Fault> links(TalkPlan plan, Map<String, Boolean> stands) {
    Map<String, Boolean> closed = new LinkedHashMap<>();
    plan.links().forEach(l -> closed.put(l.part(), stands.getOrDefault(l.part(), l.closed())));
    return ControllerOnBoard.links(closed);
  }

  private static String already(
      TalkPlan plan, Ladder ladder, Map<String, Boolean> stands, ControllerOnBoard now) {
    for (Link l : plan.links()) {
      Map<String, Boolean> other = new HashMap<>(stands);
      boolean closed = stands.getOrDefault(l.part(), l.closed());
      other.put(l.part(), !closed);
      if (TalkSymptom.of(ControllerOnBoard.of(plan, ladder, links(plan, other), other))
          .filter(s -> s == TalkSymptom.FINE)
          .isPresent()) {
        return "with "
            + l.part()
            + " "
            + Link.word(closed)
            + ", as the book has it, it cannot be otherwise: "
            + (closed ? "open it" : "close it");
      }
    }
    for (Sharer s : plan.sharers()) {
      Map<String, Boolean> other = new HashMap<>(stands);
      other.put(s.part(), false);
      if (stands.getOrDefault(s.part(), false)
          && TalkSymptom.of(ControllerOnBoard.of(plan, ladder, links(plan, other), other))
              .filter(x -> x == TalkSymptom.FINE)
              .isPresent()) {
        return s.part() + " is plugged in and holds the line: take it out";
      }
    }
    return now.locked()
        ? "as links stand the memory is protected"
        : "as the board is drawn it cannot be otherwise: is what is said of its line right?";
  }

  /// The single faults that are looked at: of the line, its straps, reset, crystal, memory and
  /// links.
  public static Set<Fault> candidates(TalkPlan plan, Ladder ladder, Map<String, Boolean> stands) {
    Revision r = plan.revision();
    Set<String> nets = nets(plan, ladder);
    Set<Fault> all = new LinkedHashSet<>();
    Set<String> parts = new LinkedHashSet<>();
    for (String n : nets) {
      for (Joint j : r.net(n)) {
        PartKind k = PartKind.of(j.part());
        if (!k.bare()) {
          all.add(new Fault.Open(j.part(), j.pin()));
        }
        if (k == PartKind.RESISTOR || k == PartKind.CRYSTAL) {
          parts.add(j.part());
        }
      }
      all.add(new Fault.Bridge(n, ladder.ground(), SHORT));
      rail(plan, ladder).ifPresent(v -> all.add(new Fault.Bridge(n, v, SHORT)));
    }
    for (Link l : plan.links()) {
      all.add(new Fault.Link(l.part(), stands.getOrDefault(l.part(), l.closed())));
    }
    plan.port()
        .ifPresent(p -> {
          String a = net(r, p.tx());
          String b = net(r, p.rx());
          all.add(tied(p.tx(), b));
          all.add(tied(p.rx(), a));
          all.add(new Fault.Bridge(a, b, SHORT));
          all.add(new Fault.Dead(p.controller()));
        });
    plan.memory()
        .ifPresent(m -> {
          all.add(new Fault.Dead(m.part()));
          if (!m.protect().isEmpty()) {
            r.jointsOf(m.part()).stream()
                .map(Joint::net)
                .filter(n -> ladder.rail(n).isPresent())
                .findFirst()
                .ifPresent(n -> all.add(tied(m.protect(), n)));
            all.add(tied(m.protect(), ladder.ground()));
          }
        });
    for (String p : parts) {
      all.add(new Fault.Missing(p));
      Optional<Part> part = r.part(p);
      if (PartKind.of(p) == PartKind.CRYSTAL && part.isPresent()) {
        PartValue.hertz(part.get())
            .ifPresent(f -> all.add(new Fault.WrongValue(p, f * OTHER_CLOCK)));
      }
    }
    return all;
  }

  /// A rail of the controller, which its neighbours may touch.
  private static Optional<String> rail(TalkPlan plan, Ladder ladder) {
    return plan.port().stream()
        .flatMap(p -> plan.revision().jointsOf(p.controller()).stream())
        .map(Joint::net)
        .filter(n -> ladder.rail(n).isPresent() && !n.equals(ladder.ground()))
        .findFirst();
  }

  private static Fault tied(String joint, String net) {
    int dot = joint.lastIndexOf('.');
    return new Fault.Tied(joint.substring(0, dot), joint.substring(dot + 1), net);
  }

  private static String net(Revision r, String joint) {
    return r.joint(joint).map(Joint::net).orElse(joint);
  }

  /// The nets of line, straps, memory, reset and crystal: small ones of the controller, and what
  /// lies one part behind those of the line.
  private static Set<String> nets(TalkPlan plan, Ladder ladder) {
    Revision r = plan.revision();
    Set<String> all = new LinkedHashSet<>();
    plan.port()
        .ifPresent(p -> {
          for (String place : List.of(p.tx(), p.rx(), p.heardAt(), p.spokenAt())) {
            all.add(place.contains(".") ? net(r, place) : place);
          }
          for (Joint j : r.jointsOf(p.controller())) {
            boolean crystal =
                r.net(j.net()).stream().anyMatch(o -> PartKind.of(o.part()) == PartKind.CRYSTAL);
            if (crystal || j.net().toUpperCase(java.util.Locale.ROOT).matches(".*(RST|RESET).*")) {
              all.add(j.net());
            }
          }
        });
    plan.straps().forEach(s -> all.add(net(r, s.joint())));
    plan.memory().ifPresent(m -> r.jointsOf(m.part()).forEach(j -> all.add(j.net())));
    all.removeIf(n -> n.isEmpty() || n.equals(ladder.ground()) || ladder.rail(n).isPresent());
    return new LinkedHashSet<>(all.stream().limit(MOST_NETS).toList());
  }
}
