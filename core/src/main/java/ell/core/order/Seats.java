package ell.core.order;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What is plugged in rather than soldered, and into what: chips into sockets, boards of their own
/// onto headers. Told by words of the bill, by holes that two parts share, and by bodies that lie
/// over each other; common practice, no source.
final class Seats {
  /// Two holes so near are one.
  private static final double SAME_MM = 0.3;

  private final Map<Integer, List<Integer>> seats = new HashMap<>();
  private final Revision revision;
  private final List<Part> parts;

  Seats(Revision revision, List<Part> parts, Bodies bodies) {
    this.revision = revision;
    this.parts = parts;
    List<Integer> carriers = new ArrayList<>();
    for (int s = 0; s < parts.size(); s++) {
      if (socket(parts.get(s)) || parts.get(s).kind() == PartKind.CONNECTOR) {
        carriers.add(s);
      }
    }
    for (int p = 0; p < parts.size(); p++) {
      if (pluggable(parts.get(p))) {
        for (int s : carriers) {
          if (s != p && carries(s, p, bodies)) {
            seats.computeIfAbsent(p, _ -> new ArrayList<>(2)).add(s);
          }
        }
      }
    }
  }

  /// Whether the bill calls a part a socket, whatever it is for.
  static boolean socket(Part p) {
    return PartKind.socket(p.value(), p.packageName(), p.code(), p.description());
  }

  private static boolean pluggable(Part p) {
    return switch (p.kind()) {
      case CHIP, MODULE, CRYSTAL, OTHER -> !socket(p);
      default -> false;
    };
  }

  private boolean carries(int s, int p, Bodies bodies) {
    Part seat = parts.get(s);
    Part own = parts.get(p);
    if (seat.side() != own.side()) {
      return false;
    }
    List<Joint> joints = revision.jointsOf(own.reference());
    long shared = joints.stream().filter(j -> shares(j, seat)).count();
    if (shared > 0) {
      return socket(seat)
          ? 2 * shared >= joints.size()
          : own.kind() == PartKind.MODULE && shared >= 2;
    }
    // a module whose pins only its headers list, a chip that the bill puts where its socket is
    boolean bare = joints.isEmpty() || revision.jointsOf(seat.reference()).isEmpty();
    return bare
        && (socket(seat) || own.kind() == PartKind.MODULE)
        && (bodies.covers(p, s) || socket(seat) && bodies.covers(s, p));
  }

  private boolean shares(Joint j, Part seat) {
    return j.hole()
        && revision.jointsOf(seat.reference()).stream()
            .anyMatch(o -> o.hole() && j.distanceMm(o) < SAME_MM);
  }

  /// What a part is plugged into, empty when it is soldered or nothing says so.
  List<Integer> of(int part) {
    return seats.getOrDefault(part, List.of());
  }

  /// Whether a part is plugged in: a seat carries it, or it is a board of its own without joints.
  boolean plugged(int part) {
    Part p = parts.get(part);
    return seats.containsKey(part)
        || p.kind() == PartKind.MODULE && revision.jointsOf(p.reference()).isEmpty();
  }

  /// The seats in words.
  Optional<String> words(int part) {
    List<Integer> of = of(part);
    return of.isEmpty()
        ? Optional.empty()
        : Optional.of(String.join(" ", of.stream().map(s -> parts.get(s).reference()).toList()));
  }
}
