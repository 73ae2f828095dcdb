package ell.core.revise.difference;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// Tells parts and nets of two drawings apart by what they join: every part gets a colour from its
/// kind and from the colours of the nets at its pins, every net from the colours at its ends, round
/// by round (Weisfeiler and Leman). What was matched already has a colour of its own. A net with
/// many ends says little until it is matched: it has one colour, so that a change at one of its
/// ends does not reach all others.
final class Colours {
  /// A net with more ends is a plane or a bus of supply.
  static final int MANY = 14;

  private final Drawn a;
  private final Drawn b;
  private final int[] to;
  private final Map<String, String> nets;
  private final Map<String, Integer> ids = new HashMap<>();
  private int[] partsA;
  private int[] partsB;
  private Map<String, Integer> netsA;
  private Map<String, Integer> netsB;

  /// @param to which part of the second each of the first is, -1 for none yet
  /// @param nets those that are matched, from the first to the second
  Colours(Drawn a, Drawn b, int[] to, Map<String, String> nets) {
    this.a = a;
    this.b = b;
    this.to = to;
    this.nets = nets;
    start();
  }

  private int id(String signature) {
    return ids.computeIfAbsent(signature, _ -> ids.size());
  }

  private void start() {
    partsA = new int[a.size()];
    partsB = new int[b.size()];
    for (int i = 0; i < a.size(); i++) {
      partsA[i] = id(own(a.item(i)));
    }
    for (int i = 0; i < b.size(); i++) {
      partsB[i] = id(own(b.item(i)));
    }
    for (int i = 0; i < a.size(); i++) {
      if (to[i] >= 0) {
        int c = id("matched " + i);
        partsA[i] = c;
        partsB[to[i]] = c;
      }
    }
    netsA = new HashMap<>();
    netsB = new HashMap<>();
    for (String n : a.nets()) {
      netsA.put(n, id(a.size(n) > MANY ? "many" : "net"));
    }
    for (String n : b.nets()) {
      netsB.put(n, id(b.size(n) > MANY ? "many" : "net"));
    }
    nets.forEach((x, y) -> {
      int c = id("net " + x);
      netsA.put(x, c);
      netsB.put(y, c);
    });
  }

  /// What a part is by itself.
  private static String own(Drawn.Item i) {
    String value = i.value().strip().toLowerCase(java.util.Locale.ROOT);
    return "part "
        + i.kind()
        + "|"
        + value
        + "|"
        + i.packageName().strip().toLowerCase(java.util.Locale.ROOT)
        + "|"
        + i.pins().keySet();
  }

  /// Looks one step further.
  void round() {
    Map<String, Integer> nextA = ends(a, partsA, netsA);
    Map<String, Integer> nextB = ends(b, partsB, netsB);
    int[] pa = pins(a, partsA, nextA, false);
    int[] pb = pins(b, partsB, nextB, true);
    partsA = pa;
    partsB = pb;
    netsA = nextA;
    netsB = nextB;
  }

  private Map<String, Integer> ends(Drawn d, int[] parts, Map<String, Integer> was) {
    Map<String, List<String>> at = new HashMap<>();
    for (int i = 0; i < d.size(); i++) {
      int c = parts[i];
      d.item(i)
          .pins()
          .forEach((pin, net) -> {
            if (!net.isEmpty() && d.size(net) <= MANY) {
              at.computeIfAbsent(net, _ -> new ArrayList<>()).add(c + "." + pin);
            }
          });
    }
    Map<String, Integer> next = new HashMap<>(was);
    Map<String, String> back = new HashMap<>();
    nets.forEach((x, y) -> back.put(y, x));
    at.forEach((net, ends) -> {
      boolean matched = d == a ? nets.containsKey(net) : back.containsKey(net);
      if (!matched) {
        String[] sorted = ends.toArray(String[]::new);
        Arrays.sort(sorted);
        next.put(net, id("ends " + was.get(net) + String.join(",", sorted)));
      }
    });
    return next;
  }

  private int[] pins(Drawn d, int[] was, Map<String, Integer> nets, boolean second) {
    int[] next = was.clone();
    boolean[] known = new boolean[d.size()];
    for (int i = 0; i < to.length; i++) {
      if (to[i] >= 0) {
        known[second ? to[i] : i] = true;
      }
    }
    for (int i = 0; i < d.size(); i++) {
      if (!known[i]) {
        StringBuilder s = new StringBuilder("pins ").append(was[i]);
        d.item(i)
            .pins()
            .forEach((pin, net) ->
                s.append(' ')
                    .append(pin)
                    .append('=')
                    .append(net.isEmpty() ? -1 : nets.getOrDefault(net, -2)));
        next[i] = id(s.toString());
      }
    }
    return next;
  }

  /// Parts of the first that are alone in their colour, with the one of the second that is alone in
  /// it too.
  List<int[]> alone() {
    Map<Integer, int[]> seen = new HashMap<>();
    for (int i = 0; i < partsA.length; i++) {
      if (to[i] < 0) {
        int[] s = seen.computeIfAbsent(partsA[i], _ -> new int[] {0, -1, 0, -1});
        s[0]++;
        s[1] = i;
      }
    }
    boolean[] taken = new boolean[partsB.length];
    for (int t : to) {
      if (t >= 0) {
        taken[t] = true;
      }
    }
    for (int i = 0; i < partsB.length; i++) {
      int[] s = taken[i] ? null : seen.get(partsB[i]);
      if (s != null) {
        s[2]++;
        s[3] = i;
      }
    }
    List<int[]> all = new ArrayList<>();
    for (int[] s : seen.values()) {
      if (s[0] == 1 && s[2] == 1) {
        all.add(new int[] {s[1], s[3]});
      }
    }
    all.sort(java.util.Comparator.comparingInt(p -> p[0]));
    return all;
  }

  /// Parts that share a colour on both sides and are not matched: the lists of the first and
  /// second, each in the order of its drawing.
  List<List<List<Integer>>> groups() {
    Map<Integer, List<List<Integer>>> by = new java.util.LinkedHashMap<>();
    boolean[] taken = new boolean[partsB.length];
    for (int i = 0; i < partsA.length; i++) {
      if (to[i] >= 0) {
        taken[to[i]] = true;
      } else {
        by.computeIfAbsent(partsA[i], _ -> List.of(new ArrayList<>(), new ArrayList<>()))
            .get(0)
            .add(i);
      }
    }
    for (int i = 0; i < partsB.length; i++) {
      List<List<Integer>> g = taken[i] ? null : by.get(partsB[i]);
      if (g != null) {
        g.get(1).add(i);
      }
    }
    return by.values().stream().filter(g -> !g.get(1).isEmpty()).toList();
  }
}
