package ell.core.order;

import ell.core.board.Block;
import ell.core.board.Joint;
import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.order.Arrow.Why;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/// What comes before what: the fitted parts of a revision in stretches that follow each other (a
/// side in paste, a block by hand), arrows within and between them, each with its reason, and no
/// loop left. Used once.
final class Precedence {
  private static final double LEVEL_MM = 0.05;

  /// What dislikes heat keeps away from its hot neighbours so far; typical, no source.
  private static final double HEAT_MM = 4;

  /// Arrows between levels of leaded parts are drawn up to so many of them.
  private static final int MOST_FLAT = 20_000;

  /// A net with so many joints carries heat away; typical, no source.
  private static final int PLANE = 12;

  final List<Part> parts;
  final int[] blockOf;

  /// [#HOUSE], 0 in paste on the side that melts first, 1 on the other, 2 by hand, [#ATTACHED].
  final int[] phase;

  /// The assembly house has fitted it.
  static final int HOUSE = -1;

  /// It has no place on the board.
  static final int ATTACHED = 3;

  final Sides sides;
  final Seats seats;

  /// The stretch that a part is placed in; stretches follow each other in rising order.
  final int[] stretch;

  final Bodies bodies;
  final List<Link> links = new ArrayList<>();
  final List<Loop> loops = new ArrayList<>();
  final List<String> notes = new ArrayList<>();
  private final Map<Integer, String> byHandWhy = new HashMap<>();
  private final Revision revision;
  private final Method method;
  private final List<Block> blocks;
  private final Map<String, Integer> index = new HashMap<>();
  private final List<Wish> wishes;

  /// An arrow by index.
  record Link(int before, int after, Why why, String reason) implements LoopOpener.Edge {}

  Precedence(Revision revision, Method method, List<Block> blocks, List<Wish> wishes) {
    this.revision = revision;
    this.method = method;
    this.blocks = blocks;
    this.wishes = wishes;
    this.parts = revision.parts().stream().filter(Part::fitted).toList();
    Map<String, Integer> block = new HashMap<>();
    for (int b = 0; b < blocks.size(); b++) {
      for (String r : blocks.get(b).parts()) {
        block.putIfAbsent(r, b);
      }
    }
    blockOf = new int[parts.size()];
    phase = new int[parts.size()];
    stretch = new int[parts.size()];
    for (int i = 0; i < parts.size(); i++) {
      index.put(name(i), i);
      blockOf[i] = block.getOrDefault(name(i), blocks.size());
    }
    this.bodies = new Bodies(revision, parts);
    this.seats = new Seats(revision, parts, bodies);
    Set<Integer> fromHouse = byHouse();
    List<Part> pasted = new ArrayList<>();
    for (int i = 0; i < parts.size(); i++) {
      if (!fromHouse.contains(i) && pasted(i)) {
        pasted.add(parts.get(i));
      }
    }
    this.sides = Sides.of(revision, method == Method.STENCIL_PLATE ? pasted : List.of(), wishes);
    for (int i = 0; i < parts.size(); i++) {
      phase[i] = fromHouse.contains(i) ? HOUSE : phaseOf(i);
      if (phase[i] == ATTACHED) {
        blockOf[i] = blocks.size();
      }
    }
    keptOutOfPaste();
    hangingFromHouse();
    afterGates();
    for (int i = 0; i < parts.size(); i++) {
      stretch[i] =
          phase[i] == ATTACHED ? 3 + blocks.size() : soldered(i) ? 2 + blockOf[i] : phase[i];
    }
    byRoom();
    byFlatness();
    byHeat();
    byModule();
    byWish();
    pullForward();
    openLoops();
    hidden();
  }

  String name(int i) {
    return parts.get(i).reference();
  }

  /// Whether a part is put on by hand.
  boolean soldered(int i) {
    return phase[i] >= 2 || phase[i] != HOUSE && method != Method.STENCIL_PLATE;
  }

  /// The side that a phase in paste is on.
  Side side(int pastePhase) {
    return pastePhase == 0 ? sides.first() : sides.first().other();
  }

  /// Why a part that could lie in paste is soldered by hand, empty when there is no such reason.
  String byHandWhy(int i) {
    return byHandWhy.getOrDefault(i, "");
  }

  private Set<Integer> byHouse() {
    Set<Integer> found = new HashSet<>();
    for (Wish w : wishes) {
      if (w.kind() == Wish.Kind.BY_HOUSE) {
        w.parts(revision).forEach(r -> found.add(index.get(r)));
      }
    }
    return found;
  }

  private boolean pasted(int i) {
    return !BuildOrder.byHand(revision, parts.get(i)) && !seats.plugged(i) && !attached(i);
  }

  private boolean attached(int i) {
    Part p = parts.get(i);
    return p.place().isEmpty() && revision.jointsOf(p.reference()).isEmpty();
  }

  private int phaseOf(int i) {
    if (attached(i)) {
      return ATTACHED;
    }
    if (method != Method.STENCIL_PLATE) {
      return 0;
    }
    return !pasted(i) ? 2 : parts.get(i).side() == sides.first() ? 0 : 1;
  }

  /// What the house has fitted hangs too while the other side melts, and cannot be left for later.
  private void hangingFromHouse() {
    for (int i = 0; i < parts.size(); i++) {
      boolean hangs = phase[i] == HOUSE && melts(parts.get(i).side().other());
      Optional<FallOff> f = hangs ? FallOff.of(revision, parts.get(i)) : Optional.empty();
      if (f.isPresent() && !f.get().holds()) {
        notes.add(
            String.format(
                Locale.ROOT,
                "%s arrives fitted and may fall off when the other side melts: %.3f g/mm² of pad,"
                    + " at most %.4f; hold it with heat-proof tape or glue",
                name(i),
                f.get().ratio(),
                FallOff.LIMIT));
      }
    }
  }

  /// Whether paste of a side is melted here.
  private boolean melts(Side side) {
    if (method != Method.STENCIL_PLATE) {
      return false;
    }
    for (int i = 0; i < parts.size(); i++) {
      if ((phase[i] == 0 || phase[i] == 1) && parts.get(i).side() == side) {
        return true;
      }
    }
    return false;
  }

  /// Out of the paste come: what the maker wants by hand, what would fall off in the second reflow,
  /// and what would cover a part that is soldered by hand.
  private void keptOutOfPaste() {
    if (method != Method.STENCIL_PLATE) {
      return;
    }
    for (Wish w : wishes) {
      if (w.kind() == Wish.Kind.BY_HAND) {
        for (String r : w.parts(revision)) {
          if (phase[index.get(r)] == 0 || phase[index.get(r)] == 1) {
            byHand(index.get(r), "you want it by hand");
          }
        }
      }
    }
    boolean second = Arrays.stream(phase).anyMatch(p -> p == 1);
    for (int i = 0; i < parts.size() && second; i++) {
      Optional<FallOff> f = phase[i] == 0 ? FallOff.of(revision, parts.get(i)) : Optional.empty();
      if (f.isPresent() && !f.get().holds()) {
        byHand(
            i,
            String.format(
                Locale.ROOT,
                "it would fall off in the second reflow: %.3f g/mm² of pad, at most %.4f",
                f.get().ratio(),
                FallOff.LIMIT));
      }
    }
    boolean moved = true;
    while (moved) {
      boolean[] any = {false};
      bodies.near(
          0,
          (a, b) -> {
            int low = bodies.height(a) < bodies.height(b) ? a : b;
            int high = low == a ? b : a;
            if (phase[low] == 2
                && (phase[high] == 0 || phase[high] == 1)
                && seats.of(low).isEmpty()
                && over(high, low)) {
              byHand(high, "it covers " + name(low) + ", which is soldered by hand");
              any[0] = true;
            }
          });
      moved = any[0];
    }
  }

  private void byHand(int i, String why) {
    phase[i] = 2;
    byHandWhy.put(i, why);
  }

  /// A part that waits for a gate is counted to the block behind it; the gate is asked without it.
  private void afterGates() {
    for (Wish w : wishes) {
      if (w.kind() == Wish.Kind.AFTER_GATE) {
        int i = index.get(w.part());
        int gate = 0;
        while (!blocks.get(gate).gate().equals(w.other())) {
          gate++;
        }
        if (phase[i] == HOUSE) {
          notes.add(
              "a wish cannot be followed: " + w.text() + ", for " + name(i) + " arrives fitted");
          continue;
        }
        if (method == Method.STENCIL_PLATE && phase[i] < 2) {
          byHand(i, "it waits for gate " + w.other());
        }
        if (blockOf[i] <= gate) {
          notes.add(
              "a wish breaks a rule: "
                  + name(i)
                  + " belongs to block "
                  + blocks.get(blockOf[i]).name()
                  + ", whose gate is asked without it");
          blockOf[i] = gate + 1;
        }
      }
    }
  }

  private boolean over(int high, int low) {
    return bodies.height(high) - bodies.height(low) >= LEVEL_MM && bodies.covers(high, low);
  }

  private void byRoom() {
    double clearance =
        method == Method.HOT_AIR ? BuildOrder.HOT_AIR_CLEARANCE : BuildOrder.IRON_CLEARANCE;
    bodies.near(
        clearance,
        (a, b) -> {
          int low = bodies.height(a) < bodies.height(b) ? a : b;
          int high = low == a ? b : a;
          if (bodies.height(high) - bodies.height(low) < LEVEL_MM) {
            return;
          }
          if (seats.of(low).contains(high)) {
            return; // it sits in it
          }
          if (bodies.covers(high, low)) {
            link(low, high, Why.COVER, name(high) + " will cover it");
          } else if (soldered(a) && soldered(b)) {
            link(
                low,
                high,
                Why.ROOM,
                "lower than " + name(high) + " beside it (" + mm(low) + " under " + mm(high) + ")");
          }
        });
  }

  /// Leaded parts from the lowest up, so that the board lies flat on each.
  private void byFlatness() {
    Map<Integer, TreeMap<Long, List<Integer>>> levels = new HashMap<>();
    for (int i = 0; i < parts.size(); i++) {
      if (soldered(i) && revision.throughHole(parts.get(i)) && !seats.plugged(i)) {
        levels
            .computeIfAbsent(stretch[i] * 2 + parts.get(i).side().ordinal(), _ -> new TreeMap<>())
            .computeIfAbsent(Math.round(bodies.height(i)), _ -> new ArrayList<>())
            .add(i);
      }
    }
    int drawn = 0;
    for (TreeMap<Long, List<Integer>> own : levels.values()) {
      List<Integer> before = List.of();
      for (List<Integer> level : own.values()) {
        for (int b : before) {
          for (int a : level) {
            if (drawn++ < MOST_FLAT) {
              link(
                  b,
                  a,
                  Why.FLAT,
                  "lower than " + name(a) + ", so that the board lies flat (" + mm(b) + ")");
            }
          }
        }
        before = level;
      }
    }
  }

  private void byHeat() {
    bodies.near(
        HEAT_MM,
        (a, b) -> {
          if (soldered(a) && soldered(b) && stretch[a] == stretch[b]) {
            boolean fromA = hot(a) && bodies.shape(b).heat();
            boolean fromB = hot(b) && bodies.shape(a).heat();
            if (fromA != fromB) {
              int hot = fromA ? a : b;
              int cool = fromA ? b : a;
              link(hot, cool, Why.HEAT, name(cool) + " beside it dislikes heat");
            }
          }
        });
  }

  /// A part that takes much heat: pins on a net that carries it away, or many pins.
  private boolean hot(int i) {
    List<Joint> joints = revision.jointsOf(name(i));
    return joints.size() >= 8
        || method == Method.HOT_AIR && joints.size() > 2
        || joints.stream().anyMatch(j -> j.connected() && revision.net(j.net()).size() >= PLANE)
            && !bodies.shape(i).heat();
  }

  /// A module comes last of its block: it is fitted only at its gate.
  private void byModule() {
    for (int m = 0; m < parts.size(); m++) {
      for (int s : seats.of(m)) {
        link(s, m, Why.MODULE, name(m) + " is plugged into it");
      }
      if (last(m) && soldered(m) && phase[m] != ATTACHED) {
        for (int i = 0; i < parts.size(); i++) {
          if (i != m && stretch[i] == stretch[m] && blockOf[i] == blockOf[m] && !last(i)) {
            String what = parts.get(m).kind() == PartKind.MODULE ? "module " : "";
            link(i, m, Why.MODULE, what + name(m) + " is fitted only at its gate");
          }
        }
      }
    }
  }

  /// What may break and comes out again is fitted last.
  private boolean last(int i) {
    return parts.get(i).kind() == PartKind.MODULE || seats.plugged(i);
  }

  private void byWish() {
    for (Wish w : wishes) {
      int i = index.getOrDefault(w.part(), -1);
      switch (w.kind()) {
        case FIRST, LAST -> {
          for (int k = 0; k < parts.size(); k++) {
            if (k != i && stretch[k] == stretch[i]) {
              if (w.kind() == Wish.Kind.FIRST) {
                link(i, k, Why.WISH, "you want it first");
              } else {
                link(k, i, Why.WISH, "you want " + name(i) + " last");
              }
            }
          }
        }
        case BEFORE -> {
          int other = index.get(w.other());
          if (!soldered(other) && (soldered(i) || phase[i] > phase[other])) {
            notes.add(
                "a wish cannot be followed: "
                    + w.text()
                    + ", for "
                    + name(other)
                    + " lies in paste and "
                    + name(i)
                    + " comes after it is melted");
          } else {
            link(i, other, Why.WISH, "you want it before " + name(other));
          }
        }
        case BY_HAND, AFTER_GATE, BY_HOUSE, SIDE_FIRST -> {}
      }
    }
  }

  private void link(int before, int after, Why why, String reason) {
    links.add(new Link(before, after, why, reason));
  }

  /// What must come before a part of an earlier stretch comes in that stretch.
  private void pullForward() {
    List<List<Integer>> into = new ArrayList<>();
    for (int i = 0; i < parts.size(); i++) {
      into.add(new ArrayList<>(2));
    }
    // what arrives fitted is there before everything
    for (Link l : links) {
      if (phase[l.after()] == HOUSE && phase[l.before()] != HOUSE && l.why() == Why.COVER) {
        notes.add(name(l.after()) + " arrives fitted and covers " + name(l.before()));
      }
    }
    links.removeIf(l -> phase[l.before()] == HOUSE || phase[l.after()] == HOUSE);
    // an arrow against the paste means nothing: what lies in paste is there before the iron
    links.removeIf(l -> soldered(l.before()) && !soldered(l.after()));
    links.removeIf(l -> phase[l.before()] == 1 && phase[l.after()] == 0);
    links.forEach(l -> into.get(l.after()).add(l.before()));
    ArrayDeque<Integer> open = new ArrayDeque<>();
    for (int i = 0; i < parts.size(); i++) {
      open.add(i);
    }
    while (!open.isEmpty()) {
      int after = open.poll();
      for (int before : into.get(after)) {
        if (stretch[before] > stretch[after]) {
          stretch[before] = stretch[after];
          open.add(before);
        }
      }
    }
  }

  /// Drops the cheapest arrow of each loop, and keeps the loop to be told.
  private void openLoops() {
    Map<Integer, List<Link>> byStretch = new HashMap<>();
    List<Link> kept = new ArrayList<>();
    for (Link l : links) {
      if (stretch[l.before()] == stretch[l.after()]) {
        byStretch.computeIfAbsent(stretch[l.before()], _ -> new ArrayList<>()).add(l);
      } else {
        kept.add(l);
      }
    }
    byStretch.values().forEach(own -> kept.addAll(open(own)));
    links.clear();
    links.addAll(kept);
  }

  private List<Link> open(List<Link> own) {
    List<LoopOpener.Opened<Link>> opened = LoopOpener.open(own, l -> l.why().cost());
    Set<Link> gone = new HashSet<>();
    for (LoopOpener.Opened<Link> o : opened) {
      gone.add(o.gone());
      loops.add(new Loop(o.way().stream().map(this::arrow).toList(), arrow(o.gone())));
    }
    return own.stream().filter(l -> !gone.contains(l)).toList();
  }

  Arrow arrow(Link l) {
    return new Arrow(name(l.before()), name(l.after()), l.why(), l.reason());
  }

  /// Says which test points and parts of later gates a body hides: they cannot be reached when
  /// their gate is asked.
  private void hidden() {
    for (Joint j : revision.joints()) {
      if (PartKind.of(j.part()) != PartKind.TEST_POINT || !j.connected()) {
        continue;
      }
      Side side = j.reach() == Joint.Reach.SECOND ? Side.SECOND : Side.FIRST;
      int gate = gateOf(j.net());
      for (int i = 0; i < parts.size(); i++) {
        if (parts.get(i).side() == side
            && bodies.shape(i).family() != PackageShape.Family.CHIP
            && bodies.covers(i, j.xMm(), j.yMm())) {
          if (gate < blocks.size() && blockOf[i] <= gate) {
            notes.add(
                name(i)
                    + " hides "
                    + j.part()
                    + " ("
                    + j.net()
                    + ") before gate "
                    + blocks.get(gate).gate()
                    + " is asked: take another place of that net");
          }
        }
      }
    }
  }

  /// The first gate whose block has a part on a net.
  private int gateOf(String net) {
    return revision.net(net).stream()
        .map(j -> index.get(j.part()))
        .filter(i -> i != null)
        .mapToInt(i -> blockOf[i])
        .min()
        .orElse(blocks.size());
  }

  /// Everything that must come before some parts, themselves counted.
  Set<String> closure(Set<String> of) {
    Map<Integer, List<Integer>> into = new HashMap<>();
    links.stream()
        .filter(l -> l.why() == Why.COVER || l.why() == Why.WISH)
        .forEach(l -> into.computeIfAbsent(l.after(), _ -> new ArrayList<>()).add(l.before()));
    Set<String> found = new HashSet<>(of);
    ArrayDeque<String> open = new ArrayDeque<>(of);
    while (!open.isEmpty()) {
      Integer i = index.get(open.poll());
      if (i != null) {
        for (int before : into.getOrDefault(i, List.of())) {
          if (found.add(name(before))) {
            open.add(name(before));
          }
        }
      }
    }
    return found;
  }

  private String mm(int i) {
    return bodies.words(i);
  }
}
