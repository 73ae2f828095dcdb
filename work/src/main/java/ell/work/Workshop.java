package ell.work;

import ell.book.Book;
import ell.book.BookException;
import ell.book.Build;
import ell.book.Place;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.core.power.Ladder;
import ell.core.rack.Plan;
import ell.core.rack.Standing;
import ell.work.act.Acts;
import ell.work.act.Outcome;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.StageWork;
import ell.work.beep.BeepWork;
import ell.work.bring.Revisions;
import ell.work.errata.KeptErrata;
import ell.work.heat.HeatWork;
import ell.work.heat.Heating;
import ell.work.jig.JigWork;
import ell.work.jig.Jigs;
import ell.work.kit.KitWork;
import ell.work.kit.Stockroom;
import ell.work.look.LookWork;
import ell.work.look.Looking;
import ell.work.order.OrderWork;
import ell.work.order.Ordering;
import ell.work.order.Panels;
import ell.work.order.Plans;
import ell.work.order.Wishes;
import ell.work.power.HeldAgain;
import ell.work.power.Ladders;
import ell.work.power.PowerWork;
import ell.work.print.PrintWork;
import ell.work.print.Printing;
import ell.work.prove.Proofs;
import ell.work.prove.ProveRooms;
import ell.work.prove.ProveWork;
import ell.work.pulse.Captures;
import ell.work.pulse.Lines;
import ell.work.pulse.PulseWork;
import ell.work.pulse.Pulses;
import ell.work.revise.ReviseWork;
import ell.work.revise.Revising;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.talk.Modules;
import ell.work.talk.Recordings;
import ell.work.talk.Scripts;
import ell.work.talk.TalkWork;
import ell.work.talk.Talks;
import ell.work.tape.Meaning;
import ell.work.tape.Tape;
import ell.work.trace.TraceWork;
import ell.work.trace.Traces;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// An open workspace with everything that stands on it: the services of the stages, the rules that
/// they hold, and the acts that all doors come through. Services know the workspace and each other
/// from below; nothing here is known to them. Safe for several threads.
public final class Workshop implements AutoCloseable {
  private final Workspace space;
  private final Revisions revisions;
  private final Ladders ladders;
  private final Wishes wishes;
  private final Panels panels;
  private final Pulses pulses;
  private final Lines lines;
  private final Captures captures;
  private final Talks talks;
  private final Modules modules;
  private final Recordings recordings;
  private final Scripts scripts;
  private final KeptErrata errata;
  private final Plans plans;
  private final Revising revising;
  private final Stockroom stockroom;
  private final Ordering ordering;
  private final Printing printing;
  private final Heating heating;
  private final Looking looking;
  private final Stages stages;
  private final List<StageWork> works;
  private final Acts acts;
  private final Traces traces;
  private final Jigs jigs;
  private final Proofs proofs;

  private Workshop(Workspace space, Stages stages) {
    this.space = space;
    this.stages = stages;
    this.revisions = new Revisions(space);
    this.ladders = new Ladders(space, revisions);
    this.wishes = new Wishes(space);
    this.panels = new Panels(space);
    this.pulses = new Pulses(space, revisions, ladders);
    this.lines = new Lines(space);
    this.talks = new Talks(space, revisions);
    this.modules = new Modules(space);
    this.scripts = new Scripts(space);
    this.errata = new KeptErrata(space);
    this.proofs = new Proofs(space, scripts, errata);
    this.plans = new Plans(space, revisions, ladders, wishes, panels, pulses, talks, errata);
    this.stockroom = new Stockroom(space, revisions, errata);
    this.ordering = new Ordering(space, revisions);
    this.printing = new Printing(space);
    this.heating = new Heating(space);
    this.looking = new Looking(space, plans, printing);
    this.revising = new Revising(space, revisions, ladders, plans, stockroom, errata);
    List<StageWork> all =
        new ArrayList<>(
            List.of(
                new KitWork(stockroom),
                new OrderWork(space, panels),
                new PrintWork(printing),
                new HeatWork(),
                new LookWork(),
                new BeepWork(),
                new PowerWork(space),
                new PulseWork(),
                new TalkWork(space),
                new TraceWork(),
                new JigWork(),
                new ProveWork(space, proofs),
                new ReviseWork(space, errata, revisions, revising)));
    all.addAll(stages.more().apply(space));
    this.works = List.copyOf(all);
    this.acts =
        new Acts(
            space,
            plans::of,
            works.stream().flatMap(s -> s.rules().stream()).toList(),
            works.stream().flatMap(s -> s.companions().stream()).toList(),
            works.stream().flatMap(s -> s.sharings().stream()).toList());
    this.captures = new Captures(space, acts);
    this.recordings = new Recordings(space, acts);
    this.traces = new Traces(space, plans, revisions, looking, acts, errata);
    this.jigs = new Jigs(space, revisions, proofs);
  }

  /// Makes a new workspace.
  public static Workshop create(Place place, Clock clock) throws BookException {
    return new Workshop(Workspace.create(place, clock), Stages.SHIPPED);
  }

  /// Opens a workspace for writing.
  public static Workshop open(Place place, Clock clock) throws BookException {
    return open(place, clock, Stages.SHIPPED);
  }

  /// Opens a workspace for writing, with other stages than those that ship.
  public static Workshop open(Place place, Clock clock, Stages stages) throws BookException {
    return new Workshop(Workspace.open(place, clock), stages);
  }

  /// Opens a workspace to look at it only.
  public static Workshop look(Place place) throws BookException {
    return new Workshop(Workspace.look(place), Stages.SHIPPED);
  }

  /// Makes a new workspace file.
  public static Workshop create(Path file, Clock clock) throws BookException {
    return new Workshop(Workspace.create(file, clock), Stages.SHIPPED);
  }

  /// Opens a workspace for writing.
  public static Workshop open(Path file, Clock clock) throws BookException {
    return open(file, clock, Stages.SHIPPED);
  }

  /// Opens a workspace for writing, with other stages than those that ship.
  public static Workshop open(Path file, Clock clock, Stages stages) throws BookException {
    return new Workshop(Workspace.open(file, clock), stages);
  }

  /// Opens a workspace to look at it only.
  public static Workshop look(Path file) throws BookException {
    return new Workshop(Workspace.look(file), Stages.SHIPPED);
  }

  /// The workspace below.
  public Workspace space() {
    return space;
  }

  /// The book behind it.
  public Book book() {
    return space.book();
  }

  /// The clock.
  public Clock clock() {
    return space.clock();
  }

  /// The acts that everything is logged through.
  public Acts acts() {
    return acts;
  }

  /// The lists of stages.
  public Stages stages() {
    return stages;
  }

  /// The stages with rules, companions or something that they keep.
  public List<StageWork> works() {
    return works;
  }

  /// Revisions and builds.
  public Revisions revisions() {
    return revisions;
  }

  /// Power ladders and simulated faults.
  public Ladders ladders() {
    return ladders;
  }

  /// How the maker wants the orders.
  public Wishes wishes() {
    return wishes;
  }

  /// Boards that hang together.
  public Panels panels() {
    return panels;
  }

  /// Mistakes of revisions.
  public KeptErrata errata() {
    return errata;
  }

  /// What is worked out of errata.
  public Revising revising() {
    return revising;
  }

  /// Plans of builds.
  public Plans plans() {
    return plans;
  }

  /// The shelf and everything that is worked out from it.
  public Stockroom stockroom() {
    return stockroom;
  }

  /// What the book adds to the orders.
  public Ordering ordering() {
    return ordering;
  }

  /// Paste, stencils and jars.
  public Printing printing() {
    return printing;
  }

  /// Profiles and the plate.
  public Heating heating() {
    return heating;
  }

  /// Walks and rates of inspection.
  public Looking looking() {
    return looking;
  }

  /// What is said of the lines of revisions.
  public Pulses pulses() {
    return pulses;
  }

  /// Nets as lines.
  public Lines lines() {
    return lines;
  }

  /// Captures that are kept.
  public Captures captures() {
    return captures;
  }

  /// What is said of links, operations and lines of revisions.
  public Talks talks() {
    return talks;
  }

  /// Controller boards that the maker has.
  public Modules modules() {
    return modules;
  }

  /// Scripts that are kept.
  public Scripts scripts() {
    return scripts;
  }

  /// Where faults are.
  public Traces traces() {
    return traces;
  }

  /// Jigs.
  public Jigs jigs() {
    return jigs;
  }

  /// Test plans.
  public Proofs proofs() {
    return proofs;
  }

  /// What a run of a test plan works with.
  public ProveRooms proving() {
    return new ProveRooms(acts, proofs, captures, talks, recordings, scripts);
  }

  /// Recordings of lines.
  public Recordings recordings() {
    return recordings;
  }

  /// A revision.
  public Revision revision(String design, String name) throws BookException, ActException {
    return revisions.get(design, name);
  }

  /// The power ladder of a revision: the maker's, else a proposal.
  public Ladder ladder(String design, String name) throws BookException, ActException {
    return ladders.of(design, name);
  }

  /// Keeps answers on the ladder of a revision, such as `rail BAT+=3.0..4.25`, and holds the
  /// readings that are there against it again.
  ///
  /// @return the readings whose verdict changed
  /// @throws ActException when an answer cannot be understood, or does not fit the board
  public List<Logged> say(String design, String name, List<String> lines)
      throws IOException, ActException {
    ladders.say(design, name, lines);
    return HeldAgain.readings(space, plans::of, acts, design, name);
  }

  /// Keeps a whole corrected ladder with a revision, and holds the readings that are there against
  /// it again.
  ///
  /// @return the readings whose verdict changed
  /// @throws ActException when it is no ladder, or names what the revision does not have
  public List<Logged> keepLadder(String design, String name, String json)
      throws IOException, ActException {
    ladders.keep(design, name, json);
    return HeldAgain.readings(space, plans::of, acts, design, name);
  }

  /// Makes a build whose boards hang together in panels.
  ///
  /// @param boards 1...1000
  /// @param variant one that the bill speaks of, empty for the bill as it is
  /// @param panel boards that hang together until their paste is melted, 1 when none do
  /// @throws ActException when a value is out of its range, or there is no such variant
  public Build makeBuild(
      String design,
      String name,
      int boards,
      Method method,
      Alloy alloy,
      String prefix,
      String variant,
      int panel)
      throws BookException, ActException {
    if (panel < 1 || panel > boards) {
      throw new ActException(
          "a panel has 1 board to as many as the build, " + boards + "; found " + panel);
    }
    // before the build, so that there is none whose panel is not known
    panels.keep(book().builds().stream().mapToLong(Build::id).max().orElse(0) + 1, panel);
    return revisions.build(design, name, boards, method, alloy, prefix, variant);
  }

  /// The build with this number, or the latest when none is asked for.
  public Build build(Optional<Long> id) throws BookException, ActException {
    return space.build(id);
  }

  /// The build that a board belongs to.
  public Build buildOf(String board) throws BookException, ActException {
    return space.buildOf(board);
  }

  /// Everything planned for a build.
  public Plan plan(Build build) throws BookException, ActException {
    return plans.of(build);
  }

  /// The entries of a board, oldest first.
  public List<Logged> entries(String board) throws BookException {
    return space.entries(board);
  }

  /// The state of a board, folded from its entries.
  public BoardState state(String board) throws BookException {
    return space.state(board);
  }

  /// Where a board stands.
  public Standing standing(String board) throws BookException, ActException {
    return Standing.of(state(board), plan(buildOf(board)), stages.progress());
  }

  /// The tape of a plan: it knows the codes of the bill and of the shelf, jars and rules.
  public Tape tape(Plan plan) throws BookException {
    return new Tape(
        plan,
        stages.verbs(),
        new Tape.Known(
            stockroom.codes(), printing.shelved(), acts.rules().stream().map(Rule::key).toList()));
  }

  /// Logs a line as it is typed on the tape.
  ///
  /// @throws ActException when the line is not finished or cannot be right
  public Outcome type(String board, String line) throws IOException, ActException {
    return acts.log(board, meant(board, line));
  }

  /// Logs a line as it was typed at another time, for replaying a script.
  ///
  /// @throws ActException when the line is not finished or cannot be right
  public Outcome type(String board, String line, OffsetDateTime at)
      throws IOException, ActException {
    return acts.log(board, meant(board, line), at);
  }

  /// The entries that a line stands for.
  ///
  /// @throws ActException when the line is not finished or cannot be right
  public List<Entry> meant(String board, String line) throws IOException, ActException {
    Tape tape = tape(plan(buildOf(board)));
    return switch (tape.understand(line, state(board), entries(board))) {
      case Meaning.Ready r -> r.entries();
      case Meaning.Unfinished u ->
          throw new ActException("the line is not finished, expected: " + u.hint());
      case Meaning.Wrong x -> throw new ActException(x.why());
    };
  }

  /// Logs an act.
  ///
  /// @param board serial, empty for what belongs to no board
  public Outcome log(String board, List<? extends Entry> entries) throws IOException, ActException {
    return acts.log(board, entries);
  }

  /// Why an act would be refused, empty when it would be done.
  public Optional<Refusal> refusal(String board, List<? extends Entry> entries)
      throws IOException, ActException {
    return acts.refusal(board, entries);
  }

  @Override
  public void close() throws BookException {
    space.close();
  }
}
