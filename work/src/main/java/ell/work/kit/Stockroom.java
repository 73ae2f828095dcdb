package ell.work.kit;

import ell.book.BookException;
import ell.book.Build;
import ell.core.board.Outline;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.kit.AttritionRules;
import ell.core.kit.KitCheck;
import ell.core.kit.KitFacts;
import ell.core.kit.KitQuestion;
import ell.core.kit.ShelfLine;
import ell.core.kit.StockFold;
import ell.core.order.OrderFacts;
import ell.core.rack.Plan;
import ell.core.revise.BodgeNeeds;
import ell.core.revise.BodgeStep;
import ell.work.bring.Revisions;
import ell.work.errata.KeptErrata;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// The shelf of a workspace as it stands now: what was counted, less what boards took, folded from
/// the book; and the kit of a build that is held against it.
public final class Stockroom implements Workspace.Listener {
  /// The rule that keeps the paste closed, as it is named on the tape.
  public static final String PASTE_RULE = "paste";

  private static final String ATTRITION = "attrition";
  private static final Revision NONE = new Revision("", "", List.of(), List.of(), Outline.UNKNOWN);

  private final Workspace workspace;
  private final Revisions revisions;
  private final KeptErrata errata;
  private final Map<String, List<StockFold.Move>> moves = new HashMap<>();

  /// The shelf of a workspace.
  public Stockroom(Workspace workspace, Revisions revisions, KeptErrata errata) {
    this.errata = errata;
    this.workspace = workspace;
    this.revisions = revisions;
    workspace.listen(this);
  }

  @Override
  public synchronized void changed(Change change) {
    switch (change) {
      case Change.Board b -> moves.remove(b.board());
      case Change.Shelf _, Change.Everything _ -> moves.clear();
      case Change.Revision _ -> moves.clear();
    }
  }

  /// What is asked of a kit beside the build.
  ///
  /// @param boards of the build; another number asks about a build that has not begun
  /// @param date a day to look at, on which what is due has come; today as it is when empty
  public record Ask(int boards, Optional<LocalDate> date) {
    /// Today's question about a number of boards.
    public static Ask today(int boards) {
      return new Ask(boards, Optional.empty());
    }
  }

  /// Codes that lie on the shelf, and those that bodges take.
  public Set<String> codes() throws BookException {
    Set<String> codes = new LinkedHashSet<>();
    workspace.book().shelf().forEach(l -> codes.add(l.code()));
    errata
        .all()
        .all()
        .forEach(e ->
            e.bodge().stream().map(BodgeStep::code).filter(c -> !c.isEmpty()).forEach(codes::add));
    return codes;
  }

  /// Where parts lie, by code; the first bin where there are several.
  public Map<String, String> bins() throws BookException, ActException {
    Map<String, String> bins = new LinkedHashMap<>();
    now()
        .lines()
        .forEach(l -> {
          if (!l.bin().isEmpty()) {
            bins.putIfAbsent(l.code(), l.bin());
          }
        });
    return bins;
  }

  /// The shelf as it stands now.
  public synchronized StockFold now() throws BookException, ActException {
    List<ShelfLine> counted = workspace.book().shelf();
    // what was logged before everything was counted moves nothing any more
    long since = counted.stream().mapToLong(ShelfLine::since).min().orElse(0);
    List<StockFold.Move> all = new ArrayList<>(of("", Optional.empty()));
    for (Build b : workspace.book().builds()) {
      for (String serial : b.boards()) {
        if (moves.containsKey(serial) || workspace.book().lastNumber(serial) > since) {
          all.addAll(of(serial, Optional.of(b)));
        }
      }
    }
    return StockFold.of(counted, all);
  }

  private List<StockFold.Move> of(String serial, Optional<Build> build)
      throws BookException, ActException {
    List<StockFold.Move> known = moves.get(serial);
    if (known == null) {
      known =
          StockFold.moves(
              build.isPresent()
                  ? revisions.get(build.get().design(), build.get().revision())
                  : NONE,
              workspace.entries(serial));
      moves.put(serial, known);
    }
    return known;
  }

  /// Puts a shelf in place of the one before, as of now.
  public void replace(List<ShelfLine> lines) throws BookException {
    workspace.book().replaceShelf(lines);
    workspace.tell(new Change.Shelf());
  }

  /// The offers that are kept with the workspace, as the file had them.
  public Optional<String> offers() throws BookException {
    return workspace.book().keepsake(Buying.OFFERS);
  }

  /// The losses as the maker said them, empty when the typical ones stand.
  public Optional<String> attritionText() throws BookException {
    return workspace.book().keepsake(ATTRITION);
  }

  /// The losses that are counted on: the maker's, else the typical ones.
  public AttritionRules attrition() throws BookException {
    return workspace
        .book()
        .keepsake(ATTRITION)
        .map(AttritionRules.TYPICAL::with)
        .orElse(AttritionRules.TYPICAL);
  }

  /// Keeps other losses.
  ///
  /// @param text such as `small=5%/2`
  public void setAttrition(String text) throws BookException, ActException {
    try {
      AttritionRules.TYPICAL.with(text);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    workspace.book().putKeepsake(ATTRITION, text);
  }

  /// The kit of a plan for a number of boards that are not begun.
  public KitCheck kit(Plan plan, Ask ask) throws BookException, ActException {
    return KitCheck.of(question(Optional.empty(), plan, ask));
  }

  /// The kit of a build.
  public KitCheck kit(Build build, Plan plan) throws BookException, ActException {
    return KitCheck.of(question(Optional.of(build), plan, Ask.today(build.boards().size())));
  }

  /// The question that a kit answers.
  ///
  /// @param build whose boards have taken parts already; empty for one that has not begun
  public KitQuestion question(Optional<Build> build, Plan plan, Ask ask)
      throws BookException, ActException {
    StockFold stock = now();
    Map<String, Long> placed = new HashMap<>();
    Map<String, Long> lost = new HashMap<>();
    Optional<String> setAside = Optional.empty();
    List<String> serials = build.map(Build::boards).orElse(List.of());
    for (String serial : serials) {
      BoardState s = workspace.state(serial);
      OrderFacts.of(s).placed().forEach(r -> placed.merge(r, 1L, Long::sum));
      KitFacts.of(s)
          .lost()
          .forEach((r, n) ->
              plan.revision()
                  .part(r)
                  .ifPresent(p ->
                      lost.merge(
                          KitFacts.of(s).fitted().getOrDefault(r, p.code()), (long) n, Long::sum)));
      setAside = setAside.or(() -> Optional.ofNullable(s.overrides().get(PASTE_RULE)));
    }
    Map<String, Integer> bodges = bodges(build, plan, ask);
    placed.putAll(BodgeNeeds.placed(plan.revision(), bodges, ask.boards()));
    KitQuestion today =
        new KitQuestion(
            BodgeNeeds.counted(plan.revision().without(plan.order().arriving()), bodges),
            ask.boards(),
            stock.lines(),
            LocalDate.now(workspace.clock()),
            false,
            attrition(),
            plan.order().gateNeeds(),
            plan.order().inPaste(),
            placed,
            lost,
            stock.overdrawn(),
            setAside);
    return ask.date().map(today::lookingAt).orElse(today);
  }

  /// What the bodges take that the boards still lack.
  private Map<String, Integer> bodges(Optional<Build> build, Plan plan, Ask ask)
      throws BookException {
    List<BoardState> states = new ArrayList<>();
    for (String serial : build.map(Build::boards).orElse(List.of())) {
      states.add(workspace.state(serial));
    }
    return BodgeNeeds.of(
        errata.of(plan.revision().design(), plan.revision().name()),
        plan.revision(),
        states,
        Math.max(0, ask.boards() - states.size()));
  }
}
