package ell.work.power;

import ell.bench.Bench;
import ell.bench.instrument.Hands;
import ell.bench.instrument.Meter;
import ell.bench.instrument.Supply;
import ell.bench.link.BenchException;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.BeforePower;
import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.PowerPlan;
import ell.core.power.PowerPlan.Finding;
import ell.core.power.PowerStep;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.act.Acts;
import ell.work.act.Refusal;
import ell.work.act.RefusedException;
import ell.work.space.ActException;
import ell.work.tape.Places;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;

/// First power of one board: the supply is driven up step by step, its current held against the
/// band that a healthy board draws, then the rails are read. Any surprise, of the board, of an
/// instrument or of the disk, ends with the output off and an entry in the book.
///
/// Methods block and may be called from several threads; only one talks to the instruments at a
/// time.
public final class PowerRun implements AutoCloseable {
  private static final int SAMPLES = 8;

  /// A board has come to rest at other volts after so long; typical, no source.
  private static final long SETTLING_MILLIS = 100;

  /// Beyond its samples' own pauses a stage may take so long; at its limit a board stays no longer
  /// than the second.
  private static final long STAGE_MILLIS = 5000;

  /// How much longer than in the model a board may charge; typical, no source.
  private static final double CHARGES = 1.5;

  private static final long AT_LIMIT_MILLIS = 1000;

  /// How long a supply that is on may be silent before it is taken for lost and switched off; while
  /// it is off the bench's own time-out holds.
  private static final int PATIENCE_MILLIS = 1000;

  /// The same for a bench that lives in this program: it cannot be lost, only slow.
  private static final int OWN_PATIENCE_MILLIS = 4000;

  private final Acts acts;
  private final String board;
  private final Plan plan;
  private final Places places;
  private final PowerPlan steps;
  private final Bench bench;
  private final Watcher watcher;
  private final long sampleMillis;
  private final long began = System.nanoTime();
  private Supply supply;
  private Meter meter;
  private Hands hands;
  private PowerStep now;
  private boolean on;

  /// The last step of each output that is on, in the order in which they were raised.
  private final Map<Integer, PowerStep> raised = new LinkedHashMap<>();

  private volatile List<PowerStep> climbing;
  private final List<String> left;
  private volatile boolean stopped;
  private boolean ended;

  /// Is told what happens, on the thread on which it happens.
  public interface Watcher {
    /// A sample of the supply.
    ///
    /// @param seconds since the run began
    default void sample(double seconds, double volts, double amps, PowerStep step) {}

    /// An entry is in the book.
    default void logged(Logged entry) {}

    /// The run is over, and the output off unless it may still be on.
    ///
    /// @param mayBeOn whether the supply did not confirm that it is off: to be said in the largest
    ///   letters until it does
    default void ended(String why, boolean surprise, boolean mayBeOn) {}
  }

  /// Prepares a run; nothing is connected yet.
  ///
  /// @param sampleMillis pause between two samples, 0 or more
  /// @throws RefusedException when the board may not be powered, naming what stands in the way
  /// @throws ActException when the ladder has no source
  public PowerRun(
      Acts acts, Plan plan, String board, Bench bench, Watcher watcher, long sampleMillis)
      throws ActException, IOException {
    this.acts = acts;
    this.board = board;
    this.plan = plan;
    this.places = new Places(plan.revision(), plan.ladder());
    this.bench = bench;
    this.watcher = watcher;
    this.sampleMillis = sampleMillis;
    Optional<String> unsaid = PowerPlan.unsaid(plan.ladder());
    if (unsaid.isPresent()) {
      throw new ActException(unsaid.get());
    }
    this.steps =
        PowerPlan.of(plan.revision(), plan.ladder(), "boot")
            .orElseThrow(() ->
                new ActException(
                    "the power ladder has no source: say where power comes in, in the ladder"));
    this.climbing = steps.steps();
    this.left = new CopyOnWriteArrayList<>(steps.left());
    Optional<Refusal> no = refusal(acts, board);
    if (no.isPresent()) {
      throw new RefusedException(no.get());
    }
  }

  /// What stands between a board and power, empty when nothing does.
  public static Optional<Refusal> refusal(Acts acts, String board)
      throws ActException, IOException {
    return acts.refusal(
        board,
        List.of(
            new Entry.Supply(
                true, 0, 0, Optional.empty(), Optional.empty(), Optional.empty(), "first power")));
  }

  /// The steps that will be gone through.
  public PowerPlan steps() {
    return steps;
  }

  /// The rails that hang on what is raised: those to be read.
  public List<RailSpec> rails() {
    List<String> fed = climbing.stream().map(PowerStep::rail).toList();
    return plan.ladder()
        .below(plan.ladder().sources().stream().filter(s -> fed.contains(s.rail())).toList());
  }

  /// Sources that are not raised, with why, a sentence each.
  public List<String> left() {
    return List.copyOf(left);
  }

  /// Whether the output is on.
  public synchronized boolean on() {
    return on;
  }

  /// Asks a climb that is under way to stop; the output goes off. Returns at once.
  public void stop() {
    stopped = true;
  }

  /// Connects, and goes up step by step. The output stays on at the end when all is as predicted.
  ///
  /// @return true when the board is on and as predicted
  /// @throws IOException when the book could not be written; the output is off then
  public boolean climb() throws IOException {
    try {
      connect();
      for (PowerStep step : climbing) {
        if (!step(step)) {
          return false;
        }
      }
      return true;
    } catch (BenchException e) {
      surprise(e.getMessage());
      return false;
    } catch (IOException | RuntimeException e) {
      Optional<String> problem = switchOff();
      finish("the book could not be written: " + e.getMessage(), true, problem);
      throw e;
    }
  }

  private synchronized void connect() throws IOException {
    hands = bench.open(Hands.KIND).orElse(null);
    if (hands != null) {
      hands.lay(board);
    }
    supply = bench.guard(Supply.KIND);
    ready();
    meter = bench.open(Meter.KIND).orElse(null);
    if (meter != null) {
      meter.clear();
    }
    asked();
  }

  /// What nobody said to be so before first power is taken as so, and written.
  private void asked() throws IOException {
    BoardState state = acts.state(board);
    if (BeforePower.over(plan.ladder(), state)) {
      return;
    }
    List<String> open =
        BeforePower.of(plan.revision(), plan.ladder(), state).stream()
            .filter(i -> i.state() == BeforePower.State.OPEN)
            .map(BeforePower.Item::says)
            .toList();
    if (!open.isEmpty()) {
      log(new Entry.Note("taken as so before first power: " + String.join("; ", open)));
    }
  }

  /// All outputs off that will be used. A supply that has the first only raises what hangs on it.
  private void ready() throws BenchException {
    List<Integer> outputs = climbing.stream().map(PowerStep::output).distinct().toList();
    try {
      supply.outputs(outputs);
      supply.makeSafe();
    } catch (BenchException e) {
      if (!e.refused() || !outputs.contains(1) || outputs.size() == 1) {
        throw e;
      }
      supply.outputs(List.of(1));
      supply.makeSafe();
      for (PowerStep s : climbing) {
        if (s.output() != 1 && left.stream().noneMatch(l -> l.startsWith(s.rail() + " "))) {
          left.add(
              s.rail()
                  + " is not raised: the supply has no output "
                  + s.output()
                  + "; raise it by hand, and read it");
        }
      }
      climbing = climbing.stream().filter(s -> s.output() == 1).toList();
    }
  }

  private boolean step(PowerStep step) throws IOException {
    synchronized (this) {
      if (stopped || ended) {
        offNow("stopped by hand");
        return false;
      }
      if (now == null || now.output() != step.output()) {
        supply.select(step.output());
      }
      now = step;
      supply.set(step.volts(), step.limit());
      if (raised.put(step.output(), step) == null) {
        // in the book before it happens: whatever becomes of this program, the book says it
        log(
            new Entry.Supply(
                true,
                false,
                step.volts(),
                step.limit(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                "first power on " + step.rail() + ", " + bench.name()));
        on = true; // from here on a surprise must switch off, whatever the supply answers
        int patience = bench.guarded() ? PATIENCE_MILLIS : OWN_PATIENCE_MILLIS;
        supply.patience(Math.min(bench.timeoutMillis(), patience));
        supply.output(true);
      }
    }
    List<Double> amps = new ArrayList<>();
    long began = System.nanoTime();
    long charges = (long) (CHARGES * step.charging() * 1000);
    while (amps.size() < SAMPLES) {
      pause();
      if (stopped) {
        synchronized (this) {
          offNow("stopped by hand");
        }
        return false;
      }
      boolean charging = (System.nanoTime() - began) / 1_000_000 < charges;
      double now = sample(charging || !PowerPlan.settled(amps.size() + 1, SAMPLES));
      long took = (System.nanoTime() - began) / 1_000_000;
      if (charging) {
        continue; // a healthy board draws what it charges with for so long
      }
      amps.add(now);
      boolean settled = PowerPlan.settled(amps.size(), SAMPLES) || took > charges + AT_LIMIT_MILLIS;
      if (settled && amps.getLast() >= PowerPlan.AT_LIMIT * step.limit()) {
        return judged(step, List.of(amps.getLast()));
      }
      if (took > charges + STAGE_MILLIS + SAMPLES * sampleMillis) {
        throw new BenchException(
            "the supply is too slow to be watched: "
                + amps.size()
                + " of "
                + SAMPLES
                + " looks in "
                + took / 1000
                + " s");
      }
    }
    return judged(step, amps);
  }

  private synchronized double sample(boolean charging) throws BenchException {
    double volts = supply.volts();
    double amps = supply.amps();
    watcher.sample((System.nanoTime() - began) / 1e9, volts, amps, now);
    Optional<String> impossible = PowerPlan.impossible(now, volts, amps, charging);
    if (impossible.isPresent()) {
      throw new BenchException(impossible.get());
    }
    return amps;
  }

  /// What was raised before must bear what is raised now: each is looked at once.
  private synchronized void others() throws BenchException {
    PowerStep current = now;
    for (PowerStep s : raised.values()) {
      if (s.output() != current.output()) {
        supply.select(s.output());
        if (supply.amps() >= PowerPlan.AT_LIMIT * s.limit()) {
          throw new BenchException(
              s.rail() + " went to its limit while " + current.rail() + " was raised");
        }
      }
    }
    if (raised.size() > 1) {
      supply.select(current.output());
    }
  }

  private synchronized boolean judged(PowerStep step, List<Double> amps) throws IOException {
    others();
    Finding finding = PowerPlan.judge(step, amps);
    boolean good = finding == Finding.AS_PREDICTED;
    String why = steps.says(finding, step, amps.getLast());
    boolean asks = steps.asks(finding);
    // too little current harms nothing; the rails will tell where it is missing
    boolean goOn = good || finding == Finding.TOO_LITTLE && amps.getLast() > 1e-3;
    Optional<String> problem = goOn ? Optional.empty() : switchOff();
    Entry.Supply off = SupplyOff.entry(problem, step.volts(), step.limit(), why, true);
    log(
        new Entry.Supply(
            goOn,
            off.sure(),
            step.volts(),
            step.limit(),
            Optional.of(Math.round(amps.getLast() * 1e5) / 1e5),
            Optional.of(step.band()),
            // a band that rests on guesses decides nothing
            asks ? Optional.empty() : Optional.of(good ? Verdict.WITHIN : Verdict.OUT),
            off.why()));
    if (!goOn) {
      finish(why, true, problem);
    }
    return goOn;
  }

  private void pause() throws BenchException {
    try {
      Thread.sleep(sampleMillis);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new BenchException("interrupted", e);
    }
  }

  /// Looks at the supply once while the board is on; to be called about every second.
  ///
  /// @return false when the run is over
  public boolean watch() throws IOException {
    synchronized (this) {
      if (!on) {
        return false;
      }
      if (stopped) {
        offNow("stopped by hand");
        return false;
      }
      try {
        double amps = sample(false);
        if (amps >= PowerPlan.AT_LIMIT * now.limit()) {
          surprise("the supply went to its limit while the board was on");
        } else if (amps > now.band().high() * 1.5) {
          surprise("the current rose well above what was predicted while the board was on");
        } else {
          others();
        }
      } catch (BenchException e) {
        surprise(e.getMessage());
      }
      return on;
    }
  }

  /// Sets a source that is up to other volts, within what the ladder says that it may give. What it
  /// draws then is not known better than that a board draws the same power, or the same current.
  ///
  /// @return false when the run ended over it
  /// @throws ActException when the source is not up, or does not bear these volts; nothing is
  ///   changed then
  public boolean level(String rail, double volts) throws IOException, ActException {
    PowerStep was;
    Ladder.Source source =
        plan.ladder().sources().stream()
            .filter(s -> s.rail().equals(rail))
            .findFirst()
            .orElseThrow(() -> new ActException(rail + " is no source of the ladder"));
    synchronized (this) {
      was =
          raised.values().stream()
              .filter(s -> s.rail().equals(rail))
              .findFirst()
              .filter(_ -> on)
              .orElseThrow(() -> new ActException(rail + " is not up"));
      if (volts < source.low() || volts > source.high()) {
        throw new ActException(
            rail + " bears " + source.low() + "..." + source.high() + " V, not " + volts + " V");
      }
      double more = Math.max(1, was.volts() / volts);
      double less = Math.min(1, was.volts() / volts);
      double limit = was.limit() * more;
      PowerStep next =
          new PowerStep(
              was.rail(),
              was.output(),
              volts,
              source.limit() > 0 ? Math.min(limit, source.limit()) : limit,
              new ell.core.quantity.Limits(was.band().low() * less, was.band().high() * more),
              was.charging(),
              was.known());
      try {
        if (now.output() != next.output()) {
          supply.select(next.output());
        }
        now = next;
        raised.put(next.output(), next);
        supply.set(volts, next.limit());
      } catch (BenchException e) {
        surprise(e.getMessage());
        return false;
      }
    }
    try {
      Thread.sleep(Math.max(SETTLING_MILLIS, sampleMillis));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    return watch();
  }

  /// Whether there is a meter that reads the rails.
  public synchronized boolean reads() {
    return meter != null;
  }

  /// Reads a rail with the meter and logs it; on a simulated bench the hands hold the tips.
  ///
  /// @return the entry, empty when the run ended over it
  public synchronized Optional<Logged> read(RailSpec rail) throws IOException {
    return volts(rail.net(), rail.readAt().isEmpty() ? rail.net() : rail.readAt());
  }

  /// Reads the volts of a place with the meter and logs them; on a simulated bench the hands hold
  /// the tips.
  ///
  /// @param place as it is logged
  /// @param tip where it is touched
  /// @return the entry, empty when the run ended over it
  public synchronized Optional<Logged> volts(String place, String tip) throws IOException {
    if (!on || meter == null) {
      return Optional.empty();
    }
    try {
      if (hands != null) {
        hands.touch(tip, Ladder.tipOnGround(plan.revision(), plan.ladder()));
      }
      double volts = meter.dcVolts();
      return Optional.of(
          log(
              Readings.of(
                  places,
                  place,
                  new Quantity(round(volts), Unit.VOLT),
                  "meter on the " + bench.name() + " at " + tip)));
    } catch (BenchException e) {
      surprise(e.getMessage());
      return Optional.empty();
    }
  }

  /// Reads what a source gives, at the supply's own display, and logs it.
  ///
  /// @return the entry, empty when the run ended over it, or does not feed that source
  public synchronized Optional<Logged> amps(String rail) throws IOException {
    Optional<PowerStep> step =
        raised.values().stream().filter(s -> s.rail().equals(rail)).findFirst();
    if (!on || step.isEmpty()) {
      return Optional.empty();
    }
    try {
      supply.select(step.get().output());
      double amps = supply.amps();
      supply.select(now.output());
      return Optional.of(
          log(
              Readings.of(
                  places, rail, new Quantity(amps, Unit.AMPERE), "supply of the " + bench.name())));
    } catch (BenchException e) {
      surprise(e.getMessage());
      return Optional.empty();
    }
  }

  /// Feels how warm a part is and logs it, where the bench has hands; on a real one the maker's do.
  ///
  /// @return the entry, empty when there are no hands or the run ended over it
  public synchronized Optional<Logged> feel(String part) throws IOException {
    if (!on || hands == null) {
      return Optional.empty();
    }
    try {
      double celsius = Math.round(hands.celsius(part));
      return Optional.of(
          log(
              Readings.of(
                  places,
                  part,
                  new Quantity(celsius, Unit.CELSIUS),
                  "felt on the " + bench.name())));
    } catch (BenchException e) {
      surprise(e.getMessage());
      return Optional.empty();
    }
  }

  /// A hand-held meter shows so many digits and no more.
  private static double round(double volts) {
    double step = Math.abs(volts) < 6 ? 1e-3 : 1e-2;
    return Math.round(volts / step) / Math.round(1 / step) == 0 && Math.abs(volts) < step / 2
        ? 0
        : Double.parseDouble(
            String.format(java.util.Locale.ROOT, Math.abs(volts) < 6 ? "%.3f" : "%.2f", volts));
  }

  /// Switches off and ends the run.
  public synchronized void off(String why) throws IOException {
    if (!ended) {
      offNow(why);
    }
  }

  private void offNow(String why) throws IOException {
    ended(why, false);
  }

  private synchronized void surprise(String why) throws IOException {
    ended(why, true);
  }

  private void ended(String why, boolean surprise) throws IOException {
    Optional<String> problem = switchOff();
    try {
      log(
          SupplyOff.entry(
              problem,
              now == null ? 0 : now.volts(),
              now == null ? 0 : now.limit(),
              why,
              surprise));
    } finally {
      finish(why, surprise, problem);
    }
  }

  /// Off by the connection that stands, or by a new one when that is gone.
  ///
  /// @return empty when the supply confirmed it, or was never reached
  private Optional<String> switchOff() {
    on = false;
    if (supply == null) {
      return Optional.empty(); // it was never reached, so it was never switched on
    }
    SupplyOff.Ended off = SupplyOff.tell(supply, bench, plan.ladder().outputs());
    supply = off.supply();
    return off.problem();
  }

  private Logged log(Entry entry) throws IOException {
    try {
      Logged l = acts.log(board, List.of(entry)).orThrow().getLast();
      watcher.logged(l);
      return l;
    } catch (ActException e) {
      throw new IOException(e.getMessage(), e);
    }
  }

  private void finish(String why, boolean surprise, Optional<String> problem) {
    if (!ended) {
      ended = true;
      close();
      watcher.ended(
          problem.map(p -> why + "; " + SupplyOff.MAY_BE_ON + " (" + p + ")").orElse(why),
          surprise || problem.isPresent(),
          problem.isPresent());
    }
  }

  /// Ends the run, switching off if it is on.
  @Override
  public synchronized void close() {
    if (on) {
      try {
        offNow("the program ends");
      } catch (IOException e) {
        switchOff();
      }
    }
    if (supply != null) {
      supply.close();
    }
    if (meter != null) {
      meter.close();
    }
    if (hands != null) {
      hands.close();
    }
  }
}
