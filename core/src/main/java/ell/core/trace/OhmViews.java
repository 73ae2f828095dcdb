package ell.core.trace;

import ell.core.circuit.OhmVariants;
import ell.core.power.BoardVariants;
import ell.core.power.Fault;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// What an ohmmeter would show under each case, on the board without power. On a scale of decades;
/// an open loop lies at its end.
final class OhmViews {
  private static final double OPEN_SCALE = 8;
  private static final double LEAST_SCALE = -1.4;
  private static final double MOST_SCALE = 8.5;
  private static final double LEADS_OHM = 0.2;
  private static final double ZERO_OHM = 0.05;

  /// A tip that slips, a range that is misread.
  private static final double MISREAD = 8e-4;

  /// What differs less is one reading, decades.
  private static final double ALIKE = 0.02;

  /// One case, with regulators that a meter sees and with those that it does not.
  private record Both(OhmVariants.Changed awake, OhmVariants.Changed asleep) {}

  private final Board board;
  private final List<Case> cases;
  private final Views views;
  private final Alike alike;

  private final List<Both> ohms = new ArrayList<>();
  private final Map<List<String>, Both> changed = new HashMap<>();
  private BoardVariants unpowered;

  OhmViews(Board board, List<Case> cases, Views views) {
    this.board = board;
    this.cases = cases;
    this.views = views;
    alike = new Alike(board.revision());
  }

  void truncate(int size) {
    if (ohms.size() > size) {
      ohms.subList(size, ohms.size()).clear();
    }
    changed.keySet().removeIf(k -> k.size() > 1);
  }

  private BoardVariants unpowered() {
    if (unpowered == null) {
      unpowered =
          views
              .anyBoard()
              .orElseGet(() ->
                  new BoardVariants(
                      board.revision(), board.ladder(), board.standing(), "off", _ -> {}));
    }
    for (int i = ohms.size(); i < cases.size(); i++) {
      BoardVariants b = unpowered;
      Case c = cases.get(i);
      ohms.add(
          changed.computeIfAbsent(
              alike.of(c), _ -> new Both(b.ohms(c.faults()), b.asleep(c.faults()))));
    }
    return unpowered;
  }

  /// The outlook of ohms between two places.
  Outlook of(Probe p) {
    BoardVariants b = unpowered();
    String a = b.node(p.a(), List.of());
    String c = b.node(p.b(), List.of());
    int[] ends = {b.ohms().node(a), b.ohms().node(c), b.asleep().node(a), b.asleep().node(c)};
    double healthy = b.ohms().between(ends[0], ends[1]);
    double quiet = b.asleep().between(ends[2], ends[3]);
    Spread others = spread(healthy, quiet, false);
    BitSet near = new BitSet();
    views.at(p.a()).forEach(near::set);
    views.at(p.b()).forEach(near::set);
    Map<Integer, Spread> own = new HashMap<>();
    for (int i = 1; i < cases.size(); i++) {
      List<Fault> faults = cases.get(i).faults();
      if (views.jack(i)) {
        own.put(i, new Spread(Math.log10(LEADS_OHM + ZERO_OHM), 0.2, 0.05));
        continue;
      }
      OhmVariants.Changed awake = ohms.get(i).awake();
      OhmVariants.Changed asleep = ohms.get(i).asleep();
      double r;
      double q;
      if (near.get(i)) {
        String from = lead(p.a(), a, i, faults);
        String to = lead(p.b(), c, i, faults);
        r = awake.between(from, to);
        q = asleep.between(from, to);
      } else {
        r = awake.between(ends[0], ends[1]);
        q = asleep.between(ends[2], ends[3]);
      }
      if (r == healthy && q == quiet) {
        continue;
      }
      Spread s = spread(r, q, views.loose(i));
      if (Math.abs(s.mean() - others.mean()) > ALIKE
          || Math.abs(s.sd() - others.sd()) > ALIKE
          || Math.abs(s.up() - others.up()) > ALIKE) {
        own.put(i, s);
      }
    }
    return new Numbers(
        LEAST_SCALE,
        MOST_SCALE,
        OhmViews::scale,
        x -> Math.max(0, Math.pow(10, x) - ZERO_OHM - LEADS_OHM),
        x -> EngineeringNumber.print(Math.max(x, 0), Unit.OHM, 3),
        others,
        own);
  }

  /// The node under a tip: the lead where it hangs apart and alone.
  private String lead(String place, String node, int at, List<Fault> faults) {
    if (faults.isEmpty() || place.indexOf('.') < 0) {
      return node;
    }
    String apart = unpowered.node(place, faults);
    return apart.equals(node) || !ohms.get(at).awake().has(apart) ? node : apart;
  }

  private static double scale(double ohms) {
    return Double.isInfinite(ohms)
        ? OPEN_SCALE
        : Math.min(OPEN_SCALE, Math.log10(Math.max(ohms, 0) + ZERO_OHM));
  }

  /// Nobody states whether a regulator draws anything at the volts of a meter: where that makes a
  /// difference, both may be read.
  private static Spread spread(double awake, double asleep, boolean loosely) {
    Spread s = spread(awake, loosely);
    Spread t = spread(asleep, loosely);
    double apart = Math.abs(s.mean() - t.mean());
    if (apart < ALIKE) {
      return s;
    }
    Spread low = s.mean() < t.mean() ? s : t;
    Spread high = low == s ? t : s;
    return new Spread(low.mean(), low.sd(), apart + high.up(), Math.max(s.loose(), t.loose()));
  }

  private static Spread spread(double r, boolean loosely) {
    if (r > 1e5) {
      // a junction that a tip happens to turn on shows some 10 kΩ
      return new Spread(6.8, 1.5, MISREAD);
    }
    if (r > 1e3) {
      return new Spread(Math.log10(r), 0.4, MISREAD);
    }
    double mean = Math.log10(r + LEADS_OHM + ZERO_OHM);
    // near nothing the leads and the tips are what is read
    double sd = r < 3 ? 0.3 : r < 30 ? 0.1 : 0.08;
    return new Spread(mean, loosely && r < 300 ? sd + 0.35 : sd, 3 * MISREAD);
  }
}
