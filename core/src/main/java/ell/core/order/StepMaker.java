package ell.core.order;

import ell.core.board.Block;
import ell.core.board.Folded;
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
  private static final int NONE = -2;

  private final Revision revision;
  private final Method method;
  private final List<Block> blocks;
  private final Precedence before;
  private final List<Step> steps = new ArrayList<>();
  private final Map<Integer, List<Precedence.Link>> out = new HashMap<>();
  private final int[] open;
  private final int panel;
  private int gate;
  private int phaseNow = NONE;
  private boolean apart;

  /// @param panel boards that hang together until the paste is melted, 1 when none do
  StepMaker(Revision revision, Method method, List<Block> blocks, Precedence before, int panel) {
    this.panel = panel;
    this.apart = panel == 1;
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
    int own = before.phase[order.getFirst()];
    int phase =
        own == Precedence.HOUSE || own == Precedence.ATTACHED || method == Method.STENCIL_PLATE
            ? own
            : 2;
    if (phase == Precedence.HOUSE) {
      arrive(order);
      return;
    }
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
      if (phase >= 2) {
        gates();
      }
      at = to;
    }
  }

  /// The steps, closed.
  List<Step> done() {
    closePhase();
    apart();
    phaseNow = 2;
    gates();
    return steps;
  }

  /// What the house has fitted is looked at as it arrives.
  private void arrive(List<Integer> fitted) {
    List<String> care = new ArrayList<>();
    for (int i : fitted) {
      for (String c : cautions(Step.Action.ARRIVE, before.parts.get(i))) {
        addOnce(care, c);
      }
      open[Math.min(before.blockOf[i], blocks.size())]--;
    }
    add(
        Step.Action.ARRIVE,
        fitted.stream().map(before::name).toList(),
        before.parts.get(fitted.getFirst()).side(),
        Optional.empty(),
        "",
        StepTimes.ARRIVE,
        0,
        List.of("the assembly house has fitted these " + fitted.size() + " parts"),
        List.of("Look for what is turned, missing or swapped before anything is added."),
        care);
    gates();
  }

  /// The boards of a panel are cut apart once all that they share is done, before any of them is
  /// powered; common practice, no source.
  private void apart() {
    if (apart) {
      return;
    }
    apart = true;
    List<String> near = EdgeParts.brittle(revision);
    List<String> how = new ArrayList<>();
    how.add("Bend or cut along the score only, the board held on both sides of it.");
    if (!near.isEmpty()) {
      how.add(
          Folded.references(near)
              + (near.size() == 1 ? " lies" : " lie")
              + " within "
              + EdgeParts.NEAR_WORDS
              + " of the edge: ceramic cracks there, look at it afterwards.");
    }
    add(
        Step.Action.CUT,
        List.of(),
        Side.FIRST,
        Optional.empty(),
        "",
        StepTimes.CUT,
        0,
        List.of("a panel of " + panel + " boards: what they share is done"),
        how,
        List.of("Glass fibre dust: mask, glasses, extraction; wipe up wet."));
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
        && apart
        && gate < blocks.size()
        && open[gate] == 0
        && (phaseNow >= 2 || steps.getLast().action() != Step.Action.PLACE)) {
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
    if (p >= 2) {
      apart();
      return;
    }
    String first = before.sides.why();
    add(
        Step.Action.PASTE,
        List.of(),
        before.side(p),
        Optional.empty(),
        "",
        StepTimes.PASTE,
        0,
        p == 0
            ? List.of(first.isEmpty() ? "the side with the parts that the stencil is for" : first)
            : List.of("this side after the other is soldered"),
        with("One pass, one pressure; look along the foil before it is lifted.", held(p)),
        List.of(
            "Foil edges are razor sharp: gloves.",
            "Paste holds flux and metal, some of it lead: no food here, wash hands. The paste's data sheet decides."));
  }

  private void closePhase() {
    if (phaseNow < 0 || phaseNow >= 2) {
      return;
    }
    add(
        Step.Action.REFLOW,
        List.of(),
        before.side(phaseNow),
        Optional.empty(),
        "",
        StepTimes.REFLOW,
        0,
        List.of("every pasted part of this side lies in its paste"),
        held(phaseNow),
        List.of("Hot plate: burns and fumes. Extraction on, hands off until it is below 50 °C."));
    tabs();
  }

  private static List<String> with(String first, List<String> more) {
    List<String> all = new ArrayList<>(List.of(first));
    all.addAll(more);
    return all;
  }

  /// How the board is held while a side is printed and heated and the other is below it; nothing to
  /// say of a first side over a bare one.
  private List<String> held(int phase) {
    double tallest = 0;
    String which = "";
    for (int i = 0; i < before.parts.size(); i++) {
      boolean below =
          before.phase[i] == 0 && phase == 1
              || before.phase[i] == Precedence.HOUSE
                  && before.parts.get(i).side() != before.side(phase);
      if (below && before.bodies.height(i) > tallest) {
        tallest = before.bodies.height(i);
        which = before.name(i);
      }
    }
    if (which.isEmpty()) {
      return phase == 0 ? List.of() : List.of("The other side is bare: the board lies flat on it.");
    }
    return List.of(
        String.format(
            java.util.Locale.ROOT,
            "The board stands on its edge, level, on rails or scraps of board of more than %.1f mm:"
                + " %s is the tallest below; nothing may touch the parts that hang there.",
            tallest,
            which));
  }

  /// Leads of parts that lay in paste are soldered by hand once the side is cold.
  private void tabs() {
    Side side = before.side(phaseNow);
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
    if (before.phase[i] == Precedence.ATTACHED) {
      return Step.Action.ATTACH;
    }
    if (!before.soldered(i)) {
      return Step.Action.PLACE;
    }
    if (before.seats.plugged(i)) {
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
      case ATTACH -> StepTimes.ATTACH;
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
    if (before.phase[first] == Precedence.ATTACHED) {
      why.add("it has no place on the board: after everything that is soldered");
    } else if (before.seats.plugged(first)) {
      why.add(
          before
              .seats
              .words(first)
              .map(w -> "plugged into " + w + ", never soldered")
              .orElse("plugged in, never soldered"));
    } else if (method == Method.STENCIL_PLATE) {
      String own = before.byHandWhy(first);
      boolean pasted = steps.stream().anyMatch(s -> s.action() == Step.Action.REFLOW);
      why.add(
          switch (before.phase[first]) {
            case 0 ->
                "into the paste of the " + before.side(0).key() + " side (" + mm(first) + " tall)";
            case 1 ->
                before.side(1).key()
                    + " side, after the "
                    + before.side(0).key()
                    + " ("
                    + mm(first)
                    + " tall)";
            default ->
                (pasted ? "by hand, after what is reflowed" : "by hand")
                    + (own.isEmpty() ? "" : ": " + own);
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
    if (p.kind() == PartKind.CELL && action != Step.Action.ATTACH) {
      care.add("No cell in the holder until the rails are proved.");
    }
    if (action == Step.Action.PLUG) {
      care.add("Power off before anything is plugged in or pulled.");
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
