package ell.core.order;

import ell.core.board.Block;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/// Works out a [BuildOrder]: the precedence graph over the fitted parts of a revision and the walk
/// along it. Used once.
final class Planner {
  private static final double LEVEL_MM = 0.05;

  private final Revision revision;
  private final Method method;
  private final List<Block> blocks;
  private final List<Part> parts;
  private final int[] blockOf;
  private final int[] phase;
  private final Bodies bodies;
  private final List<List<Arrow>> into;
  private final List<List<Arrow>> out;
  private final List<Step> steps = new ArrayList<>();
  private final List<String> dropped = new ArrayList<>();

  Planner(Revision revision, Method method, List<Block> blocks) {
    this.revision = revision;
    this.method = method;
    this.blocks = blocks;
    this.parts = revision.parts().stream().filter(Part::fitted).toList();
    Map<String, Integer> index = new HashMap<>();
    for (int b = 0; b < blocks.size(); b++) {
      for (String r : blocks.get(b).parts()) {
        index.putIfAbsent(r, b);
      }
    }
    this.blockOf = new int[parts.size()];
    this.phase = new int[parts.size()];
    this.into = new ArrayList<>();
    this.out = new ArrayList<>();
    for (int i = 0; i < parts.size(); i++) {
      blockOf[i] = index.getOrDefault(parts.get(i).reference(), blocks.size());
      phase[i] = phaseOf(parts.get(i));
      into.add(new ArrayList<>(2));
      out.add(new ArrayList<>(2));
    }
    this.bodies = new Bodies(revision, parts);
    coveringByHand();
    arrows();
  }

  /// With a plate: first side, second side, then by hand. Block by block otherwise: all alike.
  private int phaseOf(Part p) {
    if (method != Method.STENCIL_PLATE) {
      return 0;
    }
    return BuildOrder.byHand(revision, p) ? 2 : p.side() == Side.FIRST ? 0 : 1;
  }

  /// What would cover a part that is soldered by hand cannot lie in the paste before it: it is
  /// soldered by hand as well, after it.
  private void coveringByHand() {
    boolean moved = method == Method.STENCIL_PLATE;
    while (moved) {
      boolean[] any = {false};
      bodies.near(
          0,
          (a, b) -> {
            int low = bodies.height(a) < bodies.height(b) ? a : b;
            int high = low == a ? b : a;
            if (phase[low] == 2 && phase[high] != 2 && over(high, low)) {
              phase[high] = 2;
              any[0] = true;
            }
          });
      moved = any[0];
    }
  }

  private boolean over(int high, int low) {
    return bodies.height(high) - bodies.height(low) >= LEVEL_MM && bodies.covers(high, low);
  }

  /// The references that lie in paste.
  Set<String> inPaste() {
    Set<String> found = new HashSet<>();
    for (int i = 0; i < parts.size(); i++) {
      if (phase[i] != 2 && method == Method.STENCIL_PLATE) {
        found.add(name(i));
      }
    }
    return found;
  }

  /// The rank of a part's block: in paste every block of a side is melted at once, so that blocks
  /// order only what is soldered by hand.
  private int rank(int i) {
    return soldered(i) ? blockOf[i] : 0;
  }

  private boolean soldered(int i) {
    return phase[i] == 2 || method != Method.STENCIL_PLATE;
  }

  private void arrows() {
    double clearance =
        method == Method.HOT_AIR ? BuildOrder.HOT_AIR_CLEARANCE : BuildOrder.IRON_CLEARANCE;
    bodies.near(
        clearance,
        (a, b) -> {
          boolean aLow = bodies.height(a) < bodies.height(b);
          boolean level = Math.abs(bodies.height(a) - bodies.height(b)) < LEVEL_MM;
          int low = aLow ? a : b;
          int high = aLow ? b : a;
          if (!level && bodies.covers(high, low)) {
            arrow(low, high, name(high) + " will cover it", 10);
          } else if (!level && soldered(a) && soldered(b) && phase[a] == phase[b]) {
            arrow(
                low,
                high,
                "lower than " + name(high) + " beside it (" + mm(low) + " under " + mm(high) + ")",
                3);
          }
        });
  }

  private String name(int i) {
    return parts.get(i).reference();
  }

  private String mm(int i) {
    return String.format(java.util.Locale.ROOT, "%.1f mm", bodies.height(i));
  }

  private void arrow(int before, int after, String reason, int cost) {
    Arrow a = new Arrow(before, after, reason, cost);
    out.get(before).add(a);
    into.get(after).add(a);
  }

  BuildOrder plan() {
    int[] waiting = new int[parts.size()];
    for (int i = 0; i < waiting.length; i++) {
      for (Arrow a : into.get(i)) {
        // an arrow against the phases is kept only when it means that something would be covered
        waiting[i] += counts(a) ? 1 : 0;
      }
    }
    boolean[] done = new boolean[parts.size()];
    Ready ready = new Ready();
    for (int i = 0; i < waiting.length; i++) {
      if (waiting[i] == 0) {
        ready.add(i);
      }
    }
    int left = parts.size();
    int phaseNow = -1;
    int gate = 0;
    int[] open = new int[blocks.size() + 1];
    for (int i = 0; i < parts.size(); i++) {
      open[blockOf[i]]++;
    }
    double[] at = null;
    String reel = "";
    while (left > 0) {
      if (ready.isEmpty()) {
        int freed = breakLoop(waiting, done);
        ready.add(freed);
      }
      int next = ready.next(phaseNow, at, reel);
      if (phase[next] != phaseNow && method == Method.STENCIL_PLATE) {
        closePhase(phaseNow);
        gate = gates(gate, open, phaseNow >= 0);
        openPhase(phase[next]);
      }
      phaseNow = phase[next];
      List<Integer> group = ready.group(next);
      place(group, !parts.get(next).code().equals(reel));
      reel = parts.get(next).code();
      for (int i : group) {
        done[i] = true;
        left--;
        open[blockOf[i]]--;
        for (Arrow a : out.get(i)) {
          if (counts(a)
              && --waiting[a.after()] == 0
              && !done[a.after()]
              && !ready.contains(a.after())) {
            ready.add(a.after());
          }
        }
        at = parts.get(i).place().map(s -> new double[] {s.xMm(), s.yMm()}).orElse(at);
      }
      if (method != Method.STENCIL_PLATE || phaseNow == 2) {
        gate = gates(gate, open, true);
      }
    }
    closePhase(phaseNow);
    gates(gate, open, true);
    return new BuildOrder(method, steps, dropped);
  }

  private boolean counts(Arrow a) {
    return phase[a.before()] <= phase[a.after()] || a.cost() >= 10;
  }

  /// Frees the waiting part whose open arrows are cheapest to drop, and says so.
  private int breakLoop(int[] waiting, boolean[] done) {
    int best = -1;
    int cheapest = Integer.MAX_VALUE;
    for (int i = 0; i < waiting.length; i++) {
      if (!done[i]) {
        int cost =
            into.get(i).stream()
                .filter(a -> counts(a) && !done[a.before()])
                .mapToInt(Arrow::cost)
                .sum();
        if (cost < cheapest) {
          cheapest = cost;
          best = i;
        }
      }
    }
    for (Arrow a : into.get(best)) {
      if (counts(a) && !done[a.before()]) {
        dropped.add(
            "a loop: "
                + name(a.before())
                + " should come before "
                + name(best)
                + " ("
                + a.reason()
                + "), and cannot");
      }
    }
    waiting[best] = 0;
    return best;
  }

  private int gates(int gate, int[] open, boolean started) {
    int g = gate;
    while (started && g < blocks.size() && open[g] == 0 && ready(g)) {
      Block b = blocks.get(g);
      add(
          Step.Action.GATE,
          List.of(),
          Side.FIRST,
          Optional.of(b.gate()),
          b.name(),
          StepTimes.GATE,
          List.of(b.question(), "proved before anything hides it or hangs on it"),
          g == 0
              ? List.of("Supply with a current limit; cell and modules off the board.")
              : List.of());
      g++;
    }
    return g;
  }

  /// A block of parts that lie in paste is proved only after its side was melted.
  private boolean ready(int g) {
    return method != Method.STENCIL_PLATE
        || steps.isEmpty()
        || steps.getLast().action() != Step.Action.PLACE;
  }

  private void openPhase(int p) {
    if (p == 2) {
      return;
    }
    Side side = p == 0 ? Side.FIRST : Side.SECOND;
    List<String> why =
        p == 0
            ? List.of("the side with the parts that the stencil is for")
            : List.of("second side after the first is soldered");
    add(
        Step.Action.PASTE,
        List.of(),
        side,
        Optional.empty(),
        "",
        StepTimes.PASTE,
        why,
        List.of(
            "Foil edges are razor sharp: gloves.",
            "Paste holds flux and metal, some of it lead: no food here, wash hands. The paste's data sheet decides."));
  }

  private void closePhase(int p) {
    if (method != Method.STENCIL_PLATE || p < 0 || p == 2) {
      return;
    }
    Side side = p == 0 ? Side.FIRST : Side.SECOND;
    add(
        Step.Action.REFLOW,
        List.of(),
        side,
        Optional.empty(),
        "",
        StepTimes.REFLOW,
        List.of("every pasted part of this side lies in its paste"),
        List.of("Hot plate: burns and fumes. Extraction on, hands off until it is below 50 °C."));
  }

  private void place(List<Integer> group, boolean newReel) {
    int i = group.getFirst();
    Part p = parts.get(i);
    boolean hand = soldered(i);
    Step.Action action =
        !hand
            ? Step.Action.PLACE
            : p.kind() == PartKind.MODULE
                ? Step.Action.PLUG
                : method == Method.HOT_AIR && !revision.throughHole(p)
                    ? Step.Action.HOT_AIR
                    : Step.Action.SOLDER;
    double seconds = newReel ? StepTimes.REEL : 0;
    for (int k : group) {
      seconds += seconds(action, parts.get(k));
    }
    boolean oneBlock = group.stream().allMatch(k -> blockOf[k] == blockOf[i]);
    String block = oneBlock && blockOf[i] < blocks.size() ? blocks.get(blockOf[i]).name() : "";
    add(
        action,
        group.stream().map(this::name).toList(),
        p.side(),
        Optional.empty(),
        block,
        seconds,
        reasons(group),
        cautions(action, p));
  }

  private double seconds(Step.Action action, Part p) {
    int pins = revision.jointsOf(p.reference()).size();
    return switch (action) {
      case PLACE, PLUG -> StepTimes.PLACE;
      case HOT_AIR -> StepTimes.PLACE + StepTimes.PASTE_DOT * pins + StepTimes.HOT_AIR;
      default ->
          p.kind() == PartKind.CONNECTOR
              ? StepTimes.CONNECTOR + StepTimes.PIN * pins
              : pins <= 2 ? StepTimes.TWO_ENDED : StepTimes.PLACE + StepTimes.PIN * pins;
    };
  }

  private List<String> reasons(List<Integer> group) {
    List<String> why = new ArrayList<>();
    int first = group.getFirst();
    if (soldered(first) && blockOf[first] < blocks.size()) {
      why.add(
          "block "
              + blocks.get(blockOf[first]).name()
              + ", which gate "
              + blocks.get(blockOf[first]).gate()
              + " proves");
    }
    if (method == Method.STENCIL_PLATE) {
      why.add(
          switch (phase[first]) {
            case 0 -> "into the paste of the first side, lowest first (" + mm(first) + ")";
            case 1 -> "second side, after the first, lowest first (" + mm(first) + ")";
            default -> "by hand, after what is reflowed";
          });
    }
    for (int i : group) {
      out.get(i).stream().limit(2).forEach(a -> addOnce(why, a.reason()));
    }
    if (group.size() > 1) {
      why.add(group.size() + " of the same reel in one go");
    }
    if (why.isEmpty()) {
      why.add("nothing has to come before it, and it lies nearest");
    }
    return why.size() > 5 ? why.subList(0, 5) : why;
  }

  private static void addOnce(List<String> list, String text) {
    if (!list.contains(text)) {
      list.add(text);
    }
  }

  private List<String> cautions(Step.Action action, Part p) {
    List<String> care = new ArrayList<>();
    switch (p.kind()) {
      case DIODE, LED -> care.add("Mind the mark: it goes one way round.");
      case CELL -> care.add("No cell in the holder until the rails are proved.");
      case CHIP -> care.add("Mind pin 1.");
      case CAPACITOR -> {
        if (revision.throughHole(p)) {
          care.add("A reversed electrolytic bursts: mind the stripe, eyes covered at first power.");
        }
      }
      default -> {}
    }
    if (action == Step.Action.SOLDER) {
      care.add(
          revision.throughHole(p)
              ? "Cut leads fly: glasses on, cut downward. Fumes: extraction on."
              : "Iron tip and fumes: extraction on.");
    } else if (action == Step.Action.HOT_AIR) {
      care.add("Hot air burns and blows parts away: least air, hold the part.");
    }
    return care;
  }

  private void add(
      Step.Action action,
      List<String> refs,
      Side side,
      Optional<String> gate,
      String block,
      double seconds,
      List<String> reasons,
      List<String> cautions) {
    steps.add(
        new Step(steps.size() + 1, action, refs, side, gate, block, seconds, reasons, cautions));
  }

  /// The parts that may come next, sorted so that the next one is found in logarithmic time: by
  /// phase, block, height and reel.
  private final class Ready {
    private final TreeSet<Integer> sorted =
        new TreeSet<>((a, b) -> {
          int c = Integer.compare(phase[a], phase[b]);
          c = c != 0 ? c : Integer.compare(rank(a), rank(b));
          c =
              c != 0 || method == Method.STENCIL_PLATE
                  ? c
                  : Integer.compare(parts.get(a).side().ordinal(), parts.get(b).side().ordinal());
          c =
              c != 0
                  ? c
                  : Long.compare(
                      Math.round(bodies.height(a) * 20), Math.round(bodies.height(b) * 20));
          c = c != 0 ? c : parts.get(a).code().compareTo(parts.get(b).code());
          return c != 0 ? c : Integer.compare(a, b);
        });

    boolean isEmpty() {
      return sorted.isEmpty();
    }

    void add(int i) {
      sorted.add(i);
    }

    boolean contains(int i) {
      return sorted.contains(i);
    }

    /// The next part: the first by rank, or of its equals in rank the nearest to the hand.
    int next(int phaseNow, double[] at, String reel) {
      int first = sorted.first();
      if (at == null) {
        return first;
      }
      int best = first;
      double nearest = Double.POSITIVE_INFINITY;
      int looked = 0;
      for (int i : sorted) {
        if (looked++ > 24 || !alike(first, i)) {
          break;
        }
        double d =
            parts.get(i).place().map(s -> Math.hypot(s.xMm() - at[0], s.yMm() - at[1])).orElse(1e6)
                - (parts.get(i).code().equals(reel) ? 50 : 0);
        if (d < nearest) {
          nearest = d;
          best = i;
        }
      }
      return best;
    }

    private boolean alike(int a, int b) {
      return phase[a] == phase[b]
          && rank(a) == rank(b)
          && parts.get(a).side() == parts.get(b).side()
          && Math.round(bodies.height(a) * 20) == Math.round(bodies.height(b) * 20);
    }

    /// Takes `next` and every equal part of the same reel that is ready, nearest neighbour first.
    List<Integer> group(int next) {
      List<Integer> same = new ArrayList<>();
      Part p = parts.get(next);
      boolean reelable = bodies.shape(next).chipCode().length() > 0 || !soldered(next);
      if (reelable) {
        for (int i : sorted.tailSet(lowest(next))) {
          if (!alike(next, i) || !parts.get(i).code().equals(p.code())) {
            break;
          }
          if (i != next) {
            same.add(i);
          }
        }
      }
      sorted.remove(next);
      sorted.removeAll(same);
      List<Integer> tour = new ArrayList<>(List.of(next));
      while (!same.isEmpty()) {
        int from = tour.getLast();
        int best = 0;
        // beyond a few hundred of one reel the exact nearest is not worth the time
        for (int k = 1; k < Math.min(same.size(), 200); k++) {
          if (distance(from, same.get(k)) < distance(from, same.get(best))) {
            best = k;
          }
        }
        tour.add(same.get(best));
        same.set(best, same.getLast());
        same.removeLast();
      }
      return tour;
    }

    /// The first ready part with the same rank and reel.
    private int lowest(int next) {
      int low = next;
      while (true) {
        Integer before = sorted.lower(low);
        if (before == null
            || !alike(before, next)
            || !parts.get(before).code().equals(parts.get(next).code())) {
          return low;
        }
        low = before;
      }
    }

    private double distance(int a, int b) {
      var p = parts.get(a).place();
      var q = parts.get(b).place();
      return p.isEmpty() || q.isEmpty()
          ? 1e6
          : Math.hypot(p.get().xMm() - q.get().xMm(), p.get().yMm() - q.get().yMm());
    }
  }
}
