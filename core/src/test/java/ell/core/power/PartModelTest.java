package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.circuit.Run;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What the words of a bill make of a part: each on a board of its own, fed, against values worked
/// by hand. The words are common practice, no source.
public class PartModelTest {
  private static Boards board() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-2").at(0, 0).holes("5V", "GND");
    b.part("C1").value("10u").at(5, 0).pads("5V", "GND");
    return b;
  }

  private static BoardCircuit circuit(Boards b, String... faults) {
    Revision r = b.revision();
    return new BoardCircuit(
        r, LadderProposal.of(r), List.of(faults).stream().map(FaultWords::parse).toList());
  }

  private static double at(BoardCircuit c, String net) {
    Operating o = c.fed("boot", 1, 5, 10);
    assertTrue(o.settled());
    return o.at(c.node(net));
  }

  @DataProvider
  Object[][] transistors() {
    return new Object[][] {
      // base through 10k from 5 V: saturated; an N channel with its gate at 5 V: on
      {"NPN", true, 0.0, 0.15},
      {"N-channel logic level", true, 0.0, 0.02},
      {"NPN", false, 5.0, 0.01},
      {"N-channel logic level", false, 5.0, 0.01},
      // of which nobody says the kind: it acts in no way
      {"switch", true, 5.0, 0.01},
    };
  }

  /// A transistor to ground under 1 kohm, its control at 5 V or at ground through 10 kohm.
  @Test(dataProvider = "transistors")
  public void aTransistorSwitches(String words, boolean high, double volts, double tolerance) {
    Boards b = board();
    b.part("R1").value("10k").at(10, 0).pads(high ? "5V" : "GND", "CTRL");
    b.part("R2").value("1k").at(20, 0).pads("5V", "OUT");
    b.part("Q1").value("T1").words(words).shape("SOT-23").at(30, 0).pads("CTRL", "GND", "OUT");
    assertEquals(at(circuit(b), "OUT"), volts, tolerance, words);
  }

  @DataProvider
  Object[][] diodes() {
    return new Object[][] {
      // 4.3 mA through 1 kohm
      {"1N", "signal diode", 0.61, 0.03},
      {"SK", "Schottky", 0.26, 0.03},
      // 10 mA less 59 mV at 3.2 mA, and 81 mV at 2.1 mA: 2 Vt ln of the ratio
      {"red", "lamp", 1.81, 0.02},
      {"white", "lamp", 2.88, 0.02},
    };
  }

  @Test(dataProvider = "diodes")
  public void aDiodeDropsItsVolts(String value, String words, double volts, double tolerance) {
    Boards b = board();
    b.part("R1").value("1k").at(10, 0).pads("5V", "A");
    b.part("D1").value(value).words(words).at(20, 0).pads("GND", "A");
    assertEquals(at(circuit(b), "A"), volts, tolerance, words);
    assertTrue(at(circuit(b, "turned D1"), "A") > 4.9, "turned it blocks");
  }

  @Test
  public void aZenerHoldsItsVolts() {
    Boards b = board();
    b.part("R1").value("1k").at(10, 0).pads("5V", "A");
    b.part("D1").value("3V3").words("zener 3V3").at(20, 0).pads("A", "GND");
    assertEquals(at(circuit(b), "A"), 3.3, 0.1);
  }

  /// Half an ampere held, one trips: into a short of 1 ohm 5 A would flow.
  @Test
  public void aFuseThatResetsTrips() {
    Boards b = board();
    b.part("F1").value("500mA").words("PTC resettable fuse").at(10, 0).pads("5V", "A");
    b.part("R1").value("1R").at(20, 0).pads("A", "GND");
    BoardCircuit c = circuit(b);
    Circuit fed = c.powered("boot", 1);
    fed.set(BoardCircuit.SUPPLY, 5, 10, true);
    Run r = fed.run();
    r.on(1e-3);
    assertTrue(r.through("F1") > 4, "before it is warm: " + r.through("F1"));
    r.on(5);
    assertTrue(r.through("F1") < 0.5, "once it has tripped: " + r.through("F1"));
  }

  /// 1000 uF up to 5 V at 100 mA: C V / I = 50 ms; a plan waits for it, and a board without it is
  /// up at once.
  @Test
  public void aPlanWaitsForWhatCharges() {
    double[] charging = new double[2];
    for (int i = 0; i < 2; i++) {
      Boards b = board();
      b.part("C2").value(i == 0 ? "100n" : "4700u").at(10, 0).pads("5V", "GND");
      b.part("R1").value("1k").at(20, 0).pads("5V", "GND");
      Revision r = b.revision();
      PowerPlan p = PowerPlan.of(r, LadderProposal.of(r), "boot").orElseThrow();
      PowerStep first = p.steps().getFirst();
      charging[i] = first.charging();
      assertTrue(first.known());
      if (i == 1) {
        assertEquals(first.charging(), 4710e-6 * first.volts() / first.limit(), 0.05);
      }
    }
    assertTrue(charging[0] < 0.05 && charging[1] > 0.1, charging[0] + " and " + charging[1]);
  }

  /// Values that no part has, and parts that the bill says nothing of, break nothing.
  @Test
  public void oddValuesBreakNothing() {
    Boards b = board();
    b.part("L1").value("0").at(10, 0).pads("5V", "A");
    b.part("R1").value("1k").at(20, 0).pads("A", "GND");
    b.part("C2").value("").at(30, 0).pads("A", "GND");
    b.part("D1").value("").at(40, 0).pads("GND", "A");
    b.part("F1").value("PTC").words("resettable").at(50, 0).pads("5V", "B");
    b.part("R2").value("many").at(60, 0).pads("B", "GND");
    for (String f : List.of("missing C2", "value C1 1p", "value R1 1m", "short L1")) {
      BoardCircuit c = circuit(b, f);
      double a = at(c, "A");
      assertTrue(a >= 0 && a <= 5, f + ": " + a);
      assertTrue(c.unpowered().between(c.node("5V"), c.node("GND")) > 0);
    }
  }
}
