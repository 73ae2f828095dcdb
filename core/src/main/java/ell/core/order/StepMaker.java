package ell.core.order;

import ell.core.board.Block;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Makes steps of parts in their order: equal parts in one go, paste and reflow around a side,
/// gates where a block is complete; with reasons, hints and cautions.
final class StepMaker {
  private static final int PLANE = 12;

  private final Revision revision;
  private final Method method;
  private final List<Block> blocks;
  private final Precedence before;
  private final List<Step> steps = new ArrayList<>();
  private final Map<Integer, List<Precedence.Link>> out = new HashMap<>();
  private final int[] open;
  private int gate;
  private int phaseNow = -1;

  StepMaker(Revision revision, Method method, List<Block> blocks, Precedence before) {
    this.revision = revision;
    this.method = method;
    this.blocks = blocks;
    this.before = before;
    this.open = new int[blocks.size() + 1];
    for (int i = 0; i < before.parts.size(); i++) {
      open[Math.min(before.blockOf[i], blocks.size())]++;
    }
    before.links.forEach(l -> out.computeIfAbsent(l.before(), _ -> new ArrayList<>(2)).add(l));
  }

  /// Adds the steps of one stretch.
  void stretch(List<Integer> order) {
    int phase = method == Method.STENCIL_PLATE ? before.phase[order.getFirst()] : 2;
    if (phase != phaseNow) {
      closePhase();
      gates();
      openPhase(phase);
      phaseNow = phase;
    }
    int at = 0;
    String reel = "";
    while (at < order.size()) {
      int to = at + 1;
      while (to < order.size() && alike(order.get(at), order.get(to))) {
        to++;
      }
      List<Integer> group = order.subList(at, to);
      String code = before.parts.get(order.get(at)).code();
      place(group, !code.equals(reel));
      reel = code;
      group.forEach(i -> open[Math.min(before.blockOf[i], blocks.size())]--);
      if (phase == 2) {
        gates();
      }
      at = to;
    }
  }

  /// The steps, closed.
  List<Step> done() {
    closePhase();
    phaseNow = 2;
    gates();
    return steps;
  }

  /// Whether two parts that follow each other are one step with its places: the same part on the
  /// same side.
  private boolean alike(int a, int b) {
    Part p = before.parts.get(a);
    Part q = before.parts.get(b);
    // what is squared up or plugged in is taken one by one
    boolean reelable =
        !before.soldered(a)
            || switch (p.kind()) {
              case CONNECTOR, MODULE, CELL, SWITCH -> false;
              default -> true;
            };
    return reelable
        && p.code().equals(q.code())
        && p.side() == q.side()
        && before.phase[a] == before.phase[b]
        && action(a) == action(b)
        && (!before.soldered(a) || before.blockOf[a] == before.blockOf[b]);
  }

  private void gates() {
    while (!steps.isEmpty()
        && gate < blocks.size()
        && open[gate] == 0
        && (phaseNow == 2 || steps.getLast().action() != Step.Action.PLACE)) {
      Block b = blocks.get(gate);
      add(
          Step.Action.GATE,
          List.of(),
          Side.FIRST,
          Optional.of(b.gate()),
          b.name(),
          StepTimes.GATE,
          0,
          List.of(b.question(), "proved before anything hides it or hangs on it"),
          List.of(),
          gate == 0
              ? List.of("Supply with a current limit; cell and modules off the board.")
              : List.of());
      gate++;
    }
  }

  private void openPhase(int p) {
    if (p == 2) {
      return;
    }
    add(
        Step.Action.PASTE,
        List.of(),
        p == 0 ? Side.FIRST : Side.SECOND,
        Optional.empty(),
        "",
        StepTimes.PASTE,
        0,
        p == 0
            ? List.of("the side with the parts that the stencil is for")
            : List.of("second side after the first is soldered"),
        p == 0
            ? List.of("One pass, one pressure; look along the foil before it is lifted.")
            : List.of("One pass, one pressure; look along the foil before it is lifted.", held()),
        List.of(
            "Foil edges are razor sharp: gloves.",
            "Paste holds flux and metal, some of it lead: no food here, wash hands. The paste's data sheet decides."));
  }

  private void closePhase() {
    if (phaseNow < 0 || phaseNow == 2) {
      return;
    }
    add(
        Step.Action.REFLOW,
        List.of(),
        phaseNow == 0 ? Side.FIRST : Side.SECOND,
        Optional.empty(),
        "",
        StepTimes.REFLOW,
        0,
        List.of("every pasted part of this side lies in its paste"),
        phaseNow == 0 ? List.of() : List.of(held()),
        List.of("Hot plate: burns and fumes. Extraction on, hands off until it is below 50 °C."));
    tabs();
  }

  /// How the board is held while its second side is printed and heated.
  private String held() {
    double tallest = 0;
    String which = "";
    for (int i = 0; i < before.parts.size(); i++) {
      if (before.phase[i] == 0 && before.bodies.height(i) > tallest) {
        tallest = before.bodies.height(i);
        which = before.name(i);
      }
    }
    return which.isEmpty()
        ? "The first side is bare: the board lies flat on it."
        : String.format(
            java.util.Locale.ROOT,
            "The board stands on its edge, level, on rails or scraps of board of more than %.1f mm:"
                + " %s is the tallest below; nothing may touch the parts that hang there.",
            tallest,
            which);
  }

  /// Leads of parts that lay in paste are soldered by hand once the side is cold.
  private void tabs() {
    Side side = phaseNow == 0 ? Side.FIRST : Side.SECOND;
    List<String> with = new ArrayList<>();
    int leads = 0;
    for (int i = 0; i < before.parts.size(); i++) {
      if (before.phase[i] == phaseNow) {
        int own =
            (int)
                revision.jointsOf(before.name(i)).stream()
                    .filter(j -> j.hole() && j.plated())
                    .count();
        if (own > 0) {
          with.add(before.name(i));
          leads += own;
        }
      }
    }
    if (with.isEmpty()) {
      return;
    }
    add(
        Step.Action.TABS,
        List.of(),
        side,
        Optional.empty(),
        "",
        StepTimes.PIN * leads,
        0,
        List.of(
            leads
                + " leads of "
                + String.join(" ", with.stream().limit(8).toList())
                + (with.size() > 8 ? " and more" : "")
                + " go through holes, which paste does not fill"),
        List.of("From the other side, part held down until the first lead is set."),
        List.of("Iron tip and fumes: extraction on."));
  }

  private Step.Action action(int i) {
    Part p = before.parts.get(i);
    if (!before.soldered(i)) {
      return Step.Action.PLACE;
    }
    if (p.kind() == PartKind.MODULE) {
      return Step.Action.PLUG;
    }
    return method == Method.HOT_AIR && !revision.throughHole(p)
        ? Step.Action.HOT_AIR
        : Step.Action.SOLDER;
  }

  private void place(List<Integer> group, boolean newReel) {
    int first = group.getFirst();
    Part p = before.parts.get(first);
    Step.Action action = action(first);
    double setup = newReel ? StepTimes.REEL : 0;
    double seconds = setup;
    for (int k : group) {
      seconds += seconds(action, before.parts.get(k));
    }
    int b = before.blockOf[first];
    boolean one = group.stream().allMatch(k -> before.blockOf[k] == b);
    add(
        action,
        group.stream().map(before::name).toList(),
        p.side(),
        Optional.empty(),
        one && b < blocks.size() ? blocks.get(b).name() : "",
        seconds,
        setup,
        reasons(group),
        how(action, first),
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
    int b = before.blockOf[first];
    if (before.soldered(first) && b < blocks.size()) {
      why.add("block " + blocks.get(b).name() + ", which gate " + blocks.get(b).gate() + " proves");
    }
    if (method == Method.STENCIL_PLATE) {
      String own = before.byHandWhy(first);
      why.add(
          switch (before.phase[first]) {
            case 0 -> "into the paste of the first side (" + mm(first) + " tall)";
            case 1 -> "second side, after the first (" + mm(first) + " tall)";
            default -> "by hand, after what is reflowed" + (own.isEmpty() ? "" : ": " + own);
          });
    }
    for (int i : group) {
      out.getOrDefault(i, List.of()).stream()
          .sorted((x, y) -> y.why().cost() - x.why().cost())
          .limit(2)
          .forEach(l -> addOnce(why, l.reason()));
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

  /// How it is done well; common practice, no source.
  private List<String> how(Step.Action action, int i) {
    Part p = before.parts.get(i);
    List<String> how = new ArrayList<>();
    if (p.side() == Side.SECOND) {
      how.add("Second side: the drawing shows it as you see it, turned.");
    }
    if (action == Step.Action.SOLDER || action == Step.Action.HOT_AIR) {
      List<Joint> joints = revision.jointsOf(p.reference());
      if (p.kind() == PartKind.CONNECTOR && joints.size() > 1) {
        how.add(
            "Tack one pin, check that it sits square, then the rest; its mating part holds it straight.");
      }
      List<String> plane =
          joints.stream()
              .filter(j -> j.connected() && revision.net(j.net()).size() >= PLANE)
              .map(Joint::pin)
              .distinct()
              .toList();
      if (!plane.isEmpty() && joints.size() > 2) {
        how.add(
            "Pins "
                + String.join(" ", plane.stream().limit(8).toList())
                + (plane.size() > 8 ? " and more" : "")
                + " sit on much copper: they take longer, from the middle outwards.");
      }
    }
    return how;
  }

  private List<String> cautions(Step.Action action, Part p) {
    List<String> care = new ArrayList<>();
    switch (revision.shape(p).mark()) {
      case BAR ->
          care.add(
              p.kind() == PartKind.LED
                  ? "Mind the cathode: a lamp goes one way round."
                  : "Mind the bar: it goes one way round.");
      case STRIPE ->
          care.add("A reversed electrolytic bursts: mind the stripe, eyes covered at first power.");
      case DOT, NOTCH, FLAT -> {
        if (p.kind() == PartKind.CHIP || p.kind() == PartKind.TRANSISTOR) {
          care.add("Mind pin 1.");
        }
      }
      case NONE -> {}
    }
    if (p.kind() == PartKind.CELL) {
      care.add("No cell in the holder until the rails are proved.");
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

  private String mm(int i) {
    return before.bodies.words(i);
  }

  private void add(
      Step.Action action,
      List<String> refs,
      Side side,
      Optional<String> gate,
      String block,
      double seconds,
      double setup,
      List<String> reasons,
      List<String> how,
      List<String> cautions) {
    steps.add(
        new Step(
            steps.size() + 1,
            action,
            refs,
            side,
            gate,
            block,
            seconds,
            setup,
            reasons,
            how,
            cautions));
  }
}
