package ell.core.trace;

import ell.core.beep.ShortPlaces;
import ell.core.board.Folded;
import ell.core.entry.BoardState;
import ell.core.power.Fault;
import ell.core.statistic.Counts;
import ell.core.trace.Belief.Fit;
import ell.core.trace.Belief.Way;
import ell.core.trace.Suspect.Origin;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Traces the fault of boards of one revision that stand alike. What the faults would show is
/// worked out once, when it is asked for first, and kept; so a further clue is taken in quickly.
/// Not for many threads.
public final class Tracer {
  /// From this chance on it is a finding.
  public static final double SURE = 0.9;

  /// Said where no measurement that is left gives as much, and nothing is found.
  public static final String HARDLY = "what is left to measure tells hardly anything more";

  private static final double HARDLY_BITS = 0.01;

  private static final int BEAM = 24;
  private static final int BEAM_WITH = 60;

  /// Of those that show the same, so many are put into pairs.
  private static final int EACH = 6;

  private static final double OTHER_GROWS = 0.2;

  /// Where single faults explain less, two at once are thought of.
  private static final double PAIRS_BELOW = 0.1;

  /// A case that changes the chance of a clue by less says nothing of it.
  private static final double SHOWS = 0.05;

  private static final int EXPLAINED_SUSPECTS = 40;
  private static final int STAIRS = 60;
  private static final double GONE = 0.95;

  private final Board board;
  private final List<Case> cases = new ArrayList<>();
  private final int singles;
  private final int left;
  private final Views views;
  private final Alike alike;
  private final SisterDesign sisterly;

  /// A tracer over some suspects.
  public Tracer(Board board, Suspects.Listed listed) {
    this.board = board;
    this.left = listed.left();
    cases.add(Case.HEALTHY);
    listed.suspects().forEach(s -> cases.add(new Case(List.of(s))));
    singles = cases.size();
    views = new Views(board, cases);
    alike = new Alike(board.revision());
    sisterly = new SisterDesign(board, cases, views);
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
    return trace(clues, sisters, heats, 0, many);
  }

  /// The same for a board that may not be powered yet.
  ///
  /// @param clues what its book says
  /// @param sisters what the books of other boards of the revision say, by serial
  /// @param heats how often each of its parts was heated
  /// @param waits minutes of what has to be done before it may be, 0 where nothing is
  /// @param many how many measurements to propose
  public Traced trace(
      Clues clues, Map<String, Clues> sisters, Map<String, Integer> heats, double waits, int many) {
    return trace(clues, sisters, heats, waits, many, Optional.empty());
  }

  /// The same for somebody who measures in an order of their own: what says nothing is left out
  /// still.
  ///
  /// @param own what comes first, for a board of which nothing else is known
  /// @param many how many measurements to propose
  public Traced trace(Clues clues, Comparator<Probe> own, int many) {
    return trace(clues, Map.of(), Map.of(), 0, many, Optional.of(own));
  }

  private Traced trace(
      Clues clues,
      Map<String, Clues> sisters,
      Map<String, Integer> heats,
      double waits,
      int many,
      Optional<Comparator<Probe>> own) {
    views.truncate(singles);
    List<Way> ways = new ArrayList<>(Belief.single(cases));
    boolean comes = clues.all().stream().anyMatch(Clue.Comes.class::isInstance);
    if (comes) {
      ways.addAll(Belief.sometimes(cases, share(clues)));
    }
    double[] design = sisterly.of(ways, clues, sisters);
    Belief b = Belief.of(cases, ways, clues.all(), views, design);
    if (!clues.all().isEmpty() && (b.explained() < PAIRS_BELOW || b.other() > OTHER_GROWS)) {
      List<Way> more = new ArrayList<>(ways);
      if (!comes) {
        more.addAll(Belief.sometimes(cases, 0.5));
      }
      pairs(b, clues, more);
      b = Belief.of(cases, more, clues.all(), views, sisterly.of(more, clues, sisters));
    }
    Weighing weighing =
        new Weighing(
            board, cases, views, b, clues.knobs(), done(clues), new Again(clues, views), waits);
    List<Choice> next = own.map(o -> weighing.first(many, o)).orElseGet(() -> weighing.best(many));
    return told(b, clues, sisters, heats, weighing, next);
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
    boolean[] shows = shows(clues);
    List<Integer> best = new ArrayList<>();
    Map<List<Object>, Integer> alike = new LinkedHashMap<>();
    for (int i : order) {
      if (i > 0
          && shows[i]
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

  /// Which cases change the chance of anything that was seen; what does not is as likely as before,
  /// beside whatever else is wrong.
  private boolean[] shows(Clues clues) {
    boolean[] shows = new boolean[singles];
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Seen s) {
        Outlook o = views.of(s.probe());
        double healthy = o.chance(s.answer(), 0);
        for (int w : o.who()) {
          shows[w] |= w < singles && Math.abs(Math.log(o.chance(s.answer(), w) / healthy)) > SHOWS;
        }
      }
    }
    return shows;
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

  private Traced told(
      Belief b,
      Clues clues,
      Map<String, Clues> sisters,
      Map<String, Integer> heats,
      Weighing weighing,
      List<Choice> next) {
    List<Traced.Ranked> ranked = ranked(b, clues);
    double faulty = 1 - b.healthy();
    double design = 0;
    for (int i = 0; i < b.now().length; i++) {
      design += sisterly.ofDesign(b.ways().get(i)) ? b.now()[i] : 0;
    }
    double designChance = faulty > 1e-12 ? Math.clamp(design / faulty, 0, 1) : 0;
    Optional<Finding> finding =
        new Concluding(board, cases, views, alike).of(b, clues, ranked, weighing, heats);
    return new Traced(
        b.entropy(),
        b.explained(),
        designChance,
        ranked,
        groups(ranked),
        next,
        finding,
        sisterly.next(b, clues, sisters, designChance),
        stairs(clues),
        sentences(b, clues, sisters, finding.isEmpty() && weighing.most() < HARDLY_BITS));
  }

  /// What was measured since something was done to the board.
  private Set<Probe> done(Clues clues) {
    Set<Probe> done = new LinkedHashSet<>();
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Worked) {
        done.clear();
      } else if (c instanceof Clue.Seen s) {
        done.add(s.probe());
        joined(s).ifPresent(done::add);
        if (s.answer() instanceof Answer.Along a) {
          a.readings()
              .at()
              .forEach(r -> done.add(Probe.along(List.of(r.joint().place()), s.probe().b())));
        }
        if (s.probe().kind() == Probe.Kind.LOOK) {
          looked(s, done);
        }
      }
    }
    return done;
  }

  /// Two nets that were found joined: from whatever joints they are measured, it is the same again.
  private Optional<Probe> joined(Clue.Seen s) {
    return s.probe().kind() == Probe.Kind.OHMS
            && s.answer() instanceof Answer.Number(double ohms)
            && ohms < ShortPlaces.MOST_OHMS
        ? Optional.of(views.between(s.probe()))
        : Optional.empty();
  }

  /// Who found a part good has seen its joints; who found something at one of its joints has looked
  /// at the part.
  private void looked(Clue.Seen s, Set<Probe> done) {
    String place = s.probe().a();
    if (s.answer().equals(WordViews.GOOD)) {
      board.revision().jointsOf(place).forEach(j -> done.add(Probe.look(j.place(), s.probe().b())));
    } else {
      done.add(Probe.look(BoardState.part(place), s.probe().b()));
    }
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
      double minutes = all.get(i) instanceof Clue.Seen s ? board.minutes(s.probe()) : 0;
      stairs.add(new Traced.Stair(all.get(i).entry(), words, minutes, b.entropy()));
    }
    return stairs;
  }

  private List<String> sentences(
      Belief b, Clues clues, Map<String, Clues> sisters, boolean hardly) {
    List<String> told = new ArrayList<>();
    if (hardly) {
      told.add(HARDLY);
    }
    for (Fit f : b.fits()) {
      if (f.fit() * b.fits().size() < Belief.EXPLAINS) {
        told.add("none of these explains " + f.clue().words() + " well");
      }
    }
    told.addAll(clues.unused());
    told.addAll(sisterly.unused(clues, sisters));
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
