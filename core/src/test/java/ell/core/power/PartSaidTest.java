package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.circuit.Run;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What somebody says of a part goes before the bill and before what is typical: each on a board of
/// its own, against values worked by hand.
public final class PartSaidTest {
  private static Boards board() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-2").at(0, 0).holes("5V", "GND");
    b.part("C1").value("10u").at(5, 0).pads("5V", "GND");
    return b;
  }

  private static BoardCircuit circuit(Revision r, String... said) {
    Ladder l = LadderProposal.of(r, LadderSaid.read(List.of(said), r));
    assertEquals(PowerJson.read(PowerJson.write(l)), l, "kept as it is");
    return new BoardCircuit(r, l, List.of());
  }

  private static double at(BoardCircuit c, String net) {
    Operating o = c.fed("boot", 1, 5, 10);
    assertTrue(o.settled());
    return o.at(c.node(net));
  }

  @Test
  public void aTransistorOfUnknownKindIsSaid() {
    Boards b = board();
    b.part("R1").value("10k").at(10, 0).pads("5V", "G");
    b.part("R2").value("100").at(20, 0).pads("5V", "OUT");
    b.part("Q1").value("T9").shape("SOT-23").at(30, 0).pads("G", "GND", "OUT");
    Revision r = b.revision();
    assertEquals(at(circuit(r), "OUT"), 5, 0.01, "nobody says what it is");
    // 10 Ω at 3 V over its threshold, at 5 - 2 V: 5·10/110 and a little
    assertEquals(
        at(circuit(r, "part Q1=n-channel,threshold=2V,on=10ohm"), "OUT"), 5 * 10 / 110.0, 0.05);
    assertEquals(at(circuit(r, "part Q1=n-channel,threshold=5.5V"), "OUT"), 5, 0.01, "never on");
    assertTrue(at(circuit(r, "part Q1=npn,gain=200"), "OUT") < 0.2);
    assertTrue(at(circuit(r, "part Q1=npn,gain=20"), "OUT") > 4, "0.43 mA · 20 · 100 Ω is 0.9 V");
  }

  @Test
  public void aLampIsSaid() {
    Boards b = board();
    b.part("R1").value("1k").at(10, 0).pads("5V", "A");
    b.part("D1").value("D").at(20, 0).pads("GND", "A");
    Revision r = b.revision();
    // at 3 mA some 60 mV less than at 10 mA: 2 Vt ln(10/3)
    assertEquals(at(circuit(r, "part D1=lamp,forward=2.1V"), "A"), 2.04, 0.03);
    assertEquals(at(circuit(r, "part D1=schottky"), "A"), 0.27, 0.04);
    assertEquals(at(circuit(r, "part D1=diode,forward=0.9V"), "A"), 0.86, 0.03);
  }

  @Test
  public void aRegulatorWithItsEnableAndItsFoldback() {
    Boards b = board();
    b.part("U1").value("REG").shape("SOT-23-5").at(10, 0).pads("5V", "GND", "EN", "X", "3V3");
    b.part("C2").value("1u").at(15, 0).pads("3V3", "GND");
    b.part("R1").value("10k").at(20, 0).pads("EN", "GND");
    b.part("R3").value("1").at(30, 0).pads("3V3", "GND");
    Revision r = b.revision();
    String gives = "regulator U1=3.3V,600mA,dropout=0.3,in=5V,out=3V3";
    // 1 Ω holds it at its limit
    assertEquals(at(circuit(r, gives), "3V3"), 0.6, 0.01);
    assertEquals(at(circuit(r, gives, "part U1=enable=3"), "3V3"), 0, 0.01, "nobody enables it");
    double folded = at(circuit(r, gives, "part U1=foldback=0.25"), "3V3");
    assertTrue(
        folded > 0.14 && folded < 0.35, "between a quarter and half of its limit: " + folded);
    Boards up = board();
    up.part("U1").value("REG").shape("SOT-23-5").at(10, 0).pads("5V", "GND", "EN", "X", "3V3");
    up.part("R1").value("10k").at(20, 0).pads("EN", "5V");
    up.part("R3").value("33").at(30, 0).pads("3V3", "GND");
    assertEquals(at(circuit(up.revision(), gives, "part U1=enable=3"), "3V3"), 3.3, 0.02);
  }

  /// 3 V behind 2 Ω into 10 Ω: 2.5 V, without any supply; and less as it empties: after half of its
  /// 100 C it has 2.5 V of its own.
  @Test
  public void aCellFeedsTheBoard() {
    Boards b = board();
    b.part("BT1").value("coin").at(10, 0).pads("VB", "GND");
    b.part("R1").value("10").at(20, 0).pads("VB", "GND");
    Revision r = b.revision();
    BoardCircuit c = circuit(r, "part BT1=cell,empty=2V,full=3V,ohms=2,charge=100C");
    Circuit m = c.alone("boot", 1);
    Run run = m.run();
    run.on(1e-3);
    assertEquals(run.at(c.node("VB")), 2.5, 0.001);
    // i = own/12, own' = -i/100: own = 3·exp(-t/1200)
    run.on(240);
    assertEquals(run.at(c.node("VB")), 2.5 * Math.exp(-0.2), 0.002);
  }

  @Test
  public void whatCapacitorsAndFusesAreSaidToBe() {
    Boards b = board();
    b.part("C2").value("100u").at(10, 0).pads("5V", "GND");
    b.part("F1").value("fuse").at(20, 0).pads("5V", "VF");
    b.part("R1").value("10").at(30, 0).pads("VF", "GND");
    Revision r = b.revision();
    assertEquals(at(circuit(r, "part F1=ohms=2.5"), "VF"), 4, 0.01);
    Ladder l = LadderProposal.of(r, LadderSaid.read(List.of("part C2=volts=6.3V,series=1ohm"), r));
    assertEquals(
        Ratings.of(r, l, new BoardCircuit(r, l, List.of())).all().stream()
            .filter(x -> x.part().equals("C2"))
            .map(Rating::most)
            .toList(),
        List.of(6.3));
  }

  @DataProvider
  Object[][] wrong() {
    return new Object[][] {
      {"Q1=transistor", "'transistor' is no kind; there are diode"},
      {"Q1=npn,pnp", "'pnp' is no kind"},
      {"Q1=npn,beta=100", "'beta' is not known here"},
      {"Q1=npn,gain=0", "'0' is no gain: it is above 0"},
      {"Q1=npn,gain=many", "many"},
      {"Q1=n-channel,threshold=1A", "expected V"},
      {"Q9=npn", "has no part 'Q9'"},
      {"Q1=enable=9", "Q1 has no pin '9'"},
      {"Q1=foldback=2", "above 0 and up to 1"},
      {"Q1=cell,full=3V", "a cell has empty, full and charge"},
      {"Q1=cell,full=3V,empty=4V,charge=1C", "more volts"},
      {"Q1", "nothing is said"},
    };
  }

  @Test(dataProvider = "wrong")
  public void whatIsNotUnderstoodIsSaid(String answer, String words) {
    Boards b = board();
    b.part("Q1").value("T9").shape("SOT-23").at(30, 0).pads("5V", "GND", "OUT");
    Revision r = b.revision();
    String said =
        expectThrows(
                IllegalArgumentException.class, () -> LadderSaid.read(List.of("part " + answer), r))
            .getMessage();
    assertTrue(said.contains(words), said);
  }

  @Test
  public void aLaterWordReplacesAnEarlierOne() {
    Boards b = board();
    b.part("Q1").value("T9").shape("SOT-23").at(30, 0).pads("5V", "GND", "OUT");
    Revision r = b.revision();
    Map<String, PartSaid> said =
        LadderSaid.read(List.of("part Q1=npn", "part q1=pnp,gain=90"), r).parts();
    assertEquals(said.size(), 1);
    assertEquals(said.get("Q1").kind(), "pnp");
    assertEquals(said.get("Q1").number("gain").getAsDouble(), 90.0);
  }
}
