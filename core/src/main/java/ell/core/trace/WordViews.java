package ell.core.trace;

import ell.core.entry.BoardState;
import ell.core.power.Fault;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/// What lamps, fingers, eyes and tries would say under each case.
final class WordViews {
  static final List<String> LAMP_WORDS = List.of("lit", "dark");
  static final List<String> TOUCH_WORDS = List.of("cool", "warm", "hot");
  static final List<String> SCOPE_WORDS = List.of("fine", "ac", "x10");
  static final String FINE = "fine";
  static final String SAME = "same";
  static final Answer GOOD = new Answer.Word("good");
  static final List<String> TRY_WORDS = List.of(SAME, FINE);
  static final List<String> JOINT_WORDS = List.of("good", "open", "bridge");
  static final List<String> PART_WORDS =
      List.of("good", "missing", "turned", "wrong", "open", "bridge");

  private static final double LIT_AMPS = 2e-4;
  private static final double HOT_KELVIN = 45;
  private static final double WARM_KELVIN = 15;

  /// So often something is seen that is not there; common practice, no source.
  private static final double SEES_WRONG = 0.002;

  /// A look at many joints at once finds so much of what a look at one does.
  private static final double GLANCE = 0.5;

  private final Board board;
  private final List<Case> cases;
  private final Views views;

  WordViews(Board board, List<Case> cases, Views views) {
    this.board = board;
    this.cases = cases;
    this.views = views;
  }

  /// The outlook of a probe that is answered with a word.
  Outlook of(Probe p) {
    return switch (p.kind()) {
      case LIT -> lit(p);
      case TOUCH -> touch(p);
      case LOOK -> look(p);
      case SWAP -> again(p, 0.9);
      case PRESS -> again(p, 0.5);
      case SCOPE -> scope();
      default -> throw new IllegalArgumentException(p.kind() + " shows a number");
    };
  }

  private Outlook lit(Probe p) {
    Forecast f = views.forecast(p.knobs().orElseThrow());
    int lamp = f.lamp(p.a());
    boolean driven = board.revision().jointsOf(p.a()).stream().anyMatch(j -> views.driven(j.net()));
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
    Forecast f = views.forecast(p.knobs().orElseThrow());
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

  /// What a look shows: most of what is wrong, and seldom what is not. Who looks at a part sees its
  /// joints.
  private Outlook look(Probe p) {
    boolean joint = p.a().contains(".") && board.revision().part(p.a()).isEmpty();
    List<String> words = joint ? JOINT_WORDS : PART_WORDS;
    double[] others = new double[words.size()];
    Arrays.fill(others, SEES_WRONG);
    others[0] = 1 - SEES_WRONG * (words.size() - 1);
    Map<Integer, double[]> own = new HashMap<>();
    Set<Integer> here = new TreeSet<>(views.at(p.a()));
    if (!joint) {
      board.revision().jointsOf(p.a()).forEach(j -> here.addAll(views.at(j.place())));
    }
    for (int i : here) {
      for (Suspect s : cases.get(i).suspects()) {
        String shows = shows(s.fault());
        double seen = seen(s.fault(), p.a(), joint) * (p.b().isEmpty() ? 1 : GLANCE);
        if (seen > 0) {
          double[] row = others.clone();
          row[words.indexOf(shows)] += seen;
          row[0] -= seen;
          own.put(i, row);
        }
      }
    }
    return new Words(words, others, own);
  }

  private static String shows(Fault f) {
    return switch (f) {
      case Fault.Open _, Fault.Resistive _ -> "open";
      case Fault.Bridge _ -> "bridge";
      case Fault.Missing _ -> "missing";
      case Fault.Turned _ -> "turned";
      case Fault.WrongValue _ -> "wrong";
      default -> "";
    };
  }

  /// How likely a look at a joint, or at a part with its joints, shows it.
  private double seen(Fault f, String place, boolean joint) {
    double missed = 1;
    for (String at : places(f)) {
      if (at.equals(place)
          || !joint && !at.equals(BoardState.part(at)) && BoardState.part(at).equals(place)) {
        missed *= 1 - seen(f, at);
      }
    }
    return 1 - missed;
  }

  /// Where it would be seen; nowhere what is inside a part.
  private static List<String> places(Fault f) {
    return switch (f) {
      case Fault.Open(String part, String pin) -> List.of(part + "." + pin);
      case Fault.Resistive(String part, String pin, double _) -> List.of(part + "." + pin);
      case Fault.Bridge(String a, String b, double _) -> List.of(a, b);
      case Fault.Missing(String part) -> List.of(part);
      case Fault.Turned(String part) -> List.of(part);
      case Fault.WrongValue(String part, double _) -> List.of(part);
      default -> List.of();
    };
  }

  /// How likely a look there shows it; under a body nothing is seen. Common practice, no source.
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
    boolean hidden = board.hidden(BoardState.part(place));
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
    for (int i : views.at(p.a())) {
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
