package ell.core.beep;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The connections of a drawing, part by part and pin by pin, ticked off against what was beeped:
/// for a circuit that moves from one build to another, one part at a time.
///
/// @param parts in the order of the netlist
public record Transfer(List<PartPins> parts) {
  public Transfer {
    parts = List.copyOf(parts);
  }

  /// A part and its pins.
  public record PartPins(String part, List<Pin> pins) {
    public PartPins {
      pins = List.copyOf(pins);
    }

    /// How many of its pins are not ticked off.
    public long left() {
      return pins.stream().filter(p -> p.state() != State.TICKED).count();
    }
  }

  /// A pin.
  ///
  /// @param with what else is on its net
  public record Pin(String pin, String net, List<String> with, State state) {
    public Pin {
      with = List.copyOf(with);
    }
  }

  /// How far a pin is.
  public enum State {
    /// A check that was within joins it to its net.
    TICKED("ticked"),
    /// A check of it did not hold.
    OPEN("open"),
    /// No check of it was made.
    PENDING("not yet");

    private final String words;

    State(String words) {
      this.words = words;
    }

    /// The state in words.
    public String words() {
      return words;
    }
  }

  /// The list of a board.
  ///
  /// @param facts what was beeped on it
  public static Transfer of(Revision revision, BeepFacts facts) {
    Map<String, State> states = new HashMap<>();
    facts
        .checks()
        .values()
        .forEach(l -> {
          Entry.Check c = (Entry.Check) l.entry();
          if (c.kind().equals(BeepCheck.Kind.CONTINUITY.key())) {
            boolean holds = c.verdict() == Verdict.WITHIN;
            for (String place : List.of(c.a(), c.b())) {
              // one check that holds proves a joint, whatever another says of its other end
              states.merge(
                  place,
                  holds ? State.TICKED : State.OPEN,
                  (x, y) -> x == State.TICKED || y == State.TICKED ? State.TICKED : State.OPEN);
            }
          }
        });
    Map<String, List<Pin>> parts = new LinkedHashMap<>();
    for (Joint j : revision.joints()) {
      List<Joint> net = revision.net(j.net());
      boolean made = revision.part(j.part()).map(p -> p.fitted()).orElse(true);
      if (j.connected() && made && net.size() > 1) {
        parts
            .computeIfAbsent(j.part(), _ -> new ArrayList<>())
            .add(
                new Pin(
                    j.pin(),
                    j.net(),
                    net.stream().map(Joint::place).filter(p -> !p.equals(j.place())).toList(),
                    states.getOrDefault(j.place(), State.PENDING)));
      }
    }
    List<PartPins> all = new ArrayList<>();
    parts.forEach((part, pins) -> all.add(new PartPins(part, pins)));
    return new Transfer(all);
  }

  /// The part of this name.
  public Optional<PartPins> part(String reference) {
    return parts.stream().filter(p -> p.part().equals(reference)).findFirst();
  }

  /// How many pins are ticked off.
  public long ticked() {
    return parts.stream().mapToLong(p -> p.pins().size() - p.left()).sum();
  }

  /// How many pins there are.
  public long pins() {
    return parts.stream().mapToLong(p -> p.pins().size()).sum();
  }
}
