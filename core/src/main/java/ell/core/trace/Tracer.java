package ell.core.trace;

import ell.core.board.Folded;
import ell.core.power.Fault;
import ell.core.prove.Counts;
import ell.core.trace.Belief.Fit;
import ell.core.trace.Belief.Way;
import ell.core.trace.Suspect.Origin;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Traces the fault of boards of one revision that stand alike. What the faults would show is
/// worked out once, when it is asked for first, and kept; so a further clue is taken in quickly.
/// Not for many threads.
public final class Tracer {
  /// From this chance on it is a finding.
  public static final double SURE = 0.9;

  private static final double SURE_OF_INSTRUMENT = 0.98;

  /// So likely, no check is made before.
  private static final double CERTAIN = 0.97;

  private static final double MINUTE = 1.2;
  private static final double TELLS = 0.2;

  /// Nothing that is left to measure gives as many bits.
  private static final double NOTHING_LEFT = 0.04;

  private static final double LIKELY = 0.5;
  private static final int BEAM = 24;
  private static final int BEAM_WITH = 60;

  /// Of those that show the same, so many are put into pairs.
  private static final int EACH = 6;

  private static final double OTHER_GROWS = 0.2;

  /// Where single faults explain less, two at once are thought of.
  private static final double PAIRS_BELOW = 0.1;

  private static final int MOST_SISTERS = 12;
  private static final double SISTER_MOST = 12;
  private static final int EXPLAINED_SUSPECTS = 40;
  private static final int STAIRS = 60;
  private static final int PLACES = 12;
  private static final double GONE = 0.95;

  private final Board board;
  private final List<Case> cases = new ArrayList<>();
  private final int singles;
  private final int left;
  private final Views views;
  private final Alike alike;

  /// A tracer over some suspects.
  public Tracer(Board board, Suspects.Listed listed) {
    this.board = board;
    this.left = listed.left();
    cases.add(Case.HEALTHY);
    listed.suspects().forEach(s -> cases.add(new Case(List.of(s))));
    singles = cases.size();
    views = new Views(board, cases);
    alike = new Alike(board.revision());
  }

  /// Takes in suspects that are the same faults with other chances.
  ///
  /// @return false when they are other faults; nothing is taken in then
  public boolean again(Suspects.Listed listed) {
    if (listed.suspects().size() != singles - 1 || listed.left() != left) {
      return false;
    }
    for (int i = 1; i < singles; i++) {
      if (!listed.suspects().get(i - 1).words().equals(cases.get(i).words())) {
        return false;
      }
    }
    for (int i = 1; i < singles; i++) {
      cases.set(i, new Case(List.of(listed.suspects().get(i - 1))));
    }
    return true;
  }

  /// The board that it was made for.
  public Board board() {
    return board;
  }

  /// How many suspects there are.
  public int suspects() {
    return singles - 1;
  }

  /// Traces a board.
  ///
  /// @param clues what its book says
  /// @param sisters what the books of other boards of the revision say, by serial
  /// @param heats how often each of its parts was heated
  /// @param many how many measurements to propose
  public Traced trace(
      Clues clues, Map<String, Clues> sisters, Map<String, Integer> heats, int many) {
    views.truncate(singles);
    List<Way> ways = new ArrayList<>(Belief.single(cases));
    boolean comes = clues.all().stream().anyMatch(Clue.Comes.class::isInstance);
    if (comes) {
      ways.addAll(Belief.sometimes(cases, share(clues)));
    }
    double[] design = design(ways, clues, sisters);
    Belief b = Belief.of(cases, ways, clues.all(), views, design);
    if (!clues.all().isEmpty() && (b.explained() < PAIRS_BELOW || b.other() > OTHER_GROWS)) {
      List<Way> more = new ArrayList<>(ways);
      if (!comes) {
        more.addAll(Belief.sometimes(cases, 0.5));
      }
      pairs(b, clues, more);
      b = Belief.of(cases, more, clues.all(), views, design(more, clues, sisters));
    }
    return told(b, clues, sisters, heats, many);
  }

  private static double share(Clues clues) {
    int times = 0;
    int of = 0;
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Comes k) {
        times += k.times();
        of += k.of();
      }
    }
    return Math.clamp((times + 0.5) / (of + 1), 0.02, 0.98);
  }

  /// Pairs of those that explain something alone, by a beam.
  private void pairs(Belief b, Clues clues, List<Way> ways) {
    // what explains a part of it is found where no clue alone decides
    double[] mild = mild(clues);
    Integer[] order = new Integer[singles];
    java.util.Arrays.setAll(order, i -> i);
    java.util.Arrays.sort(order, (x, y) -> Double.compare(mild[y], mild[x]));
    List<Integer> best = new ArrayList<>();
    Map<List<Object>, Integer> alike = new LinkedHashMap<>();
    for (int i : order) {
      if (i > 0
          && board(i)
          && best.size() < BEAM_WITH
          && alike.merge(signature(i, clues), 1, Integer::sum) <= EACH) {
        best.add(i);
      }
    }
    for (int x = 0; x < Math.min(BEAM, best.size()); x++) {
      for (int y = x + 1; y < best.size(); y++) {
        Suspect p = cases.get(best.get(x)).suspects().getFirst();
        Suspect q = cases.get(best.get(y)).suspects().getFirst();
        if (p.places().stream().noneMatch(q.places()::contains)) {
          ways.add(new Way(cases.size(), 1, Belief.prior(p) + Belief.prior(q)));
          cases.add(new Case(List.of(p, q)));
        }
      }
    }
  }

  private boolean board(int i) {
    Origin o = cases.get(i).suspects().getFirst().origin();
    return o == Origin.BOARD || o == Origin.DESIGN || o == Origin.LINK || o == Origin.INSTRUMENT;
  }

  /// The best part of what each explains: the clues count with bounded weight.
  private double[] mild(Clues clues) {
    double[] score = new double[singles];
    for (int i = 0; i < singles; i++) {
      score[i] = i == 0 ? 0 : 0.3 * Belief.prior(cases.get(i).suspects().getFirst());
    }
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Seen s) {
        Outlook o = views.of(s.probe());
        double healthy = Math.log(o.chance(s.answer(), 0));
        for (int w : o.who()) {
          if (w < singles) {
            score[w] += Math.clamp(Math.log(o.chance(s.answer(), w)) - healthy, -2, 6);
          }
        }
      }
    }
    return score;
  }

  /// What a case shows of the clues.
  private List<Object> signature(int i, Clues clues) {
    List<Object> all = new ArrayList<>();
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Seen s) {
        all.add(Math.rint(2 * Math.log(views.of(s.probe()).chance(s.answer(), i))));
      }
    }
    return all;
  }

  /// What the books of other boards say of each way that would be theirs too.
  private double[] design(List<Way> ways, Clues own, Map<String, Clues> sisters) {
    double[] more = new double[ways.size()];
    int taken = 0;
    for (Clues sister : sisters.values()) {
      List<Clue> c = alike(own, sister);
      boolean says =
          c.stream().anyMatch(x -> x instanceof Clue.Seen s && s.probe().kind() != Probe.Kind.LOOK);
      if (!says || taken++ >= MOST_SISTERS) {
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

  private boolean ofDesign(Way w) {
    return cases.get(w.at()).suspects().stream().anyMatch(s -> s.origin() == Origin.DESIGN);
  }

  private Traced told(
      Belief b, Clues clues, Map<String, Clues> sisters, Map<String, Integer> heats, int many) {
    List<Traced.Ranked> ranked = ranked(b, clues);
    Weighing weighing = new Weighing(board, cases, views, b, clues.knobs(), done(clues));
    List<Choice> next = weighing.best(many);
    double faulty = 1 - b.healthy();
    double design = 0;
    for (int i = 0; i < b.now().length; i++) {
      design += ofDesign(b.ways().get(i)) ? b.now()[i] : 0;
    }
    double designChance = faulty > 1e-12 ? Math.clamp(design / faulty, 0, 1) : 0;
    Optional<Finding> finding = finding(b, clues, ranked, weighing, heats);
    return new Traced(
        b.entropy(),
        b.explained(),
        designChance,
        ranked,
        groups(ranked),
        next,
        finding,
        sister(b, clues, sisters, designChance),
        stairs(clues),
        sentences(b, clues));
  }

  /// What was measured since something was done to the board.
  private static Set<Probe> done(Clues clues) {
    Set<Probe> done = new LinkedHashSet<>();
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Worked) {
        done.clear();
      } else if (c instanceof Clue.Seen s) {
        done.add(s.probe());
      }
    }
    return done;
  }

  /// The words of a way.
  private String words(Way w) {
    Case c = cases.get(w.at());
    if (w.share() >= 1) {
      return c.words();
    }
    return suspect(w).words();
  }

  private Suspect suspect(Way w) {
    Suspect s = cases.get(w.at()).suspects().getFirst();
    return w.share() >= 1
        ? s
        : Suspect.of(
            new Fault.Sometimes(Math.rint(100 * w.share()) / 100, s.fault()),
            s.origin(),
            s.places(),
            s.nets(),
            s.prior(),
            s.factors());
  }

  private List<Traced.Ranked> ranked(Belief b, Clues clues) {
    List<Integer> order = new ArrayList<>();
    for (int i = 0; i < b.now().length; i++) {
      if (b.ways().get(i).at() > 0) {
        order.add(i);
      }
    }
    order.sort(Comparator.comparingDouble((Integer i) -> -b.now()[i]).thenComparing(i -> i));
    List<Traced.Ranked> all = new ArrayList<>();
    int told = 0;
    for (int i : order) {
      Way w = b.ways().get(i);
      List<Suspect> own = w.share() < 1 ? List.of(suspect(w)) : cases.get(w.at()).suspects();
      List<String> why =
          told++ < EXPLAINED_SUSPECTS && b.now()[i] > 1e-6 ? why(w, clues) : List.of();
      all.add(new Traced.Ranked(words(w), b.now()[i], own, why));
    }
    all.add(
        new Traced.Ranked(
            Belief.HEALTHY, b.healthy(), List.of(), List.of("nothing is wrong, or not any more")));
    all.add(
        new Traced.Ranked(Belief.OTHER, b.other(), List.of(), List.of("what nobody thought of")));
    all.sort(Comparator.comparingDouble(Traced.Ranked::chance).reversed());
    return all;
  }

  private List<Traced.Group> groups(List<Traced.Ranked> ranked) {
    Map<String, List<Traced.Ranked>> by = new LinkedHashMap<>();
    for (Traced.Ranked r : ranked) {
      String key = r.suspects().size() == 1 ? alike.group(r.suspects().getFirst()) : r.fault();
      by.computeIfAbsent(key, _ -> new ArrayList<>()).add(r);
    }
    List<Traced.Group> all = new ArrayList<>();
    by.forEach((key, members) ->
        all.add(
            new Traced.Group(
                members.size() == 1 ? members.getFirst().fault() : key,
                members.stream().mapToDouble(Traced.Ranked::chance).sum(),
                members)));
    all.sort(Comparator.comparingDouble(Traced.Group::chance).reversed());
    return all;
  }

  /// The clues that speak for a way against a healthy board, strongest first.
  private List<String> why(Way w, Clues clues) {
    Map<String, Double> by = new LinkedHashMap<>();
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Seen s) {
        Outlook o = views.of(s.probe());
        double r = Math.log(o.chance(s.answer(), w.at()) / o.chance(s.answer(), 0));
        if (Math.abs(r) > 0.4) {
          by.merge(s.words() + (r > 0 ? "" : " speaks against it"), r, Double::sum);
        }
      }
    }
    return by.entrySet().stream()
        .sorted(
            Comparator.comparingDouble((Map.Entry<String, Double> e) -> -Math.abs(e.getValue())))
        .limit(4)
        .map(Map.Entry::getKey)
        .toList();
  }

  private Optional<Finding> finding(
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
        chance >= (own ? SURE_OF_INSTRUMENT : SURE)
            && (chance >= CERTAIN || weighing.quick(MINUTE) < TELLS);
    boolean nothing = chance >= LIKELY && weighing.most() < NOTHING_LEFT;
    if (!sure && !nothing || b.explained() < Belief.EXPLAINS / 10) {
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
    for (int i = 1; i < singles; i++) {
      if (cases.get(i).suspects().getFirst().fault().equals(f)) {
        return i;
      }
    }
    return 0;
  }

  /// The board whose answer to the strongest clue of this one tells most of design or not.
  private Optional<Traced.SisterLook> sister(
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

  /// What was not known after each clue.
  private List<Traced.Stair> stairs(Clues clues) {
    List<Way> ways = Belief.single(cases.subList(0, singles));
    List<Clue> all = clues.all();
    int from = Math.max(0, all.size() - STAIRS);
    List<Traced.Stair> stairs = new ArrayList<>();
    Belief first = Belief.of(cases, ways, all.subList(0, from), views, new double[0]);
    stairs.add(
        new Traced.Stair(
            0, from == 0 ? "before anything was measured" : "before", 0, first.entropy()));
    for (int i = from; i < all.size(); i++) {
      if (all.get(i) instanceof Clue.Seen s
          && i + 1 < all.size()
          && all.get(i + 1) instanceof Clue.Seen n
          && n.entry() == s.entry()) {
        continue; // one entry, one step
      }
      Belief b = Belief.of(cases, ways, all.subList(0, i + 1), views, new double[0]);
      String words = all.get(i) instanceof Clue.Seen s ? s.words() : "";
      double minutes = all.get(i) instanceof Clue.Seen s ? s.probe().kind().minutes() : 0;
      stairs.add(new Traced.Stair(all.get(i).entry(), words, minutes, b.entropy()));
    }
    return stairs;
  }

  private List<String> sentences(Belief b, Clues clues) {
    List<String> told = new ArrayList<>();
    for (Fit f : b.fits()) {
      if (f.fit() * b.fits().size() < Belief.EXPLAINS) {
        told.add("none of these explains " + f.clue().words() + " well");
      }
    }
    told.addAll(clues.unused());
    if (left > 0) {
      told.add(left + " of the least likely faults are not weighed one by one");
    }
    List<String> absent =
        board.standing().stream()
            .filter(Fault.Missing.class::isInstance)
            .map(f -> ((Fault.Missing) f).part())
            .toList();
    if (!absent.isEmpty()) {
      told.add("not fitted yet, and the board is taken without: " + Folded.references(absent));
    }
    if (board.ladder().sources().isEmpty()) {
      told.add(
          "nobody knows where power comes in: only ohms and looks are proposed; say it, ladder"
              + " WS --source NET=VOLTS");
    }
    clues.all().stream()
        .filter(c -> c instanceof Clue.Comes k && k.times() > 0 && k.times() < k.of())
        .map(Clue.Comes.class::cast)
        .reduce((_, later) -> later)
        .ifPresent(k ->
            told.add(
                Counts.cleanTrials(Counts.wilson(k.times(), k.of(), 0.8).low(), GONE)
                    + " good tries in a row mean that it is gone, after bad "
                    + k.times()
                    + " of "
                    + k.of()));
    boolean silent = clues.all().stream().noneMatch(Clue.Seen.class::isInstance);
    if (silent) {
      told.add("nothing was measured yet: the chances are what is known before");
    }
    return told;
  }
}
