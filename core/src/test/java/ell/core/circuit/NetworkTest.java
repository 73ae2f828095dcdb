package ell.core.circuit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.circuit.Network.Regulator;
import ell.core.circuit.Network.Solution;
import org.testng.annotations.Test;

/// Powered networks against values worked by hand.
public class NetworkTest {
  private static final Regulator LDO = new Regulator("U2", 3.3, 0.3, 0.5, 0, 0);
  private static final Regulator BUCK = new Regulator("U1", 5, 0.5, 1, 0, 0.88);

  @Test
  public void dividerAndLoad() {
    Network n = new Network();
    n.resistor("in", "mid", 1000);
    n.resistor("mid", "GND", 2000);
    Solution s = n.solve("in", 9, 1);
    assertEquals(s.at("mid"), 6, 1e-3);
    assertEquals(s.supplyAmps(), 3e-3, 1e-6);
    assertTrue(s.settled());
    assertFalse(s.limited());
  }

  @Test
  public void lampBehindAResistor() {
    Network n = new Network();
    n.resistor("in", "a", 1000);
    n.diode("a", "GND", 1.9);
    Solution s = n.solve("in", 5, 1);
    assertEquals(s.supplyAmps(), 3.1e-3, 0.02e-3);
    assertEquals(n.solve("in", 1.5, 1).supplyAmps(), 0, 1e-6);
  }

  @Test
  public void reversedDiodeBlocks() {
    Network n = new Network();
    n.diode("out", "in", 0.4);
    n.resistor("out", "GND", 100);
    assertEquals(n.solve("in", 5, 1).at("out"), 0, 1e-6);
  }

  @Test
  public void linearRegulatorHoldsItsOutputAndPassesItsCurrent() {
    Network n = new Network();
    n.regulator("in", "out", LDO);
    n.resistor("out", "GND", 33);
    Solution s = n.solve("in", 5, 1);
    assertEquals(s.at("out"), 3.3, 5e-3);
    assertEquals(s.supplyAmps(), 0.1, 1e-3);
    // below dropout it follows its input
    assertEquals(n.solve("in", 3, 1).at("out"), 2.7, 5e-3);
  }

  @Test
  public void linearRegulatorLimitsIntoAShort() {
    Network n = new Network();
    n.regulator("in", "out", LDO);
    n.resistor("out", "GND", 1);
    Solution s = n.solve("in", 5, 3);
    assertEquals(s.regulatorAmps().get("U2"), 0.5, 1e-6);
    assertEquals(s.at("out"), 0.5, 5e-3);
  }

  @Test
  public void switchingRegulatorConservesPower() {
    Network n = new Network();
    n.regulator("in", "out", BUCK);
    n.resistor("out", "GND", 50);
    for (double vin : new double[] {7, 9, 12, 14}) {
      Solution s = n.solve("in", vin, 1);
      assertEquals(s.at("out"), 5, 5e-3);
      assertEquals(s.supplyAmps() * vin * 0.88, s.at("out") * s.at("out") / 50, 3e-3, "at " + vin);
    }
    assertEquals(n.solve("in", 5.2, 1).at("out"), 0, 1e-3, "does not start below its output");
  }

  @Test
  public void loadsDrawTheirCurrentAboveTheirVoltage() {
    Network n = new Network();
    n.load("in", "GND", 0.02, 2.3);
    assertEquals(n.solve("in", 3.3, 1).supplyAmps(), 0.02, 1e-6);
    assertEquals(n.solve("in", 1.15, 1).supplyAmps(), 0.01, 1e-4);
  }

  @Test
  public void supplyHoldsItsLimit() {
    Network n = new Network();
    n.resistor("in", "GND", 10);
    Solution s = n.solve("in", 5, 0.1);
    assertTrue(s.limited());
    assertEquals(s.supplyAmps(), 0.1, 1e-6);
    assertEquals(s.supplyVolts(), 1.0, 1e-2);
    // a converter into a short hiccups at the limit
    Network short5v = new Network();
    short5v.regulator("in", "out", new Regulator("U1", 5, 0.5, 3, 0, 0.88));
    short5v.resistor("out", "GND", 0.5);
    Solution h = short5v.solve("in", 12, 0.1);
    assertTrue(h.limited());
    assertEquals(h.supplyAmps(), 0.1, 1e-9);
  }

  /// The whole chain of the demo's kind: fuse, diode, buck, linear, bead.
  @Test
  public void aChainOfSteps() {
    Network n = new Network();
    n.resistor("raw", "fused", 0.1);
    n.diode("fused", "vin", 0.35);
    n.regulator("vin", "sw", BUCK);
    n.resistor("sw", "5v", 0.1);
    n.regulator("5v", "3v3", LDO);
    n.resistor("3v3", "3v3a", 0.1);
    n.load("3v3", "GND", 0.018, 2.3);
    n.load("3v3a", "GND", 0.002, 2.3);
    Solution s = n.solve("raw", 12, 0.2);
    assertEquals(s.at("3v3a"), 3.3, 0.01);
    assertEquals(s.at("5v"), 5, 0.01);
    // 5 V · 20 mA / (0.88 · 11.65 V) = 9.75 mA
    assertEquals(s.supplyAmps(), 9.75e-3, 0.1e-3);
    assertTrue(s.settled());
  }

  @Test
  public void refusesNonsense() {
    Network n = new Network();
    assertThrows(IllegalArgumentException.class, () -> n.resistor("a", "b", -1));
    assertThrows(IllegalArgumentException.class, () -> n.solve("a", -1, 1));
    assertThrows(IllegalArgumentException.class, () -> n.solve("a", 1, 0));
    assertThrows(IllegalArgumentException.class, () -> new Regulator("U", 5, 0, 0, 0, 0));
  }

  /// Linear regulators one behind the other whose input is too low pass it on, each less its
  /// dropout, and draw what they pass and what they need themselves. By hand, from the definitions.
  @Test
  public void regulatorsInARowPassALowInputOn() {
    for (double volts : new double[] {1.0, 1.25, 2.5, 3.75, 5.0, 6.0}) {
      Network n = new Network();
      n.regulator("in", "mid", new Network.Regulator("U1", 3.7, 0.3, 0.5, 60e-6, 0));
      n.regulator("mid", "out", new Network.Regulator("U2", 3.3, 0.2, 0.5, 60e-6, 0));
      n.resistor("out", "GND", 1000);
      n.resistor("mid", "GND", 10_000);
      Network.Solution s = n.solve("in", volts, 10);
      double mid = Math.min(3.7, volts - 0.3);
      double out = Math.min(3.3, mid - 0.2);
      assertTrue(s.settled(), "at " + volts);
      assertEquals(s.volts().get("mid"), mid, 1e-3, "at " + volts);
      assertEquals(s.volts().get("out"), out, 1e-3, "at " + volts);
      assertEquals(s.supplyAmps(), out / 1000 + mid / 10_000 + 120e-6, 2e-5, "at " + volts);
    }
  }

  /// A regulator that passes its input on bears no more than its limit, and lets nothing back.
  @Test
  public void aPassingRegulatorKeepsItsLimitAndLetsNothingBack() {
    Network n = new Network();
    n.regulator("in", "out", new Network.Regulator("U1", 3.3, 0.3, 0.1, 0, 0));
    n.resistor("out", "GND", 5);
    assertEquals(n.solve("in", 2.5, 10).supplyAmps(), 0.1, 1e-3);
    Network back = new Network();
    back.regulator("in", "out", new Network.Regulator("U1", 3.3, 0.3, 0.5, 0, 0));
    back.resistor("in", "GND", 1000);
    back.resistor("out", "GND", 1e6);
    assertEquals(back.solve("out", 3.0, 10).supplyAmps(), 3e-6, 1e-6);
  }

  /// A converter behind a diode at a limit that it cannot live on: 5 V · 50 mA / 0.88 is 284 mW,
  /// and 20 mA at the 5.9 V from which it starts are 118 mW. It starts and stops; on the average it
  /// runs for 118 of 310 mW (what it and its diode take while it runs), and nothing comes from
  /// nowhere.
  @Test
  public void aConverterAtTheLimitHiccups() {
    for (double limit : new double[] {0.02, 0.005}) {
      Network n = new Network();
      n.diode("in", "vin", 0.4);
      n.regulator("vin", "out", new Regulator("U1", 5, 0.5, 1, 1e-3, 0.88));
      n.load("out", "GND", 0.05, 3.5);
      Network.Solution s = n.solve("in", 12, limit);
      assertTrue(s.settled() && s.limited());
      double running = (5 * 0.05 / 0.88 + 5.5 * 1e-3) / 5.5;
      assertEquals(s.at("out"), 5 * limit / running, 0.03 * 5 * limit / running, "limit " + limit);
      double share = s.at("out") / 5;
      assertTrue(share * 0.25 < limit * s.supplyVolts(), "no power from nowhere");
      assertEquals(s.supplyVolts(), 5.9, 0.05);
    }
  }

  /// Once it runs it goes on a little below what starts it, as every converter that is built does.
  @Test
  public void aConverterStartsHigherThanItStops() {
    Network n = new Network();
    n.resistor("in", "vin", 1);
    n.regulator("vin", "out", new Regulator("U1", 5, 0.5, 1, 0, 0.9));
    n.load("out", "GND", 0.1, 3.5);
    // 5.55 V start it; 100 mA then take 0.1 V in the resistor, which is below the start
    Network.Solution s = n.solve("in", 5.55, 10);
    assertTrue(s.settled());
    assertTrue(s.at("vin") < 5.5, "below its start: " + s.at("vin"));
    assertEquals(s.at("out"), 5, 0.01);
    assertEquals(s.supplyAmps() * s.at("vin"), 5 * 0.1 / 0.9, 0.01, "its input power");
  }
}
