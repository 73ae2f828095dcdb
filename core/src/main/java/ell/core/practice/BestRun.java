package ell.core.practice;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.Fault;
import ell.core.trace.Board;
import ell.core.trace.Choice;
import ell.core.trace.Clues;
import ell.core.trace.Finding;
import ell.core.trace.Knobs;
import ell.core.trace.Probe;
import ell.core.trace.Suspect;
import ell.core.trace.Traced;
import ell.core.trace.Tracer;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The same search by the measurements that tell most a minute: what a run is held against. The
/// board behind it is another one with the same fault, as two boards are never alike.
///
/// @param steps the measurements, in order
/// @param minutes that they take, typical
/// @param found in words: the finding, or what is likeliest when nothing would tell more
/// @param right whether that is the fault
/// @param sure whether it is a finding
/// @param begin what was not known before, bit
/// @param bound measurements that it takes at least: what was not known, by what the most telling
///   ones give on the average
public record BestRun(
    List<Step> steps,
    double minutes,
    String found,
    boolean right,
    boolean sure,
    double begin,
    double bound) {
  private static final int MOST = 30;

  /// A measurement that is expected to tell less is not made.
  private static final double WORTH = 0.03;

  private static final double POWER_ON = 0.7;
  private static final double POWER_OFF = 0.6;

  public BestRun {
    steps = List.copyOf(steps);
  }

  /// One measurement.
  ///
  /// @param line of the tape
  /// @param showed what came out, in words
  /// @param bits that were known more after it
  public record Step(String line, String showed, double minutes, double bits) {}

  /// Makes it.
  ///
  /// @param tracer of the board; what it has worked out serves the next run too
  /// @param symptom what was known at first
  public static BestRun of(Tracer tracer, Fault fault, Optional<Entry> symptom, long seed) {
    Board board = tracer.board();
    Fault steady = fault instanceof Fault.Sometimes(double _, Fault g) ? g : fault;
    HiddenBoard hidden = new HiddenBoard(board.revision(), board.ladder(), List.of(steady), seed);
    List<Logged> log = new ArrayList<>();
    symptom.ifPresent(e -> log.add(logged(log, e)));
    List<Step> steps = new ArrayList<>();
    double minutes = 0;
    double begin = -1;
    double told = 0;
    boolean powered = false;
    Traced t = null;
    while (steps.size() < MOST) {
      double before = t == null ? -1 : t.entropy();
      t = tracer.trace(Clues.of(board, BoardState.of("x", log)), Map.of(), Map.of(), 30);
      if (begin < 0) {
        begin = t.entropy();
      } else {
        steps.set(steps.size() - 1, known(steps.getLast(), before - t.entropy()));
      }
      if (t.finding().isPresent()) {
        break;
      }
      // what no model of a board can answer (what a chip says) is left to real ones
      Choice c = null;
      List<Entry> e = List.of();
      for (Choice one : t.next()) {
        e = one.information() < WORTH ? List.of() : hidden.made(one.probe());
        if (!e.isEmpty()) {
          c = one;
          break;
        }
      }
      if (c == null) {
        break;
      }
      told += t.next().stream().mapToDouble(Choice::information).max().orElse(0);
      double takes = board.minutes(c.probe());
      if (c.power() != powered && c.probe().kind() != Probe.Kind.LOOK) {
        takes += c.power() ? POWER_ON : POWER_OFF;
        powered = c.power();
        log.add(logged(log, powered ? on(board) : Entry.Supply.off("")));
      }
      minutes += takes;
      e.forEach(one -> log.add(logged(log, one)));
      String showed = String.join(", ", e.stream().map(EntryWords::of).toList());
      steps.add(new Step(c.probe().line(), showed, takes, 0));
    }
    // where nothing would tell more, the likeliest is what one would mend first
    Traced last = t;
    Optional<Suspect> likeliest =
        last.finding()
            .map(Finding::suspect)
            .or(() -> last.suspects().stream().flatMap(r -> r.suspects().stream()).findFirst());
    int n = steps.size();
    return new BestRun(
        steps,
        minutes,
        likeliest.map(Suspect::words).orElse(""),
        likeliest.map(s -> new SameFault(board.revision()).same(s.fault(), fault)).orElse(false),
        last.finding().isPresent(),
        begin,
        told > 0 ? Math.min(n, begin / (told / n)) : 0);
  }

  private static Step known(Step s, double bits) {
    return new Step(s.line, s.showed, s.minutes, bits);
  }

  private static Logged logged(List<Logged> log, Entry e) {
    return new Logged(
        log.size() + 1, OffsetDateTime.of(2026, 1, 1, 0, 0, 0, 0, ZoneOffset.UTC), "x", e);
  }

  private static Entry on(Board board) {
    Knobs usual = Knobs.usual(board.ladder());
    return new Entry.Supply(
        true,
        usual.volts().stream().mapToDouble(x -> x).max().orElse(0),
        usual.limits().stream().mapToDouble(x -> x).max().orElse(1),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        "for a measurement");
  }
}
