package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.circuit.Circuit;
import ell.core.circuit.Diode;
import ell.core.circuit.Operating;
import ell.core.circuit.Regulator;
import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.Test;

/// Bands of a ladder, worked by hand and held against boards that the circuit model solves.
public final class LadderBandsTest {
  /// 12 V, 11 to 13; a converter to 5 V, efficiency 0.9; a linear regulator to 3.3 V; a bead of 1
  /// Ω.
  private static Ladder ladder() {
    return new Ladder(
        List.of(rail("VIN", 12, 2), rail("5V", 5, 1), rail("3V3", 3.3, 1), rail("3V3A", 3.3, 1)),
        List.of(new Source("VIN", 12, 11, 13, 0)),
        List.of(
            new Step("U1", Kind.SWITCHING, "VIN", "5V", 5, 1, 0.9, 2e-3, 0, 1, 0),
            new Step("U2", Kind.LINEAR, "5V", "3V3", 3.3, 0.3, 0, 1e-3, 0, 1, 0),
            new Step("FB1", Kind.PASS, "3V3", "3V3A", 3.3, 0, 0, 0, 0, 1, 1)),
        List.of(load("U3", "3V3", 0.1), load("U4", "3V3A", 0.02), load("U5", "5V", 0.05)),
        "GND",
        List.of(),
        List.of(),
        Map.of());
  }

  private static RailSpec rail(String net, double volts, double room) {
    return new RailSpec(net, volts, volts - room, volts + room, 0, "");
  }

  private static Load load(String part, String rail, double amps) {
    return new Load(part, rail, Map.of("boot", amps));
  }

  private static RailBand volts(String net) {
    return of(net).volts();
  }

  private static LadderBands.Rail of(String net) {
    return LadderBands.of(ladder(), "boot").rails().stream()
        .filter(r -> r.rail().net().equals(net))
        .findFirst()
        .orElseThrow();
  }

  @Test
  public void intervalsAreThoseOfTheCorners() {
    double spread = PowerPlan.LOAD_SPREAD;
    assertEquals(volts("VIN").low(), 11, 1e-9);
    assertEquals(volts("5V").high(), 5.1, 1e-9);
    assertEquals(volts("3V3").low(), 3.3 * 0.98, 1e-9);
    double a = 0.02 * (1 + spread);
    assertEquals(volts("3V3A").low(), 3.3 * 0.98 - 1.2 * a, 1e-9, "the bead at its most");
    assertEquals(of("3V3").amps().high(), 0.12 * (1 + spread), 1e-9);
    double five = 0.17 * (1 + spread) + 1e-3;
    assertEquals(of("5V").amps().high(), five, 1e-9);
    double most = 5.1 * five / (0.9 * 0.97 * 11) + 2e-3;
    assertEquals(of("VIN").amps().high(), most, 1e-9);
    double nominal = 5 * 0.171 / (0.9 * 12) + 2e-3;
    assertEquals(of("VIN").amps().nominal(), nominal, 1e-9);
    for (LadderBands.Rail r : LadderBands.of(ladder(), "boot").rails()) {
      for (RailBand b : List.of(r.volts(), r.amps())) {
        assertTrue(b.low() <= b.likelyLow() + 1e-12 && b.likelyLow() <= b.nominal(), r.toString());
        assertTrue(b.nominal() <= b.likelyHigh() && b.likelyHigh() <= b.high() + 1e-12, "" + r);
      }
    }
    assertThrows(IllegalArgumentException.class, () -> LadderBands.of(ladder(), "nowhere"));
  }

  /// Boards with parts anywhere in their tolerances, solved by the circuit model, lie within; and
  /// they come near both ends.
  @Test
  public void boardsOfTheModelLieWithin() {
    Random random = new Random(5);
    double least = 1;
    double most = 0;
    RailBand amps = of("VIN").amps();
    RailBand last = volts("3V3A");
    for (int n = 0; n < 300; n++) {
      double[] x = new double[8];
      for (int i = 0; i < x.length; i++) {
        x[i] = 2 * random.nextDouble() - 1;
      }
      double spread = PowerPlan.LOAD_SPREAD;
      Circuit c = new Circuit();
      c.supply("S", "VIN", "GND", 12 + x[0], 10, 1e-3);
      c.regulator(
          "U1",
          "VIN",
          "5V",
          new Regulator(5 * (1 + 0.02 * x[1]), 1, 2, 2e-3, 0.9 * (1 + 0.03 * x[2])));
      c.regulator("U2", "5V", "3V3", new Regulator(3.3 * (1 + 0.02 * x[3]), 0.3, 1, 1e-3, 0));
      c.resistor("FB1", "3V3", "3V3A", 1 + 0.2 * x[4]);
      c.load("U3", "3V3", "GND", 0.1 * (1 + spread * x[5]), 2);
      c.load("U4", "3V3A", "GND", 0.02 * (1 + spread * x[6]), 2);
      c.load("U5", "5V", "GND", 0.05 * (1 + spread * x[7]), 3);
      c.diode("D", "GND", "VIN", Diode.SILICON);
      Operating o = c.rest();
      assertTrue(o.settled());
      double i = o.through("S");
      double v = o.volts().get("3V3A");
      // the model's outputs have ten milliohms
      assertTrue(i >= amps.low() * 0.995 && i <= amps.high() * 1.005, i + " in " + amps);
      assertTrue(v >= last.low() - 4e-3 && v <= last.high() + 1e-3, v + " in " + last);
      least = Math.min(least, i);
      most = Math.max(most, i);
    }
    double width = amps.high() - amps.low();
    assertTrue(least < amps.low() + width / 2 && most > amps.high() - width / 2);
    assertTrue(least < amps.likelyLow() * 1.05 && most > amps.likelyHigh() * 0.95);
  }
}
