package ell.work.trace;

import ell.bench.Bench;
import ell.bench.instrument.Hands;
import ell.bench.instrument.Meter;
import ell.bench.link.BenchException;
import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.beep.ShortPlaces;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.core.trace.Probe;
import ell.work.act.Acts;
import ell.work.act.Refusal;
import ell.work.power.PowerRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Makes one measurement of a search with the instruments: ohms on a board without power, volts and
/// amperes on one that is powered by the rules of first power and switched off again. On a
/// simulated bench the hands hold the tips.
public final class TraceRun {
  private static final int TICK_MILLIS = 40;

  /// Once a board has power, so many more are measured with it.
  private static final int WITH_IT = 5;

  private final Acts acts;
  private final Plan plan;
  private final String board;
  private final Bench bench;

  /// Over a bench.
  public TraceRun(Acts acts, Plan plan, String board, Bench bench) {
    this.acts = acts;
    this.plan = plan;
    this.board = board;
    this.bench = bench;
  }

  /// Whether an instrument can make it: what is looked at, felt and tried, a maker types.
  public static boolean can(Probe p) {
    return switch (p.kind()) {
      case OHMS, ALONG, VOLTS, AMPS -> true;
      default -> false;
    };
  }

  /// The place of the first of some that the instruments of this bench can make; on a board that
  /// may not be powered yet the first that needs no power, where there is one.
  ///
  /// @param next best first
  /// @return -1 when there is none
  /// @throws ActException when there is no such board
  public int first(List<Probe> next) throws IOException, ActException {
    boolean barred = PowerRun.refusal(acts, board).isPresent();
    boolean fourWires = next.stream().anyMatch(p -> p.kind() == Probe.Kind.ALONG) && fourWires();
    int any = -1;
    for (int i = 0; i < next.size(); i++) {
      Probe p = next.get(i);
      if (can(p) && (fourWires || p.kind() != Probe.Kind.ALONG)) {
        if (!barred || !p.kind().power()) {
          return i;
        }
        any = any < 0 ? i : any;
      }
    }
    return any;
  }

  /// A bench without a meter says so when it measures.
  private boolean fourWires() throws BenchException {
    Optional<Meter> meter = bench.open(Meter.KIND);
    try {
      return meter.filter(m -> !m.measuresByFourWires()).isEmpty();
    } finally {
      meter.ifPresent(Meter::close);
    }
  }

  /// Makes it and logs what it shows.
  ///
  /// @return everything that was logged, the measurement last
  /// @throws ActException when it cannot be made here, or the board may not be powered
  public List<Logged> measure(Probe p) throws IOException, ActException {
    return measure(p, List.of());
  }

  /// Makes it, and others with it that need power as well, and logs what they show.
  ///
  /// @param others best first; those that no instrument shows, or that need no power, are left
  /// @return everything that was logged
  /// @throws ActException when it cannot be made here, or the board may not be powered
  public List<Logged> measure(Probe p, List<Probe> others) throws IOException, ActException {
    return switch (p.kind()) {
      case OHMS -> ohms(p);
      case ALONG -> along(p);
      case VOLTS, AMPS -> {
        List<Probe> all = new ArrayList<>(List.of(p));
        others.stream()
            .filter(o -> o.kind().power() && can(o) && !o.equals(p))
            .limit(WITH_IT)
            .forEach(all::add);
        yield powered(all);
      }
      default ->
          throw new ActException(
              "no instrument shows this: look, and type " + p.line() + " with what you see");
    };
  }

  private List<Logged> ohms(Probe p) throws IOException, ActException {
    BeepCheck c =
        BeepList.between(plan.revision(), plan.ladder(), p.a(), p.b())
            .orElseThrow(() ->
                new ActException("between " + p.a() + " and " + p.b() + " nothing is to be read"));
    Optional<Hands> hands = bench.open(Hands.KIND);
    try (Meter meter = bench.need(Meter.KIND)) {
      if (hands.isPresent()) {
        hands.get().lay(board);
        hands.get().touch(p.a(), p.b());
      }
      meter.clear();
      double ohms = meter.ohms();
      // as the tips were held, whatever joints the list would take
      Entry.Check read = c.read(ohms);
      return acts.log(
              board,
              List.of(
                  new Entry.Check(
                      read.kind(),
                      p.a(),
                      p.b(),
                      read.netA(),
                      read.netB(),
                      read.ohms(),
                      read.limits(),
                      read.verdict())))
          .orThrow();
    } finally {
      hands.ifPresent(Hands::close);
    }
  }

  /// Milliohms by four wires from each joint, all are logged or none; from the first one where a
  /// maker holds the tips.
  private List<Logged> along(Probe p) throws IOException, ActException {
    Optional<Hands> hands = bench.open(Hands.KIND);
    try (Meter meter = bench.need(Meter.KIND)) {
      List<Entry> read = new ArrayList<>();
      if (hands.isPresent()) {
        hands.get().lay(board);
      }
      meter.clear();
      for (String place : hands.isPresent() ? p.places() : p.places().subList(0, 1)) {
        if (hands.isPresent()) {
          hands.get().touch(place, p.b());
        }
        double ohms = meter.fourWires();
        if (!(ohms < ShortPlaces.MOST_OHMS)) {
          throw new ActException(
              place + " and " + p.b() + " are not joined here: the meter shows " + shown(ohms));
        }
        read.add(
            new Entry.Reading(
                place, ohms, Unit.OHM, Optional.empty(), Optional.empty(), Optional.empty(), ""));
      }
      return acts.log(board, read).orThrow();
    } finally {
      hands.ifPresent(Hands::close);
    }
  }

  private static String shown(double ohms) {
    return Double.isInfinite(ohms) ? "open" : EngineeringNumber.print(ohms, Unit.OHM, 3);
  }

  /// The board is powered once, and what else is worth it and needs power is measured with it.
  private List<Logged> powered(List<Probe> all) throws IOException, ActException {
    Optional<Refusal> no = PowerRun.refusal(acts, board);
    if (no.isPresent()) {
      throw new ActException(
          "board " + board + " may not be powered: " + no.get().why() + "; " + no.get().how());
    }
    List<Logged> logged = new ArrayList<>();
    if (bench.addresses().containsKey("hands")) {
      try (Hands hands = bench.need(Hands.KIND)) {
        hands.lay(board);
      }
    }
    try (PowerRun run =
        new PowerRun(
            acts,
            plan,
            board,
            bench,
            new PowerRun.Watcher() {
              @Override
              public void logged(Logged l) {
                logged.add(l);
              }
            },
            TICK_MILLIS)) {
      if (!run.climb()) {
        // what the supply showed before it was switched off is in the book, and says something too
        return logged;
      }
      for (Probe p : all) {
        Optional<Logged> l =
            switch (p.kind()) {
              case AMPS -> run.amps(p.a());
              case TOUCH -> run.feel(p.a());
              default -> run.volts(p.a(), p.a());
            };
        if (l.isEmpty() && !run.on()) {
          return logged;
        }
      }
      run.off("measured");
      return logged;
    }
  }
}
