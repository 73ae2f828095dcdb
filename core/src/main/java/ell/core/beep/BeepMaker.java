package ell.core.beep;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Rail;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.quantity.Limits;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;

/// Makes the list of a revision.
final class BeepMaker {
  private static final double NEIGHBOUR_MM = 0.8;
  private static final int WALK_EXACT = 64;

  /// No more checks between signals that lie side by side: the nearest ones.
  private static final int MOST_SIDE_BY_SIDE = 20_000;

  private final Revision revision;
  private final Map<String, List<Joint>> nets = new LinkedHashMap<>();
  private final List<BeepCheck> checks = new ArrayList<>();
  private final BetweenNets between;
  private final String ground;
  private final Ladder ladder;

  /// The return that the ladder names, when the revision has it.
  private static String nets(Revision revision, Ladder ladder) {
    return revision.net(ladder.ground()).isEmpty()
        ? LadderProposal.ground(revision)
        : ladder.ground();
  }

  BeepMaker(Revision revision, Ladder ladder) {
    this.revision = revision;
    this.ladder = ladder;
    this.ground = nets(revision, ladder);
    Set<String> semis = new HashSet<>();
    Set<String> seen = new HashSet<>();
    for (Joint j : revision.joints()) {
      Part p = revision.part(j.part()).orElse(null);
      boolean made =
          p == null
              ? PartKind.of(j.part()).bare() || revision.part(j.part()).isEmpty()
              : p.fitted() || p.kind().bare();
      if (j.connected() && made && seen.add(j.place())) {
        nets.computeIfAbsent(j.net(), _ -> new ArrayList<>(4)).add(j);
        if (p != null
            && (p.kind() == PartKind.CHIP
                || p.kind() == PartKind.MODULE
                || p.kind() == PartKind.TRANSISTOR
                || p.kind() == PartKind.DIODE)) {
          semis.add(j.net());
        }
      }
    }
    between = new BetweenNets(revision, ladder, ground, semis);
  }

  BeepList make() {
    List<Rail> rails = rails();
    List<Rail> grounds =
        rails.stream()
            .filter(Rail::ground)
            .sorted(Comparator.comparing(r -> r.net().equals(ground) ? 0 : 1))
            .toList();
    List<Rail> live = rails.stream().filter(r -> !r.ground()).toList();
    for (Rail g : grounds) {
      for (Rail r : live) {
        isolation(
            g.net(),
            r.net(),
            g.net().equals(ground),
            r.net() + " shorted to " + g.net() + " would burn first");
      }
    }
    for (int i = 0; i < live.size(); i++) {
      for (int k = i + 1; k < live.size(); k++) {
        isolation(
            live.get(i).net(),
            live.get(k).net(),
            false,
            "a bridge would put " + live.get(i).net() + " on " + live.get(k).net());
      }
    }
    for (int i = 0; i < grounds.size(); i++) {
      for (int k = i + 1; k < grounds.size(); k++) {
        isolation(
            grounds.get(i).net(),
            grounds.get(k).net(),
            false,
            "two returns that the design keeps apart, or joins on purpose");
      }
    }
    Set<String> railNets = new HashSet<>();
    for (Rail r : rails) {
      railNets.add(r.net());
    }
    List<Neighbours.Side> beside = sides(railNets);
    int rail = 0;
    while (rail < beside.size() && touches(railNets, beside.get(rail))) {
      sideBySide(beside.get(rail++));
    }
    rails.forEach(r -> star(r.net()));
    signals(railNets);
    beside
        .subList(rail, Math.min(beside.size(), rail + MOST_SIDE_BY_SIDE))
        .forEach(this::sideBySide);
    return new BeepList(checks, coverage(rails));
  }

  private Map<String, Neighbours.Side> near;

  /// Pairs of nets beside each other of which not both are rails, for those are listed already:
  /// rails first, then by how near they are.
  private List<Neighbours.Side> sides(Set<String> railNets) {
    near = Neighbours.near(nets, NEIGHBOUR_MM);
    Map<String, List<Joint>> byPart = new HashMap<>();
    for (List<Joint> net : nets.values()) {
      for (Joint j : net) {
        byPart.computeIfAbsent(j.part(), _ -> new ArrayList<>(4)).add(j);
      }
    }
    byPart.values().forEach(p -> Neighbours.addAdjacentPins(near, p));
    return near.values().stream()
        .filter(s -> !(railNets.contains(s.a().net()) && railNets.contains(s.b().net())))
        .filter(s -> !reachable(s.a().net()).isEmpty() && !reachable(s.b().net()).isEmpty())
        .sorted(
            Comparator.comparing((Neighbours.Side s) -> !touches(railNets, s))
                .thenComparingDouble(Neighbours.Side::gapMm)
                .thenComparing(s -> s.a().place())
                .thenComparing(s -> s.b().place()))
        .toList();
  }

  private static boolean touches(Set<String> railNets, Neighbours.Side s) {
    return railNets.contains(s.a().net()) || railNets.contains(s.b().net());
  }

  private void sideBySide(Neighbours.Side s) {
    Joint a = s.a().reach() == Joint.Reach.NONE ? easiest(s.a().net()) : s.a();
    Joint b = s.b().reach() == Joint.Reach.NONE ? easiest(s.b().net()) : s.b();
    String harm =
        String.format(
            Locale.ROOT,
            "%s and %s lie %.2f mm apart at %s and %s",
            s.a().net(),
            s.b().net(),
            s.gapMm(),
            s.a().place(),
            s.b().place());
    isolation(a, b, false, between.near(a.net(), b.net(), harm));
  }

  /// Every signal, in bands over the board, so that the tips never cross it between two of them.
  private void signals(Set<String> railNets) {
    List<Joint> starts = new ArrayList<>();
    for (String net : nets.keySet()) {
      List<Joint> own = railNets.contains(net) ? List.of() : reachable(net);
      if (own.size() > 1) {
        starts.add(own.getFirst());
      }
    }
    Joint last = null;
    for (Joint start : snake(starts)) {
      last = walk(start.net(), last);
    }
  }

  /// The rails of the ladder, all of them, whether a name says so or not and whether a tip reaches
  /// them or not; and nets named like rails of which nobody said that they are none.
  private List<Rail> rails() {
    List<Rail> all = new ArrayList<>();
    Set<String> listed = new HashSet<>(ladder.notRails());
    for (Rail r : Rail.of(revision)) {
      boolean kept = ladder.rail(r.net()).isPresent() || r.net().equals(ground);
      if (nets.containsKey(r.net())
          && (kept || !reachable(r.net()).isEmpty())
          && listed.add(r.net())) {
        // a ladder may call a rail what a name calls a return
        all.add(kept ? new Rail(r.net(), r.net().equals(ground), r.volts()) : r);
      }
    }
    if (nets.containsKey(ground) && listed.add(ground)) {
      all.add(new Rail(ground, true, OptionalDouble.of(0)));
    }
    for (Ladder.RailSpec r : ladder.rails()) {
      if (nets.containsKey(r.net()) && listed.add(r.net())) {
        all.add(new Rail(r.net(), false, OptionalDouble.of(r.volts())));
      }
    }
    return all;
  }

  Optional<BeepCheck> between(String a, String b) {
    Optional<Joint> tip = joint(a);
    Optional<Joint> other = joint(b);
    if (tip.isEmpty() || other.isEmpty() || tip.get().place().equals(other.get().place())) {
      return Optional.empty();
    }
    if (tip.get().net().equals(other.get().net())) {
      continuity(tip.get(), other.get(), "asked for by hand");
    } else {
      // between two nets one check, however it is asked for: a later reading answers an earlier
      boolean turned = tip.get().net().compareTo(other.get().net()) > 0;
      isolation(
          hold(turned ? other.get().net() : tip.get().net()),
          hold(turned ? tip.get().net() : other.get().net()),
          false,
          "asked for by hand");
    }
    return Optional.of(checks.getFirst());
  }

  ExpectedOhms expected(String a, String b) {
    String netA = netOf(a);
    String netB = netOf(b);
    if (a.equals(b)) {
      throw new IllegalArgumentException("two places, found " + a + " twice");
    }
    if (netA.equals(netB)) {
      String both =
          a.equals(netA) || b.equals(netA)
              ? (a.equals(netA) ? b : a) + " is on net " + netA
              : a + " and " + b + " are both on net " + netA;
      return new ExpectedOhms(
          netA, netB, new Limits(0, BeepList.CONNECTED), 0, true, 0, List.of(both));
    }
    String apart = netA + " and " + netB + " are not joined";
    BetweenNets.Shows s = between.solved(netA, netB, apart);
    List<String> why = new ArrayList<>(s.why());
    why.remove(apart); // what is between them says more
    boolean beeps = s.nominal() < BeepList.BEEPS;
    if (!beeps && Double.isFinite(s.nominal()) && between.chips(netA, netB)) {
      why.add("chips or diodes hang on both, and may lead beside the resistors");
    }
    return new ExpectedOhms(netA, netB, s.ohms(), s.nominal(), beeps, s.beepsFor(), why);
  }

  private String netOf(String place) {
    return joint(place)
        .map(Joint::net)
        .orElseThrow(() ->
            new IllegalArgumentException(
                "'"
                    + place
                    + "' is no net of the revision, and no joint on one as it is fitted; expected a"
                    + " net as 3V3 or a joint as U3.4"));
  }

  /// Where a tip is held on a net, whether it is reached or not.
  private Joint hold(String net) {
    return reachable(net).isEmpty() ? nets.get(net).getFirst() : easiest(net);
  }

  /// A joint by its place, or the one that is easiest to reach on a net.
  private Optional<Joint> joint(String place) {
    if (nets.containsKey(place)) {
      return Optional.of(hold(place));
    }
    return revision.joints().stream()
        .filter(j -> nets.containsKey(j.net()) && j.place().equals(place))
        .findFirst();
  }

  private final Map<String, List<Joint>> reached = new HashMap<>();

  private List<Joint> reachable(String net) {
    return reached.computeIfAbsent(
        net,
        n ->
            nets.getOrDefault(n, List.of()).stream()
                .filter(j -> j.reach() != Joint.Reach.NONE)
                .toList());
  }

  /// The joint of a net that is easiest to hold a tip on.
  private Joint easiest(String net) {
    List<Joint> own = reachable(net);
    String at = LadderProposal.readAt(revision, net);
    return own.stream()
        .filter(j -> j.part().equals(at) || j.place().equals(at))
        .findFirst()
        .orElse(own.getFirst());
  }

  private void isolation(String netA, String netB, boolean guards, String harm) {
    isolation(hold(netA), hold(netB), guards, harm);
  }

  private void isolation(Joint a, Joint b, boolean guards, String harm) {
    isolation(a, b, guards, between.solved(a.net(), b.net(), harm));
  }

  private void isolation(Joint a, Joint b, boolean guards, BetweenNets.Shows shows) {
    add(BeepCheck.Kind.ISOLATION, a, b, shows.ohms(), guards, shows.words(), shows.beepsFor());
  }

  private void star(String net) {
    List<Joint> own = reachable(net);
    if (own.size() < 2) {
      return;
    }
    Joint hub = easiest(net);
    for (Joint j : tour(hub, own)) {
      if (j != hub) {
        continuity(hub, j, "one tip stays on " + hub.place());
      }
    }
  }

  /// Walks a net from the joint that is nearest to where the tips were.
  ///
  /// @param before null at first
  /// @return where it ends
  private Joint walk(String net, Joint before) {
    List<Joint> own = reachable(net);
    Joint first = own.getFirst();
    if (before != null) {
      for (Joint j : own) {
        first = before.distanceMm(j) < before.distanceMm(first) ? j : first;
      }
    }
    Joint last = null;
    for (Joint j : tour(first, own)) {
      if (last != null) {
        continuity(
            last, j, String.format(Locale.ROOT, "%.1f mm apart on %s", last.distanceMm(j), net));
      }
      last = j;
    }
    return last;
  }

  private void continuity(Joint a, Joint b, String why) {
    add(BeepCheck.Kind.CONTINUITY, a, b, new Limits(0, BeepList.CONNECTED), false, why, 0);
  }

  private void add(
      BeepCheck.Kind kind,
      Joint a,
      Joint b,
      Limits expected,
      boolean guards,
      String why,
      double beepsFor) {
    checks.add(
        new BeepCheck(
            checks.size() + 1, kind, a, b, a.net(), b.net(), expected, guards, why, beepsFor));
  }

  /// Joints in a short way from `start`: nearest neighbour on small nets, a snake of bands on large
  /// ones.
  private static List<Joint> tour(Joint start, List<Joint> joints) {
    if (joints.size() > WALK_EXACT) {
      return snake(joints);
    }
    List<Joint> left = new ArrayList<>(joints);
    List<Joint> tour = new ArrayList<>();
    Joint at = start;
    left.remove(start);
    tour.add(start);
    while (!left.isEmpty()) {
      Joint from = at;
      Joint best = left.getFirst();
      for (Joint j : left) {
        if (from.distanceMm(j) < from.distanceMm(best)) {
          best = j;
        }
      }
      left.remove(best);
      tour.add(best);
      at = best;
    }
    return tour;
  }

  private static List<Joint> snake(List<Joint> joints) {
    double band = Math.max(1, 60.0 / Math.sqrt(Math.max(1, joints.size())) * 3);
    List<Joint> sorted = new ArrayList<>(joints);
    sorted.sort(
        Comparator.comparingLong((Joint j) -> Math.round(j.yMm() / band))
            .thenComparingDouble(j -> Math.round(j.yMm() / band) % 2 == 0 ? j.xMm() : -j.xMm()));
    return sorted;
  }

  private BeepList.Coverage coverage(List<Rail> rails) {
    long total = nets.values().stream().filter(n -> n.size() > 1).mapToLong(List::size).sum();
    Set<Joint> ends = new HashSet<>();
    Set<String> parted = new HashSet<>();
    for (BeepCheck c : checks) {
      if (c.kind() == BeepCheck.Kind.CONTINUITY) {
        ends.add(c.a());
        ends.add(c.b());
      } else {
        parted.add(BeepList.pair(c.netA(), c.netB()));
      }
    }
    Set<String> possible = new HashSet<>(near.keySet());
    for (int i = 0; i < rails.size(); i++) {
      for (int k = i + 1; k < rails.size(); k++) {
        possible.add(BeepList.pair(rails.get(i).net(), rails.get(k).net()));
      }
    }
    return new BeepList.Coverage(
        ends.size(),
        total,
        possible.stream().filter(parted::contains).count(),
        possible.size(),
        total - ends.size(),
        nets.values().stream().filter(n -> n.size() == 1).count());
  }
}
