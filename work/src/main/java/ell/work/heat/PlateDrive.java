package ell.work.heat;

import ell.bench.instrument.Plate;
import ell.bench.link.BenchException;
import ell.core.heat.PlateSchedule;
import ell.core.heat.ProfileLog;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;

/// Drives a plate through a schedule: sets its points in time, reads its thermocouples, says what
/// comes next, and switches off on every way out.
public final class PlateDrive {
  /// Hotter than wanted by so much ends the run, °C.
  static final double TOO_HOT = 45;

  /// A schedule is for a plate that is not warmer than this, °C.
  static final double COLD = 60;

  private static final double COOL = 60;
  private static final double LONGEST = 1800;

  /// Nobody lifts the board for so long: the heater goes off by itself, s.
  public static final double PATIENCE = 60;

  private final Plate plate;
  private final PlateSchedule schedule;
  private final double sample;
  private final AtomicBoolean lift = new AtomicBoolean();
  private final AtomicBoolean stop = new AtomicBoolean();
  private final List<double[]> samples = new ArrayList<>();

  /// A drive.
  ///
  /// @param sample seconds of the plate's clock between two looks
  public PlateDrive(Plate plate, PlateSchedule schedule, double sample) {
    this.plate = plate;
    this.schedule = schedule;
    this.sample = sample;
  }

  /// A look at the run.
  ///
  /// @param samples `{seconds, set, plate, board}` each, all so far
  /// @param next what is to be done next, in words
  /// @param in seconds until then, NaN when nothing is to be done
  /// @param lifted whether the board was lifted
  public record Look(List<double[]> samples, String next, double in, boolean lifted) {}

  /// How it ended.
  ///
  /// @param log what was measured
  /// @param whole whether it ran to its end
  /// @param why in words
  public record End(ProfileLog log, boolean whole, String why) {}

  /// The maker has lifted the board off.
  public void lifted() {
    lift.set(true);
  }

  /// Ends the run now; the heater goes off.
  public void stop() {
    stop.set(true);
  }

  /// Runs; returns when it has ended, with the heater off.
  ///
  /// @param looks is told after each sample, on the calling thread
  /// @param pause waits a little between two looks at the plate's clock
  /// @throws BenchException when the plate could not even be made safe
  public End run(Consumer<Look> looks, Runnable pause) throws BenchException {
    plate.makeSafe();
    String why = "";
    boolean whole = false;
    try {
      double warm = plate.celsius("PLATE");
      if (warm > COLD) {
        return new End(
            log(),
            false,
            String.format(
                Locale.ROOT,
                "the plate is still at %.0f °C, and the schedule is for a cold one: let it cool below %.0f °C",
                warm,
                COLD));
      }
      plate.hands(false);
      double began = plate.seconds();
      plate.set(schedule.soakSet());
      plate.output(true);
      double set = schedule.soakSet();
      double liftedAt = Double.NaN;
      double next = 0;
      double due = Double.NaN;
      while (true) {
        double t = plate.seconds() - began;
        if (stop.get()) {
          why = "stopped by hand";
          break;
        }
        if (t > LONGEST) {
          why = "it ran for half an hour";
          break;
        }
        if (lift.get() && Double.isNaN(liftedAt)) {
          plate.output(false);
          plate.hands(true);
          liftedAt = t;
          set = 0;
        }
        if (Double.isNaN(liftedAt)) {
          double wanted = t < schedule.soakFor() ? schedule.soakSet() : schedule.peakSet();
          if (wanted != set) {
            plate.set(wanted);
            set = wanted;
          }
        }
        if (t < next) {
          pause.run();
          continue;
        }
        next = Math.max(next + sample, t);
        double p = plate.celsius("PLATE");
        double b = plate.celsius("BOARD");
        samples.add(new double[] {t, set, p, b});
        if (p > Math.max(schedule.soakSet(), schedule.peakSet()) + TOO_HOT) {
          why = String.format(Locale.ROOT, "the plate is at %.0f °C, far above its set point", p);
          break;
        }
        Look look = look(t, b, liftedAt);
        looks.accept(look);
        due = look.in() == 0 ? Double.isNaN(due) ? t : due : Double.NaN;
        if (t - due > PATIENCE) {
          why = "nobody lifted the board off for a minute";
          break;
        }
        if (!Double.isNaN(liftedAt) && (b < COOL || t - liftedAt > 120)) {
          whole = true;
          break;
        }
      }
    } catch (BenchException e) {
      why = e.getMessage();
    } finally {
      boolean off = plate.offAtAnyCost();
      why = off ? why : why + "; the plate did not confirm that it is off: pull its plug";
    }
    return new End(log(), whole, why);
  }

  /// What comes next: by the schedule, corrected by what the board reads now.
  private Look look(double t, double board, double liftedAt) {
    List<double[]> copy = List.copyOf(samples);
    if (!Double.isNaN(liftedAt)) {
      return new Look(copy, "cools", Double.NaN, true);
    }
    if (t < schedule.soakFor()) {
      return new Look(
          copy,
          String.format(Locale.ROOT, "set point goes to %.0f °C", schedule.peakSet()),
          schedule.soakFor() - t,
          false);
    }
    double left = toLift(t, board);
    return new Look(copy, left <= 0 ? "lift off now" : "lift off", Math.max(0, left), false);
  }

  /// Seconds until the board reads what it should when it is lifted: by its slope over the last 15
  /// s, no later than 25 s behind the schedule, for a board that stays too cool only bakes.
  private double toLift(double t, double board) {
    double[] then = samples.getFirst();
    for (double[] s : samples) {
      if (s[0] >= t - 15) {
        then = s;
        break;
      }
    }
    double planned = schedule.liftAt() - t;
    double missing = schedule.liftTemperature() - board;
    if (missing <= 0) {
      return 0;
    }
    double slope = t > then[0] ? (board - then[3]) / (t - then[0]) : 0;
    double latest = Math.max(0, planned + 25);
    return slope < 0.05 ? Math.clamp(planned, 0, latest) : Math.clamp(missing / slope, 0, latest);
  }

  private ProfileLog log() {
    int n = samples.size();
    double[] t = new double[n];
    double[] s = new double[n];
    double[] p = new double[n];
    double[] b = new double[n];
    for (int i = 0; i < n; i++) {
      t[i] = samples.get(i)[0];
      s[i] = samples.get(i)[1];
      p[i] = samples.get(i)[2];
      b[i] = samples.get(i)[3];
    }
    return new ProfileLog(
        List.of(
            new ProfileLog.Channel("set", t, s),
            new ProfileLog.Channel("plate", t, p),
            new ProfileLog.Channel("board", t, b)));
  }
}
