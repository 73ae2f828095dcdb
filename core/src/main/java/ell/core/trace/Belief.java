package ell.core.trace;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.hipparchus.special.Erf;

/// How likely each case is after what was seen: Bayes, exact over single faults, over pairs of
/// those that explain something alone, over faults that are there at some tries only, a board
/// without a fault, and what nobody thought of.
final class Belief {
  static final String HEALTHY = "healthy";
  static final String OTHER = "other";

  /// What was done at a place mends what was wrong there so often; common practice, no source.
  static final double MENDS = 0.85;

  /// What nobody thought of shows in so many of all measurements.
  private static final double ODD = 0.15;

  /// Of faults that may come and go so many do, before anything was seen.
  private static final double SOMETIMES = 0.05;

  /// A try shows otherwise than the board is so often: a fault that is always there is not seen, or
  /// one that is not there is.
  private static final double STEADY_COMES = 0.003;

  /// So many tries that were judged wrongly count by themselves; who misjudges them misjudges more.
  private static final int MISJUDGED = 3;

  /// Below, what is left does not explain what was seen.
  static final double EXPLAINS = 0.02;

  /// One way in which the board may be wrong.
  ///
  /// @param at place of its case
  /// @param share of tries at which it is there, 1 for always
  /// @param prior logarithm of its chance before
  record Way(int at, double share, double prior) {}

  /// How well a clue is explained.
  ///
  /// @param fit 0...1, small where nothing that is thought of explains it
  record Fit(Clue.Seen clue, double fit) {}

  private final List<Case> cases;
  private final List<Way> ways;
  private final double[] now;
  private final double[] mended;
  private final double other;
  private final List<Clue.Seen> seen;
  private final List<Outlook> looks;
  private final double[] evidence;
  private List<Fit> fits;

  private Belief(
      List<Case> cases,
      List<Way> ways,
      double[] now,
      double[] mended,
      double other,
      List<Clue.Seen> seen,
      List<Outlook> looks,
      double[] evidence) {
    this.cases = cases;
    this.ways = ways;
    this.now = now;
    this.mended = mended;
    this.other = other;
    this.seen = seen;
    this.looks = looks;
    this.evidence = evidence;
  }

  static double prior(Suspect s) {
    return Math.log(s.prior() / (1 - s.prior()));
  }

  /// The ways of single faults, and of none.
  static List<Way> single(List<Case> cases) {
    List<Way> ways = new ArrayList<>();
    for (int i = 0; i < cases.size(); i++) {
      double p = 0;
      for (Suspect s : cases.get(i).suspects()) {
        p += prior(s);
      }
      ways.add(new Way(i, 1, p));
    }
    return ways;
  }

  /// The ways of faults that are there at some tries only.
  ///
  /// @param share at how many tries
  static List<Way> sometimes(List<Case> cases, double share) {
    List<Way> ways = new ArrayList<>();
    for (int i = 1; i < cases.size(); i++) {
      Case c = cases.get(i);
      if (c.suspects().size() == 1 && comes(c.suspects().getFirst())) {
        ways.add(new Way(i, share, prior(c.suspects().getFirst()) + Math.log(SOMETIMES)));
      }
    }
    return ways;
  }

  private static boolean comes(Suspect s) {
    return switch (s.fault()) {
      case ell.core.power.Fault.Open _,
          ell.core.power.Fault.Resistive _,
          ell.core.power.Fault.Bridge _,
          ell.core.power.Fault.Dead _ ->
          true;
      case ell.core.power.Fault.Setting(String what, String _) -> what.equals("cable");
      default -> false;
    };
  }

  /// Works it out.
  ///
  /// @param more logarithms of what other boards say for each way, by its place; may be empty
  static Belief of(List<Case> cases, List<Way> ways, List<Clue> clues, Views views, double[] more) {
    int n = ways.size();
    double[] before = new double[n]; // of the fault, up to now
    double[] gone = new double[n]; // of a board on which it was mended, from then on
    double[] mends = new double[n];
    java.util.Arrays.fill(mends, Double.NEGATIVE_INFINITY);
    double others = Math.log(Rate.OTHER.first() / (1 - Rate.OTHER.first()));
    List<Outlook> looks = new ArrayList<>();
    List<Clue.Seen> seen = new ArrayList<>();
    for (Clue c : clues) {
      switch (c) {
        case Clue.Seen s -> {
          Outlook o = views.of(s.probe());
          looks.add(o);
          seen.add(s);
          double healthy = o.chance(s.answer(), 0, s.times());
          double logHealthy = Math.log(healthy);
          others += Math.log((1 - ODD) * healthy + ODD * even(o, s.answer()));
          int[] who = o.who();
          double[] by = byCase(o, s, who, healthy, cases.size());
          for (int i = 0; i < n; i++) {
            Way w = ways.get(i);
            double chance = by[w.at()];
            double p = w.share() >= 1 ? chance : w.share() * chance + (1 - w.share()) * healthy;
            before[i] += p == healthy ? logHealthy : Math.log(p);
            if (mends[i] > Double.NEGATIVE_INFINITY) {
              gone[i] += logHealthy;
            }
          }
        }
        case Clue.Worked w -> {
          for (int i = 0; i < n; i++) {
            List<Suspect> of = cases.get(ways.get(i).at()).suspects();
            if (!of.isEmpty() && of.stream().allMatch(w::mends)) {
              double ends = before[i] + Math.log(MENDS);
              // either it was mended before, or it is now
              double was = mends[i] + gone[i];
              mends[i] = Math.max(ends, was) + Math.log1p(Math.exp(-Math.abs(ends - was)));
              gone[i] = 0;
              before[i] += Math.log(1 - MENDS);
            }
          }
        }
        case Clue.Comes k -> {
          boolean mixed = k.times() > 0 && k.times() < k.of();
          for (int i = 0; i < n; i++) {
            Way w = ways.get(i);
            double p =
                w.share() < 1
                    ? 1.0 / (k.of() + 1)
                    : mixed
                        ? misjudged(w.at() > 0 ? k.of() - k.times() : k.times()) / (k.of() + 1)
                        : (k.times() == k.of()) == (w.at() > 0) ? 0.9 : 0.05;
            before[i] += Math.log(p);
            gone[i] += mends[i] > Double.NEGATIVE_INFINITY ? Math.log(STEADY_COMES) : 0;
          }
          others += Math.log((mixed ? SOMETIMES : 0.3) / (k.of() + 1));
        }
      }
    }
    return settled(cases, ways, before, mends, gone, others, seen, looks, more);
  }

  private static double misjudged(int tries) {
    return Math.pow(STEADY_COMES, Math.min(tries, MISJUDGED));
  }

  private static double[] byCase(Outlook o, Clue.Seen s, int[] who, double healthy, int size) {
    double[] by = new double[size];
    java.util.Arrays.fill(by, healthy);
    for (int w : who) {
      by[w] = o.chance(s.answer(), w, s.times());
    }
    return by;
  }

  /// How likely an answer is where anything may come out.
  private static double even(Outlook o, Answer a) {
    return switch (o) {
      case Numbers n -> n.even(a);
      case Words w -> 1.0 / w.outcomes().size();
      case AlongViews.Made _ -> 1;
    };
  }

  private static Belief settled(
      List<Case> cases,
      List<Way> ways,
      double[] before,
      double[] mends,
      double[] gone,
      double others,
      List<Clue.Seen> seen,
      List<Outlook> looks,
      double[] more) {
    int n = ways.size();
    double[] evidence = before.clone();
    double top = others;
    for (int i = 0; i < n; i++) {
      double extra = ways.get(i).prior() + (more.length > 0 ? more[i] : 0);
      before[i] += extra;
      mends[i] += gone[i] + extra;
      top = Math.max(top, Math.max(before[i], mends[i]));
    }
    double sum = Math.exp(others - top);
    double other = sum;
    for (int i = 0; i < n; i++) {
      before[i] = Math.exp(before[i] - top);
      mends[i] = Math.exp(mends[i] - top);
      sum += before[i] + mends[i];
    }
    for (int i = 0; i < n; i++) {
      before[i] /= sum;
      mends[i] /= sum;
    }
    other /= sum;
    return new Belief(cases, ways, before, mends, other, seen, looks, evidence);
  }

  /// The chance that something as far off as this, or further, comes out, over all that is thought
  /// of.
  private static double fit(
      Outlook o, Answer a, List<Way> ways, double[] now, double[] mended, double other) {
    double rest = 1 - other;
    if (rest < 1e-12) {
      return 0;
    }
    Map<Integer, Double> by = new HashMap<>();
    double healthy = off(o.chance(a, 0) / o.best(0, a), o);
    for (int w : o.who()) {
      by.put(w, off(o.chance(a, w) / o.best(w, a), o));
    }
    double sum = 0;
    for (int i = 0; i < now.length; i++) {
      Way w = ways.get(i);
      double own = by.getOrDefault(w.at(), healthy);
      sum += now[i] * (w.share() >= 1 ? own : w.share() * own + (1 - w.share()) * healthy);
      // what was mended meanwhile was seen before or after; the better of the two
      sum += mended[i] * Math.max(own, healthy);
    }
    return sum / rest;
  }

  private static double off(double ratio, Outlook o) {
    if (!(o instanceof Numbers)) {
      return Math.min(1, ratio);
    }
    return Erf.erfc(Math.sqrt(Math.max(0, -Math.log(Math.min(1, ratio)))));
  }

  List<Way> ways() {
    return ways;
  }

  /// The chance of each way now.
  double[] now() {
    return now;
  }

  /// The chance that nothing is wrong, or not any more.
  double healthy() {
    double sum = now[0];
    for (double m : mended) {
      sum += m;
    }
    return sum;
  }

  /// The chance of each way that it was there and was mended.
  double[] mended() {
    return mended;
  }

  double other() {
    return other;
  }

  /// How well what was seen is explained, 0...1.
  double explained() {
    double least = 1;
    for (Fit f : fits()) {
      least = Math.min(least, f.fit());
    }
    return Math.min(1, least * Math.max(1, fits.size()));
  }

  List<Fit> fits() {
    if (fits == null) {
      fits = new ArrayList<>();
      for (int c = 0; c < looks.size(); c++) {
        fits.add(
            new Fit(
                seen.get(c), fit(looks.get(c), seen.get(c).answer(), ways, now, mended, other)));
      }
    }
    return fits;
  }

  /// The logarithm of what was seen under each way, without its chance before.
  double[] evidence() {
    return evidence;
  }

  /// The chance of each case: that of its ways together.
  double[] byCase() {
    double[] p = new double[cases.size()];
    for (int i = 0; i < now.length; i++) {
      p[ways.get(i).at()] += now[i];
    }
    for (double m : mended) {
      p[0] += m;
    }
    return p;
  }

  /// What is not known, bit.
  double entropy() {
    double h = bits(other) + bits(healthy());
    for (int i = 1; i < now.length; i++) {
      if (ways.get(i).at() > 0) {
        h += bits(now[i]);
      }
    }
    return h;
  }

  static double bits(double p) {
    return p <= 0 ? 0 : -p * Math.log(p) / Math.log(2);
  }
}
