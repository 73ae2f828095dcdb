package ell.core.trace;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.circuit.Asked;
import ell.core.circuit.AtRest;
import ell.core.circuit.Warmth;
import ell.core.power.BoardCircuit;
import ell.core.power.BoardVariants;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.Ratings;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What a board would do under each case with its supplies set in one way: volts of every net,
/// amperes of every source and lamp, warmth of every part. A case that changes nothing shares the
/// row of the healthy board.
final class Forecast {
  private static final double SAME = 1e-6;

  /// So many pairs are kept from one reading to the next, some kilobytes each.
  private static final int MOST_PAIRS = 4000;

  private final Revision revision;
  private final BoardVariants board;
  private final Knobs knobs;
  private final List<String> nets;
  private final String[] nodes;
  private final Map<String, Integer> netPlace = new HashMap<>();
  private final List<String> lamps = new ArrayList<>();
  private final Map<String, Integer> lampPlace = new HashMap<>();
  private final List<Warmth.Body> bodies;
  private final Asked asked;
  private final Map<String, Integer> bodyPlace = new HashMap<>();
  private final List<Row> rows = new ArrayList<>();
  private final Map<List<String>, Row> known = new HashMap<>();
  private final Alike alike;

  /// What one case shows.
  ///
  /// @param volts by net, NaN where nothing is known
  /// @param amps by source
  /// @param lamps ampere through each lamp
  /// @param kelvin above the surroundings, by body
  /// @param leads volts of leads that hang apart, by place
  /// @param limited whether a supply is at its limit
  record Row(
      float[] volts,
      float[] amps,
      float[] lamps,
      float[] kelvin,
      Map<String, Float> leads,
      boolean limited) {}

  Forecast(Revision revision, Ladder ladder, List<Fault> standing, Knobs knobs) {
    this.revision = revision;
    this.knobs = knobs;
    alike = new Alike(revision);
    board = new BoardVariants(revision, ladder, standing, "boot", knobs::turn);
    nets = revision.nets();
    nodes = new String[nets.size()];
    for (int i = 0; i < nodes.length; i++) {
      nodes[i] = board.node(nets.get(i), List.of());
      netPlace.put(nets.get(i), i);
    }
    for (Part p : revision.parts()) {
      if (p.fitted() && p.kind() == PartKind.LED) {
        lampPlace.put(p.reference(), lamps.size());
        lamps.add(p.reference());
      }
    }
    bodies = Ratings.of(revision, ladder, new BoardCircuit(revision, ladder, standing)).bodies();
    for (int i = 0; i < bodies.size(); i++) {
      bodyPlace.put(bodies.get(i).part(), i);
    }
    List<String> currents = new ArrayList<>();
    for (int i = 0; i < knobs.volts().size(); i++) {
      currents.add(BoardCircuit.supply(i));
    }
    currents.addAll(lamps);
    asked =
        new Asked(
            List.of(nodes),
            currents,
            bodies.stream().map(b -> List.of(b.part(), b.part() + " load")).toList());
    rows.add(
        row(
            board.healthy().settled() ? Optional.of(board.healthy()) : Optional.empty(),
            Case.HEALTHY));
  }

  /// Works out cases until it has as many.
  void upTo(List<Case> cases) {
    for (int i = rows.size(); i < cases.size(); i++) {
      Case c = cases.get(i);
      rows.add(known.computeIfAbsent(alike.of(c), _ -> of(c)));
    }
  }

  /// Works out some cases; does not keep them.
  Row of(Case c) {
    return row(board.under(c.faults()), c);
  }

  void truncate(int size) {
    if (rows.size() > size) {
      rows.subList(size, rows.size()).clear();
    }
    // pairs come and go, and mostly come again with the next reading
    if (known.keySet().stream().filter(k -> k.size() > 1).count() > MOST_PAIRS) {
      known.keySet().removeIf(k -> k.size() > 1);
    }
  }

  int size() {
    return rows.size();
  }

  Row row(int at) {
    return rows.get(at);
  }

  Row healthy() {
    return rows.getFirst();
  }

  Knobs knobs() {
    return knobs;
  }

  BoardVariants board() {
    return board;
  }

  List<Warmth.Body> bodies() {
    return bodies;
  }

  List<String> lamps() {
    return lamps;
  }

  /// The place of a net, -1 for none.
  int net(String net) {
    return netPlace.getOrDefault(net, -1);
  }

  int lamp(String part) {
    return lampPlace.getOrDefault(part, -1);
  }

  int body(String part) {
    return bodyPlace.getOrDefault(part, -1);
  }

  /// Volts at a place under a case; NaN where nothing is known.
  ///
  /// @param net its place
  /// @param lead the joint under the tip, empty for any place of the net
  double volts(int at, int net, String lead) {
    Row r = rows.get(at);
    if (!lead.isEmpty() && !r.leads().isEmpty()) {
      Float apart = r.leads().get(lead);
      if (apart != null) {
        return apart;
      }
    }
    return r.volts()[net];
  }

  private Row row(Optional<AtRest> found, Case c) {
    if (found.isEmpty()) {
      return unknown();
    }
    AtRest s = found.get();
    if (!rows.isEmpty() && s == board.healthy()) {
      return rows.getFirst();
    }
    float[] v = new float[nodes.length];
    float[] currents = new float[knobs.volts().size() + lamps.size()];
    float[] kelvin = new float[bodies.size()];
    s.answer(asked, v, currents, kelvin);
    float[] amps = Arrays.copyOf(currents, knobs.volts().size());
    float[] lit = Arrays.copyOfRange(currents, amps.length, currents.length);
    boolean limited = false;
    for (int i = 0; i < amps.length; i++) {
      limited |= knobs.volts().get(i) > 0 && amps[i] > 0.97 * knobs.limits().get(i);
    }
    for (int i = 0; i < kelvin.length; i++) {
      kelvin[i] *= (float) bodies.get(i).kelvinPerWatt();
    }
    Map<String, Float> leads = leads(s, c);
    Row made = new Row(v, amps, lit, kelvin, leads, limited);
    return leads.isEmpty() && !rows.isEmpty() && same(made, rows.getFirst())
        ? rows.getFirst()
        : made;
  }

  /// Leads that hang apart. One of several on a net is joined to the others inside its part, which
  /// nobody knows.
  private Map<String, Float> leads(AtRest s, Case c) {
    Map<String, Float> leads = new HashMap<>();
    for (Fault f : c.faults()) {
      String place =
          switch (f) {
            case Fault.Open o -> o.part() + "." + o.pin();
            case Fault.Loose l -> l.part() + "." + l.pin();
            case Fault.Resistive r -> r.part() + "." + r.pin();
            case Fault.Tied t -> t.part() + "." + t.pin();
            default -> "";
          };
      if (place.isEmpty()) {
        continue;
      }
      Optional<Joint> j = revision.joint(place);
      boolean alone =
          j.isPresent()
              && revision.jointsOf(j.get().part()).stream()
                  .noneMatch(o -> o.net().equals(j.get().net()) && !o.pin().equals(j.get().pin()));
      String node = board.node(place, c.faults());
      boolean there = alone && !Double.isNaN(s.at(node)) && node.startsWith("joint ");
      leads.put(place, there ? (float) s.at(node) : Float.NaN);
    }
    return leads;
  }

  private static boolean same(Row a, Row b) {
    return same(a.volts(), b.volts())
        && same(a.amps(), b.amps())
        && same(a.lamps(), b.lamps())
        && same(a.kelvin(), b.kelvin());
  }

  private static boolean same(float[] a, float[] b) {
    for (int i = 0; i < a.length; i++) {
      if (!(Math.abs(a[i] - b[i]) <= SAME)) {
        return false;
      }
    }
    return true;
  }

  private Row unknown() {
    return new Row(
        nan(nodes.length),
        nan(knobs.volts().size()),
        nan(lamps.size()),
        nan(bodies.size()),
        Map.of(),
        false);
  }

  private static float[] nan(int n) {
    float[] v = new float[n];
    Arrays.fill(v, Float.NaN);
    return v;
  }
}
