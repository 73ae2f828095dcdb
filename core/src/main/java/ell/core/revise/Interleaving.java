package ell.core.revise;

import ell.core.board.Revision;
import ell.core.revise.WorkOrder.Doing;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Steps of several bodges in one order, each bodge's own steps in theirs: the order that heats
/// least, and among those the one that changes the tool least. Exact: over how far each bodge is
/// and which one the last step was of, every way is looked at once.
final class Interleaving {
  private static final int HEAT = 10_000;

  private final List<List<Doing>> lists;
  private final List<List<Set<String>>> heats = new ArrayList<>();
  private final Map<List<Integer>, Integer> least = new HashMap<>();
  private final Map<List<Integer>, Integer> next = new HashMap<>();

  Interleaving(List<List<Doing>> lists, Revision revision) {
    this.lists = lists;
    lists.forEach(l -> heats.add(l.stream().map(d -> d.step().heats(revision)).toList()));
  }

  List<Doing> best() {
    int[] far = new int[lists.size()];
    int last = -1;
    List<Doing> order = new ArrayList<>();
    while (true) {
      cost(far, last);
      Integer n = next.get(key(far, last));
      if (n == null) {
        return order;
      }
      order.add(lists.get(n).get(far[n]));
      far[n]++;
      last = n;
    }
  }

  private static List<Integer> key(int[] far, int last) {
    List<Integer> k = new ArrayList<>(far.length + 1);
    for (int f : far) {
      k.add(f);
    }
    k.add(last);
    return k;
  }

  private int cost(int[] far, int last) {
    List<Integer> key = key(far, last);
    Integer known = least.get(key);
    if (known != null) {
      return known;
    }
    int best = Integer.MAX_VALUE;
    int which = -1;
    for (int i = 0; i < far.length; i++) {
      if (far[i] == lists.get(i).size()) {
        continue;
      }
      int c = step(far, last, i);
      far[i]++;
      c += cost(far, i);
      far[i]--;
      if (c < best) {
        best = c;
        which = i;
      }
    }
    int is = which < 0 ? 0 : best;
    least.put(key, is);
    if (which >= 0) {
      next.put(key, which);
    }
    return is;
  }

  private int step(int[] far, int last, int i) {
    Set<String> now = heats.get(i).get(far[i]);
    if (last < 0) {
      return HEAT * now.size();
    }
    Set<String> before = heats.get(last).get(far[last] - 1);
    int c = 0;
    for (String p : now) {
      c += before.contains(p) ? 0 : HEAT;
    }
    boolean same =
        lists.get(i).get(far[i]).step().tool() == lists.get(last).get(far[last] - 1).step().tool();
    return same ? c : c + 1;
  }
}
