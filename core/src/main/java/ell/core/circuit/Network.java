package ell.core.circuit;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// A direct-current network with one supply, solved by nodal analysis. Diodes are piecewise linear,
/// regulators are limited voltage sources whose input draws what their output gives (a switching
/// one starts when its input can hold its output), loads draw a steady current above a voltage and
/// less below it. The node `GND` is the return.
///
/// Built by adding elements, then asked with [#solve]. Not for many threads.
public final class Network {
  private static final double LEAK = 1e-9;
  private static final double SOURCE_OHM = 0.01;
  private static final double DIODE_OHM = 0.1;
  private static final int ROUNDS = 120;
  private static final int BISECTIONS = 40;

  /// The volts at which the limit begins to hold are known to this share of the set point.
  private static final double NEAR = 1e-9;

  /// A current that changes by more than this share of the limit between two such volts jumps.
  private static final double STEP = 1e-3;

  /// A converter that runs goes on down to so much less than what starts it; typical, no source.
  private static final double HYSTERESIS = 0.1;

  private final Map<String, Integer> index = new HashMap<>(Map.of("GND", -1));
  private final List<double[]> resistors = new ArrayList<>(); // a, b, siemens
  private final List<double[]> diodes = new ArrayList<>(); // anode, cathode, volts
  private final List<double[]> loads = new ArrayList<>(); // node, return, amps, full volts
  private final List<Regulator> regulators = new ArrayList<>();
  private final List<int[]> regulatorNodes = new ArrayList<>();

  /// What a regulator or a pass element with a set output does.
  ///
  /// @param name of the part
  /// @param volts output
  /// @param dropout least difference of input and output, V
  /// @param limit greatest output current, A
  /// @param quiescent own current, A
  /// @param efficiency 0...1 for a switching regulator, 0 for a linear one
  /// @param starts input from which a switching one runs, V; one that starts below its output lifts
  /// @throws IllegalArgumentException when volts is below 0, dropout is below 0, limit is not above
  ///   0, quiescent is below 0 or efficiency is not in 0...1
  public record Regulator(
      String name,
      double volts,
      double dropout,
      double limit,
      double quiescent,
      double efficiency,
      double starts) {
    /// A regulator that gives less than it takes: it runs once it can hold its output.
    public Regulator(
        String name,
        double volts,
        double dropout,
        double limit,
        double quiescent,
        double efficiency) {
      this(name, volts, dropout, limit, quiescent, efficiency, volts + dropout);
    }

    public Regulator {
      Check.notNegative(starts, "starts");
      Check.notNegative(volts, "volts");
      Check.notNegative(dropout, "dropout");
      Check.positive(limit, "limit");
      Check.notNegative(quiescent, "quiescent");
      Check.inRange(efficiency, 0, 1, "efficiency");
    }
  }

  /// What came out.
  ///
  /// @param volts by node, `GND` included
  /// @param supplyVolts at the terminals of the supply
  /// @param supplyAmps out of the supply
  /// @param limited true when the supply holds its current limit instead of its voltage
  /// @param regulatorAmps output current by regulator
  /// @param settled false when the iteration did not come to rest; the values are then rough
  public record Solution(
      Map<String, Double> volts,
      double supplyVolts,
      double supplyAmps,
      boolean limited,
      Map<String, Double> regulatorAmps,
      boolean settled) {
    public Solution {
      volts = Collections.unmodifiableMap(new LinkedHashMap<>(volts));
      regulatorAmps = Collections.unmodifiableMap(new LinkedHashMap<>(regulatorAmps));
    }

    /// Volts of a node against `GND`; 0 for a node that is not there.
    public double at(String node) {
      return volts.getOrDefault(node, 0.0);
    }
  }

  private int node(String name) {
    return index.computeIfAbsent(name, _ -> index.size() - 1);
  }

  /// Adds a resistor, not below 0 ohm.
  ///
  /// @throws IllegalArgumentException when `ohms` is below 0 or not finite
  public void resistor(String a, String b, double ohms) {
    if (!a.equals(b)) {
      resistors.add(
          new double[] {node(a), node(b), 1 / Math.max(Check.notNegative(ohms, "ohms"), 1e-3)});
    }
  }

  /// Adds a diode with its forward voltage.
  public void diode(String anode, String cathode, double forwardVolts) {
    diodes.add(new double[] {node(anode), node(cathode), forwardVolts});
  }

  /// Adds a load that draws `amps` from `fullVolts` up and proportionally less below.
  public void load(String node, String back, double amps, double fullVolts) {
    if (amps > 0) {
      loads.add(new double[] {node(node), node(back), amps, Math.max(fullVolts, 1e-3)});
    }
  }

  /// Adds a regulator from one node to another.
  public void regulator(String in, String out, Regulator regulator) {
    regulators.add(regulator);
    regulatorNodes.add(new int[] {node(in), node(out)});
  }

  /// Solves with a supply between `node` and `GND`.
  ///
  /// @param volts set point, not below 0
  /// @param limitAmps current limit, above 0
  /// @throws IllegalArgumentException when volts is below 0 or limitAmps is not above 0
  public Solution solve(String node, double volts, double limitAmps) {
    Check.notNegative(volts, "volts");
    Check.positive(limitAmps, "limitAmps");
    int source = node(node);
    Solution s = settle(source, volts, new State());
    if (s.supplyAmps() <= limitAmps) {
      return s;
    }
    double low = 0;
    double high = volts;
    Solution below = settle(source, low, new State());
    Solution above = s;
    for (int i = 0; i < BISECTIONS && high - low > NEAR * volts; i++) {
      double mid = (low + high) / 2;
      s = settle(source, mid, new State());
      if (s.supplyAmps() > limitAmps) {
        high = mid;
        above = s;
      } else {
        low = mid;
        below = s;
      }
    }
    return atLimit(below, above, limitAmps);
  }

  /// What the limit holds. A converter starts at the volts of one side of it and draws more than
  /// the limit, stops, and starts again: the limit is then its current on the average, and every
  /// value the average of the two by the share of the time that each lasts.
  private static Solution atLimit(Solution below, Solution above, double limitAmps) {
    double step = above.supplyAmps() - below.supplyAmps();
    double share =
        step > STEP * limitAmps ? Math.clamp((limitAmps - below.supplyAmps()) / step, 0, 1) : 0;
    Map<String, Double> volts = new HashMap<>();
    below.volts().forEach((n, v) -> volts.put(n, v + share * (above.at(n) - v)));
    Map<String, Double> amps = new HashMap<>();
    below
        .regulatorAmps()
        .forEach((n, x) -> amps.put(n, x + share * (above.regulatorAmps().getOrDefault(n, x) - x)));
    return new Solution(
        volts,
        below.supplyVolts() + share * (above.supplyVolts() - below.supplyVolts()),
        limitAmps,
        true,
        amps,
        below.settled() && (share == 0 || above.settled()));
  }

  /// From these volts at its input on a regulator draws its own current; typical, no source.
  private static final double AWAKE = 0.5;

  private final class State {
    double[] v = new double[index.size() - 1];
    boolean[] on = new boolean[diodes.size()];
    boolean[] limited = new boolean[regulators.size()];
    boolean[] started = new boolean[regulators.size()];

    /// Linear regulators whose input is too low to hold their output: they pass it on less their
    /// dropout, and nothing back.
    boolean[] passes = new boolean[regulators.size()];

    boolean[] conducts = new boolean[regulators.size()];
    double[] out = new double[regulators.size()];
    double[] in = new double[regulators.size()];
  }

  private static double at(double[] v, double node) {
    return node < 0 ? 0 : v[(int) node];
  }

  private Solution settle(int source, double volts, State s) {
    boolean settled = false;
    for (int round = 0; round < ROUNDS && !settled; round++) {
      double[] next = step(source, volts, s);
      double moved = 0;
      for (int i = 0; i < next.length; i++) {
        moved = Math.max(moved, Math.abs(next[i] - s.v[i]));
      }
      s.v = next;
      settled = update(s) && moved < 1e-6;
    }
    Map<String, Double> found = new HashMap<>();
    double[] v = s.v;
    index.forEach((name, i) -> found.put(name, at(v, i)));
    Map<String, Double> amps = new HashMap<>();
    for (int i = 0; i < regulators.size(); i++) {
      amps.put(regulators.get(i).name(), s.out[i]);
    }
    double supplyAmps = (volts - at(v, source)) / SOURCE_OHM;
    return new Solution(found, at(v, source), supplyAmps, false, amps, settled);
  }

  /// One linear solve with every element in its present piece.
  private double[] step(int source, double volts, State s) {
    int n = s.v.length;
    StarMesh mesh = new StarMesh(n, LEAK);
    mesh.conduct(source, -1, 1 / SOURCE_OHM);
    mesh.inject(source, volts / SOURCE_OHM);
    for (double[] r : resistors) {
      mesh.conduct((int) r[0], (int) r[1], r[2]);
    }
    for (int k = 0; k < diodes.size(); k++) {
      if (s.on[k]) {
        double[] d = diodes.get(k);
        mesh.conduct((int) d[0], (int) d[1], 1 / DIODE_OHM);
        mesh.inject((int) d[0], d[2] / DIODE_OHM);
        mesh.inject((int) d[1], -d[2] / DIODE_OHM);
      }
    }
    for (double[] l : loads) {
      if (at(s.v, l[0]) - at(s.v, l[1]) < l[3]) {
        mesh.conduct((int) l[0], (int) l[1], l[2] / l[3]);
      } else {
        mesh.inject((int) l[0], -l[2]);
        mesh.inject((int) l[1], l[2]);
      }
    }
    for (int k = 0; k < regulators.size(); k++) {
      int[] node = regulatorNodes.get(k);
      if (!s.started[k]) {
        mesh.inject(node[0], -s.in[k]);
        continue;
      }
      if (s.limited[k]) {
        mesh.inject(node[1], regulators.get(k).limit());
      } else if (s.passes[k]) {
        // one element between input and output: solved with both, so that one behind the other
        // settle
        if (at(s.v, node[0]) <= AWAKE) {
          mesh.conduct(node[0], -1, regulators.get(k).quiescent() / AWAKE);
        }
        if (s.conducts[k]) {
          double drop = regulators.get(k).dropout();
          mesh.conduct(node[0], node[1], 1 / SOURCE_OHM);
          mesh.inject(node[0], drop / SOURCE_OHM);
          mesh.inject(node[1], -drop / SOURCE_OHM);
        }
      } else {
        mesh.conduct(node[1], -1, 1 / SOURCE_OHM);
        mesh.inject(node[1], target(k, s) / SOURCE_OHM);
      }
      mesh.inject(node[0], -s.in[k]);
    }
    return mesh.solve();
  }

  private double target(int k, State s) {
    Regulator r = regulators.get(k);
    return r.efficiency() > 0
        ? r.volts() // as long as it runs
        : Math.clamp(at(s.v, regulatorNodes.get(k)[0]) - r.dropout(), 0, r.volts());
  }

  /// Moves every element to the piece that its voltages ask for; true when none moved.
  private boolean update(State s) {
    boolean steady = true;
    for (int k = 0; k < diodes.size(); k++) {
      double[] d = diodes.get(k);
      boolean on = at(s.v, d[0]) - at(s.v, d[1]) > d[2];
      steady &= on == s.on[k];
      s.on[k] = on;
    }
    for (int k = 0; k < regulators.size(); k++) {
      Regulator r = regulators.get(k);
      int[] node = regulatorNodes.get(k);
      double vin = at(s.v, node[0]);
      double vout = at(s.v, node[1]);
      // a linear regulator follows its input; a switching one starts when it can hold its output
      double from = s.started[k] ? r.starts() * (1 - HYSTERESIS) : r.starts();
      boolean started = r.efficiency() == 0 || vin >= from;
      boolean justStarted = started && !s.started[k];
      steady &= started == s.started[k];
      s.started[k] = started;
      if (justStarted) {
        // its output is known only after the next solve
        s.in[k] = r.quiescent();
        s.out[k] = 0;
        continue;
      }
      if (!started) {
        double idle = 0.05 * r.quiescent() * Math.clamp(vin, 0, 1);
        steady &= Math.abs(idle - s.in[k]) < 1e-9;
        s.in[k] = idle;
        s.out[k] = 0;
        s.limited[k] = false;
        continue;
      }
      boolean passes = r.efficiency() == 0 && vin - r.dropout() < r.volts();
      // what it passes is known once it was solved as passing
      boolean solved = s.passes[k] && s.conducts[k];
      steady &= passes == s.passes[k];
      s.passes[k] = passes;
      double powered = Math.clamp(vin / AWAKE, 0, 1);
      if (passes && !s.limited[k]) {
        boolean conducts = vin - vout > r.dropout();
        steady &= conducts == s.conducts[k];
        s.conducts[k] = conducts;
        double out = conducts && solved ? (vin - vout - r.dropout()) / SOURCE_OHM : 0;
        s.out[k] = Math.min(out, r.limit());
        s.limited[k] = out > r.limit();
        steady &= !s.limited[k];
        // below that its own current is part of the network, in proportion to its volts
        double wanted = (vin > AWAKE ? r.quiescent() : 0) + (s.limited[k] ? r.limit() : 0);
        steady &= Math.abs(wanted - s.in[k]) < 1e-7;
        s.in[k] = wanted;
        continue;
      }
      double goal = target(k, s);
      double out = s.limited[k] ? r.limit() : (goal - vout) / SOURCE_OHM;
      boolean limited = s.limited[k] ? vout <= goal : out > r.limit();
      steady &= limited == s.limited[k];
      s.limited[k] = limited;
      s.out[k] = Math.clamp(out, 0, r.limit());
      double wanted =
          r.efficiency() > 0
              ? Math.clamp(vout, 0, goal) * s.out[k] / (r.efficiency() * Math.max(vin, 0.5))
                  + r.quiescent() * powered
              : s.out[k] + r.quiescent() * powered;
      double damped = s.in[k] + 0.6 * (wanted - s.in[k]);
      steady &= Math.abs(damped - s.in[k]) < 1e-7;
      s.in[k] = damped;
    }
    return steady;
  }
}
