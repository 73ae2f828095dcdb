package ell.core.board;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/// What differs between two netlists of the same parts: by what is joined, whatever it is called.
///
/// @param renamed nets that join the same joints for the most part under another name
/// @param moved joints that are on another net
/// @param added nets of the second that are none of the first under whatever name
/// @param removed nets of the first that are none of the second under whatever name
/// @param came joints that only the second has
/// @param gone joints that only the first has
public record NetDifference(
    Map<String, String> renamed,
    List<Moved> moved,
    List<String> added,
    List<String> removed,
    List<String> came,
    List<String> gone) {
  /// A joint on another net.
  ///
  /// @param from the net in the first, empty for none
  /// @param to the net in the second, empty for none
  public record Moved(String place, String from, String to) {}

  public NetDifference {
    renamed = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(renamed));
    moved = List.copyOf(moved);
    added = List.copyOf(added);
    removed = List.copyOf(removed);
    came = List.copyOf(came);
    gone = List.copyOf(gone);
  }

  /// Whether the two join the same.
  public boolean same() {
    return moved.isEmpty() && came.isEmpty() && gone.isEmpty();
  }

  private record Overlap(String from, String to, int joints) {}

  /// Holds two netlists against each other.
  public static NetDifference of(List<Joint> first, List<Joint> second) {
    Map<String, String> before = places(first);
    Map<String, String> after = places(second);
    Map<String, String> match = matched(before, after);
    Map<String, String> renamed = new TreeMap<>();
    match.forEach((from, to) -> {
      if (!from.equals(to)) {
        renamed.put(from, to);
      }
    });
    List<Moved> moved = new ArrayList<>();
    List<String> gone = new ArrayList<>();
    before.forEach((place, net) -> {
      String now = after.get(place);
      if (now == null) {
        gone.add(place);
      } else if (net.isEmpty() ? !now.isEmpty() : !now.equals(match.get(net))) {
        moved.add(new Moved(place, net, now));
      }
    });
    List<String> came = after.keySet().stream().filter(p -> !before.containsKey(p)).toList();
    Set<String> kept = new HashSet<>(match.values());
    return new NetDifference(
        renamed,
        moved,
        nets(after).stream().filter(n -> !kept.contains(n)).toList(),
        nets(before).stream().filter(n -> !match.containsKey(n)).toList(),
        came,
        gone);
  }

  private static Map<String, String> places(List<Joint> joints) {
    Map<String, String> all = new TreeMap<>();
    joints.forEach(j -> all.putIfAbsent(j.place(), j.net()));
    return all;
  }

  private static List<String> nets(Map<String, String> places) {
    return places.values().stream().filter(n -> !n.isEmpty()).distinct().sorted().toList();
  }

  /// Which net of one netlist is which of another, by the joints that both have.
  ///
  /// @return by the name in the first, the one in the second; nets that share no joint are not here
  public static Map<String, String> matched(List<Joint> first, List<Joint> second) {
    return matched(places(first), places(second));
  }

  /// Each net of the first with the one of the second that has most of its joints; each is taken
  /// once, the greatest overlap first, the same name before another.
  private static Map<String, String> matched(
      Map<String, String> before, Map<String, String> after) {
    Map<List<String>, Integer> joints = new HashMap<>();
    before.forEach((place, net) -> {
      String now = after.getOrDefault(place, "");
      if (!net.isEmpty() && !now.isEmpty()) {
        joints.merge(List.of(net, now), 1, Integer::sum);
      }
    });
    List<Overlap> all = new ArrayList<>();
    joints.forEach((pair, n) -> all.add(new Overlap(pair.get(0), pair.get(1), n)));
    all.sort(
        Comparator.comparingInt((Overlap o) -> -o.joints())
            .thenComparing(o -> !o.from().equals(o.to()))
            .thenComparing(Overlap::from)
            .thenComparing(Overlap::to));
    Map<String, String> match = new HashMap<>();
    Set<String> taken = new HashSet<>();
    for (Overlap o : all) {
      if (!match.containsKey(o.from()) && taken.add(o.to())) {
        match.put(o.from(), o.to());
      }
    }
    exchange(all, match, joints);
    return match;
  }

  /// A net that was left because another took what it joins takes it over, where the other has
  /// something else to join: more joints agree then.
  private static void exchange(
      List<Overlap> all, Map<String, String> match, Map<List<String>, Integer> joints) {
    Map<String, List<Overlap>> by = new HashMap<>();
    all.forEach(o -> by.computeIfAbsent(o.from(), _ -> new ArrayList<>()).add(o));
    Map<String, String> back = new HashMap<>();
    match.forEach((x, y) -> back.put(y, x));
    boolean again = true;
    while (again) {
      again = false;
      for (Overlap o : all) {
        String holder = back.get(o.to());
        if (match.containsKey(o.from()) || holder == null) {
          continue;
        }
        int held = joints.get(List.of(holder, o.to()));
        for (Overlap other : by.get(holder)) {
          if (!back.containsKey(other.to()) && o.joints() + other.joints() > held) {
            match.put(holder, other.to());
            back.put(other.to(), holder);
            match.put(o.from(), o.to());
            back.put(o.to(), o.from());
            again = true;
            break;
          }
        }
      }
    }
  }
}
