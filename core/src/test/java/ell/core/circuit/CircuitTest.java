package ell.core.circuit;

import static ell.core.circuit.Fed.fed;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;

/// Powered networks against values worked by hand.
public class CircuitTest {
  private static final Regulator LDO = new Regulator(3.3, 0.3, 0.5, 0, 0);
  private static final Regulator BUCK = new Regulator(5, 0.5, 1, 0, 0.88);

  @Test
  public void dividerAndLoad() {
    Circuit n = new Circuit();
    n.resistor("R1", "in", "mid", 1000);
    n.resistor("R2", "mid", "GND", 2000);
    Operating s = fed(n, "in", 9, 1);
    assertEquals(s.at("mid"), 6, 1e-3);
    assertEquals(s.through("S"), 3e-3, 1e-6);
    assertTrue(s.settled());
    assertFalse(s.limited());
  }

  @Test
  public void lampBehindAResistor() {
    Circuit n = new Circuit();
    n.resistor("R3", "in", "a", 1000);
    n.diode("D", "a", "GND", Diode.lamp(1.9));
    Operating s = fed(n, "in", 5, 1);
    // a lamp of 1.9 V at 10 mA takes some 60 mV less at 3 mA: n Vt ln(10 / 3.2), and 5 ohm
    assertEquals(s.through("S"), (5 - 1.9 + 0.06 + 0.034) / 1000, 0.02e-3);
    assertEquals(fed(n, "in", 1.3, 1).through("S"), 0, 1e-6);
  }

  @Test
  public void reversedDiodeBlocks() {
    Circuit n = new Circuit();
    n.diode("D", "out", "in", Diode.SCHOTTKY);
    n.resistor("R4", "out", "GND", 100);
    // but for what leaks through a metal on silicon: 0.1 A / exp(0.35 V / (1.1 Vt))
    assertEquals(fed(n, "in", 5, 1).at("out"), 100 * 0.1 / Math.exp(0.35 / 0.028437), 2e-6);
  }

  @Test
  public void linearRegulatorHoldsItsOutputAndPassesItsCurrent() {
    Circuit n = new Circuit();
    n.regulator("U1", "in", "out", LDO);
    n.resistor("R5", "out", "GND", 33);
    Operating s = fed(n, "in", 5, 1);
    assertEquals(s.at("out"), 3.3, 5e-3);
    assertEquals(s.through("S"), 0.1, 1e-3);
    // below dropout it follows its input
    assertEquals(fed(n, "in", 3, 1).at("out"), 2.7, 5e-3);
  }

  @Test
  public void linearRegulatorLimitsIntoAShort() {
    Circuit n = new Circuit();
    n.regulator("U2", "in", "out", LDO);
    n.resistor("R6", "out", "GND", 1);
    Operating s = fed(n, "in", 5, 3);
    assertEquals(s.through("U2"), 0.5, 1e-6);
    assertEquals(s.at("out"), 0.5, 5e-3);
  }

  @Test
  public void switchingRegulatorConservesPower() {
    Circuit n = new Circuit();
    n.regulator("U3", "in", "out", BUCK);
    n.resistor("R7", "out", "GND", 50);
    for (double vin : new double[] {7, 9, 12, 14}) {
      Operating s = fed(n, "in", vin, 1);
      assertEquals(s.at("out"), 5, 5e-3);
      assertEquals(s.through("S") * vin * 0.88, s.at("out") * s.at("out") / 50, 3e-3, "at " + vin);
    }
    assertEquals(fed(n, "in", 5.2, 1).at("out"), 0, 1e-3, "does not start below its output");
  }

  @Test
  public void loadsDrawTheirCurrentAboveTheirVoltage() {
    Circuit n = new Circuit();
    n.load("L in", "in", "GND", 0.02, 2.3);
    assertEquals(fed(n, "in", 3.3, 1).through("S"), 0.02, 1e-6);
    assertEquals(fed(n, "in", 2.3, 1).through("S"), 0.02, 1e-5);
    // half way between a quarter of its least full volts and all of them
    assertEquals(fed(n, "in", 0.625 * 2.3, 1).through("S"), 0.01, 2e-5);
    assertEquals(fed(n, "in", 0.5, 1).through("S"), 0, 1e-8);
  }

  @Test
  public void supplyHoldsItsLimit() {
    Circuit n = new Circuit();
    n.resistor("R8", "in", "GND", 10);
    Operating s = fed(n, "in", 5, 0.1);
    assertTrue(s.limited());
    assertEquals(s.through("S"), 0.1, 1e-6);
    assertEquals(s.at("in"), 1.0, 1e-2);
    // a converter into a short hiccups at the limit
    Circuit short5v = new Circuit();
    short5v.regulator("U4", "in", "out", new Regulator(5, 0.5, 3, 0, 0.88));
    short5v.resistor("R9", "out", "GND", 0.5);
    Operating h = fed(short5v, "in", 12, 0.1);
    assertTrue(h.limited());
    assertEquals(h.through("S"), 0.1, 1e-9);
  }

  /// The whole chain of the demo's kind: fuse, diode, buck, linear, bead.
  @Test
  public void aChainOfSteps() {
    Circuit n = new Circuit();
    n.resistor("R10", "raw", "fused", 0.1);
    n.diode("D", "fused", "vin", Diode.SCHOTTKY);
    n.regulator("U5", "vin", "sw", BUCK);
    n.resistor("R11", "sw", "5v", 0.1);
    n.regulator("U6", "5v", "3v3", LDO);
    n.resistor("R12", "3v3", "3v3a", 0.1);
    n.load("L 3v3", "3v3", "GND", 0.018, 2.3);
    n.load("L 3v3a", "3v3a", "GND", 0.002, 2.3);
    Operating s = fed(n, "raw", 12, 0.2);
    assertEquals(s.at("3v3a"), 3.3, 0.01);
    assertEquals(s.at("5v"), 5, 0.01);
    // 5 V · 20 mA / (0.88 · 11.65 V) = 9.75 mA
    assertEquals(s.through("S"), 9.75e-3, 0.1e-3);
    assertTrue(s.settled());
  }

  @Test
  public void refusesNonsense() {
    Circuit n = new Circuit();
    assertThrows(IllegalArgumentException.class, () -> n.resistor("R13", "a", "b", -1));
    assertThrows(IllegalArgumentException.class, () -> fed(n, "a", -1, 1));
    assertThrows(IllegalArgumentException.class, () -> fed(n, "a", 1, 0));
    assertThrows(IllegalArgumentException.class, () -> new Regulator(5, 0, 0, 0, 0));
  }

  /// Linear regulators one behind the other whose input is too low pass it on, each less its
  /// dropout, and draw what they pass and what they need themselves. By hand, from the definitions.
  @Test
  public void regulatorsInARowPassALowInputOn() {
    for (double volts : new double[] {1.0, 1.25, 2.5, 3.75, 5.0, 6.0}) {
      Circuit n = new Circuit();
      n.regulator("U7", "in", "mid", new Regulator(3.7, 0.3, 0.5, 60e-6, 0));
      n.regulator("U8", "mid", "out", new Regulator(3.3, 0.2, 0.5, 60e-6, 0));
      n.resistor("R14", "out", "GND", 1000);
      n.resistor("R15", "mid", "GND", 10_000);
      Operating s = fed(n, "in", volts, 10);
      double mid = Math.min(3.7, volts - 0.3);
      double out = Math.min(3.3, mid - 0.2);
      assertTrue(s.settled(), "at " + volts);
      assertEquals(s.at("mid"), mid, 1e-3, "at " + volts);
      assertEquals(s.at("out"), out, 1e-3, "at " + volts);
      assertEquals(s.through("S"), out / 1000 + mid / 10_000 + 120e-6, 2e-5, "at " + volts);
    }
  }

  /// A regulator that passes its input on bears no more than its limit; from behind its pass
  /// element is a diode.
  @Test
  public void aPassingRegulatorKeepsItsLimitAndConductsBackAsADiode() {
    Circuit n = new Circuit();
    n.regulator("U9", "in", "out", new Regulator(3.3, 0.3, 0.1, 0, 0));
    n.resistor("R16", "out", "GND", 5);
    assertEquals(fed(n, "in", 2.5, 10).through("S"), 0.1, 1e-3);
    Circuit back = new Circuit();
    back.regulator("U10", "in", "out", new Regulator(3.3, 0.3, 0.5, 0, 0));
    back.resistor("R17", "in", "GND", 1000);
    back.resistor("R18", "out", "GND", 1e6);
    assertEquals(fed(back, "out", 3.0, 10).through("S"), (3 - 0.58) / 1000, 5e-5);
  }

  /// A converter behind a diode at a limit that it cannot live on: 5 V · 50 mA / 0.88 is 284 mW,
  /// and 20 mA at the 5.9 V from which it starts are 118 mW. It starts and stops; on the average it
  /// runs for 118 of 310 mW (what it and its diode take while it runs), and nothing comes from
  /// nowhere.
  @Test
  public void aConverterAtTheLimitHiccups() {
    for (double limit : new double[] {0.02, 0.005}) {
      Circuit n = new Circuit();
      n.diode("D", "in", "vin", Diode.SCHOTTKY);
      n.regulator("U11", "vin", "out", new Regulator(5, 0.5, 1, 1e-3, 0.88));
      n.load("L out", "out", "GND", 0.05, 3.5);
      Operating s = fed(n, "in", 12, limit);
      assertTrue(s.settled() && s.limited());
      double running = (5 * 0.05 / 0.88 + 5.5 * 1e-3) / 5.5;
      assertEquals(s.at("out"), 5 * limit / running, 0.05 * 5 * limit / running, "limit " + limit);
      double share = s.at("out") / 5;
      assertTrue(share * 0.25 < limit * s.at("in"), "no power from nowhere");
      assertEquals(s.at("in"), 5.65, 0.1, "what starts it, and little in the diode before that");
    }
  }

  /// Once it runs it goes on a little below what starts it, as every converter that is built does.
  @Test
  public void aConverterStartsHigherThanItStops() {
    Circuit n = new Circuit();
    n.resistor("R19", "in", "vin", 1);
    n.regulator("U12", "vin", "out", new Regulator(5, 0.5, 1, 0, 0.9));
    n.load("L out", "out", "GND", 0.1, 3.5);
    // 5.55 V start it; 100 mA then take 0.1 V in the resistor, which is below the start
    Operating s = fed(n, "in", 5.55, 10);
    assertTrue(s.settled());
    assertTrue(s.at("vin") < 5.5, "below its start: " + s.at("vin"));
    assertEquals(s.at("out"), 5, 0.01);
    assertEquals(s.through("S") * s.at("vin"), 5 * 0.1 / 0.9, 0.01, "its input power");
  }
}
