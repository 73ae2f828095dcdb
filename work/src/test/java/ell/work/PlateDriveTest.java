package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.Bench;
import ell.bench.instrument.Plate;
import ell.bench.sim.Mischief;
import ell.bench.sim.SimPlate;
import ell.core.entry.Entry;
import ell.core.heat.PlateFit;
import ell.core.heat.PlateRun;
import ell.core.heat.PlateSchedule;
import ell.core.heat.ProfileLog;
import ell.core.heat.ProfileWindow;
import ell.core.quantity.Verdict;
import ell.work.heat.Heating;
import ell.work.heat.PlateDrive;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// The simulated plate run through its sockets, at a fast clock, well and badly.
public class PlateDriveTest {
  private SimPlate sim;

  @BeforeMethod
  public void start() throws Exception {
    sim = SimPlate.start(SimPlate.SMALL, 4, 40, 0);
  }

  @AfterMethod(alwaysRun = true)
  public void end() {
    sim.close();
  }

  private Plate plate(int timeout) throws Exception {
    return new Bench("bench", Map.of("plate", "127.0.0.1:" + sim.port()), timeout).need(Plate.KIND);
  }

  private static void pause() {
    try {
      Thread.sleep(2);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /// Lifts when it is told to, as a maker does.
  private static PlateDrive.End drive(PlateDrive d, List<PlateDrive.Look> looks) throws Exception {
    return d.run(
        l -> {
          looks.add(l);
          if (l.next().equals("lift off now")) {
            d.lifted();
          }
        },
        PlateDriveTest::pause);
  }

  @Test(timeOut = 60_000)
  public void aRunByATypicalPlateIsLearnedFromAndTheNextIsWithin() throws Exception {
    PlateSchedule first = PlateSchedule.of(PlateFit.typical().model(), ProfileWindow.SAC305);
    List<PlateDrive.Look> looks = new ArrayList<>();
    ProfileLog log;
    try (Plate p = plate(1500)) {
      PlateDrive.End end = drive(new PlateDrive(p, first, 1), looks);
      assertTrue(end.whole(), end.why());
      log = end.log();
    }
    assertFalse(sim.outputOn(), "the heater is off afterwards");
    assertTrue(looks.stream().anyMatch(l -> l.next().startsWith("set point goes to")));
    assertTrue(looks.stream().anyMatch(l -> l.next().equals("lift off") && l.in() > 5));
    Entry.HeatRun run = Heating.entry(log, ProfileWindow.SAC305, "first", "plate");
    PlateFit fit = PlateFit.of(List.of(PlateRun.of(run).orElseThrow()));
    assertEquals(fit.runs(), 1);
    assertTrue(fit.rms() < 4, "left over " + fit.rms());
    assertEquals(fit.model().cool(), SimPlate.SMALL.cool(), 8);
    PlateSchedule next = PlateSchedule.of(fit.model(), ProfileWindow.SAC305);
    try (Plate p = plate(1500)) {
      PlateDrive.End hot = drive(new PlateDrive(p, next, 1), new ArrayList<>());
      assertTrue(hot.why().contains("the plate is still at"), hot.why());
      assertFalse(sim.outputOn());
    }
    end();
    start();
    try (Plate p = plate(1500)) {
      PlateDrive.End end = drive(new PlateDrive(p, next, 1), new ArrayList<>());
      Entry.HeatRun second = Heating.entry(end.log(), ProfileWindow.SAC305, "first", "plate");
      assertEquals(second.verdict().orElseThrow(), Verdict.WITHIN, second.pwi() + " " + end.why());
    }
  }

  @Test(timeOut = 30_000)
  public void stoppedByHandItIsOff() throws Exception {
    PlateSchedule s = PlateSchedule.of(SimPlate.SMALL, ProfileWindow.SNBI);
    try (Plate p = plate(1500)) {
      PlateDrive d = new PlateDrive(p, s, 1);
      PlateDrive.End end =
          d.run(
              l -> {
                if (l.samples().size() > 20) {
                  d.stop();
                }
              },
              PlateDriveTest::pause);
      assertEquals(end.why(), "stopped by hand");
      assertFalse(end.whole());
    }
    assertFalse(sim.outputOn());
  }

  /// Nobody comes when the board is to be lifted: the heater goes off by itself.
  @Test(timeOut = 60_000)
  public void aBoardThatNobodyLiftsIsNotBaked() throws Exception {
    PlateSchedule s = PlateSchedule.of(SimPlate.SMALL, ProfileWindow.SNBI);
    try (Plate p = plate(1500)) {
      PlateDrive.End end = new PlateDrive(p, s, 1).run(_ -> {}, PlateDriveTest::pause);
      assertEquals(end.why(), "nobody lifted the board off for a minute");
      ProfileLog.Channel board = end.log().channels().getLast();
      assertTrue(board.second(board.size() - 1) < s.liftAt() + 25 + PlateDrive.PATIENCE + 10);
    }
    assertFalse(sim.outputOn());
  }

  /// Hostile instruments: whatever it does, the run ends and says what happened; once the plate
  /// hears nothing more it switches itself off.
  @Test(timeOut = 60_000)
  public void aPlateThatHangsOrVanishesEndsTheRun() throws Exception {
    for (Mischief m : List.of(Mischief.HANG, Mischief.GARBAGE, Mischief.VANISH)) {
      end();
      start();
      PlateSchedule s = PlateSchedule.of(SimPlate.SMALL, ProfileWindow.SNBI);
      PlateDrive.End end;
      try (Plate p = plate(300)) {
        end =
            new PlateDrive(p, s, 1)
                .run(
                    l -> {
                      if (l.samples().size() == 10) {
                        sim.mischief(m);
                      }
                    },
                    PlateDriveTest::pause);
      }
      assertFalse(end.whole(), m.toString());
      assertTrue(end.why().contains("pull its plug"), m + ": " + end.why());
      assertTrue(end.log().channels().getFirst().size() >= 10);
      long patience = System.nanoTime() + 5_000_000_000L;
      while (sim.outputOn() && System.nanoTime() < patience) {
        Thread.sleep(50);
      }
      assertFalse(sim.outputOn(), m + ": it switched itself off");
    }
  }

  @Test
  public void thePlateRefusesNonsense() throws Exception {
    try (Plate p = plate(1500)) {
      p.makeSafe();
      try {
        p.set(900);
        throw new AssertionError("it was taken");
      } catch (ell.bench.link.BenchException e) {
        assertTrue(e.getMessage().contains("-222"), e.getMessage());
      }
      assertTrue(Math.abs(p.celsius("BOARD") - 22) < 2);
    }
  }
}
