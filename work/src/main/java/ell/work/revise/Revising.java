package ell.work.revise;

import ell.book.BookException;
import ell.book.Build;
import ell.book.RevisionStore;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.kit.buy.Offer;
import ell.core.power.Ladder;
import ell.core.rack.Plan;
import ell.core.revise.BodgeMatrix;
import ell.core.revise.ChangeCheck;
import ell.core.revise.Compared;
import ell.core.revise.Ends;
import ell.core.revise.Erratum;
import ell.core.revise.FirstPass;
import ell.core.revise.Improvements;
import ell.core.revise.Lessons;
import ell.core.revise.RespinSaid;
import ell.core.revise.Severity;
import ell.core.revise.Stacks;
import ell.core.revise.Stand;
import ell.core.revise.WorkOrder;
import ell.core.revise.difference.LayerDifference;
import ell.core.revise.difference.RevisionDifference;
import ell.work.bring.Revisions;
import ell.work.errata.KeptErrata;
import ell.work.kit.Buying;
import ell.work.kit.Stockroom;
import ell.work.order.Plans;
import ell.work.power.Ladders;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Everything that is worked out of errata over the boards of a design.
public final class Revising {
  /// Under this word prices and times are kept with a revision.
  public static final String SAID = "revise";

  private final Workspace space;
  private final Revisions revisions;
  private final Ladders ladders;
  private final Plans plans;
  private final Stockroom stockroom;
  private final KeptErrata errata;

  /// Over a workspace.
  public Revising(
      Workspace space,
      Revisions revisions,
      Ladders ladders,
      Plans plans,
      Stockroom stockroom,
      KeptErrata errata) {
    this.space = space;
    this.revisions = revisions;
    this.ladders = ladders;
    this.plans = plans;
    this.stockroom = stockroom;
    this.errata = errata;
  }

  /// Designs of the workspace, in the order in which they were brought in.
  public List<String> designs() throws BookException {
    Set<String> all = new LinkedHashSet<>();
    space.book().revisions().forEach(r -> all.add(r.design()));
    return List.copyOf(all);
  }

  /// Revisions of a design, in the order in which they were brought in.
  public List<String> revisions(String design) throws BookException {
    return space.book().revisions().stream()
        .filter(r -> r.design().equals(design))
        .map(RevisionStore.Id::name)
        .toList();
  }

  /// The errata of a design, wishes and closed ones too.
  public List<Erratum> errata(String design) throws BookException {
    return errata.all().of(design);
  }

  /// Errata against boards, of one design or of all.
  ///
  /// @param design empty for all
  public BodgeMatrix matrix(Optional<String> design) throws IOException, ActException {
    List<Erratum> all =
        errata.all().all().stream()
            .filter(e -> design.isEmpty() || design.get().equals(e.design()))
            .toList();
    List<BodgeMatrix.Asked> boards = new ArrayList<>();
    for (Build b : space.book().builds()) {
      boolean own = design.isEmpty() || design.get().equals(b.design());
      boolean touched = all.stream().anyMatch(e -> e.design().equals(b.design()));
      if (own && touched) {
        Revision r = plans.of(b).revision();
        for (String board : b.boards()) {
          boards.add(new BodgeMatrix.Asked(board, r, space.state(board)));
        }
      }
    }
    return BodgeMatrix.of(all, boards);
  }

  /// What is left to be done on all boards of a matrix.
  public WorkOrder workOrder(BodgeMatrix m) throws IOException, ActException {
    Map<String, Ladder> known = new LinkedHashMap<>();
    for (BodgeMatrix.Row r : m.boards()) {
      String title = r.revision().title();
      if (!known.containsKey(title)) {
        known.put(title, ladders.of(r.revision().design(), r.revision().name()));
      }
    }
    return WorkOrder.of(
        m, taken(m), (s, revision) -> Ends.wire(s, revision, known.get(revision.title())));
  }

  /// Minutes that bodges have taken on this bench, by id, where somebody timed them.
  private static Map<String, Double> taken(BodgeMatrix m) {
    Map<String, Double> all = new LinkedHashMap<>();
    for (Erratum e : m.errata()) {
      m.boards().stream()
          .map(b -> b.stands().get(e.id()))
          .filter(s -> s.minutes() > 0)
          .mapToDouble(Stand::minutes)
          .average()
          .ifPresent(x -> all.put(e.id(), x));
    }
    return all;
  }

  /// What is said of prices and times.
  ///
  /// @throws ActException when what is kept cannot be understood
  public RespinSaid said(String design, String name) throws BookException, ActException {
    try {
      return RespinSaid.read(space.book().document(design, name, SAID).orElse(""));
    } catch (IllegalArgumentException e) {
      throw new ActException("what is kept of prices and times: " + e.getMessage(), e);
    }
  }

  /// Keeps what is said of prices and times, such as `lead-days=14`.
  ///
  /// @throws ActException when something cannot be understood; nothing is kept then
  public RespinSaid say(String design, String name, List<String> words)
      throws BookException, ActException {
    RespinSaid r = said(design, name);
    try {
      for (String w : words) {
        r = r.say(w);
      }
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    space.book().putDocument(design, name, SAID, r.text());
    space.tell(new Change.Revision(design, name));
    return r;
  }

  /// What to do about the boards of a revision that are not mended; empty when none is left.
  ///
  /// @param about an erratum, or empty for all of them
  public Optional<RespinSaid.Question> question(String design, String name, String about)
      throws IOException, ActException {
    BodgeMatrix all = matrix(Optional.of(design));
    List<Erratum> own =
        all.errata().stream()
            .filter(e -> e.open() && e.of(design, name) && e.severity() != Severity.WISH)
            .filter(e -> about.isEmpty() || e.id().equals(about))
            .toList();
    List<BodgeMatrix.Row> rows =
        all.boards().stream().filter(r -> r.revision().name().equals(name)).toList();
    int needed = 0;
    int spent = 0;
    int succeeded = 0;
    int tried = 0;
    for (BodgeMatrix.Row r : rows) {
      boolean need = false;
      boolean cannot = false;
      for (Erratum e : own) {
        Stand s = r.stands().get(e.id());
        need |= s.state() == Stand.State.NEEDED;
        cannot |= s.state() == Stand.State.CANNOT;
        tried += s.state() == Stand.State.PROVED || s.failed() ? 1 : 0;
        succeeded += s.state() == Stand.State.PROVED ? 1 : 0;
      }
      spent += cannot ? 1 : 0;
      needed += need && !cannot ? 1 : 0;
    }
    WorkOrder order = workOrder(new BodgeMatrix(own, rows));
    double minutes = order.boards().isEmpty() ? 0 : order.minutes() / order.boards().size();
    Revision revision = revisions.get(design, name);
    double[] prices = prices(revision, Math.max(1, needed + spent));
    return said(design, name)
        .question(
            new RespinSaid.Book(
                needed,
                spent,
                succeeded,
                tried,
                minutes,
                sum(prices),
                (int) Arrays.stream(prices).filter(Double::isNaN).count(),
                area(revision),
                slowest(revision)));
  }

  private static List<Part> fitted(Revision r) {
    return r.parts().stream().filter(Part::fitted).toList();
  }

  /// Price of a part: that of the bill, else the cheapest offer for so many boards; NaN for none.
  private double price(Part p, int boards, List<Offer> all) {
    return !Double.isNaN(p.unitCost())
        ? p.unitCost()
        : all.stream()
            .filter(o -> o.code().equals(p.code()))
            .mapToDouble(o -> o.priceAt(Math.max(o.least(), boards)))
            .filter(Double::isFinite)
            .min()
            .orElse(Double.NaN);
  }

  private double[] prices(Revision r, int boards) throws IOException, ActException {
    List<Offer> all = offers();
    return fitted(r).stream().mapToDouble(p -> price(p, boards, all)).toArray();
  }

  /// The parts of a board whose price is known; NaN when no price is.
  private static double sum(double[] prices) {
    double[] known = Arrays.stream(prices).filter(p -> !Double.isNaN(p)).toArray();
    return known.length == 0 ? Double.NaN : Arrays.stream(known).sum();
  }

  private static double area(Revision r) {
    double[] b = r.boxMm();
    return r.outline().loops().isEmpty() ? 0 : (b[2] - b[0]) * (b[3] - b[1]) / 100;
  }

  private List<Offer> offers() throws IOException, ActException {
    Optional<String> text = stockroom.offers();
    return text.isPresent() ? Buying.kept(text.get()) : List.of();
  }

  /// Days until the slowest part of a revision is there, by the quickest offer of each; 0 where
  /// nothing is offered.
  private int slowest(Revision r) throws IOException, ActException {
    List<Offer> all = offers();
    return fitted(r).stream()
        .map(Part::code)
        .distinct()
        .mapToInt(
            c -> all.stream().filter(o -> o.code().equals(c)).mapToInt(Offer::days).min().orElse(0))
        .max()
        .orElse(0);
  }

  /// The difference of two revisions.
  public RevisionDifference difference(String design, String from, String to)
      throws BookException, ActException {
    return RevisionDifference.of(revisions.get(design, from), revisions.get(design, to));
  }

  /// What differs in the layers that are kept with two revisions.
  public List<LayerDifference> layers(RevisionDifference d, String design, String from, String to)
      throws IOException, ActException {
    return DrawnLayers.of(space, d, revisions.get(design, from), revisions.get(design, to));
  }

  /// The change list of a revision: errata and wishes that are open, and that it has.
  public List<Erratum> changes(String design, String name) throws BookException {
    return errata(design).stream().filter(e -> e.open() && e.revisions().contains(name)).toList();
  }

  /// The change list held against the next drawing.
  public ChangeCheck check(RevisionDifference d, String design, String from, String to)
      throws BookException, ActException {
    return ChangeCheck.of(
        changes(design, from), d, revisions.get(design, from), revisions.get(design, to));
  }

  /// What the books of a revision's boards suggest for the next one.
  ///
  /// @param advice what its jig would want otherwise
  public List<Improvements.Suggestion> suggestions(String design, String name, List<String> advice)
      throws IOException, ActException {
    List<BoardState> states = new ArrayList<>();
    for (Build b : builds(design)) {
      if (b.revision().equals(name)) {
        for (String board : b.boards()) {
          states.add(space.state(board));
        }
      }
    }
    return Improvements.of(revisions.get(design, name), states, errata(design), advice);
  }

  private List<Build> builds(String design) throws BookException {
    return space.book().builds().stream().filter(b -> b.design().equals(design)).toList();
  }

  /// Revisions of a design, or its builds, held against each other.
  ///
  /// @param byBuild each build by itself
  public Compared compared(String design, boolean byBuild) throws IOException, ActException {
    Map<String, List<FirstPass>> groups = new LinkedHashMap<>();
    Map<String, Double> parts = new LinkedHashMap<>();
    Map<String, Double> hour = new LinkedHashMap<>();
    String last = "";
    for (Build b : builds(design)) {
      String name =
          byBuild ? "build " + b.id() + " (rev " + b.revision() + ")" : "rev " + b.revision();
      last = b.revision();
      Revision r = plans.of(b).revision();
      parts.put(name, sum(prices(r, b.boards().size())));
      hour.put(
          name, said(design, b.revision()).of("hour-rate").orElse(RespinSaid.usual("hour-rate")));
      for (String board : b.boards()) {
        groups
            .computeIfAbsent(name, _ -> new ArrayList<>())
            .add(FirstPass.of(r, space.state(board)));
      }
    }
    double failing = 0;
    int next = 0;
    if (!last.isEmpty()) {
      Optional<RespinSaid.Question> q = question(design, last, "");
      RespinSaid said = said(design, last);
      failing =
          q.map(x -> x.asked().reworkHours() * x.asked().hourRate()).orElse(0.0)
              + said.of("board-cost").orElse(0.0);
      next = groups.values().stream().reduce((_, b) -> b).map(List::size).orElse(0);
    }
    return Compared.of(
        groups.entrySet().stream()
            .map(e ->
                Compared.group(e.getKey(), e.getValue())
                    .costing(parts.get(e.getKey()), hour.get(e.getKey())))
            .toList(),
        failing,
        next);
  }

  /// Boards that were tried together.
  public Stacks stacks() throws IOException {
    Map<String, BoardState> states = new LinkedHashMap<>();
    Map<String, String> titles = new LinkedHashMap<>();
    for (Build b : space.book().builds()) {
      for (String board : b.boards()) {
        states.put(board, space.state(board));
        titles.put(board, b.design() + " rev " + b.revision());
      }
    }
    return Stacks.of(states, titles);
  }

  /// What this bench's book says over all designs.
  public Lessons lessons() throws IOException, ActException {
    List<Lessons.Made> boards = new ArrayList<>();
    for (Build b : space.book().builds()) {
      Plan plan = plans.of(b);
      for (String board : b.boards()) {
        boards.add(new Lessons.Made(plan.revision(), plan.method().key(), space.state(board)));
      }
    }
    Map<String, List<String>> sellers = new LinkedHashMap<>();
    for (Offer o : offers()) {
      List<String> own = sellers.computeIfAbsent(o.code(), _ -> new ArrayList<>());
      if (!own.contains(o.seller())) {
        own.add(o.seller());
      }
    }
    return Lessons.of(boards, sellers);
  }

  /// A decision, and what came of it.
  ///
  /// @param since boards that were proved or failed after it, of how many it was about
  public record Decided(Logged entry, Entry.Decision decision, String since) {}

  /// The decisions about a revision, oldest first, each held against what happened since.
  public List<Decided> decisions(String design, String name) throws IOException, ActException {
    List<Logged> all = new ArrayList<>();
    List<Logged> after = new ArrayList<>();
    for (Build b : builds(design)) {
      if (b.revision().equals(name)) {
        for (String board : b.boards()) {
          for (Logged l : space.standing(board)) {
            if (l.entry() instanceof Entry.Decision) {
              all.add(l);
            } else if (l.entry() instanceof Entry.Bodge) {
              after.add(l);
            }
          }
        }
      }
    }
    all.sort(java.util.Comparator.comparingLong(Logged::number));
    List<Decided> out = new ArrayList<>();
    BodgeMatrix m = matrix(Optional.of(design));
    for (Logged l : all) {
      Entry.Decision d = (Entry.Decision) l.entry();
      out.add(new Decided(l, d, since(d, l.number(), m, after, name)));
    }
    return out;
  }

  private static String since(
      Entry.Decision d, long number, BodgeMatrix m, List<Logged> bodges, String name) {
    Set<String> touched = new LinkedHashSet<>();
    double minutes = 0;
    for (Logged l : bodges) {
      Entry.Bodge b = (Entry.Bodge) l.entry();
      if (l.number() > number && (d.about().isEmpty() || d.about().equals(b.id()))) {
        touched.add(l.board());
        minutes += b.minutes();
      }
    }
    int held = 0;
    int failed = 0;
    for (BodgeMatrix.Row r : m.boards()) {
      if (!touched.contains(r.board()) || !r.revision().name().equals(name)) {
        continue;
      }
      boolean proved =
          r.stands().entrySet().stream()
              .filter(e -> d.about().isEmpty() || e.getKey().equals(d.about()))
              .anyMatch(e -> e.getValue().state() == Stand.State.PROVED);
      boolean out = r.stands().values().stream().anyMatch(Stand::failed);
      held += proved && !out ? 1 : 0;
      failed += out ? 1 : 0;
    }
    if (touched.isEmpty()) {
      return "nothing was mended since";
    }
    String chance =
        d.numbers().containsKey("successChance")
            ? String.format(
                java.util.Locale.ROOT,
                ", %.0f %% were expected to",
                100 * d.numbers().get("successChance"))
            : "";
    return touched.size()
        + (touched.size() == 1 ? " board" : " boards")
        + " worked on since: "
        + held
        + " held, "
        + failed
        + " did not"
        + (held + failed > 0 ? chance : "")
        + (minutes > 0
            ? String.format(java.util.Locale.ROOT, "; %.0f min were timed", minutes)
            : "");
  }
}
