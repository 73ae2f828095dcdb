package ell.work;

import ell.book.Book;
import ell.book.BookException;
import ell.book.Build;
import ell.book.RevisionStore;
import ell.core.beep.BeepList;
import ell.core.board.Block;
import ell.core.board.Outline;
import ell.core.board.PackageSheet;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.order.Blocks;
import ell.core.order.BuildOrder;
import ell.core.order.Method;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.power.PowerJson;
import ell.core.rack.Plan;
import ell.core.rack.Standing;
import ell.files.Read;
import ell.files.Source;
import ell.work.bring.LayerKind;
import ell.work.bring.Layers;
import ell.work.bring.RevisionImport;
import ell.work.heat.Heating;
import ell.work.heat.Profiles;
import ell.work.kit.ShelfFiles;
import ell.work.kit.Stockroom;
import ell.work.look.Looking;
import ell.work.order.Ordering;
import ell.work.power.LadderCheck;
import ell.work.print.Printing;
import ell.work.space.ActException;
import ell.work.tape.Tape;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;


/// An open workspace: the book, and what is planned and folded from it, kept until it changes. Safe
/// for several threads.
public final class Workshop implements AutoCloseable {
  private static final String LADDER = "ladder";
  private static final String FAULTS = "faults";
  private static final String PACKAGES = "packages";

  private final Book book;
  private final Stockroom stockroom;
  private final Ordering ordering;
  private final Printing printing;
  private final Looking looking;
  private final Heating heating;
  private final Map<String, Plan> plans = new ConcurrentHashMap<>();
  private final Map<String, Revision> revisions = new ConcurrentHashMap<>();
  private final Map<String, List<Logged>> entries = new HashMap<>();
  private final Map<String, BoardState> states = new HashMap<>();

  private final Clock clock;

  private Workshop(Book book, Clock clock) {
    this.book = book;
    this.clock = clock;
    this.stockroom = new Stockroom(this);
    this.ordering = new Ordering(this);
    this.printing = new Printing(this);
    this.looking = new Looking(this);
    this.heating = new Heating(this);
  }

  /// Makes a new workspace file.
  public static Workshop create(Path file, Clock clock) throws BookException {
    return new Workshop(Book.create(file, clock), clock);
  }

  /// Opens a workspace for writing.
  public static Workshop open(Path file, Clock clock) throws BookException {
    return new Workshop(Book.open(file, clock), clock);
  }

  /// Opens a workspace to look at it only.
  public static Workshop look(Path file) throws BookException {
    return new Workshop(Book.openReadOnly(file), Clock.systemDefaultZone());
  }

  /// The book behind it.
  public Book book() {
    return book;
  }

  public Clock clock() {
    return clock;
  }

  /// Stores what an import read, in one transaction.
  public void store(RevisionImport.Outcome.Whole whole) throws BookException {
    book.importAll(whole.revision(), whole.shelf(), whole.documents());
    stockroom.forget();
  }

  /// A revision.
  public Revision revision(String design, String name) throws BookException, ActException {
    String key = design + "\n" + name;
    Revision known = revisions.get(key);
    if (known != null) {
      return known;
    }
    Optional<Revision> found = book.revision(design, name);
    if (found.isEmpty()) {
      List<String> there =
          book.revisions().stream().map(r -> r.design() + " rev " + r.name()).toList();
      throw new ActException(
          "there is no revision "
              + design
              + " rev "
              + name
              + "; "
              + (there.isEmpty()
                  ? "nothing is imported yet"
                  : "there are " + String.join(", ", there)));
    }
    Optional<String> packages = book.document(design, name, PACKAGES);
    Revision whole =
        packages.isEmpty()
            ? found.get()
            : found.get().with(PackageSheet.SHIPPED.with(packages(packages.get())));
    Optional<String> edge = book.document(design, name, LayerKind.OUTLINE.key());
    if (edge.isPresent()) {
      whole = whole.with(edge(edge.get()));
    }
    revisions.put(key, whole);
    return whole;
  }

  private static Outline edge(String text) throws BookException, ActException {
    try {
      return switch (Layers.outline(Source.of("outline", text))) {
        case Read.Whole<Outline>(Outline o, var _, var _) -> o;
        case Read.Flawed<Outline>(var p) -> throw new ActException(p.getFirst().toString());
      };
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new ActException("the outline cannot be read: " + e.getMessage(), e);
    }
  }

  /// Keeps layers with a revision that stands, all or none; those of before are replaced.
  public void putLayers(String design, String name, Map<String, String> texts)
      throws BookException, ActException {
    revision(design, name);
    book.putDocuments(design, name, texts);
    revisions.clear();
    plans.clear();
    printing.forget();
    looking.forget();
  }

  /// Profiles and the plate.
  public Heating heating() {
    return heating;
  }

  /// Walks and rates of inspection.
  public Looking looking() {
    return looking;
  }

  /// Paste, stencils and jars.
  public Printing printing() {
    return printing;
  }

  private static List<PackageSheet.Line> packages(String csv) throws BookException, ActException {
    try {
      return ShelfFiles.packages(Source.of("package sheet", csv));
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new ActException("the package sheet cannot be read: " + e.getMessage(), e);
    }
  }

  /// Keeps lines of a package sheet with a revision, before those that ship.
  ///
  /// @param csv with the headings of the sheet that ships
  public void setPackages(String design, String name, String csv)
      throws BookException, ActException {
    revision(design, name);
    packages(csv);
    book.putDocument(design, name, PACKAGES, csv);
    revisions.clear();
    plans.clear();
  }

  /// Makes a build of a revision.
  ///
  /// @param boards 1...1000
  public Build build(
      String design, String name, int boards, Method method, Alloy alloy, String prefix)
      throws BookException, ActException {
    return build(design, name, boards, method, alloy, prefix, "");
  }

  /// Makes a build of a variant of a revision.
  ///
  /// @param boards 1...1000
  /// @param variant one that the bill speaks of, empty for the bill as it is
  public Build build(
      String design,
      String name,
      int boards,
      Method method,
      Alloy alloy,
      String prefix,
      String variant)
      throws BookException, ActException {
    known(revision(design, name), variant);
    if (boards < 1 || boards > 1000) {
      throw new ActException("a build has 1 to 1000 boards, got " + boards);
    }
    if (!prefix.matches("[A-Za-z0-9_-]{0,12}")) {
      throw new ActException(
          "a prefix has up to 12 letters, digits, - or _, found '" + prefix + "'");
    }
    return book.makeBuild(design, name, boards, method.key(), alloy.key(), prefix, variant);
  }

  /// Refuses a variant that the bill does not speak of; empty, the bill as it is, always holds.
  public static void known(Revision revision, String variant) throws ActException {
    if (!variant.isEmpty() && !revision.variants().contains(variant)) {
      throw new ActException(
          revision.title()
              + " has no variant '"
              + variant
              + "'; "
              + (revision.variants().isEmpty()
                  ? "its bill speaks of none"
                  : "there are " + String.join(", ", revision.variants())));
    }
  }

  /// The build with this number, or the latest when none is asked for.
  public Build build(Optional<Long> id) throws BookException, ActException {
    List<Build> builds = book.builds();
    if (builds.isEmpty()) {
      throw new ActException(
          "there is no build yet; make one with: build WS --design D --revision R --boards N");
    }
    if (id.isEmpty()) {
      return builds.getLast();
    }
    return builds.stream()
        .filter(b -> b.id() == id.get())
        .findFirst()
        .orElseThrow(() ->
            new ActException(
                "there is no build "
                    + id.get()
                    + "; there are "
                    + builds.stream().map(b -> String.valueOf(b.id())).toList()));
  }

  /// The build that a board belongs to.
  public Build buildOf(String board) throws BookException, ActException {
    Optional<Build> found = book.buildOf(board);
    if (found.isEmpty()) {
      List<String> all = book.builds().stream().flatMap(b -> b.boards().stream()).toList();
      throw new ActException(
          "there is no board '"
              + board
              + "'; "
              + (all.isEmpty()
                  ? "no build is made yet"
                  : "there are " + String.join(", ", all.stream().limit(40).toList())));
    }
    return found.get();
  }

  /// The power ladder of a revision: the maker's, else a proposal.
  public Ladder ladder(String design, String name) throws BookException, ActException {
    Revision revision = revision(design, name);
    Optional<String> kept = book.document(design, name, LADDER);
    return kept.map(PowerJson::read).orElseGet(() -> LadderProposal.of(revision));
  }

  /// Keeps a corrected ladder with its revision.
  public void setLadder(String design, String name, String json)
      throws BookException, ActException {
    Revision revision = revision(design, name);
    Ladder ladder;
    try {
      ladder = PowerJson.read(json);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    List<String> problems = LadderCheck.problems(ladder, revision);
    if (!problems.isEmpty()) {
      throw new ActException(String.join("; ", problems));
    }
    book.putDocument(design, name, LADDER, json);
    plans.clear();
  }

  /// The faults that the simulated bench gives to boards of a revision.
  public Map<String, List<Fault>> faults(String design, String name) throws BookException {
    return book.document(design, name, FAULTS).map(PowerJson::readFaults).orElse(Map.of());
  }

  /// Keeps faults for the simulated bench with a revision.
  public void setFaults(String design, String name, String json)
      throws BookException, ActException {
    try {
      PowerJson.readFaults(json);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    revision(design, name);
    book.putDocument(design, name, FAULTS, json);
  }

  /// Everything planned for a build.
  public Plan plan(Build build) throws BookException, ActException {
    return plan(build.design(), build.revision(), Method.of(build.method()), build.variant());
  }

  /// The tape of a plan: it knows the codes of the bill and of the shelf.
  public Tape tape(Plan plan) throws BookException {
    return new Tape(plan, stockroom.codes(), printing.shelved());
  }

  /// What the book and the maker add to the orders.
  public Ordering ordering() {
    return ordering;
  }

  public void forgetPlans() {
    plans.clear();
  }

  /// The shelf and everything that is worked out from it.
  public Stockroom stockroom() {
    return stockroom;
  }

  /// Everything planned for a revision built by a method.
  public Plan plan(String design, String name, Method method) throws BookException, ActException {
    return plan(design, name, method, "");
  }

  /// Everything planned for a variant of a revision built by a method.
  public Plan plan(String design, String name, Method method, String variant)
      throws BookException, ActException {
    String key = design + "\n" + name + "\n" + method + "\n" + variant;
    Plan known = plans.get(key);
    if (known != null) {
      return known;
    }
    known(revision(design, name), variant);
    Revision revision = revision(design, name).in(variant);
    Ladder ladder = ladder(design, name);
    List<Block> blocks = Blocks.of(revision, ladder);
    // the order and the beep list know nothing of each other: one core each
    CompletableFuture<BeepList> beep =
        CompletableFuture.supplyAsync(() -> BeepList.of(revision, ladder));
    BuildOrder order =
        BuildOrder.of(revision, method, blocks, ordering.wishes(revision, blocks), () -> false);
    Plan plan = new Plan(revision, ladder, blocks, order, beep.join());
    plans.put(key, plan);
    return plan;
  }

  /// The latest revision, for acts that need no build.
  public RevisionStore.Id latestRevision() throws BookException, ActException {
    List<RevisionStore.Id> all = book.revisions();
    if (all.isEmpty()) {
      throw new ActException(
          "nothing is imported yet; begin with: import WS --design D --revision R --bom F"
              + " --placement F --netlist F");
    }
    return all.getLast();
  }

  /// The entries of a board, oldest first.
  public synchronized List<Logged> entries(String board) throws BookException {
    List<Logged> known = entries.get(board);
    if (known == null) {
      known = new ArrayList<>(book.entries(board));
      entries.put(board, known);
    }
    return List.copyOf(known);
  }

  /// The state of a board, folded from its entries.
  public synchronized BoardState state(String board) throws BookException {
    BoardState known = states.get(board);
    if (known == null) {
      entries(board);
      known = BoardState.of(board, entries.get(board));
      states.put(board, known);
    }
    return known;
  }

  /// Where a board stands.
  public Standing standing(String board) throws BookException, ActException {
    return Standing.of(state(board), plan(buildOf(board)));
  }

  /// Logs an entry; it is on disk when this returns.
  public Logged log(String board, Entry entry) throws BookException {
    return logAll(board, List.of(entry)).getFirst();
  }

  /// Logs entries of one board in one transaction.
  public List<Logged> logAll(String board, List<Entry> several) throws BookException {
    return keep(board, book.appendAll(board, several));
  }

  /// Logs entries with a time of their own, for replaying a script.
  public List<Logged> logAll(String board, List<Entry> several, OffsetDateTime at)
      throws BookException {
    return keep(board, book.appendAll(board, several, at));
  }

  /// Keeps a photograph and logs it.
  public Logged logPhotograph(String board, Entry.Photo entry, byte[] body) throws BookException {
    return keep(board, List.of(book.keepPhotograph(board, entry, body))).getFirst();
  }

  private synchronized List<Logged> keep(String board, List<Logged> logged) {
    if (entries.containsKey(board)) {
      entries.get(board).addAll(logged);
    }
    states.remove(board);
    stockroom.changed(board);
    ordering.changed(board);
    return logged;
  }

  /// The entry that taking back would strike: the latest that stands and is no strike itself.
  public Optional<Logged> lastStanding(String board) throws BookException {
    List<Logged> all = entries(board);
    var struck = BoardState.struck(all);
    return all.reversed().stream()
        .filter(l -> !struck.contains(l.number()) && !(l.entry() instanceof Entry.Strike))
        .findFirst();
  }

  /// Checks that an entry of a board may be struck.
  public void strikable(String board, long number) throws BookException, ActException {
    List<Logged> all = entries(board);
    if (all.stream().noneMatch(l -> l.number() == number)) {
      throw new ActException("board " + board + " has no entry " + number);
    }
    if (BoardState.struck(all).contains(number)) {
      throw new ActException("entry " + number + " is struck already");
    }
  }

  /// Takes an entry back.
  public Logged strike(String board, long number, String why) throws BookException, ActException {
    strikable(board, number);
    return log(board, new Entry.Strike(number, why));
  }

  /// Forgets what was kept in memory, for when another program may have written.
  public synchronized void refresh() {
    entries.clear();
    states.clear();
    plans.clear();
    revisions.clear();
    stockroom.forget();
    ordering.forget();
    printing.forget();
    looking.forget();
  }

  @Override
  public void close() throws BookException {
    book.close();
  }
}
