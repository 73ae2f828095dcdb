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

  private final Board board;
  private final List<Case> cases;
  private final Views views;
  private final Alike alike;
  private final List<OhmVariants.Changed> ohms = new ArrayList<>();
  private final Map<List<String>, OhmVariants.Changed> changed = new HashMap<>();
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
      ohms.add(changed.computeIfAbsent(alike.of(c), _ -> b.ohms(c.faults())));
    }
    return unpowered;
  }

  /// The outlook of ohms between two places.
  Outlook of(Probe p) {
    BoardVariants b = unpowered();
    String a = b.node(p.a(), List.of());
    String c = b.node(p.b(), List.of());
    double healthy = b.ohms().between(a, c);
    Spread others = spread(healthy, false);
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
      boolean apart = near.get(i);
      double r =
          apart
              ? ohms.get(i).between(lead(p.a(), a, i, faults), lead(p.b(), c, i, faults))
              : ohms.get(i).between(a, c);
      if (r == healthy) {
        continue;
      }
      Spread s = spread(r, views.loose(i));
      if (Math.abs(s.mean() - others.mean()) > 0.02) {
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
    return apart.equals(node) || !ohms.get(at).has(apart) ? node : apart;
  }

  private static double scale(double ohms) {
    return Double.isInfinite(ohms)
        ? OPEN_SCALE
        : Math.min(OPEN_SCALE, Math.log10(Math.max(ohms, 0) + ZERO_OHM));
  }

  private static Spread spread(double r, boolean loosely) {
    if (r > 1e5) {
      return new Spread(7.2, 1.3, MISREAD);
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
