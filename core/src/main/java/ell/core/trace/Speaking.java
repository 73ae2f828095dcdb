package ell.core.trace;

import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.pulse.Wanted;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.talk.ControllerOnBoard;
import ell.core.talk.TalkReasons;
import ell.core.talk.TalkSymptom;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What of a board moves and speaks under each case: clocks, and the controller behind its line.
final class Speaking {
  private static final double AWAKE = 0.82;
  private static final double AT = 0.006;
  private static final double NONE = -1;
  private static final double FAST = 9;
  private static final double THERE = 0.04;

  /// Words of what is heard, in the order of [TalkSymptom].
  static final List<String> HEARD =
      java.util.Arrays.stream(TalkSymptom.values())
          .map(s -> s.name().toLowerCase(Locale.ROOT).replace('_', '-'))
          .toList();

  private final Board board;
  private Set<Fault> candidates;
  private final Map<List<Fault>, Optional<TalkSymptom>> symptoms = new HashMap<>();

  Speaking(Board board) {
    this.board = board;
  }

  /// The outlook of a clock: its decade, -1 where nothing moves.
  Outlook wave(Probe p, List<Case> cases, Forecast f) {
    Wanted w = board.pulse().at(p.a());
    Set<String> carriers = new HashSet<>();
    Set<String> drivers = new HashSet<>();
    for (Joint j : board.revision().net(w.net())) {
      PartKind k = PartKind.of(j.part());
      if (k == PartKind.CRYSTAL) {
        carriers.add(j.part());
      } else if (k == PartKind.CHIP || k == PartKind.MODULE) {
        drivers.add(j.part());
      }
    }
    List<Ladder.RailSpec> rails =
        drivers.stream()
            .flatMap(d -> board.revision().jointsOf(d).stream())
            .map(Joint::net)
            .distinct()
            .flatMap(n -> board.ladder().rail(n).stream())
            .filter(board.ladder().supplied()::contains)
            .toList();
    Spread there = new Spread(scale(w.clock()), THERE / 4, 0.03);
    Spread none = new Spread(NONE, 0.1, 0.03);
    boolean runs = w.clock() > 0 && awake(rails, f, 0);
    Map<Integer, Spread> own = new HashMap<>();
    for (int i = 1; i < cases.size(); i++) {
      Case c = cases.get(i);
      Spread s = awake(rails, f, i) ? there : none;
      for (Suspect x : c.suspects()) {
        if (stops(x, w, carriers, drivers)) {
          s = none;
        } else if (x.fault() instanceof Fault.WrongValue(String part, double hz)
            && carriers.contains(part)) {
          s = new Spread(scale(hz), THERE / 2, 0.03);
        }
      }
      if (!s.equals(runs ? there : none)) {
        own.put(i, s);
      }
    }
    return new Numbers(
        -1.5,
        FAST + 1,
        Speaking::scale,
        x -> x < 0 ? 0 : Math.pow(10, x),
        x -> x < 1 ? "nothing" : EngineeringNumber.print(x, Unit.HERTZ, 4),
        runs ? there : none,
        own);
  }

  private static double scale(double hertz) {
    return hertz < 1 ? NONE : Math.log10(hertz);
  }

  private static boolean awake(List<Ladder.RailSpec> rails, Forecast f, int at) {
    for (Ladder.RailSpec r : rails) {
      int net = f.net(r.net());
      if (net >= 0 && !(f.volts(at, net, "") > AWAKE * r.volts())) {
        return false;
      }
    }
    return !rails.isEmpty();
  }

  private static boolean stops(Suspect s, Wanted w, Set<String> carriers, Set<String> drivers) {
    return switch (s.fault()) {
      case Fault.Open(String part, String _) -> carriers.contains(part) || on(s, w, drivers, part);
      case Fault.Loose(String part, String _) -> carriers.contains(part) || on(s, w, drivers, part);
      case Fault.Tied(String part, String _, String _) -> on(s, w, drivers, part);
      case Fault.Dead(String part) -> carriers.contains(part) || drivers.contains(part);
      case Fault.Missing(String part) -> carriers.contains(part) || drivers.contains(part);
      case Fault.Turned(String part) -> drivers.contains(part);
      case Fault.Short(String part) -> carriers.contains(part);
      case Fault.Bridge _ -> s.nets().contains(w.net());
      default -> false;
    };
  }

  private static boolean on(Suspect s, Wanted w, Set<String> drivers, String part) {
    return drivers.contains(part) && s.nets().contains(w.net());
  }

  /// The outlook of speaking with the controller.
  Outlook talk(List<Case> cases, Forecast f) {
    List<String> words = HEARD;
    List<Ladder.RailSpec> rails =
        board.talk().port().stream()
            .flatMap(p -> board.revision().jointsOf(p.controller()).stream())
            .map(Joint::net)
            .distinct()
            .flatMap(n -> board.ladder().rail(n).stream())
            .filter(board.ladder().supplied()::contains)
            .toList();
    double[] others = row(symptom(List.of()));
    Map<Integer, double[]> own = new HashMap<>();
    for (int i = 1; i < cases.size(); i++) {
      Case c = cases.get(i);
      double[] row = others;
      if (!awake(rails, f, i)) {
        row = row(Optional.of(TalkSymptom.SILENT));
      } else if (c.suspects().stream().anyMatch(s -> s.origin() == Suspect.Origin.OUTSIDE)) {
        row = row(Optional.of(TalkSymptom.SILENT));
      } else if (matters(c)) {
        row = row(symptom(c.faults()));
      }
      if (row != others) {
        own.put(i, row);
      }
    }
    return new Words(words, others, own);
  }

  private boolean matters(Case c) {
    if (candidates == null) {
      candidates = TalkReasons.candidates(board.talk(), board.ladder(), board.stands());
    }
    return c.faults().stream().anyMatch(this::candidate);
  }

  private boolean candidate(Fault f) {
    return candidates.contains(f)
        || f instanceof Fault.Dead(String part)
            && board.talk().port().filter(p -> p.controller().equals(part)).isPresent()
        || f instanceof Fault.Link
        || f instanceof Fault.Loose(String part, String pin)
            && candidates.contains(new Fault.Open(part, pin));
  }

  private Optional<TalkSymptom> symptom(List<Fault> faults) {
    return symptoms.computeIfAbsent(
        faults,
        fs -> {
          List<Fault> all = new ArrayList<>();
          for (Fault s : board.standing()) {
            boolean again =
                s instanceof Fault.Link a
                    && fs.stream()
                        .anyMatch(f -> f instanceof Fault.Link b && a.part().equals(b.part()));
            if (!again) {
              all.add(s);
            }
          }
          all.addAll(fs);
          return TalkSymptom.of(
              ControllerOnBoard.of(board.talk(), board.ladder(), all, board.stands()));
        });
  }

  private static double[] row(Optional<TalkSymptom> s) {
    double[] row = new double[HEARD.size()];
    java.util.Arrays.fill(row, s.isPresent() ? AT : 1.0 / row.length);
    s.ifPresent(x -> row[x.ordinal()] = 1 - AT * (row.length - 1));
    return row;
  }
}
