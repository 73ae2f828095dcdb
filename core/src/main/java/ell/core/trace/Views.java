package ell.core.trace;

import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.circuit.OhmVariants;
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

  /// A tip that slips, a range that is misread.
  private static final double MISREAD = 8e-4;

  /// A chip may drive the net as it likes.
  private static final double DRIVEN = 0.35;

  private static final double UNKNOWN = 0.95;
  private static final double MIN_VOLTS = -1;
  private static final double OPEN_SCALE = 8;
  private static final double LEAST_SCALE = -1.4;
  private static final double MOST_SCALE = 8.5;
  private static final double LEADS_OHM = 0.2;
  private static final double ZERO_OHM = 0.05;
  private static final double LIT_AMPS = 2e-4;
  private static final double HOT_KELVIN = 45;
  private static final double WARM_KELVIN = 15;

  /// So often something is seen that is not there; common practice, no source.
  private static final double SEES_WRONG = 0.002;

  /// A look at many joints at once finds so much of what a look at one does.
  private static final double GLANCE = 0.5;

  static final List<String> LAMP_WORDS = List.of("lit", "dark");
  static final List<String> TOUCH_WORDS = List.of("cool", "warm", "hot");
  static final List<String> SCOPE_WORDS = List.of("fine", "ac", "x10");
  static final List<String> TRY_WORDS = List.of("same", "fine");
  static final List<String> JOINT_WORDS = List.of("good", "open", "bridge");
  static final List<String> PART_WORDS = List.of("good", "missing", "turned", "wrong");

  private final Board board;
  private final List<Case> cases;
  private final Map<Knobs, Forecast> forecasts = new LinkedHashMap<>();
  private final Map<Probe, Outlook> known = new HashMap<>();
  private final List<OhmVariants.Changed> ohms = new ArrayList<>();
  private final Map<List<String>, OhmVariants.Changed> changed = new HashMap<>();
  private final Alike alike;
  private final Set<String> chips = new HashSet<>();
  private final Speaking speaking;
  private BoardVariants unpowered;
  private int worked;
  private int indexed;
  private final java.util.BitSet jack = new java.util.BitSet();
  private final java.util.BitSet loosely = new java.util.BitSet();
  private final Map<String, List<Integer>> byPlace = new HashMap<>();
  private static final Fault JACK = new Fault.Setting("meter", "current-jack");

  Views(Board board, List<Case> cases) {
    this.board = board;
    this.cases = cases;
    alike = new Alike(board.revision());
    speaking = new Speaking(board);
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
      if (ohms.size() > size) {
        ohms.subList(size, ohms.size()).clear();
      }
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
      case OHMS -> ohms(p);
      case LIT -> lit(p);
      case TOUCH -> touch(p);
      case LOOK -> look(p);
      case WAVE -> speaking.wave(p, cases, forecast(p.knobs().orElseThrow()));
      case TALK -> speaking.talk(cases, forecast(p.knobs().orElseThrow()));
      case SWAP -> again(p, 0.9);
      case PRESS -> again(p, 0.5);
      case SCOPE -> scope();
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

  private List<Integer> at(String place) {
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
    Spread others = volts(f, 0, at, "", healthy, loose);
    Map<Integer, Spread> own = new HashMap<>();
    Forecast.Row base = f.healthy();
    for (int i = 1; i < cases.size(); i++) {
      if (jack.get(i)) {
        own.put(i, new Spread(0, 0.05, 0.05));
      } else if (f.row(i) != base) {
        Spread s = volts(f, i, at, lead, healthy, loose);
        if (!s.equals(others)) {
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

  private Spread volts(Forecast f, int i, int net, String lead, double healthy, double loose) {
    double v = f.volts(i, net, lead);
    if (Double.isNaN(v) || Double.isNaN(healthy)) {
      return Spread.ANY;
    }
    double moved = Math.abs(v - healthy);
    double sd = 0.01 + 0.015 * Math.abs(v) + Accuracy.handheldVolts(v).uncertainty(v) / 2;
    if (i > 0 && moved < 0.1 * sd) {
      return new Spread(healthy, spreadOf(healthy), loose);
    }
    if (i > 0) {
      sd += (loosely.get(i) ? 0.4 : 0.08) * Math.min(moved, Math.abs(v) + 0.3);
      if (f.row(i).limited()) {
        sd += 0.25 * Math.abs(v) + 0.05;
      }
    }
    return new Spread(v, sd, i > 0 && moved > sd ? Math.max(loose, 2 * LEAST_LOOSE) : loose);
  }

  private static double spreadOf(double v) {
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
        if (!(Math.abs(a - healthy) < 0.03 * healthy)) {
          Spread s = amps(a, limit, r.limited());
          own.put(
              i,
              loosely.get(i) && !r.limited() && !Double.isNaN(a)
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

  /// The net of a place.
  String net(String place) {
    if (!board.revision().net(place).isEmpty()) {
      return place;
    }
    int dot = place.lastIndexOf('.');
    if (dot > 0) {
      Optional<Joint> j = board.revision().joint(place.substring(0, dot), place.substring(dot + 1));
      if (j.isPresent()) {
        return j.get().net();
      }
    }
    return board.revision().jointsOf(place).stream()
        .map(Joint::net)
        .filter(n -> !n.isEmpty())
        .findFirst()
        .orElse("");
  }

  private BoardVariants unpowered() {
    if (unpowered == null) {
      unpowered =
          forecasts.isEmpty()
              ? new BoardVariants(
                  board.revision(), board.ladder(), board.standing(), "off", _ -> {})
              : forecasts.values().iterator().next().board();
    }
    for (int i = ohms.size(); i < cases.size(); i++) {
      BoardVariants b = unpowered;
      Case c = cases.get(i);
      ohms.add(changed.computeIfAbsent(alike.of(c), _ -> b.ohms(c.faults())));
    }
    return unpowered;
  }

  private Outlook ohms(Probe p) {
    BoardVariants b = unpowered();
    String a = b.node(p.a(), List.of());
    String c = b.node(p.b(), List.of());
    double healthy = b.ohms().between(a, c);
    Spread others = ohms(healthy, false);
    java.util.BitSet near = new java.util.BitSet();
    at(p.a()).forEach(near::set);
    at(p.b()).forEach(near::set);
    Map<Integer, Spread> own = new HashMap<>();
    for (int i = 1; i < cases.size(); i++) {
      List<Fault> faults = cases.get(i).faults();
      if (jack.get(i)) {
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
      Spread s = ohms(r, loosely.get(i));
      if (Math.abs(s.mean() - others.mean()) > 0.02) {
        own.put(i, s);
      }
    }
    return new Numbers(
        LEAST_SCALE,
        MOST_SCALE,
        Views::scale,
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

  /// How much a bridge or a bad joint leads nobody knows.
  private static boolean loosely(List<Fault> faults) {
    return faults.stream()
        .anyMatch(f ->
            f instanceof Fault.Bridge || f instanceof Fault.Resistive || f instanceof Fault.Short);
  }

  private static double scale(double ohms) {
    return Double.isInfinite(ohms)
        ? OPEN_SCALE
        : Math.min(OPEN_SCALE, Math.log10(Math.max(ohms, 0) + ZERO_OHM));
  }

  private static Spread ohms(double r, boolean loosely) {
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

  private Outlook lit(Probe p) {
    Forecast f = forecast(p.knobs().orElseThrow());
    int lamp = f.lamp(p.a());
    boolean driven =
        board.revision().jointsOf(p.a()).stream().anyMatch(j -> chips.contains(j.net()));
    Map<Integer, double[]> own = new HashMap<>();
    double[] others = lit(f.healthy().lamps()[lamp], driven);
    for (int i = 1; i < cases.size(); i++) {
      if (f.row(i) != f.healthy()) {
        own.put(i, lit(f.row(i).lamps()[lamp], driven));
      }
    }
    return new Words(LAMP_WORDS, others, own);
  }

  private static double[] lit(double amps, boolean driven) {
    if (Double.isNaN(amps) || driven) {
      return new double[] {0.5, 0.5};
    }
    double lit = amps > 2 * LIT_AMPS ? 0.985 : amps > LIT_AMPS / 2 ? 0.5 : 0.015;
    return new double[] {lit, 1 - lit};
  }

  private Outlook touch(Probe p) {
    Forecast f = forecast(p.knobs().orElseThrow());
    int body = f.body(p.a());
    Map<Integer, double[]> own = new HashMap<>();
    for (int i = 1; i < cases.size(); i++) {
      if (f.row(i) != f.healthy()) {
        own.put(i, touch(f.row(i).kelvin()[body]));
      }
    }
    return new Words(TOUCH_WORDS, touch(f.healthy().kelvin()[body]), own);
  }

  private static double[] touch(double kelvin) {
    if (Double.isNaN(kelvin)) {
      return new double[] {0.4, 0.3, 0.3};
    }
    double hot = rises(kelvin, HOT_KELVIN);
    double warm = rises(kelvin, WARM_KELVIN);
    return new double[] {
      0.02 + 0.94 * (1 - warm), 0.02 + 0.94 * warm * (1 - hot), 0.02 + 0.94 * hot * warm
    };
  }

  private static double rises(double kelvin, double at) {
    return 1 / (1 + Math.exp(-(kelvin - at) / (0.2 * at)));
  }

  /// What a look shows: most of what is wrong, and seldom what is not.
  private Outlook look(Probe p) {
    boolean joint = p.a().contains(".") && board.revision().part(p.a()).isEmpty();
    List<String> words = joint ? JOINT_WORDS : PART_WORDS;
    double[] others = new double[words.size()];
    java.util.Arrays.fill(others, SEES_WRONG);
    others[0] = 1 - SEES_WRONG * (words.size() - 1);
    Map<Integer, double[]> own = new HashMap<>();
    for (int i : at(p.a())) {
      for (Suspect s : cases.get(i).suspects()) {
        if (s.places().contains(p.a())) {
          String shows = shows(s.fault(), joint);
          if (!shows.isEmpty() && here(s.fault(), p.a(), joint)) {
            double[] row = others.clone();
            double seen = seen(s.fault(), p.a()) * (p.b().isEmpty() ? 1 : GLANCE);
            row[words.indexOf(shows)] += seen;
            row[0] -= seen;
            own.put(i, row);
          }
        }
      }
    }
    return new Words(words, others, own);
  }

  private static boolean here(Fault f, String place, boolean joint) {
    return !(f instanceof Fault.Bridge(String a, String b, double _))
        || !joint
        || place.equals(a)
        || place.equals(b);
  }

  private static String shows(Fault f, boolean joint) {
    return switch (f) {
      case Fault.Open _, Fault.Resistive _ -> joint ? "open" : "";
      case Fault.Bridge _ -> joint ? "bridge" : "";
      case Fault.Missing _ -> joint ? "" : "missing";
      case Fault.Turned _ -> joint ? "" : "turned";
      case Fault.WrongValue _ -> joint ? "" : "wrong";
      default -> "";
    };
  }

  /// How likely a look shows it; under a body nothing is seen. Common practice, no source.
  private double seen(Fault f, String place) {
    double seen =
        switch (f) {
          case Fault.Open _ -> 0.7;
          case Fault.Resistive _ -> 0.4;
          case Fault.Bridge _ -> 0.6; // at each of its two ends
          case Fault.Missing _ -> 0.97;
          case Fault.Turned _ -> 0.9;
          default -> 0.6;
        };
    String part = ell.core.entry.BoardState.part(place);
    boolean hidden =
        board
            .revision()
            .part(part)
            .map(x -> x.packageName().toUpperCase(java.util.Locale.ROOT))
            .filter(n -> n.matches(".*(BGA|QFN|DFN|LGA|CSP|MODULE).*"))
            .isPresent();
    return hidden
            && (f instanceof Fault.Open
                || f instanceof Fault.Resistive
                || f instanceof Fault.Bridge)
        ? 0.25 * seen
        : seen;
  }

  /// How the scope seems to be set: what it shows tells of it more often than not.
  private Outlook scope() {
    Map<Integer, double[]> own = new HashMap<>();
    for (int i = 1; i < cases.size(); i++) {
      for (Fault f : cases.get(i).faults()) {
        if (f.equals(new Fault.Setting("scope", "ac"))) {
          own.put(i, new double[] {0.1, 0.85, 0.05});
        } else if (f.equals(new Fault.Setting("scope", "x10"))) {
          own.put(i, new double[] {0.1, 0.05, 0.85});
        }
      }
    }
    return new Words(SCOPE_WORDS, new double[] {0.94, 0.03, 0.03}, own);
  }

  /// Whether it works with another part, or while something is pressed.
  private Outlook again(Probe p, double helps) {
    Map<Integer, double[]> own = new HashMap<>();
    for (int i : at(p.a())) {
      Case c = cases.get(i);
      if (c.suspects().size() == 1 && mended(c.suspects().getFirst(), p.kind())) {
        own.put(i, new double[] {1 - helps, helps});
      }
    }
    return new Words(TRY_WORDS, new double[] {0.97, 0.03}, own);
  }

  private static boolean mended(Suspect s, Probe.Kind kind) {
    return switch (s.fault()) {
      case Fault.Open _, Fault.Resistive _ -> true;
      case Fault.Dead _,
          Fault.WrongValue _,
          Fault.Turned _,
          Fault.Missing _,
          Fault.Short _,
          Fault.Bridge _ ->
          kind == Probe.Kind.SWAP;
      default -> false;
    };
  }
}
