package ell.work.heat;

import ell.bench.instrument.Plate;
import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.heat.PlateSchedule;
import ell.core.heat.ProfileWindow;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.rack.Plan;
import ell.work.act.Acts;
import ell.work.act.Refusal;
import ell.work.act.RefusedException;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/// Runs a plate for a board and logs what came of it: the profile, and the reflow step when the run
/// was whole. Refused before anything is heated when a rule of the work would refuse the step.
public final class PlateAct {
  private static final int LEAST_SAMPLES = 5;

  private final Acts acts;
  private final String board;
  private final Optional<Step> reflow;
  private final ProfileWindow window;
  private final PlateSchedule schedule;
  private volatile PlateDrive drive;
  private volatile boolean stopped;

  private PlateAct(
      Acts acts,
      String board,
      Optional<Step> reflow,
      ProfileWindow window,
      PlateSchedule schedule) {
    this.acts = acts;
    this.board = board;
    this.reflow = reflow;
    this.window = window;
    this.schedule = schedule;
  }

  /// How a run ended.
  ///
  /// @param entries that were logged; none when the plate was not even begun
  /// @param whole whether it ran to its end
  /// @param why in words, empty for a whole run without a word to say
  public record Ended(List<Logged> entries, boolean whole, String why) {
    public Ended {
      entries = List.copyOf(entries);
    }
  }

  /// The step whose paste is melted next, empty when there is none: the run is of a test piece
  /// then.
  public static Optional<Step> reflow(Plan plan, BoardState state) {
    return OrderFacts.of(state).next(plan.order(), Step.Action.REFLOW);
  }

  /// Prepares a run; nothing is connected yet.
  ///
  /// @throws RefusedException when the board must not be heated now, naming the rule
  public static PlateAct prepare(
      Acts acts, Heating heating, Build build, Plan plan, BoardState state, PlateSchedule schedule)
      throws IOException, ActException {
    Optional<Step> step = reflow(plan, state);
    if (step.isPresent()) {
      Optional<Refusal> no = acts.refusal(state.board(), List.of(step.get().done(0)));
      if (no.isPresent()) {
        throw new RefusedException(no.get());
      }
    }
    return new PlateAct(
        acts, state.board(), step, heating.window(Alloy.of(build.alloy())), schedule);
  }

  /// The schedule that is followed.
  public PlateSchedule schedule() {
    return schedule;
  }

  /// What is heated, in words.
  public String what() {
    return reflow.map(s -> s.side().key() + " side").orElse("a test piece");
  }

  /// The maker has lifted the board off.
  public void lifted() {
    PlateDrive d = drive;
    if (d != null) {
      d.lifted();
    }
  }

  /// Ends the run now; the heater goes off.
  public void stop() {
    stopped = true;
    PlateDrive d = drive;
    if (d != null) {
      d.stop();
    }
  }

  /// Runs; returns when the heater is off and what came of it is in the book.
  ///
  /// @param sample seconds of the plate's clock between two looks
  /// @param looks is told after each sample, on the calling thread
  /// @param pause waits a little between two looks at the plate's clock
  public Ended run(Plate plate, double sample, Consumer<PlateDrive.Look> looks, Runnable pause)
      throws IOException, ActException {
    PlateDrive d = new PlateDrive(plate, schedule, sample);
    drive = d;
    if (stopped) {
      d.stop();
    }
    PlateDrive.End end = d.run(looks, pause);
    int samples = end.log().channels().getFirst().size();
    if (samples == 0) {
      return new Ended(List.of(), false, end.why());
    }
    List<Entry> entries = new ArrayList<>();
    entries.add(
        samples >= LEAST_SAMPLES
            ? Heating.entry(
                end.log(),
                window,
                reflow.map(s -> s.side().key()).orElse(""),
                end.whole() ? "plate" : "plate, " + end.why())
            : new Entry.Note("plate run ended at once: " + end.why()));
    if (end.whole()) {
      reflow.ifPresent(s -> entries.add(s.done(0)));
    }
    return new Ended(acts.log(board, entries).orThrow(), end.whole(), end.why());
  }
}
