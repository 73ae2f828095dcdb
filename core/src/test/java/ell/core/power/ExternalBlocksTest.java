package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.circuit.Operating;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.Source;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What a ladder has beside regulators that step down: converters that lift, lamps that something
/// switches, several sources with their outputs of the supply. Closed forms by hand.
public class ExternalBlocksTest {
  /// A cell of 3.7 V, a coil, a converter that lifts to 5 V through its diode, a load.
  private static Revision lifting(boolean diode) {
    Boards b = new Boards();
    b.part("BT1").value("CELL").at(0, 0).holes("VBAT", "GND");
    b.part("U1")
        .value("BOOST 5V")
        .words("boost converter 1A")
        .at(20, 0)
        .pads("VBAT", "GND", "SW", diode ? "FB" : "5V");
    b.part("L1").value("4u7").at(10, 0).pads("VBAT", "SW");
    if (diode) {
      b.part("D1").value("SCHOTTKY").at(30, 0).pads("5V", "SW");
    }
    b.part("C1").value("10u").at(40, 0).pads("5V", "GND");
    b.part("U2").value("SENSOR").at(50, 0).pads("5V", "GND", "OUT");
    return b.revision();
  }

  @DataProvider
  Object[][] diodes() {
    return new Object[][] {{true}, {false}};
  }

  /// Vout Iout / (efficiency Vin): 5 V · 0.1 A / (0.88 · 3.7 V) = 153.6 mA, and 1 mA of its own;
  /// what is lost, 0.5 W (1 / 0.88 - 1) = 68 mW, and 3.7 mW.
  @Test(dataProvider = "diodes")
  public void aConverterThatLifts(boolean diode) {
    Revision r = lifting(diode);
    Ladder l =
        LadderProposal.of(r, LadderSaid.read(List.of("load U2=100mA", "source VBAT=3.7V"), r));
    Ladder.Step s = l.steps().stream().filter(x -> x.part().equals("U1")).findFirst().orElseThrow();
    assertEquals(s.from() + " " + s.to(), "VBAT 5V");
    assertTrue(l.lifts(s));
    assertEquals(s.limit(), 1.0, 1e-9, "by its words");
    LadderState at = LadderState.of(l, "boot");
    double in = 5 * 0.1 / (0.88 * 3.7) + 1e-3;
    assertEquals(
        at.rails().stream()
            .filter(x -> x.rail().net().equals("VBAT"))
            .findFirst()
            .orElseThrow()
            .current(),
        in,
        1e-6);
    LadderState.RegulatorHeat heat =
        at.regulators().stream()
            .filter(x -> x.step().part().equals("U1"))
            .findFirst()
            .orElseThrow();
    assertEquals(heat.dissipation(), 0.5 / 0.88 - 0.5 + 3.7e-3, 1e-6);
    assertTrue(heat.headroom() > 0, "3.7 V is below 5 V: it lifts");
    BoardCircuit c = new BoardCircuit(r, l, List.of());
    Operating full = c.fed("boot", 1, 3.7, 10);
    assertTrue(full.settled());
    assertEquals(full.at(c.node("5V")), 5, 0.02);
    assertEquals(full.through(BoardCircuit.SUPPLY), in, in * 0.03);
    // below its start coil and diode pass the input on: less than the cell, nothing from nowhere
    double low = c.fed("boot", 1, 1.5, 10).at(c.node("5V"));
    assertTrue(low < 1.5 && low > 0.5, "at 1.5 V it passes " + low);
  }

  @Test
  public void noSupplyIsAskedForARailThatIsLifted() {
    Ladder l = LadderProposal.of(lifting(true));
    assertEquals(l.sources().stream().map(Source::rail).toList(), List.of("VBAT"));
    assertTrue(l.assumptions().toString().contains("U1 is taken to lift VBAT to 5V"));
  }

  /// A matrix of 4 rows by 6 columns: transistors above, 150 ohm and a sink below. All columns at
  /// once: 6 · (5 V - 1.9 V) / 150 ohm = 124 mA.
  private static Revision matrix() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-2").at(0, 0).holes("5V", "GND");
    String[] sinks = new String[8];
    sinks[0] = "5V";
    sinks[1] = "GND";
    for (int c = 0; c < 6; c++) {
      sinks[2 + c] = "SINK" + c;
      b.part("R" + (c + 1)).value("150R").at(5 * c, 40).pads("COL" + c, "SINK" + c);
    }
    b.part("U1").value("SINK8").shape("SO-8").at(0, 60).pads(sinks);
    for (int row = 0; row < 4; row++) {
      b.part("Q" + (row + 1)).value("PFET").at(-10, 5 * row).pads("G" + row, "5V", "ROW" + row);
      b.part("R" + (20 + row)).value("10k").at(-20, 5 * row).pads("G" + row, "5V");
      for (int c = 0; c < 6; c++) {
        b.part("D" + (1 + row * 6 + c))
            .value("WHITE")
            .at(5 * c, 5 * row)
            .pads("COL" + c, "ROW" + row);
      }
    }
    return b.revision();
  }

  @Test
  public void lampsThatAreSwitchedAreOneLoad() {
    Revision r = matrix();
    assertEquals(r.part("D1").orElseThrow().kind(), PartKind.LED, "its value is a colour");
    Ladder l = LadderProposal.of(r);
    Load lamps = l.loads().stream().filter(x -> x.part().equals("D1")).findFirst().orElseThrow();
    assertEquals(lamps.name(), "D1…D24");
    assertTrue(lamps.guessed());
    assertEquals(lamps.in("boot"), 0.0);
    assertEquals(lamps.in("worst"), 6 * 3.1 / 150, 1e-9);
    assertEquals(l.loads().stream().filter(x -> x.part().startsWith("D")).count(), 1);
    assertTrue(l.assumptions().toString().contains("otherwise: load D1="), "how to put it right");
    assertEquals(PowerJson.read(PowerJson.write(l).toString()), l);
  }

  @Test
  public void whatIsSaidOfSwitchedLampsIsDrawn() {
    Revision r = matrix();
    Ladder l = LadderProposal.of(r, LadderSaid.read(List.of("load D1=60mA"), r));
    assertFalse(l.assumptions().toString().contains("D1"), l.assumptions().toString());
    assertEquals(amps(r, l) - amps(r, LadderProposal.of(r)), 0.06, 1e-4);
  }

  private static double amps(Revision r, Ladder l) {
    BoardCircuit c = new BoardCircuit(r, l, List.of());
    return c.fed("boot", 1, 5, 10).through(BoardCircuit.SUPPLY);
  }

  /// One resistor between rail and ground: it burns at once, and is no guess.
  @Test
  public void aLampOfItsOwnIsNoneOfThem() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-2").at(0, 0).holes("5V", "GND");
    b.part("D1").value("RED").at(10, 0).pads("A", "GND");
    b.part("R1").value("330R").at(20, 0).pads("5V", "A");
    Ladder l = LadderProposal.of(b.revision());
    Load lamp = l.loads().getFirst();
    assertFalse(lamp.guessed());
    assertEquals(lamp.in("boot"), 3.1 / 330, 1e-9);
  }

  @Test
  public void sourcesWithTheirOutputs() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-2").at(0, 0).holes("12V", "GND");
    b.part("C1").value("10u").at(10, 0).pads("12V", "GND");
    b.part("J2").shape("HEADER-2").at(0, 9).holes("5V", "GND");
    b.part("J3").shape("HEADER-2").at(0, 18).holes("3V3", "GND");
    Revision r = b.revision();
    Ladder l =
        LadderProposal.of(
            r, LadderSaid.read(List.of("source J2.1=5V,channel=1", "source 3V3=3.0..3.6"), r));
    assertEquals(
        l.sources().stream().map(s -> s.rail() + " " + l.channel(s)).toList(),
        List.of("5V 1", "3V3 2", "12V 3"));
    assertEquals(l.raised().stream().map(x -> x.net()).toList(), List.of("5V", "3V3", "12V"));
    assertEquals(
        l.supplied().stream().map(x -> x.net()).toList(),
        List.of("5V", "3V3", "12V"),
        "a board is within when all of these are");
    assertEquals(PowerJson.read(PowerJson.write(l).toString()), l);
    assertTrue(
        LadderState.of(l, "boot").sheet().assumptions().toString().contains("12V on output 3"));
    for (String wrong :
        List.of("source 5V=5V,channel=0", "source 5V=5V,channel=17", "source 5V=5V,port=2")) {
      assertThrows(IllegalArgumentException.class, () -> LadderSaid.read(List.of(wrong), r));
    }
    assertThrows(
        IllegalArgumentException.class,
        () -> LadderSaid.read(List.of("source 5V=5V,channel=2", "source 12V=12V,channel=2"), r));
  }
}
