package ell.core.power;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;

/// A cell that is being charged, as its readings show it: in which phase it is, how much is in it,
/// how long it will take, and what is not as it should be. Its phases and limits are common
/// practice, no source: a tenth of the current below the volts of an empty cell, the steady current
/// up to the full volts, those volts while the current falls, the end at a tenth of it.
///
/// @param phase after the last sample
/// @param share of its charge, 0...1, by its own volts behind its resistance; empty where the
///   current is not known
/// @param left seconds to the end, as long as it charges as expected
/// @param stop what demands that charging stops, a sentence each
/// @param mind what is odd and demands nothing
public record ChargeWatch(
    Phase phase,
    Optional<Double> share,
    Optional<Double> left,
    List<String> stop,
    List<String> mind) {
  /// Full volts may be passed by so much by a charger that is in order, V; typical, no source.
  private static final double OVER = 0.05;

  /// So far below the empty volts a lithium cell is damaged, V; typical, no source.
  private static final double DEEP = 0.5;

  private static final double NEAR_FULL = 0.03;
  private static final double FELL = 0.03;
  private static final double ROSE = 0.005;
  private static final Duration PAUSE = Duration.ofHours(2);
  private static final double MORE = 1.15;
  private static final double STEADY = 0.7;
  private static final double LONGER = 1.4;
  private static final double GENTLE = 0.25;

  /// Where a charge is.
  public enum Phase {
    /// Nothing was read yet, or volts alone that do not rise.
    UNKNOWN("not known whether it charges"),
    /// Gently, until it has the volts of an empty cell.
    GENTLE("a gentle current first"),
    /// With the steady current.
    STEADY("steady current"),
    /// At the full volts, the current falling.
    FALLING("full volts, current falling"),
    /// Done.
    END("full"),
    /// Nothing goes in.
    NOT("does not charge");

    private final String words;

    Phase(String words) {
      this.words = words;
    }

    /// In words.
    public String words() {
      return words;
    }
  }

  /// One look.
  ///
  /// @param seconds since the first
  /// @param volts at the cell's terminals
  /// @param amps into it, empty where nobody read them
  public record Sample(double seconds, double volts, Optional<Double> amps) {}

  public ChargeWatch {
    stop = List.copyOf(stop);
    mind = List.copyOf(mind);
  }

  /// What the book has of a cell's last charge: each reading of volts at its places, with the
  /// current that was read there since the one before. A long pause, or the supply going off, ends
  /// a charge.
  ///
  /// @param places under which the cell is read: its part, its rail, its joints
  public static List<Sample> samples(BoardState state, Collection<String> places) {
    List<Sample> all = new ArrayList<>();
    Optional<Double> amps = Optional.empty();
    Logged first = null;
    Logged last = null;
    for (Logged l : state.standing()) {
      if (l.entry() instanceof Entry.Supply s && !s.on()) {
        all.clear(); // what was read at first power is no charge
        amps = Optional.empty();
      }
      if (!(l.entry() instanceof Entry.Reading r) || !places.contains(r.place())) {
        continue;
      }
      if (r.unit() == Unit.AMPERE) {
        amps = Optional.of(r.value());
        if (!all.isEmpty() && all.getLast().amps().isEmpty()) {
          Sample then = all.removeLast();
          all.add(new Sample(then.seconds(), then.volts(), amps)); // volts first, then amperes
          amps = Optional.empty();
        }
      } else if (r.unit() == Unit.VOLT) {
        if (all.isEmpty() || Duration.between(last.at(), l.at()).compareTo(PAUSE) > 0) {
          all.clear();
          first = l;
        }
        last = l;
        all.add(new Sample(Duration.between(first.at(), l.at()).toMillis() / 1e3, r.value(), amps));
        amps = Optional.empty();
      }
    }
    return all;
  }

  /// What a cell bears, V.
  public static Limits bears(Charging expected) {
    return new Limits(expected.empty() - DEEP, expected.full() + OVER);
  }

  /// Judges some samples.
  ///
  /// @param samples in their order
  /// @param expected how it should charge
  public static ChargeWatch of(List<Sample> samples, Charging expected) {
    List<String> stop = new ArrayList<>();
    List<String> mind = new ArrayList<>();
    if (samples.isEmpty()) {
      return new ChargeWatch(Phase.UNKNOWN, Optional.empty(), Optional.empty(), stop, mind);
    }
    Sample last = samples.getLast();
    double v = last.volts();
    if (v > expected.full() + OVER) {
      stop.add(
          volts(v)
              + " at a cell that bears "
              + volts(expected.full())
              + ": take it off the charger");
    }
    if (v < expected.empty() - DEEP) {
      stop.add(volts(v) + " is far below an empty cell: damaged or turned, its data sheet decides");
    }
    last.amps()
        .filter(i -> i > MORE * expected.current())
        .ifPresent(
            i -> stop.add(amps(i) + " go into a cell that is to take " + amps(expected.current())));
    if (v < expected.empty()) {
      last.amps()
          .filter(i -> i > GENTLE * expected.current())
          .ifPresent(i -> mind.add(amps(i) + " into an empty cell: a tenth is gentle"));
    }
    boolean rises = v > samples.getFirst().volts() + ROSE;
    Phase phase = last.amps().isEmpty() && !rises ? Phase.UNKNOWN : phase(last, expected);
    if (phase == Phase.NOT) {
      mind.add("no current goes in although it is not full: cable, charger, fuse");
    }
    fell(samples, phase, mind);
    Optional<Double> share = last.amps().map(i -> share(v, i, expected));
    tooLong(samples, expected, phase, stop);
    Optional<Double> left =
        switch (phase) {
          case STEADY, FALLING -> share.map(s -> expected.steady(s) + expected.falling(s));
          case END -> Optional.of(0.0);
          default -> Optional.empty();
        };
    return new ChargeWatch(phase, share, left, stop, mind);
  }

  /// In a line: the phase, how much is in it, how long it will take, and what demands a stop.
  public String words() {
    return (stop.isEmpty() ? "" : "STOP: " + String.join("; ", stop) + ". ")
        + phase.words()
        + share.map(s -> ", " + Math.round(100 * s) + " % in it").orElse("")
        + left.filter(s -> s > 0).map(s -> ", about " + minutes(s) + " to go").orElse("")
        + (mind.isEmpty() ? "" : "; " + String.join("; ", mind));
  }

  private static Phase phase(Sample s, Charging c) {
    boolean full = s.volts() >= c.full() - NEAR_FULL;
    if (s.amps().isEmpty()) {
      return full ? Phase.FALLING : s.volts() < c.empty() ? Phase.GENTLE : Phase.STEADY;
    }
    double i = s.amps().get();
    if (full) {
      return i <= c.end() ? Phase.END : Phase.FALLING;
    }
    if (i < c.end() / 2) {
      return Phase.NOT;
    }
    return s.volts() < c.empty() && i < STEADY * c.current() ? Phase.GENTLE : Phase.STEADY;
  }

  private static double share(double volts, double amps, Charging c) {
    return Math.clamp((volts - amps * c.ohms() - c.empty()) / (c.full() - c.empty()), 0, 1);
  }

  private static void fell(List<Sample> samples, Phase phase, List<String> mind) {
    if (samples.size() < 2 || phase == Phase.END) {
      return;
    }
    double before = samples.get(samples.size() - 2).volts();
    if (before - samples.getLast().volts() > FELL) {
      mind.add(
          "it fell from "
              + volts(before)
              + " to "
              + volts(samples.getLast().volts())
              + " while it charges: a contact, or the charger gave up");
    }
  }

  /// What a cell takes in longer than it holds goes somewhere else.
  private static void tooLong(List<Sample> samples, Charging c, Phase phase, List<String> stop) {
    Sample first = samples.getFirst();
    double since = samples.getLast().seconds() - first.seconds();
    double began = first.amps().map(i -> share(first.volts(), i, c)).orElse(0.0);
    double steady = c.steady(began);
    double all = steady + c.falling(began);
    if (phase == Phase.STEADY && since > LONGER * steady) {
      stop.add(
          "the steady current has gone on for "
              + minutes(since)
              + " where "
              + minutes(steady)
              + " fill the cell: it leaks, or holds more or takes less than was said");
    } else if (phase == Phase.FALLING && samples.getLast().amps().isPresent() && since > 2 * all) {
      stop.add(
          "the current has not ended after "
              + minutes(since)
              + " where "
              + minutes(all)
              + " are enough: it leaks, or something else is fed");
    }
  }

  private static String volts(double v) {
    return EngineeringNumber.print(v, Unit.VOLT, 3);
  }

  private static String amps(double i) {
    return EngineeringNumber.print(i, Unit.AMPERE, 3);
  }

  private static String minutes(double s) {
    return s < 90 ? Math.round(s) + " s" : Math.round(s / 60) + " min";
  }
}
