package ell.core.order;

import ell.core.board.Block;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// How a maker wants the order to be.
///
/// @param kind what is wanted
/// @param part reference, or a group of parts: `surface`, `first-side`, `second-side`, `all`
/// @param other the other part of [Kind#BEFORE], the gate of [Kind#AFTER_GATE], the side of
///   [Kind#SIDE_FIRST], else empty
public record Wish(Kind kind, String part, String other) {
  /// What can be wanted.
  public enum Kind {
    /// First of what is done together: of its side in paste, else of its block.
    FIRST,
    /// Last of what is done together.
    LAST,
    /// Before another part.
    BEFORE,
    /// Never through the oven: soldered by hand.
    BY_HAND,
    /// Not before a gate holds.
    AFTER_GATE,
    /// The assembly house fits it: the board arrives with it.
    BY_HOUSE,
    /// A side is printed and melted before the other.
    SIDE_FIRST
  }

  private static final List<String> GROUPS = List.of("surface", "first-side", "second-side", "all");

  /// The wish as it is written: `U4 first`, `J1 last`, `C5 before U3`, `L1 by-hand`, `M1 after
  /// boots`, `surface by-house`, `second-side first`.
  public String text() {
    return switch (kind) {
      case FIRST, LAST -> part + " " + kind.name().toLowerCase(Locale.ROOT);
      case BEFORE -> part + " before " + other;
      case BY_HAND -> part + " by-hand";
      case AFTER_GATE -> part + " after " + other;
      case BY_HOUSE -> part + " by-house";
      case SIDE_FIRST -> other + "-side first";
    };
  }

  /// Reads a wish and checks that its parts and gate are there.
  ///
  /// @throws IllegalArgumentException saying what was expected
  public static Wish parse(String text, Revision revision, List<Block> blocks) {
    String[] words = text.strip().split("\\s+", 3);
    if (words.length >= 2) {
      String group = words[0].toLowerCase(Locale.ROOT);
      if (GROUPS.contains(group)) {
        return ofGroup(group, words, text);
      }
      String part = fitted(words[0], revision);
      switch (words[1].toLowerCase(Locale.ROOT)) {
        case "first" -> {
          return new Wish(Kind.FIRST, part, "");
        }
        case "last" -> {
          return new Wish(Kind.LAST, part, "");
        }
        case "by-hand" -> {
          return new Wish(Kind.BY_HAND, part, "");
        }
        case "by-house" -> {
          return new Wish(Kind.BY_HOUSE, part, "");
        }
        case "before" -> {
          if (words.length == 3) {
            String other = fitted(words[2], revision);
            if (other.equals(part)) {
              throw new IllegalArgumentException(part + " cannot come before itself");
            }
            return new Wish(Kind.BEFORE, part, other);
          }
        }
        case "after" -> {
          if (words.length == 3) {
            Optional<Block> gate =
                blocks.stream().filter(b -> b.gate().equalsIgnoreCase(words[2])).findFirst();
            return new Wish(
                Kind.AFTER_GATE,
                part,
                gate.orElseThrow(() ->
                        new IllegalArgumentException(
                            "there is no gate '"
                                + words[2]
                                + "'; there are "
                                + String.join(", ", blocks.stream().map(Block::gate).toList())))
                    .gate());
          }
        }
        default -> {}
      }
    }
    throw expected(text);
  }

  private static Wish ofGroup(String group, String[] words, String text) {
    String what = words[1].toLowerCase(Locale.ROOT);
    if (what.equals("by-hand")) {
      return new Wish(Kind.BY_HAND, group, "");
    }
    if (what.equals("by-house")) {
      return new Wish(Kind.BY_HOUSE, group, "");
    }
    if (what.equals("first") && group.endsWith("-side")) {
      return new Wish(Kind.SIDE_FIRST, "", group.substring(0, group.indexOf('-')));
    }
    throw expected(text);
  }

  private static IllegalArgumentException expected(String text) {
    return new IllegalArgumentException(
        "expected PART first, PART last, PART before PART, PART by-hand, PART by-house, PART after"
            + " GATE or second-side first, where PART may be surface, first-side, second-side or"
            + " all for by-hand and by-house; found '"
            + text.strip()
            + "'");
  }

  /// The parts that are meant: one, or those of the group.
  List<String> parts(Revision revision) {
    if (!GROUPS.contains(part)) {
      return part.isEmpty() ? List.of() : List.of(part);
    }
    return revision.parts().stream()
        .filter(Part::fitted)
        .filter(p ->
            switch (part) {
              case "surface" ->
                  !revision.throughHole(p) && !revision.jointsOf(p.reference()).isEmpty();
              case "first-side" -> p.side() == Side.FIRST;
              case "second-side" -> p.side() == Side.SECOND;
              default -> true;
            })
        .map(Part::reference)
        .toList();
  }

  private static String fitted(String reference, Revision revision) {
    return revision.parts().stream()
        .filter(p -> p.fitted() && p.reference().equalsIgnoreCase(reference))
        .findFirst()
        .orElseThrow(() ->
            new IllegalArgumentException(
                revision.title() + " has no part '" + reference + "' that is fitted"))
        .reference();
  }
}
