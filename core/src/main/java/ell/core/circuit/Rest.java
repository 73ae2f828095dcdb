package ell.core.circuit;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// Finds the state of a circuit in which nothing changes any more, from before power on: what
/// starts or trips at the volts of one state leads to the next.
final class Rest {
  private static final int ROUNDS = 40;
  private static final int RESTLESS = 3;
  private static final int HALVINGS = 40;

  /// How near the volts at which a restless board hangs are found, share of those that are set.
  static final double NEAR = 1e-9;

  private final double near;

  private final Circuit circuit;
  private final List<Element> elements;
  private final Newton newton;
  private final Element.Moment moment;
  private final double[] v;
  private boolean searching;

  Rest(Circuit circuit) {
    this(circuit, NEAR);
  }

  Rest(Circuit circuit, double near) {
    this.near = near;
    this.circuit = circuit;
    elements = circuit.elements();
    newton = new Newton(circuit);
    double[] fresh = new double[circuit.memory()];
    elements.forEach(e -> e.fresh(fresh));
    moment = new Element.Moment(0, fresh);
    v = new double[circuit.nodes().size()];
  }

  /// First without the limits of the supplies: a state within them is the one that a board comes up
  /// to. Only where there is none do they hold.
  Operating solve() {
    free(true);
    Operating unlimited;
    try {
      unlimited = settled();
    } finally {
      free(false);
    }
    for (Element e : elements) {
      if (e instanceof Supply s && unlimited.through(s.name) > s.limit()) {
        return settled();
      }
    }
    return unlimited;
  }

  /// The volts that were found.
  double[] volts() {
    return v;
  }

  Element.Moment moment() {
    return moment;
  }

  Newton newton() {
    return newton;
  }

  /// The most volts that may be anywhere.
  double most() {
    double most = 1;
    for (Element e : elements) {
      most +=
          switch (e) {
            case Supply s -> s.volts();
            case Cell c -> c.most();
            case Regulating r -> r.law.efficiency() > 0 ? r.law.volts() : 0;
            default -> 0;
          };
    }
    return most;
  }

  private void free(boolean without) {
    for (Element e : elements) {
      if (e instanceof Supply s) {
        s.free(without);
      }
    }
  }

  private Operating settled() {
    elements.forEach(e -> e.mode = 0);
    begin();
    int[] turns = new int[elements.size()];
    for (int round = 0; round < ROUNDS; round++) {
      boolean settled = newton.solve(v, moment);
      // what runs may ask for more than a supply at its limit gives at any volts
      boolean restless = !settled && !searching && elements.stream().anyMatch(e -> e.mode != 0);
      boolean turned = false;
      for (int i = 0; i < elements.size(); i++) {
        Element e = elements.get(i);
        int next = e.next(v, moment);
        if (next != e.mode) {
          turned = true;
          e.mode = next;
          if (next != 0 && e instanceof SwitchingRegulator r && r.out >= 0) {
            v[r.out] = r.law.volts(); // where it holds its output once it runs
          }
          if (++turns[i] > RESTLESS) {
            restless = true;
          }
        }
      }
      if (restless) {
        return restless();
      }
      if (!turned) {
        return state(settled && sane());
      }
    }
    return state(false);
  }

  /// Where supplies hold their outputs, to begin with.
  private void begin() {
    Arrays.fill(v, 0);
    for (Element e : elements) {
      if (e instanceof Supply s && s.nodes()[0] >= 0) {
        v[s.nodes()[0]] = s.volts();
      }
    }
  }

  /// Something starts, pulls the supply down to its limit, stops, and starts again. The volts at
  /// which it does are found between none and those that are set; just below them less than the
  /// limit flows, just above them more. The limit is then the current on the average, and every
  /// value the average of the two by the share of the time that each lasts.
  private Operating restless() {
    Supply held = null;
    for (Element s : elements) {
      if (s instanceof Supply supply && supply.volts() > 0 && held == null) {
        held = supply;
      }
    }
    if (held == null || searching) {
      return state(false);
    }
    searching = true;
    free(true);
    double set = held.volts();
    try {
      double low = 0;
      double high = set;
      held.set(0, held.limit(), true);
      Operating below = settled();
      held.set(set, held.limit(), true);
      Operating above = settled();
      for (int i = 0; i < HALVINGS && high - low > near * set; i++) {
        double mid = (low + high) / 2;
        held.set(mid, held.limit(), true);
        Operating at = settled();
        if (at.through(held.name) > held.limit()) {
          high = mid;
          above = at;
        } else {
          low = mid;
          below = at;
        }
      }
      double before = below.through(held.name);
      double jump = above.through(held.name) - before;
      return jump > 0
          ? below.mixed(above, Math.clamp((held.limit() - before) / jump, 0, 1))
          : state(false);
    } finally {
      searching = false;
      free(false);
      held.set(set, held.limit(), true);
    }
  }

  /// Whether it may be: no volts but from somewhere, and no current that goes nowhere.
  private boolean sane() {
    double most = most();
    for (double x : v) {
      if (!(Math.abs(x) <= most)) {
        return false;
      }
    }
    return newton.worst(v, moment) < 1e-3;
  }

  private Operating state(boolean settled) {
    return state(circuit, v, moment, settled);
  }

  static Operating state(Circuit circuit, double[] v, Element.Moment m, boolean settled) {
    Map<String, Double> volts = new HashMap<>(2 * v.length);
    volts.put(Circuit.GROUND, 0.0);
    for (int i = 0; i < v.length; i++) {
      volts.put(circuit.nodes().get(i), v[i]);
    }
    Map<String, Double> amps = new HashMap<>();
    Map<String, Double> watts = new HashMap<>();
    boolean limited = false;
    for (Element e : circuit.elements()) {
      amps.putIfAbsent(e.name, e.amps(v, m));
      watts.merge(e.name, e.heat(v, m), Double::sum);
      limited |= e instanceof Supply s && s.limited(v);
    }
    return new Operating(volts, amps, watts, limited, settled);
  }
}
