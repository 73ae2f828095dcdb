package ell.work.order;

import ell.book.BookException;
import ell.book.Build;
import ell.core.board.Block;
import ell.core.board.Part;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.order.BuildOrder;
import ell.core.order.Method;
import ell.core.order.OrderFacts;
import ell.core.order.Schools;
import ell.core.order.SeveralBoards;
import ell.core.order.Step;
import ell.core.order.StepTimes;
import ell.core.rack.Plan;
import ell.work.act.Acts;
import ell.work.act.Outcome;
import ell.work.bring.Revisions;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// What the book and the maker add to a build order: times that this bench takes, the two schools
/// compared, several boards at once, wishes.
public final class Ordering implements Workspace.Listener {
  private final Workspace workspace;
  private final Revisions revisions;
  private final Map<String, List<Entry.StepDone>> timed = new HashMap<>();

  /// The orders of a workspace.
  public Ordering(Workspace workspace, Revisions revisions) {
    this.workspace = workspace;
    this.revisions = revisions;
    workspace.listen(this);
  }

  @Override
  public synchronized void changed(Change change) {
    switch (change) {
      case Change.Board b -> timed.remove(b.board());
      case Change.Everything _ -> timed.clear();
      default -> {} // times hang on entries alone
    }
  }

  /// What a book shows of faults.
  ///
  /// @param defects that were logged and stand
  /// @param joints that were made
  public record Faults(long defects, long joints) {}

  /// Times that were learned from the boards of the builds of a revision.
  public StepTimes times(Plan plan) throws IOException, ActException {
    List<Entry.StepDone> done = new ArrayList<>();
    for (Build b : workspace.book().builds()) {
      if (b.design().equals(plan.revision().design())
          && b.revision().equals(plan.revision().name())) {
        for (String serial : b.boards()) {
          done.addAll(timed(serial));
        }
      }
    }
    return StepTimes.learn(plan.order(), done);
  }

  private synchronized List<Entry.StepDone> timed(String serial) throws BookException {
    List<Entry.StepDone> known = timed.get(serial);
    if (known == null) {
      known = new ArrayList<>();
      for (Logged l : workspace.standing(serial)) {
        if (l.entry() instanceof Entry.StepDone s && s.seconds() > 0) {
          known.add(s);
        }
      }
      timed.put(serial, known);
    }
    return known;
  }

  /// Faults that the book shows, over all boards.
  public Faults faults() throws IOException, ActException {
    long defects = 0;
    long joints = 0;
    for (Build b : workspace.book().builds()) {
      var revision = revisions.get(b.design(), b.revision());
      for (String serial : b.boards()) {
        defects +=
            workspace.standing(serial).stream()
                .filter(l -> l.entry() instanceof Entry.Defect)
                .count();
        for (String r : OrderFacts.of(workspace.state(serial)).placed()) {
          joints += revision.jointsOf(r).size();
        }
      }
    }
    return new Faults(defects, joints);
  }

  /// All at once against block by block, for a number of boards.
  public Schools schools(Plan plan, int boards) throws IOException, ActException {
    Method method = plan.method();
    List<String> all =
        plan.revision().parts().stream().filter(Part::fitted).map(Part::reference).toList();
    List<Block> one =
        all.isEmpty()
            ? List.of()
            : List.of(new Block("all", "works", "Everything is seen to work.", all));
    Method atOnce = method == Method.IRON ? Method.IRON : Method.STENCIL_PLATE;
    Method byBlock = method == Method.IRON ? Method.IRON : Method.HOT_AIR;
    StepTimes times = times(plan);
    Faults f = faults();
    double rate = Schools.faultRate(f.defects(), f.joints());
    long joints = all.stream().mapToLong(r -> plan.revision().jointsOf(r).size()).sum();
    return new Schools(
        boards,
        times.seconds(BuildOrder.of(plan.revision(), atOnce, one).steps()) / 60,
        times.seconds(
                (byBlock == method
                        ? plan.order()
                        : BuildOrder.of(plan.revision(), byBlock, plan.blocks()))
                    .steps())
            / 60,
        atOnce == Method.STENCIL_PLATE ? Schools.STENCIL_SETUP : Schools.BENCH_SETUP,
        Schools.BENCH_SETUP,
        Math.max(1, all.size()),
        Math.max(1, plan.blocks().size()),
        rate * joints,
        Schools.MISTAKE,
        Schools.LOOK,
        Schools.MEND,
        Schools.LATE,
        Schools.EARLY,
        plan.blocks().stream()
            .map(b -> new Schools.Risk(b.gate(), b.parts().size(), all.size()))
            .toList());
  }

  /// Several boards of a plan at once.
  public SeveralBoards several(Plan plan, int boards, int perPlate)
      throws IOException, ActException {
    return SeveralBoards.of(plan.order().steps(), times(plan), boards, perPlate, plan.panel());
  }

  /// The steps that are next on other boards of a build and are the same as one on this board.
  ///
  /// @return serials, those on which the step is open and everything before it is done
  public List<String> sameStep(Build build, Plan plan, Step step) throws IOException, ActException {
    List<String> found = new ArrayList<>();
    for (String serial : build.boards()) {
      BoardState s = workspace.state(serial);
      if (OrderFacts.of(s).next(plan.order()).filter(n -> n.number() == step.number()).isPresent()
          && s.findings().isEmpty()) {
        found.add(serial);
      }
    }
    return found;
  }

  /// What came of a step that was done on all boards for which it was next.
  ///
  /// @param done serials on which it was logged
  /// @param refused why not, by serial
  public record OnAll(List<String> done, Map<String, String> refused) {
    /// In words.
    public String words(Step step) {
      String not =
          refused.isEmpty()
              ? ""
              : "; refused on "
                  + String.join(", ", refused.keySet())
                  + ": "
                  + refused.values().iterator().next();
      return done.isEmpty()
          ? refused.isEmpty()
              ? "no board is at step " + step.number()
              : "step " + step.number() + " is done on no board" + not
          : "step " + step.number() + " done on " + String.join(" ", done) + not;
    }
  }

  /// Logs a step for every board of a build for which it is the next and which nothing holds; a
  /// rule of the work may refuse it on some.
  public OnAll doneOnAll(Acts acts, Build build, Plan plan, Step step)
      throws IOException, ActException {
    List<String> done = new ArrayList<>();
    Map<String, String> refused = new LinkedHashMap<>();
    for (String serial : sameStep(build, plan, step)) {
      switch (acts.log(
          serial, List.of(step.rest(OrderFacts.of(workspace.state(serial)).placed())))) {
        case Outcome.Done _ -> done.add(serial);
        case Outcome.Refused r -> refused.put(serial, r.refusal().text());
      }
    }
    return new OnAll(done, refused);
  }
}
