package ell.core.beep;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Rail;
import ell.core.board.Revision;
import ell.core.circuit.Resistance;
import ell.core.power.BoardCircuit;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;

/// The checks to make with a beeper before any power, in an order that looks first where it could
/// burn: rails to ground, rail to rail, then continuity of the rails, then of the signals.
///
/// A net of n joints gets n − 1 continuity checks so that every joint is an end at least once. On
/// rails one tip stays at a test point or connector; on signals the tips walk from neighbour to
/// neighbour. Time grows as n log n with the number of joints.
///
/// @param checks in order
/// @param coverage what the list would catch
public record BeepList(List<BeepCheck> checks, Coverage coverage) {
  /// Ohms up to which a beeper beeps; typical, no source.
  public static final double BEEPS = 40;

  /// Ohms of a good connection with the leads of the meter; typical, no source.
  public static final double CONNECTED = 2;

  private static final double NEIGHBOUR_MM = 0.8;
  private static final int WALK_EXACT = 64;

  /// What a list would catch.
  ///
  /// @param opens joints whose open would show
  /// @param opensTotal joints on nets of two or more
  /// @param bridges pairs of nets whose bridge would show
  /// @param bridgesTotal pairs of rails, and pairs of nets with neighbouring metal
  public record Coverage(long opens, long opensTotal, long bridges, long bridgesTotal) {}

  public BeepList {
    checks = List.copyOf(checks);
  }

  /// The checks that power waits for.
  public List<BeepCheck> guarding() {
    return checks.stream().filter(BeepCheck::guards).toList();
  }

  /// Makes the list of a revision.
  public static BeepList of(Revision revision, Ladder ladder) {
    return new Maker(revision, ladder).make();
  }

  /// A check that is not in the list: between any two nets, or two joints of one net.
  ///
  /// @param a a net or a joint
  /// @param b another net or joint
  /// @return empty when one of them is on no net, or both are the same
  public static Optional<BeepCheck> between(Revision revision, Ladder ladder, String a, String b) {
    return new Maker(revision, ladder).between(a, b);
  }

  private static final class Maker {
    private final Revision revision;
    private final Map<String, List<Joint>> nets = new LinkedHashMap<>();
    private final List<BeepCheck> checks = new ArrayList<>();
    private final BoardCircuit circuit;
    private final Resistance ohms;
    private final Set<String> semis = new HashSet<>();
    private final String ground;
    private final Ladder ladder;

    /// The return that the ladder names, when the revision has it.
    private static String nets(Revision revision, Ladder ladder) {
      return revision.net(ladder.ground()).isEmpty()
          ? LadderProposal.ground(revision)
          : ladder.ground();
    }

    Maker(Revision revision, Ladder ladder) {
      this.revision = revision;
      this.circuit = new BoardCircuit(revision, ladder, List.of());
      this.ohms = circuit.unpowered();
      this.ladder = ladder;
      this.ground = nets(revision, ladder);
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
        star(r.net());
      }
      for (String net : nets.keySet()) {
        if (!railNets.contains(net)) {
          walk(net);
        }
      }
      return new BeepList(checks, coverage(rails));
    }

    /// The rails of the ladder, all of them, whether a name says so or not and whether a tip
    /// reaches them or not; and nets named like rails of which nobody said that they are none.
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

    private List<Joint> reachable(String net) {
      return nets.getOrDefault(net, List.of()).stream()
          .filter(j -> j.reach() != Joint.Reach.NONE)
          .toList();
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
      String netA = a.net();
      String netB = b.net();
      double between = ohms.between(circuit.node(netA), circuit.node(netB));
      boolean chips = semis.contains(netA) && semis.contains(netB);
      String why;
      Limits expected;
      if (Double.isInfinite(between)) {
        // chips and charging capacitors lead a little; a short leads like copper
        expected = Limits.atLeast(100);
        why = harm + "; nothing but chips and capacitors between them";
      } else if (between < 2 * BEEPS) {
        expected = new Limits(Math.max(0, 0.8 * between - 0.3), 1.2 * between + CONNECTED);
        List<String> direct = ohms.directly(circuit.node(netA), circuit.node(netB));
        why =
            (between < BEEPS ? "will beep although healthy: " : "")
                + EngineeringNumber.print(between, Unit.OHM, 3)
                + " is between"
                + (direct.isEmpty() ? "" : ", " + String.join(" ", direct));
      } else {
        expected = new Limits(Math.min(chips ? 100 : 0.8 * between, 0.8 * between), 1.1 * between);
        why =
            harm + "; resistors between them make " + EngineeringNumber.print(between, Unit.OHM, 3);
      }
      add(BeepCheck.Kind.ISOLATION, a, b, expected, guards, why);
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

    private void walk(String net) {
      List<Joint> own = reachable(net);
      if (own.size() < 2) {
        return;
      }
      Joint last = null;
      for (Joint j : tour(own.getFirst(), own)) {
        if (last != null) {
          continuity(
              last,
              j,
              String.format(java.util.Locale.ROOT, "%.1f mm apart on %s", last.distanceMm(j), net));
        }
        last = j;
      }
    }

    private void continuity(Joint a, Joint b, String why) {
      add(BeepCheck.Kind.CONTINUITY, a, b, new Limits(0, CONNECTED), false, why);
    }

    private void add(
        BeepCheck.Kind kind, Joint a, Joint b, Limits expected, boolean guards, String why) {
      checks.add(
          new BeepCheck(checks.size() + 1, kind, a, b, a.net(), b.net(), expected, guards, why));
    }

    /// Joints in a short way from `start`: nearest neighbour on small nets, a snake of bands on
    /// large ones.
    private static List<Joint> tour(Joint start, List<Joint> joints) {
      if (joints.size() > WALK_EXACT) {
        double band = Math.max(1, 60.0 / Math.sqrt(joints.size()) * 3);
        List<Joint> sorted = new ArrayList<>(joints);
        sorted.sort(
            Comparator.comparingLong((Joint j) -> Math.round(j.yMm() / band))
                .thenComparingDouble(
                    j -> Math.round(j.yMm() / band) % 2 == 0 ? j.xMm() : -j.xMm()));
        return sorted;
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

    private Coverage coverage(List<Rail> rails) {
      long total = nets.values().stream().filter(n -> n.size() > 1).mapToLong(List::size).sum();
      Set<Joint> ends = new HashSet<>();
      Set<String> parted = new HashSet<>();
      for (BeepCheck c : checks) {
        if (c.kind() == BeepCheck.Kind.CONTINUITY) {
          ends.add(c.a());
          ends.add(c.b());
        } else {
          parted.add(pair(c.netA(), c.netB()));
        }
      }
      Set<String> possible = Neighbours.pairs(nets, NEIGHBOUR_MM);
      for (int i = 0; i < rails.size(); i++) {
        for (int k = i + 1; k < rails.size(); k++) {
          possible.add(pair(rails.get(i).net(), rails.get(k).net()));
        }
      }
      return new Coverage(
          ends.size(), total, possible.stream().filter(parted::contains).count(), possible.size());
    }
  }

  /// A pair of nets in one spelling.
  static String pair(String a, String b) {
    return a.compareTo(b) < 0 ? a + "\n" + b : b + "\n" + a;
  }
}
