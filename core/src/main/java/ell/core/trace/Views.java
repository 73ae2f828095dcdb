package ell.core.trace;

import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.power.BoardVariants;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.quantity.Accuracy;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What measurements would show under each case: forecasts of the board model with the tolerances
/// of parts and instruments around them. Kept until cases are added.
final class Views {
  /// What nothing explains happens so often.
  static final double LEAST_LOOSE = 0.004;

  /// A chip may drive the net as it likes.
  private static final double DRIVEN = 0.35;

  private static final double UNKNOWN = 0.95;

  /// Of what a bridge of some ohms draws at the limit of the supply, one of a few more draws so
  /// much less.
  private static final double SOFTLY = 0.25;

  private static final double SOFT_OHMS = 2;

  /// A supply at so much of its limit is held by it.
  private static final double AT_LIMIT = 0.9;

  private static final double MIN_VOLTS = -1;

  private final Board board;
  private final List<Case> cases;
  private final Map<Knobs, Forecast> forecasts = new LinkedHashMap<>();
  private final Map<Probe, Outlook> known = new HashMap<>();
  private final Set<String> chips = new HashSet<>();
  private final Speaking speaking;
  private final WordViews words;
  private final OhmViews ohms;
  private final AlongViews along;
  private int worked;
  private int indexed;
  private final java.util.BitSet jack = new java.util.BitSet();
  private final java.util.BitSet loosely = new java.util.BitSet();
  private final Map<String, List<Integer>> byPlace = new HashMap<>();
  private static final Fault JACK = new Fault.Setting("meter", "current-jack");

  Views(Board board, List<Case> cases) {
    this.board = board;
    this.cases = cases;
    speaking = new Speaking(board);
    words = new WordViews(board, cases, this);
    ohms = new OhmViews(board, cases, this);
    along = new AlongViews(board, cases);
    for (Joint j : board.revision().joints()) {
      PartKind k = PartKind.of(j.part());
      boolean supply =
          board.ladder().rail(j.net()).isPresent() || j.net().equals(board.ladder().ground());
      if ((k == PartKind.CHIP || k == PartKind.MODULE) && j.connected() && !supply) {
        chips.add(j.net());
      }
    }
  }

  /// The forecast with supplies set in one way.
  Forecast forecast(Knobs knobs) {
    Forecast f =
        forecasts.computeIfAbsent(
            knobs, k -> new Forecast(board.revision(), board.ladder(), board.standing(), k));
    f.upTo(cases);
    return f;
  }

  /// Where nets touch.
  AlongViews along() {
    return along;
  }

  /// Whether a chip may drive a net as it likes.
  boolean driven(String net) {
    return chips.contains(net);
  }

  /// Forgets all cases from a place on.
  void truncate(int size) {
    if (cases.size() > size) {
      cases.subList(size, cases.size()).clear();
      worked = -1;
      indexed = size;
      byPlace.values().forEach(l -> l.removeIf(i -> i >= size));
      forecasts.values().forEach(f -> f.truncate(size));
      ohms.truncate(size);
      along.truncate(size);
    }
  }

  /// The outlook of a probe.
  Outlook of(Probe p) {
    if (worked != cases.size()) {
      known.clear();
      worked = cases.size();
      index();
    }
    return known.computeIfAbsent(p, this::make);
  }

  private Outlook make(Probe p) {
    return switch (p.kind()) {
      case VOLTS -> volts(p);
      case AMPS -> amps(p);
      case OHMS -> ohms.of(p);
      case ALONG -> board.revision().net(p.a()).isEmpty() ? along.ahead(p) : along.made(p);
      case WAVE -> speaking.wave(p, cases, forecast(p.knobs().orElseThrow()));
      case TALK -> speaking.talk(cases, forecast(p.knobs().orElseThrow()));
      case LIT, TOUCH, LOOK, SWAP, PRESS, SCOPE -> words.of(p);
    };
  }

  /// Takes cases in that came since.
  private void index() {
    for (int i = indexed; i < cases.size(); i++) {
      Case c = cases.get(i);
      boolean set = c.faults().contains(JACK);
      jack.set(i, set);
      loosely.set(i, loosely(c.faults()));
      for (Suspect s : c.suspects()) {
        for (String p : s.places()) {
          byPlace.computeIfAbsent(p, _ -> new ArrayList<>(4)).add(i);
        }
      }
    }
    indexed = cases.size();
  }

  /// Whether a case has the meter's lead in the jack for currents.
  boolean jack(int at) {
    return jack.get(at);
  }

  /// Whether how much a case leads is not known.
  boolean loose(int at) {
    return loosely.get(at);
  }

  /// A board that is worked out already, empty when none is.
  Optional<BoardVariants> anyBoard() {
    return forecasts.values().stream().findFirst().map(Forecast::board);
  }

  /// The cases at a place.
  List<Integer> at(String place) {
    return byPlace.getOrDefault(place, List.of());
  }

  private Outlook volts(Probe p) {
    Forecast f = forecast(p.knobs().orElseThrow());
    String net = net(p.a());
    int at = f.net(net);
    String lead = net.equals(p.a()) ? "" : p.a();
    double most = 1;
    for (Ladder.RailSpec r : board.ladder().rails()) {
      most = Math.max(most, 1.3 * r.high() + 1);
    }
    boolean known = f.board().modelled(net);
    double loose = known ? chips.contains(net) ? DRIVEN : LEAST_LOOSE : UNKNOWN;
    double healthy = f.volts(0, at, "");
    Spread others =
        Double.isNaN(healthy) ? Spread.ANY : new Spread(healthy, deviation(healthy), loose);
    boolean inJig = p.b().equals(Probe.JIG);
    Fault itsProbe = new Fault.Setting("jig", net);
    Map<Integer, Spread> own = new HashMap<>();
    Forecast.Row base = f.healthy();
    for (int i = 1; i < cases.size(); i++) {
      if (jack.get(i)) {
        own.put(i, new Spread(0, 0.05, 0.05));
      } else if (inJig && cases.get(i).faults().contains(itsProbe)) {
        own.put(i, new Spread(0, 0.2, 0.1));
      } else if (f.row(i) != base) {
        Spread s = volts(f, i, f.volts(i, at, lead), others);
        if (s != others) {
          own.put(i, s);
        }
      }
    }
    return new Numbers(
        MIN_VOLTS,
        most,
        v -> v,
        v -> v,
        v -> EngineeringNumber.print(v, Unit.VOLT, 3),
        others,
        own);
  }

  /// What a meter shows of some volts under a case.
  ///
  /// @param healthy what it shows where nothing is wrong; the result where the case hardly differs
  private Spread volts(Forecast f, int i, double v, Spread healthy) {
    if (Double.isNaN(v) || healthy == Spread.ANY) {
      return Spread.ANY;
    }
    double moved = Math.abs(v - healthy.mean());
    double sd = deviation(v);
    if (moved < 0.1 * sd) {
      return healthy;
    }
    sd += (loosely.get(i) ? 0.4 : 0.08) * Math.min(moved, Math.abs(v) + 0.3);
    if (f.row(i).limited()) {
      sd += 0.25 * Math.abs(v) + 0.05;
    }
    double loose = moved > sd ? Math.max(healthy.loose(), 2 * LEAST_LOOSE) : healthy.loose();
    return new Spread(v, sd, loose);
  }

  private static double deviation(double v) {
    return 0.01 + 0.015 * Math.abs(v) + Accuracy.handheldVolts(v).uncertainty(v) / 2;
  }

  private Outlook amps(Probe p) {
    Forecast f = forecast(p.knobs().orElseThrow());
    int source = source(p.a());
    double limit = f.knobs().limits().get(source);
    double healthy = f.healthy().amps()[source];
    Spread others = amps(healthy, limit, false);
    Map<Integer, Spread> own = new HashMap<>();
    for (int i = 1; i < cases.size(); i++) {
      Forecast.Row r = f.row(i);
      if (r != f.healthy()) {
        double a = r.amps()[source];
        // of several supplies one may be at its limit, and the others give what they give
        boolean limited = r.limited() && a > AT_LIMIT * limit;
        if (!(Math.abs(a - healthy) < 0.03 * healthy)) {
          Spread s = amps(a, limit, limited);
          boolean about = loosely.get(i) && !Double.isNaN(a);
          own.put(
              i,
              about && limited && softly(cases.get(i).faults())
                  ? new Spread(s.mean(), s.sd() + SOFTLY * Math.abs(limit - healthy), s.loose())
                  : about && !limited
                      ? new Spread(s.mean(), s.sd() + 0.35 * Math.abs(a - healthy), s.loose())
                      : s);
        }
      }
    }
    return new Numbers(
        -0.1 * limit,
        1.3 * limit,
        a -> a,
        a -> a,
        a -> EngineeringNumber.print(Math.max(a, 0), Unit.AMPERE, 3),
        others,
        own);
  }

  private Spread amps(double a, double limit, boolean limited) {
    if (Double.isNaN(a)) {
      return Spread.ANY;
    }
    double guessed = board.ladder().loads().stream().anyMatch(Ladder.Load::guessed) ? 0.3 : 0.15;
    return limited
        ? new Spread(limit, 0.04 * limit + 1e-3, LEAST_LOOSE)
        : new Spread(a, guessed * Math.abs(a) + 1.5e-3, LEAST_LOOSE);
  }

  int source(String rail) {
    for (int i = 0; i < board.ladder().sources().size(); i++) {
      if (board.ladder().sources().get(i).rail().equals(rail)) {
        return i;
      }
    }
    throw new IllegalArgumentException(rail + " is no source");
  }

  /// Ohms between the nets of two places.
  Probe between(Probe ohms) {
    return Probe.ohms(net(ohms.a()), net(ohms.b()));
  }

  /// The net of a place.
  String net(String place) {
    if (!board.revision().net(place).isEmpty()) {
      return place;
    }
    Optional<Joint> j = board.revision().joint(place);
    if (j.isPresent()) {
      return j.get().net();
    }
    return board.revision().jointsOf(place).stream()
        .map(Joint::net)
        .filter(n -> !n.isEmpty())
        .findFirst()
        .orElse("");
  }

  private static boolean softly(List<Fault> faults) {
    return faults.stream().anyMatch(f -> f instanceof Fault.Bridge b && b.ohms() > SOFT_OHMS);
  }

  /// How much a bridge or a bad joint leads nobody knows.
  private static boolean loosely(List<Fault> faults) {
    return faults.stream()
        .anyMatch(f ->
            f instanceof Fault.Bridge || f instanceof Fault.Resistive || f instanceof Fault.Short);
  }
}
