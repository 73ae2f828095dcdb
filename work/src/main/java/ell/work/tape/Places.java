package ell.work.tape;

import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.TreeMap;

/// The places of a board that can be named: nets, test points, parts and `part.pin`. Capitals do
/// not matter.
public final class Places {
  private final Revision revision;
  private final Ladder ladder;
  private final TreeMap<String, String> names = new TreeMap<>();

  /// The places of a revision.
  public Places(Revision revision, Ladder ladder) {
    this.revision = revision;
    this.ladder = ladder;
    revision.withJoints().forEach(this::add);
    revision.parts().forEach(p -> add(p.reference()));
    // a net wins over a part of the same name, as rails are named most
    revision.nets().forEach(n -> names.put(key(n), n));
  }

  private void add(String name) {
    names.putIfAbsent(key(name), name);
  }

  private static String key(String name) {
    return name.toUpperCase(Locale.ROOT);
  }

  /// The ladder that says what rails there are.
  public Ladder ladder() {
    return ladder;
  }

  /// The place that is meant, in the board's own spelling.
  public Optional<String> find(String typed) {
    if (!revision.net(typed).isEmpty()
        || revision.part(typed).isPresent()
        || !revision.jointsOf(typed).isEmpty()) {
      return Optional.of(typed);
    }
    String whole = names.get(key(typed));
    if (whole != null) {
      return Optional.of(whole);
    }
    int dot = typed.lastIndexOf('.');
    if (dot <= 0) {
      return Optional.empty();
    }
    String part = names.get(key(typed.substring(0, dot)));
    String pin = typed.substring(dot + 1);
    return part == null
        ? Optional.empty()
        : revision.jointsOf(part).stream()
            .filter(j -> j.pin().equalsIgnoreCase(pin))
            .map(Joint::place)
            .findFirst();
  }

  /// The net at a place, if it is one net.
  public Optional<String> netAt(String place) {
    return revision.netAt(place);
  }

  /// The rail at a place, if there is one.
  public Optional<RailSpec> railAt(String place) {
    return netAt(place).flatMap(ladder::rail);
  }

  /// The kind of part at a place; test points count as bare copper.
  public Optional<PartKind> kindAt(String place) {
    if (!revision.net(place).isEmpty()) {
      return Optional.empty();
    }
    int dot = place.lastIndexOf('.');
    String reference = dot > 0 && revision.part(place).isEmpty() ? place.substring(0, dot) : place;
    return Optional.of(
        revision.part(reference).map(p -> p.kind()).orElseGet(() -> PartKind.of(reference)));
  }

  /// Names that begin with what is typed, at most `most`; pins are offered after a dot.
  public List<String> beginningWith(String typed, int most) {
    String k = key(typed);
    int dot = typed.lastIndexOf('.');
    if (dot > 0) {
      String part = names.get(key(typed.substring(0, dot)));
      if (part != null) {
        String pin = key(typed.substring(dot + 1));
        return revision.jointsOf(part).stream()
            .filter(j -> key(j.pin()).startsWith(pin))
            .map(Joint::place)
            .distinct()
            .limit(most)
            .toList();
      }
    }
    List<String> found = new ArrayList<>();
    for (var e : names.tailMap(k).entrySet()) {
      if (!e.getKey().startsWith(k) || found.size() >= most) {
        break;
      }
      found.add(e.getValue());
    }
    return found;
  }

  /// Whether a place is a joint or a part, not a net.
  public boolean jointOrPart(String place) {
    return revision.part(place).isPresent()
        || place.contains(".")
        || !revision.jointsOf(place).isEmpty();
  }
}
