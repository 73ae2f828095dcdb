package ell.core.heat;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Moisture and irons.
public class HeatTest {
  /// J-STD-033 floor life at 30 °C, 60 % humidity, hours; from memory.
  @DataProvider
  Object[][] floorLives() {
    return new Object[][] {
      {"2", 365 * 24.0}, {"2a", 28 * 24.0}, {"3", 168.0}, {"4", 72.0}, {"5", 48.0}, {"5a", 24.0}
    };
  }

  @Test(dataProvider = "floorLives")
  public void floorLife(String level, double hours) {
    assertEquals(FloorLife.of(level, 0).left(), hours * 3600);
    assertEquals(FloorLife.of(level, hours * 3600 * 0.5).verdict(), Verdict.WITHIN);
    assertEquals(FloorLife.of(level, hours * 3600 * 0.95).verdict(), Verdict.CLOSE);
    assertEquals(FloorLife.of(level, hours * 3600 + 60).verdict(), Verdict.OUT);
  }

  @Test
  public void theEndsOfTheScale() {
    assertEquals(FloorLife.of("1", 1e9).verdict(), Verdict.WITHIN);
    assertEquals(FloorLife.of("6", 0).verdict(), Verdict.OUT);
    assertThrows(IllegalArgumentException.class, () -> FloorLife.of("7", 0));
  }

  /// Opened, closed and opened again, over a change of daylight saving: instants count.
  @Test
  public void bagsAreFoldedByInstants() {
    List<Logged> log =
        List.of(
            bag(1, "2026-10-25T00:30:00+02:00", true),
            bag(2, "2026-10-25T05:30:00+01:00", false),
            bag(3, "2026-10-26T08:00:00+01:00", true));
    FloorLife f = FloorLife.fold("MCU", log, Instant.parse("2026-10-26T09:00:00Z"));
    // 00:30 CEST is 22:30 UTC, 05:30 CET is 04:30 UTC: six hours, not five; then two more
    assertEquals(f.open(), 8 * 3600.0);
    assertEquals(f.level(), "4");
  }

  private static Logged bag(long n, String at, boolean open) {
    return new Logged(
        n, OffsetDateTime.parse(at), "01", new Entry.Bag("MCU", open, n == 1 ? "4" : ""));
  }

  /// A light joint wets at once, a pin in a plane not at all with a needle: the closed form of one
  /// body, worked again.
  @Test
  public void jointsAreOneBodyEach() {
    JointDemand.Body body =
        new JointDemand.Body(1.6e-3, 1e-3, 0.7e-3, 1.6e-3, JointDemand.Tie.SPOKES);
    JointDemand d = JointDemand.of(body, Alloy.SAC305, JointDemand.Tip.BEVEL, 355, 25);
    double gl = 4 * 390 * 0.3e-3 * 35e-6 / 0.5e-3;
    assertEquals(d.loss(), gl, 1e-9);
    assertEquals(d.settles(), (0.10 * 355 + gl * 25) / (0.10 + gl), 1e-9);
    double wet = 250;
    double expected =
        -d.capacity() / (0.10 + gl) * Math.log(1 - (wet - 25) / (d.settles() - 25))
            + d.latent() / (0.10 * (355 - wet) - gl * (wet - 25));
    assertEquals(d.seconds(), expected, 1e-9);
    JointDemand plane =
        JointDemand.of(
            new JointDemand.Body(1.6e-3, 1e-3, 0.7e-3, 1.6e-3, JointDemand.Tie.PLANE),
            Alloy.SAC305,
            JointDemand.Tip.NEEDLE,
            355,
            25);
    assertTrue(Double.isInfinite(plane.seconds()));
    assertEquals(plane.need(), JointDemand.Need.PREHEAT);
    // a warmed board wets
    assertFalse(
        Double.isInfinite(
            JointDemand.of(
                    new JointDemand.Body(1.6e-3, 1e-3, 0.7e-3, 1.6e-3, JointDemand.Tie.PLANE),
                    Alloy.SAC305,
                    JointDemand.Tip.BLADE,
                    380,
                    120)
                .seconds()));
  }

  /// Common practice, no source: about 350 °C on the dial, less for a pad with a history.
  @Test
  public void theDial() {
    assertEquals(JointDemand.dial(Alloy.SAC305, 0), 355.0);
    assertEquals(JointDemand.dial(Alloy.SN63PB37, 0), 318.0);
    assertEquals(JointDemand.dial(Alloy.SAC305, 1), 340.0);
    assertEquals(JointDemand.dial(Alloy.SAC305, 9), 325.0);
  }
}
