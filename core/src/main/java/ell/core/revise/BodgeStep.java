package ell.core.revise;

import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/// One step of a bodge, written as `cut U6.7`, `lift U6.7`, `wire U6.7 GND`, `remove R3`, `fit R3
/// 10k`, `replace R9 4k7`, `turn D1`, `add 10k U6.7 GND`, `close SJ1`, `open SJ1`, or `do` and
/// words.
///
/// @param kind what is done
/// @param code of the part that is fitted, empty where none is, or it is the one of the bill
/// @param places joints, nets or the part that it is done at, in the order in which they are
///   written
/// @param words of a step that is only told, else empty
public record BodgeStep(Kind kind, String code, List<String> places, String words) {
  /// What can be done.
  public enum Kind {
    /// A track is cut beside a joint, which hangs on nothing then.
    CUT(3, Tool.KNIFE, 1, 2),
    /// A lead is lifted off its pad.
    LIFT(3, Tool.IRON, 1, 1),
    /// Two places are joined by a wire.
    WIRE(4, Tool.IRON, 2, 2),
    /// A part is taken off.
    REMOVE(3, Tool.AIR, 1, 1),
    /// A part is put where there is none.
    FIT(4, Tool.AIR, 1, 1),
    /// A part is taken off and another is put there.
    REPLACE(6, Tool.AIR, 1, 1),
    /// A part is turned.
    TURN(5, Tool.AIR, 1, 1),
    /// A part is put between two places that have none.
    ADD(6, Tool.IRON, 2, 2),
    /// A link is closed.
    CLOSE(1, Tool.IRON, 1, 1),
    /// A link is opened.
    OPEN(1, Tool.IRON, 1, 1),
    /// Anything else.
    DO(5, Tool.HAND, 0, 0);

    private final double minutes;
    private final Tool tool;
    private final int least;
    private final int most;

    Kind(double minutes, Tool tool, int least, int most) {
      this.minutes = minutes;
      this.tool = tool;
      this.least = least;
      this.most = most;
    }

    String key() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /// What is taken in hand.
  public enum Tool {
    /// A knife, cold.
    KNIFE,
    /// An iron.
    IRON,
    /// Hot air.
    AIR,
    /// Neither.
    HAND
  }

  private static final String EXPECTED =
      "a step is cut U6.7, lift U6.7, wire U6.7 GND, remove R3, fit R3, replace R9 4k7, turn D1, add"
          + " 10k U6.7 GND, close SJ1, open SJ1 or do WORDS";

  public BodgeStep {
    places = List.copyOf(places);
  }

  /// Reads steps that stand between semicolons.
  ///
  /// @throws IllegalArgumentException naming the first that is none
  public static List<BodgeStep> all(String text) {
    List<BodgeStep> all = new ArrayList<>();
    for (String s : text.split(";")) {
      if (!s.isBlank()) {
        all.add(parse(s));
      }
    }
    return all;
  }

  /// Reads a step.
  ///
  /// @throws IllegalArgumentException saying what was expected
  public static BodgeStep parse(String text) {
    String[] w = text.strip().split("\\s+");
    Kind kind;
    try {
      kind = Kind.valueOf(w[0].toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException e) {
      throw wrong(text, e);
    }
    if (kind == Kind.DO) {
      String rest = text.strip().substring(2).strip();
      if (rest.isEmpty()) {
        throw wrong(text, null);
      }
      return new BodgeStep(kind, "", List.of(), rest);
    }
    List<String> rest = new ArrayList<>(List.of(w).subList(1, w.length));
    String code = "";
    if (kind == Kind.ADD && rest.size() == 3) {
      code = rest.removeFirst();
    } else if ((kind == Kind.FIT || kind == Kind.REPLACE) && rest.size() == 2) {
      code = rest.removeLast();
    }
    if (rest.size() < kind.least
        || rest.size() > kind.most
        || kind == Kind.ADD && code.isEmpty()
        || rest.size() == 2 && rest.get(0).equals(rest.get(1))) {
      throw wrong(text, null);
    }
    return new BodgeStep(kind, code, rest, "");
  }

  private static IllegalArgumentException wrong(String text, Throwable why) {
    return new IllegalArgumentException(
        "'" + text.strip() + "' is no step of a bodge; " + EXPECTED, why);
  }

  /// The step as it is written.
  public String text() {
    if (kind == Kind.DO) {
      return "do " + words;
    }
    return switch (kind) {
      case ADD -> "add " + code + " " + String.join(" ", places);
      case FIT, REPLACE ->
          kind.key() + " " + places.getFirst() + (code.isEmpty() ? "" : " " + code);
      default -> kind.key() + " " + String.join(" ", places);
    };
  }

  /// Typical minutes; common practice, no source.
  public double minutes() {
    return kind.minutes;
  }

  /// What is taken in hand for it.
  public Tool tool() {
    return kind.tool;
  }

  /// Parts whose joints it heats once. A wire that goes to a net is laid to the place that [Ends]
  /// chooses.
  public Set<String> heats(Revision revision) {
    Set<String> parts = new LinkedHashSet<>();
    switch (kind) {
      case CUT, DO -> {} // cold
      case WIRE, ADD -> {
        for (Ends.End e : Ends.of(this, revision)) {
          e.joint().ifPresent(j -> parts.add(j.part()));
        }
      }
      default -> parts.add(BodgeStep.part(places.getFirst(), revision));
    }
    parts.removeIf(p -> revision.part(p).isEmpty() && PartKind.of(p).bare());
    return parts;
  }

  /// The part of a place.
  static String part(String place, Revision revision) {
    return revision.part(place).isPresent() || !revision.jointsOf(place).isEmpty()
        ? place
        : revision.joint(place).map(ell.core.board.Joint::part).orElse(BoardState.part(place));
  }

  /// Why the step cannot be done on a board of a revision, empty when it can.
  public Optional<String> unfit(Revision revision) {
    for (int i = 0; i < places.size(); i++) {
      String p = places.get(i);
      boolean joint = revision.joint(p).isPresent();
      boolean net = !revision.net(p).isEmpty();
      boolean part = revision.part(p).isPresent() || !revision.jointsOf(p).isEmpty();
      boolean fits =
          switch (kind) {
            case CUT -> i == 0 ? joint : net || joint;
            case LIFT -> joint;
            case WIRE, ADD -> joint || net;
            case DO -> true;
            default -> part;
          };
      if (!fits) {
        return Optional.of(
            text()
                + ": "
                + revision.title()
                + " has no "
                + (kind == Kind.LIFT || kind == Kind.CUT && i == 0
                    ? "joint"
                    : kind == Kind.WIRE || kind == Kind.ADD || kind == Kind.CUT
                        ? "joint or net"
                        : "part")
                + " '"
                + p
                + "'");
      }
    }
    return Optional.empty();
  }

  /// Whether a joint hangs on nothing of its own net any more afterwards.
  boolean frees(String place) {
    return (kind == Kind.CUT || kind == Kind.LIFT) && places.getFirst().equals(place);
  }
}
