package ell.desk.heat;

import ell.bench.instrument.Plate;
import ell.core.entry.EntryWords;
import ell.core.heat.PlateSchedule;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Snapshot;
import ell.work.heat.PlateAct;
import ell.work.heat.PlateDrive;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/// One run of the plate at a time, aside, for the window: where it is, what it measures, and the
/// heater off whatever happens. Told and asked on the interface thread, but for [#off].
final class PlateRunner {
  private static final double SAMPLE_S = 1;
  private static final long CLOSING_S = 3;

  private final DeskModel desk;
  private final Runnable changed;
  private HeatModel.Phase phase = HeatModel.Phase.OFF;
  private String board = "";
  private Optional<PlateDrive.Look> look = Optional.empty();
  private volatile PlateAct plate;
  private volatile CountDownLatch ended = new CountDownLatch(0);

  /// @param changed is called whenever something is to be drawn anew
  PlateRunner(DeskModel desk, Runnable changed) {
    this.desk = desk;
    this.changed = changed;
  }

  /// Where the run is, as far as a board is concerned.
  HeatModel.Phase phase(String of) {
    return board.equals(of) ? phase : HeatModel.Phase.OFF;
  }

  boolean idle() {
    return phase == HeatModel.Phase.OFF;
  }

  /// The plate as it runs.
  Optional<PlateDrive.Look> look() {
    return look;
  }

  void forgetLook() {
    look = Optional.empty();
  }

  /// Whether the plate is hot now.
  boolean live() {
    return plate != null;
  }

  /// Starts a run, unless one is going on.
  void start(Snapshot.Work w, PlateSchedule schedule) {
    if (plate != null || !idle()) {
      return;
    }
    phase = HeatModel.Phase.HEATING;
    board = w.board();
    look = Optional.empty();
    changed.run();
    desk.ask(ws -> {
      try {
        PlateAct act =
            PlateAct.prepare(ws.acts(), ws.heating(), w.build(), w.plan(), w.state(), schedule);
        Plate on = desk.bench().open(ws).need(Plate.KIND);
        plate = act;
        ended = new CountDownLatch(1);
        desk.runner().aside().execute(() -> run(act, on, w.board()));
      } catch (IOException | ActException | RuntimeException e) {
        desk.runner().ui().execute(this::over);
        throw e;
      }
    });
  }

  /// The board was lifted off the plate.
  void lifted() {
    PlateAct p = plate;
    if (p != null) {
      p.lifted();
      phase = HeatModel.Phase.LIFTED;
      changed.run();
    }
  }

  private void run(PlateAct act, Plate on, String serial) {
    try (on) {
      PlateAct.Ended end = act.run(on, SAMPLE_S, this::seen, PlateRunner::pause);
      if (end.entries().isEmpty()) {
        desk.say(end.why());
      } else {
        desk.act(_ -> {});
        desk.say(
            "board "
                + serial
                + ": "
                + EntryWords.of(end.entries().getFirst().entry())
                + (end.whole() ? "" : " · plate off"));
      }
    } catch (IOException | ActException | RuntimeException e) {
      desk.say("the plate: " + e.getMessage());
    } finally {
      ended.countDown();
      desk.runner().ui().execute(this::over);
    }
  }

  private void seen(PlateDrive.Look l) {
    desk.runner()
        .ui()
        .execute(() -> {
          look = Optional.of(l);
          changed.run();
        });
  }

  private static void pause() {
    try {
      Thread.sleep(10);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void over() {
    plate = null;
    phase = HeatModel.Phase.OFF;
    board = "";
    look = Optional.empty();
    changed.run();
  }

  /// The heater off, now; from any thread.
  void off() {
    PlateAct p = plate;
    if (p != null) {
      p.stop();
    }
  }

  /// Switches off and waits a moment until the plate was told; for when the window closes.
  void close() throws InterruptedException {
    off();
    ended.await(CLOSING_S, TimeUnit.SECONDS);
  }
}
