package ell.core.trace;

import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.entry.BoardState;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.pulse.Wanted;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What could be measured, looked at, felt or tried on a board: everything at the rails, and what
/// is at or about the likeliest suspects, where a tip reaches.
final class Candidates {
  /// So many suspects are looked about.
  private static final int SUSPECTS = 160;

  private static final int MOST_SWAPS = 30;

  /// A net is read along where it touches ground so likely, at places of at least this chance each.
  private static final double TOUCHES = 0.3;

  private static final double LEAST_TOUCHES = 1e-3;

  /// At so many joints at once, and so many together.
  private static final int ALONG = 5;

  private static final int MOST_READ = 9;

  private final Board board;
  private final List<Case> cases;
  private final Views views;
  private final Knobs knobs;
  private final double[] chance;
  private final Set<String> read = new LinkedHashSet<>();

  /// @param knobs of the board with power; nothing on where it has none
  /// @param chance of each case
  /// @param done what was measured already
  Candidates(
      Board board, List<Case> cases, Views views, Knobs knobs, double[] chance, Set<Probe> done) {
    done.stream().filter(p -> p.kind() == Probe.Kind.ALONG).forEach(p -> read.addAll(p.places()));
    this.board = board;
    this.cases = cases;
    this.views = views;
    this.knobs = knobs;
    this.chance = chance;
  }

  List<Probe> all() {
    Set<Probe> all = new LinkedHashSet<>();
    Set<String> places = new LinkedHashSet<>();
    Set<String> parts = new LinkedHashSet<>();
    Set<String> nets = new LinkedHashSet<>();
    Set<List<String>> bridged = new LinkedHashSet<>();
    Set<List<String>> tied = new LinkedHashSet<>();
    Integer[] order = new Integer[chance.length];
    java.util.Arrays.setAll(order, i -> i);
    java.util.Arrays.sort(order, (a, b) -> Double.compare(chance[b], chance[a]));
    int taken = 0;
    for (int i : order) {
      if (i == 0 || taken++ >= SUSPECTS) {
        continue;
      }
      for (Suspect s : cases.get(i).suspects()) {
        nets.addAll(s.nets());
        for (String p : s.places()) {
          (board.revision().part(p).isPresent() ? parts : places).add(p);
        }
        if (s.fault() instanceof Fault.Bridge && s.nets().size() == 2) {
          bridged.add(s.nets());
        } else if (s.fault() instanceof Fault.Tied t) {
          tied.add(List.of(t.part() + "." + t.pin(), t.net()));
        }
      }
    }
    boolean feeds = knobs.on();
    Optional<Knobs> power = Optional.of(knobs);
    String ground = board.ladder().ground();
    if (feeds) {
      for (Ladder.RailSpec r : board.ladder().rails()) {
        volts(r.net(), power, all);
      }
      for (Ladder.Source s : board.ladder().sources()) {
        if (board.ladder().raises(s)) {
          all.add(new Probe(Probe.Kind.AMPS, s.rail(), "", power));
        }
      }
      nets.forEach(n -> volts(n, power, all));
      for (String place : places) {
        joint(place)
            .filter(j -> !j.net().equals(ground) && touched(j))
            .ifPresent(j -> volts(place, power, all));
        // the ground lead of a part shows volts when it hangs in the air
        joint(place)
            .filter(j -> j.net().equals(ground) && touched(j))
            .ifPresent(_ -> all.add(new Probe(Probe.Kind.VOLTS, place, "", power)));
      }
      for (String part : parts) {
        if (Probe.touchable(board.revision().part(part).orElseThrow().kind())
            && views.forecast(knobs).body(part) >= 0) {
          all.add(new Probe(Probe.Kind.TOUCH, part, "", power));
        }
        PartKind k = board.revision().part(part).orElseThrow().kind();
        if (k == PartKind.CHIP || k == PartKind.MODULE || k == PartKind.CONNECTOR) {
          all.add(new Probe(Probe.Kind.PRESS, part, "", power));
        }
      }
      views.forecast(knobs).lamps().stream()
          .filter(l -> board.revision().jointsOf(l).stream().noneMatch(j -> views.driven(j.net())))
          .forEach(l -> all.add(new Probe(Probe.Kind.LIT, l, "", power)));
      for (Wanted w : board.pulse().places()) {
        if (w.clock() > 0) {
          all.add(new Probe(Probe.Kind.WAVE, w.place(), "", power));
        }
      }
      if (board.talk().port().isPresent()) {
        all.add(new Probe(Probe.Kind.TALK, "", "", power));
      }
    }
    for (Ladder.RailSpec r : board.ladder().rails()) {
      ohms(r.net(), ground, all);
    }
    nets.stream().filter(n -> !n.equals(ground)).forEach(n -> along(n, ground, all));
    nets.forEach(n -> ohms(n, ground, all));
    tied.stream()
        .filter(t -> joint(t.get(0)).filter(Candidates::touched).isPresent())
        .forEach(t -> ohms(t.get(0), t.get(1), all));
    bridged.forEach(two -> ohms(two.get(0), two.get(1), all));
    for (String place : places) {
      all.add(Probe.look(place, ""));
      String part = BoardState.part(place);
      if (board.revision().part(part).isPresent()) {
        all.add(Probe.look(part, "")); // who looks at a part sees its joints
      }
      joint(place).flatMap(this::other).ifPresent(o -> ohms(place, o, all));
    }
    int swaps = 0;
    for (String part : parts) {
      all.add(Probe.look(part, ""));
      PartKind k = board.revision().part(part).orElseThrow().kind();
      if (k == PartKind.RESISTOR) {
        List<Joint> ends = board.revision().jointsOf(part);
        if (ends.size() == 2) {
          ohms(ends.get(0).place(), ends.get(1).place(), all);
        }
      }
      if (!k.bare() && k != PartKind.CONNECTOR && swaps++ < MOST_SWAPS) {
        all.add(new Probe(Probe.Kind.SWAP, part, "", Optional.empty()));
      }
    }
    return List.copyOf(all);
  }

  private void volts(String place, Optional<Knobs> power, Set<Probe> all) {
    String net = views.net(place);
    if (!net.equals(board.ladder().ground())
        && views.forecast(knobs).board().modelled(net)
        && reached(net)) {
      all.add(new Probe(Probe.Kind.VOLTS, place, "", power));
    }
  }

  /// Milliohms from several joints of a net to ground: where it may touch it, as far apart as they
  /// are, those first that were not read yet.
  private void along(String net, String ground, Set<Probe> all) {
    Map<String, Joint> where = new LinkedHashMap<>();
    double touches = 0;
    for (Map.Entry<Integer, Joint> e : views.along().touching(net, ground).entrySet()) {
      double p = chance[e.getKey()];
      touches += p;
      if (p >= LEAST_TOUCHES && touched(e.getValue())) {
        where.putIfAbsent(e.getValue().place(), e.getValue());
      }
    }
    List<Joint> left =
        new ArrayList<>(where.values().stream().filter(j -> !read.contains(j.place())).toList());
    List<Joint> taken = new ArrayList<>(where.values());
    taken.removeAll(left);
    if (touches < TOUCHES || left.size() < 2 || taken.size() >= MOST_READ) {
      return;
    }
    List<String> places = new ArrayList<>();
    while (!left.isEmpty() && places.size() < ALONG) {
      Joint next =
          left.stream()
              .max(Comparator.comparingDouble(j -> apart(j, taken, where.values())))
              .orElseThrow();
      left.remove(next);
      taken.add(next);
      places.add(next.place());
    }
    all.add(Probe.along(places, ground));
  }

  /// How far a joint is from those that are taken, from all where none is.
  private static double apart(Joint j, List<Joint> taken, Collection<Joint> all) {
    return taken.isEmpty()
        ? all.stream().mapToDouble(j::distanceMm).sum()
        : taken.stream().mapToDouble(j::distanceMm).min().orElseThrow();
  }

  private void ohms(String a, String b, Set<Probe> all) {
    if (!a.equals(b) && reached(views.net(a)) && reached(views.net(b))) {
      all.add(Probe.ohms(a, b));
    }
  }

  private boolean reached(String net) {
    return board.revision().net(net).stream().anyMatch(Candidates::touched);
  }

  private static boolean touched(Joint j) {
    return j.reach() != Joint.Reach.NONE;
  }

  private Optional<Joint> joint(String place) {
    return board.revision().joint(place);
  }

  /// The nearest joint of another part on the same net, for the other tip.
  private Optional<String> other(Joint j) {
    if (!touched(j) || !j.connected()) {
      return Optional.empty();
    }
    return board.revision().net(j.net()).stream()
        .filter(o -> !o.part().equals(j.part()) && touched(o))
        .min(Comparator.comparingDouble(o -> o.distanceMm(j)))
        .map(Joint::place);
  }
}
