package ell.core.practice;

import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.circuit.Warmth;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.power.BoardCircuit;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.Ratings;
import ell.core.power.ShortWays;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.trace.Knobs;
import ell.core.trace.Probe;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/// A board with a fault that only the one who measures knows: its parts lie anywhere in their
/// tolerances, its loads and regulators too, instruments have noise, looks miss. What comes and
/// goes is there or not at each measurement anew, and is seen either way.
public final class HiddenBoard {
  private static final double OPEN_VOLTS = 3;
  private static final double RANGE_VOLTS = 0.25;
  private static final double LEADS = 0.15;
  private static final double MOST_OHMS = 6e7;

  /// What a meter with four wires leaves open, of its reading and besides, ohms; typical, no
  /// source.
  private static final double FOUR_WIRES = 2e-3;

  private static final double FOUR_WIRES_OHM = 3e-4;
  private static final double[] TEST_AMPS = {1e-3, 1e-4, 1e-5, 1e-6, 1e-7};

  private final Revision revision;
  private final Ladder drawn;
  private final Ladder ladder;
  private final List<Fault> healthy;
  private final List<Fault> injected;
  private final List<Fault> sometimes;
  private final List<Fault> steady;
  private final List<Fault> mended = new ArrayList<>();
  private final Random random;
  private final double load;
  private final ShortWays ways;
  private boolean there = true;
  private Operating powered;
  private Knobs at;
  private boolean thereAt;

  /// @param injected what is wrong with it
  public HiddenBoard(Revision revision, Ladder ladder, List<Fault> injected, long seed) {
    this.revision = revision;
    this.injected = injected.stream().map(HiddenBoard::always).toList();
    steady = injected.stream().filter(f -> !(f instanceof Fault.Sometimes)).toList();
    sometimes = injected.stream().filter(Fault.Sometimes.class::isInstance).toList();
    random = new Random(seed);
    ways = new ShortWays(revision, seed);
    healthy = MadeFaults.healthy(revision, random);
    load = 1 + 0.12 * Math.clamp(random.nextGaussian(), -2, 2);
    this.drawn = ladder;
    this.ladder = spread(ladder);
  }

  private static Fault always(Fault f) {
    return f instanceof Fault.Sometimes(double _, Fault g) ? g : f;
  }

  /// A further try, at which what comes and goes is there or not.
  ///
  /// @return whether anything is wrong with it
  public boolean tried() {
    there = sometimes.stream().anyMatch(f -> random.nextDouble() < ((Fault.Sometimes) f).chance());
    return there || !steady.isEmpty();
  }

  /// What is wrong with it at this try.
  private List<Fault> now() {
    List<Fault> now = new ArrayList<>(there ? injected : steady);
    now.removeAll(mended);
    return now;
  }

  /// What is wrong with it at any try.
  private List<Fault> left() {
    List<Fault> left = new ArrayList<>(injected);
    left.removeAll(mended);
    return left;
  }

  /// The ladder as it is drawn.
  Ladder ladder() {
    return drawn;
  }

  private Ladder spread(Ladder l) {
    return l.stepping(
        l.steps().stream()
            .map(s ->
                s.regulates()
                    ? s.at(s.volts() * (1 + 0.007 * Math.clamp(random.nextGaussian(), -2, 2)))
                    : s)
            .toList());
  }

  private BoardCircuit circuit() {
    List<Fault> all = new ArrayList<>(now());
    all.addAll(healthy);
    return new BoardCircuit(revision, ladder, all);
  }

  private Operating powered(Knobs knobs) {
    if (powered == null || !knobs.equals(at) || there != thereAt) {
      Circuit c = circuit().powered("boot", load);
      for (int i = 0; i < knobs.volts().size(); i++) {
        c.set(
            BoardCircuit.supply(i),
            knobs.volts().get(i),
            knobs.limits().get(i),
            knobs.volts().get(i) > 0);
      }
      powered = c.rest(1e-6);
      at = knobs;
      thereAt = there;
    }
    return powered;
  }

  private double noise(double v, double share, double floor) {
    return Double.isInfinite(v) ? v : v + random.nextGaussian() * (share * Math.abs(v) + floor);
  }

  private boolean set(String instrument, String what) {
    return now().contains(new Fault.Setting(instrument, what));
  }

  /// Volts at a place, NaN where the board does not settle.
  public double volts(String place, Knobs knobs) {
    Operating o = powered(knobs);
    return !o.settled()
        ? Double.NaN
        : set("meter", "current-jack") ? noise(0, 0, 1e-3) : noise(o.at(node(place)), 2e-3, 7e-4);
  }

  /// Amperes of a source.
  public double amps(int source, Knobs knobs) {
    Operating o = powered(knobs);
    return o.settled() ? noise(o.through(BoardCircuit.supply(source)), 3e-3, 5e-5) : Double.NaN;
  }

  private String node(String place) {
    BoardCircuit c = circuit();
    if (!revision.net(place).isEmpty()) {
      return c.node(place);
    }
    return c.node(revision.joint(place).orElseGet(() -> revision.jointsOf(place).getFirst()));
  }

  /// Ohms between two places, as a meter drives its current from its lowest range up.
  public double ohms(String a, String b) {
    if (set("meter", "current-jack")) {
      return noise(LEADS + 0.05, 0.01, 0.01);
    }
    String plus = node(a);
    String minus = node(b);
    if (plus.equals(minus)) {
      return Math.max(0, noise(LEADS, 0, 0.02));
    }
    return Math.max(0, noise(bare(plus, minus) + LEADS, 2e-3, 0.02));
  }

  /// Without leads and noise.
  private double bare(String plus, String minus) {
    for (double amps : TEST_AMPS) {
      Circuit c = circuit().alone("off", load);
      c.supply("meter", plus, minus, OPEN_VOLTS, amps, 10);
      Operating o = c.rest();
      double v = o.at(plus) - o.at(minus);
      if (o.settled() && v <= RANGE_VOLTS) {
        double r = v / amps;
        return r > MOST_OHMS ? Double.POSITIVE_INFINITY : r;
      }
    }
    return Double.POSITIVE_INFINITY;
  }

  /// The entries that a measurement leads to, several where several joints are read; none where
  /// nothing can be said.
  public List<Entry> made(Probe p) {
    if (p.kind() == Probe.Kind.SWAP) {
      // whoever changes a part writes down that it was heated
      return List.of(measure(p).orElseThrow(), new Entry.Action(p.a(), "replaced", true, "to try"));
    }
    if (p.kind() != Probe.Kind.ALONG) {
      return measure(p).stream().toList();
    }
    List<Entry> all = new ArrayList<>();
    for (String place : p.places()) {
      if (!sometimes.isEmpty()) {
        tried();
      }
      reading(place, fourWires(place, p.b()), Unit.OHM).ifPresent(all::add);
    }
    return all;
  }

  /// Ohms by four wires between a joint and a net.
  private double fourWires(String place, String other) {
    double r = bare(node(place), node(other)) + ways.ohms(now(), place, other);
    return Math.max(0, noise(r, FOUR_WIRES, FOUR_WIRES_OHM));
  }

  /// The entry that a measurement leads to, empty where nothing can be said.
  public Optional<Entry> measure(Probe p) {
    if (!sometimes.isEmpty()) {
      tried();
    }
    return switch (p.kind()) {
      case VOLTS -> reading(p.a(), volts(p.a(), p.knobs().orElseThrow()), Unit.VOLT);
      case AMPS -> {
        int source = 0;
        while (!ladder.sources().get(source).rail().equals(p.a())) {
          source++;
        }
        yield reading(p.a(), amps(source, p.knobs().orElseThrow()), Unit.AMPERE);
      }
      case OHMS ->
          Optional.of(
              new Entry.Check(
                  "isolation",
                  p.a(),
                  p.b(),
                  "",
                  "",
                  ohms(p.a(), p.b()),
                  Limits.atMost(1e9),
                  Verdict.WITHIN));
      case LIT ->
          Optional.of(
              new Entry.Symptom(
                  p.a(),
                  "lamp",
                  powered(p.knobs().orElseThrow()).through(p.a()) > 2e-4 ? "lit" : "dark",
                  1,
                  1));
      case TOUCH -> touch(p);
      case LOOK -> Optional.of(look(p.a()));
      case PRESS, SWAP ->
          Optional.of(
              new Entry.Symptom(
                  p.a(),
                  p.kind() == Probe.Kind.SWAP ? "swapped" : "pressed",
                  helps(p) ? "fine" : "same",
                  1,
                  1));
      case ALONG, WAVE, TALK, SCOPE -> Optional.empty();
    };
  }

  private Optional<Entry> reading(String place, double v, Unit unit) {
    return Double.isNaN(v)
        ? Optional.empty()
        : Optional.of(
            new Entry.Reading(
                place, v, unit, Optional.empty(), Optional.empty(), Optional.empty(), ""));
  }

  private Optional<Entry> touch(Probe p) {
    Operating o = powered(p.knobs().orElseThrow());
    for (Warmth.Body b : Ratings.of(revision, ladder, circuit()).bodies()) {
      if (b.part().equals(p.a())) {
        double k =
            b.kelvinPerWatt()
                * (o.heat(b.part()) + o.heat(b.part() + " load"))
                * (1 + 0.15 * random.nextGaussian());
        return Optional.of(
            k > 45
                ? new Entry.Defect(p.a(), "hot", "")
                : new Entry.Symptom(p.a(), "touch", k > 15 ? "warm" : "cool", 1, 1));
      }
    }
    return Optional.empty();
  }

  private boolean helps(Probe p) {
    boolean swap = p.kind() == Probe.Kind.SWAP;
    for (Fault f : swap ? left() : now()) {
      boolean joint =
          f instanceof Fault.Open(String part, String _) && part.equals(p.a())
              || f instanceof Fault.Resistive(String q, String _, double _) && q.equals(p.a());
      boolean part =
          f instanceof Fault.Dead(String d) && d.equals(p.a())
              || f instanceof Fault.WrongValue(String v, double _) && v.equals(p.a())
              || f instanceof Fault.Short(String s) && s.equals(p.a())
              || f instanceof Fault.Turned(String t) && t.equals(p.a())
              || f instanceof Fault.Missing(String m) && m.equals(p.a());
      boolean between =
          swap && f instanceof Fault.Bridge b && (at(b.a(), p.a()) || at(b.b(), p.a()));
      if ((joint || between) && random.nextDouble() < (swap ? 0.9 : 0.5) || swap && part) {
        if (swap) {
          mended.add(f);
          powered = null;
        }
        return true;
      }
    }
    return random.nextDouble() < 0.02;
  }

  private static boolean at(String place, String part) {
    return BoardState.part(place).equals(part);
  }

  /// One look, which may see what is not there; who looks at a part sees its joints.
  private Entry look(String place) {
    boolean joint = revision.part(place).isEmpty();
    Optional<Entry> defect = defect(place, joint);
    if (!joint) {
      for (Joint j : revision.jointsOf(place)) {
        defect = defect.isPresent() ? defect : defect(j.place(), true);
      }
    }
    return defect.orElseGet(() ->
        random.nextDouble() < 0.003
            ? new Entry.Defect(place, joint ? "open" : "wrong", "")
            : new Entry.Seen(List.of(place)));
  }

  /// What is seen of the faults at one joint, or at a part itself.
  private Optional<Entry> defect(String place, boolean joint) {
    for (Fault f : left()) {
      String shows =
          switch (f) {
            case Fault.Open(String p, String pin) when joint && place.equals(p + "." + pin) ->
                random.nextDouble() < 0.7 ? "open" : "";
            case Fault.Resistive(String p, String pin, double _)
                when joint && place.equals(p + "." + pin) ->
                random.nextDouble() < 0.4 ? "cold" : "";
            case Fault.Bridge(String a, String b, double _)
                when joint && (place.equals(a) || place.equals(b)) ->
                random.nextDouble() < 0.8 ? "bridge" : "";
            case Fault.Missing(String p) when place.equals(p) -> "missing";
            case Fault.Turned(String p) when place.equals(p) ->
                random.nextDouble() < 0.9 ? "turned" : "";
            case Fault.WrongValue(String p, double _) when place.equals(p) ->
                random.nextDouble() < 0.6 ? "wrong" : "";
            default -> "";
          };
      if (!shows.isEmpty()) {
        return Optional.of(new Entry.Defect(place, shows, ""));
      }
    }
    return Optional.empty();
  }

  /// Lamps of the board.
  public List<String> lamps() {
    return revision.parts().stream()
        .filter(p -> p.fitted() && p.kind() == PartKind.LED)
        .map(ell.core.board.Part::reference)
        .toList();
  }
}
