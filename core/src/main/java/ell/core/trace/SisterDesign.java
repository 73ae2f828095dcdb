package ell.core.trace;

import ell.core.board.Folded;
import ell.core.trace.Belief.Way;
import ell.core.trace.Suspect.Origin;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Board or design: a mistake of the drawing is on every board of the revision, so that what the
/// others show speaks for it or against it.
final class SisterDesign {
  private static final int MOST_SISTERS = 12;

  private static final double SISTER_MOST = 12;

  private final Board board;
  private final List<Case> cases;
  private final Views views;

  SisterDesign(Board board, List<Case> cases, Views views) {
    this.board = board;
    this.cases = cases;
    this.views = views;
  }

  /// What the books of other boards say of each way that would be theirs too.
  double[] of(List<Way> ways, Clues own, Map<String, Clues> sisters) {
    double[] more = new double[ways.size()];
    int taken = 0;
    for (Clues sister : sisters.values()) {
      List<Clue> c = alike(own, sister);
      if (!says(c) || taken++ >= MOST_SISTERS) {
        continue;
      }
      double[] evidence = Belief.of(cases, ways, c, views, new double[0]).evidence();
      double top = Double.NEGATIVE_INFINITY;
      for (int i = 0; i < evidence.length; i++) {
        if (!ofDesign(ways.get(i))) {
          top = Math.max(top, evidence[i] + ways.get(i).prior());
        }
      }
      double sum = 0;
      double weights = 0;
      for (int i = 0; i < evidence.length; i++) {
        if (!ofDesign(ways.get(i))) {
          sum += Math.exp(evidence[i] + ways.get(i).prior() - top);
          weights += Math.exp(ways.get(i).prior());
        }
      }
      double mixed = top + Math.log(sum) - Math.log(weights);
      for (int i = 0; i < more.length; i++) {
        if (ofDesign(ways.get(i))) {
          more[i] += Math.clamp(evidence[i] - mixed, -SISTER_MOST, SISTER_MOST);
        }
      }
    }
    return more;
  }

  private static boolean says(List<Clue> clues) {
    return clues.stream()
        .anyMatch(x -> x instanceof Clue.Seen s && s.probe().kind() != Probe.Kind.LOOK);
  }

  /// What the books of other boards say that is not used.
  List<String> unused(Clues own, Map<String, Clues> sisters) {
    List<String> told = new ArrayList<>();
    List<String> otherwise = new ArrayList<>();
    int readings = 0;
    int say = 0;
    for (Map.Entry<String, Clues> e : sisters.entrySet()) {
      List<Clue> used = alike(own, e.getValue());
      say += says(used) ? 1 : 0;
      int left = e.getValue().all().size() - used.size();
      if (left > 0) {
        otherwise.add(e.getKey());
        readings += left;
      }
    }
    if (readings > 0) {
      told.add(
          readings
              + " measured on "
              + Folded.references(otherwise)
              + " with the supplies set otherwise than on this board: not used for whether it is"
              + " the design");
    }
    if (say > MOST_SISTERS) {
      told.add(
          "of "
              + say
              + " other boards that were measured "
              + MOST_SISTERS
              + " are asked whether it is the design");
    }
    return told;
  }

  /// What of a sister is seen under settings that this board knows too; further ones take long.
  private List<Clue> alike(Clues own, Clues sister) {
    Set<Knobs> known = new LinkedHashSet<>(Set.of(Knobs.usual(board.ladder())));
    for (Clue c : own.all()) {
      if (c instanceof Clue.Seen s) {
        s.probe().knobs().ifPresent(known::add);
      }
    }
    return sister.all().stream()
        .filter(c ->
            !(c instanceof Clue.Seen s)
                || s.probe().knobs().isEmpty()
                || known.contains(s.probe().knobs().get()))
        .toList();
  }

  boolean ofDesign(Way w) {
    return cases.get(w.at()).suspects().stream().anyMatch(s -> s.origin() == Origin.DESIGN);
  }

  /// The board whose answer to the strongest clue of this one tells most of design or not.
  Optional<Traced.SisterLook> next(
      Belief b, Clues clues, Map<String, Clues> sisters, double design) {
    if (design < 0.02 || design > 0.98 || sisters.isEmpty()) {
      return Optional.empty();
    }
    int way = -1;
    for (int i = 0; i < b.now().length; i++) {
      if (ofDesign(b.ways().get(i)) && (way < 0 || b.now()[i] > b.now()[way])) {
        way = i;
      }
    }
    if (way < 0) {
      return Optional.empty();
    }
    int at = b.ways().get(way).at();
    Clue.Seen best = null;
    double most = 0;
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Seen s && s.probe().kind() != Probe.Kind.LOOK) {
        Outlook o = views.of(s.probe());
        double r = Math.log(o.chance(s.answer(), at) / o.chance(s.answer(), 0));
        if (r > most) {
          most = r;
          best = s;
        }
      }
    }
    if (best == null) {
      return Optional.empty();
    }
    Outlook o = views.of(best.probe());
    double shows = Math.min(0.98, o.chance(best.answer(), at) / o.best(at, best.answer()));
    double seldom = Math.max(0.01, o.chance(best.answer(), 0) / o.best(0, best.answer()));
    double yes = design * shows + (1 - design) * seldom;
    double bits = two(yes) - design * two(shows) - (1 - design) * two(seldom);
    Probe p = best.probe();
    for (Map.Entry<String, Clues> e : sisters.entrySet()) {
      boolean asked =
          e.getValue().all().stream()
              .anyMatch(c ->
                  c instanceof Clue.Seen s
                      && s.probe().kind() == p.kind()
                      && s.probe().a().equals(p.a())
                      && s.probe().b().equals(p.b()));
      if (!asked && bits > 0.01) {
        return Optional.of(
            new Traced.SisterLook(
                e.getKey(),
                p.line(),
                bits,
                String.format(
                    Locale.ROOT,
                    "tells %.2f bit of whether it is the design: it would show it with %.0f %%, else"
                        + " with %.0f %%",
                    bits,
                    100 * shows,
                    100 * seldom)));
      }
    }
    return Optional.empty();
  }

  private static double two(double p) {
    return Belief.bits(p) + Belief.bits(1 - p);
  }
}
