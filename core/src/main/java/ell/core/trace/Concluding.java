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

  /// An instrument is not accused while a quick check is left that tells even so much, bit.
  private static final double TELLS_OF_INSTRUMENT = 0.05;

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
    if (b.explained() < Belief.EXPLAINS / 10) {
      return Optional.empty();
    }
    Optional<String> changed = changed(clues);
    Optional<Finding> mended =
        changed
            .flatMap(part -> likeliest(b, part))
            .filter(l -> l.chance() >= LIKELY && !l.back())
            .map(l ->
                finding(
                    l.suspect(),
                    l.chance(),
                    clues,
                    List.of(
                        changed.get()
                            + " was changed, and it works since: count what is left of it"),
                    l.chance() >= Tracer.SURE));
    return mended.isPresent() ? mended : standing(b, clues, ranked, weighing, heats);
  }

  /// What several suspects are whose remedy is the same.
  ///
  /// @param suspect the likeliest of them
  /// @param own its chance
  /// @param chance that one of them was there, mended or not
  /// @param mended that it is mended, 0 where nothing was written down as done
  private record Likely(Suspect suspect, double own, double chance, double mended) {
    Likely with(Likely o) {
      Likely first = o.own > own ? o : this;
      return new Likely(first.suspect, first.own, chance + o.chance, mended + o.mended);
    }

    /// Whether it is rather there still, by what was measured since.
    boolean back() {
      return mended > 0 && mended < chance / 2;
    }
  }

  /// What was likeliest wrong at a part, whether it still is or not: with what is mended alike.
  private Optional<Likely> likeliest(Belief b, String part) {
    Map<String, Likely> best = new LinkedHashMap<>();
    for (int i = 0; i < b.ways().size(); i++) {
      List<Suspect> of = cases.get(b.ways().get(i).at()).suspects();
      if (of.size() == 1 && at(of.getFirst(), part)) {
        double p = b.now()[i] + b.mended()[i];
        Likely own = new Likely(of.getFirst(), p, p, b.mended()[i]);
        best.merge(alike.remedy(own.suspect()), own, Likely::with);
      }
    }
    return best.values().stream().max(Comparator.comparingDouble(Likely::chance));
  }

  private static boolean at(Suspect s, String part) {
    return s.places().stream().anyMatch(p -> BoardState.part(p).equals(part));
  }

  /// What is likely enough, or as likely as it will get, on a board that still has it.
  private Optional<Finding> standing(
      Belief b,
      Clues clues,
      List<Traced.Ranked> ranked,
      Weighing weighing,
      Map<String, Integer> heats) {
    // of two at once the surer is named first
    Optional<Suspect> surest =
        ranked.getFirst().suspects().stream()
            .max(Comparator.comparingDouble(x -> chance(x, ranked)));
    if (surest.isEmpty()) {
      return Optional.empty();
    }
    Suspect s = surest.get();
    double chance = chance(s, ranked);
    // that an instrument stands wrong is not said because of one reading
    boolean own = s.origin() == Origin.INSTRUMENT;
    // a quick check that still tells much is made before anything is heated
    boolean sure =
        chance >= (own ? SURE_OF_INSTRUMENT : Tracer.SURE)
            && (own
                ? weighing.quick(MINUTE) < TELLS_OF_INSTRUMENT
                : chance >= CERTAIN || weighing.quick(MINUTE) < TELLS);
    boolean over = chance >= LIKELY && weighing.most() < NOTHING_LEFT;
    return sure || over
        ? Optional.of(finding(s, chance, clues, todo(s, ranked, heats), sure))
        : Optional.empty();
  }

  /// That a suspect is there, alone or with another; of bridges between two nets, of how badly a
  /// joint leads, of which wrong value it is, one is as good as the other.
  private double chance(Suspect s, List<Traced.Ranked> ranked) {
    String remedy = alike.remedy(s);
    return ranked.stream()
        .filter(r -> r.suspects().stream().anyMatch(x -> alike.remedy(x).equals(remedy)))
        .mapToDouble(Traced.Ranked::chance)
        .sum();
  }

  private Finding finding(Suspect s, double chance, Clues clues, List<String> todo, boolean sure) {
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
    return new Finding(
        s,
        Math.min(chance, 1),
        evidence,
        todo,
        Remedy.again(s, board.revision(), board.ladder()),
        sure);
  }

  /// The part that was changed at last, where the board works since; its change is in the book as
  /// what was done, too.
  private static Optional<String> changed(Clues clues) {
    String changed = "";
    boolean fine = false;
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Worked w) {
        fine &= BoardState.part(w.place()).equals(changed); // else it is another board since
      } else if (c instanceof Clue.Seen x && x.probe().kind() == Probe.Kind.SWAP) {
        changed = x.probe().a();
        fine = x.answer().equals(new Answer.Word(WordViews.FINE));
      }
    }
    return fine ? Optional.of(changed) : Optional.empty();
  }

  private List<String> todo(Suspect s, List<Traced.Ranked> ranked, Map<String, Integer> heats) {
    List<String> all = new ArrayList<>(Remedy.todo(s, board.revision(), heats));
    ranked.getFirst().suspects().stream()
        .filter(x -> ranked.getFirst().suspects().size() > 1 && x != s)
        .forEach(x ->
            all.add("it explains not all: then trace on, for " + x.words() + " may be there too"));
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
