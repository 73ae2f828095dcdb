package ell.core.talk;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/// Equal elements one behind the other on data, as they are joined on a board. The first is the one
/// next to what drives or reads them: a connector, or a chip of another kind.
///
/// @param code of the elements
/// @param elements references in order, at least three, or two that share clock and supply
/// @param near pin of each that leads towards the first
/// @param far pin of each that leads on
/// @param head place from which the first is reached, empty when its pin hangs on nothing
public record ChainOnBoard(
    String code, List<String> elements, String near, String far, String head) {
  private static final int FEWEST = 3;

  /// Two alone are a chain where so many of their pins hang on the same nets: supply, ground, clock
  /// and the like.
  private static final int ALIKE = 4;

  public ChainOnBoard {
    elements = List.copyOf(elements);
  }

  /// `U1 to U4, 4 of HC165`.
  public String words() {
    return elements.getFirst()
        + " to "
        + elements.getLast()
        + ", "
        + elements.size()
        + (code.isEmpty() ? "" : " of " + code);
  }

  /// Every chain of a board, the longest first.
  public static List<ChainOnBoard> of(Revision r) {
    Map<String, String> group = new HashMap<>();
    for (Part p : r.parts()) {
      PartKind k = p.kind();
      if (p.fitted() && (k == PartKind.CHIP || k == PartKind.LED || k == PartKind.MODULE)) {
        String code = p.code().isEmpty() ? p.value() + " " + p.packageName() : p.code();
        group.put(p.reference(), code);
      }
    }
    // by code and the two pins: from which element to which
    Map<String, Map<String, String>> steps = new TreeMap<>();
    for (String net : r.nets()) {
      List<Joint> on = r.net(net).stream().filter(j -> group.containsKey(j.part())).toList();
      if (on.size() != 2) {
        continue;
      }
      Joint a = on.get(0);
      Joint b = on.get(1);
      if (a.part().equals(b.part())
          || !group.get(a.part()).equals(group.get(b.part()))
          || a.pin().equals(b.pin())) {
        continue;
      }
      boolean inOrder = a.pin().compareTo(b.pin()) < 0;
      Joint from = inOrder ? a : b;
      Joint to = inOrder ? b : a;
      String key = group.get(from.part()) + "\n" + from.pin() + "\n" + to.pin();
      steps.computeIfAbsent(key, _ -> new LinkedHashMap<>()).putIfAbsent(from.part(), to.part());
    }
    List<ChainOnBoard> all = new ArrayList<>();
    Map<String, List<ChainOnBoard>> byCode = new LinkedHashMap<>();
    steps.forEach((key, next) -> {
      String[] k = key.split("\n");
      byCode.computeIfAbsent(k[0], _ -> new ArrayList<>()).addAll(runs(r, k, next));
    });
    // two buses in parallel make two ways through the same elements: one of them is told
    byCode
        .values()
        .forEach(list -> {
          list.sort((a, b) -> Integer.compare(b.elements().size(), a.elements().size()));
          Set<String> taken = new HashSet<>();
          for (ChainOnBoard c : list) {
            if (c.elements().stream().noneMatch(taken::contains)) {
              taken.addAll(c.elements());
              all.add(c);
            }
          }
        });
    all.sort((a, b) -> Integer.compare(b.elements().size(), a.elements().size()));
    return all;
  }

  private static List<ChainOnBoard> runs(Revision r, String[] key, Map<String, String> next) {
    Set<String> reached = new HashSet<>(next.values());
    List<ChainOnBoard> all = new ArrayList<>();
    for (String first : next.keySet()) {
      if (reached.contains(first)) {
        continue;
      }
      List<String> run = new ArrayList<>();
      Set<String> seen = new HashSet<>();
      for (String at = first; at != null && seen.add(at); at = next.get(at)) {
        run.add(at);
      }
      if (run.size() < FEWEST && (run.size() < 2 || alike(r, run) < ALIKE)) {
        continue;
      }
      Optional<String> ahead = outside(r, run.getFirst(), key[2]);
      Optional<String> behind = outside(r, run.getLast(), key[1]);
      if (ahead.isEmpty() && behind.isPresent()) {
        all.add(new ChainOnBoard(key[0], run.reversed(), key[1], key[2], behind.get()));
      } else {
        all.add(new ChainOnBoard(key[0], run, key[2], key[1], ahead.orElse("")));
      }
    }
    return all;
  }

  /// How many pins of the first two hang on the same nets.
  private static long alike(Revision r, List<String> run) {
    return r.jointsOf(run.getFirst()).stream()
        .filter(Joint::connected)
        .filter(j -> r.joint(run.get(1), j.pin()).filter(o -> o.net().equals(j.net())).isPresent())
        .count();
  }

  /// What drives or reads an end: a chip of another kind or a connector on its net, or behind a
  /// resistor in series. A resistor to a rail drives nothing.
  private static Optional<String> outside(Revision r, String part, String pin) {
    Optional<Joint> end = r.joint(part, pin).filter(Joint::connected);
    if (end.isEmpty()) {
      return Optional.empty();
    }
    Optional<String> here = speaks(r, end.get().net(), part);
    if (here.isPresent()) {
      return here;
    }
    for (Joint j : r.net(end.get().net())) {
      if (PartKind.of(j.part()) == PartKind.RESISTOR) {
        for (Joint o : r.jointsOf(j.part())) {
          if (o.connected() && !o.net().equals(j.net()) && r.net(o.net()).size() < 8) {
            Optional<String> there = speaks(r, o.net(), part);
            if (there.isPresent()) {
              return there;
            }
          }
        }
      }
    }
    return Optional.empty();
  }

  private static Optional<String> speaks(Revision r, String net, String not) {
    return r.net(net).stream()
        .filter(j -> !j.part().equals(not))
        .filter(j -> {
          PartKind k = r.part(j.part()).map(PartKind::of).orElse(PartKind.of(j.part()));
          return k == PartKind.CONNECTOR || k == PartKind.CHIP || k == PartKind.MODULE;
        })
        .map(Joint::place)
        .findFirst();
  }

  /// The joint of an element that leads towards the first, counted from 1.
  public String nearJoint(int element) {
    return elements.get(element - 1) + "." + near;
  }

  /// The joint of an element that leads on, counted from 1.
  public String farJoint(int element) {
    return elements.get(element - 1) + "." + far;
  }
}
