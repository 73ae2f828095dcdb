package ell.core.power;

import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.power.Ladder.Source;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// First power in steps: low volts with a low limit first, then up, each step held against the
/// current that the model of a healthy board predicts; one source after the other, those that came
/// before staying on. Common practice, no source.
///
/// @param rail the rail that is fed first
/// @param steps in order
/// @param limit the limit of the first source, with its working
/// @param guessed loads behind these sources that nobody said: bands that rest on them ask, and
///   accuse nobody
/// @param left sources that are not raised, with why, a sentence each
public record PowerPlan(
    String rail,
    List<PowerStep> steps,
    LadderState limit,
    List<Ladder.Load> guessed,
    List<String> left) {
  public PowerPlan {
    steps = List.copyOf(steps);
    guessed = List.copyOf(guessed);
    left = List.copyOf(left);
  }

  /// Spread of the loads around their stated currents that is taken as healthy; typical, no source.
  public static final double LOAD_SPREAD = 0.4;

  private static final double[] FRACTIONS = {0.1, 0.25, 0.5, 0.75, 1.0};
  private static final double FLOOR_AMPS = 3e-3;

  /// Plans first power of a revision.
  ///
  /// @param state the state in which the board comes up, `boot` as a rule
  /// @return empty when the ladder has no source
  public static Optional<PowerPlan> of(Revision revision, Ladder ladder, String state) {
    if (ladder.sources().isEmpty()) {
      return Optional.empty();
    }
    BoardCircuit healthy = new BoardCircuit(revision, ladder, List.of());
    Ascent ascent = new Ascent(healthy, state, 1 + LOAD_SPREAD);
    List<PowerStep> steps = new ArrayList<>();
    List<String> left = new ArrayList<>();
    List<Source> on = new ArrayList<>();
    Source first = ladder.sources().getFirst();
    for (Source s : ladder.sources()) {
      if (s != first && !ladder.raises(s)) {
        left.add(
            s.rail()
                + " is not raised: nothing says its volts; say it, ladder WS --rail "
                + s.rail()
                + "=VOLTS");
        continue;
      }
      steps.addAll(climb(ladder, healthy, ascent, state, s, on));
      on.add(s);
    }
    LadderState at = LadderState.of(ladder, state);
    return Optional.of(new PowerPlan(first.rail(), steps, at, ladder.guessedLoads(on), left));
  }

  private static List<PowerStep> climb(
      Ladder ladder,
      BoardCircuit healthy,
      Ascent ascent,
      String state,
      Source source,
      List<Source> on) {
    String supply = BoardCircuit.supply(ladder.sources().indexOf(source));
    double expected = LadderState.limit(ladder, state, source).limit();
    List<Limits> bands = new ArrayList<>();
    List<Double> rests = new ArrayList<>();
    List<Boolean> known = new ArrayList<>();
    for (double f : FRACTIONS) {
      double v = source.volts() * f;
      Operating least = fed(healthy, ladder, state, 1 - LOAD_SPREAD, source, v, on);
      Operating most = fed(healthy, ladder, state, 1 + LOAD_SPREAD, source, v, on);
      boolean settled = least.settled() && most.settled();
      double a = settled ? least.through(supply) : 0;
      double b = settled ? most.through(supply) : expected;
      known.add(settled);
      rests.add(b);
      bands.add(
          new Limits(
              Math.max(0, Math.min(a, b) * 0.9 - FLOOR_AMPS), Math.max(a, b) * 1.1 + FLOOR_AMPS));
    }
    // a board may draw its most before it has its full volts, as a converter does that just starts
    double most = bands.stream().mapToDouble(Limits::high).max().orElse(0);
    double full = Math.max(expected, enough(most, source));
    List<PowerStep> steps = new ArrayList<>();
    for (int i = 0; i < FRACTIONS.length; i++) {
      double v = source.volts() * FRACTIONS[i];
      double least = Math.min(full, Supplies.roundUp(bands.get(i).high() * 1.5, 0.01));
      Ascent.Stage stage = ascent.next(supply, v, least, full, rests.get(i));
      double limit =
          FRACTIONS[i] == 1.0 ? full : Math.min(full, Supplies.roundUp(stage.limit(), 0.01));
      steps.add(
          new PowerStep(
              source.rail(),
              ladder.channel(source),
              v,
              limit,
              bands.get(i),
              stage.seconds(),
              known.get(i)));
    }
    return steps;
  }

  /// The healthy board at rest, what came before at its full volts.
  private static Operating fed(
      BoardCircuit healthy,
      Ladder ladder,
      String state,
      double load,
      Source source,
      double volts,
      List<Source> on) {
    Circuit c = healthy.powered(state, load);
    for (Source s : on) {
      c.set(BoardCircuit.supply(ladder.sources().indexOf(s)), s.volts(), NO_LIMIT, true);
    }
    c.set(BoardCircuit.supply(ladder.sources().indexOf(source)), volts, NO_LIMIT, true);
    return c.rest();
  }

  private static final double NO_LIMIT = 1000;

  /// The model sees dividers and other paths that the ladder does not list: a healthy board must
  /// not be stopped by its limit. Never above what the source bears.
  private static double enough(double most, Source source) {
    double limit = Supplies.roundUp(most * 1.2, 0.01);
    return source.limit() > 0 ? Math.min(limit, source.limit()) : limit;
  }

  /// What a supply current says about a stage.
  public enum Finding {
    /// Inside the band.
    AS_PREDICTED,
    /// The supply holds its limit: a short, or far too much load.
    AT_LIMIT,
    /// Comes and goes: something starts, pulls too much, stops, and starts again.
    PULSING,
    /// More than the band allows.
    TOO_MUCH,
    /// Less than the band allows: something is not connected or does not start.
    TOO_LITTLE,
    /// Still rising after it should have settled.
    RISING
  }

  /// Share of a stage's samples in which capacitors may still be charging; typical, no source.
  private static final double CHARGING = 0.25;

  /// A current whose looks differ by more than this share of the greatest comes and goes; typical,
  /// no source.
  private static final double PULSES = 0.5;

  /// It goes, comes and goes again.
  private static final int CHANGES = 3;

  /// How often looks in their order pass some current.
  private static int changes(List<Double> amps, double middle) {
    int n = 0;
    for (int i = 1; i < amps.size(); i++) {
      n += amps.get(i) > middle != amps.get(i - 1) > middle ? 1 : 0;
    }
    return n;
  }

  /// From this share of its limit on a supply holds it.
  public static final double AT_LIMIT = 0.98;

  /// Judges the samples of one stage, oldest first, at least one: every one after the first quarter
  /// is held against limit and band, and their course over the second half.
  ///
  /// @param amps measured supply current
  public static Finding judge(PowerStep step, List<Double> amps) {
    int charging = Math.min(amps.size() - 1, (int) Math.ceil(amps.size() * CHARGING));
    List<Double> settled = amps.subList(charging, amps.size());
    double most = settled.stream().mapToDouble(a -> a).max().orElseThrow();
    double least = settled.stream().mapToDouble(a -> a).min().orElseThrow();
    if (most >= AT_LIMIT * step.limit()) {
      return Finding.AT_LIMIT;
    }
    boolean outside = most > step.band().high() || least < step.band().low();
    boolean far = most - least > Math.max(PULSES * most, 2 * FLOOR_AMPS);
    if (outside && far && changes(settled, (most + least) / 2) >= CHANGES) {
      return Finding.PULSING;
    }
    if (most > step.band().high()) {
      return Finding.TOO_MUCH;
    }
    // where nothing need flow, a hair below zero is the supply's own noise
    if (step.band().low() > 0 && least < step.band().low()) {
      return Finding.TOO_LITTLE;
    }
    double last = amps.getLast();
    double before = amps.get(amps.size() / 2);
    return last - before > 0.2 * before + 2e-3 ? Finding.RISING : Finding.AS_PREDICTED;
  }

  /// What one look at a supply says that no healthy supply can: more volts than it was set to, more
  /// amperes than its limit lets through, a current that comes back, or too few volts without being
  /// at the limit. A twentieth and a little is left to its accuracy; typical, no source.
  ///
  /// @return a sentence, empty when all may be
  ///
  /// @param charging whether the board may still be charging: volts and amperes are then not of one
  ///   moment
  public static Optional<String> impossible(
      PowerStep step, double volts, double amps, boolean charging) {
    if (!(volts <= step.volts() * 1.05 + 0.1)) {
      return Optional.of(
          String.format(
              Locale.ROOT, "the supply says %.3f V at a set point of %.3f V", volts, step.volts()));
    }
    if (!(amps <= step.limit() * 1.05 + 0.005)) {
      return Optional.of(
          String.format(
              Locale.ROOT,
              "the supply says %.3f A at a limit of %.3f A: it does not hold it",
              amps,
              step.limit()));
    }
    if (amps < -0.01 - 0.02 * step.limit()) {
      return Optional.of(
          String.format(
              Locale.ROOT, "the supply says %.3f A: current flows back out of the board", amps));
    }
    if (!charging && amps < AT_LIMIT * step.limit() && volts < 0.9 * step.volts() - 0.05) {
      return Optional.of(
          String.format(
              Locale.ROOT,
              "the supply says %.3f V at a set point of %.3f V, and is not at its limit",
              volts,
              step.volts()));
    }
    return Optional.empty();
  }

  /// Whether a stage of so many samples is past the charging of its capacitors.
  public static boolean settled(int samples, int of) {
    return samples > of * CHARGING;
  }

  /// What stands in the way of driving the supply at all: volts that nobody said.
  ///
  /// @return a sentence, empty when nothing does
  public static Optional<String> unsaid(Ladder ladder) {
    return ladder.sources().stream()
        .findFirst()
        .flatMap(s -> ladder.rail(s.rail()))
        .filter(Ladder.RailSpec::guessed)
        .map(r ->
            "how many volts does "
                + r.net()
                + " take? Nothing says it, and a guess of "
                + EngineeringNumber.print(r.volts(), Unit.VOLT)
                + " is no reason to drive a supply: ladder WS --rail "
                + r.net()
                + "=VOLTS");
  }

  /// Whether a finding rests on loads that nobody said, so that it asks and decides nothing.
  public boolean asks(Finding finding) {
    return !guessed.isEmpty() && finding != Finding.AS_PREDICTED && finding != Finding.RISING;
  }

  /// What a finding says: a meaning, or a question where it rests on guesses.
  public String says(Finding finding, PowerStep step, double amps) {
    if (!asks(finding)) {
      return meaning(finding, step);
    }
    List<String> loads = new ArrayList<>();
    for (Ladder.Load l : guessed) {
      if (loads.size() == MOST_ASKED) {
        loads.add("...");
        break;
      }
      loads.add(EngineeringNumber.print(l.in(limit.state()), Unit.AMPERE, 3) + " for " + l.part());
    }
    return EngineeringNumber.print(amps, Unit.AMPERE, 3)
        + " at "
        + EngineeringNumber.print(step.volts(), Unit.VOLT, 3)
        + (finding == Finding.AT_LIMIT
            ? ", the limit: a short, or "
            : finding == Finding.TOO_LITTLE ? ", less than taken: " : ", more than taken: ")
        + "is "
        + String.join(", ", loads)
        + " right? Nobody said it: ladder WS --load "
        + guessed.getFirst().part()
        + "=AMPS";
  }

  private static final int MOST_ASKED = 4;

  /// What a finding most likely means, and where to look. Common practice, no source.
  public static String meaning(Finding finding, PowerStep step) {
    String at = " at " + EngineeringNumber.print(step.volts(), Unit.VOLT, 3);
    return switch (finding) {
      case AS_PREDICTED -> "current as predicted" + at;
      case AT_LIMIT ->
          "at the limit"
              + at
              + ": a short on the supply rail or on one behind it; beep the rails to ground";
      case PULSING ->
          "the current comes and goes"
              + at
              + ": something starts, pulls too much and stops again, as a converter does with a short"
              + " behind it; beep the rails to ground";
      case TOO_MUCH ->
          "more current than predicted" + at + ": a load too many, a part turned, a weak bridge";
      case TOO_LITTLE ->
          "less current than predicted"
              + at
              + ": an open joint on the way in, a fuse, a regulator that does not start, or one that"
              + " starts again and again into a short";
      case RISING -> "current still rising" + at + ": something heats up or breaks down";
    };
  }
}
