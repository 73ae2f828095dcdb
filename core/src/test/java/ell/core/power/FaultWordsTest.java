package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.circuit.Operating;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Faults in words, and what each does to a board whose currents are worked by hand: 5 V over two
/// resistors of 1 kohm, a lamp with 310 ohm beside them.
public class FaultWordsTest {
  private static Revision board() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-2").at(0, 0).holes("5V", "GND");
    b.part("C1").value("10u").at(5, 0).pads("5V", "GND");
    b.part("R1").value("1k").at(10, 0).pads("5V", "MID");
    b.part("R2").value("1k").at(20, 0).pads("MID", "GND");
    b.part("R3").value("310R").at(30, 0).pads("5V", "A");
    b.part("D1").value("RED").at(40, 0).pads("GND", "A");
    return b.revision();
  }

  private static Operating solved(BoardCircuit c) {
    return c.fed("boot", 1, 5, 10);
  }

  private static BoardCircuit circuit(String... faults) {
    Revision r = board();
    return new BoardCircuit(
        r, LadderProposal.of(r), List.of(faults).stream().map(FaultWords::parse).toList());
  }

  private static double mid(String... faults) {
    BoardCircuit c = circuit(faults);
    return solved(c).at(c.node("MID"));
  }

  @DataProvider
  Object[][] faults() {
    return new Object[][] {
      {"open R1.1", 0.0},
      {"open R2.2", 5.0},
      {"loose R2.2", 5.0},
      {"resistive R1.1 1kohm", 5 / 3.0},
      {"bridge MID GND 1kohm", 5 / 3.0},
      {"bridge R2.1 R2.2 0.01ohm", 0.0},
      {"bridge R1.2 GND 1k", 5 / 3.0},
      {"value R2 3k", 3.75},
      {"value R2 3k0", 3.75},
      {"short R2", 0.0},
      {"missing R2", 5.0},
      {"dead R2", 5.0},
      {"tied R2.1 5V", 5.0},
      {"link R1 open", 0.0},
      {"link R1 closed", 5.0},
      {"turned R1", 2.5},
      {"value C1 1u", 2.5},
      {"turned D1", 2.5},
    };
  }

  @Test(dataProvider = "faults")
  public void eachDoesWhatItSays(String words, double volts) {
    assertEquals(mid(), 2.5, 0.001, "a healthy board");
    assertEquals(mid(words), volts, 0.005, words);
    assertTrue(FaultWords.unfit(FaultWords.parse(words), board()).isEmpty(), words);
  }

  @Test
  public void severalAtOnceAndWhatTheMeterSees() {
    assertEquals(mid("resistive R1.1 1k", "value R2 2k"), 2.5, 0.001);
    BoardCircuit c = circuit("resistive R1.1 1kohm");
    Operating s = solved(c);
    assertEquals(
        s.at(c.node(board().joint("R1", "1").orElseThrow())), 10 / 3.0, 0.001, "on the lead");
    assertEquals(s.at(c.node("5V")), 5, 0.001, "on the pad");
    // unpowered: 1 k + 1 k in the joint + 1 k to ground
    assertEquals(c.unpowered().between(c.node("5V"), "GND"), 3000, 1);
    assertEquals(circuit("short C1").unpowered().between("net 5V", "GND"), 0.1, 0.01);
    assertEquals(circuit("tied R2.1 5V").unpowered().between("net 5V", "GND"), 1000, 1);
  }

  /// (5 V - 1.9 V) / 310 ohm = 10 mA, and none the other way round.
  @Test
  public void aTurnedLampIsDark() {
    double dark = solved(circuit("turned D1")).through(BoardCircuit.SUPPLY);
    assertEquals(solved(circuit()).through(BoardCircuit.SUPPLY) - dark, 0.01, 1e-4);
    assertEquals(dark, 2.5e-3, 1e-5);
  }

  @DataProvider
  Object[][] words() {
    return new Object[][] {
      {"open U3.4"},
      {"resistive J1.1 3.3ohm"},
      {"bridge U4.2 U4.3 0.5ohm"},
      {"value R5 47000"},
      {"turned D1"},
      {"dead U2"},
      {"short C9"},
      {"missing C4"},
      {"tied U6.7 3V3"},
      {"loose U1.8"},
      {"link L1 open"},
      {"link L1 closed"},
      {"setting scope ac"},
      {"setting meter current-jack"},
      {"firmware never answers"},
      {"sometimes 0.3 open U3.4"},
      {"sometimes 0.5 bridge 3V3 GND 2.2ohm"},
    };
  }

  @Test(dataProvider = "words")
  public void wordsComeBackAsTheyWere(String words) {
    Fault f = FaultWords.parse(words);
    assertEquals(FaultWords.words(f), words);
    assertEquals(FaultWords.parse(FaultWords.words(f)), f);
    assertEquals(PowerJson.readFaults("{\"07\":[\"" + words + "\"]}").get("07"), List.of(f));
  }

  @DataProvider
  Object[][] bad() {
    return new Object[][] {
      {""},
      {"open"},
      {"open U3"},
      {"open U3."},
      {"open U3.4 now"},
      {"resistive J1.1"},
      {"resistive J1.1 -3ohm"},
      {"bridge 3V3"},
      {"value R5"},
      {"value R5 much"},
      {"turned"},
      {"link L1 ajar"},
      {"setting scope"},
      {"firmware"},
      {"sometimes open U3.4"},
      {"sometimes 0 open U3.4"},
      {"sometimes 2 open U3.4"},
      {"sometimes 0.5 sometimes 0.5 dead U1"},
      {"burnt U3"},
    };
  }

  @Test(dataProvider = "bad")
  public void whatIsNoFaultIsSaid(String words) {
    IllegalArgumentException e =
        expectThrows(IllegalArgumentException.class, () -> FaultWords.parse(words));
    assertTrue(e.getMessage().contains("open U3.4") || e.getMessage().contains("chance"));
  }

  @DataProvider
  Object[][] strangers() {
    return new Object[][] {
      {"open U3.4", "no joint 'U3.4'"},
      {"dead U3", "no part 'U3'"},
      {"bridge NO GND", "no net 'NO'"},
      {"tied R1.1 NO", "no net 'NO'"},
      {"bridge R1.9 GND", "no joint 'R1.9'"},
      {"turned J1", "is not known to this bench"},
      {"setting scope dc", "has no scope"},
      {"sometimes 0.5 dead U9", "no part 'U9'"},
    };
  }

  @Test(dataProvider = "strangers")
  public void whatDoesNotFitTheBoardIsSaid(String words, String why) {
    String unfit = FaultWords.unfit(FaultWords.parse(words), board()).orElseThrow();
    assertTrue(unfit.contains(why), unfit);
  }
}
