package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.circuit.AtRest;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// A board under each kind of fault, as a small change, against the board made anew with the fault.
public class BoardVariantsTest {
  private static Revision board() {
    Boards b = new Boards();
    b.part("J1").at(0, 0).holes("VIN", "GND");
    b.part("D1").value("SK24").words("Schottky").at(5, 0).pads("VF", "VIN");
    b.part("C1").value("47u 25V").words("electrolytic").at(8, 0).pads("VF", "GND");
    b.part("U1").value("REG").words("3V3 linear").at(12, 0).pads("VF", "GND", "3V3");
    b.part("C2").value("10u 6.3V").at(16, 0).pads("3V3", "GND");
    b.part("R1").value("1k").at(20, 0).pads("3V3", "A1");
    b.part("D2").value("red").words("LED").at(24, 0).pads("GND", "A1");
    b.part("R2").value("10k").at(28, 0).pads("3V3", "MID");
    b.part("R3").value("10k").at(32, 0).pads("MID", "GND");
    b.part("U2").value("CHIP").at(40, 0).pads("3V3", "GND", "MID", "GND");
    b.part("Q1").value("N-channel").shape("SOT-23").at(44, 0).pads("MID", "GND", "SW");
    b.part("R4").value("2k2").at(48, 0).pads("3V3", "SW");
    b.part("SJ1").at(52, 0).pads("A1", "SW");
    return b.revision();
  }

  private static final Revision BOARD = board();
  private static final Ladder LADDER =
      LadderProposal.of(
          BOARD,
          LadderSaid.read(
              List.of(
                  "source VIN=9V",
                  "regulator U1=3.3V,300mA,dropout=0.4,in=VF,out=3V3",
                  "load U2=20mA"),
              BOARD));
  private static final List<Fault> STANDING = List.of(new Fault.Link("SJ1", true));

  private static BoardVariants variants() {
    return new BoardVariants(
        BOARD, LADDER, STANDING, "boot", c -> c.set(BoardCircuit.SUPPLY, 9, 0.3, true));
  }

  @DataProvider
  Object[][] faults() {
    return new Object[][] {
      {"open J1.1"},
      {"open U1.1"},
      {"open U1.2"},
      {"open U1.3"},
      {"open C2.1"},
      {"open R1.2"},
      {"open U2.2"},
      {"open U2.1"},
      {"open D2.1"},
      {"open Q1.1"},
      {"resistive J1.1 33ohm"},
      {"resistive U1.2 5ohm"},
      {"bridge 3V3 GND 0.3ohm"},
      {"bridge VF GND 20ohm"},
      {"bridge R2.2 R1.2 0.1ohm"},
      {"bridge VIN 3V3 0.1ohm"},
      {"value R1 100"},
      {"value R3 1k"},
      {"turned D1"},
      {"turned D2"},
      {"turned C1"},
      {"dead U1"},
      {"dead U2"},
      {"dead Q1"},
      {"short C2"},
      {"short D1"},
      {"short U1"},
      {"missing R2"},
      {"missing C1"},
      {"tied U2.3 GND"},
      {"tied U1.3 GND"},
      {"loose U1.1"},
      {"link SJ1 closed"},
      {"setting meter current-jack"},
      {"firmware of another board"}
    };
  }

  @Test(dataProvider = "faults")
  public void asIfTheBoardWereMadeAnew(String words) {
    Fault f = FaultWords.parse(words);
    BoardVariants v = variants();
    Optional<AtRest> quick = v.under(List.of(f));
    Optional<AtRest> anew = v.solved(List.of(f));
    assertEquals(quick.isPresent(), anew.isPresent());
    for (String net : BOARD.nets()) {
      String node = v.node(net, List.of());
      assertEquals(quick.orElseThrow().at(node), anew.orElseThrow().at(node), 1e-6, words + net);
    }
    assertEquals(
        quick.get().through(BoardCircuit.SUPPLY), anew.get().through(BoardCircuit.SUPPLY), 1e-7);
    assertEquals(quick.get().through("D2"), anew.get().through("D2"), 1e-8);
    assertEquals(quick.get().heat("U1"), anew.get().heat("U1"), 1e-6);
  }

  @Test
  public void pairsToo() {
    BoardVariants v = variants();
    List<Fault> two = List.of(FaultWords.parse("missing R2"), FaultWords.parse("open D2.2"));
    AtRest quick = v.under(two).orElseThrow();
    AtRest anew = v.solved(two).orElseThrow();
    for (String net : BOARD.nets()) {
      assertEquals(quick.at(v.node(net, List.of())), anew.at(v.node(net, List.of())), 1e-9);
    }
    assertTrue(v.healthy().settled());
  }

  @Test
  public void theLeadThatCameOff() {
    BoardVariants v = variants();
    List<Fault> open = List.of(FaultWords.parse("open R3.2"));
    String lead = v.node("R3.2", open);
    assertEquals(lead, "joint R3.2");
    // nothing flows any more, so that the lead is at the volts of the divider's top
    AtRest at = v.under(open).orElseThrow();
    assertEquals(at.at(lead), at.at(v.node("MID", List.of())), 1e-3);
    assertEquals(v.node("R3.2", List.of()), "GND");
  }

  /// By series resistors: R2 and R3 of the divider, against ground through the chip's nothing.
  @Test
  public void ohmsWithoutPower() {
    BoardVariants v = variants();
    String mid = v.node("MID", List.of());
    assertEquals(v.ohms().between(mid, "GND"), 1 / (1 / 10e3 + 1 / (10e3 + load())), 60);
    assertEquals(
        v.ohms(List.of(FaultWords.parse("bridge MID GND 5ohm"))).between(mid, "GND"), 5, 0.01);
    assertEquals(
        v.ohms(List.of(FaultWords.parse("missing R3"))).between(mid, "GND"),
        10e3 + load(),
        0.02 * (10e3 + load()));
    List<Fault> open = List.of(FaultWords.parse("open R3.1"));
    assertEquals(
        v.ohms(open).between(v.node("R3.1", open), mid),
        10e3 + 10e3 + load(),
        0.02 * (20e3 + load()));
  }

  /// A regulator may draw its own current at the volts of a meter, or nothing: what lies beside it
  /// is then read alone, here 10 kΩ.
  @Test
  public void aRegulatorThatAMeterDoesNotSee() {
    BoardVariants v = variants();
    List<Fault> leak = List.of(FaultWords.parse("bridge VF GND 10000ohm"));
    String vf = v.node("VF", List.of());
    assertEquals(v.asleep().between(vf, "GND"), Double.POSITIVE_INFINITY);
    assertEquals(v.asleep(leak).between(vf, "GND"), 10e3, 1);
    double own = v.ohms().between(vf, "GND");
    assertTrue(own > 100 && own < 1e6, "" + own);
    assertEquals(v.ohms(leak).between(vf, "GND"), 1 / (1 / 10e3 + 1 / own), 5);
  }

  /// What the rail leads to ground by itself, the regulator's own current beginning behind it.
  private static double load() {
    BoardVariants v = variants();
    return v.ohms(List.of(FaultWords.parse("missing R3"))).between(v.node("3V3", List.of()), "GND");
  }
}
