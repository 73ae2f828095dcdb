package ell.work.trace;

import ell.book.BookException;
import ell.book.Build;
import ell.core.beep.BeepFacts;
import ell.core.entry.BoardState;
import ell.core.heat.HeatFacts;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.rack.Plan;
import ell.core.talk.TalkFacts;
import ell.core.talk.TalkReasons;
import ell.core.trace.BenchKnowledge;
import ell.core.trace.Board;
import ell.core.trace.Clues;
import ell.core.trace.Finding;
import ell.core.trace.Probe;
import ell.core.trace.Suspect;
import ell.core.trace.Suspects;
import ell.core.trace.Traced;
import ell.core.trace.Tracer;
import ell.work.act.Acts;
import ell.work.act.Outcome;
import ell.work.bring.Revisions;
import ell.work.errata.KeptErrata;
import ell.work.look.Looking;
import ell.work.order.Plans;
import ell.work.power.PowerRun;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// Where the faults of boards are. What a tracer has worked out is kept for the board that was
/// traced last. Safe for several threads, one at a time.
public final class Traces implements Workspace.Listener {
  /// All measurements that were weighed.
  public static final int ALL = Integer.MAX_VALUE;

  private static final String PRIORS = "trace-priors";

  /// Minutes to put right, or to override with words, what bars a board from power; typical, no
  /// source.
  private static final double BARRED = 0.5;

  private final Workspace space;
  private final Plans plans;
  private final Revisions revisions;
  private final Acts acts;
  private final Knowing knowing;
  private Tracer last;

  /// Those of a workspace.
  public Traces(
      Workspace space,
      Plans plans,
      Revisions revisions,
      Looking looking,
      Acts acts,
      KeptErrata errata) {
    this.space = space;
    this.plans = plans;
    this.revisions = revisions;
    this.acts = acts;
    this.knowing = new Knowing(space, looking, errata);
    space.listen(this);
  }

  @Override
  public void changed(Change change) {
    if (change instanceof Change.Revision || change instanceof Change.Everything) {
      synchronized (this) {
        last = null;
      }
    }
  }

  /// Where the fault of a board may be, and what to measure next.
  ///
  /// @param many how many measurements to propose
  public synchronized Traced of(String board, int many) throws IOException, ActException {
    Build build = space.buildOf(board);
    Plan plan = plans.of(build);
    BoardState state = space.state(board);
    Tracer tracer = tracer(build, plan, board);
    Clues clues = Clues.of(tracer.board(), state);
    Map<String, Clues> sisters = new LinkedHashMap<>();
    for (Build b : space.book().builds()) {
      if (b.design().equals(build.design()) && b.revision().equals(build.revision())) {
        for (String other : b.boards()) {
          if (!other.equals(board)) {
            sisters.put(other, Clues.of(tracer.board(), space.state(other)));
          }
        }
      }
    }
    return tracer.trace(
        clues, sisters, HeatFacts.of(state).heatCycles(), waits(plan, state, board), many);
  }

  /// Minutes before a board may be powered: the checks that power still waits for, and something
  /// for whatever else stands in the way.
  private double waits(Plan plan, BoardState state, String board) throws IOException, ActException {
    return PowerRun.refusal(acts, board).isEmpty()
        ? 0
        : BARRED + BeepFacts.of(state).open(plan.beep()).size() * Probe.Kind.OHMS.minutes();
  }

  private Tracer tracer(Build build, Plan plan, String board) throws IOException, ActException {
    Suspects.Listed listed = listed(build, plan, board);
    Board traced = traced(plan, board);
    if (last == null || !last.board().equals(traced) || !last.again(listed)) {
      last = new Tracer(traced, listed);
    }
    return last;
  }

  /// Links as they are, and parts that are not fitted yet.
  private static List<Fault> standing(Plan plan, BoardState state) {
    List<Fault> all = new ArrayList<>(TalkReasons.links(plan.talk(), TalkFacts.of(state).stands()));
    Knowing.notYet(plan, state).forEach(p -> all.add(new Fault.Missing(p)));
    return all;
  }

  /// What is traced of a board, and the faults that may be on it.
  public record Question(Board board, Suspects.Listed listed) {}

  /// The question of a board, for whoever traces it otherwise than from its book.
  public synchronized Question question(String board) throws IOException, ActException {
    Build build = space.buildOf(board);
    Plan plan = plans.of(build);
    return new Question(traced(plan, board), listed(build, plan, board));
  }

  private Board traced(Plan plan, String board) throws BookException {
    return new Board(
        plan.revision(),
        plan.ladder(),
        plan.pulse(),
        plan.talk(),
        standing(plan, space.state(board)),
        TalkFacts.of(space.state(board)).stands());
  }

  private Suspects.Listed listed(Build build, Plan plan, String board)
      throws IOException, ActException {
    BenchKnowledge knows = knowing.of(plan, build, board, priors(build.design(), build.revision()));
    return Suspects.of(plan.revision(), plan.ladder(), knows);
  }

  /// The faults that may be on a board, with their chances before anything was measured.
  public synchronized List<Suspect> suspects(String board) throws IOException, ActException {
    Build build = space.buildOf(board);
    return listed(build, plans.of(build), board).suspects();
  }

  /// Chances that the maker gave, by words of the fault.
  public Map<String, Double> priors(String design, String name) throws BookException {
    Map<String, Double> all = new LinkedHashMap<>();
    space
        .book()
        .document(design, name, PRIORS)
        .ifPresent(t ->
            t.lines()
                .filter(l -> l.contains("="))
                .forEach(l ->
                    all.put(
                        l.substring(0, l.lastIndexOf('=')),
                        Double.parseDouble(l.substring(l.lastIndexOf('=') + 1)))));
    return all;
  }

  /// Gives a fault a chance of its own, or takes that back.
  ///
  /// @param fault in words
  /// @param chance above 0 and below 1; empty takes back what was given
  /// @throws ActException when it is no fault of the board, or the chance is none
  public void setPrior(String board, String fault, Optional<Double> chance)
      throws IOException, ActException {
    Build build = space.buildOf(board);
    String words = words(fault);
    if (suspects(board).stream().noneMatch(s -> s.words().equals(words))) {
      throw new ActException("'" + words + "' is none of the faults that are weighed; see trace");
    }
    if (chance.isPresent() && !(chance.get() > 0 && chance.get() < 1)) {
      throw new ActException(
          "a chance is above 0 and below 1, found "
              + String.format(Locale.ROOT, "%.6g", chance.get()));
    }
    Map<String, Double> all = priors(build.design(), build.revision());
    if (chance.isPresent()) {
      all.put(words, chance.get());
    } else {
      all.remove(words);
    }
    StringBuilder text = new StringBuilder();
    all.forEach((k, v) -> text.append(k).append('=').append(v).append('\n'));
    space.book().putDocument(build.design(), build.revision(), PRIORS, text.toString());
    space.tell(new Change.Revision(build.design(), build.revision()));
  }

  private static String words(String fault) throws ActException {
    try {
      return FaultWords.words(FaultWords.parse(fault));
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  /// Logs where the fault is.
  ///
  /// @param fault in words; empty takes the one that the tracer has found
  /// @throws ActException when there is none yet, or it is no fault of this board
  public Outcome find(String board, Optional<String> fault) throws IOException, ActException {
    Traced t = of(board, 1);
    Build build = space.buildOf(board);
    Plan plan = plans.of(build);
    if (fault.isEmpty()) {
      Finding f =
          t.finding()
              .orElseThrow(() ->
                  new ActException(
                      "nothing is likely enough yet: "
                          + t.first().fault()
                          + String.format(Locale.ROOT, " has %.0f %%", 100 * t.first().chance())
                          + "; measure on, or say which: found FAULT"));
      return acts.log(
          board,
          List.of(FoundEntry.of(f.suspect(), f.chance(), f.evidence(), f.todo(), f.again())));
    }
    return acts.log(
        board,
        List.of(
            FoundEntry.said(
                fault.get(),
                plan,
                HeatFacts.of(space.state(board)).heatCycles(),
                evidence(t, words(fault.get())))));
  }

  /// The entries that a finding which the maker names rests on: those of the tracer's own, where it
  /// is the same.
  private static List<Long> evidence(Traced t, String words) {
    return t.finding()
        .filter(f -> f.suspect().words().equals(words))
        .map(Finding::evidence)
        .orElseGet(ArrayList::new);
  }

  /// The revisions behind it.
  Revisions revisions() {
    return revisions;
  }
}
