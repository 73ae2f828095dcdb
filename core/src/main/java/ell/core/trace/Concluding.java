package ell.core.trace;

import ell.core.entry.BoardState;
import ell.core.power.Fault;
import ell.core.trace.Suspect.Origin;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// When a search is over: what is likely enough, or as likely as it will get, what it rests on, and
/// what is to be done.
final class Concluding {
  private static final double SURE_OF_INSTRUMENT = 0.98;

  /// So likely, no check is made before.
  private static final double CERTAIN = 0.97;

  private static final double MINUTE = 1.2;

  private static final double TELLS = 0.2;

  /// Nothing that is left to measure gives as many bits.
  private static final double NOTHING_LEFT = 0.04;

  private static final double LIKELY = 0.5;

  private static final int PLACES = 12;

  private final Board board;
  private final List<Case> cases;
  private final Views views;
  private final Alike alike;

  Concluding(Board board, List<Case> cases, Views views, Alike alike) {
    this.board = board;
    this.cases = cases;
    this.views = views;
    this.alike = alike;
  }

  /// The finding, empty where nothing is likely enough.
  Optional<Finding> of(
      Belief b,
      Clues clues,
      List<Traced.Ranked> ranked,
      Weighing weighing,
      Map<String, Integer> heats) {
    Traced.Ranked top = ranked.getFirst();
    if (top.suspects().size() != 1) {
      return Optional.empty();
    }
    // of bridges between two nets, of how badly a joint leads, of which wrong value it is, one is
    // as good as the other
    String remedy = alike.remedy(top.suspects().getFirst());
    double chance =
        ranked.stream()
            .filter(r -> r.suspects().size() == 1)
            .filter(r -> alike.remedy(r.suspects().getFirst()).equals(remedy))
            .mapToDouble(Traced.Ranked::chance)
            .sum();
    // that an instrument stands wrong is not said because of one reading
    boolean own = top.suspects().getFirst().origin() == Origin.INSTRUMENT;
    // a quick check that still tells much is made before anything is heated
    boolean sure =
        chance >= (own ? SURE_OF_INSTRUMENT : Tracer.SURE)
            && (chance >= CERTAIN || weighing.quick(MINUTE) < TELLS);
    // with another part in its place the board works: there is nothing left to look for
    boolean over =
        chance >= LIKELY
            && (weighing.most() < NOTHING_LEFT || mended(top.suspects().getFirst(), clues));
    if (!sure && !over || b.explained() < Belief.EXPLAINS / 10) {
      return Optional.empty();
    }
    Suspect s = top.suspects().getFirst();
    int at = at(s);
    Map<Long, Double> by = new LinkedHashMap<>();
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Seen x) {
        Outlook o = views.of(x.probe());
        double r = Math.log(o.chance(x.answer(), at) / o.chance(x.answer(), 0));
        // what would be likely with any fault says nothing either
        if (Math.abs(r) > 0.2 || x.probe().kind() == Probe.Kind.VOLTS) {
          by.merge(x.entry(), Math.abs(r), Double::sum);
        }
      } else if (c instanceof Clue.Comes k) {
        by.put(k.entry(), 1.0);
      }
    }
    List<Long> evidence =
        by.entrySet().stream()
            .sorted(Comparator.comparingDouble((Map.Entry<Long, Double> e) -> -e.getValue()))
            .map(Map.Entry::getKey)
            .toList();
    return Optional.of(
        new Finding(
            s,
            Math.min(chance, 1),
            evidence,
            todo(s, ranked, heats),
            Remedy.again(s, board.revision(), board.ladder()),
            sure));
  }

  /// Whether the last part that was changed is one of the suspect's, and it works since.
  private static boolean mended(Suspect s, Clues clues) {
    boolean fine = false;
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Worked) {
        fine = false; // another board since
      } else if (c instanceof Clue.Seen x && x.probe().kind() == Probe.Kind.SWAP) {
        String changed = x.probe().a();
        fine =
            x.answer().equals(new Answer.Word(WordViews.FINE))
                && s.places().stream().anyMatch(p -> BoardState.part(p).equals(changed));
      }
    }
    return fine;
  }

  private List<String> todo(Suspect s, List<Traced.Ranked> ranked, Map<String, Integer> heats) {
    List<String> all = new ArrayList<>(Remedy.todo(s, board.revision(), heats));
    if (s.fault() instanceof Fault.Bridge) {
      List<String> places =
          ranked.stream()
              .filter(r -> r.suspects().size() == 1 && r.chance() > 1e-4)
              .filter(r -> alike.remedy(r.suspects().getFirst()).equals(alike.remedy(s)))
              .map(r -> r.suspects().getFirst().places())
              .map(p -> p.get(0) + " and " + p.get(1))
              .distinct()
              .limit(PLACES)
              .toList();
      if (places.size() > 1) {
        all.add(
            "the nets lie side by side at these places, likeliest first: "
                + String.join(", ", places));
      }
    }
    return all;
  }

  private int at(Suspect s) {
    Fault f = s.fault() instanceof Fault.Sometimes x ? x.fault() : s.fault();
    for (int i = 1; i < cases.size(); i++) {
      if (cases.get(i).faults().equals(List.of(f))) {
        return i;
      }
    }
    return 0;
  }
}
