package ell.core.order;

import ell.core.board.Block;
import ell.core.board.GateNeed;
import ell.core.board.Part;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.BooleanSupplier;

/// Works out a [BuildOrder]: precedence, then each stretch in the order that costs least, then
/// steps and gates. Used once.
final class Planner {
  private final Revision revision;
  private final Method method;
  private final List<Block> blocks;
  private final Precedence before;
  private final int panel;
  private final BooleanSupplier stop;

  Planner(
      Revision revision,
      Method method,
      List<Block> blocks,
      List<Wish> wishes,
      int panel,
      BooleanSupplier stop) {
    this.revision = revision;
    this.method = method;
    this.blocks = blocks;
    this.panel = panel;
    this.stop = stop;
    this.before = new Precedence(revision, method, blocks, wishes);
  }

  BuildOrder plan() {
    TreeMap<Integer, List<Integer>> stretches = new TreeMap<>();
    for (int i = 0; i < before.parts.size(); i++) {
      stretches.computeIfAbsent(before.stretch[i], _ -> new ArrayList<>()).add(i);
    }
    Map<String, Integer> reels = new HashMap<>();
    StepMaker maker = new StepMaker(revision, method, blocks, before, panel);
    double seconds = 0;
    double bound = 0;
    boolean exact = true;
    for (List<Integer> own : stretches.values()) {
      Sequencer s = sequencer(own, reels);
      int[] order = s.solve();
      seconds += s.cost(order);
      bound += s.bound();
      exact &= s.isExact();
      List<Integer> inOrder = new ArrayList<>();
      for (int k : order) {
        inOrder.add(own.get(k));
      }
      maker.stretch(inOrder);
    }
    return new BuildOrder(
        method,
        maker.done(),
        before.links.stream().map(before::arrow).toList(),
        before.loops,
        before.notes,
        inPaste(),
        gateNeeds(),
        new BuildOrder.Effort(seconds, Math.min(bound, seconds), exact));
  }

  private Sequencer sequencer(List<Integer> own, Map<String, Integer> reels) {
    Map<Integer, Integer> local = new HashMap<>();
    double[][] places = new double[own.size()][];
    int[] reel = new int[own.size()];
    int[] side = new int[own.size()];
    double[] height = new double[own.size()];
    for (int k = 0; k < own.size(); k++) {
      Part p = before.parts.get(own.get(k));
      local.put(own.get(k), k);
      places[k] = p.place().map(s -> new double[] {s.xMm(), s.yMm()}).orElse(null);
      reel[k] = reels.computeIfAbsent(p.code(), _ -> reels.size());
      side[k] = p.side().ordinal();
      height[k] = before.bodies.height(own.get(k));
    }
    List<int[]> arrows = new ArrayList<>();
    for (Precedence.Link l : linksOf(before.stretch[own.getFirst()])) {
      arrows.add(new int[] {local.get(l.before()), local.get(l.after())});
    }
    return new Sequencer(places, reel, side, height, before.soldered(own.getFirst()), arrows, stop);
  }

  private Map<Integer, List<Precedence.Link>> byStretch;

  private List<Precedence.Link> linksOf(int stretch) {
    if (byStretch == null) {
      byStretch = new HashMap<>();
      for (Precedence.Link l : before.links) {
        if (before.stretch[l.before()] == before.stretch[l.after()]) {
          byStretch.computeIfAbsent(before.stretch[l.before()], _ -> new ArrayList<>()).add(l);
        }
      }
    }
    return byStretch.getOrDefault(stretch, List.of());
  }

  /// The references that lie in paste.
  private Set<String> inPaste() {
    Set<String> found = new HashSet<>();
    for (int i = 0; i < before.parts.size(); i++) {
      if (before.phase[i] >= 0 && !before.soldered(i)) {
        found.add(before.name(i));
      }
    }
    return found;
  }

  /// A gate needs the parts of its block and of those before it, and what lies under them.
  private List<GateNeed> gateNeeds() {
    List<GateNeed> needs = new ArrayList<>();
    Set<String> sofar = new HashSet<>();
    for (int b = 0; b < blocks.size(); b++) {
      for (int i = 0; i < before.parts.size(); i++) {
        if (before.blockOf[i] == b) {
          sofar.add(before.name(i));
        }
      }
      needs.add(new GateNeed(blocks.get(b).gate(), before.closure(sofar)));
    }
    return needs;
  }
}
